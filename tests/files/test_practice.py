"""The record of practice with the sticks."""

import pytest

from nullah.core.milling.sighting import Try
from nullah.files.practice import MOST_KEPT, read_practice, write_practice

TRIES = tuple(Try("2026-11-25", level, level % 2 == 0, 0.25) for level in range(5))


def test_what_was_kept_comes_back(tmp_path):
    file = tmp_path / "deep" / "practice.json"
    assert read_practice(file) == ()
    assert write_practice(file, TRIES) == ""
    assert read_practice(file) == TRIES
    assert write_practice(file, TRIES * 200) == ""
    assert len(read_practice(file)) == MOST_KEPT
    assert [each.name for each in file.parent.iterdir()] == ["practice.json"]


@pytest.mark.parametrize("text", ["", "{", "[]", '{"sticks": 3}', '{"sticks": [{"day": "x"}]}', '{"sticks": [1]}'])
def test_a_record_that_cannot_be_read_counts_as_nothing(tmp_path, text):
    file = tmp_path / "practice.json"
    file.write_text(text)
    assert read_practice(file) == ()
    assert file.read_text() == text


def test_a_disk_that_refuses_is_told_in_a_sentence(tmp_path):
    (tmp_path / "full").write_text("a file where a folder should be")
    assert write_practice(tmp_path / "full" / "practice.json", TRIES).startswith("The record of practice could not be")
