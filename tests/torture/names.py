"""Hostile names through everything that is written: no output is broken by them, or carries them out."""

import csv
import json
import xml.etree.ElementTree as ET
from dataclasses import replace
from datetime import datetime

import ezdxf
import icalendar
import ics
import pypdfium2
import trimesh
from tests.torture.reports import HungError, Report, within

from nullah.core import actions
from nullah.core.forms.own_boards import OwnBoard
from nullah.core.lengths import mm
from nullah.core.plan import work_out
from nullah.core.work.cut_list import cut_list
from nullah.core.work.day_book import standing
from nullah.demo.built import BEGIN
from nullah.demo.seed_box import seed_box
from nullah.desk.application import application
from nullah.desk.bundle import write_bundle
from nullah.files.calendar import write_calendar
from nullah.files.project_file import parse_project, project_text, read_project, write_project
from nullah.files.rack_tables import flaws_beside, flaws_text, rack_text, read_rack
from nullah.files.solids import write_solids
from nullah.files.tables import cut_list_text

NAMES = (
    "=cmd|' /C calc'!A0", "+1+1", "-2+3", "@SUM(A1)", "\t=1+1", "\r=1+1", "'=1+1", "＝1+1", "<b>x</b>",
    "<script>alert(1)</script>", "a & b < c > d \" '", "]]>", "<!-- -->", "&amp;", "a\nb", "a\r\nb", "\x00",
    "\x1b[31mred", "\x07", "\x7f", "\u202egnirts", "\ufeffname", "\u200b", "\ud800", "\U0010ffff", "e\u0301",
    "ﷺ" * 20, "日本語の箱", "коробка", "😀📦", "../../etc/passwd", "/absolute", "C:\\box", "con", "a;b,c\td",
    "a\\nb;c\\,d", "BEGIN:VEVENT", "END:VCALENDAR\r\nBEGIN:VEVENT", "%s%n%d", "{0}{x}", "$(rm -rf /)", "`id`",
    "⟦12⟧", "⟦1/0⟧", "x" * 200, "ü" * 200, " ", "", ".", "..", "-", "“quoted”", "a b", "front", "left",
)  # fmt: skip


def hostile(name):
    """Return a piece with that name on everything that has one, as it comes through the file."""
    project = seed_box()
    data = json.loads(project_text(project))
    data["piece"]["name"] = name
    for number, board in enumerate(data["boards"]):
        board.update(name=name, colour=name, source=name)
        if number == 0:
            board["species"] = name
    data["book"] = [
        {
            "at": "2026-11-26T18:47",
            "event": "note",
            "title": name,
            "task": name,
            "text": name,
            "file": name,
            "parts": [name],
        }
    ]
    project = parse_project(json.dumps(data), "hostile.nullah")
    own = OwnBoard("own1", name, (mm(300), mm(100), mm(20)), (mm(0), mm(-300), mm(0)))
    return parse_project(project_text(actions.add_own(project, own)), "hostile.nullah")


def hostile_names(folder, number=None):
    report = Report("hostile names")
    application()
    for name in NAMES[:number]:
        report.tried += 1
        place = folder / str(report.tried)
        place.mkdir()
        try:
            with within(60):
                try_name(report, name, place)
        except HungError:
            report.fail(f"{name[:20]!r}: hung")
        except Exception as error:
            report.fail(f"{name[:20]!r}: {type(error).__name__} {str(error)[:80]}")
    return report


def try_name(report, name, place):
    project = hostile(name)
    plan = work_out(project)
    write_project(project, place / "a.nullah")
    if project_text(read_project(place / "a.nullah")) != project_text(project):
        report.fail(f"{name[:20]!r}: comes back otherwise")
    for written in write_bundle(project, place / "out"):
        check_file(report, name, written.path, place / "out")
    rack = place / "rack.csv"
    boards = tuple(replace(each, id=str(n), name=f"{each.name[:190]} {n}") for n, each in enumerate(project.boards))
    rack.write_text(rack_text(boards), encoding="utf-8")
    flaws_beside(rack).write_text(flaws_text(boards), encoding="utf-8")
    came = read_rack(rack)
    if [board.name for board in came] != [board.name.strip() for board in boards]:
        report.fail(f"{name[:20]!r}: boards come back otherwise from their table")
    for text in (rack.read_text(encoding="utf-8"), cut_list_text(cut_list(plan), plan.marks)):
        check_cells(report, name, text)
    write_calendar(place / "a.ics", project.piece.name, stints(plan), datetime(2026, 11, 27), plan.reader)
    text = (place / "a.ics").read_bytes().decode()
    events = icalendar.Calendar.from_ical(text).walk("VEVENT")
    if len(events) != text.split("\r\n").count("BEGIN:VEVENT") or len(ics.Calendar(text).events) != len(events):
        report.fail(f"{name[:20]!r}: breaks the calendar")
    write_solids(plan, place / "a.glb")
    if len(trimesh.load(place / "a.glb").geometry) != len(plan.parts):
        report.fail(f"{name[:20]!r}: parts are missing from the solids")
    report.count("outputs", 6)


def stints(plan):
    calendar = standing(plan, BEGIN).calendar
    return calendar.stints if calendar is not None else ()


def check_file(report, name, path, folder):
    report.count("files")
    if path.resolve().parent != folder.resolve():
        report.fail(f"{name[:20]!r}: written outside its folder")
    match path.suffix:
        case ".svg":
            ET.parse(path)
        case ".pdf":
            if not len(pypdfium2.PdfDocument(path)):
                report.fail(f"{name[:20]!r}: an empty PDF")
        case ".dxf":
            if ezdxf.readfile(path).audit().errors:
                report.fail(f"{name[:20]!r}: a DXF with errors")
        case ".csv":
            check_cells(report, name, path.read_text(encoding="utf-8"))


def check_cells(report, name, text):
    """No cell is one that a spreadsheet carries out; figures may begin with a sign."""
    for row in csv.reader(text.splitlines()):
        for cell in row:
            if cell[:1] in ("=", "+", "@", "\t", "\r") or (cell[:1] == "-" and not cell[1:2].isdigit() and cell != "-"):
                report.fail(f"{name[:20]!r}: the cell {cell[:20]!r} is a formula")
