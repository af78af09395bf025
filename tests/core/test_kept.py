"""What is kept of earlier pieces never shows: worked out after many changes, and from nothing, it is the same."""

import os
import pickle
import random
import re
import subprocess
import sys
from dataclasses import replace
from functools import partial
from pathlib import Path

import pytest
from tests.told import each_choice

from nullah.core.actions import choose, fasten, finish_with, give, hold, live_in, make_of, measure
from nullah.core.forms import FORMS
from nullah.core.identity import SameAgain, kept_by_identity
from nullah.core.ledger import QuantityKind
from nullah.core.lengths import Length, Unit, mm
from nullah.core.piece.joint import Hold, RowChoice
from nullah.core.plan import prove_plan, work_out
from nullah.core.project import Piece, Project
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wood.climate import PRESETS
from nullah.core.wood.finishes import FINISHES
from nullah.core.wording.operations import operation_words
from nullah.core.wording.task_titles import task_title
from nullah.core.work.answer import work_data
from nullah.core.work.gluing import gluings, go_in_after
from nullah.core.work.order_of_work import order_of_work
from nullah.core.work.shop_list import shop_list
from nullah.core.work.stock_tasks import waits_of

HERE = Path(__file__).parents[2]


def told(project):
    """Return all that is told of a piece: its order of work with every figure and sentence, its proof, its drawing."""
    plan = work_out(project, milling=False, proving=False)
    order = order_of_work(plan)
    words = work_data(
        plan, order, lambda each: operation_words([each], plan.reader), lambda task: task_title(task, plan.reader)
    )
    proof = prove_plan(plan)
    glued = gluings(plan, go_in_after(plan, waits_of(plan)))
    found = () if proof is None else (proof.order, [each.remark for each in proof.findings])
    drawn = STATIONS[0].draw(plan.with_proof(proof), Selection())
    return re.sub(" at 0x[0-9a-f]+", "", repr((words, order, glued, found, drawn, shop_list(plan))))


def changes(plan, chance):
    """Return what may be done to a piece next."""
    project = plan.project
    found = [
        partial(replace, project, marks=replace(project.marks, unit=chance.choice(list(Unit)))),
        partial(finish_with, project, chance.choice(list(FINISHES))),
        partial(live_in, project, chance.choice(PRESETS)),
        partial(make_of, project, "shown", chance.choice(("white oak", "black cherry", "sugar maple"))),
        partial(replace, project, shop=replace(project.shop, kerf=mm(chance.choice(("0.8", "1.5", "2.5"))))),
    ]
    if plan.ledger is None:
        return found
    lengths = [name for name, each in plan.ledger.quantities.items() if each.definition.kind is QuantityKind.LENGTH]
    waiting = [name for name in plan.ledger.quantities if plan.ledger.waits_for(name)]
    size = Length(plan.ledger.quantity(chance.choice(lengths)).value)
    name = chance.choice(lengths)
    other = Length(plan.ledger.quantity(name).value + chance.choice((-1, 1, 3)))
    choice = chance.choice(FORMS[project.piece.form].choices)
    joint = chance.choice(plan.assembly.joints).id
    found += [
        partial(give, project, name, other),
        partial(give, project, name, other),
        partial(give, project, name, size),
        partial(choose, project, choice.name, chance.choice(choice.options)[0]),
        partial(hold, project, joint, chance.choice(list(Hold)).value),
        partial(fasten, project, [joint], RowChoice(number=chance.choice((0, 2, 3)))),
    ]
    if waiting:
        found.append(partial(measure, project, chance.choice(waiting), other))
    return found


def session(seed, number):
    """Yield pieces as somebody makes them, one change after the other, and now and then goes back or begins another."""
    chance = random.Random(seed)
    done = []
    while len(done) < number:
        if not done or chance.random() < 0.1:
            form = chance.choice(sorted(FORMS.keys() - {"own"}))
            project = Project(Piece(form, form, choices=chance.choice(each_choice(form))))
        elif chance.random() < 0.15:
            project = chance.choice(done)
        else:
            plan = work_out(done[-1], milling=False, proving=False)
            project = chance.choice(changes(plan, chance))()
        # A figure may make no piece at all, as it may at the desk.
        done.append(project if work_out(project, milling=False, proving=False).parts else done[0])
        yield done[-1]


def after_changes(seed, number, path):
    """Keep what is told of each piece of a session, and the pieces."""
    Path(path).write_bytes(pickle.dumps([(project, told(project)) for project in session(seed, number)]))


def from_nothing(path):
    """Say of which pieces that were kept something else is told in a process that has seen no other."""
    kept = pickle.loads(Path(path).read_bytes())
    for number, (project, before) in enumerate(kept):
        child = os.fork()
        if not child:
            os._exit(told(project) != before)
        if os.waitpid(child, 0)[1]:
            print(number, project.piece)


def said(what, *values):
    """Return what a process says that has done nothing before; words hash alike in all of them."""
    call = f"from tests.core.test_kept import *; {what}(*{values!r})"
    env = {**os.environ, "PYTHONHASHSEED": "1", "PYTHONPATH": f"{HERE}:{HERE / 'src'}"}
    made = subprocess.run([sys.executable, "-c", call], env=env, capture_output=True, text=True, check=False)
    assert not made.returncode, made.stderr
    return made.stdout


@pytest.mark.dear
@pytest.mark.sampled(16)
@pytest.mark.parametrize("seed", range(16))
def test_what_is_kept_of_other_pieces_never_shows(seed, tmp_path):
    said("after_changes", seed, 12 if os.environ.get("NULLAH_WHOLE") else 6, str(tmp_path / "session"))
    assert said("from_nothing", str(tmp_path / "session")) == ""


def test_as_many_results_are_kept_as_was_said():
    calls = []

    @kept_by_identity(2)
    def second(thing):
        calls.append(thing)
        return thing[1]

    one, two, three = ("a", 1), ("b", 2), ("c", 3)
    assert [second(each) for each in (one, two, one, two)] == [1, 2, 1, 2]
    assert calls == [one, two]
    assert [second(each) for each in (three, two, one)] == [3, 2, 1]
    assert calls == [one, two, three, one]


def test_what_is_equal_but_another_thing_is_worked_out_by_itself():
    counted = kept_by_identity(9)(id)
    one, other = [1], [1]
    assert (counted(one), counted(other)) == (id(one), id(other))


def test_what_is_equal_is_the_same_thing_again_under_its_name():
    same = SameAgain(2)
    one, equal = (1, "a"), (1, "ab"[:1])
    assert same("x", one) is one
    assert same("x", equal) is one
    assert same("y", equal) is equal
    same("z", equal)
    assert same("x", equal) is equal  # two names are kept: the first went when the third came
