"""The bench for those who cannot see it: each thing on it an object with a name, a value and what can be done."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace

from PySide6.QtCore import Qt
from PySide6.QtGui import QAccessible, QAccessibleAnnouncementEvent, QPaintEvent
from PySide6.QtWidgets import QAbstractButton, QWidget

from nullah.core.drawing import Label
from nullah.core.refs import Ref
from nullah.core.wording.targets import TargetWords
from nullah.desk.bench import Bench

#: So many things are told of one drawing; a list that is longer is not walked through.
MOST_OBJECTS = 300


class _Object(QAbstractButton):
    """A thing on the bench: it lies where the thing is drawn, takes no mouse and paints nothing."""

    def __init__(self, bench: Bench) -> None:
        super().__init__(bench)
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.ref: Ref | None = None
        self.clicked.connect(self._take)

    def _take(self) -> None:
        bench = self.parentWidget()
        if isinstance(bench, Bench) and self.ref is not None:
            bench.hot = self.ref
            bench.clicked.emit(self.ref, bench.place_of(self.ref))

    def paintEvent(self, event: QPaintEvent) -> None:
        """Paint nothing: the drawing is the bench's."""


class BenchObjects:
    """Keeps the objects of a bench, while a screen reader asks for them.

    `words_of` gives the name and value of what a reference points at, None where the drawing's own words tell it;
    `verbs_of` what can be done with it, in words.
    """

    def __init__(
        self, bench: Bench, words_of: Callable[[Ref], TargetWords | None], verbs_of: Callable[[Ref], tuple[str, ...]]
    ) -> None:
        self._bench, self._words_of, self._verbs_of = bench, words_of, verbs_of
        self._objects: list[_Object] = []
        bench.moved.connect(self._lay)
        bench.pointed.connect(self._tell_pointed)

    @property
    def objects(self) -> tuple[QAbstractButton, ...]:
        """The objects, in reading order."""
        return tuple(self._objects)

    def refresh(self) -> None:
        """Take what the bench shows now."""
        if not QAccessible.isActive():
            return
        targets = self._bench.targets()[:MOST_OBJECTS]
        while len(self._objects) > len(targets):
            self._objects.pop().deleteLater()
        while len(self._objects) < len(targets):
            self._objects.append(_Object(self._bench))
        for each, ref in zip(self._objects, targets, strict=True):
            each.ref = ref
            words = self.words(ref)
            if each.accessibleName() != words.name:
                each.setAccessibleName(words.name)
            if each.accessibleDescription() != words.value:
                each.setAccessibleDescription(words.value)
            each.show()
        self._lay()

    def words(self, ref: Ref) -> TargetWords:
        """Return the name of a thing and what it says, with what can be done with it."""
        found = self._words_of(ref)
        if found is None:
            own = [e.text for e in self._bench.drawing.elements if isinstance(e, Label) and e.ref == ref]
            found = TargetWords(", ".join(own))
        verbs = self._verbs_of(ref)
        return replace(found, value="; ".join(part for part in (found.value, ", ".join(verbs)) if part))

    def _lay(self) -> None:
        for each in self._objects:
            box = self._bench.box_of(each.ref) if each.ref is not None else None
            if box is not None:
                each.setGeometry(box.toAlignedRect())

    def _tell_pointed(self) -> None:
        """Say what the keyboard points at."""
        if self._bench.hot is not None and QAccessible.isActive():
            words = self.words(self._bench.hot)
            announce(self._bench, f"{words.name}: {words.value}" if words.value else words.name)


def announce(widget: QWidget, text: str) -> None:
    """Let a screen reader say something."""
    if text and QAccessible.isActive():
        QAccessible.updateAccessibility(QAccessibleAnnouncementEvent(widget, text))
