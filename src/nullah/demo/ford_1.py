"""What straightedge, winding sticks and calliper gave on the board Ford 1, each where it was taken."""

from __future__ import annotations

from nullah.core.lengths import mm
from nullah.core.rack.shape_readings import Calliper, Gap, ShapeReading, Wind

#: Both faces once round, with some tenths of scatter.
READINGS: tuple[ShapeReading, ...] = (
    Gap(True, (0, 126), (1420, 126), (710, 126), mm("-1.1")),
    Gap(True, (0, 0), (1420, 0), (710, 0), mm("-1.1")),
    Gap(True, (0, 252), (1420, 252), (710, 252), mm("-0.8")),
    Gap(True, (710, 0), (710, 252), (710, 126), mm("-1.5")),
    Gap(True, (0, 0), (0, 252), (0, 126), mm("-2.3")),
    Gap(True, (1420, 0), (1420, 252), (1420, 126), mm("-0.3")),
    Gap(True, (0, 0), (1420, 252), (710, 126), mm("-2.4")),
    Gap(True, (0, 252), (1420, 0), (710, 126), mm("-2.7")),
    Wind(True, 0, 1420, mm(378), mm("1.7")),
    Wind(True, 0, 710, mm(378), mm("-0.1")),
    Wind(True, 710, 1420, mm(378), mm("1.4")),
    Calliper((0, 0), mm("21.9")),
    Calliper((0, 252), mm("21.9")),
    Calliper((710, 0), mm("22.1")),
    Calliper((710, 252), mm("21.9")),
    Calliper((1420, 0), mm("22.3")),
    Calliper((1420, 252), mm("22.1")),
    Gap(False, (0, 126), (1420, 126), (710, 126), mm("0.9")),
    Gap(False, (0, 0), (1420, 0), (710, 0), mm("1.2")),
    Gap(False, (0, 252), (1420, 252), (710, 252), mm("0.7")),
    Gap(False, (710, 0), (710, 252), (710, 126), mm("1.6")),
    Gap(False, (0, 0), (0, 252), (0, 126), mm("2.6")),
    Gap(False, (1420, 0), (1420, 252), (1420, 126), mm("0.8")),
    Gap(False, (0, 0), (1420, 252), (710, 126), mm("2.2")),
    Gap(False, (0, 252), (1420, 0), (710, 126), mm("2.8")),
    Wind(False, 0, 1420, mm(378), mm("-1.4")),
    Wind(False, 0, 710, mm(378), mm("0")),
    Wind(False, 710, 1420, mm(378), mm("-1.5")),
)
