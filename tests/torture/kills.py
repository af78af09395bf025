"""Kills: inside saves, and of the whole desk while somebody works at it."""

import os
import random
import signal
import subprocess
import sys
import tempfile
import time
from pathlib import Path

from tests.torture.reports import Report

from nullah.core import actions
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.files.errors import ProjectFileError
from nullah.files.project_file import read_project, write_project
from nullah.files.recovery import Autosave
from nullah.files.versions import versions_of

#: A killed desk may lose what was done in this time before, in seconds.
MAY_LOSE = 1.5


def kills_in_saves(number, folder, seed=3):
    """Kill a process that saves again and again; each time the file and its versions must be whole and in order."""
    report, chance = Report("kills inside saves"), random.Random(seed)
    path = folder / "saved.nullah"
    projects = [seed_box(), seed_cabinet()]
    counter = 0
    write_project(actions.rename(projects[0], "0"), path)
    for _ in range(number):
        counter = kill_one(report, path, projects, counter, chance)
    return report


def kill_one(report, path, projects, counter, chance):
    reading, telling = os.pipe()
    child = os.fork()
    if child == 0:
        # Saves under names that count up, until it is killed; each is told when it is begun.
        os.close(reading)
        number = counter
        while True:
            number += 1
            os.write(telling, f"{number}\n".encode())
            write_project(actions.rename(projects[number % 2], str(number)), path)
    os.close(telling)
    time.sleep(chance.uniform(0.0, 0.03))
    os.kill(child, signal.SIGKILL)
    os.waitpid(child, 0)
    with os.fdopen(reading) as stream:
        begun = int((stream.read().splitlines() or [str(counter)])[-1])
    report.tried += 1
    try:
        now = int(read_project(path).piece.name)
        versions = [int(read_project(each.path).piece.name) for each in versions_of(path)]
    except ProjectFileError as error:
        report.fail(f"broken: {str(error)[:60]}")
        return begun
    if now not in (begun, begun - 1) and now != counter:
        report.fail("lost: an older state stands there than was saved")
    if versions != list(range(now - 1, now - 1 - len(versions), -1)):
        report.fail(f"versions out of order: {[each - now for each in versions]}")
    report.count("killed before the new file stood" if now != begun else "killed after it stood")
    left = [each.name for each in path.parent.iterdir() if each.name.endswith(".part")]
    report.count("left a part behind until the next save", len(left))
    # The next save takes up whatever the kill left.
    from nullah import writing

    writing._swept.clear()
    write_project(actions.rename(projects[0], str(now + 1)), path)
    if [each.name for each in path.parent.iterdir() if each.name.endswith((".part", ".0"))]:
        report.fail("left behind after the next save")
    return now + 1


#: A desk at which somebody works: each step is told with its time when it is done.
AT_WORK = """
import sys, time
from pathlib import Path
from PySide6.QtCore import QTimer
from nullah.core import actions
from nullah.demo.seed_box import seed_box
from nullah.desk.shutdown import ShutdownWatch
from nullah.desk.application import application
from nullah.desk.start import make_window
app = application()
window = make_window(seed_box(), Path(sys.argv[1]))
ending = ShutdownWatch(window.document.keep)
window.show()
steps = 0
def step():
    global steps
    steps += 1
    window.document.do("name", lambda p: actions.rename(p, str(steps)))
    print(steps, time.time(), flush=True)
timer = QTimer()
timer.timeout.connect(step)
timer.start(int(sys.argv[2]))
app.aboutToQuit.connect(timer.stop)
sys.exit(app.exec())
"""

ENDS = (signal.SIGKILL, signal.SIGKILL, signal.SIGTERM, signal.SIGINT, signal.SIGHUP)


def kills_of_desks(number, folder, seed=4, at_once=2, may_lose=MAY_LOSE):
    """Kill desks at work, by all signals; what was done must be kept, all of it where the signal can be heard."""
    report, chance = Report("kills of the desk"), random.Random(seed)
    running = []
    begun = 0
    while begun < number or running:
        while begun < number and len(running) < at_once:
            begun += 1
            running.append(start_desk(folder, chance))
        desk = running.pop(0)
        end_desk(report, desk, may_lose)
    return report


def start_desk(folder, chance):
    root = Path(tempfile.mkdtemp(dir=folder))
    words = [sys.executable, "-c", AT_WORK, str(root), str(chance.choice((5, 40, 150, 300)))]
    told = (root / "told.txt").open("w")
    process = subprocess.Popen(
        words, stdout=told, stderr=subprocess.PIPE, env={**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    )
    return process, root, chance.choice(ENDS), chance.uniform(0.3, 4.0)


def end_desk(report, desk, may_lose):
    process, root, how, after = desk
    told = root / "told.txt"
    deadline = time.monotonic() + 60
    while not told.read_text() and time.monotonic() < deadline and process.poll() is None:
        time.sleep(0.02)
    time.sleep(after)
    killed_at = time.time()
    process.send_signal(how)
    try:
        process.wait(timeout=20)
    except subprocess.TimeoutExpired:
        process.kill()
        process.wait()
        report.fail(f"hung after {how.name}")
    report.tried += 1
    report.count(how.name)
    errors = process.stderr.read().decode()
    process.stderr.close()
    if "Traceback" in errors:
        report.fail(f"an error: {errors.strip().splitlines()[-1][:80]}")
    lines = [line.split() for line in told.read_text().splitlines() if line.count(" ") == 1]
    if not lines:
        report.fail(f"never began to work: {errors[-200:]}")
        return
    must = [int(step) for step, at in lines if how is not signal.SIGKILL or float(at) < killed_at - may_lose]
    try:
        kept = [int(each.read().piece.name) for each in Autosave(root).kept()]
    except ProjectFileError as error:
        report.fail(f"broken: {str(error)[:60]}")
        return
    if must and (not kept or kept[0] < max(must)):
        lost = max(must) - (kept[0] if kept else 0)
        report.fail(f"lost {lost} steps of more than {may_lose} s ago" if how is signal.SIGKILL else "lost the last")
