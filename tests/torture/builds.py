"""Every choice of every form built by its order of work: by steady hands once, by usual ones many times."""

from concurrent.futures import ProcessPoolExecutor
from functools import partial
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
    choices = [(form, chosen) for form in sorted(FORMS.keys() - {"own"}) for chosen in each_choice(form)]
    cases = list(product(choices, (planned, planned_in_inches)))
    with ProcessPoolExecutor() as cores:
        for closed, measured, drawn, name in cores.map(partial(_built, number), cases):
            report.tried += 1
            report.count("went together", measured)
            report.count("went together from the drawing", drawn)
            report.count("builds", number)
            if not closed:
                report.fail(f"{name}: does not close with steady hands")
            if measured < WANTED * number:
                report.fail(f"{name}: {measured} of {number} go together, {drawn} from the drawing")
    return report


def _built(number, case):
    (form, chosen), begin = case
    plan = begin(form, chosen)
    steady = rehearse(plan, hands_of(Hands(), Skill.STEADY), 1)
    closed = steady.goes_together and all(each.gap <= float(plan.marks.smallest.mm) + 0.02 for each in steady.joints)
    measured, drawn = (
        sum(rehearse(plan, Hands(), seed, measured=way).goes_together for seed in range(number))
        for way in (True, False)
    )
    return closed, measured, drawn, _named(plan, form, chosen)


def _named(plan, form, chosen):
    """Return a form with its unit and the choices that are not as usual."""
    usual = FORMS[form].settled({})
    unit = style_of(plan.marks.unit).name
    return " ".join((form, unit, *(f"{name}={value}" for name, value in chosen if usual[name] != value)))
