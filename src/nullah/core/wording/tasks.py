"""What is said of every task of a kind: what is always done in it, what is to be minded."""

from __future__ import annotations

from nullah.core.bench.tasks import Trade
from nullah.core.catalogue import N_
from nullah.core.joints.bench import SAW_BITES
from nullah.core.reader import Reader

_STEPS = {
    Trade.FIT: (
        N_("Hold it to its opening; knife the length from the opening itself where you can."),
        N_("Saw in the waste, shoot to the line: a shaving at a time, tried after each."),
    ),
    Trade.MILL: (N_("The strokes of each face stand at Milling."),),
    Trade.SMOOTH: (
        N_("All joint lines off; a finely set plane, with the grain."),
        N_("Not over the joints’ own faces."),
        N_("It is the last time a plane gets there."),
    ),
    Trade.SHAPE: (N_("End grain first, then along: breakout is planed away."), N_("Stop at the line.")),
    Trade.PUT_IN: (N_("Try it in; ease what binds. Then fasten as planned."),),
    Trade.CLEAN: (N_("Plane end grain flush from the edges inwards."), N_("Ease the arrises; sight along all faces.")),
    Trade.HARDWARE: (
        N_("Bore for every screw; drive an iron one first, and the brass one after it."),
        N_("What carries weight goes into what holds it: studs, anchors, solid wood."),
    ),
    Trade.FINISH: (N_("A scrap first. Thin coats, the surplus wiped off."), N_("Rub down lightly between coats.")),
}
_CAUTIONS = {
    Trade.SAW: (SAW_BITES, N_("Gloves for rough timber; look for nails in reclaimed wood.")),
    Trade.MILL: (N_("Both hands behind the plane; the board is held, not hand-held. Dust of some woods irritates."),),
    Trade.FIT: (SAW_BITES,),
    Trade.SHAPE: (N_("The tool works away from the hand that holds."),),
    Trade.GLUE: (N_("Never force a joint; squeeze-out makes the floor slippery."),),
    Trade.HARDWARE: (N_("Two people to hang what is heavy; look for pipes and wires behind the wall."),),
    Trade.FINISH: (
        N_("Oil-soaked rags can ignite by themselves: dry them flat outdoors."),
        N_("Fresh air; follow the maker’s sheet."),
    ),
}


def usual_steps(trade: Trade, reader: Reader) -> tuple[str, ...]:
    """Return what is always done in a task of a kind."""
    return tuple(reader.text(step) for step in _STEPS.get(trade, ()))


def task_cautions(trade: Trade, reader: Reader) -> tuple[str, ...]:
    """Return what is to be minded in a task of a kind."""
    return tuple(reader.text(caution) for caution in _CAUTIONS.get(trade, ()))


def days_legend(picked: bool, reader: Reader) -> str:
    """Return what is coloured on the picture of the days: about a task that is picked, or else of all."""
    if picked:
        return reader.text("blue: what it waits for, and what waits for it")
    return reader.text("blue: glue and finish, and what waits for them")


def done_on(day: str, time: str, reader: Reader) -> str:
    """Return when all will be done."""
    return reader.text("done on {day} at {time}", day=day, time=time)


#: Why anything is measured at all.
FROM_WHAT_IS = N_("What fits into something is cut from what is, not from the drawing.")


def measuring_steps(places: int, reader: Reader) -> tuple[str, ...]:
    """Return how an opening is measured that so many parts go into, each in its own place."""
    if places > 1:
        where = N_(
            "Measure at every place where one goes: at each the smallest counts, of all the largest. Enter that; each "
            "is then shot to its own place."
        )
    else:
        where = N_("Measure at front and back, top and bottom: the smallest counts. Enter it here.")
    return reader.text(N_("Check that it is square: the diagonals equal.")), reader.text(where)
