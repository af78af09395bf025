"""The forms pieces take, one module each. A new form is one more module and one line here."""

from __future__ import annotations

from nullah.core.piece.form import Form
from nullah.core.piece.forms.box import BOX
from nullah.core.piece.forms.case import CASE
from nullah.core.piece.forms.drawer import DRAWER
from nullah.core.piece.forms.own import OWN

FORMS: dict[str, Form] = {form.id: form for form in (BOX, CASE, DRAWER, OWN)}
