"""What is said of what the proof finds."""

from __future__ import annotations

from typing import assert_never, get_args

from nullah.core.catalogue import N_
from nullah.core.lengths import Direction, mm
from nullah.core.piece import faults as facts
from nullah.core.piece.faults import ChannelFact, MeetingFact, Misfit, MovingFact, ShowsWhere, TailsFact, Width
from nullah.core.piece.space import Axis, Side
from nullah.core.reader import Reader
from nullah.core.wording.worders import as_sentence, worders

_SIDES = {
    Side.LEFT: N_("on the left"),
    Side.RIGHT: N_("on the right"),
    Side.FRONT: N_("in front"),
    Side.BACK: N_("behind"),
    Side.UNDER: N_("underneath"),
    Side.TOP: N_("on top"),
}
_SURFACES = {ShowsWhere.END: N_("end"), ShowsWhere.EDGE: N_("edge"), ShowsWhere.FACE: N_("face")}
_TOO_LARGE = {Axis.X: N_("wide"), Axis.Y: N_("deep"), Axis.Z: N_("high")}
_WIDTHS = {
    Width.PROUD: N_("{guest} is {thickness} thick and its {channel} in {host} {wide} wide: it stands {by} proud."),
    Width.TIGHT: N_("{guest} is {thickness} thick and its {channel} in {host} {wide} wide: {by} too tight."),
    Width.LOOSE: N_("{guest} is {thickness} thick and its {channel} in {host} {wide} wide: {by} loose."),
}
_MISFITS = {
    Misfit.TOO_DEEP: N_("{guest} reaches {by} deeper than the {channel} in {host}."),
    Misfit.TOO_SHALLOW: N_("{guest} stops {by} short of the floor of the {channel} in {host}."),
    Misfit.NOTCHED_TOO_LITTLE: N_(
        "{guest} is notched {by} too little: it runs past the end of the stopped {channel} in {host}."
    ),
    Misfit.NOTCHED_TOO_MUCH: N_(
        "{guest} is notched {by} too much: the end of the {channel} in {host} would stand open."
    ),
    Misfit.PAST_THE_END: N_("{guest} runs {by} past the end of the {channel} in {host}."),
    Misfit.OPEN_AT_THE_END: N_("{guest} leaves {by} of the {channel} in {host} open at its end."),
}


def meeting_words(fact: MeetingFact, reader: Reader) -> str:
    """Return what is wrong with how two parts meet."""
    part, fine = reader.the, reader.fine
    match fact:
        case facts.Collision(first, second, sizes, joined):
            message = (
                N_("{first} and {second} fill the same space, {sizes}.")
                if joined
                else N_("{first} and {second} fill the same space, {sizes}, and no joint shares it out.")
            )
            return reader.text(message, first=part(first), second=part(second), sizes=reader.size(*sizes))
        case facts.Void(first, second, sizes):
            return reader.text(
                "Between {first} and {second} a gap of {sizes} is left that nothing fills.",
                first=part(first),
                second=part(second),
                sizes=reader.size(*sizes),
            )
        case facts.Apart(first, second, gap, joint):
            return reader.text(
                "{first} and {second} do not meet: {gap} is missing, so their {joint} has nothing to hold.",
                first=part(first),
                second=part(second),
                gap=fine(gap),
                joint=reader.text(joint),
            )
        case facts.NoCorner(first, second, joined):
            return reader.text(
                "{first} and {second} cannot be {joined} as they lie: they make no corner with their ends. "
                "Turn one of them, or join them otherwise.",
                first=part(first),
                second=part(second),
                joined=reader.text(joined),
            )
        case facts.ButtGap(first, second, gap):
            return reader.text(
                "There is a gap of {gap} between {first} and {second}.",
                first=part(first),
                second=part(second),
                gap=fine(gap),
            )
        case facts.EdgesOnly(first, second):
            return reader.text(
                "{first} and {second} touch along an edge only: nothing can hold them.",
                first=part(first),
                second=part(second),
            )
        case _:
            assert_never(fact)


def tails_words(fact: TailsFact, reader: Reader) -> str:
    """Return what is wrong with a dovetailed corner."""
    part, fine = reader.the, reader.fine
    match fact:
        case facts.TailsShort(tail, pin, short, lapped):
            message = (
                N_("{tail} is {short} short: the lap would be {short} too thick.")
                if lapped
                else N_("{tail} is {short} short: its tails end {short} inside {pin}.")
            )
            return reader.text(message, tail=part(tail), pin=part(pin), short=fine(short))
        case facts.NoLap(tail, pin):
            return reader.text(
                "The tails of {tail} come through the front of {pin}: no lap is left.", tail=part(tail), pin=part(pin)
            )
        case facts.PinsShort(pin, tail, short):
            return reader.text(
                "{pin} is {short} short: its pins end inside {tail}.", tail=part(tail), pin=part(pin), short=fine(short)
            )
        case facts.StandsOut(one, mate, by, pins):
            message = (
                N_("{part} is {by} too long: its pins would stand so far out of {mate}.")
                if pins
                else N_("{part} is {by} too long: its tails would stand so far out of {mate}.")
            )
            return reader.text(message, part=part(one), mate=part(mate), by=fine(by))
        case _:
            assert_never(fact)


def channel_words(fact: ChannelFact, reader: Reader) -> str:
    """Return what is wrong with a channel, or with what enters it."""
    part, fine = reader.the, reader.fine
    match fact:
        case facts.DoesNotFit(misfit, guest, host, channel, by):
            return reader.text(
                _MISFITS[misfit], guest=part(guest), host=part(host), channel=reader.text(channel.value), by=fine(by)
            )
        case facts.WidthOff(width, guest, host, channel, thickness, wide, by):
            return reader.text(
                _WIDTHS[width],
                guest=part(guest),
                host=part(host),
                channel=reader.text(channel.value),
                thickness=fine(thickness),
                wide=fine(wide),
                by=fine(by),
            )
        case facts.Shows(channel, guest, host, surface, side):
            return reader.text(
                "The {channel} for {guest} shows in the {surface} of {host}, {side}.",
                channel=reader.text(channel.value),
                guest=part(guest),
                host=part(host),
                surface=reader.text(_SURFACES[surface]),
                side=reader.text(_SIDES[side]),
            )
        case facts.ThinFloor(host, channel, left, thickness, least):
            return reader.text(
                "The {channel} leaves only {left} of the {thickness} of {host}; {least} is the least.",
                channel=reader.text(channel.value),
                host=part(host),
                left=fine(left),
                thickness=fine(thickness),
                least=fine(least),
            )
        case facts.Shallow(host, guest, reach, least):
            return reader.text(
                "{guest} goes only {reach} into {host}; less than {least} hardly holds.",
                guest=part(guest),
                host=part(host),
                reach=fine(reach),
                least=fine(least),
            )
        case facts.ThinTongue(guest, host, left, thickness, least):
            return reader.text(
                "Only {left} of the {thickness} of {guest} are left where it goes into {host}: that breaks. "
                "{least} is the least.",
                guest=part(guest),
                host=part(host),
                left=fine(left),
                thickness=fine(thickness),
                least=fine(least),
            )
        case facts.ThinEdge(host, channel, left, least):
            return reader.text(
                "Only {left} is left beside the {channel} at the edge of {host}; {least} is the least.",
                channel=reader.text(channel.value),
                host=part(host),
                left=fine(left),
                least=fine(least),
            )
        case facts.ThinBetween(host, one, two, left, least):
            return reader.text(
                "Between {one} and {two} from either face only {left} of {host} is left; a "
                "third ({least}) is the least.",
                one=reader.text(one.value),
                two=reader.text(two.value),
                left=fine(left),
                host=part(host),
                least=fine(least),
            )
        case _:
            assert_never(fact)


def moving_words(fact: MovingFact, reader: Reader) -> str:
    """Return what is wrong with what must move, goes together, or bears a load."""
    part, fine = reader.the, reader.fine
    match fact:
        case facts.CannotComeOut(mover, one, other, axis, by):
            # Of “drawer 1 front”, which belongs to “drawer 1”, only “front” need be said.
            board = reader.part(one).removeprefix(mover).strip() or reader.text("board")
            return reader.text(
                "{mover} cannot come out: its {board} is {by} too {large} to pass {other}.",
                mover=reader.with_article(mover),
                board=board,
                by=fine(by),
                large=reader.text(_TOO_LARGE[axis]),
                other=part(other),
            )
        case facts.Trapped(parts):
            return reader.text(
                "These cannot be put together in any order: {parts}. Each is held by the others along every direction.",
                parts=reader.listed(map(reader.part, parts), most=4),
            )
        case facts.CrossGrain():
            return _cross_grain(fact, reader)
        case facts.NoRoom(parts, change, room, shrinks=True):
            return reader.text(
                "{part} shrinks {change} until the driest month; what lies in it has only {room} of room.",
                part=part(parts[0]),
                change=fine(change),
                room=fine(max(room, mm(0))),
            )
        case facts.NoRoom(parts, change, room):
            room = max(room, mm(0))
            if len(parts) == 1:
                return reader.text(
                    "{part} grows {change} until the dampest month and has only {room} of room.",
                    part=part(parts[0]),
                    change=fine(change),
                    room=fine(room),
                )
            return reader.text(
                "{part} and its neighbors grow {change} until the dampest month and have only {room} of room.",
                part=part(parts[0]),
                change=fine(change),
                room=fine(room),
            )
        case facts.Sags(one, load, drop, span, passing):
            return reader.text(
                "Under {load} {part} sags {drop} over {span}; it would show. At {passing} it passes.",
                load=reader.marks.write_weight(load),
                part=part(one),
                drop=fine(drop),
                span=reader.length(span),
                passing=reader.length(passing, Direction.DOWN),
            )
        case _:
            assert_never(fact)


def _cross_grain(fact: facts.CrossGrain, reader: Reader) -> str:
    message = (
        N_(
            "{fixed} is screwed fast to {to} across {held} of the grain of {moving}: over about "
            "{limit} wood splits or bows."
        )
        if fact.screwed
        else N_(
            "{fixed} is glued to {to} across {held} of the grain of {moving}: over about {limit} wood splits or bows."
        )
    )
    said = reader.text(
        message,
        fixed=reader.the(fact.fixed),
        to=reader.the(fact.to),
        held=reader.fine(fact.held),
        moving=reader.the(fact.moving),
        limit=reader.fine(fact.limit),
    )
    if fact.change.mm == 0:
        return said
    return f"{said} " + reader.text("It moves about {change} over the year.", change=reader.fine(fact.change))


def repeated_words(said: str, places: int, reader: Reader) -> str:
    """Return a sentence with in how many places it holds."""
    return f"{said} " + reader.count(places, "So in {n} place.", "So in {n} places.")


#: What says the facts of this room.
WORDERS = worders(
    (get_args(MeetingFact), as_sentence(meeting_words)),
    (get_args(TailsFact), as_sentence(tails_words)),
    (get_args(ChannelFact), as_sentence(channel_words)),
    (get_args(MovingFact), as_sentence(moving_words)),
)
