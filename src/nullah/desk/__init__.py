"""The desk: Qt Widgets over the core.

The toolkit puts a hook into the import of all that is imported after it, which reads the source of every module to see
whether it switches optional features of the toolkit on. None of ours does, so the hook is taken out again: what is
imported later, NumPy too, is there sooner.
"""

import builtins

_plain_import = builtins.__import__

import PySide6.QtWidgets

builtins.__import__ = _plain_import
