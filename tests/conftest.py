"""What all tests share: no screen is needed, and nothing is written outside a test's own folder."""

import os

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
