"""What holds for the whole house: nothing fetched at run time, nothing heavy before the window stands."""

import re
import subprocess
import sys
from pathlib import Path

ROOT = Path(__file__).parents[1]


def test_the_window_stands_before_the_numerical_libraries_have_loaded():
    code = (
        "import sys, tempfile, pathlib\n"
        "from nullah.desk.start import application, make_window\n"
        "from nullah.demo.seed_box import seed_box\n"
        "app = application()\n"
        "window = make_window(seed_box(), pathlib.Path(tempfile.mkdtemp()))\n"
        "window.show(); app.processEvents()\n"
        "print([name for name in ('numpy', 'scipy', 'pydantic') if name in sys.modules])\n"
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
