"""The forms pieces take, one module each. A new form is one more module and one line here."""

from __future__ import annotations

from nullah.core.piece.form import Form
from nullah.core.piece.forms.box import BOX
from nullah.core.piece.forms.case import CASE
from nullah.core.piece.forms.chest import CHEST
from nullah.core.piece.forms.drawer import DRAWER
from nullah.core.piece.forms.hanging_rack import HANGING_RACK
from nullah.core.piece.forms.holder import HOLDER
from nullah.core.piece.forms.own import OWN
from nullah.core.piece.forms.stand import STAND
from nullah.core.piece.forms.table import TABLE
from nullah.core.piece.forms.top import TOP
from nullah.core.piece.forms.tray import TRAY
from nullah.core.piece.forms.wall_shelf import WALL_SHELF

FORMS: dict[str, Form] = {
    form.id: form for form in (BOX, TRAY, CHEST, CASE, DRAWER, WALL_SHELF, HANGING_RACK, STAND, HOLDER, TABLE, TOP, OWN)
}
