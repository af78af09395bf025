"""Going through the steps of a joint one by one."""

from __future__ import annotations

from nullah.core.joints.kinds import JointGroup
from nullah.core.work.joint_work import joint_work
from nullah.desk.document import Document
from nullah.desk.stations.base import OneLine, action, tabs
from nullah.language import tr


class Stepping:
    """A button that shows one step after the other, and two that go on and back."""

    def __init__(self, document: Document, line: OneLine) -> None:
        self._document = document
        self._last = 0
        self.looks = tabs(line, ((None, tr("Joint")), (0, tr("Step by step"))), self._show, line.looks)
        self.open = self.looks[0]
        self.back = action(tr("Step before"), lambda: self._go(-1), line.verbs)
        self.on = action(tr("Next step"), lambda: self._go(1), line.verbs, main=True)

    def _go(self, by: int) -> None:
        self._show(min(max((self._document.selection.joints.step or 0) + by, 0), self._last))

    def _show(self, step: int | None) -> None:
        selection = self._document.selection
        self._document.select(selection._replace(joints=selection.joints._replace(step=step)))

    def show_kind(self, kind: JointGroup | None) -> None:
        """Show where one is among the steps of a joint, or nothing where it has none."""
        steps = joint_work(self._document.plan, kind).steps if kind is not None else ()
        step = self._document.selection.joints.step
        stepping = bool(steps) and step is not None
        self._last = max(len(steps) - 1, 0)
        self.open.setEnabled(bool(steps))
        self.looks[0 if stepping else None].setChecked(True)
        for button in (self.back, self.on):
            button.setVisible(stepping)
        self.back.setEnabled(step is not None and step > 0)
        self.on.setEnabled(step is not None and step < self._last)
