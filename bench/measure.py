"""Measures what the program promises about speed, as ratios within one run.

Machines are noisy: quote the ratios, not the times. Nothing is asserted here.
"""

from __future__ import annotations

import os
import statistics
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from dataclasses import replace

BARE = """
import sys
from PySide6.QtWidgets import QApplication, QMainWindow
app = QApplication(sys.argv)
window = QMainWindow()
window.resize(1280, 800)
window.show()
app.processEvents()
"""

SEEN = """
from pathlib import Path
from nullah.desk.last_view import show_last_view
assert show_last_view(Path("box.nullah")) is not None
"""

DESK = """
import gc
gc.disable()
from pathlib import Path
from nullah.desk.last_view import show_last_view
seen = show_last_view(Path("box.nullah"))
from nullah.desk.application import application
from nullah.desk.start import make_window
from nullah.demo.seed_box import seed_box
app = application()
window = make_window(seed_box(), Path("/tmp/nullah-bench"))
window.resize(1280, 800)
window.show()
seen.make_way()
app.processEvents()
"""

KEEP = """
from pathlib import Path
from nullah.desk.application import application
from nullah.desk.last_view import keep_view, opened_name, views_folder
from nullah.desk.start import make_window
from nullah.demo.seed_box import seed_box
from nullah.writing import write_file
application()
window = make_window(seed_box(), Path("/tmp/nullah-bench"))
window.resize(1280, 800)
keep_view(window, opened_name(Path("box.nullah"), False), views_folder(), write_file)
"""


def whole_process(code: str) -> float:
    """Return the seconds from starting Python to the window painted and its events handled."""
    # As users have it: with compiled modules kept from the run before.
    env = {name: value for name, value in os.environ.items() if name != "PYTHONDONTWRITEBYTECODE"}
    start = time.perf_counter()
    subprocess.run([sys.executable, "-c", code], check=True, env={**env, "QT_QPA_PLATFORM": "offscreen"})
    return time.perf_counter() - start


def start_up(runs: int = 9) -> None:
    """Compare the picture of the window, and the window itself, with a bare window of the same size, in turn."""
    with tempfile.TemporaryDirectory() as folder:
        os.environ["XDG_STATE_HOME"] = os.environ["XDG_CONFIG_HOME"] = folder
        for code in (KEEP, BARE, SEEN, DESK):
            whole_process(code)
        found = [tuple(whole_process(code) for code in (BARE, SEEN, DESK)) for _ in range(runs)]
        del os.environ["XDG_STATE_HOME"], os.environ["XDG_CONFIG_HOME"]
    print(f"a bare window: {statistics.median(bare for bare, _, _ in found):.3f} s")
    for what, at, wanted in (("as it was last seen", 1, 1.6), ("painted and answering", 2, 2.5)):
        ratios = sorted(each[at] / each[0] for each in found)
        print(
            f"window {what}: {statistics.median(each[at] for each in found):.3f} s, ratio "
            f"{statistics.median(ratios):.2f} ({ratios[0]:.2f} to {ratios[-1]:.2f}) of the {wanted} wanted at most"
        )


def seconds(work: Callable[[], object]) -> float:
    """Return how long something takes, s."""
    start = time.perf_counter()
    work()
    return time.perf_counter() - start


def from_nothing(work: Callable[[], object]) -> float:
    """Return how long something takes in a process that has done nothing like it before, s; modules are loaded."""
    read, write = os.pipe()
    child = os.fork()
    if not child:
        os.write(write, f"{seconds(work)}".encode())
        os._exit(0)
    os.waitpid(child, 0)
    os.close(write)
    with os.fdopen(read) as answer:
        return float(answer.read())


def commands(runs: int = 9) -> None:
    """How soon a command answers that needs neither window nor numbers."""
    nullah = os.path.join(os.path.dirname(sys.executable), "nullah")
    asked = {
        "emc": ["--temperature", "20", "--humidity", "50"],
        "move": ["--species", "black cherry", "--cut", "flat", "--width", "300mm", "--from", "8", "--to", "12"],
        "dovetail": [
            "--width", "150mm", "--tail-thickness", "18mm", "--pin-thickness", "18mm", "--tails", "3", "--half-pin",
            "9mm", "--pin", "6mm", "--slope", "1:7",
        ],
    }  # fmt: skip
    for name, words in asked.items():

        def run(words: list[str]) -> None:
            subprocess.run([*words, "--json", "/dev/null"], check=True, stdout=subprocess.DEVNULL)

        words = [nullah, name, *words]
        run(words)
        told(f"nullah {name}", timed(lambda words=words: run(words), runs), 150)  # type: ignore[misc]


def timed(work: Callable[[], object], runs: int) -> list[float]:
    """Return the sorted times of a piece of work, in ms."""
    times = []
    for _ in range(runs):
        start = time.perf_counter()
        work()
        times.append((time.perf_counter() - start) * 1000)
    return sorted(times)


def told(what: str, times: list[float], wanted: float) -> None:
    """Print a median against what is wanted, both in ms."""
    middle = statistics.median(times)
    print(
        f"{what}: {middle:.1f} ms ({times[0]:.1f} to {times[-1]:.1f}), {middle / wanted:.2f} of the {wanted:.0f} wanted"
    )


def slab() -> None:
    """The thickest slab of a 41 × 13 survey, smooth and rough."""
    import numpy as np

    from nullah.core.milling.slab import thickest_slab
    from nullah.core.milling.survey import Survey

    x, y = np.linspace(0, 900, 41), np.linspace(0, 180, 13)
    u, v = np.meshgrid(2 * x / 900 - 1, 2 * y / 180 - 1, indexing="ij")
    shape = 3 * (1 - u**2) + 2.5 * (1 - v**2) + u * v
    for name, noise in (("smooth", 0.0), ("rough", 0.2)):
        rng = np.random.default_rng(1)
        bottom = shape + noise * rng.normal(size=u.shape)
        survey = Survey(x, y, shape + 27 + noise * rng.normal(size=u.shape), bottom)
        told(f"slab of 41 × 13, {name}", timed(lambda survey=survey: thickest_slab(survey), 25), 30)


def milling() -> None:
    """The best crosscut, the stroke plan, the faces from readings, and strokes of a plan that is played."""
    from itertools import islice

    from nullah.core.lengths import mm
    from nullah.core.milling.adjust import adjust, usual_readings
    from nullah.core.milling.decide import BoardFace, above, best_both, best_crosscut
    from nullah.core.milling.faces import survey_of
    from nullah.core.milling.slab import thickest_slab
    from nullah.core.milling.strokes import plan_strokes, play, work_of
    from nullah.core.rack.board import Board
    from nullah.core.shop import Shop
    from nullah.instruments.shape_gauges import SimulatedGauges

    gauges = SimulatedGauges()
    board = Board("1", "board", "black cherry", mm(900), mm(180), mm(27), mm("2.5"), mm(3), mm(4))
    board = replace(board, shape=tuple(gauges.read(board, each) for each in usual_readings(board)[:28]))

    def from_nothing() -> None:
        adjust.cache_clear()
        adjust(board)

    told("faces from 28 readings", timed(from_nothing, 9), 300)
    survey = survey_of(board)
    told("best crosscut", timed(lambda: best_crosscut(survey), 15), 300)
    told("best crosscut and rips", timed(lambda: best_both(survey), 5), 1000)
    slab = thickest_slab(survey)
    for face in BoardFace:
        heights = above(survey, slab, face)
        work = work_of(survey, heights)
        told(f"stroke plan, {face.value} face", timed(lambda w=work: plan_strokes(w, Shop()), 15), 200)
        start = time.perf_counter()
        number = sum(1 for _ in islice(play(work, plan_strokes(work, Shop())), 100_000))
        rate = number / (time.perf_counter() - start)
        print(f"{number} strokes on 900 × 180 at 5 mm: {rate:.0f} a second, {rate / 300:.2f} of the 300 wanted")


def hands() -> None:
    """20 000 trials of a box of four corners with its bottom."""
    from nullah.core.joints.tolerance import box

    told("chances of a four-corner box, 20 000 trials", timed(lambda: box((300, 180), 4), 9), 1000)


def proof() -> None:
    """Proving a case of 60 parts and 120 joints from nothing, and again after one joint changed."""
    from nullah.core.joints.dovetail.tails import tails_of
    from nullah.core.lengths import mm
    from nullah.core.piece.space import Axis
    from nullah.core.plan import prove_plan, work_out
    from nullah.core.project import Piece, Project

    chosen = (("rows", "3"), ("columns", "2"), ("dividers", "frame"), ("drawers", "all"), ("back", "5"))
    size = (("case.outside_height", mm(700)), ("case.outside_width", mm(700)), ("sides.thickness", mm(20)))
    plan = work_out(Project(Piece("case", choices=chosen, given=size)), milling=False, proving=False)
    print(f"the case has {len(plan.parts)} parts and {len(plan.assembly.joints)} joints")

    def with_another_joint(kind: str, step: int) -> object:
        joints = list(plan.unfastened.joints)
        wanted = [
            i for i, joint in enumerate(joints) if bool(tails_of(joint) if kind == "dovetail" else joint.channels)
        ]
        index = wanted[0]
        joint = joints[index]
        tails = tails_of(joint)
        if tails is not None:
            joints[index] = joint._replace(figures=tails._replace(pin=tails.pin + step))
        else:
            channel = joint.channels[0]
            deeper = channel.set(Axis.Z, channel.low[2], channel.high[2] + step)
            joints[index] = joint._replace(channels=(deeper, *joint.channels[1:]))
        return replace(plan, unfastened=plan.unfastened._replace(joints=tuple(joints)))

    prove_plan(work_out(Project(Piece("box")), milling=False, proving=False))  # that modules are loaded
    whole = sorted(1000 * from_nothing(lambda: prove_plan(plan)) for _ in range(5))
    told("proof of the whole case, from nothing", whole, 1500)
    prove_plan(plan)
    for kind in ("dado", "dovetail"):
        changed = iter([with_another_joint(kind, step) for step in range(1, 10)])
        told(f"proof again, one {kind} changed", timed(lambda changed=changed: prove_plan(next(changed)), 9), 150)


def carried_out() -> None:
    """Carrying all operations out: from nothing, with one figure changed, with none changed."""
    from nullah.core import actions
    from nullah.core.apprentice.building import built_otherwise
    from nullah.core.joints.steps import part_operations
    from nullah.core.lengths import mm
    from nullah.core.piece.frames import frames_of
    from nullah.core.piece.solids import recipe
    from nullah.core.plan import Plan, work_out
    from nullah.core.project import Piece, Project
    from nullah.demo.seed_cabinet import seed_cabinet

    def carry_out(plan: Plan) -> None:
        frames, parts = frames_of(plan.assembly), {part.id: part for part in plan.parts}
        for part in plan.parts:
            joints, frame = plan.assembly.joints, frames[part.id]
            told = part_operations(frames, joints, part, plan.marks, plan.project.shop)
            if told:
                built_otherwise(frame, frame.stock, told, recipe(part, joints, parts), 0.5)

    chosen = (("rows", "8"), ("columns", "2"), ("drawers", "all"), ("heights", "stepped"))
    for name, project in (("cabinet", seed_cabinet()), ("large case", Project(piece=Piece("case", "large", chosen)))):
        plan = work_out(project, milling=False, proving=False)
        figures = [actions.give(project, "back.rabbet", mm(f"6.{n}")) for n in range(1, 10)]
        changed = iter([work_out(each, milling=False, proving=False) for each in figures])
        whole = statistics.median(1000 * from_nothing(lambda plan=plan: carry_out(plan)) for _ in range(5))
        carry_out(plan)
        again = statistics.median(timed(lambda plan=plan: carry_out(plan), 9))
        other = statistics.median(timed(lambda changed=changed: carry_out(next(changed)), 9))
        print(
            f"{name}, {len(plan.parts)} parts carried out: {whole:.0f} ms; one figure changed {other:.0f} ms, "
            f"ratio {other / whole:.2f}; none changed {again:.1f} ms, ratio {again / whole:.3f}"
        )


def work() -> None:
    """The order of work of 350 tasks: from nothing, and after a change; and its days planned."""
    from datetime import datetime

    from nullah.core.actions import give, hold
    from nullah.core.bench.hours import Hours, plan_days
    from nullah.core.lengths import mm
    from nullah.core.piece.joint import Hold
    from nullah.core.plan import work_out
    from nullah.core.project import Piece, Project
    from nullah.core.work.day_book import task_minutes
    from nullah.core.work.order_of_work import derive, order_of_work
    from nullah.core.work.seasons import season_of
    from nullah.demo.seed_cabinet import seed_cabinet

    choices = (("rows", "8"), ("columns", "2"), ("drawers", "all"), ("heights", "stepped"))
    project = Project(piece=Piece("case", "large", choices))
    large = work_out(project, milling=False, proving=False)
    cabinet = work_out(seed_cabinet(), milling=False, proving=False)
    derive(cabinet)  # that modules are loaded
    joint = next(joint.id for joint in large.assembly.joints if joint.hold is Hold.GLUE)

    def after(change: Callable[[Project], Project]) -> float:
        """Return how long the order takes after a change, with fasteners chosen anew, ms."""
        changed = work_out(change(project), milling=False, proving=False)
        return 1000 * seconds(lambda: derive(changed))

    bare = statistics.median(whole_process(BARE) for _ in range(5))
    scale = 0.17 / bare
    print(f"a bare window takes {bare:.2f} s; times of the order are scaled to one of 0.17 s")
    nothing = sorted(1000 * scale * from_nothing(lambda: derive(large)) for _ in range(5))
    tasks = order_of_work(large).tasks
    told(f"order of {len(tasks)} tasks, {len(large.parts)} parts, from nothing", nothing, 300)
    ways = (Hold.DRY.value, Hold.GLUE.value) * 4
    one = sorted(scale * after(lambda project, way=way: hold(project, joint, way)) for way in ways)
    told("order after one joint is held otherwise", one, 50)
    depths = [mm(f"8.{number}") for number in range(1, 8)]
    figure = sorted(scale * after(lambda project, depth=depth: give(project, "back.rabbet", depth)) for depth in depths)
    told("order after a figure of the back's rabbets", figure, 50)
    minutes = {task.id: task_minutes(large, task) for task in tasks}
    begin = datetime(2026, 1, 5, 18)
    told(f"days of {len(tasks)} tasks planned", timed(lambda: plan_days(tasks, minutes, Hours(), begin), 5), 2000)
    told("season of the cabinet", timed(lambda: season_of(replace(cabinet, ledger=replace(cabinet.ledger))), 9), 50)


def turning() -> None:
    """A frame of the sample piece while it turns, and the fine picture that follows beside the window."""
    from nullah.core.piece.render import Look, Viewpoint, offsets_of, picture, scene
    from nullah.core.plan import work_out
    from nullah.demo.seed_cabinet import seed_cabinet

    plan = work_out(seed_cabinet(), milling=False)
    shown = scene(plan.parts, plan.proof.recipes, offsets_of(plan.parts, plan.proof.order, 0.4))
    tones, look = [(0.8, 0.6, 0.5)] * len(plan.parts), Look((1, 1, 1), (0, 0, 0), (0, 0, 1))
    turns = iter(range(100))

    def frame(wide: int, high: int) -> None:
        picture(shown, Viewpoint(next(turns) * 7.0, 24), (wide, high), 0.4 * wide / shown.reach, tones, look)

    told("a frame while it turns", timed(lambda: frame(396, 233), 25), 40)
    told("the fine picture, beside the window", timed(lambda: frame(1584, 932), 5), 1000)


if __name__ == "__main__":
    start_up()
    commands()
    slab()
    milling()
    hands()
    proof()
    carried_out()
    turning()
    work()
    # Rooms of their own; they take `timed` and `told` from here.
    from desk import desk
    from files import files

    files()
    desk()
