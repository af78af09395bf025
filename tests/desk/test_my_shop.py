"""My shop: tools and habits belong to the person; every piece begun is planned with them."""

from dataclasses import replace

import pytest
from PySide6.QtCore import Qt
from tests.desk.conftest import as_read

from nullah.core.lengths import mm
from nullah.core.my_shop import MyShop, planned_with, same_shop, shop_of
from nullah.core.shop import Shop
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.settings import Settings
from nullah.files.shop_file import read_shop, write_shop


def differs(user):
    return user.window.over.shop.follow.isVisible()


def test_a_piece_that_is_begun_is_planned_with_ones_own_shop(user):
    with user.in_shop() as shop:
        user.type_in(shop.figures["kerf"], "2.2 mm")
        user.type_in(shop.figures["end"], "44 mm")
        user.type_line(shop.clamps, "7")
    assert user.project.shop.kerf.text == "2.2 mm", "the open piece followed"
    user.begin("Tray")
    assert user.project.shop.kerf.text == "2.2 mm"
    assert user.project.allowances.end.text == "44 mm"
    assert user.project.working.clamps == 7


def test_it_is_remembered_when_the_window_is_opened_again(user):
    with user.in_shop() as shop:
        user.type_in(shop.sets["chisels"], "4 mm, 8 mm")
    again = Settings(user.window.settings.file)
    assert [size.text for size in again.shop.shop.chisels] == ["4 mm", "8 mm"]


def test_a_step_that_is_undone_leaves_the_piece_with_another_shop_and_the_page_says_so(user):
    before = shop_of(user.project)
    with user.in_shop() as shop:
        assert not differs(user)
        user.type_in(shop.figures["kerf"], "2.2 mm")
        assert not differs(user)
    user.press("Undo")
    assert shop_of(user.project) == before
    with user.in_shop() as shop:
        assert differs(user) and shop.figures["kerf"].line.text() == "2.2 mm"
        user.type_in(shop.figures["fine_kerf"], "0.9 mm")
        assert user.project.shop.fine_kerf == before.shop.fine_kerf, "a piece with a shop of its own keeps it"
        user.press("Plan it with my shop")
        assert not differs(user) and user.project.shop.kerf.text == "2.2 mm"
    user.press("Undo")
    with user.in_shop():
        user.press("Make its shop mine")
        assert not differs(user) and user.window.settings.shop == before


@pytest.mark.parametrize("station", ["breakdown", "milling", "joints", "daybook"])
def test_every_station_that_uses_the_shop_leads_to_it(user, station):
    user.go(station)
    if station == "milling":
        user.press("Strokes")
    if station == "daybook":
        user.press("Calendar")
    user.press("My shop …")
    assert user.window.over.shop.isVisible()
    user.bot.keyClick(user.window.over.shop, Qt.Key.Key_Escape)
    assert not user.window.over.shop.isVisible() and user.window.bench.isVisible()


def test_a_shop_that_cannot_be_kept_is_told(user, monkeypatch):
    def refuse(*_, **__):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("nullah.files.shop_file.write_file", refuse)
    with user.in_shop() as shop:
        user.type_in(shop.figures["kerf"], "2.2 mm")
    assert "Your shop could not be kept" in as_read(user.window.banner.words)


# --- the file ---


def test_the_file_gives_back_every_field(tmp_path):
    mine = shop_of(seed_cabinet())._replace(clamps=3, people=2)
    assert write_shop(tmp_path / "my-shop.json", mine) == ""
    found = read_shop(tmp_path / "my-shop.json")
    assert same_shop(found, mine)
    for other in (
        mine._replace(people=3),
        mine._replace(shop=replace(mine.shop, bits=mine.shop.bits[1:])),
        mine._replace(allowances=replace(mine.allowances, joint=mm("3.01"))),
    ):
        assert not same_shop(found, other)


@pytest.mark.parametrize("text", ["", "{", "[]", '{"shop": {"kerf": "wide"}}', '{"clamps": 1000}', '{"people": 0}'])
def test_a_file_that_cannot_be_read_counts_as_none_and_is_set_aside(tmp_path, text):
    file = tmp_path / "my-shop.json"
    file.write_text(text)
    assert read_shop(file) is None
    assert (tmp_path / "my-shop.json.damaged").read_text() == text


@pytest.mark.parametrize("text", ['{"clamps": 999, "people": 20}', '{"clamps": 0, "people": 1}'])
def test_its_limits_are_those_of_a_project(tmp_path, text):
    file = tmp_path / "my-shop.json"
    file.write_text(text)
    assert read_shop(file) is not None


def test_a_project_takes_a_shop_whole_and_nothing_else():
    project = seed_cabinet()
    assert planned_with(project, shop_of(project)) == project
    other = MyShop(shop=Shop(chisels=()), clamps=2)
    assert shop_of(planned_with(project, other)) == other
    assert planned_with(planned_with(project, other), shop_of(project)) == project
