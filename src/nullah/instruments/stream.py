"""Instruments that send lines: a serial-like stream of bytes, or a keyboard wedge that types them."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Iterator
from typing import Generic, TypeVar

from nullah.core.named_tuple import NamedTuple

Reading = TypeVar("Reading")

#: Longer than this without an end of line, what came is noise.
MOST_BYTES = 256


class Garbled(NamedTuple):
    """A line that was no reading, and why."""

    line: str
    why: str


class LineReader(Generic[Reading]):
    """Makes readings of bytes as they come, however they are cut up; what is garbled is told and passed over.

    Parameters
    ----------
    read : callable
        Makes a reading of a line, or raises a `ValueError` with a sentence.

    Examples
    --------
    >>> reader = LineReader(float)
    >>> [*reader.feed(b"12."), *reader.feed(b"5\\r\\n13\\r"), *reader.feed(b"\\n")]
    [12.5, 13.0]
    """

    def __init__(self, read: Callable[[str], Reading]) -> None:
        self._read = read
        self._left = b""
        self.garbled: list[Garbled] = []

    def feed(self, chunk: bytes) -> Iterator[Reading]:
        """Yield the readings that are whole with what came now."""
        self._left += chunk
        *lines, self._left = self._left.replace(b"\r\n", b"\n").replace(b"\r", b"\n").split(b"\n")
        if len(self._left) > MOST_BYTES:
            self.garbled.append(Garbled(self._left[:40].decode("ascii", "replace"), "no end of line came"))
            self._left = b""
        for line in lines:
            text = line.decode("ascii", "replace").strip()
            if not text:
                continue
            try:
                yield self._read(text)
            except ValueError as error:
                self.garbled.append(Garbled(text, str(error)))


def readings(chunks: Iterable[bytes], read: Callable[[str], Reading]) -> tuple[list[Reading], list[Garbled]]:
    """Return all readings of a stream, and what was garbled in it."""
    reader = LineReader(read)
    found = [reading for chunk in chunks for reading in reader.feed(chunk)]
    return found, reader.garbled


def as_sent(figures: Iterable[str], size: int = 7, end: bytes = b"\r\n") -> Iterator[bytes]:
    """Yield lines as a simulated device sends them: in chunks of `size` bytes, wherever that cuts them."""
    whole = b"".join(figure.encode("ascii") + end for figure in figures)
    for start in range(0, len(whole), size):
        yield whole[start : start + size]
