"""Pictures of every main view, from the sample pieces, without a screen."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from pathlib import Path

from nullah.core import actions
from nullah.core.breakdown.search import search_task
from nullah.core.laying import reached, take_layout, task_of
from nullah.core.lengths import Unit, mm
from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.sheets.sheets import all_sheets
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import DayBookSelection, MillingSelection, MillingView, Selection
from nullah.demo.built import BEGIN
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_cabinet import seed_cabinet, short_of_wood
from nullah.desk.sighting import SightingPage
from nullah.desk.start import application, make_window
from nullah.desk.stations.breakdown import BreakdownDesk
from nullah.desk.stations.daybook import DaybookDesk
from nullah.desk.stations.milling import MillingDesk
from nullah.desk.stations.piece import PieceDesk
from nullah.desk.window import Window
from nullah.paper.files import write_image, write_png
from nullah.paper.palette import NIGHT

_IN_HAND = {
    "piece": Selection(part="divider21", quantity="row2.height"),
    "rack": Selection(part="left", board="4"),
    "breakdown": Selection(part="drawer21_front"),
    "milling": Selection(part="drawer21_front"),
    "joints": Selection(part="left"),
    "season": Selection(part="drawer41_front"),
    "daybook": Selection(daybook=DayBookSelection("joint/left-divider11/4")),
}
_PAPERS = (("corner-template-page1", "paper-corner-template"),)


def write_shots(folder: Path, width: int = 1280, height: int = 800) -> list[Path]:
    """Write a PNG of each view by day, of two by night and in inches, and of printed sheets.

    Raises
    ------
    OSError
        If the folder or a file cannot be written.
    """
    app = application()
    folder.mkdir(parents=True, exist_ok=True)
    written: list[Path] = []
    with tempfile.TemporaryDirectory() as root:
        window = make_window(seed_cabinet(), Path(root))
        window.document.numbers_ready(patient=True)
        window.resize(width, height)
        window.show()

        def shoot(name: str) -> None:
            for _ in range(3):  # rows within rows settle one after the other
                app.processEvents()
            path = folder / f"{name}.png"
            write_image(window.grab().toImage(), path)
            written.append(path)

        diary = window.desk(len(STATIONS) - 1)
        assert isinstance(diary, DaybookDesk)
        diary.clock = lambda: BEGIN
        for number, station in enumerate(STATIONS):
            window.show_station(number)
            window.document.select(_IN_HAND[station.id])
            shoot(f"{number + 1}-{station.id}")
        for name in _looks(window):
            shoot(name)
        for name in _milling(window, Path(root)):
            shoot(name)
        window.document.replace_project(seed_cabinet(), None)
        window.set_theme(NIGHT)
        window.show_unit(Unit.INCH)
        window.show_station(4)
        window.document.select(Selection(part="divider21"))
        shoot("night-joints")
        window.document.replace_project(seed_cabinet(), None)
        window.close()
    sheets = {sheet.name: sheet for sheet in all_sheets(work_out(seed_cabinet()))}
    for name, target in _PAPERS:
        written.append(folder / f"{target}.png")
        write_png(sheets[name], written[-1])
    return written


def _looks(window: Window) -> Iterator[str]:
    """Go through the other ways of looking at a piece; gives the name of each when it stands there."""
    window.show_station(0)
    desk = window.desk(0)
    assert isinstance(desk, PieceDesk)
    desk.open_up(45)
    yield "1-piece-turned"
    desk.show_look("list")
    yield "1-piece-cut-list"
    desk.show_look("views")
    window.document.replace_project(_broken(seed_cabinet()), None)
    yield "1-piece-broken"
    yield from _sawing(window)
    window.show_station(0)
    window.document.replace_project(plant_stair(), None)
    window.document.pick_part("own1")
    desk.own.shape.setChecked(True)
    yield "1-piece-own"
    desk.own.shape.setChecked(False)


def _sawing(window: Window) -> Iterator[str]:
    """Go through the other ways of looking at the breakdown."""
    window.document.replace_project(seed_cabinet(), None)
    window.show_station(2)
    desk = window.desk(2)
    assert isinstance(desk, BreakdownDesk)
    window.document.select(Selection(board="6"))
    desk.show_order(True)
    for _ in range(5):
        desk.step(1)
    yield "3-breakdown-saw-order"
    desk.show_order(False)
    window.document.replace_project(short_of_wood(), None)
    found = list(search_task(reached(task_of(window.document.plan)), 600))[-1]
    window.document.do("lay the parts out", lambda project: take_layout(project, found.placements))
    window.document.pick_part("top")
    yield "3-breakdown-short"


def _milling(window: Window, root: Path) -> Iterator[str]:
    """Go through the other ways of looking at the milling."""
    window.document.replace_project(seed_cabinet(), None)
    window.show_station(3)
    desk = window.desk(3)
    assert isinstance(desk, MillingDesk)
    window.document.select(Selection(part="left", board="1", milling=MillingSelection(MillingView.SURVEY)))
    yield "4-milling-survey"
    window.document.select(Selection(part="left", board="1", milling=MillingSelection(MillingView.STROKES, step=1)))
    yield "4-milling-strokes"
    desk.show_look(MillingView.PLANING)
    assert desk.planing is not None
    desk.planing.play_out(520)
    desk.planing.lay_edge((710.0, 0.0), (710.0, 252.0))
    yield "4-milling-planing"
    # An exercise of one's own, so that the picture is the same whoever has practised here.
    desk.sighting = SightingPage(root / "practice.json", 12)
    desk.show_look(MillingView.STICKS)
    desk.sighting.rise.setText("4")
    desk.sighting.answer()
    yield "4-milling-sticks"


def _broken(project: Project) -> Project:
    """Spoil a few figures, to show what the proof says of it."""
    return actions.give_all(project, {"back.rabbet_width": mm(6), "divider.notch": mm(4), "dado.depth": mm(13)})
