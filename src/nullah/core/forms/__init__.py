"""The forms pieces take, one module each. A new form is one more module and one line here."""

from __future__ import annotations

from nullah.core.forms.box import BOX
from nullah.core.forms.case import CASE
from nullah.core.forms.chest import CHEST
from nullah.core.forms.drawer import DRAWER
from nullah.core.forms.hanging_rack import HANGING_RACK
from nullah.core.forms.holder import HOLDER
from nullah.core.forms.joint import JOINT
from nullah.core.forms.own import OWN
from nullah.core.forms.stand import STAND
from nullah.core.forms.table import TABLE
from nullah.core.forms.top import TOP
from nullah.core.forms.tray import TRAY
from nullah.core.forms.wall_shelf import WALL_SHELF
from nullah.core.piece.form import Form

_EVERY = (BOX, TRAY, CHEST, CASE, DRAWER, WALL_SHELF, HANGING_RACK, STAND, HOLDER, TABLE, TOP, JOINT, OWN)
FORMS: dict[str, Form] = {form.id: form for form in _EVERY}
