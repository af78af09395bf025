"""Every sheet of a project: the cut list, boards, milling, a bench sheet per part, the corner template."""

from __future__ import annotations

from collections.abc import Iterator
from datetime import datetime

from nullah.core.bench.cutlist import CutGroup, grouped, price_of, volumes
from nullah.core.card import Card, Remark
from nullah.core.catalogue import N_
from nullah.core.drawing import (
    Anchor,
    Dimension,
    Drawing,
    Element,
    Fill,
    Label,
    Path,
    Role,
    drawing,
    grain_lines,
    line,
    rectangle,
    wrapped,
)
from nullah.core.joints import views
from nullah.core.joints.dovetail.corners import Corner
from nullah.core.joints.steps import shaped
from nullah.core.lengths import Direction
from nullah.core.operations.operation import Operation
from nullah.core.piece.frames import frames_of
from nullah.core.piece.part import Part
from nullah.core.plan import Plan
from nullah.core.rack.board import write_price
from nullah.core.refs import PartRef, QuantityRef
from nullah.core.sheets.boards import board_sheets, buying_sheets
from nullah.core.sheets.day import book_sheets, day_sheets, shop_sheets
from nullah.core.sheets.face_templates import face_templates
from nullah.core.sheets.joints import joint_sheets
from nullah.core.sheets.milling import milling_sheets
from nullah.core.sheets.page import (
    MARGIN,
    PAGE,
    Sheet,
    SheetKind,
    card_on_pages,
    card_on_paper,
    check_scale,
    cut_to_band,
    heading,
    paragraph,
)
from nullah.core.sheets.shape_templates import shape_templates
from nullah.core.sheets.story_stick import story_stick_sheets
from nullah.core.sheets.wrap import wrap_sheets
from nullah.core.stations.operation_picture import draw_operations, room_above
from nullah.core.wording.card import worded
from nullah.core.wording.facts import fact_words
from nullah.core.wording.operations import alike_operations, operation_settings, operation_words, step_words
from nullah.core.wording.sheets import (
    CANNOT_BE,
    CORNER_TEMPLATE,
    CUT_LIST,
    baseline_setting,
    boards_note,
    cut_list_foot,
    face_edge_words,
    finished_note,
    groove_setting,
    join_note,
    leave_remark,
    marks_note,
    milling_steps,
    paged,
    part_title,
    pins_step,
    print_note,
    reach_setting,
    rough_setting,
    short_remark,
    size_settings,
    tail_settings,
    tails_step,
    template_titles,
    waits_note,
)
from nullah.core.work.cut_list import cut_list
from nullah.core.work.joint_work import steps_of_corner

_WIDE = PAGE[0] - 2 * MARGIN


def all_sheets(plan: Plan, now: datetime | None = None) -> tuple[Sheet, ...]:
    """Return every sheet a plan can have; a piece that cannot be made has one that says why.

    Parameters
    ----------
    plan : Plan
    now : datetime, optional
        From when on the days are planned; None: from the last entry of the book, or when work is to begin.
    """
    if not plan.parts:
        return (_cannot(plan),)
    sheets = [*_cut_list_sheets(plan)]
    sheets += [sheet for board in plan.boards if board.placed for sheet in board_sheets(plan, board)]
    sheets += milling_sheets(plan)
    sheets += buying_sheets(plan)
    sheets += [sheet for part in plan.parts for sheet in part_sheets(plan, part)]
    sheets += joint_sheets(plan)
    sheets += wrap_sheets(plan)
    sheets += face_templates(plan)
    sheets += shape_templates(plan)
    sheets += story_stick_sheets(plan)
    sheets += template_sheets(plan)
    sheets += shop_sheets(plan)
    sheets += day_sheets(plan, now)
    sheets += book_sheets(plan)
    return tuple(sheets)


def _cannot(plan: Plan) -> Sheet:
    title = plan.reader.text(CANNOT_BE)
    found = heading(plan.project.piece.name, title, "")
    y = 30.0
    for remark in plan.remarks:
        words, y = paragraph(fact_words(remark.fact, plan.reader), MARGIN, y, _WIDE, 4.0)
        found += words
    return Sheet("piece", title, drawing(found))


#: So many letters of a name, a wood and a note stand in a line of the cut list.
_NAME_LETTERS, _WOOD_LETTERS, _NOTE_LETTERS = 30, 17, 104
#: How far down a page the cut list goes, mm: below it stands what it comes to.
_CUT_LIST_FOOT = PAGE[1] - 35


def _cut_list_sheets(plan: Plan) -> Iterator[Sheet]:
    """Make the cut list, equal parts together, over as many pages as it takes."""
    groups = list(grouped(cut_list(plan)))
    filled: list[list[CutGroup]] = [[]]
    for group in groups:
        if _cut_list_rows(plan, [*filled[-1], group], []) > _CUT_LIST_FOOT:
            filled.append([])
        filled[-1].append(group)
    pages = len(filled)
    for number, shown in enumerate(filled):
        note, title = paged(finished_note(plan.reader), number + 1, pages, plan.reader), plan.reader.text(CUT_LIST)
        found = heading(plan.project.piece.name, title, note)
        y = _cut_list_rows(plan, shown, found)
        if number == pages - 1:
            found += _cut_list_foot(plan, groups, y)
        yield Sheet("cut-list" if number == 0 else f"cut-list-page{number + 1}", title, drawing(found))


def _cut_list_rows(plan: Plan, groups: list[CutGroup], found: list[Element]) -> float:
    write, up = plan.marks.write, Direction.UP
    columns = (
        (0, N_("No.")),
        (9, N_("Part")),
        (62, N_("Length")),
        (80, N_("Width")),
        (96, N_("Thick")),
        (112, N_("Rough L × W × T")),
        (150, N_("Wood")),
    )
    y = 28.0
    for x, title in columns:
        found.append(Label((MARGIN + x, y), plan.reader.text(title), 3.0, Anchor.START, Role.FAINT, running=True))
    for group in groups:
        row = group.rows[0]
        y += 8
        rough = " × ".join(
            (
                write(row.rough_length, up, unit=False),
                write(row.rough_width, up, unit=False),
                write(row.rough_thickness, up, unit=False),
            )
        )
        rough = f"{row.pieces} × ({rough})" if row.pieces > 1 else rough
        figures = (
            [f"{group.quantity} ×"],
            wrapped(plan.reader.name_together(group.names), _NAME_LETTERS),
            [write(row.cut_length, unit=False)],
            [write(row.width, unit=False)],
            [write(row.thickness, unit=False)],
            [rough],
            wrapped(plan.reader.text(row.species), _WOOD_LETTERS),
        )
        for (x, _), lines in zip(columns, figures, strict=True):
            for at, text in enumerate(lines):
                found.append(Label((MARGIN + x, y + 4 * at), text, 3.2, Anchor.START, bold=x == 9, running=True))
        y += 4 * (max(len(lines) for lines in figures) - 1)
        over = waits_note(plan.reader.left_over(*row.over), row.waits, plan.reader) if row.waits else ""
        notes = [over, boards_note(sorted({each.board for each in group.rows if each.board}), plan.reader)]
        told = "; ".join(note for note in notes if note)
        for text in wrapped(told, _NOTE_LETTERS) if told else ():
            y += 4
            role = Role.FLAW if row.waits else Role.FAINT
            found.append(Label((MARGIN + 9, y), text, 2.6, Anchor.START, role, running=True))
        found.append(line((MARGIN, y + 3.4), (PAGE[0] - MARGIN, y + 3.4), Role.FAINT))
    return y


def _cut_list_foot(plan: Plan, groups: list[CutGroup], y: float) -> list[Element]:
    text = cut_list_foot(
        sum(group.quantity for group in groups),
        len(groups),
        volumes(group for group in groups),
        write_price(price_of(groups)),
        any(part.spare for part in plan.parts),
        plan.reader,
    )
    words, _ = paragraph(text, MARGIN, y + 8, _WIDE, 3.0, Role.FAINT)
    return words


def part_sheets(plan: Plan, part: Part) -> Iterator[Sheet]:
    """Yield the pages of one part's bench sheet: its face with all that is marked on it, and its settings."""
    title = f"{part.number}  {part.name.capitalize()}"
    name = f"part-{part.number}-{part.id}"
    shaping = _shaping(plan, part)
    picture, y = _shaped_part(plan, part, shaping) if shaping else _plain_part(plan, part)
    pages = card_on_pages(worded(_part_card(plan, part), plan.reader), MARGIN, y, _WIDE)
    for page, words in enumerate(pages, start=1):
        said = paged(plan.reader.text(plan.species_of(part)), page, len(pages), plan.reader)
        yield Sheet(
            name if page == 1 else f"{name}-page{page}",
            title,
            drawing(heading(plan.project.piece.name, title, said), picture.elements if page == 1 else (), words),
            SheetKind.PART,
        )


def _shaping(plan: Plan, part: Part) -> tuple[Operation, ...]:
    """Return how a part is shaped when its joints are cut."""
    return shaped(frames_of(plan.assembly)[part.id], plan.marks) or ()


def _plain_part(plan: Plan, part: Part) -> tuple[Drawing, float]:
    """Draw a part's face on a page; and return where the drawing ends, mm."""
    length, width = float(part.cut_length), float(part.width)
    scale = min((_WIDE - 24) / length, 80 / width)
    return _part_face(plan, part).moved(MARGIN + 12, 40, scale), 40 + width * scale + 24


def _shaped_part(plan: Plan, part: Part, shaping: tuple[Operation, ...]) -> tuple[Drawing, float]:
    """Draw a part with what is taken off it in three views, on a page; and return where the drawing ends, mm."""
    figure = draw_operations(shaping, plan.reader, plan.species_of(part))
    above = room_above(figure)
    corners = [point for each in figure.elements if isinstance(each, Path) for point in each.points]
    wide, high = max(x for x, _ in corners), max(y for _, y in corners)
    scale = min((_WIDE - 60) / wide, 84 / high, 1.0)
    top = 30 + above
    return figure.moved(MARGIN + 42, top, scale), top + high * scale + 14


def _part_face(plan: Plan, part: Part) -> Drawing:
    """Draw a part's outside face with baselines, tails or sockets, groove, and its face marks."""
    length, width = float(part.cut_length), float(part.width)
    elements: list[Element] = [
        rectangle(0, 0, length, width, fill=Fill.WOOD, species=plan.species_of(part), ref=PartRef(part.id)),
        *grain_lines(0, 0, length, width, part.name, ref=PartRef(part.id)),
    ]
    if any(part.id in (*corner.tail_boards, *corner.pin_boards) for corner in plan.corners):
        elements += _joinery(plan, part, length, width)
    write = plan.marks.write
    elements += [
        Dimension((0, 0), (length, 0), write(part.cut_length), 6),
        Dimension((0, width), (0, 0), write(part.width), 6),
        # Face side: a loop; face edge: a tick at the edge it refers to.
        Label((length * 0.5, width * 0.45), part_title(part.number, part.name, plan.reader), 3.4, bold=True),
        Label((length * 0.5, width), face_edge_words(plan.reader), 2.8, role=Role.PENCIL, nudge_mm=(0, 3)),
    ]
    return drawing(elements)


def _joinery(plan: Plan, part: Part, length: float, width: float) -> list[Element]:
    corner = plan.corner_of(part.id)
    if corner is None:
        return []
    layout = corner.layout
    tails = part.id in corner.tail_boards
    base = float(layout.gauge_tail_board if tails else layout.gauge_pin_board)
    found: list[Element] = []
    for at, way in ((0.0, 1.0), (length, -1.0)):
        found.append(line((at + way * base, 0), (at + way * base, width), Role.GAUGE))
        if layout.tail_base.mm <= 0:
            continue
        shapes = views.between_tails(layout, base) if tails else views.sockets(layout, base)
        for shape in shapes:
            corners = tuple((at + way * inward, width - level) for inward, level in shape)
            found.append(Path(corners, Role.KNIFE, closed=True, fill=Fill.WASTE))
    levels = corner.groove[:2] if corner.groove else ()
    found += [line((0, width - float(level)), (length, width - float(level)), Role.HIDDEN) for level in levels]
    return found


def _part_card(plan: Plan, part: Part) -> Card:
    reader, over = plan.reader, plan.left_over(part)
    rough, board, forecast = plan.rough_part(part.id), plan.board_of(part.id), plan.forecast_of(part.id)
    settings = list(size_settings((part.cut_length, part.width, part.thickness), over, reader))
    if rough is not None:
        sizes = (rough.length, rough.width, rough.thickness)
        settings.append(rough_setting(sizes, board.board.name if board else "", reader))
    if forecast is not None:
        settings.append(reach_setting(forecast.reach, forecast.cut_first_chosen, reader))
    steps = list(milling_steps(reader))
    remarks: list[Remark] = []
    corner = plan.corner_of(part.id)
    if corner is not None and part.id in corner.tail_boards:
        settings += tail_settings(corner.layout, reader)
        steps.append(tails_step(reader))
    if corner is not None and part.id in corner.pin_boards:
        settings.append(baseline_setting(corner.layout.gauge_pin_board, reader))
        steps.append(pins_step(reader))
    if corner is not None and corner.groove and part.id in (*corner.tail_boards, *corner.pin_boards):
        settings.append(groove_setting(*corner.groove, reader))
        remarks += [remark for remark in corner.remarks if remark.ref == QuantityRef(f"{corner.groove_name}height")]
    shaping = _shaping(plan, part)
    settings += operation_settings(shaping, plan.reader)
    steps += [operation_words(alike, plan.reader) for alike in alike_operations(shaping)]
    if any(over):
        measured = reader.listed(reader.title(name) for name in plan.waiting(part))
        remarks.append(leave_remark(reader.left_over(*over), measured, reader))
    if forecast is not None and forecast.short.mm > 0:
        remarks.append(short_remark(forecast.short, reader))
    return Card(part.name, tuple(settings), tuple(steps), tuple(remarks))


def template_sheets(plan: Plan) -> tuple[Sheet, ...]:
    """Make the 1:1 template of the corner, over as many pages as its height takes.

    On every page stand a check scale and, where a page ends, the height it ends at.
    """
    return tuple(
        sheet for number, corner in enumerate(plan.corners, start=1) for sheet in _templates(plan, corner, number)
    )


def _templates(plan: Plan, corner: Corner, kind: int) -> tuple[Sheet, ...]:
    if corner.layout.tail.mm <= 0:
        return ()
    layout = corner.layout
    tail, pin = plan.part(corner.tail_boards[0]), plan.part(corner.pin_boards[0])
    if tail is None or pin is None:
        return ()
    levels = corner.groove[:2] if corner.groove else ()
    show = min(80.0, max(40.0, float(layout.gauge_tail_board) + 20))
    face = drawing(views.tail_board_face(layout, show, levels, "", tail.id), views.mark_scale(layout, plan.marks, 2))
    end = drawing(views.pin_board_end(layout, "", pin.id))
    both = face.moved(MARGIN + show, 0) + end.moved(MARGIN + show + 40, 0)
    height = float(layout.spec.width)
    room = PAGE[1] - 118
    pages = max(1, -(-int(height) // int(room)))
    band = height / pages
    return tuple(_template_page(plan, corner, kind, both, show, band, number, pages) for number in range(pages))


def _template_page(
    plan: Plan, corner: Corner, kind: int, both: Drawing, show: float, band: float, number: int, pages: int
) -> Sheet:
    title = plan.reader.text(CORNER_TEMPLATE)
    page = paged(print_note(plan.reader), number + 1, pages, plan.reader)
    found: list[Element] = heading(plan.project.piece.name, title, page)
    found += check_scale(MARGIN, 30)
    top = 58.0
    piece = cut_to_band(both, number * band, (number + 1) * band).moved(0, top - number * band)
    tail, pin = plan.part(corner.tail_boards[0]), plan.part(corner.pin_boards[0])
    tails, end = template_titles(tail.name if tail else "", pin.name if pin else "", plan.reader)
    found.append(Label((MARGIN + show / 2, top - 5), tails, 3.0, role=Role.FAINT))
    found.append(Label((MARGIN + show + 46, top - 5), end, 3.0, role=Role.FAINT))
    if pages > 1:
        for level in (top, top + band):
            found.append(line((MARGIN - 8, level), (MARGIN + show + 70, level), Role.FAINT))
        found.append(Label((PAGE[0] - MARGIN, top + 4), join_note(plan.reader), 2.6, Anchor.END, Role.FAINT))
    x = MARGIN + show + 74
    steps = steps_of_corner(plan, corner)
    settings = operation_settings([each for step in steps for each in step.operations], plan.reader)
    found.append(Label((x, top - 5), marks_note(plan.reader), 2.6, Anchor.START, Role.FAINT, running=True))
    y = top
    for setting in settings:
        found.append(Label((x, y + 3), setting.tool, 2.8, Anchor.START, Role.FAINT, running=True))
        found.append(Label((x, y + 8.5), setting.figure, 5.0, Anchor.START, bold=True, running=True))
        words, _ = paragraph(setting.note, x, y + 11, PAGE[0] - MARGIN - x, 2.5, Role.FAINT)
        found += words
        y += 16
    texts = tuple(step_words(step, plan.reader) for step in steps)
    told, foot = card_on_paper(worded(Card("", mark=texts), plan.reader), MARGIN, max(top + band + 8, y), _WIDE)
    if number == 0 and foot < PAGE[1] - MARGIN:
        found += told
    suffix = (f"-{kind}" if kind > 1 else "") + (f"-page{number + 1}" if pages > 1 else "")
    shown = drawing(found, piece.elements)
    return Sheet(f"corner-template{suffix}", title, shown, SheetKind.TEMPLATE, tail.name if tail else "")
