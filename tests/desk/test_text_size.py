"""Text and controls as large as one wants them: remembered, taken at the next start, and nothing cut off."""

import os
import subprocess
import sys

import pytest
from tests.desk.conftest import as_read

from nullah.desk.settings import Settings
from nullah.desk.start import _start_again
from nullah.desk.window_settings import TEXT_SIZES


def test_it_is_changed_by_key_remembered_and_has_its_limits(user):
    user.enter("View", "Larger text")
    assert user.window.settings.text_size == 115
    assert "115 % large from the next start" in as_read(user.window.banner.words)
    for _ in TEXT_SIZES:
        user.enter("View", "Larger text")
    assert Settings(user.window.settings.file).text_size == 200
    for _ in range(len(TEXT_SIZES) + 2):
        user.enter("View", "Smaller text")
    assert user.window.settings.text_size == 100
    user.enter("Edit", "Preferences …")
    user.dialog().text_size.setCurrentIndex(3)
    user.dialog().text_size.activated.emit(3)
    assert user.window.settings.text_size == 150


@pytest.mark.parametrize("text", ["99", "large", "", "1000"])
def test_a_size_that_makes_no_sense_is_the_usual_one(tmp_path, text):
    (tmp_path / "desk.ini").write_text(f"[General]\ntext_size={text}\n")
    assert Settings(tmp_path / "desk.ini").text_size == 100


def test_the_program_starts_again_on_what_was_open(user, tmp_path, monkeypatch):
    called = []
    monkeypatch.setattr(os, "execv", lambda *given: called.append(given))
    user.window.papers.save_path(tmp_path / "box.nullah")
    user.enter("View", "Larger text")
    user.press("Start again now")
    assert user.window.start_again and not user.window.isVisible()
    _start_again(user.window.document)
    assert called == [(sys.executable, [sys.executable, "-m", "nullah", str(tmp_path / "box.nullah")])]


_MEASURE = """
import sys, pathlib
from nullah.desk.application import application
from nullah.desk.start import make_window
app = application(int(sys.argv[1]))
from nullah.demo.seed_cabinet import seed_cabinet
window = make_window(seed_cabinet(), pathlib.Path(sys.argv[2]))
window.setMinimumSize(0, 0)
ratio = window.devicePixelRatio()
window.resize(round(1920 / ratio), round(1080 / ratio))
window.show()
for station in range(7):
    window.show_station(station)
    app.processEvents()
    size = window.size() * ratio
    assert size.width() <= 1920 and size.height() <= 1080, (station, size)
    assert window.bench.width() > 300 and window.bench.height() > 300
print(ratio)
"""


@pytest.mark.dear
@pytest.mark.sampled(2)
@pytest.mark.parametrize("percent", [150, 200])
def test_large_text_fits_a_usual_screen(tmp_path, percent):
    env = {key: value for key, value in os.environ.items() if key != "QT_SCALE_FACTOR"} | {
        "QT_QPA_PLATFORM": "offscreen"
    }
    call = [sys.executable, "-c", _MEASURE, str(percent), str(tmp_path)]
    done = subprocess.run(call, env=env, capture_output=True, text=True, check=False)
    assert done.stdout.strip() == str(percent / 100), done.stderr
