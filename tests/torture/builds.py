"""Every choice of every form built by its order of work: by steady hands once, by usual ones many times."""

from itertools import product

from tests.told import each_choice, planned, planned_in_inches
from tests.torture.reports import Report

from nullah.core.forms import FORMS
from nullah.core.lengths import style_of
from nullah.core.shop import Hands
from nullah.core.work.rehearsal import Skill, hands_of
from nullah.core.work.rehearsing import rehearse

#: Of so many builds by usual hands, so many must go together.
WANTED = 0.95


def every_choice(number):
    """Build every choice once with steady hands, and so often with usual ones: measured, and from the drawing."""
    report = Report("pieces built")
    for form in sorted(FORMS.keys() - {"own"}):
        for chosen, begin in product(each_choice(form), (planned, planned_in_inches)):
            plan = begin(form, chosen)
            mark = float(plan.marks.smallest.mm)
            report.tried += 1
            steady = rehearse(plan, hands_of(Hands(), Skill.STEADY), 1)
            if not steady.goes_together or any(each.gap > mark + 0.02 for each in steady.joints):
                report.fail(f"{_named(plan, form, chosen)}: does not close with steady hands")
            measured, drawn = (
                sum(rehearse(plan, Hands(), seed, measured=way).goes_together for seed in range(number))
                for way in (True, False)
            )
            report.count("went together", measured)
            report.count("went together from the drawing", drawn)
            report.count("builds", number)
            if measured < WANTED * number:
                report.fail(
                    f"{_named(plan, form, chosen)}: {measured} of {number} go together, {drawn} from the drawing"
                )
    return report


def _named(plan, form, chosen):
    """Return a form with its unit and the choices that are not as usual."""
    usual = FORMS[form].settled({})
    unit = style_of(plan.marks.unit).name
    return " ".join((form, unit, *(f"{name}={value}" for name, value in chosen if usual[name] != value)))
