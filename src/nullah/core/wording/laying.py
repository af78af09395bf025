"""What is said of parts that cannot lie where they do, or lie nowhere, and of boards that cannot be sawn."""

from __future__ import annotations

from typing import assert_never, get_args

from nullah.core.breakdown import facts
from nullah.core.breakdown.facts import Complaint, LayoutFact, Match, Nowhere, Refusal, SawFact
from nullah.core.catalogue import N_
from nullah.core.rack.board import Faces, FlawKind
from nullah.core.reader import Reader, sentence
from nullah.core.wood.movement import GrainCut
from nullah.core.wording.worders import worders

FLAWS = {
    FlawKind.KNOT: N_("knot"),
    FlawKind.CHECK: N_("check"),
    FlawKind.SPLIT: N_("split"),
    FlawKind.SAP: N_("sap"),
    FlawKind.WANE: N_("wane"),
    FlawKind.RUNOUT: N_("run-out"),
}
SAWN = {GrainCut.FLAT: N_("flat-sawn"), GrainCut.RIFT: N_("rift-sawn"), GrainCut.QUARTER: N_("quarter-sawn")}
_MATCHES = {
    Match.OTHER_BOARD: N_("is to come from one board with {other} ({set})"),
    Match.NOT_IN_ORDER: N_("is to follow {other} in the board, end to end ({set})"),
    Match.NOT_BESIDE: N_("is to lie beside {other} ({set})"),
}
_OVER_FLAWS = {
    Faces.THROUGH: N_("lies over the {flaw} on {board}"),
    Faces.UP: N_("lies over the {flaw} in the upper face on {board}"),
    Faces.DOWN: N_("lies over the {flaw} in the lower face on {board}"),
}


def refusal_words(fact: Refusal, reader: Reader) -> str:
    """Return why a board cannot give a part anywhere, as the end of a sentence."""
    match fact:
        case facts.OtherWood(wanted, board, species):
            return reader.text(
                "is to be {wanted}, and {board} is {species}",
                wanted=reader.text(wanted),
                board=board,
                species=reader.text(species),
            )
        case facts.TooThin(needs, board, thickness):
            return reader.text(
                "needs {needs} rough, and {board} is {thickness} thick",
                needs=reader.length(needs),
                board=board,
                thickness=reader.length(thickness),
            )
        case facts.NotStraight(board):
            return reader.text("asks for straight grain, and {board} is not marked straight", board=board)
        case facts.NotFigured(board):
            return reader.text("asks for figure, and {board} is not marked figured", board=board)
        case facts.SawnOtherwise(wanted_cut, board, cut):
            return reader.text(
                "asks for {wanted} wood, and {board} is {cut}",
                wanted=reader.text(SAWN[wanted_cut]),
                board=board,
                cut=reader.text(SAWN[cut]),
            )
        case _:
            assert_never(fact)


def complaint_words(fact: Complaint, reader: Reader) -> str:
    """Return what is said of a part that cannot lie where it does, as the end of a sentence: “lies over the knot”."""
    match fact:
        case facts.OverEdge(board, crooked):
            message = (
                N_("reaches over the crooked edge of {board}") if crooked else N_("reaches over the edge of {board}")
            )
            return reader.text(message, board=board)
        case facts.OverFlaw(flaw, faces, board, turned):
            said = reader.text(_OVER_FLAWS[faces], flaw=reader.text(FLAWS[flaw]), board=board)
            return reader.text("{complaint}; turned over it could", complaint=said) if turned else said
        case facts.OverPart(other):
            return reader.text("lies over {other}", other=other)
        case facts.NoKerf(other):
            return reader.text("leaves no kerf between itself and {other}", other=other)
        case facts.Unmatched(match, other, name):
            return reader.text(_MATCHES[match], other=other, set=name)
        case facts.SawnUp(board):
            return reader.text("cannot lie there: {board} is sawn up already", board=board)
        case facts.Inseparable():
            return reader.text("cannot lie there: no straight cut would part it from the others")
        case _:
            return refusal_words(fact, reader)


def saw_words(fact: SawFact | facts.BoardNotSawable | facts.TooManyParts, reader: Reader) -> str:
    """Return why a board cannot be sawn, or parts not laid out."""
    match fact:
        case facts.NotSawable(parts):
            return reader.text(
                "No cut from edge to edge separates {parts}: move one of them.", parts=reader.listed(parts)
            )
        case facts.Struck(parts):
            return reader.text(
                "The cut that comes before flattening goes through {parts}: lay it elsewhere, or "
                "flatten the board whole.",
                parts=reader.listed(parts),
            )
        case facts.BoardNotSawable(board, why):
            return reader.text("On {board}: {why}", board=board, why=saw_words(why, reader))
        case facts.TooManyParts(number, most):
            return reader.text(
                "{number} parts are asked for; more than {most} must be a slip of the key.", number=number, most=most
            )
        case _:
            assert_never(fact)


def nowhere_words(fact: Nowhere, reader: Reader, several: bool = False) -> str:
    """Return why a part lies nowhere, and what would place it; or each of several."""
    length = reader.length
    it = reader.text(N_("Each") if several else N_("It"))
    one = reader.text(N_("each") if several else N_("it"))
    match fact:
        case facts.NoBoards():
            return reader.text("There is no board on the rack.")
        case facts.NoWood(wood):
            return reader.text("There is no {wood} on the rack.", wood=wood)
        case facts.NoneThick(needs, thickest):
            return reader.text(
                "{it} needs {needs} rough; the thickest board is {thickest}.",
                it=it,
                needs=length(needs),
                thickest=length(thickest),
            )
        case facts.GrainNowhere(refusal):
            return reader.text(
                "{it} {complaint}, nor is any other board thick enough.",
                it=it,
                complaint=refusal_words(refusal, reader),
            )
        case facts.NoneWide(across, widest, staves):
            said = reader.text(
                "{it} is {across} wide rough; the widest board thick enough is {widest}, {short} too narrow.",
                it=it,
                across=length(across),
                widest=length(widest),
                short=length(across - widest),
            )
            return said + _staves(staves, reader)
        case facts.NoneLong(along, longest):
            return reader.text(
                "{it} is {along} long rough; the longest board wide and thick enough is {longest}, {short} too short.",
                it=it,
                along=length(along),
                longest=length(longest),
                short=length(along - longest),
            )
        case facts.NoneClear(across, along, clear, board, staves):
            said = reader.text(
                "{it} is {over} wider than the widest clear strip {along} long, which is {clear}, on {board}.",
                it=it,
                over=length(across - clear),
                along=length(along),
                clear=length(clear),
                board=board,
            )
            return said + _staves(staves, reader)
        case facts.FitsOn(boards):
            return reader.text(
                "{it} fits on {boards}, where nothing lies yet.", it=it, boards=reader.listed(boards, "or")
            )
        case facts.RoomOn(boards):
            return reader.text(
                "There is room for {one} on {boards} as things lie: drag it there, or lay the parts out.",
                one=one,
                it=it,
                boards=reader.listed(boards, "or"),
            )
        case facts.TakenUp(boards):
            return reader.text(
                "{it} would fit on {boards}, but other parts lie there. One more board of that size would place it.",
                it=it,
                boards=reader.listed(boards, "or"),
            )
        case facts.FlatteningLeaves(most, board, needs):
            return reader.text(
                "Flattening leaves {one} {most} at most, out of {board}; it needs {needs}.",
                one=one,
                most=reader.fine(most),
                board=board,
                needs=reader.fine(needs),
            )
        case _:
            assert_never(fact)


def _staves(staves: facts.StavesDo | None, reader: Reader) -> str:
    if staves is None:
        return ""
    return " " + reader.count(
        staves.number,
        "{n} stave of about {wide} out of {board} would do.",
        "{n} staves of about {wide} out of {board} would do.",
        wide=reader.length(staves.wide),
        board=staves.board,
    )


def layout_fact_words(fact: LayoutFact, reader: Reader) -> str:
    """Return what is told of a whole layout."""
    match fact:
        case facts.LieNowhere(parts, nowhere):
            said = reader.count(
                len(parts), "{parts} lies nowhere.", "{parts} lie nowhere.", parts=sentence(reader.together(parts))
            )
            return f"{said} {nowhere_words(nowhere, reader, several=len(parts) > 1)}"
        case facts.LiesWrongly(part, why):
            return reader.text("{part} {complaint}.", part=sentence(part), complaint=complaint_words(why, reader))
        case facts.DepthUnknown(part, flaw, upper, board):
            message = (
                N_(
                    "Under {part} lies a {flaw} in the upper face of {board}; how deep it goes nobody knows. Probe "
                    "it before you saw."
                )
                if upper
                else N_(
                    "Under {part} lies a {flaw} in the lower face of {board}; how deep it goes nobody knows. "
                    "Probe it before you saw."
                )
            )
            return reader.text(message, part=part, flaw=reader.text(FLAWS[flaw]), board=board)
        case facts.BoardsToBuy(percent, boards):
            return reader.text(
                "To buy, with {percent} % over for flaws: {boards}.",
                percent=percent,
                boards="; ".join(_to_buy(each, reader) for each in boards),
            )
        case facts.BoardsBeingCounted():
            return reader.text("What to buy is being worked out …")
        case facts.SawInWaste(kerf):
            return reader.text(
                "Saw beyond the line, in the waste; {kerf} is allowed for the saw. Hold the falling piece.",
                kerf=reader.fine(kerf),
            )
        case _:
            assert_never(fact)


def _to_buy(each: facts.ToBuyOne, reader: Reader) -> str:
    thick = reader.length(each.thickness) + (f" ({each.trade_name})" if each.trade_name else "")
    return reader.count(
        each.number,
        "{n} board of {wood}, {thick} thick, {width} wide, {length} long",
        "{n} boards of {wood}, {thick} thick, {width} wide, {length} long",
        wood=each.wood,
        thick=thick,
        width=reader.length(each.width),
        length=reader.length(each.length),
    )


#: What says the facts of this room.
WORDERS = worders(
    (get_args(Refusal), refusal_words),
    (get_args(facts.Placed), complaint_words),
    (get_args(Nowhere), nowhere_words),
    (get_args(LayoutFact), layout_fact_words),
    ((*get_args(SawFact), facts.BoardNotSawable, facts.TooManyParts), saw_words),
)
