"""The part of the project file that is about time: the year, the finish, hours at the bench, the Day Book."""

from __future__ import annotations

from typing import Annotated, Any

from pydantic import Field

from nullah.core.wood.climate import USUAL, Climate, climate_of
from nullah.files.model import Strict


class ClimateModel(Strict):
    """The air where the piece will live: twelve months of °C and % humidity, from January."""

    name: str
    months: Annotated[
        list[tuple[Annotated[float, Field(ge=-20, le=60)], Annotated[float, Field(ge=0, le=100)]]],
        Field(min_length=12, max_length=12),
    ]


def climate_data(climate: Climate) -> dict[str, Any]:
    """Give a climate as data for the file."""
    return {"name": climate.name, "months": [list(air) for air in climate.months]}


def read_climate(model: ClimateModel | None) -> Climate:
    """Make the climate of a file; the usual one where an older file has none."""
    return USUAL if model is None else climate_of(model.name, model.months)
