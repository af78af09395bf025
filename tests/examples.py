"""How many examples of any values are tried: few where changes land, all in script/torture."""

import os
from collections.abc import Callable
from typing import Any

import pytest
from hypothesis import settings


def examples(most: int, **more: Any) -> settings:
    """Return settings for so many examples, of which a fourth is tried where the suite is sampled."""
    whole = os.environ.get("NULLAH_WHOLE")
    return settings(max_examples=most if whole else max(2, most // 4), deadline=None, **more)


def tried(most: int, **more: Any) -> Callable[[Any], Any]:
    """Return a decorator that tries so many examples in script/torture, and a fourth of them otherwise."""

    def on(test: Any) -> Any:
        return pytest.mark.sampled(1)(examples(most, **more)(test))

    return on
