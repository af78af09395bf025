"""Disks that are full or fail: everything the program writes, onto a small disk, and with calls refused."""

import contextlib
import itertools
import os
import subprocess
from datetime import datetime

from tests.torture.reports import Report

from nullah.core.lengths import Marks
from nullah.core.plan import work_out
from nullah.core.reader import Reader
from nullah.core.sheets.sheets import all_sheets
from nullah.core.work.cut_list import cut_list
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.application import application
from nullah.files.calendar import CalendarError, write_calendar
from nullah.files.errors import ProjectFileError
from nullah.files.practice import write_practice
from nullah.files.project_file import write_project
from nullah.files.rack_tables import rack_text
from nullah.files.recovery import Autosave
from nullah.files.solids import SolidsError, write_solids
from nullah.files.tables import cut_list_text
from nullah.paper.files import PaperError, write_pdf, write_png, write_svg
from nullah.writing import write_file

REFUSALS = (OSError, PaperError, SolidsError, ProjectFileError, CalendarError)


def writers():
    """Return what writes each kind of file, by its name: called with a path, it raises or returns a sentence."""
    application()
    box, cabinet = work_out(seed_box()), work_out(seed_cabinet())
    sheets = list(all_sheets(box))

    def kept(path):
        desk = Autosave(path.parent / "unsaved")
        sentence = desk.keep(seed_cabinet(), path)
        desk.leave()
        if sentence:
            raise OSError(28, sentence)

    def practised(path):
        sentence = write_practice(path, ())
        if sentence:
            raise OSError(28, sentence)

    return {
        "project": lambda path: write_project(seed_cabinet(), path),
        "table": lambda path: write_file(path, rack_text(seed_cabinet().boards)),
        "cut list": lambda path: write_file(path, cut_list_text(cut_list(cabinet), Marks())),
        "pdf": lambda path: write_pdf(sheets, path),
        "svg": lambda path: write_svg(sheets[0], path),
        "png": lambda path: write_png(sheets[0], path),
        "solids.stl": lambda path: write_solids(box, path.with_suffix(".stl")),
        "solids.glb": lambda path: write_solids(box, path.with_suffix(".glb")),
        "calendar": lambda path: write_calendar(path, "box", (), datetime(2026, 11, 27), Reader()),
        "practice": practised,
        "kept work": kept,
    }


def state(folder):
    return {path.relative_to(folder): path.read_bytes() for path in folder.rglob("*") if path.is_file()}


@contextlib.contextmanager
def small_disk(folder, kilobytes):
    """Yield a disk of so many kilobytes; None where one may not be mounted."""
    folder.mkdir(parents=True, exist_ok=True)
    made = subprocess.run(["mount", "-t", "tmpfs", "-o", f"size={kilobytes}k", "tmpfs", str(folder)], check=False)
    try:
        yield folder if made.returncode == 0 else None
    finally:
        if made.returncode == 0:
            subprocess.run(["umount", str(folder)], check=False)


def full_disks(folder):
    """Write everything onto a disk that is filled up to ever less room."""
    report = Report("full disks")
    for (name, write), room in itertools.product(writers().items(), (0, 4, 16, 60, 200)):
        with small_disk(folder / "disk", 4000) as disk:
            if disk is None:
                report.count("no small disk may be mounted here")
                return report
            path = disk / name.replace(" ", "-")
            with contextlib.suppress(*REFUSALS):
                write(path)  # an older file, where there is room
            (disk / "filling").write_bytes(b"")
            fill(disk / "filling", room)
            attempt(report, f"{name}, {room} kB free", disk, lambda w=write, p=path: w(p))
    return report


def fill(path, leave):
    with path.open("wb", buffering=0) as stream, contextlib.suppress(OSError):
        while True:
            stream.write(b"x" * 4096)
    found = os.statvfs(path)
    with path.open("r+b") as stream:
        stream.truncate(max(0, path.stat().st_size - max(0, leave * 1024 - found.f_bavail * found.f_frsize)))


def attempt(report, what, folder, write):
    """Write, and say what is wrong: an older file changed, something left behind, an error that is no refusal."""
    before = state(folder)
    report.tried += 1
    try:
        write()
    except REFUSALS as error:
        report.count("refused")
        if not str(error):
            report.fail(f"{what}: refused without a word")
        after = state(folder)
        if {k: v for k, v in after.items() if k in before} != before:
            report.fail(f"{what}: an older file is not as it was")
        if left := [str(path) for path in set(after) - set(before) if "unsaved" not in str(path)]:
            report.fail(f"{what}: left behind {left}")
    except Exception as error:
        report.fail(f"{what}: {type(error).__name__} {error}")
    else:
        report.count("written")
        if any(path.name.endswith(".part") for path in folder.rglob("*")):
            report.fail(f"{what}: a part was left behind")


CALLS = ("open", "write", "fsync", "fchmod", "link", "replace", "close", "stat", "mkdir", "listxattr")


def refused_calls(folder):
    """Refuse each call with which anything is written, one after the other, for each kind of file."""
    report = Report("refused system calls")
    for (name, write), call, number in itertools.product(writers().items(), CALLS, (5, 13, 28)):
        place = folder / f"{name}-{call}-{number}".replace(" ", "-")
        place.mkdir()
        path = place / name.replace(" ", "-")
        write(path)
        for which in range(1, 7):
            real, seen = getattr(os, call), [0]

            def refusing(*arguments, real=real, seen=seen, which=which, number=number, call=call, **named):
                seen[0] += 1
                if seen[0] == which:
                    if call == "close":
                        real(*arguments, **named)
                    raise OSError(number, os.strerror(number))
                return real(*arguments, **named)

            before = sizes(place)
            report.tried += 1
            setattr(os, call, refusing)
            try:
                write(path)
                said = "written all the same"
            except REFUSALS:
                said = "refused"
            except Exception as error:
                said = f"{name}: {call} refused: {type(error).__name__} {error}"
            finally:
                setattr(os, call, real)
            if said in ("refused", "written all the same"):
                report.count(said)
            else:
                report.fail(said)
            if any(each.endswith(".part") for each in sizes(place)):
                report.fail(f"{name}: {call} refused: a part was left behind")
            if any(not sizes(place).get(each) for each, size in before.items() if size and each[-2:] != ".0"):
                report.fail(f"{name}: {call} refused: an older file is gone or empty")
            if seen[0] < which:
                break
    return report


def sizes(folder):
    # What a save under way calls ``.NAME.0`` the next one numbers anew.
    return {path.name: path.stat().st_size for path in folder.iterdir() if path.is_file()}
