"""Every choice of the forms that are told as operations, at every mark, and pieces of any size: built as designed."""

import random
from fractions import Fraction

from tests.told import choices_of, operations_of, planned
from tests.torture.reports import Report

from nullah.core.apprentice.building import built_otherwise
from nullah.core.card import Severity
from nullah.core.lengths import Length, Marks, Unit
from nullah.core.piece.faults import FaultKind
from nullah.core.piece.frames import frames_of
from nullah.core.piece.solids import recipe
from nullah.core.plan import prove_plan

FORMS_TOLD = ("box", "drawer", "table")
MARKS = (
    *(Marks(Unit.INCH, Fraction(1, part)) for part in (16, 32, 64)),
    *(Marks(Unit.MM, mm_mark=Fraction(1, part)) for part in (1, 2, 10)),
)
GIVEN = {"outside": "box.outside", "inside": "box.inside", "contents": "contents."}
#: Sizes that are tried, mm: from the smallest to the largest.
SIZES = {
    "box": {
        "box.outside_length": (150, 600), "box.outside_width": (100, 400), "box.outside_height": (60, 250),
        "box.inside_length": (150, 600), "box.inside_width": (100, 400), "box.inside_height": (50, 220),
        "contents.length": (150, 500), "contents.width": (90, 350), "contents.height": (40, 200),
        "sides.thickness": (9, 22), "ends.thickness": (9, 22), "groove.depth": (2, 6), "groove.height": (5, 15),
        "bottom.thickness": (3, 10),
    },
    "drawer": {
        "opening.width": (120, 600), "opening.height": (60, 250), "opening.depth": (150, 500),
        "drawer.front_thickness": (15, 25), "drawer.side_thickness": (8, 14), "drawer.lap": (3, 7),
        "drawer.bottom_thickness": (4, 9),
    },
    "table": {
        "table.length": (350, 900), "table.width": (300, 600), "table.height": (400, 760), "leg.section": (28, 50),
        "apron.width": (60, 120), "apron.thickness": (14, 25), "apron.setback": (1, 5), "tenon.below": (4, 12),
        "tenon.above": (8, 20),
    },
}  # fmt: skip


def every_choice(number):
    """Try every mixture of choices at every mark, then so many of random sizes."""
    report = Report("pieces carried out")
    for form in FORMS_TOLD:
        for chosen in choices_of(form):
            for marks in MARKS:
                tried(report, form, chosen, (), marks)
    chance = random.Random(number)
    for _ in range(number):
        form = chance.choice(FORMS_TOLD)
        chosen = chance.choice(choices_of(form))
        given = [
            (name, sized(chance, *span))
            for name, span in SIZES[form].items()
            if asked(name, dict(chosen).get("sizing")) and chance.random() < 0.7
        ]
        tried(report, form, chosen, given, chance.choice(MARKS))
    return report


def asked(name, sizing):
    """Whether a size is one of those that are given, the others following from them."""
    return sizing is None or not name.startswith(("box.", "contents.")) or name.startswith(GIVEN[sizing])


def sized(chance, low, high):
    return Length(Fraction(chance.randint(low * 10, high * 10), 10))


def tried(report, form, chosen, given, marks):
    """Build every part of a piece by its operations; what the proof refuses at sizes of chance need not be told."""
    report.tried += 1
    plan = planned(form, chosen, given, marks=marks)
    proof = prove_plan(plan)
    refused = proof is None or any(
        each.remark.weight is Severity.FAILURE and each.trouble is not FaultKind.MADE_OTHERWISE
        for each in (*proof.findings, *plan.findings)
    )
    # Tails that leave no room for a saw are remarked on where they are laid out.
    narrow = any(corner.layout.tail_base.mm <= 2 * plan.project.shop.fine_kerf.mm for corner in plan.corners)
    if given and (refused or narrow or any(remark.weight is Severity.FAILURE for remark in plan.assembly.remarks)):
        report.count("refused by the proof")
        return
    report.count("built")
    frames, parts = frames_of(plan.assembly), {part.id: part for part in plan.parts}
    for part in plan.parts:
        told, frame = operations_of(plan, part), frames[part.id]
        designed = recipe(part, plan.assembly.joints, parts)
        mark = float(marks.smallest.mm) + 0.02
        found = ("not told",) if told is None else built_otherwise(frame, frame.stock, told, designed, mark)
        if found:
            what = (form, dict(chosen), {n: float(v.mm) for n, v in given}, marks.rule_mark, part.id)
            report.fail(f"{what}: {found[0]!r:.200}")
