"""Tapers and shaped edges on the desk: those the piece has, or one that is typed."""

from __future__ import annotations

from collections.abc import Callable

from nullah.core.milling.edge_tasks import KINDS, EdgeTask, tasks_of
from nullah.core.stations.edge_work import selected_task
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.stations.base import Section, chooser, show_choice
from nullah.desk.stations.group import Group
from nullah.desk.stations.numbers import NumberField, Numbers
from nullah.language import tr

_MOST_FIGURES = 6
_TYPED = "typed/"


class EdgeRows(Group):
    """What is to be shaped, and its figures."""

    def __init__(self, document: Document, bench: Bench, row: Callable[[str], Section]) -> None:
        super().__init__(document, bench)
        first = row(tr("Shape"))
        self.task = chooser(tr("what is to be shaped"), [], self._take, first, tr("Shape"))
        self.numbers = Numbers(first, tr("shape"), _MOST_FIGURES, self._type)
        self.fields, self.sentence = self.numbers.fields, self.numbers.sentence
        self.keep(first)
        self._tasks: dict[str, EdgeTask] = {}

    def show_group(self, shown: bool) -> None:
        super().show_group(shown)
        plan = self.document.plan
        task = selected_task(plan, self.document.selection)
        figures = [
            NumberField(plan.reader.text(each.title), figure, each.length)
            for each, figure in zip(KINDS[task.kind].figures, task.figures, strict=True)
        ]
        self.numbers.show_figures(figures, plan.marks, shown)

    def refresh(self) -> None:
        plan = self.document.plan
        found = {f"part/{part.id}/{number}": task for part in plan.parts for number, task in enumerate(tasks_of(part))}
        if found != self._tasks or self.task.count() == 0:
            self._tasks = found
            self.task.clear()
            for key, task in found.items():
                self.task.addItem(f"{task.part}: {plan.reader.text(KINDS[task.kind].title).lower()}", key)
            for kind, what in KINDS.items():
                self.task.addItem(plan.reader.text(what.title), f"{_TYPED}{kind}")
        task = selected_task(plan, self.document.selection)
        same = next((key for key, each in found.items() if each[:2] == task[:2]), f"{_TYPED}{task.kind}")
        show_choice(self.task, same)

    def _take(self, value: str) -> None:
        if value.startswith(_TYPED):
            kind = value.removeprefix(_TYPED)
            self._put(EdgeTask(kind, KINDS[kind].usual))
        else:
            self._put(self._tasks[value])

    def _type(self, figures: tuple[float, ...]) -> None:
        task = selected_task(self.document.plan, self.document.selection)
        self._put(EdgeTask(task.kind, figures, task.part))

    def _put(self, task: EdgeTask) -> None:
        for field in self.fields:
            field.setModified(False)
        milling = self.document.selection.milling._replace(edge_task=(task.kind, task.figures))
        self.document.select(self.document.selection._replace(milling=milling))
