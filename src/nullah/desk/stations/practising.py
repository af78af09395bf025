"""The row for the practice joint: how long it took, its widest gap, where it was tight; and how it goes."""

from __future__ import annotations

from collections.abc import Callable
from datetime import date
from pathlib import Path

from nullah.core.joints.practice import TIGHT, JointTry, PracticeError, check
from nullah.core.lengths import LengthError, read_length
from nullah.core.limits import read_number
from nullah.core.wording.facts import error_words
from nullah.core.wording.practice import progress_words
from nullah.desk.document import Document
from nullah.desk.stations.base import Section, action, chooser, entry, labelled, words
from nullah.files.practice import practice_file, read_joints, write_joints
from nullah.language import tr, tr_pairs


class PracticeRow:
    """Keeps tries on this machine, not in the project.

    `today` and `file` may be put in the place of the clock and of the user's own record.
    """

    def __init__(self, document: Document, row: Section, changed: Callable[[], None]) -> None:
        self._document = document
        self.today: Callable[[], date] = date.today
        self.file: Path = practice_file()
        self._changed = changed
        self.minutes = entry(tr("minutes it took"), 52, self.enter)
        self.gap = entry(tr("its widest gap"), 64, self.enter)
        labelled(tr("minutes it took"), self.minutes, row)
        labelled(tr("widest gap"), self.gap, row)
        self.tight = chooser(tr("where it was tight"), tr_pairs((each, each) for each in TIGHT), lambda _: None, row)
        self.keep = action(tr("Keep this try"), self.enter, row)
        self.told = words("", row)

    def refresh(self) -> None:
        """Show how it goes."""
        marks = self._document.project.marks
        self.gap.setPlaceholderText(marks.style.suffix.strip())
        self._say(progress_words(read_joints(self.file), self._document.plan.reader))

    def _say(self, sentence: str) -> None:
        self.told.setText(sentence)

    def enter(self) -> None:
        """Keep a try, and say how it goes."""
        minutes, gap = read_number(self.minutes.text()), self._gap()
        if minutes is None or gap is None:
            self._say(tr("How many minutes, and how wide is the widest gap? Figures, please."))
            return
        try:
            done = JointTry(self.today().isoformat(), minutes, gap, str(self.tight.currentData()))
            check(done)
        except PracticeError as error:
            self._say(error_words(error, self._document.plan.reader))
            return
        sentence = write_joints(self.file, (*read_joints(self.file), done))
        for field in (self.minutes, self.gap):
            field.clear()
        self._changed()
        if sentence:
            self._say(sentence)

    def _gap(self) -> float | None:
        """Return the gap that is typed, mm; None where it is none."""
        try:
            return float(read_length(self.gap.text(), self._document.project.marks.unit))
        except LengthError:
            return None
