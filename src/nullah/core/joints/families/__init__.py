"""One module for each family of joints: what to set, the steps, what to mind."""

from __future__ import annotations

from nullah.core.joints.families import butt, halved, let_in, mitre, tenon
from nullah.core.joints.families.told import AtBench, Told
from nullah.core.piece.overlap import Sharing

__all__ = ["AtBench", "Told", "told_of"]

_FAMILIES = {
    Sharing.LET_IN: let_in.told, Sharing.TENON: tenon.told, Sharing.LAP: halved.told, Sharing.BRIDLE: halved.told,
    Sharing.MITRE: mitre.told, Sharing.BUTT: butt.told,
}  # fmt: skip


def told_of(at: AtBench) -> Told | None:
    """Give what a joint's family tells; None for dovetails, which are laid out by their corner."""
    family = _FAMILIES.get(at.kind.joint.sharing)
    return None if family is None else family(at)
