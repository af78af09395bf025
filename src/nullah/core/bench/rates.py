"""How long work takes: minutes for so much of it, guessed to begin with and learned from what was written down."""

from __future__ import annotations

import math
from collections.abc import Iterable, Mapping, Sequence

from nullah.core.catalogue import N_
from nullah.core.named_tuple import NamedTuple

Work = Sequence[tuple[str, float]]


class Rate(NamedTuple):
    """Minutes for one unit of some work; all of them guesses from common practice, without a published source."""

    title: str
    minutes: float


#: What work is counted in, beside each its unit. Amounts are already weighed by how hard the wood is.
RATES: Mapping[str, Rate] = {
    "cross": Rate(N_("crosscutting"), 2.5),  # m of 25 mm cherry
    "rip": Rate(N_("ripping"), 3.5),  # m of 25 mm cherry
    "start": Rate(N_("marking and starting a cut"), 0.7),  # cut
    "plane": Rate(N_("planing off"), 0.045),  # cm³
    "true": Rate(N_("testing and gauging a part"), 7.0),  # part
    "end": Rate(N_("squaring an end"), 4.0),  # end
    "lay out": Rate(N_("laying out a joint"), 0.6),  # line
    "kerf": Rate(N_("sawing a joint"), 0.7),  # cut
    "chop": Rate(N_("chopping and paring"), 0.5),  # cm³
    "corner": Rate(N_("cleaning corners"), 0.35),  # corner
    "plough": Rate(N_("plowing"), 9.0),  # m
    "fit": Rate(N_("trying and easing"), 3.0),  # joint
    "bore": Rate(N_("boring and driving"), 1.2),  # hole
    "shape": Rate(N_("shaping"), 6.0),  # m of edge
    "smooth": Rate(N_("smoothing"), 0.7),  # dm²
    "glue": Rate(N_("spreading glue and clamping"), 2.0),  # joint
    "measure": Rate(N_("measuring"), 2.0),  # figure
    "coat": Rate(N_("putting a coat on"), 0.15),  # dm²
    "set up": Rate(N_("getting ready"), 3.0),  # time
}


class Learned(NamedTuple):
    """What records say of a rate: how many times the guess it is, how sure that is, and of how many records.

    `spread` is one standard deviation of the logarithm of `factor`.
    """

    factor: float = 1.0
    spread: float = 0.0
    records: int = 0

    @property
    def between(self) -> tuple[float, float]:
        """From how many times to how many times the guess it is, one standard deviation either way."""
        return self.factor * math.exp(-self.spread), self.factor * math.exp(self.spread)


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
    # Not loaded at a start: it is only asked for once something was written down.
    from statistics import median

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
