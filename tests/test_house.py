"""What holds for the whole house: nothing fetched at run time, nothing heavy before the window stands."""

import ast
import re
import subprocess
import sys
from pathlib import Path

import networkx
import pytest

ROOT = Path(__file__).parents[1]
#: What must not be loaded before the first paint: it is wanted later, and takes long.
UNWANTED = (
    "numpy", "scipy", "pydantic", "babel", "nullah.core.work.order_of_work", "nullah.core.bench.tasks",
    "nullah.core.operations.milling", "nullah.core.joints.dovetail.operations", "nullah.core.stations.daybook",
)  # fmt: skip


def test_the_window_stands_before_what_is_only_wanted_later_has_loaded():
    code = (
        "import sys, tempfile, pathlib\n"
        "from nullah.desk.application import application\n"
        "from nullah.desk.start import make_window\n"
        "from nullah.demo.seed_box import seed_box\n"
        "app = application()\n"
        "window = make_window(seed_box(), pathlib.Path(tempfile.mkdtemp()))\n"
        "window.show(); app.processEvents()\n"
        f"unwanted = {UNWANTED}\n"
        "print([name for name in unwanted if name in sys.modules])\n"
    )
    done = subprocess.run([sys.executable, "-c", code], capture_output=True, text=True, check=True)
    assert done.stdout.strip() == "[]"


def test_no_file_names_a_host_to_fetch_from():
    texts = [ROOT / "requirements.lock", ROOT / "pyproject.toml", *(ROOT / "script").iterdir()]
    for path in texts:
        if path.is_file():
            assert not re.search(r"https?://(?!json-schema\.org)|index-url", path.read_text(encoding="utf-8")), (
                path.name
            )


def test_every_module_says_what_it_is_for():
    for path in (ROOT / "src").rglob("*.py"):
        text = path.read_text(encoding="utf-8")
        assert not text.strip() or text.startswith('"""'), path


def test_words_of_the_desk_are_shown_by_what_never_takes_them_for_markup():
    """The toolkit's own takes a piece called “<b>” for markup; one that holds a picture has no words."""
    made = [
        path.name
        for path in (ROOT / "src" / "nullah" / "desk").rglob("*.py")
        for node in ast.walk(ast.parse(path.read_text(encoding="utf-8")))
        if isinstance(node, ast.Call) and isinstance(node.func, ast.Name) and node.func.id == "QLabel"
    ]
    assert made == ["history.py"]


def test_what_is_shipped_is_there():
    fonts = ROOT / "src" / "nullah" / "paper" / "fonts"
    assert {path.name for path in fonts.iterdir()} == {"NullahText-Regular.ttf", "NullahText-SemiBold.ttf", "OFL.txt"}
    assert "SIL OPEN FONT LICENSE" in (fonts / "OFL.txt").read_text(encoding="utf-8")
    assert (ROOT / "LICENSE").read_text(encoding="utf-8").startswith("MIT License")


def test_every_dependency_has_its_line():
    page = (ROOT / "docs" / "dependencies.md").read_text(encoding="utf-8")
    wanted = re.findall(r'^    "([A-Za-z0-9_-]+)[>=]', (ROOT / "pyproject.toml").read_text(encoding="utf-8"), re.M)
    assert len(wanted) > 8
    for name in {name for name in wanted if not name.startswith("nullah")}:
        assert name.lower() in page.lower(), name


def test_the_readme_shows_every_picture_there_is():
    readme = (ROOT / "README.md").read_text(encoding="utf-8")
    pictures = sorted((ROOT / "docs" / "screenshots").glob("*.png"))
    assert 0 < len(pictures) < 20
    for picture in pictures:
        assert f"docs/screenshots/{picture.name}" in readme, picture.name


@pytest.mark.dear
def test_public_names_say_what_they_are():
    """Every public function, class and method of the core has a docstring."""
    silent = []
    for path in (ROOT / "src" / "nullah" / "core").rglob("*.py"):
        rooms = [ast.parse(path.read_text(encoding="utf-8"))]
        while rooms:
            for node in rooms.pop().body:
                if isinstance(node, ast.FunctionDef | ast.ClassDef) and not node.name.startswith("_"):
                    if not ast.get_docstring(node):
                        silent.append(f"{path.name}: {node.name}")
                    if isinstance(node, ast.ClassDef):
                        rooms.append(node)
    assert silent == []


@pytest.mark.dear
def test_no_two_modules_know_each_other():
    """Neither openly nor behind TYPE_CHECKING."""
    src = ROOT / "src"
    paths = {
        ".".join(path.relative_to(src).with_suffix("").parts).removesuffix(".__init__"): path
        for path in src.rglob("*.py")
    }
    knows = networkx.DiGraph()
    for name, path in paths.items():
        body = ast.parse(path.read_text(encoding="utf-8")).body
        for node in (*body, *(inner for outer in body if isinstance(outer, ast.If) for inner in outer.body)):
            if isinstance(node, ast.ImportFrom) and node.module:
                for alias in node.names:
                    whole = f"{node.module}.{alias.name}"
                    knows.add_edge(name, whole if whole in paths else node.module)
    assert knows.number_of_edges() > 1000
    assert [circle for circle in networkx.strongly_connected_components(knows) if len(circle) > 1] == []


CORE = Path(__file__).parents[1] / "src" / "nullah" / "core"
#: Where figures are only said or drawn: what they are stands in the sentence.
SAID = ("wording", "stations", "sheets", "reader.py", "catalogue.py")
NUMBERS = {"float", "Length", "Fraction", "int", "Floats", "Number", "ndarray", "Point"}


def numeric_functions(tree):
    """Yield the public functions and methods of a module that take a number."""
    inside = [each for each in tree.body if isinstance(each, ast.ClassDef) and not each.name.startswith("_")]
    for node in (*tree.body, *(each for of in inside for each in of.body)):
        if isinstance(node, ast.FunctionDef) and not node.name.startswith("_"):
            arguments = (*node.args.args, *node.args.kwonlyargs)
            taken = (each.annotation for each in arguments if each.annotation is not None)
            if any(NUMBERS & set(re.findall(r"\w+", ast.unparse(each))) for each in taken):
                yield node


def test_what_is_worked_with_is_told_with_its_unit():
    left = [
        f"{path.relative_to(CORE)}: {node.name}"
        for path in sorted(CORE.rglob("*.py"))
        if path.relative_to(CORE).parts[0] not in SAID
        for node in numeric_functions(ast.parse(path.read_text(encoding="utf-8")))
        if "Parameters\n" not in (ast.get_docstring(node) or "")
    ]
    assert not left
