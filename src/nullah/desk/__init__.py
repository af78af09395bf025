"""The desk: Qt Widgets over the core.

Loading is arranged so that the window stands early. The collector rests meanwhile, for
nothing of what is loaded is ever let go. The core comes before the toolkit, which reads
the source of every module that is imported after it.
"""

import gc

gc.disable()

import nullah.core.actions
import nullah.core.stations
import nullah.files.recovery

import PySide6.QtWidgets

gc.freeze()
gc.enable()
