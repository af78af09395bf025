"""The small tools there are: chisels, bits, the plough's irons, and how deep plough and saw go."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from functools import partial

from nullah.core import actions
from nullah.core.lengths import Length
from nullah.core.shop import Shop
from nullah.desk.bench import Bench
from nullah.desk.document import Document
from nullah.desk.fields import ValueField
from nullah.desk.stations.base import Section, labelled

_LISTS = {"bits": "bits", "plough_irons": "plough irons"}
_DEPTHS = {"plough_deepest": "plough goes as deep as", "saw_deepest": "fine saw goes as deep as"}


class ToolsOwned:
    """Fields for what hangs on the wall; lists of sizes, and how deep plough and saw go."""

    def __init__(self, document: Document, bench: Bench, row: Section) -> None:
        self._document, self._bench = document, bench
        self.chisels = self._field("chisels", 150, row, partial(self._own, "chisels"))
        self.more = {name: self._field(title, 150, row, partial(self._own, name)) for name, title in _LISTS.items()}
        self.more |= {name: self._field(title, 66, row, partial(self._reach, name)) for name, title in _DEPTHS.items()}

    def _field(self, title: str, width: int, row: Section, entered: Callable[[], None]) -> ValueField:
        field = ValueField(title, width=width)
        field.line.returnPressed.disconnect()
        field.line.returnPressed.connect(entered)
        labelled(title, field, row)
        return field

    def refresh(self) -> None:
        """Show what there is."""
        shop, unit = self._document.project.shop, self._document.project.marks.unit
        fields = {"chisels": self.chisels, **self.more}
        for name, field in fields.items():
            field.set_unit(unit)
            found = getattr(shop, name)
            # As typed, for a chisel's name is its width: 1/4 in stays 1/4 in whatever is shown.
            sizes = (found,) if isinstance(found, Length) else found
            field.show_value(", ".join(size.as_text() for size in sizes))

    def _own(self, name: str) -> None:
        field = self.chisels if name == "chisels" else self.more[name]
        found = field.lengths()
        if found is not None:
            self._change(field, name, tuple(sorted(found, key=lambda size: size.mm)))

    def _reach(self, name: str) -> None:
        field = self.more[name]
        found = field.lengths()
        if found is None:
            return
        if len(found) != 1:
            field.complain("One length.")
            return
        self._change(field, name, found[0])

    def _change(self, field: ValueField, name: str, value: Length | tuple[Length, ...]) -> None:
        field.line.setModified(False)
        title = {**_LISTS, **_DEPTHS}.get(name, name)

        def changed(shop: Shop) -> Shop:
            return replace(shop, **{name: value})  # type: ignore[arg-type]

        self._document.do(f"change the {title}", lambda p: actions.set_shop(p, changed(p.shop)))
        self._bench.setFocus()
