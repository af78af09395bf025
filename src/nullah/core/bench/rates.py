"""How long work takes: minutes for so much of it, guessed to begin with and learned from what was written down."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence
from statistics import median
from typing import NamedTuple

Work = Sequence[tuple[str, float]]


class Rate(NamedTuple):
    """Minutes for one unit of some work; all of them guesses from common practice, without a published source."""

    title: str
    unit: str
    minutes: float


#: What work is counted in. Amounts are already weighed by how hard the wood is.
RATES: Mapping[str, Rate] = {
    "cross": Rate("crosscutting", "m of 25 mm cherry", 2.5),
    "rip": Rate("ripping", "m of 25 mm cherry", 3.5),
    "start": Rate("marking and starting a cut", "cut", 0.7),
    "plane": Rate("planing off", "cm³", 0.045),
    "true": Rate("testing and gauging a part", "part", 7.0),
    "end": Rate("squaring an end", "end", 4.0),
    "lay out": Rate("laying out a joint", "line", 0.6),
    "kerf": Rate("sawing a joint", "cut", 0.7),
    "chop": Rate("chopping and paring", "cm³", 0.5),
    "corner": Rate("cleaning corners", "corner", 0.35),
    "plough": Rate("ploughing", "m", 9.0),
    "fit": Rate("trying and easing", "joint", 3.0),
    "bore": Rate("boring and driving", "hole", 1.2),
    "shape": Rate("shaping", "m of edge", 6.0),
    "smooth": Rate("smoothing", "dm²", 0.7),
    "glue": Rate("spreading glue and clamping", "joint", 2.0),
    "measure": Rate("measuring", "figure", 2.0),
    "coat": Rate("putting a coat on", "dm²", 0.15),
    "set up": Rate("getting ready", "time", 3.0),
}


class Learned(NamedTuple):
    """What records say of a rate: how many times the guess it is, how sure that is, and of how many records.

    `spread` is one standard deviation of the logarithm of `factor`.
    """

    factor: float = 1.0
    spread: float = 0.0
    records: int = 0

    @property
    def in_words(self) -> str:
        """Return how it stands, in few words."""
        if not self.records:
            return "a guess"
        low, high = (self.factor * math.exp(each * self.spread) for each in (-1, 1))
        count = f"{self.records} record{'s' * (self.records != 1)}"
        return f"{self.factor:.2f} times the guess ({low:.2f} to {high:.2f}, {count})"


class Record(NamedTuple):
    """A task that was done: how much of what it was, and how many minutes it took."""

    work: tuple[tuple[str, float], ...]
    minutes: float


#: How far a guess may be off before anything is known: a factor of e^0.5 either way.
_PRIOR = 0.5
#: How much one and the same work differs from time to time, as a factor: e^0.25 (common practice).
_SCATTER = 0.25
#: Records farther off than so many scatters count less and less: a phone call, a timer that was forgotten.
_HUBER = 1.5


def minutes_of(work: Work, learned: Mapping[str, Learned] | None = None) -> float:
    """Return the minutes that some work takes, by the guesses or by what was learned.

    Parameters
    ----------
    work : Work
        Pairs of a rate's name and how much of it, in the unit of `RATES`.
    learned : Mapping[str, Learned], optional
        What records say of rates, or None for the guesses.

    Returns
    -------
    float
        Minutes of labour.

    Examples
    --------
    >>> minutes_of((("rip", 2.0), ("start", 1.0)))
    7.7
    """
    known = learned or {}
    return sum(amount * RATES[name].minutes * known.get(name, Learned()).factor for name, amount in work)


def learn(records: Iterable[Record], before: Mapping[str, Learned] | None = None) -> dict[str, Learned]:
    """Fit the rates to what was written down, robustly: a few wild records move them little.

    Parameters
    ----------
    records : iterable of Record
    before : mapping, optional
        What was known from earlier pieces; it is believed as far as it was sure.

    Notes
    -----
    Each rate is a factor e^θ on its guess, θ ~ N(prior). A record's log ratio of minutes to those expected is set
    against the θ of its works, each by its share of the time. Solved by iteratively reweighted least squares with
    Huber's weights (Huber 1964), the scatter re-estimated from the middle of the residuals. The spread told is the
    posterior standard deviation.
    """
    kept = [row for record in records if (row := _row(record)) is not None]
    known = dict(before or {})
    names = sorted({name for row in kept for name in row.times} | set(known))
    prior = {name: _believed(known.get(name)) for name in names}
    theta = {name: prior[name][0] for name in names}
    spread = {name: prior[name][1] for name in names}
    having = {name: [row for row in kept if name in row.times] for name in names}
    for _ in range(12):
        scatter = _SCATTER
        if len(kept) > 4:
            # From the middle of the residuals: wild ones do not widen it.
            scatter = max(_SCATTER / 2, 1.4826 * median([abs(row.split(theta)[1]) for row in kept]))
        moved = 0.0
        # One rate after the other, the others held.
        for name in names:
            centre, wide = prior[name]
            weight, weighted = 1 / wide**2, centre / wide**2
            for row in having[name]:
                shares, off = row.split(theta)
                share = shares[name]
                trust = min(1.0, _HUBER * scatter / abs(off)) if off else 1.0
                weight += trust * share**2 / scatter**2
                weighted += trust * share * (off + share * theta[name]) / scatter**2
            new = weighted / weight
            moved = max(moved, abs(new - theta[name]))
            theta[name], spread[name] = new, weight**-0.5
        if moved < 2e-3:
            break
    counts = {name: len(having[name]) + (known[name].records if name in known else 0) for name in names}
    return {name: Learned(math.exp(theta[name]), spread[name], counts[name]) for name in names if counts[name]}


class _Row(NamedTuple):
    """A record ready to be fitted: the log of its minutes, and the minutes guessed for each work in it."""

    log: float
    times: dict[str, float]

    def split(self, theta: Mapping[str, float]) -> tuple[dict[str, float], float]:
        """Return each work's share of the time at some θ, and by how much the log of the minutes is off."""
        now = {name: minutes * math.exp(theta[name]) for name, minutes in self.times.items()}
        whole = sum(now.values())
        return {name: minutes / whole for name, minutes in now.items()}, self.log - math.log(whole)


def _row(record: Record) -> _Row | None:
    """Make a record ready; None for one without time or work."""
    times: dict[str, float] = {}
    for name, amount in record.work:
        if amount > 0 and name in RATES:
            times[name] = times.get(name, 0.0) + amount * RATES[name].minutes
    return _Row(math.log(record.minutes), times) if record.minutes > 0 and times else None


def _believed(known: Learned | None) -> tuple[float, float]:
    """Return the θ of a rate before its records, and how sure it is."""
    if known is None or not known.records:
        return 0.0, _PRIOR
    return math.log(known.factor), max(known.spread, 0.05)
