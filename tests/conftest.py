"""What all tests share: no screen is needed, and nothing is written outside a test's own folder."""

import contextlib
import gc
import os
import subprocess
from collections import Counter
from pathlib import Path

import pytest
from hypothesis import settings

from nullah.memory import collect_seldom

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

#: Of what takes long, every so many is tried where all tests are; what all processes that test are told about it.
TURNS, _TURN = 4, "NULLAH_TURN"
#: Set where files are read that nowhere have the word asked for.
_READ_ALL = "NULLAH_READ_ALL"

# No test asserts time. Where changes land, the same examples are tried each time; at the desk, new ones.
settings.register_profile("here", deadline=None, derandomize=bool(os.environ.get("CI")))
settings.load_profile("here")


@pytest.fixture(autouse=True)
def _own_folders(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))


def pytest_configure(config):
    worker = getattr(config, "workerinput", None)
    _keep_to_own_cores(worker)
    config.addinivalue_line("markers", "whole: what takes long and shows little that is new, only in script/torture")
    config.addinivalue_line(
        "markers", "sampled(n): every n-th of its cases is tried here, all of them in script/torture"
    )
    config.addinivalue_line(
        "markers", "dear: takes more than a second; where all tests are tried, a part of these in turn"
    )
    if worker is None:
        everything = config.args_source is pytest.Config.ArgsSource.TESTPATHS and not config.option.keyword
        os.environ[_TURN] = (os.environ.get(_TURN) or _turn_of_commit()) if everything else ""


def pytest_ignore_collect(collection_path, config):
    """Leave files unread that nowhere have the one word that is asked for with ``-k``.

    It may be in what a test is tried with: where no file has it, `script/test` reads all of them.
    """
    word = config.option.keyword.lower()
    anywhere = config.args_source is pytest.Config.ArgsSource.TESTPATHS and not os.environ.get(_READ_ALL)
    if not (anywhere and word.isidentifier() and collection_path.name.startswith("test_")):
        return None
    return None if word in collection_path.name or word in collection_path.read_text("utf-8").lower() else True


def _turn_of_commit():
    """Return whose turn it is: another one with another commit, the same one where the same is tried again."""
    asked = ["git", "rev-parse", "HEAD"]
    try:
        found = subprocess.run(asked, cwd=Path(__file__).parent, capture_output=True, text=True, check=False).stdout
    except OSError:
        found = ""
    return str(int(found.strip() or "0", 16) % TURNS)


def pytest_terminal_summary(terminalreporter):
    if os.environ.get(_TURN) and not os.environ.get("NULLAH_WHOLE"):
        turn = os.environ[_TURN]
        terminalreporter.write_line(f"Dear tests: turn {turn} of 0 to {TURNS - 1}; {_TURN}={turn} tries the same ones.")


def _keep_to_own_cores(worker):
    """Give each of several processes that test its share of the cores: threads of one stand in the way of another."""
    cores = sorted(os.sched_getaffinity(0))
    if worker and worker["workercount"] <= len(cores):
        own = cores[int(worker["workerid"].removeprefix("gw")) :: worker["workercount"]]
        # Whoever runs the machine may have other cores for it by now: then they share what there is.
        with contextlib.suppress(OSError):
            os.sched_setaffinity(0, own)


def pytest_collection_finish():
    """Have what stands once all tests are known passed over by the collector, as the desk does."""
    gc.collect()
    collect_seldom()


def pytest_collection_modifyitems(config, items):
    """Leave every n-th case of what is sampled, evenly over its parameters, and whose turn it is of what is dear.

    All where ``NULLAH_WHOLE`` is set.
    """
    if os.environ.get("NULLAH_WHOLE"):
        return
    seen, kept, left_out = Counter(), [], []
    turn = os.environ.get(_TURN)
    for item in items:
        marker = item.get_closest_marker("sampled")
        function = item.nodeid.partition("[")[0]
        seen[function] += 1
        wanted = marker is None or (seen[function] - 1) % marker.args[0] == 0
        wanted = wanted and item.get_closest_marker("whole") is None
        if wanted and turn and item.get_closest_marker("dear") is not None:
            wanted = seen["dear"] % TURNS == int(turn)
            seen["dear"] += 1
        (kept if wanted else left_out).append(item)
    config.hook.pytest_deselected(items=left_out)
    items[:] = kept
