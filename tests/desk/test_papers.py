import os
import subprocess
import sys
import time
from datetime import datetime

import pytest
from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFileDialog
from tests.desk.conftest import as_read
from tests.same import untyped

from nullah.core.sheets.sheets import all_sheets
from nullah.demo.seed_box import seed_box
from nullah.desk.printing import PrintDialog, pages_of
from nullah.desk.settings import PAPER_NAMES, Settings
from nullah.files.project_file import read_project, write_project
from nullah.paper.files import PAPERS, write_pdf
from nullah.paper.painted_text import painted_texts

#: A Thursday, on which all that is left to do fits on one page.
EVENING = datetime(2026, 1, 8, 18, 30)


def save_as(user, monkeypatch, path):
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(path), ""))
    user.bot.keyClick(user.window, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)


def test_saving_and_opening_again(user, monkeypatch, tmp_path):
    user.type_figure("contents.length", "300")
    assert " *" in user.window.windowTitle()
    save_as(user, monkeypatch, tmp_path / "mine")
    assert " *" not in user.window.windowTitle()
    assert untyped(read_project(tmp_path / "mine.nullah")) == untyped(user.project)
    user.type_figure("contents.length", "310")
    user.bot.keyClick(user.window, Qt.Key.Key_S, Qt.KeyboardModifier.ControlModifier)
    assert float(dict(read_project(tmp_path / "mine.nullah").piece.given)["contents.length"]) == 310
    monkeypatch.setattr(QFileDialog, "getOpenFileName", lambda *_, **__: (str(tmp_path / ".mine.nullah.1"), ""))
    user.bot.keyClick(user.window, Qt.Key.Key_O, Qt.KeyboardModifier.ControlModifier)
    assert user.plan.ledger["contents.length"] == 300, "the version before is kept"


def test_a_file_that_cannot_be_opened_leaves_the_work_alone(user, tmp_path):
    (tmp_path / "bad.nullah").write_text('{"format": "nullah project", "vers')
    before = user.project
    assert not user.window.open_path(tmp_path / "bad.nullah")
    assert user.window.banner.isVisible() and "cut short" in as_read(user.window.banner.words)
    assert user.project is before
    user.press("Dismiss")
    assert not user.window.banner.isVisible()


def test_a_disk_that_refuses_the_save_loses_nothing(user, monkeypatch, tmp_path):
    user.type_figure("contents.length", "300")
    save_as(user, monkeypatch, tmp_path / "no" / "folder" / "x.nullah")
    assert "could not be saved" in as_read(user.window.banner.words)
    assert "Your work is safe here" in as_read(user.window.banner.words)
    assert user.window.document.unsaved and user.plan.ledger["contents.length"] == 300
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(tmp_path / "ok.nullah"), ""))
    user.press("Save elsewhere …")
    assert (tmp_path / "ok.nullah").exists() and not user.window.document.unsaved


def test_work_left_for_another_piece_is_kept_and_can_be_taken_up(user):
    user.type_figure("contents.length", "300")
    user.begin("Box")
    assert user.project.boards == ()
    assert "Seed box was not saved. It is kept." in as_read(user.window.banner.words)
    user.press("Open it again")
    assert user.plan.ledger["contents.length"] == 300
    assert user.window.document.unsaved, "still in no file"


def test_closing_with_unsaved_work_asks_nothing_and_offers_it_next_time(user, open_window, qtbot):
    user.type_figure("contents.length", "300")
    user.window.close()
    again = open_window(seed_box())
    again.papers.offer_kept()
    assert "was not saved when the desk closed" in as_read(again.banner.words)
    qtbot.mouseClick(again.banner.button("Open it"), Qt.MouseButton.LeftButton)
    assert again.document.plan.ledger["contents.length"] == 300


KILLED = """
import sys
from pathlib import Path
from PySide6.QtCore import QTimer
from nullah.core import actions
from nullah.core.lengths import mm
from nullah.demo.seed_box import seed_box
from nullah.desk.application import application
from nullah.desk.start import make_window
app = application()
window = make_window(seed_box(), Path(sys.argv[1]))
window.show()
window.document.do("longer", lambda p: actions.give(p, "contents.length", mm(333)))
app.exec()
"""


@pytest.mark.dear
def test_a_killed_desk_loses_at_most_a_few_seconds(open_window, tmp_path):
    root = tmp_path / "unsaved"
    desk = subprocess.Popen([sys.executable, "-c", KILLED, str(root)], env={**os.environ})
    try:
        deadline = time.monotonic() + 30
        while not list(root.glob("desk-*/where.json")) and time.monotonic() < deadline:
            time.sleep(0.1)
    finally:
        desk.kill()
        desk.wait()
    window = open_window(seed_box())
    window.papers.offer_kept()
    assert "Seed box" in as_read(window.banner.words)
    window.banner.button("Open it").click()
    assert window.document.plan.ledger["contents.length"] == 333


def test_a_disk_that_refuses_to_keep_is_said_once_and_nothing_is_replaced(user, monkeypatch):
    def full(*_):
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.fsync", full)
    user.type_figure("contents.length", "300")
    user.window.document.keep()
    assert "cannot be kept" in as_read(user.window.banner.words) and "the disk is full" in as_read(
        user.window.banner.words
    )
    user.press("Dismiss")
    user.window.document.keep()
    assert not user.window.banner.isVisible(), "once is enough"
    user.begin("Box")
    assert "cannot be set aside" in as_read(user.window.banner.words)
    assert user.plan.ledger["contents.length"] == 300, "still on the desk"


@pytest.mark.dear
def test_all_sheets_are_written_from_the_menu(user, monkeypatch, tmp_path):
    monkeypatch.setattr(QFileDialog, "getExistingDirectory", lambda *_, **__: str(tmp_path / "out"))
    user.window.papers.exports.clock = lambda: EVENING
    user.bot.keyClick(user.window, Qt.Key.Key_E, Qt.KeyboardModifier.ControlModifier)
    user.wait_for_files()
    assert (tmp_path / "out" / "sheets.pdf").stat().st_size > 10_000
    assert "32 files written" in as_read(user.window.banner.words)
    (tmp_path / "wall").write_text("")
    user.window.papers.exports.write_sheets(tmp_path / "wall")
    user.wait_for_files()
    assert "cannot be made" in as_read(user.window.banner.words)


def print_dialog(user):
    user.window.papers.exports.clock = lambda: EVENING
    user.enter("File", "Print …")
    user.bot.waitUntil(lambda: user.window.findChild(PrintDialog) is not None)
    return user.window.findChild(PrintDialog)


@pytest.mark.dear
def test_the_sheets_are_chosen_looked_at_and_written_on_the_paper_one_has(user, tmp_path, monkeypatch):
    import pypdfium2 as pdfium

    dialog = print_dialog(user)
    assert tuple(PAPERS) == PAPER_NAMES
    user.bot.mouseClick(dialog.none, Qt.MouseButton.LeftButton)
    assert not dialog.print.isEnabled() and not dialog.pdf.isEnabled()
    template = next(item for item in dialog.items if item.text(0) == "Corner template, full size: front")
    template.setCheckState(0, Qt.CheckState.Checked)
    dialog.list.setCurrentItem(template)
    assert "1 of 22 pages" in as_read(dialog.told) and "Corner template" in dialog.preview.sheet.title
    assert len(painted_texts(dialog.preview)) > 10, "the page is shown as it will be"
    kinds = [dialog.list.topLevelItem(row) for row in range(dialog.list.topLevelItemCount())]
    parts = next(kind for kind in kinds if kind.text(0) == "Parts")
    parts.setCheckState(0, Qt.CheckState.Checked)
    assert len(dialog.chosen) == 1 + len(user.plan.parts), "a kind is ticked as a whole"
    parts.setCheckState(0, Qt.CheckState.Unchecked)
    dialog.paper.setCurrentIndex(dialog.paper.findData("Letter"))
    dialog.paper.activated.emit(dialog.paper.currentIndex())
    assert Settings(user.window.settings.file).paper == "Letter"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_, **__: (str(tmp_path / "one.pdf"), ""))
    user.bot.mouseClick(dialog.pdf, Qt.MouseButton.LeftButton)
    (page,) = pdfium.PdfDocument(tmp_path / "one.pdf")
    assert (page.get_width() / 72, page.get_height() / 72) == pytest.approx((8.5, 11), abs=0.01)
    dialog.reject()


def test_a_template_is_as_large_on_letter_as_on_a4(user, tmp_path):
    """Measured in the PDF itself, between the ends of the check scale of 100 mm."""
    import pypdfium2 as pdfium

    sheet = next(each for each in all_sheets(user.plan) if each.name == "corner-template")
    for name, paper in PAPERS.items():
        write_pdf((sheet,), tmp_path / f"{name}.pdf", paper)
        (page,) = pdfium.PdfDocument(tmp_path / f"{name}.pdf")
        assert page.get_width() / 72 * 25.4 == pytest.approx(paper[0], abs=0.1)
        dots = page.render(scale=300 / 72).to_numpy()[:, :, 0]
        line = dots[round(30 / 25.4 * 300) + 1 - 3 : round(30 / 25.4 * 300) + 3].min(axis=0)
        dark = [x for x, shade in enumerate(line) if shade < 128]
        ends = [x for x in dark if x - dark[0] < 1200]
        assert (max(ends) - dark[0]) / 300 * 25.4 == pytest.approx(100, abs=0.25)


def test_pages_chosen_in_the_printers_own_dialog_are_honoured(user):
    from PySide6.QtPrintSupport import QPrinter

    sheets = all_sheets(user.plan)
    printer = QPrinter()
    assert pages_of(printer, sheets) == sheets
    printer.setPrintRange(QPrinter.PrintRange.PageRange)
    printer.setFromTo(2, 3)
    assert pages_of(printer, sheets) == sheets[1:3]


@pytest.mark.dear
def test_printing_puts_every_sheet_on_paper_at_full_size(user, tmp_path):
    import pypdfium2 as pdfium
    from PySide6.QtPrintSupport import QPrinter

    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setOutputFormat(QPrinter.OutputFormat.PdfFormat)
    printer.setOutputFileName(str(tmp_path / "printed.pdf"))
    dialog = print_dialog(user)
    assert len(dialog.chosen) == 22
    user.window.papers.exports.print_on(printer, dialog.chosen)
    dialog.reject()
    user.wait_for_files()
    document = pdfium.PdfDocument(tmp_path / "printed.pdf")
    assert len(document) == 22
    page = next(page for page in document if "Corner template" in page.get_textpage().get_text_range())
    assert page.get_width() * 25.4 / 72 > 209, "nothing is shrunk to fit"


def test_what_is_shown_is_written_as_it_stands(user, tmp_path):
    import pypdfium2 as pdfium

    user.go("joints")
    user.window.papers.exports.write_shown(tmp_path / "shown.pdf")
    pages = pdfium.PdfDocument(tmp_path / "shown.pdf")
    text = "".join(page.get_textpage().get_text_range() for page in pages)
    assert "The corner" in text and "Lay the tails of" in text and "1 : " in text
    user.window.papers.exports.write_shown(tmp_path / "shown.svg")
    assert (tmp_path / "shown.svg").read_text().startswith("<?xml")
    user.window.papers.exports.write_shown(tmp_path / "no" / "folder" / "a.pdf")
    assert str(tmp_path / "no" / "folder" / "a.pdf") in as_read(user.window.banner.words)


def test_the_menu_names_what_undo_would_undo(user):
    user.type_figure("contents.length", "300")
    assert "&Undo: length of the contents 300 mm" in [action.text() for action in user.window.menus.actions]
    user.enter("Edit", "Undo")
    assert user.plan.ledger["contents.length"] != 300
    user.enter("File", "Open the sample piece")
    assert user.project.piece.name == "Seed cabinet"


def test_opening_a_saved_project_from_the_command_line(open_window, tmp_path):
    write_project(seed_box(), tmp_path / "box.nullah")
    window = open_window(seed_box())
    assert window.open_path(tmp_path / "box.nullah")
    assert window.document.file == tmp_path / "box.nullah" and not window.document.unsaved
