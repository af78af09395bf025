"""A piece of one's own: no form at all, only boards that are added one by one."""

from __future__ import annotations

from nullah.core.piece.form import Assembly, Form

OWN = Form("own", "A piece of one's own", (), lambda chosen: (), lambda ledger, chosen: Assembly())
