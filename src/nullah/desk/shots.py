"""Pictures of every main view, from the sample pieces, without a screen."""

from __future__ import annotations

import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from PySide6.QtCore import QRectF

from nullah.core import actions
from nullah.core.lengths import Unit, mm
from nullah.core.named_tuple import NamedTuple
from nullah.core.plan import work_out
from nullah.core.project import Project
from nullah.core.sheets.sheets import all_sheets
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import DayBookSelection, MillingSelection, MillingView, Selection
from nullah.demo.built import BEGIN
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.application import application
from nullah.desk.sighting import SightingPage
from nullah.desk.start import make_window
from nullah.desk.stations.breakdown import BreakdownDesk
from nullah.desk.stations.daybook import DaybookDesk
from nullah.desk.stations.group import ViewChoices
from nullah.desk.stations.milling import MillingDesk
from nullah.desk.stations.piece import PieceDesk
from nullah.desk.window import Window
from nullah.paper.files import write_image, write_png
from nullah.paper.painted_text import PaintedText, painted_texts
from nullah.paper.palette import DAY, NIGHT

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


class Shot(NamedTuple):
    """A picture that was written, with the words on the bench of its view; sheets have none."""

    path: Path
    size: tuple[int, int]
    texts: tuple[PaintedText, ...] = ()


def write_shots(
    folder: Path, size: tuple[int, int] = (1280, 800), unit: Unit | None = None, project: Project | None = None
) -> list[Shot]:
    """Write a PNG of each view, by day, and of the samples two by night and of printed sheets.

    Parameters
    ----------
    folder : Path
    size : (width, height)
        Of the window, pixels.
    unit : Unit, optional
        In which figures are shown; without one as the project has it.
    project : Project, optional
        Whose views are shown; without one those of the samples.

    Raises
    ------
    OSError
        If the folder or a file cannot be written.
    """
    app = application()
    folder.mkdir(parents=True, exist_ok=True)
    written: list[Shot] = []
    with tempfile.TemporaryDirectory() as root:
        window = make_window(project or seed_cabinet(), Path(root), patient=True)
        window.setMinimumSize(0, 0)
        window.resize(*size)
        window.show()
        if unit is not None:
            window.show_unit(unit)

        def shoot(name: str) -> None:
            if unit is not None and window.document.project.marks.unit is not unit:
                window.show_unit(unit)
            desk = window.desk(window.station)
            if isinstance(desk, PieceDesk):
                desk.draw_now()
            for _ in range(3):  # what stands within other things settles one after the other
                app.processEvents()
            path = folder / f"{name}.png"
            write_image(window.grab().toImage(), path)
            bench = window.place
            written.append(Shot(path, (bench.width(), bench.height()), tuple(painted_texts(bench))))

        diary = window.desk(len(STATIONS) - 1)
        assert isinstance(diary, DaybookDesk)
        diary.clock = lambda: BEGIN
        if project is not None:
            for name in _views_of(window):
                shoot(name)
            window.close()
            return written
        for number, station in enumerate(STATIONS):
            window.show_station(number)
            window.document.select(_IN_HAND[station.id])
            shoot(f"{number + 1}-{station.id}")
        for name in _looks(window):
            shoot(name)
        for name in _milling(window, Path(root)):
            shoot(name)
        window.document.replace_project(seed_cabinet(), None)
        window.appearance.set_theme(NIGHT)
        unit = Unit.INCH if unit is None else unit
        window.show_station(4)
        window.document.select(Selection(part="divider21"))
        shoot("night-joints")
        window.appearance.set_theme(DAY)
        window.document.replace_project(seed_cabinet(), None)
        window.show_start()
        window.over.start.paint_now()
        shoot("0-start")
        window.close()
    sheets = {sheet.name: sheet for sheet in all_sheets(work_out(seed_cabinet()))}
    for name, target in _PAPERS:
        written.append(Shot(folder / f"{target}.png", (0, 0)))
        write_png(sheets[name], written[-1].path)
    return written


def labels_of(shots: list[Shot]) -> dict[str, Any]:
    """Return the words on the bench of every view, with their boxes in pixels of the bench, as data."""
    return {
        "views": [
            {
                "name": shot.path.stem,
                "size": list(shot.size),
                "labels": [
                    {
                        "text": text.text,
                        "box": _sides(text.box),
                        "turned": round(text.turned, 1),
                        "cut_off": text.cut_off,
                    }
                    for text in shot.texts
                ],
            }
            for shot in shots
            if shot.size != (0, 0)
        ]
    }


def _sides(box: QRectF) -> list[float]:
    return [round(each, 2) for each in (box.x(), box.y(), box.width(), box.height())]


def _views_of(window: Window) -> Iterator[str]:
    """Go through every view of whatever project is open; gives the name of each when it stands there."""
    parts = window.document.plan.parts
    board = next((each.board.id for each in window.document.plan.boards if each.placed), "")
    for number, station in enumerate(STATIONS):
        window.show_station(number)
        window.document.select(Selection(part=parts[0].id if parts else "", board=board))
        name = f"{number + 1}-{station.id}"
        yield name
        for tab in window.desk(number).line.tabs()[1:]:
            if tab.isEnabled():
                tab.click()
                yield f"{name}-{tab.text().lower().replace(' ', '-')}"
        for tab in window.desk(number).line.tabs()[:1]:
            tab.click()


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
    desk.sighting = SightingPage(ViewChoices(desk), root / "practice.json", 12)
    desk.show_look(MillingView.STICKS)
    desk.sighting.rise.setText("4")
    desk.sighting.answer()
    yield "4-milling-sticks"


def _broken(project: Project) -> Project:
    """Spoil a few figures, to show what the proof says of it."""
    return actions.give_all(project, {"back.rabbet_width": mm(6), "divider.notch": mm(4), "dado.depth": mm(13)})
