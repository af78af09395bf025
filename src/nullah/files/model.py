"""What the models of the project file share: lengths as typed, names, shares, and that nothing unknown is let in."""

from __future__ import annotations

import re
from fractions import Fraction
from typing import Annotated, Any

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from nullah.core.lengths import read_length
from nullah.core.limits import LONGEST_MM, NAME_TEXT, NOTE_TEXT, OTHERS, quoted, read_day, read_time, shown


def _a_length(text: str) -> str:
    read_length(text)
    return text


def _a_day(text: str) -> str:
    if text:
        read_day(text)
    return text


def _a_time(text: str) -> str:
    found = read_time(text).isoformat()
    # The shop's own clock has no zone.
    return text if found.startswith(text) else found


#: A share or a mark: a whole number, a fraction or a decimal of a few digits.
_RATIO = re.compile(r"[0-9]{1,6}(/[0-9]{1,6}|\.[0-9]{1,6})?")


def ratio(text: str, least: Fraction, most: Fraction) -> str:
    """Return the text of a fraction that lies within limits.

    Raises
    ------
    ValueError
    """
    try:
        inside = bool(_RATIO.fullmatch(text)) and least <= Fraction(text) <= most
    except ZeroDivisionError:
        inside = False
    if not inside:
        raise ValueError(f"{quoted(text)} is not a number from {least} to {most}")
    return text


LengthText = Annotated[str, AfterValidator(_a_length), Field(examples=["1 7/8 in", "47.5 mm"])]
#: A day, or nothing.
DayText = Annotated[str, AfterValidator(_a_day), Field(examples=["2026-11-23"])]
TimeText = Annotated[str, AfterValidator(_a_time), Field(examples=["2026-11-23T18:30"])]
#: Names, ids, titles: a line that can be printed.
NameText = Annotated[str, AfterValidator(shown), Field(max_length=NAME_TEXT)]
NoteText = Annotated[str, Field(max_length=NOTE_TEXT)]
#: A place on a board or in a piece, in mm.
PlaceMm = Annotated[float, Field(ge=-LONGEST_MM, le=LONGEST_MM)]
Percent = Annotated[float, Field(ge=0, le=200)]
Share = Annotated[float, Field(ge=0, le=1)]
#: How many of most things a list may hold.
Some: Any = Field(max_length=OTHERS)


class Strict(BaseModel):
    """Unknown fields are refused, never dropped."""

    model_config = ConfigDict(extra="forbid", frozen=True)
