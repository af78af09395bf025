"""Pictures of every main view, from the sample piece, without a screen."""

from __future__ import annotations

import tempfile
from pathlib import Path

from nullah.core.lengths import Unit
from nullah.core.plan import work_out
from nullah.core.sheets.sheets import all_sheets
from nullah.core.stations import STATIONS
from nullah.core.stations.station import Hand
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.start import application, make_window
from nullah.paper.files import write_png
from nullah.paper.palette import NIGHT

_IN_HAND = {
    "piece": Hand(part="bottom", quantity="bottom.clearance"),
    "rack": Hand(part="front", board="1"),
    "breakdown": Hand(part="back"),
    "milling": Hand(part="front"),
    "joints": Hand(part="front"),
    "season": Hand(part="bottom"),
    "daybook": Hand(part="bottom"),
}


def write_shots(folder: Path, width: int = 1280, height: int = 800) -> list[Path]:
    """Write a PNG of each station by day, of two by night and in inches, and of a printed sheet.

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
        window.document.numbers_ready()
        window.resize(width, height)
        window.show()

        def shoot(name: str) -> None:
            app.processEvents()
            path = folder / f"{name}.png"
            if not window.grab().save(str(path)):
                raise OSError(f"{path} could not be written")
            written.append(path)

        for number, station in enumerate(STATIONS):
            window.show_station(number)
            window.document.set_hand(_IN_HAND[station.id])
            shoot(f"{number + 1}-{station.id}")
        window.set_theme(NIGHT)
        window.show_unit(Unit.INCH)
        for number, name in ((2, "breakdown"), (4, "joints")):
            window.show_station(number)
            window.document.set_hand(_IN_HAND[name])
            shoot(f"night-{name}")
        window.document.replace_project(seed_cabinet(), None)
        window.close()
    template = next(sheet for sheet in all_sheets(work_out(seed_cabinet())) if sheet.name == "corner-template")
    written.append(folder / "paper-corner-template.png")
    write_png(template, written[-1])
    return written
