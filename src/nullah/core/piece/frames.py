"""The frames of all parts of a piece."""

from __future__ import annotations

from collections.abc import Mapping
from types import MappingProxyType

from nullah.core.identity import kept_by_identity
from nullah.core.piece.form import Assembly
from nullah.core.piece.frame import Frame, frames_among


@kept_by_identity(16)
def frames_of(assembly: Assembly) -> Mapping[str, Frame]:
    """Return the frame of every part."""
    return MappingProxyType(frames_among(assembly.parts))
