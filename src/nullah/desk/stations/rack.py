"""Rack on the desk: boards put on it one by one or by the list, and what is known of each."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from PySide6.QtWidgets import QCheckBox, QLayout, QLineEdit, QWidget

from nullah.core import actions
from nullah.core.catalogue import N_
from nullah.core.lengths import Length
from nullah.core.rack.board import Board, BoardError, Faces, Flaw, FlawKind, GrainFigure, read_price, write_price
from nullah.core.rack.sizes import SizeNameError, resolve_size
from nullah.core.refs import BoardRef, BoardSizeRef, FlawRef, HeartRef, Ref
from nullah.core.stations.rack import find_board
from nullah.core.stations.selection import RackSelection
from nullah.core.wood.movement import GrainCut
from nullah.core.wood.species import all_species
from nullah.core.wording.facts import error_words
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import StationDesk, Verb, action, chooser, labelled, reach, show_choice, toggle
from nullah.desk.stations.moisture import MoistureRow
from nullah.desk.stations.rack_tool import EDGE, RackTool
from nullah.desk.stations.rack_typing import TypingPage
from nullah.language import tr, tr_pairs

_KINDS = [
    (FlawKind.KNOT.value, N_("a knot")),
    (FlawKind.CHECK.value, N_("a check")),
    (FlawKind.SPLIT.value, N_("a split")),
    (FlawKind.SAP.value, N_("sap")),
    (FlawKind.WANE.value, N_("wane")),
    (FlawKind.RUNOUT.value, N_("run-out")),
    (EDGE, N_("an edge")),
]
_FACES = [
    (Faces.THROUGH.value, N_("through")),
    (Faces.UP.value, N_("upper face")),
    (Faces.DOWN.value, N_("lower face")),
]
_FIGURES = [
    (GrainFigure.PLAIN.value, N_("plain grain")),
    (GrainFigure.STRAIGHT.value, N_("straight grain")),
    (GrainFigure.FIGURED.value, N_("figured")),
]
_CUTS = [
    (GrainCut.FLAT.value, N_("flat-sawn")),
    (GrainCut.RIFT.value, N_("rift-sawn")),
    (GrainCut.QUARTER.value, N_("quarter-sawn")),
]

_SIZES = (N_("length"), N_("width"), N_("thickness"))


class RackDesk(StationDesk):
    """Adding boards and marking what is wrong with them."""

    def __init__(self, document: Document, bench: Bench) -> None:
        super().__init__(document, bench)
        self._make_adding()
        self._make_in_hand()
        self._make_more()
        self.moisture = MoistureRow(document, self.section, lambda: self.board)
        self.typing: TypingPage | None = None
        self.tool = RackTool(self)

    def _make_adding(self) -> None:
        row = self.section(tr("New board"))
        self.fields = {name: ValueField(tr(name), width=70) for name in _SIZES}
        self.fields["width"].line.setToolTip(tr("or as the yard names it: 1x12, 2x6, 4/4"))
        for name, field in self.fields.items():
            field.line.setMaximumWidth(110)
            field.entered.connect(lambda _: self.add_board())
            labelled(tr(name), field, row)
        self.species = chooser(tr("species"), tr_pairs((name, name) for name in all_species()), lambda _: None, row)
        action(tr("Add the board"), self.add_board, row, main=True)
        self.several = toggle(tr("Add several"), self.line.verbs, lambda _: self.page_wanted.emit())

    def _make_in_hand(self) -> None:
        row = self.section(tr("Marking"))
        self.kind = chooser(tr("kind of flaw"), tr_pairs(_KINDS), self._change_kind, row, tr("Dragging marks"))
        self.faces = chooser(
            tr("on which face the flaw is"), tr_pairs(_FACES), self._change_faces, row, tr("On which face")
        )
        self.flaw_depth = ValueField(tr("how deep the flaw goes"), width=50)
        self.flaw_depth.line.setMaximumWidth(60)
        self.flaw_depth.entered.connect(self._change_depth)
        self.deep = labelled(tr("how deep it goes"), self.flaw_depth, row)
        self.rub_out = action(tr("Delete flaw"), self.rub_flaw_out, row)

    def _make_more(self) -> None:
        row = self.section(tr("This board"))
        self.name = QLineEdit()
        self.name.setAccessibleName(tr("Name of the board"))
        self.name.setMaxLength(40)
        self.name.setMaximumWidth(140)
        self.name.setMinimumHeight(32)
        self.name.editingFinished.connect(self._rename)
        labelled(tr("name"), self.name, row)
        self.cut = chooser(tr("how the board was cut"), tr_pairs(_CUTS), self._change_cut, row, tr("How it was sawn"))
        self.board_species = chooser(
            tr("species of the board"),
            tr_pairs((name, name) for name in all_species()),
            self._change_species,
            row,
            tr("Species"),
        )
        self.price = ValueField(tr("what the board cost"), width=60)
        self.price.line.setMaximumWidth(74)
        self.price.line.setToolTip(tr("What the whole board cost; the cut list shares it out"))
        self.price.line.returnPressed.disconnect()
        self.price.line.returnPressed.connect(self._pay)
        labelled(tr("price"), self.price, row)
        self.figure = chooser(tr("how its grain looks"), tr_pairs(_FIGURES), self._change_figure, row, tr("Grain"))
        self.colour = self._words(tr("color of the board"), tr("color"), row, lambda b, t: replace(b, colour=t))
        self.source = self._words(
            tr("where the board is from"), tr("where from"), row, lambda b, t: replace(b, source=t)
        )
        self.dressed = QCheckBox(tr("dressed"))
        self.dressed.setToolTip(tr("Planed when it was bought, not rough from the saw"))
        self.dressed.clicked.connect(
            lambda on: self._change_board(tr("dressed") if on else tr("rough"), lambda b: replace(b, dressed=on))
        )
        row.addWidget(self.dressed)
        self.straighten = action(tr("Straight edges"), self._straighten, row)
        self.take_off = action(tr("Remove board"), self.remove_board, row)
        self._of_board = row.widgets()

    def _words(self, name: str, hint: str, row: QLayout, put: Callable[[Board, str], Board]) -> QLineEdit:
        """Put a field for words about the board in hand into a row."""
        field = QLineEdit()
        field.setAccessibleName(name)
        field.setMaxLength(60)
        field.setMaximumWidth(140)
        field.setMinimumHeight(32)

        def entered() -> None:
            if self.board is not None and field.isModified():
                field.setModified(False)
                self._change_board(
                    f"{hint} {field.text().strip() or 'not known'}", lambda b: put(b, field.text().strip())
                )

        field.editingFinished.connect(entered)
        labelled(hint, field, row)
        return field

    def page(self) -> QWidget | None:
        if not self.several.isChecked():
            return None
        if self.typing is None:
            self.typing = TypingPage(self.document, lambda: str(self.species.currentData()))
            self.typing.done.connect(lambda: self.several.setChecked(False))
        return self.typing

    def _show_sections(self) -> None:
        board = self.board
        for widget in self._of_board:
            widget.setVisible(board is not None)
        self.straighten.setVisible(board is not None and not board.straight)
        self.moisture.show_row(board is not None)

    def refresh(self) -> None:
        unit = self.document.project.marks.unit
        for field in self.fields.values():
            field.set_unit(unit)
        board = self.board
        flaw = self.flaw
        self._show_sections()
        self.rub_out.setEnabled(flaw is not None)
        # Always there, so that nothing moves when a flaw is taken in hand.
        self.deep.setEnabled(flaw is not None and flaw.faces is not Faces.THROUGH)
        self.flaw_depth.set_unit(unit)
        if flaw is None:
            self.flaw_depth.show_value("")
        else:
            show_choice(self.faces, flaw.faces.value)
            self.flaw_depth.show_value(
                "" if flaw.depth is None else self.document.project.marks.write_to_edit(flaw.depth)
            )
        self.moisture.refresh()
        if board is not None:
            if not self.name.hasFocus():
                self.name.setText(board.name)
                self.name.setCursorPosition(0)
            self.price.show_value(write_price(board.price))
            show_choice(self.cut, board.cut.value)
            show_choice(self.board_species, board.species)
            show_choice(self.figure, board.figure.value)
            self.dressed.setChecked(board.dressed)
            for line, text in ((self.colour, board.colour), (self.source, board.source)):
                if not line.hasFocus():
                    line.setText(text)
                    line.setCursorPosition(0)

    @property
    def chosen_faces(self) -> Faces:
        """On which face the next flaw is."""
        return Faces(str(self.faces.currentData()))

    @property
    def flaw(self) -> Flaw | None:
        """The flaw in hand."""
        board, index = self.board, self.document.selection.rack.flaw
        if board is None or index is None or index >= len(board.flaws):
            return None
        return board.flaws[index]

    @property
    def board(self) -> Board | None:
        """The board in hand."""
        return find_board(self.document.plan, self.document.selection)

    def clicked(self, ref: Ref | None) -> bool:
        match ref:
            case BoardRef(board) | BoardSizeRef(board):
                self.document.select(self.document.selection._replace(board=board, rack=RackSelection()))
            case FlawRef(board, number):
                self.document.select(self.document.selection._replace(board=board, rack=RackSelection(number)))
        # A click on a length or width also opens it for typing, which is the frame's work.
        return isinstance(ref, BoardRef | FlawRef | HeartRef)

    def picked(self) -> Ref | None:
        selection = self.document.selection
        if self.several.isChecked() or self.board is None or not selection.board:
            return None
        if self.flaw is not None and selection.rack.flaw is not None:
            return FlawRef(selection.board, selection.rack.flaw)
        return BoardRef(selection.board)

    def verbs(self, ref: Ref) -> tuple[Verb, ...]:
        if isinstance(ref, FlawRef):
            kinds = [pair for pair in tr_pairs(_KINDS) if pair[0] != EDGE]
            return (
                Verb(tr("Kind"), options=tuple((text, partial(self._change_kind, kind)) for kind, text in kinds)),
                Verb(
                    tr("On which face"),
                    options=tuple((text, partial(self._change_faces, face)) for face, text in tr_pairs(_FACES)),
                ),
                Verb(tr("Delete flaw"), self.rub_flaw_out),
            )
        if not isinstance(ref, BoardRef):
            return ()
        straight = self.board is None or self.board.straight
        return (
            Verb(tr("Rename"), partial(reach, self.name)),
            Verb(
                tr("Mark by dragging"),
                options=tuple((text, partial(self._draw, kind)) for kind, text in tr_pairs(_KINDS)),
            ),
            *(() if straight else (Verb(tr("Straight edges"), self._straighten),)),
            Verb(tr("Where its parts lie"), partial(self.station_wanted.emit, "breakdown")),
            Verb(tr("Remove board"), self.remove_board),
        )

    def _draw(self, kind: str) -> None:
        """Say what dragging on a board draws from now on."""
        show_choice(self.kind, kind)

    # --- actions ---

    def add_board(self) -> None:
        """Put the board that was typed on the rack."""
        self._resolve_yard_size()
        sizes = {name: field.length() for name, field in self.fields.items()}
        for name, size in sizes.items():
            if size is not None and size.mm <= 0:
                self.fields[name].complain(tr("It must be more than nothing."))
                sizes[name] = None
        length, width, thickness = sizes["length"], sizes["width"], sizes["thickness"]
        if length is None or width is None or thickness is None:
            return
        number = actions.next_board_id(self.document.project)
        board = Board(
            number, tr("Board {number}", number=number), str(self.species.currentData()), length, width, thickness
        )
        sentence = self.document.do(
            tr("put {name} on the rack", name=board.name), lambda p: actions.add_board(p, board)
        )
        if sentence:
            self.fields["length"].complain(sentence)
            return
        for field in self.fields.values():
            field.line.clear()
            field.line.setModified(False)
        self.document.select(self.document.selection._replace(board=number, rack=RackSelection()))
        self.fields["length"].line.setFocus()

    def _resolve_yard_size(self) -> None:
        """Turn a yard's name typed as the width, 1x12 or 4/4, into what it measures."""
        width, thickness = self.fields["width"], self.fields["thickness"]
        try:
            size = resolve_size(width.line.text())
        except SizeNameError:
            return
        if size.width is None:
            # Hardwood is sold in random widths, rough: the name tells only how thick it is.
            thickness.line.setText(size.rough_thickness.text)
            width.line.clear()
            return
        width.line.setText(size.width.text)
        thickness.line.setText(size.thickness.text)

    def remove_board(self) -> None:
        """Take the board in hand off the rack."""
        board = self.board
        if board is not None:
            self.document.do(
                tr("take {name} off the rack", name=board.name), lambda p: actions.remove_board(p, board.id)
            )
            self.document.select(self.document.selection._replace(board="", rack=RackSelection()))

    def rub_flaw_out(self) -> None:
        """Rub the flaw in hand out."""
        board, index, flaw = self.board, self.document.selection.rack.flaw, self.flaw
        if board is not None and index is not None and flaw is not None:
            kind = flaw.kind.value
            self.document.do(
                tr("rub out the {flaw} on {name}", flaw=kind, name=board.name),
                lambda p: actions.remove_flaw(p, board.id, index),
            )
            self.document.select(self.document.selection._replace(rack=RackSelection()))

    def _rename(self) -> None:
        name = self.name.text().strip()
        if self.board is not None and name and name != self.board.name:
            self._change_board(tr("call it {name}", name=name), lambda board: replace(board, name=name))

    def _pay(self) -> None:
        try:
            price = read_price(self.price.line.text())
        except BoardError as error:
            self.price.complain(error_words(error))
            return
        self.price.line.setModified(False)
        self._change_board(
            tr("price {price}", price=write_price(price) or tr("none")), lambda board: replace(board, price=price)
        )
        self.bench.setFocus()

    def _change_cut(self, value: str) -> None:
        self._change_board(
            tr("cut {way}", way=tr(value)), lambda board: replace(board, cut=GrainCut(value), heart=None)
        )

    def _change_species(self, value: str) -> None:
        self._change_board(tr("species {species}", species=tr(value)), lambda board: replace(board, species=tr(value)))

    def _change_kind(self, value: str) -> None:
        """Change the kind of the flaw in hand, if there is one; else only what dragging marks."""
        flaw = self.flaw
        if value != EDGE and flaw is not None and flaw.kind.value != value:
            self._change_flaw(tr("call it a {flaw}", flaw=tr(value)), replace(flaw, kind=FlawKind(value)))

    def _change_flaw(self, name: str, flaw: Flaw) -> None:
        board, index = self.board, self.document.selection.rack.flaw
        if board is not None and index is not None:
            self.document.do(
                tr("{change} on {board}", change=name, board=board.name),
                lambda p: actions.change_flaw(p, board.id, index, flaw),
            )

    def _change_faces(self, value: str) -> None:
        """Say on which face the flaw in hand is; one that goes right through has no depth."""
        flaw = self.flaw
        if flaw is not None and flaw.faces.value != value:
            faces = Faces(value)
            depth = None if faces is Faces.THROUGH else flaw.depth
            self._change_flaw(f"{flaw.kind.value}, {value}", replace(flaw, faces=faces, depth=depth))

    def _change_depth(self, depth: Length) -> None:
        flaw, board = self.flaw, self.board
        if flaw is None or board is None:
            return
        if depth.mm <= 0 or depth > board.thickness:
            self.flaw_depth.complain(
                tr("More than nothing, and no more than the board: {thickness}.", thickness=board.thickness.as_text())
            )
            return
        self._change_flaw(
            tr("{flaw} {depth} deep", flaw=tr(flaw.kind.value), depth=depth.as_text()), replace(flaw, depth=depth)
        )
        self.bench.setFocus()

    def _change_figure(self, value: str) -> None:
        self._change_board(
            tr("{grain} grain", grain=tr(value)), lambda board: replace(board, figure=GrainFigure(value))
        )

    def _straighten(self) -> None:
        self._change_board(tr("straight edges"), lambda board: replace(board, low_edge=(), high_edge=()))

    def _change_board(self, name: str, change: Callable[[Board], Board]) -> None:
        board = self.board
        if board is not None:
            changed = change(board)
            self.document.do(f"{board.name}: {name}", lambda p: actions.change_board(p, changed))
