"""My shop: the tools one owns and the habits one works by, on one page. They belong to the person, not to a piece."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from PySide6.QtCore import QPointF, QRectF, Qt, Signal
from PySide6.QtGui import QKeyEvent, QPainter, QPainterPath, QPaintEvent, QPen
from PySide6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QVBoxLayout,
    QWidget,
)

from nullah.core.bench.hours import DAYS, Hours, HoursError, read_hours, write_hours
from nullah.core.catalogue import N_
from nullah.core.joints.practice import hands_of
from nullah.core.lengths import Length, mm
from nullah.core.limits import CLAMPS, PEOPLE, quoted, read_count
from nullah.core.my_shop import MyShop, planned_with, same_shop, shop_of
from nullah.core.named_tuple import NamedTuple
from nullah.core.shop import SCHOOLS, USUAL_PLANES, Hands, Plane, PlaneKind
from nullah.core.wording.facts import error_words
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.settings import Settings
from nullah.desk.stations.base import Section, action, chooser, entry, labelled, show_choice, words
from nullah.desk.stations.numbers import NumberField, Numbers
from nullah.desk.text_label import TextLabel
from nullah.files.practice import practice_file, read_joints
from nullah.language import tr, tr_pairs
from nullah.paper.lettering import typeface


class Figure(NamedTuple):
    """A length of the shop: its words, where it stands, and between which lengths it may be, in mm."""

    title: str
    of: str
    name: str
    least: float = 0
    most: float = 10

    def found(self, mine: MyShop) -> Length:
        """Return it."""
        length: Length = getattr(getattr(mine, self.of), self.name)
        return length

    def put(self, mine: MyShop, length: Length) -> MyShop:
        """Return the shop with another."""
        return mine._replace(**{self.of: replace(getattr(mine, self.of), **{self.name: length})})


_SETS = {"chisels": N_("Chisels"), "bits": N_("Bits"), "plough_irons": N_("Plow irons")}
_SAWS = (
    Figure(N_("Saw for boards takes"), "shop", "kerf"),
    Figure(N_("Saw for joints takes"), "shop", "fine_kerf"),
    Figure(N_("Saw for joints goes as deep as"), "shop", "saw_deepest", 5, 300),
    Figure(N_("Plow goes as deep as"), "shop", "plough_deepest", 1, 100),
    Figure(N_("Thinnest pin a knife can enter"), "shop", "narrowest_pin", 0.5, 20),
)
_LEFT = (
    Figure(N_("At both ends together"), "allowances", "end", 0, 1000),
    Figure(N_("At both edges together"), "allowances", "edge", 0, 200),
    Figure(N_("At both faces together"), "allowances", "thickness", 0, 50),
    Figure(N_("At the seams of a stave"), "allowances", "joint", 0, 50),
)
_PLANE = ((N_("sole"), 100, 900), (N_("iron"), 20, 80), (N_("camber"), 0, 5), (N_("shaving"), 0.005, 2))
_WAYS = {
    "dovetail": N_("Dovetails"),
    "waste": N_("Waste between tails"),
    "tenon": N_("Tenons"),
    "floor": N_("Floors of channels"),
}
#: The figures of `Hands`, in their order.
_HANDS = (N_("marking"), N_("tracing"), N_("sawing"), N_("planing"), N_("measuring"))
_MOST_OFF = 5


class MyShopPage(QWidget):
    """What is changed here holds for the person from now on, and for the piece that is open if it follows.

    `left` follows *Done* and Escape; `warned` carries a sentence where the shop cannot be kept.
    """

    left = Signal()
    warned = Signal(str)

    def __init__(self, document: Document, settings: Settings, over: QWidget) -> None:
        super().__init__(over)
        self.setObjectName("overPage")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("My shop"))
        self._document, self._settings = document, settings
        self._sections: list[Section] = []
        self._shown: list[Callable[[MyShop], None]] = []
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        area = QScrollArea()
        area.setWidgetResizable(True)
        area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        whole.addWidget(area)
        body = QWidget()
        body.setObjectName("overBody")
        area.setWidget(body)
        column = QVBoxLayout(body)
        column.setContentsMargins(48, 22, 48, 26)
        column.setSpacing(6)
        self._make_head(column)
        columns = [QVBoxLayout() for _ in range(3)]
        row = QHBoxLayout()
        row.setSpacing(44)
        for each in columns:
            each.setSpacing(6)
            row.addLayout(each, 1)
        self._make_sets(self._section(tr("Chisels, bits and irons"), column))
        self._make_saws(columns[0])
        self._make_planes(columns[1])
        self._make_habits(columns[1])
        self._make_hours(columns[2])
        for each in columns:
            each.addStretch(1)
        column.addLayout(row)
        column.addStretch(1)
        for section in self._sections:
            section.show_heading()
        document.changed.connect(self._piece_changed)
        self.refresh()

    # --- what stands on it ---

    def _make_head(self, column: QVBoxLayout) -> None:
        head = QHBoxLayout()
        title = TextLabel(tr("My shop"))
        title.setFont(typeface(30, bold=True))
        head.addWidget(title)
        head.addStretch(1)
        done = QPushButton(tr("Done"))
        done.setProperty("main", "true")
        done.setMinimumHeight(36)
        done.clicked.connect(self.left)
        head.addWidget(done)
        column.addLayout(head)
        words(tr("The tools you own and how you work. Every piece you begin is planned with them."), column)
        self._differs = QWidget()
        row = QHBoxLayout(self._differs)
        row.setContentsMargins(0, 0, 0, 0)
        told = words(tr("The open piece is planned with other tools or habits than these."), row)
        told.setWordWrap(False)
        told.setProperty("weight", "look")
        self.follow = action(tr("Plan it with my shop"), self._follow, row)
        self.adopt = action(tr("Make its shop mine"), self._adopt, row)
        row.addStretch(1)
        column.addWidget(self._differs)

    def _section(self, title: str, column: QVBoxLayout) -> Section:
        section = Section(title)
        column.addLayout(section)
        self._sections.append(section)
        return section

    def _make_sets(self, row: Section) -> None:
        grid = QGridLayout()
        grid.setHorizontalSpacing(16)
        grid.setColumnStretch(1, 1)
        self.sets = {name: self._sizes(name, number, grid) for number, name in enumerate(_SETS)}
        row.addLayout(grid)

    def _make_saws(self, column: QVBoxLayout) -> None:
        self.figures: dict[str, ValueField] = {}
        self._figures(_SAWS, self._section(tr("Saws and plow"), column))
        self._figures(_LEFT, self._section(tr("Allowances: left for saw and plane"), column))

    def _make_planes(self, column: QVBoxLayout) -> None:
        row = self._section(tr("Bench planes"), column)
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(6)
        for place, (name, _, _) in enumerate(_PLANE):
            heading = TextLabel(tr(name), quiet=True)
            grid.addWidget(heading, 0, place + 2)
        self.planes = {kind: _PlaneLine(kind, grid, number + 1, self) for number, kind in enumerate(PlaneKind)}
        row.addLayout(grid)

    def _make_habits(self, column: QVBoxLayout) -> None:
        row = self._section(tr("Ways of working"), column)
        self.ways: dict[str, QComboBox] = {}
        for name, title in tr_pairs(_WAYS.items()):
            options = tr_pairs((way, way) for way in SCHOOLS[name])
            self.ways[name] = chooser(
                tr("{title}: way of working", title=title), options, partial(self._work_so, name), row, title
            )
        self._shown.append(self._show_ways)
        row = self._section(tr("Glue-ups"), column)
        self.clamps = self._count("clamps", N_("clamps"), 0, CLAMPS, row)
        self.people = self._count("people", N_("people"), 1, PEOPLE, row)

    def _make_hours(self, column: QVBoxLayout) -> None:
        row = self._section(tr("Hours at the bench"), column)
        self.hours: list[QLineEdit] = []
        for number, day in enumerate(map(tr, DAYS)):
            field = entry(tr("hours on {day}", day=day), 120, partial(self._take_hours, number))
            field.setPlaceholderText(tr("none"))
            self.hours.append(field)
            labelled(day, field, row)
        self.hours_said = words("", row)
        self.hours_said.setProperty("weight", "fails")
        self._shown.append(self._show_hours)
        row = self._section(tr("Hands: how far off"), column)
        self.hands = Numbers(row, tr("hands"), len(Hands._fields), self._have_hands)
        self.from_practice = action(tr("From the practice joints"), self._hands_from_practice, row)
        self.from_practice.setToolTip(tr("How far off the saw is, from the widest gaps of the last practice joints"))
        self._shown.append(self._show_hands)

    def _show_ways(self, mine: MyShop) -> None:
        for name, box in self.ways.items():
            show_choice(box, getattr(mine.shop.schools, name))

    def _show_hands(self, mine: MyShop) -> None:
        figures = [NumberField(tr(name), off) for name, off in zip(_HANDS, mine.shop.hands, strict=True)]
        self.hands.show_figures(figures, self._document.project.marks)

    def _show_hours(self, mine: MyShop) -> None:
        for field, span in zip(self.hours, mine.hours.week, strict=True):
            if not (field.hasFocus() and field.isModified()):
                field.setText(write_hours(span))

    # --- lengths, sizes and counts ---

    def _sizes(self, name: str, row: int, grid: QGridLayout) -> ValueField:
        title = TextLabel(tr(_SETS[name]), quiet=True)
        grid.addWidget(title, row, 0)
        field = ValueField(tr(_SETS[name]).lower(), width=180)
        title.setBuddy(field)
        grid.addWidget(field, row, 1)
        field.line.returnPressed.disconnect()
        field.line.returnPressed.connect(partial(self._own, name, field))

        def show(mine: MyShop) -> None:
            field.set_unit(self._document.project.marks.unit)
            # As typed, for a chisel's name is its width: 1/4 in stays 1/4 in whatever is shown.
            field.show_value(", ".join(size.as_text() for size in getattr(mine.shop, name)))

        self._shown.append(show)
        return field

    def _own(self, name: str, field: ValueField) -> None:
        found = field.lengths()
        if found is not None:
            field.line.setModified(False)
            sizes = tuple(sorted(found, key=lambda size: size.mm))
            self._change_shop(tr("change the {tools}", tools=tr(_SETS[name]).lower()), **{name: sizes})

    def _figures(self, figures: tuple[Figure, ...], row: Section) -> None:
        for figure in figures:
            field = ValueField(tr(figure.title), width=72)
            field.line.setMaximumWidth(88)
            field.entered.connect(partial(self._take, figure, field))
            labelled(tr(figure.title), field, row)
            self.figures[figure.name] = field
            self._shown.append(partial(self._show_figure, figure, field))

    def _show_figure(self, figure: Figure, field: ValueField, mine: MyShop) -> None:
        field.set_unit(self._document.project.marks.unit)
        # As typed: a saw that takes 0.6 mm takes 0.6 mm to whatever mark figures are shown.
        field.show_value(figure.found(mine).as_text())

    def _take(self, figure: Figure, field: ValueField, length: object) -> None:
        if isinstance(length, Length) and self.within(field, length, figure.least, figure.most):
            self.change(f"{tr(figure.title).lower()} {length.as_text()}", figure.put(self.mine, length))

    def within(self, field: ValueField, length: Length, least: float, most: float) -> bool:
        """Return whether a length is between two, in mm; where it is not the field says so."""
        if least <= float(length) <= most:
            return True
        marks = self._document.project.marks
        field.complain(
            tr("From {least} to {most}.", least=marks.write(mm(str(least))), most=marks.write(mm(str(most))))
        )
        return False

    def _count(self, of: str, title: str, least: int, most: int, row: Section) -> QLineEdit:
        name = tr(title)
        field = entry(name, 56)
        said = words("", row)
        said.setProperty("weight", "fails")

        def take() -> None:
            number = read_count(field.text())
            fits = number is not None and least <= number <= most
            said.setText(
                ""
                if fits
                else tr(
                    "{typed} {name}: from {least} to {most}.",
                    typed=quoted(field.text()),
                    name=name,
                    least=least,
                    most=most,
                )
            )
            if fits:
                field.setModified(False)
                self.change(name, self.mine._replace(**{of: number}))  # type: ignore[arg-type]

        def show(mine: MyShop) -> None:
            if not (field.hasFocus() and field.isModified()):
                field.setText(str(getattr(mine, of)))
            said.setVisible(bool(said.text()))

        field.returnPressed.connect(take)
        labelled(name, field, row)
        self._shown.append(show)
        return field

    # --- habits ---

    def _work_so(self, name: str, way: str) -> None:
        schools = self.mine.shop.schools._replace(**{name: way})
        self._change_shop(f"{tr(_WAYS[name]).lower()}: {tr(way)}", schools=schools)

    def _have_hands(self, figures: tuple[float, ...]) -> None:
        if all(0 <= figure <= _MOST_OFF for figure in figures):
            self._change_shop(tr("hands as they are"), hands=Hands(*figures))
        else:
            most = self._document.project.marks.write_bare(_MOST_OFF)
            self.hands.sentence.setText(tr("From 0 to {most}.", most=most))

    def _hands_from_practice(self) -> None:
        self._have_hands(tuple(hands_of(read_joints(practice_file()))))

    def _take_hours(self, day: int) -> None:
        mine = self.mine
        try:
            span = read_hours(self.hours[day].text())
        except HoursError as error:
            self.hours_said.setText(error_words(error))
            return
        self.hours_said.setText("")
        self.hours[day].setModified(False)
        week = [span if number == day else each for number, each in enumerate(mine.hours.week)]
        self.change(tr("hours on {day}", day=tr(DAYS[day])), mine._replace(hours=Hours(tuple(week))))

    def have_plane(self, plane: Plane) -> None:
        """Put a plane among those that are owned."""
        there = {each.kind: each for each in self.mine.shop.planes} | {plane.kind: plane}
        planes = tuple(there[kind] for kind in PlaneKind if kind in there)
        self._change_shop(tr("change the {plane}", plane=tr(plane.kind.value)), planes=planes)

    def have_no(self, kind: PlaneKind) -> None:
        """Take a plane away from those that are owned."""
        planes = tuple(plane for plane in self.mine.shop.planes if plane.kind is not kind)
        self._change_shop(tr("no {plane}", plane=tr(kind.value)), planes=planes)

    # --- whose it is ---

    @property
    def mine(self) -> MyShop:
        """The person's shop; until they have one of their own, that of the open piece."""
        return self._settings.shop or shop_of(self._document.project)

    def _change_shop(self, name: str, **changed: object) -> None:
        mine = self.mine
        self.change(name, mine._replace(shop=replace(mine.shop, **changed)))  # type: ignore[arg-type]

    def change(self, name: str, mine: MyShop) -> None:
        """Keep another shop; the open piece is planned with it if it was planned with the one before."""
        before = self.mine
        if mine == before:
            self.refresh()
            return
        self._keep(mine)
        if same_shop(shop_of(self._document.project), before):
            self._document.do(name, lambda p: planned_with(p, mine))
        self.refresh()

    def _keep(self, mine: MyShop) -> None:
        sentence = self._settings.keep_shop(mine)
        if sentence:
            self.warned.emit(sentence)

    def _follow(self) -> None:
        self._document.do(tr("plan it with my shop"), lambda p: planned_with(p, self.mine))

    def _adopt(self) -> None:
        self._keep(shop_of(self._document.project))
        self.refresh()

    # --- what is shown ---

    def _piece_changed(self) -> None:
        if self.isVisible():
            self.refresh()

    def refresh(self) -> None:
        """Show the shop as it is, and whether the open piece follows it."""
        mine = self.mine
        for show in self._shown:
            show(mine)
        for line in self.planes.values():
            line.show_plane(mine.shop.plane(line.kind), self._document)
        self._differs.setVisible(not same_shop(shop_of(self._document.project), mine))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)


class _PlaneLine:
    """A bench plane on the page: whether there is one, drawn as long as its sole, and its figures."""

    def __init__(self, kind: PlaneKind, grid: QGridLayout, row: int, page: MyShopPage) -> None:
        self.kind, self._page = kind, page
        self._plane: Plane | None = None
        self.owned = QCheckBox(tr(kind.value).capitalize())
        self.owned.clicked.connect(self._own)
        self.picture = PlanePicture()
        grid.addWidget(self.owned, row, 0)
        grid.addWidget(self.picture, row, 1)
        self.figures: dict[str, ValueField] = {}
        for place, (name, _, _) in enumerate(_PLANE):
            field = ValueField(tr("{name} of the {plane}", name=tr(name), plane=tr(kind.value)), width=48)
            field.line.setMaximumWidth(64)
            field.entered.connect(lambda _: self._take())
            self.figures[name] = field
            grid.addWidget(field, row, place + 2)

    def show_plane(self, plane: Plane | None, document: Document) -> None:
        """Show the plane that is owned, or none."""
        self._plane, marks = plane, document.project.marks
        self.owned.setChecked(plane is not None)
        self.picture.show_plane(plane)
        for name, field in self.figures.items():
            field.set_unit(marks.unit)
            field.setEnabled(plane is not None)
            field.show_value(marks.write_short(float(getattr(plane, name))) if plane is not None else "")

    def _own(self, owned: bool) -> None:
        if owned:
            self._page.have_plane(next(plane for plane in USUAL_PLANES if plane.kind is self.kind))
        else:
            self._page.have_no(self.kind)

    def _take(self) -> None:
        values = {name: field.length() for name, field in self.figures.items()}
        given = {name: value for name, value in values.items() if value is not None}
        if self._plane is None or len(given) < len(values):
            return
        if all(self._page.within(self.figures[name], given[name], least, most) for name, least, most in _PLANE):
            for field in self.figures.values():
                field.line.setModified(False)
            self._page.have_plane(self._plane._replace(**given))  # type: ignore[arg-type]


class PlanePicture(QWidget):
    """A plane from the side, its sole to scale with the others'."""

    #: Pixels for a millimetre of sole.
    _SCALE = 0.14

    def __init__(self) -> None:
        super().__init__()
        self._plane: Plane | None = None
        self.setFixedSize(98, 34)

    def show_plane(self, plane: Plane | None) -> None:
        """Show a plane, or none."""
        self._plane = plane
        self.update()

    def paintEvent(self, event: QPaintEvent) -> None:
        if self._plane is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        ink = self.palette().color(self.foregroundRole())
        painter.setPen(QPen(ink, 1.2))
        long, sole = min(float(self._plane.sole) * self._SCALE, self.width() - 6.0), self.height() - 5.0
        body = QRectF(2, sole - 9, long, 9)
        mouth = body.left() + long * self._plane.mouth
        painter.drawRect(body)
        tote = QPainterPath(QPointF(body.right() - 3, body.top()))
        tote.cubicTo(body.right() - 4, sole - 15, body.right() - 8, sole - 22, body.right() - 13, sole - 24)
        tote.cubicTo(body.right() - 12, sole - 17, body.right() - 10, sole - 12, body.right() - 9, body.top())
        painter.drawPath(tote)
        # The iron, bedded at 45 degrees with its edge at the mouth.
        painter.setPen(QPen(ink, 2.2))
        painter.drawLine(QPointF(mouth, sole), QPointF(mouth + 20, sole - 20))
        painter.setPen(QPen(ink, 1.2))
        painter.drawEllipse(QPointF(body.left() + 0.12 * long, body.top() - 4), 3.5, 4)
        painter.end()
