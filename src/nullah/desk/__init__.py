"""The desk: Qt Widgets over the core.

The toolkit puts a hook into the import of all that is imported after it, which reads the source of every module to see
whether it switches optional features of the toolkit on. None of ours does, so the hook is taken out again: what is
imported later, NumPy too, is there sooner.

It also compiles its own generator of stub files at every start, from source, which takes about as long as the first
paint of a window. Nobody generates stub files here, so empty modules stand in its place.
"""

import builtins
import sys
from importlib.machinery import ModuleSpec
from importlib.util import module_from_spec
from typing import Any

_plain_import = builtins.__import__

#: Modules of the toolkit that only its generator of stub files uses, by their package.
_STUB_GENERATOR = {"shibokensupport.signature.lib": ("enum_sig", "pyi_generator")}


def _without_stub_generator(name: str, *others: Any, **named: Any) -> Any:
    for module in _STUB_GENERATOR.get(name, ()):
        sys.modules.setdefault(f"{name}.{module}", module_from_spec(ModuleSpec(f"{name}.{module}", None)))
    return _plain_import(name, *others, **named)


builtins.__import__ = _without_stub_generator

import PySide6.QtWidgets

builtins.__import__ = _plain_import
