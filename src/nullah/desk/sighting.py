"""Reading the winding sticks: an exercise as one sees it, an answer, and at once what the board really is."""

from __future__ import annotations

import random
from collections.abc import Callable
from datetime import date
from pathlib import Path

from PySide6.QtCore import QSize, Qt
from PySide6.QtGui import QColor, QKeyEvent, QPainter, QPaintEvent
from PySide6.QtWidgets import QLineEdit, QVBoxLayout, QWidget

from nullah.core.catalogue import N_
from nullah.core.drawing import Drawing
from nullah.core.lengths import LengthError, Marks, from_float, read_length
from nullah.core.milling.sighting import (
    BEGINS,
    Answer,
    Exercise,
    Marked,
    Try,
    answered,
    exercise,
    mark,
    next_level,
    progress_of,
    shown_rise,
    sight,
)
from nullah.core.reader import Reader
from nullah.core.wording.sighting import begins_words, progress_words
from nullah.desk.stations.base import chooser, labelled
from nullah.desk.stations.group import ViewChoices
from nullah.desk.text_label import TextLabel
from nullah.files.practice import practice_file, read_practice, write_practice
from nullah.language import tr, tr_pairs
from nullah.paper.painter import paint
from nullah.paper.palette import DAY, Palette
from nullah.paper.scale import Scale

_PLACES = [("1", N_("at the far end")), ("0.5", N_("in the middle"))]
_HIGH = [("left", N_("far left end")), ("right", N_("far right end")), ("true", N_("neither: in line"))]


class _View(QWidget):
    """What the eye sees."""

    def __init__(self) -> None:
        super().__init__()
        self.palette_: Palette = DAY
        self.shown = Drawing()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Two winding sticks over a board, as one sights along it"))

    def sizeHint(self) -> QSize:
        return QSize(640, 420)

    def minimumSizeHint(self) -> QSize:
        return QSize(320, 200)

    def paintEvent(self, event: QPaintEvent) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), QColor(self.palette_.sheet))
        if self.shown.elements:
            left, top, right, bottom = self.shown.bounds()
            per_mm = min((self.width() - 40) / max(right - left, 1.0), (self.height() - 40) / max(bottom - top, 1.0))
            shift = (self.width() / 2 - (left + right) / 2 * per_mm, self.height() / 2 - (top + bottom) / 2 * per_mm)
            paint(painter, self.shown, Scale(per_mm, 4.5, shift), self.palette_)
        if self.hasFocus():
            painter.setPen(QColor(self.palette_.accent))
            painter.drawRect(self.rect().adjusted(0, 0, -1, -1))
        painter.end()


def _under(above: Drawing, below: Drawing) -> Drawing:
    """Put one drawing under another, as wide as that."""
    left, _, right, bottom = above.bounds()
    b_left, b_top, b_right, _ = below.bounds()
    scale = (right - left) * 0.62 / (b_right - b_left)
    middle = (left + right) / 2 - (b_left + b_right) / 2 * scale
    return above + below.moved(middle, bottom + (right - left) * 0.03 - b_top * scale, scale)


class SightingPage(QWidget):
    """One exercise after another; the record of progress is kept on this machine.

    `today` may be put in the place of the clock; `seed` gives the order of the exercises; `marks` tells the unit
    that is shown.
    """

    def __init__(
        self,
        choices: ViewChoices,
        file: Path | None = None,
        seed: int | None = None,
        marks: Callable[[], Marks] = Marks,
    ) -> None:
        super().__init__()
        self._marks, self.choices = marks, choices
        self.file = file or practice_file()
        self.today: Callable[[], date] = date.today
        self.tries: tuple[Try, ...] = read_practice(self.file)
        self._chance = random.Random(seed)
        self.exercise: Exercise = exercise(0, 0)
        self.marked: Marked | None = None
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 8, 14, 8)
        row = choices.section(tr("What do you see?"))
        self.at = chooser(
            tr("where the far stick stands"), tr_pairs(_PLACES), lambda _: self._show(), row, tr("Far stick")
        )
        self.high = chooser(tr("which end stands high"), tr_pairs(_HIGH), lambda _: None, row, tr("Stands high"))
        self.rise = QLineEdit()
        self.rise.setAccessibleName(tr("by how much at the stick's end"))
        self.rise.setFixedWidth(60)
        self.rise.setMinimumHeight(32)
        self.rise.returnPressed.connect(self.answer)
        labelled(tr("by how much at its end"), self.rise, row)
        begins = [(str(share), begins_words(share, self._reader())) for share in BEGINS]
        self.begins = chooser(tr("where the wind begins"), begins, lambda _: None, row, tr("begins"))
        self.say = choices.verb(tr("Compare"), self.answer, main=True)
        self.next = choices.verb(tr("Next board"), self.next_board)
        self.ask = TextLabel(wraps=True)
        column.addWidget(self.ask)
        self.view = _View()
        column.addWidget(self.view, 1)
        self.told = TextLabel(wraps=True)
        self.told.setAccessibleName(tr("What it was"))
        self.progress = TextLabel(wraps=True, quiet=True)
        column.addWidget(self.told)
        column.addWidget(self.progress)
        self.setFocusProxy(self.rise)
        self.next_board()

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self.view.palette_ = palette
        self.view.update()

    def next_board(self) -> None:
        """Lay the next board on the bench."""
        self.exercise = exercise(next_level(self.tries), self._chance.randrange(1_000_000))
        self.marked = None
        given = self.exercise
        write = self._marks().write
        long, wide = from_float(given.wound.length), from_float(given.wound.width)
        size = tr("{length} by {width}", length=write(long, unit=False), width=write(wide))
        self.ask.setText(
            tr(
                "A board {size}, sticks {length} long. The near one is all dark; the far one, behind "
                "it, has a pale edge. To see where the wind begins, move the far stick to the middle and "
                "look again.",
                size=size,
                length=write(from_float(given.stick)),
            )
        )
        self.at.setCurrentIndex(0)
        self.told.setText("")
        self.rise.setText("")
        self._show()

    def _show(self) -> None:
        given = self.exercise
        far = given.wound.length * float(str(self.at.currentData()))
        shown = sight(given.wound, 0.0, far, given.stick, given.eye)
        if self.marked is not None:
            shown = _under(shown, answered(given.wound))
        self.view.shown = shown
        self.view.update()
        self.progress.setText(progress_words(progress_of(self.tries), self._reader()))
        self.say.setEnabled(self.marked is None)

    def answer(self) -> None:
        """Mark what was read, show the surface, and keep the record."""
        if self.marked is not None:
            self.next_board()
            return
        high = str(self.high.currentData())
        try:
            rise = 0.0 if high == "true" else float(read_length(self.rise.text(), self._marks().unit))
        except LengthError:
            self.told.setText(tr("By how much? A guess is an answer."))
            return
        given = Answer(high, rise, float(str(self.begins.currentData())))
        self.marked = mark(given, self.exercise)
        done = Try(self.today().isoformat(), self.exercise.level, self.marked.right, round(self.marked.rise_off, 2))
        self.tries = (*self.tries, done)
        sentence = write_practice(self.file, self.tries)
        self.told.setText(f"{self._in_words(self.marked)}{' ' + sentence if sentence else ''}")
        self._show()

    def _in_words(self, marked: Marked) -> str:
        wound = self.exercise.wound
        rise = shown_rise(wound, 0.0, wound.length, self.exercise.stick)
        if abs(rise) < 0.05:
            was = tr("The board is true: the edges are in line, whatever the head's tilt.")
        else:
            side, where = tr("right") if rise > 0 else tr("left"), begins_words(wound.begins, self._reader())
            over = abs(wound.wind)
            was = tr(
                "The far {side} end stands {rise} high at the stick, {over_all} over the board; it begins {where}.",
                side=side,
                rise=self._fine(abs(rise)),
                over_all=self._fine(over),
                where=where,
            )
        if marked.right:
            return f"Right. {was}"
        wrong = [
            words
            for ok, words in (
                (marked.high_right, tr("which end")),
                (marked.rise_right, tr("how much ({off} off)", off=self._fine(marked.rise_off))),
                (marked.begins_right, tr("where it begins")),
            )
            if not ok
        ]
        return tr(
            "Not {wrong}. {was} The net shows the face, eight times too high.", wrong=tr(" nor ").join(wrong), was=was
        )

    def _reader(self) -> Reader:
        return Reader(self._marks())

    def _fine(self, millimetres: float) -> str:
        return self._marks().write_fine(from_float(millimetres))

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.answer()
        else:
            super().keyPressEvent(event)
