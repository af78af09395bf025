"""What is to be minded at the bench of a joint that can be made: thin wood, tools that do not fit, ends that split."""

from __future__ import annotations

from nullah.core.frozen_record import FrozenRecord
from nullah.core.lengths import Length


class ThinUnder(FrozenRecord):
    """Hardly anything is left under a channel."""

    left: Length


class DeepRabbet(FrozenRecord):
    """A rabbet deeper than half of its board."""

    deep: Length
    thick: Length


class DeepChannel(FrozenRecord):
    """A groove or dado deeper than a third of its board."""

    deep: Length
    thick: Length


class NoIronEnters(FrozenRecord):
    """No iron of the plough is as narrow as a groove."""

    wide: Length
    narrowest: Length


class PloughStops(FrozenRecord):
    """A groove deeper than the plough goes."""

    most: Length
    deep: Length


class NoChiselEnters(FrozenRecord):
    """No chisel is as narrow as what is to be chopped."""

    wide: Length


class ShortEnd(FrozenRecord):
    """So little stands beyond a dado at the end of its board that it splits off."""

    beside: Length


class WouldNotEnter(FrozenRecord):
    """A part is thicker than its channel is wide."""

    guest: str
    thick: Length
    wide: Length


class ThinTenon(FrozenRecord):
    """A tenon much thinner than a third of its rail."""

    thick: Length
    rail: Length


class ThickTenon(FrozenRecord):
    """A tenon that leaves thin cheeks."""

    thick: Length
    rail: Length


class ThinBesideMortise(FrozenRecord):
    """Hardly any wall is left beside a mortise."""

    wall: Length


class ShortAboveMortise(FrozenRecord):
    """So little end stands above a mortise that it splits."""

    end: Length


class NoChiselAsWide(FrozenRecord):
    """No chisel is as wide as a mortise."""

    thick: Length
    nearest: Length


class WideTenon(FrozenRecord):
    """A tenon so wide that it moves with the season."""

    wide: Length


class ShortTenon(FrozenRecord):
    """A tenon shorter than it is thick."""

    deep: Length


class WeakMitre(FrozenRecord):
    """A mitre without keys."""


class ThinLap(FrozenRecord):
    """Hardly anything is left of a part that is halved."""

    left: Length


class EndGrainGlued(FrozenRecord):
    """End grain glued against a side."""


class EntersLittle(FrozenRecord):
    """A nail or screw enters less than it should for its thickness."""

    deep: Length
    wanted: Length


class NoBitNear(FrozenRecord):
    """No bit is near the pilot that is wanted."""

    wanted: Length


class NearEnd(FrozenRecord):
    """A nail or screw so near an end that the wood splits."""


class Resists(FrozenRecord):
    """What hangs on one nail or screw as it is pulled straight out, and what may hang on it for good, kg."""

    most: float
    safe: float


class TryInScrap(FrozenRecord):
    """Nail or screw and pilot are to be tried in scrap."""


ChannelCaution = (
    ThinUnder | DeepRabbet | DeepChannel | NoIronEnters | PloughStops | NoChiselEnters | ShortEnd | WouldNotEnter
)
TenonCaution = (
    ThinTenon
    | ThickTenon
    | ThinBesideMortise
    | ShortAboveMortise
    | NoChiselAsWide
    | WideTenon
    | ShortTenon
    | WeakMitre
    | ThinLap
)
FasteningCaution = EndGrainGlued | EntersLittle | NoBitNear | NearEnd | Resists | TryInScrap
Caution = ChannelCaution | TenonCaution | FasteningCaution
