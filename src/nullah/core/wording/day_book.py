"""What the Day Book says of the work as a whole: what came out otherwise, how much is left, when it is done."""

from __future__ import annotations

from datetime import datetime
from typing import assert_never, get_args

from nullah.core.bench.book import ClockWentBack, TimedFact, TimerForgotten
from nullah.core.bench.rates import RATES, Learned
from nullah.core.card import Setting
from nullah.core.catalogue import N_
from nullah.core.lengths import from_float
from nullah.core.named_tuple import NamedTuple
from nullah.core.reader import Reader, sentence
from nullah.core.wording.durations import time_words
from nullah.core.wording.worders import worders
from nullah.core.work.day_book import Deviation, TimerElsewhere, TimerFact, TimerRuns, WorkState
from nullah.core.work.recording import ComesOutOf, NoSuchPart, NoWoodForAnother, OffcutsCame, RecordFact

#: Rates that are known best come first; so many are told.
_MOST_RATES = 8


def deviation_words(fact: Deviation, reader: Reader) -> str:
    """Return what came out other than planned, and what follows from it."""
    values = {
        "title": sentence(reader.text(fact.title)),
        "off": reader.fine(from_float(abs(fact.off))),
        "follows": _follows(fact, reader),
    }
    more, less = N_("{title} measured {off} more than planned."), N_("{title} measured {off} less than planned.")
    if fact.follows:
        more = N_("{title} measured {off} more than planned: {follows}.")
        less = N_("{title} measured {off} less than planned: {follows}.")
    return reader.text(more if fact.off > 0 else less, **values)


def _follows(fact: Deviation, reader: Reader) -> str:
    if not fact.follows:
        return ""
    first, more = reader.text(fact.follows[0]), len(fact.follows) - 1
    if not more:
        return reader.text(N_("{first} follows"), first=first)
    return reader.count(more, "{first} and {n} more follow", "{first} and {n} more follow", first=first)


def timer_words(fact: TimerFact, reader: Reader) -> str:
    """Return what a timer runs for."""
    match fact:
        case TimerRuns(since, minutes):
            return reader.text(N_("The timer runs since {since}: {ran}."), since=since, ran=time_words(minutes, reader))
        case TimerElsewhere():
            return reader.text(N_("The timer runs for another task."))


def record_words(fact: RecordFact | TimedFact, reader: Reader) -> str:
    """Return what is to be said when something was put into the book."""
    match fact:
        case ClockWentBack():
            return reader.text(
                "The clock went back since the timer was started: its time is not counted. Type it if you know it."
            )
        case TimerForgotten(ran, guess):
            return reader.text(
                "The timer ran {ran}: it seems to have been forgotten, and {guess} are put down as guessed. Type the "
                "time if you know it.",
                ran=time_words(ran, reader),
                guess=time_words(guess, reader),
            )
        case OffcutsCame(offcuts):
            return reader.count(offcuts, "{n} offcut of it came to the rack.", "{n} offcuts of it came to the rack.")
        case NoSuchPart():
            return reader.text("There is no such part.")
        case NoWoodForAnother(part):
            return reader.text(
                "{part}: no wood on the rack will do for another. It stands under “Find wood”.", part=reader.part(part)
            )
        case ComesOutOf(part, board, other):
            values = {"part": reader.part(part), "board": board}
            if other:
                return reader.text("{part}: another comes out of {board}, which is {wood}.", **values, wood=other)
            return reader.text("{part}: another comes out of {board}.", **values)
    assert_never(fact)


class Left(NamedTuple):
    """How much work is left, min, when it is done, and how often it waits for what nothing else could fill."""

    minutes: float
    finish: datetime | None
    waits: int
    known: bool


def left_words(stand: WorkState, left: Left, day: str, reader: Reader) -> tuple[str, ...]:
    """Return how much is left, when it will be done, and what decides that; `day` is that of its end."""
    told = [
        reader.text(
            N_("{done} of {total} tasks done; about {time} of work left."),
            done=stand.done,
            total=stand.total,
            time=time_words(left.minutes, reader),
        )
    ]
    if left.finish is not None:
        decides = reader.text(N_("the hours at the bench"))
        if left.waits:
            decides = reader.count(
                left.waits,
                "the hours at the bench, and {n} wait for glue, finish or wood that nothing else could fill",
                "the hours at the bench, and {n} waits for glue, finish or wood that nothing else could fill",
            )
        message = N_("Done on {day} if you keep your hours. What decides it: {what}.")
        told.append(reader.text(message, day=day, what=decides))
    known = N_("Times follow what you have written down.")
    guessed = N_("Times are first guesses until you keep your own.")
    return (*told, reader.text(known if left.known else guessed))


def calendar_settings(day: str, time: str, minutes: float, a_week: float, reader: Reader) -> tuple[Setting, ...]:
    """Return when all is done, and how much work is left, min; and how much of it is done in a week."""
    earliest = reader.text(N_("at {time}, at the earliest"), time=time)
    each_week = reader.text(N_("{time} a week"), time=time_words(a_week, reader))
    return (
        Setting(reader.text(N_("Done on")), day, earliest),
        Setting(reader.text(N_("Work left")), time_words(minutes, reader), each_week),
    )


def until_words(time: str, reader: Reader) -> str:
    """Return until when something dries."""
    return reader.text(N_("until {time}"), time=time)


def waits_words(title: str, reader: Reader) -> str:
    """Return what the work waits for, by the title of the task."""
    return reader.text(N_("Waits for: {task}"), task=f"{title[:1].lower()}{title[1:]}")


def least_words(minutes: float, reader: Reader) -> str:
    """Return how long it takes at least, however many are at it, min."""
    message = N_("However many hands: no less than {time} from first to last, all waits counted.")
    return reader.text(message, time=time_words(minutes, reader))


def rates_words(learned: dict[str, Learned], reader: Reader) -> tuple[str, ...]:
    """Return how well each rate is known of which there are records, the best first."""
    found = sorted(((name, each) for name, each in learned.items() if each.records), key=lambda item: item[1].spread)
    return tuple(
        f"{sentence(reader.text(RATES[name].title))}: {_rate_words(each, reader)}" for name, each in found[:_MOST_RATES]
    )


def _rate_words(known: Learned, reader: Reader) -> str:
    low, high = known.between
    return reader.count(
        known.records,
        "{factor} times the guess ({low} to {high}, {n} record).",
        "{factor} times the guess ({low} to {high}, {n} records).",
        factor=f"{known.factor:.2f}",
        low=f"{low:.2f}",
        high=f"{high:.2f}",
    )


def tasks_done_words(number: int, begun: bool, reader: Reader) -> str:
    """Return how far the work is, in few words."""
    return reader.count(number, "{n} task done", "{n} tasks done") if begun else reader.text(N_("not begun"))


#: What says the facts of this room.
WORDERS = worders(
    ((Deviation,), deviation_words),
    (get_args(TimerFact), timer_words),
    ((*get_args(RecordFact), *get_args(TimedFact)), record_words),
)
