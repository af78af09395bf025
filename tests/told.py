"""Operations as the program tells them, of pieces with all their choices."""

from dataclasses import replace
from functools import lru_cache
from itertools import product

from nullah.core.beginning import begun, rounded
from nullah.core.forms import FORMS
from nullah.core.forms.own_boards import OwnBoard, OwnJoint
from nullah.core.joints.steps import joint_steps, part_operations
from nullah.core.lengths import Marks, Unit, mm
from nullah.core.piece.frames import frames_of
from nullah.core.piece.shaping import Chamfer
from nullah.core.piece.space import Side
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.shop import Schools, Shop
from nullah.demo.worked_joints import WORKED, worked_joint


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


def planned_in_inches(form, chosen):
    """Return the plan of a form as a woodworker begins it who thinks in inches, with tools as they are sold there."""
    project = begun(Project(piece=Piece(form, form), marks=Marks(Unit.INCH)), form)
    project = rounded(replace(project, piece=Piece(form, form, choices=chosen)))
    return work_out(project, milling=False, proving=False)


def operations_of(plan, part):
    """Return all operations of a part; None where some are not told."""
    frames = frames_of(plan.assembly)
    return part_operations(frames, plan.assembly.joints, part, plan.marks, plan.project.shop)


def corner_of_own(*moulded, shop=None, **how):
    """Return the plan of two boards of one's own that are dovetailed; their upper edges moulded where named."""
    chamfers = {"front": Chamfer((Side.TOP, Side.FRONT), 6.0), "side": Chamfer((Side.TOP, Side.LEFT), 6.0)}
    boards = [
        OwnBoard(
            f"own{number}", name, (mm(long), mm(90), mm(15)), (mm(0), mm(0), mm(0)), lie,
            shapings=(chamfers[name],) if name in moulded else (),
        )
        for number, name, long, lie in ((1, "front", 300, "xy"), (2, "side", 200, "yx"))
    ]  # fmt: skip
    joint = OwnJoint("ownjoint1", "dovetail", "own1", "own2")
    piece = Piece("own", "corner", own=tuple(boards), own_joints=(joint,), given=tuple(how.items()))
    return work_out(Project(piece=piece, shop=shop or Shop()), milling=False, proving=False)


@lru_cache(maxsize=1)
def every_operation():
    """Return one operation of every sort there is."""
    found = {}
    every = [(form, chosen) for form in FORMS if form != "own" for chosen in each_choice(form)]
    other = Shop(schools=Schools("pins first", "chop only", "shoulders first", "chisel"))
    # How one works changes how a joint is made, whatever it is in: for that a few pieces will do.
    for shop, pieces in ((Shop(), every), (other, every[::8])):
        plans = [planned(form, chosen, shop=shop) for form, chosen in pieces]
        worked = (replace(worked_joint(name), shop=shop) for name in WORKED)
        plans += [work_out(project, milling=False, proving=False) for project in worked]
        for plan in plans:
            for part in plan.parts:
                for each in operations_of(plan, part) or ():
                    found.setdefault(_sort(each), each)
        corner = corner_of_own("front", "side", shop=shop)
        frames, joint = frames_of(corner.assembly), corner.assembly.joints[0]
        for step in joint_steps(frames, joint, corner.marks, shop):
            for each in step.operations:
                found.setdefault(_sort(each), each)
    return tuple(found.values())


def _sort(operation):
    ways = (getattr(operation, name, None) for name in ("kind", "cut", "tool", "chop_only", "pins", "holds"))
    by = tuple(type(setting.by) for setting in operation.settings)
    return type(operation), tuple(map(str, ways)), by
