"""The command line: the same core in a terminal, for scripts and for checking."""

from __future__ import annotations

import argparse
import json
import os
import sys
import time
from collections.abc import Sequence
from pathlib import Path
from typing import Any, NoReturn

from nullah.core.lengths import Length, LengthError, Marks, read_length, read_slope

_STARTED = time.monotonic()
_COMMANDS = ("demo", "sheets", "solids", "shots", "breakdown", "slab", "dovetail", "move", "emc")


class _RefusedError(Exception):
    """Bad input: the message is the one sentence to print."""


class _Parser(argparse.ArgumentParser):
    def error(self, message: str) -> NoReturn:
        raise _RefusedError(f"{message[:1].upper()}{message[1:]}." if not message.endswith(".") else message)


def main(arguments: Sequence[str] | None = None) -> int:
    """Run the command line; gives the exit status."""
    words = list(sys.argv[1:] if arguments is None else arguments)
    try:
        if not words or (words[0] not in _COMMANDS and not words[0].startswith("-")):
            return _open_desk(words)
        options = _parser().parse_args(words)
        answer: int = options.run(options)
        return answer
    except _RefusedError as refused:
        print(f"nullah: {refused}", file=sys.stderr)
        return 2
    except BrokenPipeError:
        return 0


def _open_desk(words: list[str], demo: bool = False) -> int:
    from nullah.desk.start import open_desk

    if not _has_screen():
        raise _RefusedError(
            "There is no screen to open the desk on (neither DISPLAY nor WAYLAND_DISPLAY is set). "
            "“nullah sheets” and “nullah shots” need none."
        )
    if len(words) > 1:
        raise _RefusedError(f"One project at a time: {', '.join(words)} are {len(words)}.")
    return open_desk(Path(words[0]) if words else None, demo)


def _has_screen() -> bool:
    return not sys.platform.startswith("linux") or any(
        os.environ.get(name) for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM")
    )


def _parser() -> _Parser:
    parser = _Parser(
        prog="nullah", description="A desk for the hand-tool woodworker. Without a command: open the desk."
    )
    commands = parser.add_subparsers(dest="command", required=True, parser_class=_Parser)

    def command(name: str, run: Any, text: str) -> argparse.ArgumentParser:
        made = commands.add_parser(name, help=text, description=text)
        made.set_defaults(run=run)
        return made

    command("demo", lambda _: _open_desk([], demo=True), "open the desk on the sample piece")

    sheets = command("sheets", _sheets, "write every sheet and list of a project")
    sheets.add_argument("file", type=Path)
    sheets.add_argument("--out", type=Path, required=True)

    solids = command("solids", _solids, "write the solids of a project as STL or glTF")
    solids.add_argument("file", type=Path)
    solids.add_argument("--out", type=Path, required=True)

    shots = command("shots", _shots, "write a PNG of each main view from the sample piece")
    shots.add_argument("dir", type=Path)

    breakdown = command("breakdown", _breakdown, "lay rough parts on boards")
    breakdown.add_argument("--boards", type=Path, required=True)
    breakdown.add_argument("--parts", type=Path, required=True)
    breakdown.add_argument("--flaws", type=Path)
    breakdown.add_argument("--kerf", default="2mm")
    breakdown.add_argument("--seconds", default="10")
    breakdown.add_argument("--json", required=True)

    slab = command("slab", _slab, "find the thickest flat slab inside a surveyed board")
    slab.add_argument("surfaces", type=Path)
    slab.add_argument("--json", required=True)

    dovetail = command("dovetail", _dovetail, "lay out a dovetailed corner")
    for name in ("width", "tail-thickness", "pin-thickness", "tails", "half-pin", "pin", "slope"):
        dovetail.add_argument(f"--{name}", required=True)
    dovetail.add_argument("--proud", default="0mm")
    dovetail.add_argument("--json", required=True)

    move = command("move", _move, "work out the movement of a width across the grain")
    move.add_argument("--species", required=True)
    move.add_argument("--cut", required=True)
    move.add_argument("--width", required=True)
    move.add_argument("--from", dest="moisture_from", required=True)
    move.add_argument("--to", dest="moisture_to", required=True)
    move.add_argument("--json", required=True)

    emc = command("emc", _emc, "give the moisture content at which wood settles")
    emc.add_argument("--temperature", required=True)
    emc.add_argument("--humidity", required=True)
    emc.add_argument("--json", required=True)
    return parser


# --- reading options ------------------------------------------------------------------------------


def _length(text: str, option: str, least: int | None = 1) -> Length:
    """Read a length; `least` 1 asks for more than nothing, 0 for nothing or more, None for anything."""
    try:
        length = read_length(text)
    except LengthError as error:
        raise _RefusedError(f"--{option}: {error}") from error
    if least is not None and (length.mm < 0 or (least and length.mm == 0)):
        raise _RefusedError(
            f"--{option}: {text} cannot be; it must be {'more than nothing' if least else '0 or more'}."
        )
    return length


def _number(text: str, option: str) -> float:
    try:
        number = float(text)
    except ValueError:
        number = float("nan")
    if number != number or abs(number) == float("inf"):
        raise _RefusedError(f"--{option}: “{text}” is not a number.")
    return number


def _write_json(target: str, answer: dict[str, Any]) -> int:
    text = json.dumps(answer, indent=1, ensure_ascii=False)
    if target == "-":
        print(text)
        return 0
    try:
        Path(target).write_text(text + "\n", encoding="utf-8")
    except OSError as error:
        raise _RefusedError(f"{target} cannot be written: {error.strerror or error}.") from error
    return 0


# --- the commands ---------------------------------------------------------------------------------


def _emc(options: argparse.Namespace) -> int:
    from nullah.core.wood.moisture import ClimateError, equilibrium_moisture

    temperature, humidity = _number(options.temperature, "temperature"), _number(options.humidity, "humidity")
    try:
        moisture = equilibrium_moisture(temperature, humidity)
    except ClimateError as error:
        raise _RefusedError(str(error)) from error
    return _write_json(options.json, {"emc_percent": moisture})


def _move(options: argparse.Namespace) -> int:
    from nullah.core.wood.movement import Cut, MoistureError, movement
    from nullah.core.wood.species import SpeciesError, find_species

    if options.cut not in [cut.value for cut in Cut]:
        raise _RefusedError(f"--cut: “{options.cut}” is not a cut. Use flat, quarter or rift.")
    width = _length(options.width, "width")
    moisture = [_number(getattr(options, f"moisture_{end}"), end) for end in ("from", "to")]
    try:
        moved = movement(find_species(options.species), Cut(options.cut), width, *moisture)
    except (SpeciesError, MoistureError) as error:
        raise _RefusedError(str(error)) from error
    return _write_json(
        options.json,
        {"change_mm": float(moved.change), "coefficient": moved.coefficient, "source": moved.source},
    )


def _dovetail(options: argparse.Namespace) -> int:
    from nullah.core.joints.dovetail import Dovetail, DovetailError, lay_out, remarks
    from nullah.core.shop import Shop

    try:
        slope = read_slope(options.slope)
    except LengthError as error:
        raise _RefusedError(f"--slope: {error}") from error
    if not options.tails.lstrip("+").isdigit():
        raise _RefusedError(f"--tails: “{options.tails}” is not a number of tails.")
    spec = Dovetail(
        _length(options.width, "width"),
        _length(options.tail_thickness, "tail-thickness"),
        _length(options.pin_thickness, "pin-thickness"),
        int(options.tails),
        _length(options.half_pin, "half-pin", 0),
        _length(options.pin, "pin", 0),
        slope,
        _length(options.proud, "proud", None),
    )
    try:
        layout = lay_out(spec)
    except DovetailError as error:
        raise _RefusedError(str(error)) from error
    return _write_json(
        options.json,
        {
            "step_mm": float(layout.step),
            "tail_mm": float(layout.tail),
            "tail_base_mm": float(layout.tail_base),
            "pin_mm": float(spec.pin),
            "pin_base_mm": float(layout.pin_base),
            "marks_mm": [float(mark) for mark in layout.marks],
            "slope_degrees": slope.degrees,
            "gauge_tail_board_mm": float(layout.gauge_tail_board),
            "gauge_pin_board_mm": float(layout.gauge_pin_board),
            "warnings": [remark.text for remark in remarks(layout, Shop(), Marks())],
        },
    )


def _slab(options: argparse.Namespace) -> int:
    from nullah.core.milling.slab import halves_crosscut, halves_ripped, thickest_slab
    from nullah.core.milling.survey import SurveyError, from_points
    from nullah.files.tables import TableError, read_survey_points

    try:
        survey = from_points(read_survey_points(options.surfaces))
    except (TableError, SurveyError) as error:
        raise _RefusedError(str(error)) from error
    slab = thickest_slab(survey)
    answer: dict[str, Any] = {
        "thickness_mm": slab.thickness,
        "plane": {"a": slab.a, "b": slab.b, "c": slab.c},
        "halves_crosscut_mm": list(halves_crosscut(survey)),
        "halves_ripped_mm": list(halves_ripped(survey)),
    }
    if slab.thickness == 0:
        answer["why"] = "No flat plane lies inside the board anywhere: it is out of true by more than its thickness."
    return _write_json(options.json, answer)


def _breakdown(options: argparse.Namespace) -> int:
    from nullah.core.breakdown.search import BreakdownError, Task
    from nullah.files.rack_tables import read_boards, read_flaws
    from nullah.files.tables import TableError, read_parts

    kerf = _length(options.kerf, "kerf", 0)
    seconds = _number(options.seconds, "seconds")
    if seconds <= 0:
        raise _RefusedError(f"--seconds: {options.seconds} is no time at all.")
    # Leave room for start-up and writing, so that the whole command keeps to the time asked for.
    stop_at = _STARTED + max(0.3, seconds - 0.5)
    try:
        boards = read_boards(options.boards)
        if options.flaws:
            boards = read_flaws(options.flaws, boards)
        parts = read_parts(options.parts)
        if not parts:
            raise _RefusedError("There is nothing to lay out.")
        best = _searched(Task(parts, boards, kerf, Marks()), stop_at)
    except (TableError, BreakdownError) as error:
        raise _RefusedError(str(error)) from error
    return _write_json(options.json, _breakdown_answer(best, parts, boards, kerf))


def _searched(task: Any, stop_at: float) -> Any:
    """Search here and, where there is time and another core for it, beside."""
    from nullah.aside import SearchAside
    from nullah.core.breakdown.search import search_task

    start = time.monotonic()
    seconds = max(0.05, stop_at - start)
    cores = min(4, os.cpu_count() or 1)
    beside = SearchAside(task, seconds, cores - 1, first_seed=2) if cores > 1 and seconds > 2 else None
    best = None
    try:
        for layout in search_task(task, 10**9, 1, lambda: (time.monotonic() - start) / seconds):
            best = layout
            if time.monotonic() > stop_at:
                break
        if beside is None:
            return best
        if best is not None:
            beside.offer(best)
        finished = best is not None and not best.unplaced and best.consumed <= best.bound + 1
        while beside.running and not finished and time.monotonic() < stop_at:
            beside.listen(0.05)
        while beside.running and time.monotonic() < stop_at + 0.1:
            beside.listen(0.02)
        return beside.stop().best
    finally:
        if beside is not None:
            beside.stop()


def _breakdown_answer(best: Any, parts: Any, boards: Any, kerf: Length) -> dict[str, Any]:
    from nullah.core.breakdown.cuts import saw_cuts
    from nullah.core.breakdown.layout import Rect, place

    by_id = {part.id: part for part in parts}
    shown = []
    for board in boards:
        placed = [place(by_id[item.part], item) for item in best.placements if item.board == board.id]
        cuts = saw_cuts(Rect(0, 0, float(board.length), float(board.width)), placed, float(kerf))
        shown.append(
            {
                "board": board.id,
                "pieces": [
                    {
                        "part": item.part.name,
                        "x_mm": item.rect.x,
                        "y_mm": item.rect.y,
                        "length_mm": item.rect.length,
                        "width_mm": item.rect.width,
                    }
                    for item in placed
                ],
                "cuts": [
                    {"order": c.order, "kind": c.kind.value, "x_mm": c.x, "y_mm": c.y, "length_mm": c.length}
                    for c in cuts
                ],
            }
        )
    return {
        "boards": shown,
        "unplaced": [{"part": item.part.name, "why": item.why} for item in best.unplaced],
        "consumed_mm2": best.consumed,
        "bound_mm2": best.bound,
    }


def _sheets(options: argparse.Namespace) -> int:
    from nullah.files.errors import ProjectFileError
    from nullah.files.project_file import read_project

    try:
        project = read_project(options.file)
    except ProjectFileError as error:
        raise _RefusedError(str(error)) from error
    _no_screen_needed()
    from nullah.desk.bundle import write_bundle
    from nullah.desk.start import application
    from nullah.paper.files import PaperError

    application()
    try:
        for path in write_bundle(project, options.out):
            print(path)
    except PaperError as error:
        raise _RefusedError(str(error)) from error
    return 0


def _solids(options: argparse.Namespace) -> int:
    from nullah.core.plan import work_out
    from nullah.files.errors import ProjectFileError
    from nullah.files.project_file import read_project
    from nullah.files.solids import SolidsError, write_solids

    try:
        write_solids(work_out(read_project(options.file), milling=False), options.out)
    except (ProjectFileError, SolidsError) as error:
        raise _RefusedError(str(error)) from error
    return 0


def _shots(options: argparse.Namespace) -> int:
    _no_screen_needed()
    from nullah.desk.shots import write_shots

    try:
        for path in write_shots(options.dir):
            print(path)
    except OSError as error:
        raise _RefusedError(f"{options.dir} cannot be written: {error.strerror or error}.") from error
    return 0


def _no_screen_needed() -> None:
    os.environ["QT_QPA_PLATFORM"] = "offscreen"


if __name__ == "__main__":
    raise SystemExit(main())
