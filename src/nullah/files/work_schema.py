"""The part of the project file that is about time: the year, the finish, hours at the bench, the Day Book."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field

from nullah.core.bench.book import BookEntry, Event, Timer
from nullah.core.bench.hours import Hours, read_hours, write_hours
from nullah.core.bench.rates import RATES, Learned
from nullah.core.bench.working import Working
from nullah.core.wood.climate import USUAL, Climate, climate_of
from nullah.files.model import DayText, NameText, NoteText, Some, Strict, TimeText


class ClimateModel(Strict):
    """The air where the piece will live: twelve months of °C and % humidity, from January."""

    name: NameText
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


class LearnedModel(Strict):
    """What was learned of a rate: times the guess, the spread of its log, of how many records."""

    factor: Annotated[float, Field(gt=0, le=100)]
    spread: Annotated[float, Field(ge=0, le=10)]
    records: Annotated[int, Field(ge=0, le=1_000_000)]


class WorkingModel(Strict):
    """How one works: hours of each weekday from Monday (such as ``18:30-21:00`` or nothing), glue, clamps, people."""

    hours: Annotated[list[NameText], Field(min_length=7, max_length=7)]
    glue: Literal["white glue", "slow white glue", "hide glue", "epoxy"] = "white glue"
    clamps: Annotated[int, Field(ge=0, le=999)] = 12
    people: Annotated[int, Field(ge=1, le=20)] = 1
    begin: DayText = ""
    rates: Annotated[dict[NameText, LearnedModel], Some] = {}


Minutes = Annotated[float, Field(ge=0, le=1_000_000)]


class EntryModel(Strict):
    """A line of the Day Book. `at` is ISO to the minute; `work` how much of what was done."""

    at: TimeText
    event: Literal["done", "note", "photograph", "measured", "made again"]
    title: NoteText
    task: NameText = ""
    parts: Annotated[list[NameText], Some] = []
    minutes: Minutes = 0.0
    guess: Minutes = 0.0
    work: Annotated[list[tuple[NameText, float]], Some] = []
    text: NoteText = ""
    file: NoteText = ""


class TimerModel(Strict):
    """A timer that runs: for which task, and since when."""

    task: NameText
    since: TimeText


def working_data(working: Working) -> dict[str, Any]:
    """Give how one works as data for the file."""
    return {
        "hours": [write_hours(span) for span in working.hours.week], "glue": working.glue, "clamps": working.clamps,
        "people": working.people, "begin": working.begin,
        "rates": {name: learned._asdict() for name, learned in working.rates},
    }  # fmt: skip


def read_working(model: WorkingModel | None) -> Working:
    """Make how one works of a file; the usual where an older file says nothing.

    Raises
    ------
    HoursError
    """
    if model is None:
        return Working()
    rates = tuple(
        (name, Learned(each.factor, each.spread, each.records)) for name, each in model.rates.items() if name in RATES
    )
    hours = Hours(tuple(read_hours(text) for text in model.hours))
    return Working(hours, model.glue, model.clamps, model.people, model.begin, rates)


def entry_data(entry: BookEntry) -> dict[str, Any]:
    """Give a line of the book as data for the file."""
    return {
        **entry._asdict(), "event": entry.event.value, "parts": list(entry.parts),
        "work": [list(each) for each in entry.work],
    }  # fmt: skip


def read_book(models: list[EntryModel]) -> tuple[BookEntry, ...]:
    """Make the Day Book of a file."""
    return tuple(
        BookEntry(
            m.at, Event(m.event), m.title, m.task, tuple(m.parts), m.minutes, m.guess, tuple(m.work), m.text, m.file
        )
        for m in models
    )


def read_timer(model: TimerModel | None) -> Timer | None:
    """Make the timer of a file."""
    return None if model is None else Timer(model.task, model.since)
