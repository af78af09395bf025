"""build the piece by its order of work alone, with hands that err, and say how it goes together."""

from __future__ import annotations

import argparse
from pathlib import Path

from nullah.cli import options as read

#: What may be said of hands, and of what is cut to a measurement.
_HANDS, _FROM = ("steady", "careful", "usual", "rough"), ("bench", "drawing")


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("file", type=Path)
    parser.add_argument("--hands", choices=_HANDS, default="usual")
    parser.add_argument("--from", choices=_FROM, default="bench", dest="sized_from")
    parser.add_argument("--seed", default="1")
    parser.add_argument("--json", required=True)


def run(options: argparse.Namespace) -> int:
    """Answer with how the piece went together."""
    from nullah.core.plan import work_out
    from nullah.core.wording.rehearsal import refused_words
    from nullah.core.work.rehearsal import Skill, hands_of
    from nullah.core.work.rehearsing import rehearse

    seed = read.count(options.seed, "--seed", "builds")
    plan = work_out(read.project(options.file), milling=False, proving=False)
    hands = hands_of(plan.project.shop.hands, Skill(options.hands))
    found = rehearse(plan, hands, seed, options.sized_from == "bench")
    return read.write_json(
        options.json,
        {
            "goes_together": found.goes_together,
            "joints": [
                {"parts": list(each.parts), "gap_mm": round(each.gap, 4), "interference_mm": round(each.tight, 4)}
                for each in found.joints
            ],
            "refused": [refused_words(each, plan.reader) for each in found.refused],
            "measured": [
                {"quantity": each.quantity, "planned_mm": float(each.planned), "found_mm": float(each.found)}
                for each in found.measured
            ],
        },
    )
