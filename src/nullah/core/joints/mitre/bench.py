"""Mitres, plain and with keys."""

from __future__ import annotations

from fractions import Fraction

from nullah.core.card import JointStage, Remark, Setting, Severity, Step
from nullah.core.joints.bench import KNIFE_BITES, KNIFE_CARE, SAW_BITES, AtBench, Told, how_many


def told(at: AtBench) -> Told:
    """Tell how a mitre is made, and the keys that keep it."""
    thick = min(at.kind.first.sizes.through, at.kind.second.sizes.through)
    key = Fraction(round(float(thick) / 5 * 2), 2) or Fraction(1)
    settings = (
        Setting("Mitre square", "45°", "or half of the corner that is there"),
        at.setting("Face of the mitre", at.kind.first.sizes.through, "as deep along as the mate is thick"),
        at.setting("Key", key, "about a fifth of the thickness; a saw's kerf will do"),
    )
    steps = (
        Step(
            f"Knife the mitre on both edges from the inside length; join the lines across the face.{how_many(at)}",
            JointStage.HATCHED,
            draws=("mitre lines",),
            check="The lines meet on both faces.",
            care=KNIFE_BITES,
        ),
        Step(
            "Saw in the waste; shoot to the line on a 45° board. Opposite sides exactly one length.",
            JointStage.CUT,
            uses=("mitre lines",),
            check="Opposite sides stand level, end on end.",
            care=SAW_BITES,
        ),
        Step(
            "Dry fit all corners together in a cord or strap; shoot what is open.",
            JointStage.TRIED,
            check="All corners close at once, diagonals equal.",
        ),
        Step(
            "Size the end grain with thin glue, then glue. Cut and glue keys across the corners when it is dry.",
            JointStage.TRIED,
        ),
    )
    weak = Remark(
        "A mitre is end grain against end grain: alone it holds little. Put keys, splines or a fitted bottom to it.",
        Severity.WARNING,
    )
    return Told(settings, steps, (weak, KNIFE_CARE))
