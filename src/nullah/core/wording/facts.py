"""Any fact in words: each kind is said in the module of its room."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any, get_args

from nullah.core.apprentice.facts import BuildingFact
from nullah.core.bench.book import HasZone, TimedFact
from nullah.core.bench.hours import HoursFact
from nullah.core.bench.task_facts import MindAtTask, OrderFault, TaskCaution, TaskFact
from nullah.core.breakdown.facts import BoardNotSawable, LayoutFact, Nowhere, Placed, Refusal, SawFact, TooManyParts
from nullah.core.card import Numbered
from nullah.core.errors import Fact, FactError
from nullah.core.forms.own_boards import Offer
from nullah.core.joints.cautions import ChannelCaution, FasteningCaution, TenonCaution
from nullah.core.joints.dovetail.facts import CornerFact, GrooveFact, LayoutRefusal
from nullah.core.joints.dovetail.spacing import SpacingFault
from nullah.core.joints.fasteners import FastenerFault
from nullah.core.joints.practice import PracticeWrong
from nullah.core.joints.tolerance_facts import ToleranceFault
from nullah.core.ledger import WrongValue
from nullah.core.lengths import NoLength
from nullah.core.limits import DayFact
from nullah.core.milling.edge_facts import EdgeFact
from nullah.core.milling.survey_facts import SurveyFact
from nullah.core.past_limits import LimitFact
from nullah.core.piece.contours import NoContour
from nullah.core.piece.facts import Note, PieceFact
from nullah.core.piece.faults import ChannelFact, HoldFact, MeetingFact, MovingFact, Repeated, TailsFact
from nullah.core.plan import NoneDovetailed, TailsImpossible
from nullah.core.rack.board import BoardFact
from nullah.core.rack.sizes import NoYardSize
from nullah.core.reader import Reader, sentence
from nullah.core.rules import LedgerFact
from nullah.core.season.facts import SeasonFact
from nullah.core.season.fits import Fit
from nullah.core.season.strain import Strain
from nullah.core.wood.movement import MoistureOutside
from nullah.core.wood.species import NoSpecies
from nullah.core.wording.cautions import channel_caution_words, fastening_caution_words, tenon_caution_words
from nullah.core.wording.corners import corner_words, groove_words, layout_words
from nullah.core.wording.day_book import deviation_words, record_words, timer_words
from nullah.core.wording.edges import edge_error_words
from nullah.core.wording.holding import hold_words
from nullah.core.wording.laying import complaint_words, layout_fact_words, nowhere_words, refusal_words, saw_words
from nullah.core.wording.ledger import ledger_words, wrong_value_words
from nullah.core.wording.operations import building_words
from nullah.core.wording.piece import note_words, offer_words, piece_words
from nullah.core.wording.practice import practice_error_words
from nullah.core.wording.proof import channel_words, meeting_words, moving_words, repeated_words, tails_words
from nullah.core.wording.refused import (
    AirFact,
    air_words,
    board_words,
    day_words,
    figure_words,
    hours_words,
    limit_words,
    no_contour_words,
    no_length_words,
    no_yard_size_words,
    survey_words,
    wood_words,
)
from nullah.core.wording.season import fit_words, season_words, strain_words
from nullah.core.wording.task_titles import order_fault_words, task_words
from nullah.core.wording.tasks import mind_words, task_caution_words
from nullah.core.work.day_book import Deviation, TimerFact
from nullah.core.work.recording import RecordFact

Worder = Callable[[Any, Reader], str]


def fact_words(fact: Fact, reader: Reader) -> str:
    """Return a fact in words; a sentence that a room still writes itself is given back as it is.

    Examples
    --------
    >>> from nullah.core.lengths import mm
    >>> from nullah.core.piece.faults import ButtGap
    >>> fact_words(ButtGap("left", "top", mm(2)), Reader(parts={"left": "left side"}))
    'There is a gap of 2.0 mm between the left side and the top.'
    """
    return fact if isinstance(fact, str) else WORDERS[type(fact)](fact, reader)


def error_words(error: Exception, reader: Reader = Reader()) -> str:
    """Return why something was refused."""
    return fact_words(error.fact, reader) if isinstance(error, FactError) else str(error)


def _repeated(fact: Repeated, reader: Reader) -> str:
    return repeated_words(fact_words(fact.fact, reader), fact.places, reader)


def _numbered(fact: Numbered, reader: Reader) -> str:
    return f"{fact.number}  {fact_words(fact.fact, reader)}"


def _of_corner(fact: NoneDovetailed | TailsImpossible, reader: Reader) -> str:
    if isinstance(fact, NoneDovetailed):
        return reader.text("No corner of this piece is dovetailed.")
    return reader.text(
        "A corner with {count} tails cannot be laid out. Use one or more, and pins of at least nothing.",
        count=fact.count,
    )


def _as_sentence(worder: Worder) -> Worder:
    """Return what says a fact in a sentence that may begin with what a part is called."""
    return lambda fact, reader: sentence(worder(fact, reader))


#: Which function says which kind of fact; together they are all facts there are.
WORDERS: dict[type, Worder] = {
    kind: worder
    for kinds, worder in (
        ((Repeated,), _repeated),
        ((Numbered,), _numbered),
        (get_args(MeetingFact), _as_sentence(meeting_words)),
        (get_args(TailsFact), _as_sentence(tails_words)),
        (get_args(ChannelFact), _as_sentence(channel_words)),
        (get_args(HoldFact), _as_sentence(hold_words)),
        (get_args(ChannelCaution), _as_sentence(channel_caution_words)),
        (get_args(TenonCaution), tenon_caution_words),
        (get_args(FasteningCaution), fastening_caution_words),
        (get_args(MovingFact), _as_sentence(moving_words)),
        (get_args(BuildingFact), building_words),
        (get_args(PieceFact), piece_words),
        ((Note,), note_words),
        ((Offer,), offer_words),
        (get_args(LedgerFact), ledger_words),
        ((WrongValue,), wrong_value_words),
        (get_args(LayoutRefusal), layout_words),
        (get_args(CornerFact), corner_words),
        (get_args(GrooveFact), groove_words),
        ((NoneDovetailed, TailsImpossible), _of_corner),
        (get_args(Refusal), refusal_words),
        (get_args(Placed), complaint_words),
        (get_args(Nowhere), nowhere_words),
        (get_args(LayoutFact), layout_fact_words),
        (get_args(EdgeFact), edge_error_words),
        (get_args(OrderFault), order_fault_words),
        (get_args(TaskFact), task_words),
        (get_args(TaskCaution), task_caution_words),
        ((MindAtTask,), mind_words),
        ((Deviation,), deviation_words),
        (get_args(TimerFact), timer_words),
        ((*get_args(RecordFact), *get_args(TimedFact)), record_words),
        ((PracticeWrong,), practice_error_words),
        ((NoLength,), no_length_words),
        ((NoContour,), no_contour_words),
        ((*get_args(DayFact), HasZone), day_words),
        (get_args(HoursFact), hours_words),
        (get_args(BoardFact), board_words),
        ((NoYardSize,), no_yard_size_words),
        (get_args(SurveyFact), survey_words),
        (get_args(LimitFact), limit_words),
        (get_args(AirFact), air_words),
        ((MoistureOutside, NoSpecies), wood_words),
        ((ToleranceFault, SpacingFault, FastenerFault), figure_words),
        ((Fit,), fit_words),
        ((Strain,), strain_words),
        (get_args(SeasonFact), season_words),
        ((*get_args(SawFact), BoardNotSawable, TooManyParts), saw_words),
    )
    for kind in kinds
}
