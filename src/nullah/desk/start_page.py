"""The page from which a piece is begun: the forms drawn small, pieces worked on lately, the sample; units at first."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QSize, Qt, Signal
from PySide6.QtGui import QIcon, QImage, QKeyEvent, QPixmap
from PySide6.QtWidgets import (
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QPushButton,
    QScrollArea,
    QToolButton,
    QVBoxLayout,
    QWidget,
)

from nullah.core.forms import FORMS
from nullah.core.lengths import STYLES, Unit
from nullah.core.project import Piece, Project
from nullah.desk.document import Document
from nullah.desk.settings import Settings
from nullah.desk.stations.base import Flow
from nullah.desk.text_label import TextLabel
from nullah.desk.thumbnails import Thumbnails, thumbnail
from nullah.language import tr
from nullah.paper.lettering import typeface
from nullah.paper.palette import Palette

_PICTURE = (148, 104)


class StartPage(QWidget):
    """What can be begun or opened. `begun` carries a form and a unit, `opened` a file; `left` follows Escape,
    `tour` asks for the walk through a first box."""

    begun = Signal(str, object)
    opened = Signal(Path)
    sample = Signal()
    left = Signal()
    tour = Signal()

    def __init__(self, document: Document, settings: Settings, palette: Palette, over: QWidget) -> None:
        super().__init__(over)
        self.setObjectName("overPage")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Start page"))
        self._document, self._settings, self._palette = document, settings, palette
        self._painter = Thumbnails(self)
        self._painter.painted.connect(self._take)
        self._painted_for: tuple[object, ...] = ()
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        self._area = QScrollArea()
        self._area.setWidgetResizable(True)
        self._area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        whole.addWidget(self._area)
        body = QWidget()
        body.setObjectName("overBody")
        self._area.setWidget(body)
        column = QVBoxLayout(body)
        column.setContentsMargins(48, 26, 48, 26)
        column.setSpacing(10)
        head = QHBoxLayout()
        title = TextLabel(tr("What will you make?"))
        title.setFont(typeface(30, bold=True))
        head.addWidget(title)
        head.addStretch(1)
        self.units = self._units(head)
        column.addLayout(head)
        self.ask = TextLabel(
            tr(
                "Which of these do you think in? A new piece begins at sizes that are round in it; "
                "any of them can be typed and shown at any time."
            ),
            wraps=True,
            quiet=True,
        )
        column.addWidget(self.ask)
        self.forms: dict[str, QToolButton] = {}
        self.recent: dict[Path, QToolButton] = {}
        column.addLayout(self._forms())
        column.addSpacing(8)
        self._recent_title = TextLabel(tr("Worked on lately"))
        self._recent_title.setProperty("heading", "true")
        column.addWidget(self._recent_title)
        self._recent = QGridLayout()
        self._recent.setSpacing(6)
        column.addLayout(self._recent)
        foot = QHBoxLayout()
        self.walk = self._foot(tr("A first box in ten minutes"), self.tour.emit, foot)
        self.open_sample = self._foot(tr("Open the sample piece"), self.sample.emit, foot)
        self.back = self._foot(tr("Go on with the open piece"), self.left.emit, foot)
        foot.addStretch(1)
        column.addLayout(foot)
        column.addStretch(1)

    def _foot(self, text: str, act: object, row: QHBoxLayout) -> QPushButton:
        button = QPushButton(text)
        button.setMinimumHeight(36)
        button.clicked.connect(act)
        row.addWidget(button)
        return button

    def _units(self, row: QHBoxLayout) -> QButtonGroup:
        group = QButtonGroup(self)
        for index, style in enumerate(STYLES.values()):
            button = QPushButton(tr(style.name))
            button.setCheckable(True)
            button.setAutoExclusive(True)
            button.setProperty("tab", "true")
            button.setMinimumHeight(36)
            button.setAccessibleName(tr("Begin in {name}", name=tr(style.name)))
            group.addButton(button, index)
            row.addWidget(button)
        group.idClicked.connect(lambda _: self.refresh())
        chosen = self._settings.unit or self._document.project.marks.unit
        group.button(list(STYLES).index(chosen)).setChecked(True)
        return group

    def _forms(self) -> Flow:
        flow = Flow()
        flow.setSpacing(10)
        for form in FORMS.values():
            button = QToolButton()
            button.setObjectName("form")
            button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextUnderIcon)
            button.setIconSize(QSize(*_PICTURE))
            button.setText(tr(form.title))
            button.setAccessibleName(tr("Begin: {title}", title=tr(form.title)))
            button.setFixedSize(_PICTURE[0] + 22, _PICTURE[1] + 46)
            button.clicked.connect(lambda _=False, form=form.id: self.begun.emit(form, self.unit))
            self.forms[form.id] = button
            flow.addWidget(button)
        return flow

    @property
    def unit(self) -> Unit:
        """The unit that is chosen."""
        return list(STYLES)[self.units.checkedId()]

    def refresh(self) -> None:
        """Show what there is now, and have what is missing painted."""
        first = self._settings.unit is None
        self.ask.setVisible(first)
        self.back.setVisible(bool(self._document.plan.parts))
        anew = self._palette != self._painted_for
        if anew:
            self._painter.drop()
        self._show_recent()
        if not anew:
            return
        self._painted_for = self._palette
        for form in FORMS:
            self._painter.ask(form, self._example(form), _PICTURE, self._palette)

    def _example(self, form: str) -> Project:
        """Return a piece of a form at its usual sizes; a piece of one's own is empty then, so another is shown."""
        if form == "own":
            from nullah.demo.plant_stair import plant_stair

            return plant_stair()
        return Project(piece=Piece(form))

    def _show_recent(self) -> None:
        while (item := self._recent.takeAt(0)) is not None:
            widget = item.widget()
            if widget is not None:
                widget.hide()
                widget.deleteLater()
        self.recent = {}
        found = [path for path in self._settings.recent if path.is_file()]
        self._recent_title.setVisible(bool(found))
        for number, path in enumerate(found[:6]):
            button = QToolButton()
            button.setObjectName("recent")
            button.setToolButtonStyle(Qt.ToolButtonStyle.ToolButtonTextBesideIcon)
            button.setIconSize(QSize(_PICTURE[0] // 2, _PICTURE[1] // 2))
            button.setText(self.fontMetrics().elidedText(path.stem, Qt.TextElideMode.ElideRight, 220))
            button.setToolTip(str(path))
            button.setAccessibleName(tr("Open {name}", name=path.name))
            button.setFixedSize(330, _PICTURE[1] // 2 + 12)
            button.clicked.connect(lambda _=False, path=path: self.opened.emit(path))
            self._recent.addWidget(button, number // 3, number % 3, Qt.AlignmentFlag.AlignLeft)
            self.recent[path] = button
            self._paint_file(button, path)
        self._recent.setColumnStretch(3, 1)

    def _paint_file(self, button: QToolButton, path: Path) -> None:
        from nullah.files.errors import ProjectFileError
        from nullah.files.project_file import read_project

        try:
            project = read_project(path)
        except ProjectFileError:
            button.setToolTip(tr("{path}: it cannot be read", path=path))
            return
        self._painter.ask(path, project, (_PICTURE[0] // 2, _PICTURE[1] // 2), self._palette)

    def _take(self, key: object, image: QImage) -> None:
        button = self.recent.get(key) if isinstance(key, Path) else self.forms.get(str(key))
        if button is not None:
            button.setIcon(QIcon(QPixmap.fromImage(image)))

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        self._palette = palette
        if self.isVisible():
            self.refresh()

    def keyPressEvent(self, event: QKeyEvent) -> None:
        if event.key() == Qt.Key.Key_Escape:
            self.left.emit()
        else:
            super().keyPressEvent(event)

    def paint_now(self) -> None:
        """Paint what is still to be painted at once: for pictures of the page."""
        self._painter.drop()
        for form in FORMS:
            self._take(form, thumbnail(self._example(form), _PICTURE, self._palette))

    def rest(self) -> None:
        """Drop what is still to be painted: the window closes."""
        self._painter.drop()
