"""Pages that lie over the whole frame: the one from which a piece is begun, and that of one's own shop."""

from __future__ import annotations

from collections.abc import Callable

from PySide6.QtCore import Signal
from PySide6.QtWidgets import QWidget

from nullah.desk.document import Document
from nullah.desk.settings import Settings
from nullah.paper.palette import Palette

TYPE_CHECKING = False
if TYPE_CHECKING:
    from nullah.desk.my_shop import MyShopPage
    from nullah.desk.start_page import StartPage


class OverPages(QWidget):
    """The pages of a frame, each made when it is first wanted; one is shown at a time, or none.

    `begun` carries the form and unit of a new piece, `opened` a file; `sample` asks for the sample piece, `tour` for
    the walk through a first box; `left` tells that the frame is seen again.
    """

    begun = Signal(str, object)
    opened = Signal(object)
    sample = Signal()
    left = Signal()
    tour = Signal()

    def __init__(self, document: Document, settings: Settings, frame: QWidget, palette: Callable[[], Palette]) -> None:
        super().__init__(frame)
        self.hide()
        self._document, self._settings, self._frame, self._palette = document, settings, frame, palette
        self._start: StartPage | None = None
        self._shop: MyShopPage | None = None

    @property
    def start(self) -> StartPage:
        """The page from which a piece is begun."""
        if self._start is None:
            from nullah.desk.start_page import StartPage

            self._start = StartPage(self._document, self._settings, self._palette(), self._frame)
            self._start.begun.connect(self.begun)
            self._start.opened.connect(self.opened)
            self._start.sample.connect(self.sample)
            self._start.left.connect(self.leave)
            self._start.tour.connect(self.tour)
        return self._start

    @property
    def shop(self) -> MyShopPage:
        """The page of tools and habits."""
        if self._shop is None:
            from nullah.desk.my_shop import MyShopPage

            self._shop = MyShopPage(self._document, self._settings, self._frame)
            self._shop.left.connect(self.leave)
            self._shop.warned.connect(self._document.warned)
        return self._shop

    def _made(self) -> list[StartPage | MyShopPage]:
        return [page for page in (self._start, self._shop) if page is not None]

    def show_page(self, page: StartPage | MyShopPage) -> None:
        """Lay a page over the frame."""
        for other in self._made():
            other.setVisible(False)
        page.setGeometry(self._frame.rect())
        page.show()
        page.refresh()
        page.raise_()
        page.setFocus()

    def leave(self) -> None:
        """Show the frame again, if a page lies over it."""
        shown = [page for page in self._made() if page.isVisible()]
        for page in shown:
            page.hide()
        if shown:
            self.left.emit()

    def covers(self) -> bool:
        """Return whether a page lies over the frame."""
        return any(page.isVisible() for page in self._made())

    def lay(self) -> None:
        """Cover the frame, whose size has changed."""
        for page in self._made():
            page.setGeometry(self._frame.rect())

    def set_palette(self, palette: Palette) -> None:
        """Take another theme."""
        if self._start is not None:
            self._start.set_palette(palette)

    def rest(self) -> None:
        """Drop what is still to be painted: the window closes."""
        if self._start is not None:
            self._start.rest()
