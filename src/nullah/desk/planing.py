"""The planing bench: the plan played on the board in hand, or the board planed by hand and tested."""

from __future__ import annotations

import time
from collections.abc import Iterator

from PySide6.QtCore import QRectF, QSize, Qt, QTimer
from PySide6.QtGui import QColor, QHideEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QVBoxLayout, QWidget

from nullah.core.catalogue import N_
from nullah.core.drawing import Anchor, Drawing, Element, Fill, Label, Path, Role, drawing, line
from nullah.core.forecasts import Stock
from nullah.core.ledger import QuantityKind
from nullah.core.lengths import from_float
from nullah.core.milling.decide import BoardFace
from nullah.core.milling.faces import survey_of
from nullah.core.milling.job import FaceWork, Job, face_work_on
from nullah.core.milling.planing import Stroke
from nullah.core.milling.sighting import Eye, sight
from nullah.core.milling.strokes import FlatteningStage, Played, play
from nullah.core.milling.trial import (
    FaceOf,
    Trial,
    UnderEdge,
    found_in,
    levelled,
    set_of,
    start_trial,
    under_straightedge,
)
from nullah.core.named_tuple import NamedTuple
from nullah.core.shop import PlaneKind
from nullah.core.stations.stock import selected_job, stock_name
from nullah.core.wood.species import SpeciesError, find_species
from nullah.core.wording.strokes import stage_words
from nullah.core.wording.trial import trial_words
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.planing_board import Place, PlaningBoard
from nullah.desk.stations.base import action, chooser, labelled
from nullah.desk.stations.group import ViewChoices
from nullah.desk.text_label import TextLabel
from nullah.instruments.shape_gauges import SimulatedGauges
from nullah.language import tr, tr_pairs
from nullah.paper.painter import extent, paint
from nullah.paper.palette import DAY, Palette
from nullah.paper.scale import Scale

# How often the picture moves on, and how much of that time strokes may take, ms.
#: No shaving is thicker, mm.
_MOST_SHAVING = 2.0
_TICK_MS, _BUDGET_MS = 40, 24.0
_SPEEDS = [("1", N_("slow")), ("4", N_("quick")), ("400", N_("as fast as it goes"))]
_FACES = [("first", N_("face side")), ("second", N_("second face"))]
_BOARDS = [("survey", N_("as surveyed")), ("truth", N_("as it really is (made up)"))]
_HANDS = [("plane", N_("the plane")), ("edge", N_("the straightedge")), ("sticks", N_("the winding sticks"))]
_HEIGHTS = 40  # profiles are drawn so many times too high


class _Testing(QWidget):
    """What straightedge or sticks show, drawn below the board."""

    def __init__(self) -> None:
        super().__init__()
        self.palette_: Palette = DAY
        self.shown = Drawing()
        self.setMinimumHeight(110)
        self.setAccessibleName(tr("What the straightedge or the sticks show"))

    def sizeHint(self) -> QSize:
        return QSize(640, 190)

    def show_drawing(self, shown: Drawing) -> None:
        """Show a drawing, as large as there is room."""
        self.shown = shown
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(self.palette_.sheet))
        if self.shown.elements:
            left, top, right, bottom = self.shown.bounds()
            wide, high = max(right - left, 1.0), max(bottom - top, 1.0)
            per_mm = min((self.width() - 60) / wide, (self.height() - 44) / high)
            taken = extent(self.shown, Scale(per_mm, 4.5))
            shift = QRectF(self.rect()).center() - taken.center()
            paint(painter, self.shown, Scale(per_mm, 4.5, (shift.x(), shift.y())), self.palette_)
        else:
            painter.setPen(QColor(self.palette_.quiet))
            words = tr("Take the straightedge or the winding sticks in hand and lay them on the board to test it.")
            room = self.rect().adjusted(24, 8, -24, -8)
            painter.drawText(room, int(Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap), words)
        painter.end()


class _Before(NamedTuple):
    trial: Trial
    stroke: Stroke | None


class PlaningPage(QWidget):
    """Plays the stroke plan, or lets one plane and test by hand; says how it stands against the plan."""

    def __init__(self, document: Document, choices: ViewChoices) -> None:
        super().__init__()
        self._document, self.choices = document, choices
        self.palette_: Palette = DAY
        self.gauges = SimulatedGauges()
        self.trial: Trial | None = None
        self.stages: tuple[FlatteningStage, ...] = ()
        self._made_for: tuple[object, ...] = ()
        self._before: list[_Before] = []
        self._last: Stroke | None = None
        self._playing: Iterator[Played] | None = None
        self._at: Played | None = None
        self._strokes_due: Iterator[Stroke] | None = None
        self._timer = QTimer(self)
        self._timer.setInterval(_TICK_MS)
        self._timer.timeout.connect(self._tick)
        self._make()

    def _make(self) -> None:
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 8, 14, 8)
        self.board = PlaningBoard()
        first, second = self.choices.section(tr("Planing")), self.choices.section(tr("In hand"))
        self.face = chooser(
            tr("which face is planed"), tr_pairs(_FACES), lambda _: self.begin(), first, tr("Plane the")
        )
        self.on = chooser(tr("which board is planed"), tr_pairs(_BOARDS), lambda _: self.begin(), first, tr("Board"))
        self.play = self.choices.verb(tr("Play the plan"), self.play_plan, main=True)
        self.halt = self.choices.verb(tr("Stop"), self.stop)
        self.back = self.choices.verb(tr("Take back"), self.take_back)
        self.speed = chooser(tr("how fast it is played"), tr_pairs(_SPEEDS), lambda _: None, first, tr("Speed"))
        self.speed.setCurrentIndex(1)
        action(tr("Begin again"), self.begin, first)
        self.hand = chooser(tr("what is in hand"), tr_pairs(_HANDS), lambda _: self._show_hand(), second, tr("In hand"))
        self.kind = chooser(tr("plane in hand"), [], lambda _: self._show_set(), second, tr("plane"))
        self.set = ValueField(tr("set of the plane"), QuantityKind.LENGTH, width=60)
        self.set.line.setMaximumWidth(74)
        self.set.entered.connect(lambda _: self.board.setFocus())
        labelled(tr("set to"), self.set, second)
        self.one_more = action(tr("Stroke again"), self.stroke_again, second)
        self.whole_set = action(tr("A whole set like it"), self.stroke_set, second)
        self.board.dragged.connect(self._dragged)
        self.board.again.connect(self.stroke_again)
        column.addWidget(self.board, 3)
        self.testing = _Testing()
        column.addWidget(self.testing, 2)
        self.words = TextLabel(wraps=True)
        self.words.setAccessibleName(tr("How it stands"))
        self.sentence = TextLabel(wraps=True, quiet=True)
        column.addWidget(self.words)
        column.addWidget(self.sentence)
        self.setFocusProxy(self.board)

    def hideEvent(self, event: QHideEvent) -> None:
        # Whoever looks elsewhere does not want it to go on.
        self.stop()
        super().hideEvent(event)

    def take_pointer(self) -> None:
        """Put a pointer on the face that keys move, or take it away."""
        self.board.take_pointer()

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self.palette_ = self.testing.palette_ = palette
        self.board.set_palette(palette)
        self.testing.update()

    # --- the board ---

    @property
    def work(self) -> tuple[Stock, Job, FaceWork] | None:
        """The stock in hand, its job, and the face that is planed."""
        found = selected_job(self._document.plan, self._document.selection)
        if found is None:
            return None
        stock, job = found
        return stock, job, job.faces[0 if self.face.currentData() == "first" else 1]

    def refresh(self) -> None:
        """Take what the document holds now; a board that is being planed stays as it is."""
        found = self.work
        planes = self._document.project.shop.planes
        kinds = [(plane.kind.value, tr(plane.kind.value)) for plane in planes]
        if kinds != [(self.kind.itemData(i), self.kind.itemText(i)) for i in range(self.kind.count())]:
            self.kind.clear()
            for value, text in kinds:
                self.kind.addItem(text, value)
            self._show_set()
        self.set.set_unit(self._document.project.marks.unit)
        made_for = (None,) if found is None else (found[0], planes, found[1].thickness)
        if made_for != self._made_for:
            self._made_for = made_for
            self.begin()
        marks = self._document.project.marks
        self.board.write = marks.write_short
        if not self._timer.isActive():
            self._show()
        self._show_buttons()

    def begin(self) -> None:
        """Lay the board on the bench as it came."""
        self.stop()
        self._before.clear()
        self._last = self._at = None
        self._playing = self._strokes_due = None
        found = self.work
        if found is None:
            self.trial, self.stages = None, ()
            self.board.show_work(None, 1.0)
            self.words.setText("")
            self.sentence.setText("")
            return
        stock, job, face = found
        if self.on.currentData() == "truth":
            truth = levelled(self.gauges.truth(stock.board), survey_of(stock.board))
            rect = stock.rect
            face = face_work_on(job, face, truth.part(rect.x, rect.end, rect.y, rect.top))
        self.stages = job.face(face.face).stages
        self.trial = start_trial(face.work)
        self.board.tone = _tone(stock.board.species)
        self.board.stroke = self.board.laid = None
        self.testing.show_drawing(Drawing())
        lies = (
            tr("upper face up") if face.face is BoardFace.UPPER else tr("lower face up, turned over about its length")
        )
        self.sentence.setText(
            tr(
                "{board}, {lies}. Shades and lines: height above the line.",
                board=stock_name(self._document.plan, stock),
                lies=lies,
            )
        )
        self._show()

    def _show(self) -> None:
        trial = self.trial
        if trial is None:
            return
        self.board.show_work(trial.work, float(trial.start.heights.max()))
        marks = self._document.project.marks
        write, chips = marks.write_thin, marks.write_chips(trial.shaved)
        stands = tr(
            "highest {highest} above the line, lowest {lowest}",
            highest=write(trial.highest),
            lowest=write(trial.lowest),
        )
        said = tr(
            "{strokes} strokes · {chips} of shavings · {lost} gone · {stands}",
            strokes=trial.strokes,
            chips=chips,
            lost=write(trial.lost),
            stands=stands,
        )
        stage = ""
        if self._at is not None and self._playing is not None:
            playing = self.stages[self._at.stage]
            stage = f"{stage_words(playing, self._at.set + 1, self._document.plan.reader)} "
        self.words.setText(f"{stage}{said}\n{trial_words(found_in(trial, self.stages), self._document.plan.reader)}")
        self._show_buttons()

    def _show_buttons(self) -> None:
        there, playing = self.trial is not None, self._timer.isActive()
        self.play.setEnabled(there and bool(self.stages) and not playing)
        self.halt.setEnabled(playing)
        self.back.setEnabled(bool(self._before) and not playing)
        for button in (self.one_more, self.whole_set):
            button.setEnabled(self._last is not None and not playing)

    # --- playing ---

    def play_plan(self) -> None:
        """Play the plan from where the board stands."""
        if self.trial is None or not self.stages:
            return
        if self._playing is None:
            self._before.append(_Before(self.trial, self._last))
            self._playing = play(self.trial.work, self.stages)
        self._timer.start()
        self._show_buttons()

    def stop(self) -> None:
        """Stop; Play goes on from there."""
        self._timer.stop()
        self._show_buttons()

    def _tick(self) -> None:
        """Make as many strokes as fit between two pictures."""
        most = int(self.speed.currentData())
        until = time.perf_counter() + _BUDGET_MS / 1000
        for number in range(most):
            if number and time.perf_counter() > until:
                break
            if not self._go_on():
                self._timer.stop()
                break
        self._show()

    def _go_on(self) -> bool:
        """Make the next stroke of what is being played; say whether there was one."""
        if self.trial is None:
            return False
        if self._strokes_due is not None:
            stroke = next(self._strokes_due, None)
            if stroke is None:
                self._strokes_due = None
                return self._playing is not None
            self.trial, _ = self.trial.stroked(stroke)
            self.board.stroke = stroke
            return True
        if self._playing is None:
            return False
        self._at = next(self._playing, None)
        if self._at is None:
            self._playing = None
            self.board.stroke = None
            return False
        self.trial = self.trial.counted(self._at.work, self._at.shaving)
        self.board.stroke = self._at.stroke
        return True

    def play_out(self, most: int = 100_000) -> None:
        """Play to the end, or so many strokes, at once: for pictures."""
        self.play_plan()
        self._timer.stop()
        for _ in range(most):
            if not self._go_on():
                break
        self._show()

    # --- by hand ---

    def _show_hand(self) -> None:
        self.board.laid = None
        self.board.stroke = None
        self.testing.show_drawing(Drawing())
        self.board.update()

    def _show_set(self) -> None:
        plane = self._document.project.shop.plane(*self._kind())
        if plane is not None:
            self.set.show_value(self._document.project.marks.write_short(float(plane.shaving), unit=True))

    def _kind(self) -> tuple[PlaneKind, ...]:
        value = self.kind.currentData()
        return (PlaneKind(str(value)),) if value else ()

    def _dragged(self, start: Place, end: Place) -> None:
        if self.trial is None or self._timer.isActive():
            return
        hand = self.hand.currentData()
        if hand == "plane":
            self._stroke(start, end)
        elif hand == "edge":
            self.lay_edge(start, end)
        else:
            self._lay(start, end, self._sighted(start, end))

    def lay_edge(self, start: Place, end: Place) -> None:
        """Lay the straightedge on the face."""
        self._lay(start, end, self._under_edge(start, end))

    def _lay(self, start: Place, end: Place, shown: Drawing) -> None:
        self.board.laid, self.board.stroke = (start, end), None
        self.testing.show_drawing(shown)
        self.board.update()

    def _stroke(self, start: Place, end: Place) -> None:
        plane = self._document.project.shop.plane(*self._kind())
        set_to = self.set.length()
        if plane is None or set_to is None:
            return
        if not 0 < float(set_to) <= _MOST_SHAVING:
            self.set.complain(
                tr("A shaving of up to {most}.", most=self._document.project.marks.write_bare(_MOST_SHAVING))
            )
            return
        self._make_stroke(Stroke(start, end, plane, float(set_to)))

    def _make_stroke(self, stroke: Stroke) -> None:
        assert self.trial is not None
        self._before.append(_Before(self.trial, self._last))
        # What is played later begins anew from here.
        self._playing = self._at = None
        self.trial, shaving = self.trial.stroked(stroke)
        self._last = self.board.stroke = stroke
        self.sentence.setText(
            tr(
                "A shaving {length} long, {thickness} at its thickest.",
                length=self._long(shaving.length),
                thickness=self._thin(shaving.thickest),
            )
            if shaving.volume > 0
            else tr("Nothing taken: the sole rides on higher wood. Look with the straightedge.")
        )
        self._show()

    def stroke_again(self) -> None:
        """Make the last stroke once more."""
        if self._last is not None and self.trial is not None and not self._timer.isActive():
            self._make_stroke(self._last)

    def stroke_set(self) -> None:
        """Make strokes like the last one side by side over the whole board."""
        if self._last is None or self.trial is None or self._timer.isActive():
            return
        self._before.append(_Before(self.trial, self._last))
        self._playing = self._at = None
        self._strokes_due = iter(set_of(self.trial, self._last))
        self._timer.start()
        self._show_buttons()

    def take_back(self) -> None:
        """Put the last stroke, set or play back."""
        if self._before and not self._timer.isActive():
            self.trial, self._last = self._before.pop()
            self._playing = self._at = None
            self._strokes_due = None
            self.board.stroke = None
            self._show()

    # --- testing ---

    def _thin(self, millimetres: float) -> str:
        return self._document.project.marks.write_thin(millimetres)

    def _long(self, millimetres: float) -> str:
        return self._document.project.marks.write(from_float(round(millimetres)))

    def _under_edge(self, start: Place, end: Place) -> Drawing:
        assert self.trial is not None
        work = self.trial.work

        def held(place: Place) -> Place:
            return min(max(place[0], 0.0), work.length), min(max(place[1], 0.0), work.width)

        found = under_straightedge(work, held(start), held(end))
        at, gap = found.gap
        words = (
            tr("It rocks: a hump in the middle.")
            if found.rocks
            else tr("Light: {gap}, {at} from its start.", gap=self._thin(gap), at=self._long(at))
        )
        self.sentence.setText(words)
        return _profile(found)

    def _sighted(self, start: Place, end: Place) -> Drawing:
        assert self.trial is not None
        work = self.trial.work
        near, far = sorted(min(max(place[0], 0.0), work.length) for place in (start, end))
        face = FaceOf(work)
        stick = max(2 * work.width, 300.0)
        rise = (face.rest(far)[1] - face.rest(near)[1]) * stick
        side = "right" if rise > 0 else "left"
        at = tr("Sticks at {near} and {far}", near=self._long(near), far=self._long(far))
        words = tr(
            "{at}: the far one's {side} end stands {height} high.", at=at, side=side, height=self._thin(abs(rise))
        )
        self.sentence.setText(words if abs(rise) > 0.05 else tr("{at}: in line.", at=at))
        return sight(face, near, far, stick, Eye())


def _profile(found: UnderEdge) -> Drawing:
    """Draw the light under a straightedge, heights so many times too large."""
    low = float(found.face.min())
    face = [(float(s), -_HEIGHTS * (float(z) - low)) for s, z in zip(found.along, found.face, strict=True)]
    edge = [(float(s), -_HEIGHTS * (float(z) - low)) for s, z in zip(found.along, found.edge, strict=True)]
    deep = float(found.along[-1]) / 14
    wood = (*face, (face[-1][0], deep), (face[0][0], deep))
    elements: list[Element] = [
        Path(wood, Role.OUTLINE, closed=True, fill=Fill.WOOD, species="black cherry"),
        line(edge[0], edge[-1], Role.CHALK),
        Label(
            (0, deep),
            tr("heights drawn {scale} × too large", scale=_HEIGHTS),
            3.0,
            Anchor.START,
            Role.FAINT,
            nudge_mm=(0, 4),
        ),
    ]
    return drawing(elements)


def _tone(species: str) -> str:
    try:
        return find_species(species).tone
    except SpeciesError:
        return "#c8ab90"
