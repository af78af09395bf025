"""list every form with its choices and quantities."""

from __future__ import annotations

import argparse
from typing import Any

from nullah.cli import options as read
from nullah.core.forms import FORMS
from nullah.core.ledger import QuantityKind
from nullah.core.piece.form import Form
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project

#: What the answer calls each kind; a load counts kilograms.
_KINDS = {kind: kind for kind in QuantityKind} | {QuantityKind.WEIGHT: QuantityKind.COUNT}


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("--json", required=True)


def run(options: argparse.Namespace) -> int:
    """Answer with the forms."""
    return read.write_json(options.json, {"forms": [_form(form) for form in FORMS.values()]})


def _form(form: Form) -> dict[str, Any]:
    """Return a form as data; its quantities as they stand with the usual choices."""
    plan = work_out(Project(piece=Piece(form.id, form.title)), milling=False, proving=False)
    assert plan.ledger is not None
    return {
        "id": form.id,
        "title": form.title,
        "choices": [
            {
                "key": choice.name,
                "title": choice.title,
                "options": [{"value": value, "title": title} for value, title in choice.options],
                "only_if": {choice.when[0]: list(choice.when[1])} if choice.when[0] else {},
            }
            for choice in form.choices
        ],
        "quantities": [
            {
                "name": name,
                "title": quantity.definition.title,
                "kind": _KINDS[quantity.definition.kind].value,
                "default_mm": int(quantity.value)
                if _KINDS[quantity.definition.kind] is QuantityKind.COUNT
                else float(quantity.value),
                "size": name in form.size,
                "fits": list(quantity.fits),
            }
            for name, quantity in plan.ledger.quantities.items()
        ],
    }
