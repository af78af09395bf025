"""Earlier versions and kept work in a list: when, what differs, a drawing to look at, and the way back."""

from __future__ import annotations

from collections.abc import Callable
from functools import partial
from pathlib import Path

from PySide6.QtCore import QPointF, QRectF, QSize, QSizeF, Qt
from PySide6.QtGui import QColor, QPainter, QPixmap
from PySide6.QtWidgets import QDialog, QHBoxLayout, QLabel, QListWidget, QPushButton, QVBoxLayout, QWidget

from nullah.core.catalogue import N_
from nullah.core.named_tuple import NamedTuple
from nullah.core.project import Project
from nullah.core.reader import Reader
from nullah.core.wording.dates import clock, whole_date
from nullah.core.wording.facts import error_words
from nullah.desk.text_label import TextLabel
from nullah.files.errors import ProjectFileError
from nullah.files.recovery import Kept
from nullah.files.versions import Version
from nullah.language import tr
from nullah.paper.lettering import typeface

_PICTURE = QSize(420, 300)
_DELETE, _KEEP = N_("Delete it"), N_("Do not delete it")


class _Line(NamedTuple):
    """One state of a piece that can be gone back to.

    Parameters
    ----------
    title : str
        When, and of what.
    read : callable
        Reads the project; `ProjectFileError` if it is damaged.
    said : callable
        What is to be said of it once it is read.
    """

    title: str
    read: Callable[[], Project]
    said: Callable[[Project], str]


class History(QDialog):
    """A list of states of a piece beside a drawing of the one that is picked.

    Parameters
    ----------
    over : QWidget
    title, verb : str
        Of the dialog; of the button that takes a state.
    lines : list of _Line
        Newest first.
    take : callable
        Called with the number of a line and its project.
    delete : callable or None
        Called with the number of a line that is to be deleted.
    """

    def __init__(
        self,
        over: QWidget,
        title: str,
        verb: str,
        lines: list[_Line],
        take: Callable[[int, Project], None],
        delete: Callable[[int], None] | None = None,
    ) -> None:
        super().__init__(over)
        self.setWindowTitle(title)
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self._lines, self._take, self._delete = lines, take, delete
        self._projects: dict[int, Project] = {}
        self.list = QListWidget()
        self.list.setAccessibleName(title)
        self.list.setFont(typeface(15))
        self.list.setMinimumWidth(320)
        self.list.addItems([line.title for line in lines])
        self.list.currentRowChanged.connect(self._show)
        self.list.itemActivated.connect(lambda: self._taken())
        self.picture = QLabel()
        self.picture.setFixedSize(_PICTURE)
        self.picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.picture.setAccessibleName(tr("Drawing of what is picked"))
        self.said = TextLabel(wraps=True)
        self.said.setFont(typeface(14))
        self.said.setFixedWidth(_PICTURE.width())
        self.said.setMinimumHeight(76)
        self.said.setAlignment(Qt.AlignmentFlag.AlignTop)
        self.taken = QPushButton(verb)
        self.taken.setProperty("main", "true")
        self.taken.clicked.connect(lambda: self._taken())
        self._to_delete: set[int] = set()
        self.deleted = QPushButton(tr(_DELETE))
        self.deleted.setVisible(delete is not None)
        self.deleted.clicked.connect(lambda: self._deleted())
        close = QPushButton(tr("Close"))
        close.clicked.connect(self.reject)
        for button in (self.taken, self.deleted, close):
            button.setMinimumHeight(34)
            button.setAutoDefault(button is self.taken)
        right = QVBoxLayout()
        right.addWidget(self.picture)
        right.addWidget(self.said)
        right.addStretch(1)
        buttons = QHBoxLayout()
        buttons.addWidget(self.deleted)
        buttons.addStretch(1)
        buttons.addWidget(close)
        buttons.addWidget(self.taken)
        row = QHBoxLayout()
        row.addWidget(self.list, 1)
        row.addLayout(right)
        column = QVBoxLayout(self)
        column.addLayout(row, 1)
        column.addLayout(buttons)
        self.list.setCurrentRow(0)

    def _project(self, number: int) -> Project | None:
        """Return the project of a line, read once; None after saying why it cannot be read."""
        if number not in self._projects:
            try:
                self._projects[number] = self._lines[number].read()
            except ProjectFileError as error:
                self.said.setText(error_words(error))
                return None
        return self._projects[number]

    def _show(self, number: int) -> None:
        self.picture.clear()
        self.said.clear()
        self.deleted.setText(tr(_KEEP if number in self._to_delete else _DELETE))
        project = self._project(number) if number >= 0 else None
        self.taken.setEnabled(project is not None)
        if project is None:
            return
        self.said.setText(self._lines[number].said(project))
        self.picture.setPixmap(_drawn(project))

    def _taken(self) -> None:
        number = self.list.currentRow()
        project = self._project(number) if number >= 0 else None
        if project is not None:
            self._to_delete.discard(number)
            self.accept()
            self._take(number, project)

    def _deleted(self) -> None:
        """Mark the line as to be deleted, or not: nothing is deleted before the dialog is closed."""
        number = self.list.currentRow()
        if number < 0:
            return
        self._to_delete ^= {number}
        marked = tr(" · deleted when this is closed") if number in self._to_delete else ""
        self.list.item(number).setText(f"{self._lines[number].title}{marked}")
        self._show(number)

    def done(self, result: int) -> None:
        super().done(result)
        for number in self._to_delete:
            if self._delete is not None:
                self._delete(number)


def _drawn(project: Project) -> QPixmap:
    """Return the piece as its first station draws it, as large as there is room."""
    from nullah.core.plan import work_out
    from nullah.core.stations import STATIONS
    from nullah.core.stations.selection import Selection
    from nullah.paper.painter import extent, paint
    from nullah.paper.palette import DAY
    from nullah.paper.scale import Scale

    drawing = STATIONS[0].draw(work_out(project, milling=False, proving=False), Selection())
    if not drawing.elements:
        return QPixmap()
    # As large as it may be with its words, which do not grow with it.
    room, paper = QRectF(QPointF(0, 0), QSizeF(_PICTURE)).adjusted(8, 8, -8, -8), 3.4
    scale = Scale(1.0, paper)
    for _ in range(4):
        now = extent(drawing, scale)
        grows = min(room.width() / max(now.width(), 1.0), room.height() / max(now.height(), 1.0))
        scale = Scale(scale.per_mm * grows, paper)
    now = extent(drawing, scale)
    middle = room.center() - now.center()
    made = QPixmap(_PICTURE)
    made.fill(QColor(DAY.sheet))
    painter = QPainter(made)
    paint(painter, drawing, Scale(scale.per_mm, paper, (middle.x(), middle.y())), DAY)
    painter.end()
    return made


def versions_dialog(
    over: QWidget, now: Project, file: Path, versions: list[Version], take: Callable[[Project], None]
) -> History:
    """Return the dialog of a file's earlier versions; `take` is called with the one to go back to."""
    from nullah.files.project_file import read_project

    reader = Reader(now.marks)
    lines = [
        _Line(
            f"{whole_date(each.saved, reader)}, {each.saved:%H:%M:%S}",
            partial(read_project, each.path),
            partial(_since, now),
        )
        for each in versions
    ]
    title = tr("Earlier versions of {name}", name=file.name)
    return History(over, title, tr("Go back to it"), lines, lambda _, project: take(project))


def _since(now: Project, then: Project) -> str:
    from nullah.core.plan import work_out
    from nullah.core.wording.differences import difference_words
    from nullah.files.project_file import parse_project, project_text

    # As a file gives both back: what nobody typed is no difference.
    kept = parse_project(project_text(now), "now")
    plan = work_out(kept, milling=False, proving=False)
    return tr("Since then: {differences}", differences=difference_words(then, kept, plan.ledger, plan.reader))


def kept_dialog(over: QWidget, found: list[Kept], reader: Reader, take: Callable[[Kept], None]) -> History:
    """Return the dialog of kept work; `take` is called with what is to be opened."""

    def title(kept: Kept) -> str:
        try:
            name = kept.read().piece.name
        except ProjectFileError:
            name = tr("cannot be read")
        return f"{name} · {whole_date(kept.when, reader)}, {clock(kept.when)}"

    def said(kept: Kept, _: Project) -> str:
        where = tr("Of {file}.", file=kept.file) if kept.file else tr("It was never saved to a file.")
        newer = tr(" That file was changed after this was kept: opening it asks which one is to stay.")
        return where + (newer if kept.file_is_newer else "")

    def delete(number: int) -> None:
        found[number].drop()

    lines = [_Line(title(kept), kept.read, partial(said, kept)) for kept in found]
    return History(over, tr("Kept work"), tr("Open it"), lines, lambda number, _: take(found[number]), delete)
