"""What is picked on the bench, and what can be done with it: its tag, the context menu, the menu *Piece*."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import QPoint, QPointF, QRectF, Qt, QTimer
from PySide6.QtWidgets import QMenu

from nullah.core.refs import Ref
from nullah.core.wording.targets import TargetWords, target_words
from nullah.desk.frame import FrameWindow
from nullah.desk.stations.base import StationDesk
from nullah.desk.tag import fill_menu
from nullah.language import tr

#: The drawing rests when it was not moved for so long, ms.
_REST = 60


class Picked:
    """What is picked at the station in hand.

    Parameters
    ----------
    window : FrameWindow
    desk : callable
        Gives the desk of the station in hand.
    clicked : callable
        Picks what lies under the pointer, as a click does.
    """

    def __init__(
        self, window: FrameWindow, desk: Callable[[], StationDesk], clicked: Callable[[Ref | None, QPointF], None]
    ) -> None:
        self._window, self._desk, self._clicked = window, desk, clicked
        self._document, self._bench, self._tag = window.document, window.bench, window.tag
        self._bench.menu_wanted.connect(self._open_menu)
        self._bench.moved.connect(self._carry_tag)
        #: How far the tag stands from what it is about, pixels.
        self._apart = QPointF()
        self._resting = QTimer(window)
        self._resting.setSingleShot(True)
        self._resting.setInterval(_REST)
        self._resting.timeout.connect(self.place_tag)

    def ref(self) -> Ref | None:
        """Return what is picked at the station in hand and has verbs."""
        return self._desk().picked()

    def words_of(self, ref: Ref) -> TargetWords | None:
        """Return what a thing on the bench is called, and its value."""
        from nullah.core.stations.targets import target_of  # of all stations: not before something is pointed at

        plan = self._document.plan
        target = target_of(ref, plan, self._document.selection)
        return target_words(target, plan.reader) if target is not None else None

    def verbs_of(self, ref: Ref) -> tuple[str, ...]:
        """Return what can be done with a thing on the bench."""
        return tuple(verb.text for verb in self._desk().verbs(ref))

    def show_tag(self) -> None:
        """Show what can be done with what is picked."""
        ref = self.ref()
        self._tag.show_verbs(self._desk().verbs(ref) if ref is not None else ())
        self.place_tag()

    def place_tag(self) -> None:
        """Stand the tag beside what is picked."""
        ref = self.ref()
        where = self._bench.box_of(ref) if ref is not None else None
        if where is None:
            self._tag.hide()
        else:
            self._tag.stand_by(where, self._bench.drawn_boxes())
            self._apart = QPointF(self._tag.pos()) - where.topLeft()
            self._tag.setVisible(self._bench.rect().intersects(where.toAlignedRect()))
        self._bench.keep_clear(QRectF(self._tag.geometry()) if self._tag.isVisibleTo(self._bench) else None)

    def _carry_tag(self) -> None:
        """Carry the tag with what it is about; where it stands best is looked for once the drawing rests."""
        self._resting.start()
        ref = self.ref() if self._tag.isVisibleTo(self._bench) else None
        where = self._bench.box_of(ref) if ref is not None else None
        if where is not None:
            self._tag.move((where.topLeft() + self._apart).toPoint())

    def fill_verbs(self, menu: QMenu, ref: Ref | None) -> None:
        """Put what can be done with something into a menu."""
        if ref is not None:
            fill_menu(menu, self._desk().verbs(ref))

    def fill_picked(self, menu: QMenu) -> None:
        """Put what can be done with what is picked into a menu."""
        self.fill_verbs(menu, self.ref())

    def _open_menu(self, ref: Ref | None, at: QPoint) -> None:
        """Open the context menu of what lies under the pointer, which is picked by it."""
        if ref is not None and self._desk().verbs(ref):
            self._clicked(ref, QPointF(self._bench.mapFromGlobal(at)))
        menu = QMenu(self._window)
        menu.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        self.fill_verbs(menu, ref)
        if menu.actions():
            menu.addSeparator()
        menu.addAction(tr("Fit")).triggered.connect(lambda: self._bench.fit())
        menu.addAction(tr("True size")).triggered.connect(lambda: self._bench.true_size())
        menu.addAction(tr("Copy the drawing")).triggered.connect(lambda: self._window.copy_drawing())
        menu.popup(at)
