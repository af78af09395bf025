"""Rough parts: finished sizes with the allowances that sawing and planing will take, and what they ask of the wood."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping, Sequence

from nullah.core.catalogue import Name, Phrase
from nullah.core.frozen_record import FrozenRecord
from nullah.core.identity import kept_by_identity
from nullah.core.lengths import Length, mm
from nullah.core.named_tuple import NamedTuple
from nullah.core.piece.part import Needs, Part
from nullah.core.rack.board import GrainFigure
from nullah.core.wood.movement import GrainCut


class Allowances(FrozenRecord):
    """What is added to a finished size: at both ends together, both edges together, both faces together.

    `joint` is what jointing takes of each stave, both its edges together. The usual figures
    (25 to 50 mm, about 6 mm) are common practice without a published source.
    """

    end: Length = mm(30)
    edge: Length = mm(6)
    thickness: Length = mm(3)
    joint: Length = mm(3)


class WoodRequirement(NamedTuple):
    """What a part asks of its wood, beyond what its place in the piece says; None or empty asks nothing.

    Parts with the same `together` come from one board as neighbours, and where `in_order`
    end to end as they are numbered, so that the figure runs on. `wood` is another than the
    piece's own.
    """

    needs: Needs | None = None
    figure: GrainFigure | None = None
    rings: GrainCut | None = None
    together: str = ""
    in_order: bool = False
    wood: str = ""


class Staves(NamedTuple):
    """A wide part glued up from staves of these finished widths, which add up to its own.

    `alternate` turns every second stave over, so that their cups cancel into a ripple;
    otherwise all arcs lie one way, so that one batten can hold them. Both schools exist.
    """

    part: str
    widths: tuple[Length, ...]
    alternate: bool = True

    @property
    def pieces(self) -> tuple[str, ...]:
        """The ids of its pieces."""
        return tuple(_stave_id(self.part, number) for number in range(1, len(self.widths) + 1))


class Resawn(NamedTuple):
    """Two parts of one length and width sawn out of one thick blank."""

    first: str
    second: str

    @property
    def piece(self) -> str:
        """The id of the blank."""
        return _blank_id(self.first, self.second)


def _stave_id(part: str, number: int) -> str:
    return f"{part}/{number}"


def _blank_id(first: str, second: str) -> str:
    return f"{first}+{second}"


class RoughPart(NamedTuple):
    """A piece of wood as it is to be sawn out of a board. `turned` ones lie across the board.

    `wood` is the species it is to be of; empty for any. `makes` are the parts that come of
    it: usually the one of its own id; a stave makes a share of one, a resawn blank two, a `strip`
    several short ones, end to end.
    `finished` is the thickness that must be left after flattening; `stave` which of a part's
    staves it is, from 1, and 0 for what is no stave.
    """

    id: str
    name: str
    length: Length
    width: Length
    thickness: Length
    needs: Needs
    turned: bool = False
    wood: str = ""
    makes: tuple[str, ...] = ()
    finished: Length | None = None
    figure: GrainFigure | None = None
    rings: GrainCut | None = None
    together: str = ""
    in_order: bool = False
    number: int = 0
    stave: int = 0
    strip: bool = False

    @property
    def along(self) -> Length:
        """Its extent along the board."""
        return self.width if self.turned else self.length

    @property
    def across(self) -> Length:
        """Its extent across the board."""
        return self.length if self.turned else self.width

    @property
    def parts(self) -> tuple[str, ...]:
        """The ids of the parts that come of it."""
        return self.makes or (self.id,)

    @property
    def nameless(self) -> RoughPart:
        """The same piece of wood, whichever part it is for: equal for all of one size of which the same is asked."""
        makes = ("",) * len(self.makes)
        return self._replace(
            id="", name="", makes=makes, together="", in_order=False, number=0, stave=min(self.stave, 1)
        )


@kept_by_identity(4096)
def rough_part(part: Part, allowances: Allowances, wood: str = "") -> RoughPart:
    """Return the rough size of a part: what it is cut to, with the allowances; `wood` is the species it is to be of."""
    return RoughPart(
        part.id,
        part.name,
        part.cut_length + allowances.end,
        part.width + allowances.edge,
        part.thickness + allowances.thickness,
        part.needs,
        wood=wood,
        finished=part.thickness,
        number=part.number,
    )


def held(now: RoughPart, planned: RoughPart, allowances: Allowances) -> RoughPart:
    """Keep the rough sizes that were planned while what was measured since has taken less than half the allowances.

    A millimetre found at the bench must not make other parts of boards that are laid out, or sawn already.
    """

    def keep(one: Length, other: Length, allowance: Length) -> Length:
        return other if abs(one.mm - other.mm) * 2 <= allowance.mm else one

    return now._replace(
        length=keep(now.length, planned.length, allowances.end),
        width=keep(now.width, planned.width, allowances.edge),
        thickness=keep(now.thickness, planned.thickness, allowances.thickness),
    )


def asking(rough: RoughPart, ask: WoodRequirement | None) -> RoughPart:
    """Return a rough part with what was asked for it by hand; what is not asked stays as it is."""
    if ask is None:
        return rough
    return rough._replace(
        needs=ask.needs or rough.needs,
        figure=ask.figure or rough.figure,
        rings=ask.rings or rough.rings,
        together=ask.together or rough.together,
        in_order=ask.in_order or rough.in_order,
        wood=ask.wood or rough.wood,
    )


def as_made(
    rough: tuple[RoughPart, ...],
    staves: Iterable[Staves],
    resawn: Iterable[Resawn],
    allowances: Allowances,
    kerf: Length,
    on_edge: Collection[str] = (),
) -> tuple[RoughPart, ...]:
    """Return the pieces that are really sawn out: staves in the place of wide parts, one blank for two thin ones.

    Parameters
    ----------
    rough : tuple[RoughPart, ...]
        Rough parts as the cut list has them.
    staves : Iterable[Staves]
        Parts that are glued up.
    resawn : Iterable[Resawn]
        Pairs that are sawn out of one blank.
    allowances : Allowances
        What is added to finished sizes.
    kerf : Length
        Of the saw that resaws.
    on_edge : Collection[str]
        Parts whose staves are strips that stand on edge, face to face.
    """
    by_id = {piece.id: piece for piece in rough}
    for made in staves:
        if made.part in by_id:
            pieces = strip_pieces if made.part in on_edge else stave_pieces
            by_id = _put(by_id, made.part, pieces(by_id[made.part], made.widths, allowances))
    for pair in resawn:
        if pair.first in by_id and pair.second in by_id and resawable(by_id[pair.first], by_id[pair.second]):
            blank = resawn_blank(by_id[pair.first], by_id[pair.second], kerf)
            del by_id[pair.second]
            by_id = _put(by_id, pair.first, (blank,))
    return tuple(by_id.values())


def _put(pieces: Mapping[str, RoughPart], old: str, new: Iterable[RoughPart]) -> dict[str, RoughPart]:
    """Put pieces into the place of one."""
    found: dict[str, RoughPart] = {}
    for name, piece in pieces.items():
        if name == old:
            found.update((each.id, each) for each in new)
        else:
            found[name] = piece
    return found


def stave_pieces(rough: RoughPart, widths: tuple[Length, ...], allowances: Allowances) -> tuple[RoughPart, ...]:
    """Return the staves of a wide part, each with what jointing takes, the outer two with half the edge allowance.

    Parameters
    ----------
    rough : RoughPart
        The part.
    widths : tuple[Length, ...]
        Of its staves, finished.
    allowances : Allowances
        What saw and plane take.
    """
    pieces = []
    for index, width in enumerate(widths):
        outer = (index == 0) + (index == len(widths) - 1)
        wide = width + allowances.joint + Length(allowances.edge.mm * outer / 2)
        name = Phrase("{part} stave {number}", part=Name(rough.name), number=str(index + 1))
        pieces.append(
            rough._replace(
                id=_stave_id(rough.id, index + 1),
                name=name,
                width=wide,
                makes=(rough.id,),
                together="",
                stave=index + 1,
            )
        )
    return tuple(pieces)


def strip_pieces(rough: RoughPart, widths: tuple[Length, ...], allowances: Allowances) -> tuple[RoughPart, ...]:
    """Return the strips of a slab, each on its edge: as wide as the slab is thick, planed on both faces.

    Parameters
    ----------
    rough : RoughPart
        The slab.
    widths : tuple[Length, ...]
        Of its strips, finished.
    allowances : Allowances
        What saw and plane take.
    """
    finished = rough.finished if rough.finished is not None else rough.thickness - allowances.thickness
    return tuple(
        rough._replace(
            id=_stave_id(rough.id, number),
            name=Phrase("{part} strip {number}", part=Name(rough.name), number=str(number)),
            width=finished + allowances.edge,
            thickness=wide + allowances.thickness,
            finished=wide,
            makes=(rough.id,),
            together="",
            stave=number,
        )
        for number, wide in enumerate(widths, start=1)
    )


def equal_staves(width: Length, count: int) -> tuple[Length, ...]:
    """Share a finished width out among so many staves.

    Parameters
    ----------
    width : Length
        Finished, of the whole.
    count : int
        How many staves.

    Returns
    -------
    tuple[Length, ...]
        Widths that add up to the whole exactly.

    Examples
    --------
    >>> [stave.as_text() for stave in equal_staves(mm(300), 2)]
    ['150 mm', '150 mm']
    """
    return tuple(Length(width.mm / count) for _ in range(count))


def resawable(one: RoughPart, two: RoughPart) -> bool:
    """Return whether two parts can come out of one blank: of one size, one wood, and asking the same."""
    asked = [(p.length.mm, p.width.mm, p.needs, p.turned, p.wood, p.figure, p.rings) for p in (one, two)]
    return asked[0] == asked[1] and one.id != two.id


def resawn_blank(one: RoughPart, two: RoughPart, kerf: Length) -> RoughPart:
    """Return the blank that two thin parts are resawn from: both rough thicknesses and the kerf between them.

    Each keeps its whole allowance: the inner faces move as the tension goes, and carry saw marks.

    Parameters
    ----------
    one : RoughPart
        The one rough part.
    two : RoughPart
        The other, as long and as wide.
    kerf : Length
        Of the saw that resaws.
    """
    finished = None
    if one.finished is not None and two.finished is not None:
        spare = (one.thickness - one.finished) + kerf
        finished = one.finished + two.finished + spare
    return one._replace(
        id=_blank_id(one.id, two.id),
        name=Phrase("{one} and {other}, resawn", one=Name(one.name), other=Name(two.name)),
        thickness=one.thickness + two.thickness + kerf,
        makes=(one.id, two.id),
        finished=finished,
        together="",
    )


#: Equal parts no longer than this come out of one strip where they are so many, mm: shorter ones are hardly planed or
#: held by themselves (practice, without a published source).
SHORT, FEWEST = 150, 3
#: What shooting takes of the ends of each part that is sawn off a strip, mm.
_SHOT = 2


@kept_by_identity(4096)
def _is_short(part: Part) -> bool:
    return part.cut_length.mm <= SHORT


def one_strip(
    pieces: Sequence[RoughPart], cut_length: Length, name: str, allowances: Allowances, kerf: Length
) -> RoughPart:
    """Return the strip that short equal parts are sawn off, end to end.

    Parameters
    ----------
    pieces : sequence of RoughPart
        Each as it would be had by itself.
    cut_length : Length
        What each is cut to.
    name : str
        What they are called together.
    allowances : Allowances
        What is added to finished sizes.
    kerf : Length
        Of the saw that parts them.
    """
    first = pieces[0]
    each = cut_length.mm + kerf.mm + _SHOT
    return first._replace(
        id="+".join(piece.id for piece in pieces),
        name=Phrase("strip for {parts}", parts=Name(name)),
        length=Length(each * len(pieces)) + allowances.end,
        makes=tuple(piece.id for piece in pieces),
        strip=True,
    )


def in_strips(
    pieces: Sequence[RoughPart],
    parts: Iterable[Part],
    names: Callable[[Sequence[str]], str],
    allowances: Allowances,
    kerf: Length,
    alone: Collection[str] = (),
) -> tuple[RoughPart, ...]:
    """Return pieces with strips in the place of short equal parts of which the same is asked.

    Parameters
    ----------
    pieces : sequence of RoughPart
        As they are had otherwise.
    parts : iterable of Part
        The parts that come of them.
    names : callable
        What several names are together.
    allowances : Allowances
        What is added to finished sizes.
    kerf : Length
        Of the saw that parts them.
    alone : collection of str
        Pieces that lie on boards by themselves already, or are sawn out so: they stay as they are.
    """
    found = {piece.id: piece for piece in pieces}
    alike: dict[tuple[object, ...], list[RoughPart]] = {}
    short = {part.id: part for part in parts if _is_short(part) and part.id not in alone}
    for name, part in short.items():
        piece = found.get(name)
        if piece is not None and not piece.together and not piece.turned:
            alike.setdefault((part.alike, piece._replace(id="", name="", number=0)), []).append(piece)
    for group in alike.values():
        if len(group) >= FEWEST:
            strip = one_strip(
                group, short[group[0].id].cut_length, names([each.name for each in group]), allowances, kerf
            )
            found = _put(found, group[0].id, (strip,))
            for piece in group[1:]:
                del found[piece.id]
    return tuple(found.values())
