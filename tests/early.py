"""Whether anything is worked at an end or edge before a part is cut to fit there."""

from dataclasses import fields, is_dataclass

from nullah.core.bench.trades import Trade
from nullah.core.operations.stock import Surface
from nullah.core.operations.taking import CutToSize


def worked_too_early(order):
    """Yield the tasks that are done at an end or edge that is still to be cut to fit, with the part."""
    tasks = {task.id: task for task in order}
    cut = [
        (made.part, made.setting.origin.opposite, task.id)
        for task in order
        for made in task.operations
        if isinstance(made, CutToSize)
    ]
    for task in order:
        made_then = task.operations if task.trade not in (Trade.MILL, Trade.FIT) else ()
        before = _work_before(tasks, task.id) if made_then else ()
        for part, end, fit in cut:
            if fit not in before and any(made.part == part and _works_at(made, end) for made in made_then):
                yield task.id, part


def _work_before(tasks, name):
    """Return the tasks that must be done before one."""
    found, left = set(), [name]
    while left:
        more = set(tasks[left.pop()].after) - found
        found |= more
        left += more
    return found


def _works_at(made, end):
    """Return whether something is set out from an end or edge, or wood is taken there."""
    return any(setting.origin is end for setting in made.settings) or (bool(made.takes) and end in _surfaces(made))


def _surfaces(value):
    """Yield the surfaces that an operation speaks of."""
    if isinstance(value, Surface):
        yield value
    elif isinstance(value, tuple):
        for each in value:
            yield from _surfaces(each)
    elif is_dataclass(value):
        yield from (found for field in fields(value) for found in _surfaces(getattr(value, field.name)))
