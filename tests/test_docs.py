"""The documentation is run, so that it stays true."""

import re
from pathlib import Path

from tests.said import said

from nullah.core import actions
from nullah.core.forms import FORMS
from nullah.core.lengths import mm
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project

ROOT = Path(__file__).parent.parent


def test_the_form_in_the_documentation_is_whole_and_proves_clean(monkeypatch):
    page = (ROOT / "docs" / "forms.md").read_text(encoding="utf-8")
    (code,) = re.findall(r"```python\n(.*?)```", page, re.S)
    names: dict[str, object] = {}
    exec(compile(code, "docs/forms.md", "exec"), names)  # our own page, which is what is tested
    form = names["LEDGE"]
    monkeypatch.setitem(FORMS, "ledge", form)
    for sizing in ("outside", "inside", "contents"):
        for brackets in ("cut", "plain"):
            project = Project(Piece("ledge", choices=(("sizing", sizing), ("brackets", brackets))))
            plan = work_out(project, milling=False)
            assert len(plan.parts) == 3 and plan.proof.clean, [said(f, plan) for f in plan.findings]
    thick = work_out(actions.measure(actions.measure(plan.project, "dado.width", mm(20)), "brackets.thickness", mm(21)))
    assert any("1.0 mm too tight" in said(finding, thick) for finding in thick.findings)


def test_every_form_has_its_place_in_the_readme():
    readme = " ".join((ROOT / "README.md").read_text(encoding="utf-8").casefold().split())
    for form in FORMS.values():
        word = form.title.split(",")[0].split(" or ")[0].casefold().removeprefix("a ")
        assert word in readme, form.title
