"""What the models of the project file share: lengths as typed, shares, and that nothing unknown is let in."""

from __future__ import annotations

from typing import Annotated

from pydantic import AfterValidator, BaseModel, ConfigDict, Field

from nullah.core.lengths import read_length


def _a_length(text: str) -> str:
    read_length(text)
    return text


LengthText = Annotated[str, AfterValidator(_a_length), Field(examples=["1 7/8 in", "47.5 mm"])]
Percent = Annotated[float, Field(ge=0, le=200)]
Share = Annotated[float, Field(ge=0, le=1)]


class Strict(BaseModel):
    """Unknown fields are refused, never dropped."""

    model_config = ConfigDict(extra="forbid", frozen=True)
