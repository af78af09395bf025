"""Any fact in words: each kind is said in the module of its room, which is loaded when a fact of it comes up."""

from __future__ import annotations

from importlib import import_module

from nullah.core.card import Numbered
from nullah.core.errors import Fact, FactError
from nullah.core.piece.faults import Repeated
from nullah.core.reader import Reader
from nullah.core.wording.worders import Worder, Worders, worders

#: Which modules of this package say the facts of a module of core.
_SAID_IN = {
    "apprentice.facts": ("operations",),
    "bench.book": ("day_book", "refused"),
    "bench.hours": ("refused",),
    "bench.task_facts": ("task_titles", "tasks"),
    "breakdown.facts": ("laying",),
    "forms.own_boards": ("piece",),
    "joints.cautions": ("cautions",),
    "joints.dovetail.facts": ("corners",),
    "joints.dovetail.spacing": ("refused",),
    "joints.fasteners": ("refused",),
    "joints.practice": ("practice",),
    "joints.tolerance_facts": ("refused",),
    "ledger": ("ledger",),
    "lengths.exact": ("refused",),
    "limits": ("refused",),
    "milling.edge_facts": ("edges",),
    "milling.survey_facts": ("refused",),
    "past_limits": ("refused",),
    "piece.contours": ("refused",),
    "piece.facts": ("piece",),
    "piece.faults": ("proof", "holding"),
    "plan": ("corners",),
    "rack.board": ("refused",),
    "rack.sizes": ("refused",),
    "rules": ("ledger",),
    "season.facts": ("season",),
    "season.fits": ("season",),
    "season.strain": ("season",),
    "wood.climate": ("refused",),
    "wood.moisture": ("refused",),
    "wood.movement": ("refused",),
    "wood.species": ("refused",),
    "work.day_book": ("day_book",),
    "work.recording": ("day_book",),
}


def fact_words(fact: Fact, reader: Reader) -> str:
    """Return a fact in words; a sentence that a room still writes itself is given back as it is.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> from nullah.core.piece.faults import ButtGap
    >>> fact_words(ButtGap("left", "top", mm(2)), Reader(parts={"left": "left side"}))
    'There is a gap of 2.0 mm between the left side and the top.'
    """
    return fact if isinstance(fact, str) else _worder(type(fact))(fact, reader)


def error_words(error: Exception, reader: Reader = Reader()) -> str:
    """Return why something was refused."""
    return fact_words(error.fact, reader) if isinstance(error, FactError) else str(error)


def all_worders() -> Worders:
    """Return which function says which kind of fact, for all facts there are."""
    for said_in in _SAID_IN.values():
        for module in said_in:
            _WORDERS.update(_load(module))
    return dict(_WORDERS)


def _worder(kind: type) -> Worder:
    if kind not in _WORDERS:
        for module in _SAID_IN[kind.__module__.removeprefix("nullah.core.")]:
            _WORDERS.update(_load(module))
    return _WORDERS[kind]


def _load(module: str) -> Worders:
    found: Worders = import_module(f"nullah.core.wording.{module}").WORDERS
    return found


def _repeated(fact: Repeated, reader: Reader) -> str:
    from nullah.core.wording.proof import repeated_words  # loaded when it comes up, as all others

    return repeated_words(fact_words(fact.fact, reader), fact.places, reader)


def _numbered(fact: Numbered, reader: Reader) -> str:
    return f"{fact.number}  {fact_words(fact.fact, reader)}"


#: What says which kind of fact, as far as it is loaded.
_WORDERS = worders(((Repeated,), _repeated), ((Numbered,), _numbered))
