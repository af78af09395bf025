"""What the survey of a whole board tells: how it is milled whole, and the best ways of cutting it first."""

from __future__ import annotations

from nullah.core.breakdown.layout import Rect
from nullah.core.identity import kept_by_value
from nullah.core.lengths import mm
from nullah.core.milling.decide import BestCut, best_both, best_crosscut, best_rip
from nullah.core.milling.faces import survey_of
from nullah.core.milling.job import Job, job_of
from nullah.core.named_tuple import NamedTuple
from nullah.core.rack.board import Board
from nullah.core.shop import Shop


class SurveyFindings(NamedTuple):
    """What the survey of a whole board tells: the ways of cutting it first, and how it is milled whole."""

    job: Job
    crosscut: BestCut
    rip: BestCut
    both: BestCut


def survey_findings(board: Board, shop: Shop) -> SurveyFindings:
    """Work out what the survey of a board tells."""
    return SurveyFindings(whole_job(board, shop), *_cuts(board))


def whole_job(board: Board, shop: Shop) -> Job:
    """Return how a whole board is milled to all it can give."""
    return job_of(board, Rect(0.0, 0.0, float(board.length), float(board.width)), shop, None, mm(0))


@kept_by_value(64)
def _cuts(board: Board) -> tuple[BestCut, BestCut, BestCut]:
    """Find the best cuts of a board: they hang on its shape alone."""
    survey = survey_of(board)
    return best_crosscut(survey), best_rip(survey), best_both(survey)
