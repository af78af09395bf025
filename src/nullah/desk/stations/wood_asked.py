"""The rows for the part in hand at Breakdown: what it asks of its wood, how it is had, and how it lies."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial

from PySide6.QtWidgets import QComboBox, QWidget

from nullah.core import actions
from nullah.core.breakdown.rough import Resawn, RoughPart, WoodRequirement
from nullah.core.catalogue import N_
from nullah.core.drawing import Drawing
from nullah.core.laying import resaw_twins, with_staves
from nullah.core.piece.part import Needs
from nullah.core.plan import Plan
from nullah.core.project import Project
from nullah.core.rack.board import GrainFigure
from nullah.core.stations.breakdown import selected_piece
from nullah.core.stations.wood_pictures import laying_picture, resawn_picture, rings_picture, staves_picture
from nullah.core.wood.movement import GrainCut
from nullah.core.wood.species import all_species
from nullah.desk.document import Document
from nullah.desk.stations.base import Section, Verb, action, chooser, reach, show_choice, words
from nullah.desk.stations.drawn_choice import DrawnChoice
from nullah.desk.tips import plain_tip
from nullah.language import tr, tr_pairs

_FACES = [
    ("", N_("faces as usual")),
    (Needs.CLEAR.value, N_("both faces clear")),
    (Needs.ONE_FACE.value, N_("one face clear")),
    (Needs.ANY.value, N_("knots allowed")),
    (Needs.HIDDEN.value, N_("hidden")),
]
_GRAIN = [
    ("", N_("any grain")),
    (GrainFigure.STRAIGHT.value, N_("straight grain")),
    (GrainFigure.FIGURED.value, N_("figure wanted")),
]
_RINGS = [
    ("", N_("rings any way")),
    (GrainCut.FLAT.value, N_("flat-sawn")),
    (GrainCut.RIFT.value, N_("rift-sawn")),
    (GrainCut.QUARTER.value, N_("quarter-sawn")),
]
#: Ways a part can lie on its board: whether end for end, and whether turned over.
_LIES = {"": (False, False), "flip": (True, False), "over": (False, True), "both": (True, True)}
_LAYING = [("", N_("as designed")), ("flip", N_("end for end")), ("over", N_("turned over")), ("both", N_("both"))]
_ALONE, _NEW_SET, _NEW_PAIR = "", "new set", "new pair"


class WoodAskedRows:
    """Two rows for the piece in hand."""

    def __init__(
        self, document: Document, rows: Callable[[str], Section], pin: Callable[[], None], swap: Callable[[], None]
    ) -> None:
        self._document = document
        row = rows(tr("This part"))
        self.name = words(tr("No part in hand"), row, quiet=False)
        usual = [(_ALONE, tr("as the piece"))]
        self.wood = chooser(tr("what wood it is to be of"), usual, lambda v: self._ask(wood=v), row, tr("Wood"))
        self.faces = chooser(
            tr("what its faces ask"),
            tr_pairs(_FACES),
            lambda v: self._ask(needs=Needs(v) if v else None),
            row,
            tr("Faces"),
        )
        self.grain = chooser(tr("what its grain asks"), tr_pairs(_GRAIN), self._ask_grain, row, tr("Grain"))
        self.rings = DrawnChoice(tr("Rings"), tr_pairs(_RINGS), lambda v: self._ask(rings=GrainCut(v) if v else None))
        row.addWidget(self.rings)
        self.together = chooser(tr("what it matches"), [(_ALONE, tr("alone"))], self._match, row, tr("Matches"))
        self.made = DrawnChoice(tr("Made"), [("", tr("whole"))], self._make)
        row.addWidget(self.made)
        self.lies = DrawnChoice(tr("Lies"), tr_pairs(_LAYING), self._lie)
        row.addWidget(self.lies)
        self.pin = action(tr("Keep it there"), pin, row)
        self.swap = action(tr("Swap with …"), swap, row)
        boxes = (self.wood, self.faces, self.grain, self.together)
        self._widgets: list[QWidget] = [
            self.name,
            *(pair for box in boxes if (pair := box.parentWidget()) is not None),
            self.rings,
            self.made,
            self.pin,
            self.lies,
            self.swap,
        ]

    @property
    def _piece(self) -> RoughPart | None:
        return selected_piece(self._document.plan, self._document.selection)

    @property
    def _part(self) -> str:
        piece = self._piece
        return piece.parts[0] if piece is not None else ""

    @property
    def _asked(self) -> str:
        """Whose wood is asked for: of a part made of staves each stave's own."""
        piece = self._piece
        return piece.id if piece is not None and piece.stave else self._part

    @property
    def _name(self) -> str:
        piece = self._piece
        return piece.name if piece is not None else ""

    def refresh(self, shown: bool) -> None:
        """Show what is asked for the piece in hand; without one the rows stay, so that nothing moves when one is."""
        piece, project, plan = self._piece, self._document.project, self._document.plan
        for widget in self._widgets:
            widget.setVisible(shown)
            widget.setEnabled(piece is not None)
        if piece is None:
            self.name.setText(tr("No part in hand"))
            return
        self.name.setText(piece.name.capitalize())
        self.name.setToolTip(plain_tip(piece.name.capitalize()))
        ask = dict(project.asks).get(self._asked, WoodRequirement())
        # The woods there are on the rack come first.
        woods = dict.fromkeys((*(board.species for board in project.boards if board.species), *all_species()))
        _fill(self.wood, [(_ALONE, tr("as the piece")), *tr_pairs((name, name) for name in woods)], ask.wood)
        show_choice(self.faces, ask.needs.value if ask.needs else "")
        show_choice(self.grain, ask.figure.value if ask.figure else "")
        self.rings.show_value(ask.rings.value if ask.rings else "")
        part = plan.part(self._part)
        species = plan.species_of(part) if part is not None else piece.wood
        self.rings.draw(lambda value: rings_picture(GrainCut(value) if value else None, species))
        sets = {each.together: each for _, each in project.asks if each.together}
        options = [(_ALONE, tr("alone")), *((name, name) for name in sets)]
        _fill(
            self.together,
            [*options, (_NEW_SET, tr("a new set in order")), (_NEW_PAIR, tr("new neighbors"))],
            ask.together,
        )
        self.made.set_options(self._ways(plan))
        self.made.show_value(self._way())
        self.made.draw(lambda value: self._made_picture(value, species))
        placed = next((item for item in project.layout if item.part == piece.id), None)
        for widget in (self.lies, self.pin, self.swap):
            widget.setEnabled(placed is not None)
        if placed is not None:
            self.lies.show_value(_lying(placed.flipped, placed.over))
        self.lies.draw(lambda value: laying_picture(*_LIES[value], species))
        self.pin.setText(tr("Let it move") if placed is not None and placed.pinned else tr("Keep it there"))

    def _ways(self, plan: Plan) -> list[tuple[str, str]]:
        """Return the ways the part in hand can be had."""
        part = plan.part(self._part)
        usual = part.staves if part is not None else 1
        counts = sorted({*range(2, 7), *({usual} if usual > 1 else ())})
        whole = [("", tr("whole"))] if usual == 1 else []
        ways = [*whole, *((str(count), tr("of {count} staves", count=count)) for count in counts)]
        names = {part.id: part.name for part in plan.parts}
        twins = resaw_twins(plan, self._part)
        return [*ways, *((twin, tr("resawn with {twin}", twin=names.get(twin, twin))) for twin in twins[:6])]

    def _made_picture(self, value: str, species: str) -> Drawing:
        if value and not value.isdigit():
            return resawn_picture(species)
        staves = next((each for each in self._document.plan.staves if each.part == self._part), None)
        return staves_picture(int(value or 1), staves is None or staves.alternate, species)

    def _way(self) -> str:
        project = self._document.project
        staves = next((each for each in self._document.plan.staves if each.part == self._part), None)
        if staves is not None:
            return str(len(staves.widths))
        pair = next((each for each in project.resawn if self._part in each), None)
        return "" if pair is None else next(twin for twin in pair if twin != self._part)

    # --- actions ---

    def verbs(self) -> tuple[Verb, ...]:
        """Return what can be done with the piece in hand where it lies."""
        return (
            Verb(self.pin.text(), self.pin.click),
            Verb(tr("End for end"), self._flip),
            Verb(tr("Turn over"), self._turn_over),
            Verb(tr("Swap with …"), self.swap.click),
            Verb(tr("Its wood"), partial(reach, self.faces)),
        )

    def _ask_grain(self, value: str) -> None:
        self._ask(figure=GrainFigure(value) if value else None)

    def _ask_rings(self, value: str) -> None:
        self._ask(rings=GrainCut(value) if value else None)

    def _ask(self, **changed: object) -> None:
        asked = self._asked
        ask = dict(self._document.project.asks).get(asked, WoodRequirement())._replace(**changed)  # type: ignore[arg-type]
        name = self._document.plan.reader.with_article(self._name)
        self._document.do(tr("what {name} asks of its wood", name=name), lambda p: actions.ask_of_wood(p, asked, ask))

    def _match(self, value: str) -> None:
        """Let the part in hand match others: alone again, one of the sets there are, or the first of a new one."""
        project = self._document.project
        names = {ask.together for _, ask in project.asks if ask.together}
        in_order = next((ask.in_order for _, ask in project.asks if ask.together == value), False)
        if value in (_NEW_SET, _NEW_PAIR):
            word = tr("set") if value == _NEW_SET else tr("neighbors")
            number = next(n for n in range(1, 100) if f"{word} {n}" not in names)
            value, in_order = f"{word} {number}", value == _NEW_SET
        self._ask(together=value, in_order=in_order)

    def _make(self, value: str) -> None:
        part = self._part
        name = self._document.plan.reader.with_article(self._name)
        if not value:
            self._document.do(tr("have {name} whole", name=name), lambda p: actions.make_whole(p, part))
        elif value.isdigit():
            self._document.do(
                tr("make {name} of {count} staves", name=name, count=value), lambda p: with_staves(p, part, int(value))
            )
        else:
            self._document.do(tr("resaw {name}", name=name), lambda p: actions.resaw(p, Resawn(part, value)))

    def _lie(self, value: str) -> None:
        """Let the piece in hand lie another way."""
        piece = self._piece
        placed = next((item for item in self._document.project.layout if piece and item.part == piece.id), None)
        if piece is None or placed is None:
            return
        flipped, over = _LIES[value]

        def changed(project: Project) -> Project:
            if placed.flipped is not flipped:
                project = actions.flip(project, piece.id)
            return actions.turn_over(project, piece.id) if placed.over is not over else project

        self._document.do(tr("lay {name} {way}", name=piece.name, way=tr(dict(_LAYING)[value])), changed)

    def _flip(self) -> None:
        piece = self._piece
        if piece is not None:
            self._document.do(tr("lay {name} end for end", name=piece.name), lambda p: actions.flip(p, piece.id))

    def _turn_over(self) -> None:
        piece = self._piece
        if piece is not None:
            self._document.do(tr("turn {name} over", name=piece.name), lambda p: actions.turn_over(p, piece.id))


def _lying(flipped: bool, over: bool) -> str:
    return next(value for value, way in _LIES.items() if way == (flipped, over))


def _fill(box: QComboBox, options: list[tuple[str, str]], value: str) -> None:
    """Put options into a choice, if they are not there already, and show one."""
    if [(str(box.itemData(i)), box.itemText(i)) for i in range(box.count())] != options:
        box.blockSignals(True)
        box.clear()
        for data, text in options:
            box.addItem(text, data)
        box.blockSignals(False)
    show_choice(box, value)
    box.updateGeometry()
