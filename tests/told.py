"""Operations as the program tells them, of boxes and drawers with all their choices."""

from functools import lru_cache
from itertools import product

from nullah.core.forms import FORMS
from nullah.core.joints.steps import frames_of, part_operations
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import Schools, Shop


def choices_of(form):
    """Return every mixture of a form's choices, each once."""
    options = [[value for value, _ in choice.options] for choice in FORMS[form].choices]
    names = [choice.name for choice in FORMS[form].choices]
    return sorted({_settled(form, zip(names, each, strict=True)) for each in product(*options)})


def each_choice(form):
    """Return a form's choices with every option once, the others as usual."""
    return sorted(
        {_settled(form, [(choice.name, value)]) for choice in FORMS[form].choices for value, _ in choice.options}
    )


def _settled(form, chosen):
    return tuple(sorted(FORMS[form].settled(dict(chosen)).items()))


def planned(form, chosen, given=(), **project):
    """Return the plan of a form as it was chosen."""
    piece = Piece(form, form, choices=chosen, given=tuple(given))
    return work_out(Project(piece=piece, **project), milling=False, proving=False)


def operations_of(plan, part):
    """Return all operations of a part; None where some are not told."""
    frames = frames_of(plan.assembly)
    return part_operations(frames, plan.assembly.joints, part, plan.marks, plan.project.shop)


@lru_cache(maxsize=1)
def every_operation():
    """Return one operation of every sort there is, of boxes and drawers."""
    found = {}
    shops = [Shop(), Shop(schools=Schools("pins first", "chop only", "shoulders first", "chisel"))]
    for shop in shops:
        for form in ("box", "drawer"):
            for chosen in each_choice(form):
                plan = planned(form, chosen, shop=shop)
                for part in plan.parts:
                    for each in operations_of(plan, part):
                        found.setdefault(_sort(each), each)
    return tuple(found.values())


def _sort(operation):
    ways = (getattr(operation, name, None) for name in ("kind", "cut", "tool", "chop_only", "pins"))
    by = tuple(type(setting.by) for setting in operation.settings)
    return type(operation), tuple(map(str, ways)), by
