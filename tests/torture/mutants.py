"""Mutated files and tables: each is read, or refused with one short sentence, and what was read can be worked on."""

import copy
import json
import random
import time
import traceback
from pathlib import Path

from tests.torture.reports import HungError, Report, within

from nullah.core.lengths import Unit
from nullah.core.limits import SENTENCE
from nullah.core.plan import work_out
from nullah.core.stations import STATIONS
from nullah.core.stations.selection import Selection
from nullah.core.wood.climate import USUAL
from nullah.core.work.cut_list import cut_list
from nullah.demo.built import build
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.files.errors import ProjectFileError
from nullah.files.hygrometer_log import read_hygrometer_log
from nullah.files.project_file import parse_project, project_text
from nullah.files.rack_tables import flaws_text, rack_text, read_boards, read_flaws, read_typed_boards
from nullah.files.tables import TableError, read_own_boards, read_parts, read_survey_points

SAVED = Path(__file__).parent.parent / "files"
#: Reading answers within this many seconds; working out what was read within that many.
READ_WITHIN, WORK_WITHIN = 1.0, 20.0

NASTY = (
    None, True, False, 0, 1, -1, 2, 200, 201, 10**6, 10**12, 10**40, -(10**20), 0.1, -0.5, 1e-300, 1e300, float("inf"),
    float("nan"), "", " ", "0", "-1 mm", "0 mm", "1 mm", "0.0001 mm", "400 m", "50 m", "49999 mm", "1e9999999",
    "1/0 mm", "1/2 of 1/2 of 9 mm", "9" * 5000, "1/2 of " * 3000 + "1", "²", "1:7", "1:40", "1:2", "1:0.001",
    "9999-12-31",
    "2026-11-23", "2026-11-23T18:30+02:00", "0001-01-01T00:00", "\ud800", "a\x00b", "a\x1bb", "a\nb\rc",
    "=1+1", "<b>x</b>",
    "⟦12⟧", "⟦1/0⟧", "x" * 10_000, "own1", "own2", "front", "left", "bottom", "../../x", [], {}, [[]], {"a": 1},
    ["x"] * 50,
    [[1, 2]] * 30, "through", "upper", "flat", "glued", "nailed", "taper", "box", "case", "table", "own", "mm", "in",
    "12:00-13:00", "0:00-24:00", "1/32", "1/64", "1000", "0.001", "99/100",
)  # fmt: skip


def places(data, path=()):
    """Yield the path of everything in JSON data."""
    yield path
    items = data.items() if isinstance(data, dict) else enumerate(data) if isinstance(data, list) else ()
    for key, value in items:
        yield from places(value, (*path, key))


def at(data, path):
    for key in path:
        data = data[key]
    return data


def mutated(data, chance):
    """Return the data with one to three things in it changed, left out, doubled or put elsewhere."""
    data = copy.deepcopy(data)
    for _ in range(chance.choice((1, 1, 1, 2, 3))):
        path = chance.choice([path for path in places(data) if path])
        holder, key = at(data, path[:-1]), path[-1]
        match chance.randrange(14):
            case 0:
                del holder[key]
            case 1 if isinstance(holder, list):
                holder.insert(key, copy.deepcopy(holder[key]))
            case 2:
                holder[key] = copy.deepcopy(at(data, chance.choice(list(places(data)))))
            case 3 if isinstance(holder[key], int | float) and not isinstance(holder[key], bool):
                holder[key] = holder[key] * chance.choice((-1, 0, 0.001, 10, 1000))
            case 4 if isinstance(holder[key], str) and holder[key]:
                text = holder[key]
                spot = chance.randrange(len(text))
                holder[key] = (
                    text[:spot] + chance.choice(("9", "0", "-", " ", "x", "/", "mm", "in", "")) + text[spot + 1 :]
                )
            case 5 if isinstance(holder, dict):
                holder[str(chance.choice(NASTY))] = holder.pop(key)
            case 6:
                holder[key] = chance.choice(NASTY)
            case 7 | 8 if isinstance(holder[key], str) and " " in holder[key]:
                # A length of another size, in the same words.
                holder[key] = f"{chance.choice((0.2, 1, 3, 12, 19, 75, 300, 2400, 20_000))} {holder[key].split()[-1]}"
            case _:
                alike = [each for each in (at(data, path) for path in places(data)) if type(each) is type(holder[key])]
                holder[key] = copy.deepcopy(chance.choice(alike))
    return data


def scrambled(text, chance):
    """Return text with some of its letters changed, cut off, doubled, or put into another coding."""
    raw = bytearray(text.encode("utf-8", "replace"))
    for _ in range(chance.choice((1, 1, 2, 5, 20))):
        spot = chance.randrange(len(raw)) if raw else 0
        match chance.randrange(5):
            case 0 if raw:
                raw[spot] = chance.randrange(256)
            case 1:
                del raw[spot : spot + chance.choice((1, 2, 50, 5000))]
            case 2:
                raw[spot:spot] = chance.choice(
                    (b'"', b",", b"\n", b"\x00", b"\xff", b"[" * 50, b"{" * 3000, b"9" * 300)
                )
            case 3:
                raw[spot:spot] = raw[spot : spot + 40]
            case _:
                raw[spot:spot] = bytes(chance.choices(range(256), k=3))
    return bytes(raw)


def sources():
    made = [project_text(each) for each in (seed_box(), seed_cabinet(), plant_stair(), build(seed_box(), most=12)[0])]
    return [*made, *(path.read_text(encoding="utf-8") for path in sorted(SAVED.glob("version-*.nullah")))]


def project_mutants(number, seed=1, thorough=20):
    """Try mutated project files; every `thorough`-th that is read is shown at all stations too."""
    report, chance = Report("mutated project files"), random.Random(seed)
    texts = sources()
    data = [json.loads(text) for text in texts]
    for _ in range(number):
        if chance.random() < 0.25:
            raw = scrambled(chance.choice(texts), chance)
        else:
            raw = json.dumps(mutated(chance.choice(data), chance)).encode("utf-8", "surrogatepass")
        report.tried += 1
        try_project(report, raw, thorough)
    return report


def try_project(report, raw, every):
    begun = time.monotonic()
    try:
        with within(10 * READ_WITHIN):
            try:
                text = raw.decode("utf-8")
            except UnicodeDecodeError:
                report.count("not text")
                return
            project = parse_project(text, "mutant.nullah")
    except ProjectFileError as error:
        report.count("refused")
        sentence(report, str(error))
        return
    except HungError:
        save(report, raw, "hung while it was read")
        return
    except Exception as error:
        save(report, raw, f"reading: {where(error)}")
        return
    finally:
        if time.monotonic() - begun > READ_WITHIN:
            report.count("slow to read")
    report.count("read")
    thorough = report.counts["read"] % every == 0
    try:
        with within(WORK_WITHIN * (6 if thorough else 1)):
            again = project_text(project)
            if project_text(parse_project(again, "again")) != again:
                save(report, raw, "comes back otherwise")
            plan = work_out(project, milling=thorough, proving=thorough)
            plan.unsettled()
            if thorough:
                report.count("shown at all stations")
                cut_list(plan)
                for station in STATIONS:
                    station.draw(plan, Selection(part=plan.parts[0].id if plan.parts else ""))
                    station.card(plan, Selection(part=plan.parts[0].id if plan.parts else ""))
                    station.state(plan)
    except HungError:
        save(report, raw, "hung while it was worked out")
    except Exception as error:
        save(report, raw, f"working out: {where(error)}")


def sentence(report, text):
    if len(text) > SENTENCE or "\n" in text or not text.isprintable():
        report.fail(f"a refusal of {len(text)} characters: {text[:80]!r}")


def where(error):
    """Return what went wrong and in which line of the program, without figures."""
    frames = [frame for frame in traceback.extract_tb(error.__traceback__) if "/nullah/" in frame.filename]
    last = frames[-1] if frames else None
    place = f"{last.filename.rpartition('/nullah/')[2]}:{last.lineno}" if last else "?"
    return f"{type(error).__name__} at {place}: {str(error)[:70]}"


#: Where files that failed are put, to be tried again.
FAILED = Path("/tmp/nullah-torture")


def save(report, raw, what):
    FAILED.mkdir(exist_ok=True)
    if what not in report.failures:
        (FAILED / f"{len(report.failures)}.nullah").write_bytes(raw)
    report.fail(what)


def table_mutants(number, folder, seed=2):
    """Try mutated tables of every kind, and text as it is typed or pasted."""
    report, chance = Report("mutated tables"), random.Random(seed)
    boards = seed_cabinet().boards
    path = folder / "mutant.csv"
    kinds = {
        "boards": (rack_text(boards), lambda raw: read_boards(path)),
        "flaws": (flaws_text(boards), lambda raw: read_flaws(path, boards)),
        "parts": (
            "part,quantity,length,width,thickness,needs,turn\nleg,4,700,60,60,clear,no\n"
            "shelf,2,24 in,8 in,3/4 in,any,yes\n",
            lambda raw: read_parts(path),
        ),
        "survey": (
            "x,y,top,bottom\n"
            + "".join(f"{x},{y},27.{x % 7},0.{y % 5}\n" for x in range(0, 900, 100) for y in (0, 90, 180)),
            lambda raw: read_survey_points(path),
        ),
        "hygrometer": (
            "time,temperature,humidity\n" + "".join(f"2026-{m:02}-01T08:00,19.5,{40 + m}\n" for m in range(1, 13)),
            lambda raw: read_hygrometer_log(path, USUAL),
        ),
        "typed boards": (
            "2400 x 200 x 27 black walnut *3\n8' 1x12 shed\n1200; 150; 22; loft\n",
            lambda raw: read_typed_boards(raw.decode("utf-8", "replace"), Unit.MM, "black cherry"),
        ),
        "pasted boards": (
            "part,length,width,thickness,quantity\nshelf,600,200,18,2\nback,24 in,8 in,1/4 in,1\n",
            lambda raw: read_own_boards(raw.decode("utf-8", "replace"), Unit.INCH),
        ),
    }
    for _ in range(number):
        kind = chance.choice(list(kinds))
        text, read = kinds[kind]
        raw = scrambled(text, chance)
        if chance.random() < 0.3:
            cells = text.split(",")
            cells[chance.randrange(len(cells))] = str(chance.choice(NASTY)).encode("utf-8", "replace").decode()
            raw = ",".join(cells).encode()
        path.write_bytes(raw)
        report.tried += 1
        begun = time.monotonic()
        try:
            with within(10 * READ_WITHIN):
                read(raw)
            report.count("read")
        except TableError as error:
            report.count("refused")
            sentence(report, str(error))
        except HungError:
            save(report, raw, f"{kind}: hung")
        except Exception as error:
            save(report, raw, f"{kind}: {where(error)}")
        if time.monotonic() - begun > READ_WITHIN:
            report.count("slow")
    return report
