"""Why readings make no survey, as facts."""

from __future__ import annotations

from enum import Enum, auto

from nullah.core.frozen_record import FrozenRecord


class SurveyFault(Enum):
    """Why readings make no board, where no place needs to be named."""

    NO_READINGS = auto()
    NOT_A_NUMBER = auto()
    TOO_FEW = auto()
    TWO_AT_ONE_PLACE = auto()


class SurveyGaps(FrozenRecord):
    """Places of the grid that were not read: how many, and the first of them, mm."""

    places: int
    x: float
    y: float


class FacesCross(FrozenRecord):
    """A place at which the upper face lies below the lower one, mm."""

    x: float
    y: float


SurveyFact = SurveyFault | SurveyGaps | FacesCross
