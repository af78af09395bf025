"""Tapers and shaped edges on the desk: those the piece has, or one that is typed."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtWidgets import QLabel, QLineEdit

from nullah.core.milling.edge_tasks import KINDS, Task, tasks_of
from nullah.core.stations.edge_work import task_in_hand
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import Flow, chooser, labelled, show_choice
from nullah.desk.stations.group import Group

_MOST_FIGURES = 6
_TYPED = "typed/"


class EdgeRows(Group):
    """What is to be shaped, and its figures in mm (and degrees)."""

    def __init__(self, document: Document, bench: Bench, row: Callable[[], Flow]) -> None:
        super().__init__(document, bench)
        first = row()
        self.task = chooser("what is to be shaped", [], self._take, first, "Shape")
        self.fields: list[QLineEdit] = []
        self._pairs = []
        for number in range(_MOST_FIGURES):
            field = QLineEdit()
            field.setAccessibleName(f"figure {number + 1} of the shape")
            field.setFixedWidth(56)
            field.setMinimumHeight(32)
            field.returnPressed.connect(self._type)
            self.fields.append(field)
            self._pairs.append(labelled("", field, first))
        self.sentence = QLabel()
        self.sentence.setProperty("weight", "fails")
        first.addWidget(self.sentence)
        self.keep(first)
        self._tasks: dict[str, Task] = {}

    def refresh(self) -> None:
        plan = self.document.plan
        found = {f"part/{part.id}/{number}": task for part in plan.parts for number, task in enumerate(tasks_of(part))}
        if found != self._tasks or self.task.count() == 0:
            self._tasks = found
            self.task.clear()
            for key, task in found.items():
                self.task.addItem(f"{task.of}: {KINDS[task.kind].title.lower()}", key)
            for kind, what in KINDS.items():
                self.task.addItem(what.title, f"{_TYPED}{kind}")
        task = task_in_hand(plan, self.document.hand)
        same = next((key for key, each in found.items() if each[:2] == task[:2]), f"{_TYPED}{task.kind}")
        show_choice(self.task, same)
        names = KINDS[task.kind].figures
        for number, (field, pair) in enumerate(zip(self.fields, self._pairs, strict=True)):
            shown = number < len(names)
            pair.setVisible(shown and self.task.isVisibleTo(self.task.window()))
            if shown:
                label = pair.findChild(QLabel)
                if isinstance(label, QLabel):
                    label.setText(names[number][0])
                    label.setMinimumWidth(label.sizeHint().width())
                if not (field.hasFocus() and field.isModified()):
                    field.setText(f"{task.figures[number]:g}")
        self.sentence.setText("")

    def show_group(self, shown: bool) -> None:
        super().show_group(shown)
        if shown:
            names = KINDS[task_in_hand(self.document.plan, self.document.hand).kind].figures
            for number, pair in enumerate(self._pairs):
                pair.setVisible(number < len(names))

    def _take(self, value: str) -> None:
        if value.startswith(_TYPED):
            kind = value.removeprefix(_TYPED)
            task = Task(kind, tuple(usual for _, usual in KINDS[kind].figures))
        else:
            task = self._tasks[value]
        self._put(task)

    def _type(self) -> None:
        """Take the figures as they are typed; say which is none."""
        task = task_in_hand(self.document.plan, self.document.hand)
        figures = []
        for (name, _), field in zip(KINDS[task.kind].figures, self.fields, strict=False):
            try:
                figures.append(float(field.text().replace(",", ".")))
            except ValueError:
                self.sentence.setText(f"{name}: “{field.text()}” is not a figure.")
                return
            field.setModified(False)
        self._put(Task(task.kind, tuple(figures), task.of))

    def _put(self, task: Task) -> None:
        for field in self.fields:
            field.setModified(False)
        self.document.set_hand(self.document.hand._replace(task=(task.kind, task.figures)))
