"""The frame: menus, the line, the column, tags, the start page, and what is remembered."""

import re
from importlib.resources import files

import pytest
from PySide6.QtCore import QEvent, QMimeData, QPoint, QPointF, Qt, QUrl
from PySide6.QtGui import QDropEvent
from PySide6.QtWidgets import QApplication, QDialog, QMenu, QPushButton, QToolButton
from tests.desk.conftest import User

from nullah.core.lengths import Unit
from nullah.core.refs import BoardRef, FlawRef, PartRef, PieceRef
from nullah.core.stations import STATIONS
from nullah.demo.plant_stair import plant_stair
from nullah.demo.seed_box import seed_box
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.desk.manual import Manual
from nullah.desk.manual_pictures import picture_of
from nullah.desk.settings import Settings
from nullah.desk.start import make_window
from nullah.desk.start_page import StartPage
from nullah.files.project_file import write_project
from nullah.paper.palette import DAY


def tag_says(user):
    tag = user.window.tag
    return (
        [b.text().removesuffix(" ▾") for b in tag.findChildren(QPushButton) if b.isVisible()] if tag.isVisible() else []
    )


def press_tag(user, text):
    (button,) = [b for b in user.window.tag.findChildren(QPushButton) if b.text() == text and b.isVisible()]
    user.bot.mouseClick(button, Qt.MouseButton.LeftButton)


@pytest.mark.dear
@pytest.mark.parametrize(("size", "share"), [((1280, 800), 0.70), ((1024, 700), 0.64)])
def test_the_bench_has_the_height(cabinetmaker, size, share):
    window = cabinetmaker.window
    window.resize(*size)
    for number, station in enumerate(STATIONS):
        window.show_station(number)
        QApplication.processEvents()
        assert window.place.height() / size[1] >= share, station.id
        assert window.lines.height() == 40, "one line"


def test_the_column_turns_folds_and_is_remembered(user):
    window = user.window
    user.go("joints")
    assert window.column.side == 0
    user.bot.keyClick(window, Qt.Key.Key_F8)
    assert window.column.side == 1 and window.desk(4).isVisible()
    user.go("season")
    user.go("joints")
    assert window.column.side == 1, "as it was left here"
    user.bot.keyClick(window, Qt.Key.Key_F9)
    assert window.split.sizes()[1] == 0
    user.bot.keyClick(window, Qt.Key.Key_F7)
    assert window.split.sizes()[1] > 200 and window.column.side == 0


@pytest.mark.dear
def test_one_key_goes_from_the_bench_to_the_first_choice_and_back(user):
    window = user.window
    for station in ("piece", "rack", "breakdown", "milling", "joints", "season"):
        user.go(station)
        window.bench.setFocus()
        user.bot.keyClick(window, Qt.Key.Key_F6)
        focused = window.focusWidget()
        assert window.column.isAncestorOf(focused), station
        user.bot.keyClick(focused, Qt.Key.Key_F6)
        assert not window.column.isAncestorOf(window.focusWidget()), station


def test_a_flaw_carries_what_can_be_done_with_it(user):
    user.go("rack")
    board = next(each for each in user.project.boards if each.flaws)
    flaw = FlawRef(board.id, 0)
    user.click_bench(flaw)
    assert tag_says(user) == ["Kind", "On which face", "Delete flaw"]
    press_tag(user, "Delete flaw")
    assert len(user.project.board(board.id).flaws) == len(board.flaws) - 1
    assert tag_says(user)[-1] == "Remove board"
    menu = QMenu()
    user.window.picked.fill_verbs(menu, BoardRef(board.id))
    assert [a.text() for a in menu.actions()] == tag_says(user), "the same in the context menu"


def test_a_laid_part_is_turned_where_it_lies(cabinetmaker):
    user = cabinetmaker
    user.go("breakdown")
    piece = user.project.layout[0].part
    user.click_bench(PieceRef(piece))
    assert tag_says(user)[:3] == ["Keep it there", "End for end", "Turn over"]
    press_tag(user, "Keep it there")
    assert user.project.layout[0].pinned and tag_says(user)[0] == "Let it move"
    box, tag = user.window.bench.box_of(PieceRef(piece)), user.window.tag.geometry()
    assert not box.toAlignedRect().intersects(tag), "it does not cover what it is about"


def test_what_can_be_done_goes_along_with_a_view_that_is_moved(cabinetmaker):
    user = cabinetmaker
    user.go("breakdown")
    user.click_bench(PieceRef(user.project.layout[0].part))
    bench, tag = user.window.bench, user.window.tag
    before = tag.pos()
    user.bot.mousePress(bench, Qt.MouseButton.MiddleButton, pos=QPoint(300, 300))
    user.bot.mouseMove(bench, pos=QPoint(325, 310))
    assert tag.pos() - before == QPoint(25, 10), "at once"
    user.bot.mouseMove(bench, pos=QPoint(3000, 310))
    user.bot.mouseRelease(bench, Qt.MouseButton.MiddleButton, pos=QPoint(3000, 310))
    user.bot.waitUntil(lambda: not tag.isVisible())


def test_a_board_of_ones_own_is_removed_from_its_menu(qtbot, open_window):
    user = User(qtbot, open_window(plant_stair()))
    user.window.document.pick_part("own1")
    assert tag_says(user)[-1] == "Remove board"
    menu = user.window.findChild(QMenu, "") or QMenu()
    user.window.picked.fill_verbs(menu, PartRef("own1"))
    next(a for a in menu.actions() if a.text() == "Remove board").trigger()
    assert user.plan.part("own1") is None


def test_a_right_click_opens_the_menu_of_what_lies_there(user):
    user.go("rack")
    ref = BoardRef(user.project.boards[0].id)
    at = user.window.bench.place_of(ref)
    user.window.bench.menu_wanted.emit(ref, user.window.bench.mapToGlobal(at.toPoint()))
    (menu,) = [w for w in QApplication.topLevelWidgets() if isinstance(w, QMenu) and w.isVisible()]
    assert {"Remove board", "Fit", "Copy the drawing"} <= {a.text() for a in menu.actions()}
    menu.close()
    assert user.window.document.selection.board == ref.board, "and it is picked"


def test_a_new_piece_begins_round_in_the_unit_that_was_chosen(user):
    user.ctrl(Qt.Key.Key_N)
    page = user.window.findChild(StartPage)
    assert page.isVisible() and page.ask.isVisible(), "asked the first time"
    (inches,) = [b for b in page.units.buttons() if b.text() == "inches"]
    user.bot.mouseClick(inches, Qt.MouseButton.LeftButton)
    user.bot.mouseClick(page.forms["box"], Qt.MouseButton.LeftButton)
    assert not page.isVisible() and user.window.rod.marks[0].state == "14 × 8 1/2 × 4 1/2″"
    user.ctrl(Qt.Key.Key_N)
    assert not page.ask.isVisible(), "and not again"
    user.bot.keyClick(page, Qt.Key.Key_Escape)
    assert not page.isVisible() and user.project.marks.unit is Unit.INCH


@pytest.mark.dear
def test_forms_are_drawn_on_the_start_page_and_files_worked_on_stand_there(user, tmp_path):
    user.window.papers.save_path(tmp_path / "twine.nullah")
    user.window.show_start()
    page = user.window.over.start
    drawn = (*page.forms.values(), *page.recent.values())
    user.bot.waitUntil(lambda: not any(button.icon().isNull() for button in drawn))
    (button,) = page.recent.values()
    user.type_line(user.window.header.name, "another")
    user.bot.mouseClick(button, Qt.MouseButton.LeftButton)
    assert user.project.piece.name == "Seed box" and not page.isVisible()


def test_a_choice_is_a_drawing_of_this_piece(beginner):
    desk = beginner.window.desk(0)
    drawn = desk.drawn["lid"]

    def picture(value):
        return drawn.buttons[value].icon().pixmap(74, 52).toImage()

    # Each shows what it is: until they come their places are kept, all alike.
    beginner.bot.waitUntil(lambda: picture("none") != picture("sliding") != picture("hinged"))
    assert drawn.buttons["none"].isChecked()
    beginner.choose(drawn, "sliding")
    assert beginner.plan.choices["lid"] == "sliding" and drawn.buttons["sliding"].isChecked()


def test_what_was_chosen_is_there_the_next_time(qtbot, tmp_path):
    settings = Settings(tmp_path / "desk.ini")
    settings.theme, settings.unit = "night", Unit.CM
    settings.worked_on(tmp_path / "a.nullah")
    settings.worked_on(tmp_path / "b.nullah")
    again = Settings(tmp_path / "desk.ini")
    assert (again.theme, again.unit) == ("night", Unit.CM)
    assert [path.name for path in again.recent] == ["b.nullah", "a.nullah"]
    (tmp_path / "desk.ini").write_text("[General]\ntheme=mauve\nunit=ells\n[side]\npiece=7\n")
    broken = Settings(tmp_path / "desk.ini")
    assert (broken.theme, broken.unit, broken.side("piece", 1)) == ("system", None, 1)


def test_the_window_comes_back_as_it_was_left_and_fits_the_screen(qtbot, tmp_path):
    settings = Settings(tmp_path / "desk.ini")
    first = make_window(seed_box(), tmp_path / "unsaved", settings=settings)
    free = first.screen().availableGeometry()
    assert first.width() <= free.width() and first.height() <= free.height()
    first.resize(min(1000, free.width()), min(610, free.height()))
    first.show()
    first.fold_column()
    first.close()
    second = make_window(seed_box(), tmp_path / "unsaved", settings=settings)
    with qtbot.waitExposed(second):
        second.show()
    assert second.width() == first.width() and second.split.sizes()[1] == 0
    second.close()


def test_a_project_dropped_on_the_window_opens(user, tmp_path):
    write_project(plant_stair(), tmp_path / "stair.nullah")
    data = QMimeData()
    data.setUrls([QUrl.fromLocalFile(str(tmp_path / "stair.nullah"))])
    kept = QDropEvent(
        QPointF(10, 10), Qt.DropAction.CopyAction, data, Qt.MouseButton.LeftButton, Qt.KeyboardModifier(0)
    )
    user.window.dropEvent(kept)
    assert user.project.piece.name == "Plant stair"


def test_terms_are_changed_in_the_preferences_and_what_is_saved_stays_saved(user):
    user.enter("Edit", "Preferences …")
    dialog = user.dialog()
    dialog.terms.setCurrentIndex(dialog.terms.findData("en_GB"))
    dialog.terms.activated.emit(dialog.terms.currentIndex())
    assert user.window.document.catalogue.text("rabbet") == "rebate" and not user.window.document.unsaved
    assert Settings(user.window.settings.file).terms == "en_GB"
    dialog.close()


@pytest.mark.dear
def test_the_manual_opens_at_the_station_and_tells_every_key(user):
    user.go("milling")
    user.bot.keyClick(user.window, Qt.Key.Key_F1)
    manual = next(w for w in QApplication.topLevelWidgets() if isinstance(w, Manual) and w.isVisible())
    assert manual.page.toPlainText().startswith("Milling")
    for row in range(manual.pages.count()):
        manual.pages.setCurrentRow(row)
        assert len(manual.page.toPlainText()) > 300, manual.pages.item(row).text()
    keys = manual.page.toPlainText()
    assert "Ctrl+Shift+S" in keys and "F9" in keys and "Save as …" in keys
    manual.close()


def test_every_mnemonic_of_a_menu_is_its_own(user):
    for top in user.window.menuBar().actions():
        menu = top.menu()
        menu.aboutToShow.emit()
        letters = [
            a.text().replace("&&", "")[a.text().replace("&&", "").index("&") + 1].lower()
            for a in menu.actions()
            if "&" in a.text()
        ]
        assert len(letters) == len(set(letters)), (top.text(), letters)


def test_equal_parts_stand_together_and_are_gone_through(cabinetmaker):
    user = cabinetmaker
    assert len(user.window.strip.chips) < 20 < len(user.plan.parts)
    chip = user.chip("divider1") if user.plan.part("divider1") else user.chip(user.plan.parts[7].id)
    ids = [part.id for part in chip.parts]
    seen = []
    for _ in ids:
        user.bot.mouseClick(chip, Qt.MouseButton.LeftButton)
        seen.append(user.window.document.selection.part)
    assert seen == ids and len(ids) > 1


def test_about_says_which_version(user):
    user.enter("Help", "About Nullah")
    dialog = user.dialog()
    assert isinstance(dialog, QDialog)
    dialog.close()


def test_the_line_never_wraps(miller):
    miller.window.resize(900, 640)
    miller.bot.wait(50)
    line = miller.window.desk(3).line
    for widget in (*line.findChildren(QPushButton), *line.findChildren(QToolButton)):
        if widget.isVisible():
            assert line.rect().contains(widget.rect().translated(widget.mapTo(line, QPoint(0, 0))))
    miller.press("Read the sticks")
    assert line.findChild(QToolButton).text() == "Read the sticks ▾"


def test_a_window_that_goes_leaves_nothing_behind(qtbot, tmp_path):
    before = len(QApplication.allWidgets())
    window = make_window(seed_box(), tmp_path / "unsaved")
    window.show()
    for number in range(len(STATIONS)):
        window.show_station(number)
    window.show_start()
    window.close()
    window.deleteLater()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    assert len(QApplication.allWidgets()) <= before


@pytest.mark.dear
def test_every_picture_of_the_manual_is_made_and_shows_something(user):
    names = [
        name
        for page in (files("nullah") / "manual").iterdir()
        for name in re.findall(r"\(picture:([\w-]+)\)", page.read_text(encoding="utf-8"))
    ]
    assert {station.id for station in STATIONS} <= set(names) and len(names) > 20
    for name in names:
        image = picture_of(name, DAY)
        colours = {image.pixel(x, y) for x in range(0, image.width(), 3) for y in range(0, image.height(), 3)}
        assert len(colours) > 5, name
    assert picture_of("nothing", DAY) is None


def test_a_page_of_the_manual_shows_its_picture(user):
    user.go("breakdown")
    user.bot.keyClick(user.window, Qt.Key.Key_F1)
    manual = next(w for w in QApplication.topLevelWidgets() if isinstance(w, Manual) and w.isVisible())
    page = manual.page
    assert page.loadResource(2, QUrl("picture:breakdown")).width() > 400
    assert page.document().size().height() > page.loadResource(2, QUrl("picture:breakdown")).height()
    manual.reject()


def test_a_part_carries_the_choices_that_are_about_it(user):
    user.go("piece")
    user.bot.mouseClick(user.chip("front"), Qt.MouseButton.LeftButton)
    assert tag_says(user)[:2] == ["Corners", "Tails on"]
    menu = next(b for b in user.window.tag.findChildren(QPushButton) if b.text() == "Corners ▾").findChild(QMenu)
    assert [a.text() for a in menu.actions() if a.isChecked()] == ["dovetailed"]
    next(a for a in menu.actions() if a.text() == "rabbeted").trigger()
    assert user.window.document.plan.choices["corners"] == "rabbeted"
    assert "Tails on" not in tag_says(user), "it no longer applies"
    assert user.window.document.undo_name.startswith("corners")


@pytest.mark.dear
def test_choices_stand_as_they_stood_when_other_stations_were_gone_to(qtbot, tmp_path):
    window = make_window(seed_cabinet(), tmp_path)
    qtbot.addWidget(window)
    window.resize(1280, 800)
    window.show()

    def heights():
        qtbot.wait(200)
        return {name: drawn.height() for name, drawn in window.desk(0).drawn.items()}

    before = heights()
    assert before
    for number in (3, 6, 0):
        window.show_station(number)
        qtbot.wait(50)
    assert heights() == before
