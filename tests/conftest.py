"""What all tests share: no screen is needed, and nothing is written outside a test's own folder."""

import gc
import os
from collections import Counter

import pytest
from hypothesis import settings

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

# No test asserts time. Where changes land, the same examples are tried each time; at the desk, new ones.
settings.register_profile("here", deadline=None, derandomize=bool(os.environ.get("CI")))
settings.load_profile("here")


@pytest.fixture(autouse=True)
def _own_folders(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_STATE_HOME", str(tmp_path / "state"))
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path / "config"))


def pytest_configure(config):
    _keep_to_own_cores(getattr(config, "workerinput", None))
    config.addinivalue_line("markers", "whole: what takes long and shows little that is new, only in script/torture")
    config.addinivalue_line(
        "markers", "sampled(n): every n-th of its cases is tried here, all of them in script/torture"
    )


def _keep_to_own_cores(worker):
    """Give each of several processes that test its share of the cores: threads of one stand in the way of another."""
    cores = sorted(os.sched_getaffinity(0))
    if worker and worker["workercount"] <= len(cores):
        own = cores[int(worker["workerid"].removeprefix("gw")) :: worker["workercount"]]
        os.sched_setaffinity(0, own)


def pytest_collection_finish():
    """Have what stands once all tests are known passed over by the collector, as the desk does."""
    gc.collect()
    gc.freeze()
    gc.set_threshold(20_000, 20, 20)


def pytest_collection_modifyitems(config, items):
    """Leave every n-th case of what is sampled, evenly over its parameters; all where ``NULLAH_WHOLE`` is set."""
    if os.environ.get("NULLAH_WHOLE"):
        return
    seen, kept, left_out = Counter(), [], []
    for item in items:
        marker = item.get_closest_marker("sampled")
        function = item.nodeid.partition("[")[0]
        seen[function] += 1
        wanted = marker is None or (seen[function] - 1) % marker.args[0] == 0
        wanted = wanted and item.get_closest_marker("whole") is None
        (kept if wanted else left_out).append(item)
    config.hook.pytest_deselected(items=left_out)
    items[:] = kept
