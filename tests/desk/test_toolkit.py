"""The toolkit is loaded without what it never uses here, and its errors still say what it would have taken."""

import subprocess
import sys

_CODE = """
import builtins, sys
plain = builtins.__import__
import nullah.desk
assert builtins.__import__ is plain
print(any(hasattr(module, "generate_pyi") for name, module in sys.modules.items() if name.endswith("pyi_generator")))
from PySide6.QtWidgets import QApplication, QWidget
app = QApplication([])
try:
    QWidget().resize("wide")
except TypeError as error:
    print(error)
"""


def test_no_generator_of_stub_files_is_compiled_and_wrong_calls_are_told_as_before():
    told = subprocess.run([sys.executable, "-c", _CODE], capture_output=True, text=True, check=True)
    compiled, *error = told.stdout.splitlines()
    assert compiled == "False"
    plain = _CODE.replace("import nullah.desk\n", "import PySide6.QtWidgets; builtins.__import__ = plain\n")
    told = subprocess.run([sys.executable, "-c", plain], capture_output=True, text=True, check=True)
    by_itself, *same = told.stdout.splitlines()
    assert by_itself == "True"
    assert error == same and any("resize(w: int, h: int" in line for line in error)
