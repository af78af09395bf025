"""What is to be minded of a channel: what it leaves of its board, and tools that do not get into it."""

from __future__ import annotations

from collections.abc import Iterator

from nullah.core.card import Remark, Severity
from nullah.core.fraction import Fraction
from nullah.core.joints.bench import THINNEST, AtBench
from nullah.core.joints.cautions import (
    DeepChannel,
    DeepRabbet,
    NoChiselEnters,
    NoIronEnters,
    PloughStops,
    ShortEnd,
    ThinUnder,
    WouldNotEnter,
)
from nullah.core.joints.cutouts import Cutout
from nullah.core.lengths import Length
from nullah.core.piece.faults import Channel
from nullah.core.piece.overlap import channel_of
from nullah.core.refs import quantity_ref

#: Shorter ends than this beside a dado split off, mm (common practice).
_SPLITS = Fraction(10)


def channel_cautions(at: AtBench) -> Iterator[Remark]:
    """Yield what is to be minded of a rabbet, a dado or a groove."""
    if not at.kind.first.cutouts:
        return
    cut, names = at.kind.first.cutouts[0], at.kind.joint.names
    across_grain = cut.size(0) <= cut.size(1)
    wide = cut.size(0) if across_grain else cut.size(1)
    yield from _depth(at, cut)
    yield from _plough(at, cut, wide)
    if at.shop.largest_chisel(Length(wide)) is None:
        yield Remark(NoChiselEnters(Length(wide)), Severity.WARNING, ref=quantity_ref(names.width))
    if _channel(at) is Channel.RABBET:
        return
    long = at.kind.first.sizes.along
    beside = min(cut.along[0], long - cut.along[1])
    if across_grain and 0 < beside < _SPLITS:
        yield Remark(ShortEnd(Length(beside)), Severity.WARNING)
    guest = at.kind.second
    thickness = min(guest.sizes.through, guest.sizes.across)
    if wide < thickness and not guest.cutouts:
        told = WouldNotEnter(guest.part.id, Length(thickness), Length(wide))
        yield Remark(told, Severity.FAILURE, ref=quantity_ref(names.width))


def _channel(at: AtBench) -> Channel | None:
    """Return what is cut, by how it is open."""
    channels = at.kind.joint.channels
    return channel_of(at.kind.first.part, channels[0]) if channels else None


def _depth(at: AtBench, cut: Cutout) -> Iterator[Remark]:
    """Say where a channel leaves too little under it, or is deeper than usual; a notch has nothing under it."""
    if _channel(at) in (Channel.NOTCH, Channel.MORTISE):
        return
    thick, deep = at.kind.first.sizes.through, cut.size(2)
    ref, rabbet = quantity_ref(at.kind.joint.names.depth), _channel(at) is Channel.RABBET
    if 0 < thick - deep < THINNEST:
        yield Remark(ThinUnder(Length(thick - deep)), Severity.FAILURE, ref=ref)
    elif rabbet and deep * 2 > thick:
        yield Remark(DeepRabbet(Length(deep), Length(thick)), Severity.WARNING, ref=ref)
    elif not rabbet and deep * 3 > thick * Fraction(11, 10):
        yield Remark(DeepChannel(Length(deep), Length(thick)), Severity.WARNING, ref=ref)


def _plough(at: AtBench, cut: Cutout, wide: Fraction) -> Iterator[Remark]:
    """Say what the plough that is there cannot do of a groove."""
    shop, names = at.shop, at.kind.joint.names
    if _channel(at) is not Channel.GROOVE or not shop.plough_irons:
        return
    if shop.plough_iron(Length(wide)) is None:
        narrowest = min(shop.plough_irons, key=lambda iron: iron.mm)
        yield Remark(NoIronEnters(Length(wide), narrowest), Severity.WARNING, ref=quantity_ref(names.width))
    if Length(cut.size(2)) > shop.plough_deepest:
        told = PloughStops(shop.plough_deepest, Length(cut.size(2)))
        yield Remark(told, Severity.WARNING, ref=quantity_ref(names.depth))
