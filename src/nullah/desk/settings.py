"""What the desk remembers for whoever works at it: units, theme, terms, the window, and what was worked on lately."""

from __future__ import annotations

from pathlib import Path

from PySide6.QtCore import QLocale

from nullah.core.lengths import STYLES, Unit
from nullah.core.my_shop import MyShop
from nullah.desk.window_settings import WindowSettings
from nullah.files.catalogues import locales
from nullah.files.shop_file import read_shop, write_shop

SYSTEM, DAY_THEME, NIGHT_THEME = "system", "day", "night"
THEMES = (SYSTEM, DAY_THEME, NIGHT_THEME)
PAPER_NAMES = ("A4", "Letter")
_MOST_RECENT = 8
_LAND = QLocale.Country
#: Where one prints on Letter (CLDR, from memory: the lands whose paper size is US-Letter).
_LETTER_LANDS = frozenset(
    (
        _LAND.UnitedStates,
        _LAND.Canada,
        _LAND.Mexico,
        _LAND.Philippines,
        _LAND.Chile,
        _LAND.Colombia,
        _LAND.CostaRica,
        _LAND.Guatemala,
        _LAND.Panama,
        _LAND.PuertoRico,
        _LAND.Venezuela,
        _LAND.ElSalvador,
        _LAND.Nicaragua,
    )
)


class Settings(WindowSettings):
    """The user's settings, in a file of their own; a setting that makes no sense is as if it were not there."""

    def __init__(self, file: Path) -> None:
        super().__init__(file)
        self._shop_file = file.with_name("my-shop.json")
        self._shop: MyShop | None = None
        self._shop_read = False

    def _text(self, name: str, allowed: tuple[str, ...], usual: str) -> str:
        found = str(self._store.value(name, usual))
        return found if found in allowed else usual

    @property
    def theme(self) -> str:
        """One of `THEMES`."""
        return self._text("theme", THEMES, SYSTEM)

    @theme.setter
    def theme(self, theme: str) -> None:
        self._store.setValue("theme", theme)

    @property
    def terms(self) -> str:
        """The locale whose terms of the trade are shown, or nothing: as the system."""
        return self._text("terms", locales(), "")

    @terms.setter
    def terms(self, terms: str) -> None:
        self._store.setValue("terms", terms)

    @property
    def unit(self) -> Unit | None:
        """The unit in which new pieces are begun; None until it was chosen."""
        named = {style.name: unit for unit, style in STYLES.items()}
        return named.get(str(self._store.value("unit", "")))

    @unit.setter
    def unit(self, unit: Unit) -> None:
        self._store.setValue("unit", STYLES[unit].name)

    @property
    def paper(self) -> str:
        """The paper that is printed on: one of `PAPERS`; where none was chosen, the one of the user's country."""
        usual = "Letter" if QLocale.system().territory() in _LETTER_LANDS else "A4"
        return self._text("paper", PAPER_NAMES, usual)

    @paper.setter
    def paper(self, paper: str) -> None:
        self._store.setValue("paper", paper)

    def save(self) -> None:
        """Write what was changed to the file now."""
        self._store.sync()

    @property
    def shop(self) -> MyShop | None:
        """The person's own shop; None until something of it was given."""
        if not self._shop_read:
            self._shop_read = True
            self._shop = read_shop(self._shop_file)
        return self._shop

    def keep_shop(self, mine: MyShop) -> str:
        """Remember the person's shop; give an empty text, or a sentence why it could not be kept."""
        self._shop, self._shop_read = mine, True
        return write_shop(self._shop_file, mine)

    @property
    def recent(self) -> tuple[Path, ...]:
        """The files worked on lately, the last first."""
        found = self._store.value("recent", [])
        texts = found if isinstance(found, list) else [found]
        return tuple(Path(str(text)) for text in texts if text)

    def worked_on(self, file: Path) -> None:
        """Put a file first among those worked on lately."""
        others = [path for path in self.recent if path != file.absolute()]
        self._store.setValue("recent", [str(path) for path in (file.absolute(), *others)][:_MOST_RECENT])

    def side(self, station: str, usual: int) -> int:
        """Return which side of the column was last shown at a station."""
        found = str(self._store.value(f"side/{station}", usual))
        return int(found) if found in ("0", "1") else usual

    def leave_side(self, station: str, side: int) -> None:
        """Remember which side of the column is shown at a station."""
        self._store.setValue(f"side/{station}", side)
