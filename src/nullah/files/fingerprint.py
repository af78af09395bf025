"""Whether a file still holds what it held: for noticing that somebody else has written it."""

from __future__ import annotations

import os
from pathlib import Path

from nullah.core.named_tuple import NamedTuple


class Fingerprint(NamedTuple):
    """What a file held at a time.

    Parameters
    ----------
    size : int
        Bytes.
    modified_ns : int
        When it was written, nanoseconds since 1970.
    digest : str
        Of its bytes.
    """

    size: int
    modified_ns: int
    digest: str

    def same_content(self, other: Fingerprint | None) -> bool:
        """Whether both are of the same bytes, whenever these were written."""
        return other is not None and self.digest == other.digest


def fingerprint(path: Path, known: Fingerprint | None = None) -> Fingerprint | None:
    """Return the fingerprint of a file; None where there is none, or it cannot be read.

    A file of the size and time of `known` is taken to be that one, unread.
    """
    # What begins without a file does without the library.
    from hashlib import sha256

    try:
        found = os.stat(path)
        if known is not None and (found.st_size, found.st_mtime_ns) == (known.size, known.modified_ns):
            return known
        digest = sha256(path.read_bytes()).hexdigest()
    except (OSError, ValueError):
        return None
    return Fingerprint(found.st_size, found.st_mtime_ns, digest)
