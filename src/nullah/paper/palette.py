"""Colours by what they mean: day, night, and ink on paper.

The same roles in each. Text keeps a contrast of at least 4.5 : 1 against what it stands on, borders and marks one of
3 : 1, on the wood of every species too (tests/paper/test_palette.py works it out).
"""

from __future__ import annotations

from nullah.core.identity import kept_by_value
from nullah.core.named_tuple import NamedTuple


class Palette(NamedTuple):
    """Colours as #rrggbb. `wood_shade` mixes each species' tone towards `ground` (0 to 1).

    `border` goes round what can be typed or pressed, `line` only sets rooms apart. `pencil`, `chalk`, `flaw` and
    `wrong` are the colours of lines on drawings: those of words, made strong enough for any wood.
    """

    name: str
    ground: str
    sheet: str
    raised: str
    line: str
    border: str
    text: str
    quiet: str
    accent: str
    accent_ground: str
    look: str
    look_ground: str
    fails: str
    fails_ground: str
    pencil: str
    chalk: str
    flaw: str
    wrong: str
    wood_shade: float
    wood_line: str
    grain: str
    lit: str


DAY = Palette(
    "day",
    ground="#eef1f2",
    sheet="#f8fafa",
    raised="#ffffff",
    line="#c9d0d3",
    border="#7d8387",
    text="#23292d",
    quiet="#566067",
    accent="#1f5fa8",
    accent_ground="#dbe7f4",
    look="#85590a",
    look_ground="#f6ebd2",
    fails="#a3341f",
    fails_ground="#f7dfd9",
    pencil="#424a4f",
    chalk="#184a83",
    flaw="#644308",
    wrong="#842a19",
    wood_shade=0.34,
    wood_line="#4a4541",
    grain="#8d7763",
    lit="#bfd6ee",
)

NIGHT = Palette(
    "night",
    ground="#20262a",
    sheet="#272e33",
    raised="#313a40",
    line="#47525a",
    border="#848d92",
    text="#e7ecee",
    quiet="#aab5bb",
    accent="#86bbf2",
    accent_ground="#2c4258",
    look="#e5b863",
    look_ground="#463b22",
    fails="#f0937c",
    fails_ground="#4f2d26",
    pencil="#bac3c8",
    chalk="#99c6f4",
    flaw="#e6bc6b",
    wrong="#f4b2a2",
    wood_shade=0.70,
    wood_line="#d8d2cb",
    grain="#a5917d",
    lit="#3d5d7d",
)

INK = Palette(
    "ink",
    ground="#ffffff",
    sheet="#ffffff",
    raised="#ffffff",
    line="#9aa0a3",
    border="#8f9597",
    text="#111111",
    quiet="#4c4c4c",
    accent="#174f90",
    accent_ground="#ffffff",
    look="#6e4a08",
    look_ground="#ffffff",
    fails="#8f2a17",
    fails_ground="#ffffff",
    pencil="#4c4c4c",
    chalk="#174f90",
    flaw="#6e4a08",
    wrong="#8f2a17",
    wood_shade=0.72,
    wood_line="#111111",
    grain="#b0a596",
    lit="#dfe9f4",
)


#: So far a lit part goes towards `lit`, and end grain towards `wood_line`.
_LIT, _END_GRAIN = 0.62, 0.10


def wood_tone(tone: str, palette: Palette, lit: bool = False, end_grain: bool = False) -> str:
    """Return the colour of a wood under a theme, from its species' tone."""
    found = mixed(tone, palette.ground, palette.wood_shade)
    if lit:
        found = mixed(found, palette.lit, _LIT)
    return mixed(found, palette.wood_line, _END_GRAIN) if end_grain else found


@kept_by_value(2048)
def mixed(colour: str, other: str, share: float) -> str:
    """Mix two colours; `share` of `other`, from 0 to 1.

    Examples
    --------
    >>> mixed("#000000", "#ffffff", 0.5)
    '#808080'
    """
    parts = [(int(colour[i : i + 2], 16), int(other[i : i + 2], 16)) for i in (1, 3, 5)]
    return "#" + "".join(f"{round(a + (b - a) * share):02x}" for a, b in parts)


def contrast(one: str, other: str) -> float:
    """Return the contrast ratio of two colours (WCAG 2, relative luminance), 1 to 21."""

    def luminance(colour: str) -> float:
        channels = [int(colour[i : i + 2], 16) / 255 for i in (1, 3, 5)]
        red, green, blue = (c / 12.92 if c <= 0.03928 else ((c + 0.055) / 1.055) ** 2.4 for c in channels)
        return 0.2126 * red + 0.7152 * green + 0.0722 * blue

    lighter, darker = sorted((luminance(one), luminance(other)), reverse=True)
    return (lighter + 0.05) / (darker + 0.05)
