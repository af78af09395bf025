"""Piece on the desk: its form and choices, its woods, and the ways of looking at it."""

from __future__ import annotations

from functools import partial

from PySide6.QtCore import QTimer
from PySide6.QtGui import QImage
from PySide6.QtWidgets import QComboBox, QWidget

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.choosing import choose, take_form
from nullah.core.forms import FORMS
from nullah.core.piece.form import Choice
from nullah.core.refs import PartRef, Ref
from nullah.core.stations.placing import added_board
from nullah.core.wood.species import all_species
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import StationDesk, Verb, action, chooser, show_choice, tabs
from nullah.desk.stations.drawn_choice import PICTURE, DrawnChoice
from nullah.desk.stations.figures import FigureField, FigureFields
from nullah.desk.stations.group import ViewChoices
from nullah.desk.stations.own_tool import OwnTool
from nullah.desk.theme import palette_of
from nullah.desk.thumbnails import Thumbnails, thumbnail, with_choice
from nullah.language import tr, tr_pairs
from nullah.paper.palette import Palette

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.desk.stations.own import OwnRows

# What is too small to be clicked on the drawing.
_FIGURES = (
    FigureField("contents.clearance", N_("clearance round the contents"), width=44),
    FigureField("bottom.clearance", N_("clearance of the bottom"), width=44),
)
# How long after the window stands the rest of it is filled in, in ms.
_SOON_MS = 120
# How long after a change the choices are drawn anew, in ms.
_DRAWN_MS = 400
_LOOKS = (("views", N_("Views")), ("turn", N_("Turn it")), ("figures", N_("Figures")), ("list", N_("Cut list")))
_WOODS = (("shown", N_("Wood")), ("inside", N_("inside")))


class PieceDesk(StationDesk):
    """The choices of the form; other figures are typed on the drawing or in the table of figures."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self._choices: tuple[Choice, ...] = ()
        self.boxes: dict[str, QComboBox] = {}
        self.drawn: dict[str, DrawnChoice] = {}
        self._drawn_for: tuple[object, ...] = ()
        self._pictures = Thumbnails(self)
        self._pictures.painted.connect(self._show_picture)
        self._soon = QTimer(self)
        self._soon.setSingleShot(True)
        self._soon.setInterval(_DRAWN_MS)
        self._soon.timeout.connect(self._draw)
        self._pages: dict[str, QWidget] = {}
        self.look = "views"
        self.looks = tabs(self, tr_pairs(_LOOKS), self.show_look, self.line.looks)
        self.looks["views"].setChecked(True)
        self._form = self.section(tr("The piece"))
        self.form = chooser(
            tr("Form"), tr_pairs((f.id, f.title) for f in FORMS.values()), self._take_form, self._form, tr("Form")
        )
        woods = self.section(tr("Wood and figures"))
        self.woods: dict[str, QComboBox] = {}
        for role, title in tr_pairs(_WOODS):
            name = tr("{place} wood", place=title) if role == "inside" else title
            self.woods[role] = chooser(name, [], partial(self._make_of, role), woods, title)
            self.woods[role].addItem(tr("as the boards"), "")
        # The window stands before the names of all woods have been put into it.
        QTimer.singleShot(_SOON_MS, self._fill_woods)
        self._figures = FigureFields(document, bench, woods, _FIGURES, units=False)
        self.fields = self._figures.fields
        self.add = action(tr("Add a board"), self.add_own_board, self.line.verbs)
        self._own: OwnRows | None = None
        self._turning: ViewChoices | None = None
        self.tool = OwnTool(document, bench)

    @property
    def own(self) -> OwnRows:
        """The rows for a board of one's own, made when they are first wanted."""
        if self._own is None:
            from nullah.desk.stations.own import OwnRows

            self._own = OwnRows(self.document, self.bench, self.section)
        return self._own

    def _fill_woods(self) -> None:
        for box in self.woods.values():
            there = {str(box.itemData(index)) for index in range(box.count())}
            for name in all_species():
                if name not in there:
                    box.addItem(tr(name), name)
        self.refresh()

    # --- what is shown ---

    def show_look(self, look: str, *_: object) -> None:
        """Look at the piece another way."""
        self.look = look
        self.looks[look].setChecked(True)
        self.refresh()
        self.page_wanted.emit()

    def leave(self) -> None:
        self._pictures.drop()
        turned = self._pages.get("turn")
        if turned is not None:
            turned.leave()  # type: ignore[attr-defined]

    def open_up(self, percent: int) -> None:
        """Turn the piece, with its joints opened so far."""
        from nullah.desk.turning import TurningView

        self.show_look("turn")
        page = self.page()
        if isinstance(page, TurningView):
            page.slider.setValue(percent)

    def page(self) -> QWidget | None:
        """Return what stands in the place of the drawing, if anything does."""
        if self.look == "views":
            return None
        if self.look not in self._pages:
            self._pages[self.look] = self._make_page()
        return self._pages[self.look]

    def _make_page(self) -> QWidget:
        from nullah.desk.ledger_table import LedgerTable
        from nullah.desk.parts_table import PartsTable
        from nullah.desk.turning import TurningView

        if self.look == "turn":
            self._turning = ViewChoices(self)
            return TurningView(self.document, self._turning)
        return LedgerTable(self.document) if self.look == "figures" else PartsTable(self.document)

    def refresh(self) -> None:
        plan = self.document.plan
        if plan.form.choices != self._choices:
            self._make_boxes(plan.form.choices)
        show_choice(self.form, plan.form.id)
        for role, box in self.woods.items():
            chosen = dict(plan.project.piece.woods).get(role, "")
            if box.findData(chosen) < 0:
                box.addItem(tr(chosen), chosen)
            show_choice(box, chosen)
        for choice in self._choices:
            if choice.name in self.drawn:
                self.drawn[choice.name].show_value(plan.choices[choice.name])
                self.drawn[choice.name].setVisible(choice.applies(plan.choices))
                continue
            box = self.boxes[choice.name]
            show_choice(box, plan.choices[choice.name])
            pair = box.parentWidget()
            if pair is not None:
                pair.setVisible(choice.applies(plan.choices))
        self._figures.refresh()
        self._draw_soon()
        self.add.setVisible(self.look == "views")
        if self._turning is not None:
            self._turning.show_choices(self.look == "turn")
        if self._own is not None or ((part := plan.part(self.document.selection.part)) is not None and part.own):
            self.own.refresh()
        page = self._pages.get(self.look)
        if page is not None:
            page.refresh()  # type: ignore[attr-defined]

    # --- the drawings of choices ---

    def _draw_soon(self) -> None:
        """Have the choices drawn anew when the form or another choice has changed, after the bench."""
        piece = self.document.project.piece
        key = (piece.form, piece.choices, piece.woods, self.palette().window().color().rgb())
        if key != self._drawn_for and self.drawn:
            self._drawn_for = key
            self._soon.start()

    def _draw(self) -> None:
        self._pictures.drop()
        palette = self._palette
        project, chosen = self.document.project, self.document.plan.choices
        for choice in self._choices:
            if choice.name in self.drawn and choice.applies(chosen):
                for value, _ in choice.options:
                    shown = with_choice(project, choice.name, value)
                    self._pictures.ask((choice.name, value), shown, PICTURE, palette)

    def draw_now(self) -> None:
        """Draw the choices at once: for pictures of the desk."""
        self._soon.stop()
        self._pictures.drop()
        project = self.document.project
        for name, drawn in self.drawn.items():
            for value in drawn.buttons:
                drawn.show_picture(value, thumbnail(with_choice(project, name, value), PICTURE, self._palette))

    @property
    def _palette(self) -> Palette:
        return palette_of(self)

    def _show_picture(self, key: object, image: QImage) -> None:
        if isinstance(key, tuple) and key[0] in self.drawn:
            self.drawn[key[0]].show_picture(key[1], image)

    def _make_boxes(self, choices: tuple[Choice, ...]) -> None:
        pairs = [box.parentWidget() for box in self.boxes.values()]
        for pair in (*pairs, *self.drawn.values()):
            if pair is not None:
                self._form.removeWidget(pair)
                pair.hide()
                pair.deleteLater()
        self._choices, self.boxes, self.drawn = choices, {}, {}
        for choice in choices:
            said = self.document.project.marks.catalogue.text
            options = [(value, said(title)) for value, title in choice.options]
            if choice.shape:
                drawn = DrawnChoice(said(choice.title), options, partial(self._choose, choice.name))
                self._form.addWidget(drawn)
                self.drawn[choice.name] = drawn
                continue
            box = chooser(said(choice.title), options, partial(self._choose, choice.name), self._form)
            self.boxes[choice.name] = box

    # --- what is picked ---

    def picked(self) -> Ref | None:
        part = self.document.plan.part(self.document.selection.part)
        return PartRef(part.id) if part is not None and self.look == "views" else None

    def verbs(self, ref: Ref) -> tuple[Verb, ...]:
        part = self.document.plan.part(ref.part) if isinstance(ref, PartRef) else None
        if part is None:
            return ()
        if part.own:
            return self.own.verbs()
        chosen = self.document.plan.choices
        return (
            *(self._choice(choice) for choice in self._choices if choice.concerns(part.id) and choice.applies(chosen)),
            Verb(tr("Its joints"), partial(self.station_wanted.emit, "joints")),
            Verb(tr("Its wood"), partial(self.station_wanted.emit, "breakdown")),
            Verb(tr("Its milling"), partial(self.station_wanted.emit, "milling")),
        )

    def _choice(self, choice: Choice) -> Verb:
        said = self.document.project.marks.catalogue.text
        options = tuple((said(title), partial(self._choose, choice.name, value)) for value, title in choice.options)
        values = [value for value, _ in choice.options]
        return Verb(said(choice.title), options=options, chosen=values.index(self.document.plan.choices[choice.name]))

    # --- what is done ---

    def add_own_board(self) -> None:
        """Put a board of one's own into the piece, and take it in hand."""
        board = added_board(self.document.plan, self.document.project.piece.own)
        self.document.do(tr("add {name}", name=board.name), lambda p: actions.add_own(p, board))
        self.document.pick_part(board.id)

    def _take_form(self, form: str) -> None:
        if form != self.document.plan.form.id:
            title = tr(FORMS[form].title).lower()
            self.document.do(tr("make a {form} of it", form=title), lambda p: take_form(p, form))

    def _make_of(self, role: str, species: str) -> None:
        self.document.do(
            f"{tr(dict(_WOODS)[role]).lower()} {tr(species) or tr('as the boards')}",
            lambda p: actions.make_of(p, role, species),
        )

    def _choose(self, name: str, value: str) -> None:
        if self.document.plan.choices[name] == value:
            return
        choice = next(c for c in self._choices if c.name == name)
        said = self.document.project.marks.catalogue.text
        text = said(dict(choice.options)[value])
        self.document.do(f"{said(choice.title).lower()} {text}", lambda p: choose(p, name, value))
