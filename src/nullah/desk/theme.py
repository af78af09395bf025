"""How widgets look, from the same palette that drawings are painted with."""

from __future__ import annotations

from PySide6.QtGui import QColor, QPalette
from PySide6.QtWidgets import QApplication, QWidget

from nullah.paper.lettering import typeface
from nullah.paper.palette import DAY, NIGHT, Palette

#: Body type in pixels at 96 dpi, and the figures on the card.
BODY, FIGURE, TITLE, SMALL = 15, 24, 19, 13


#: A ground darker than this is the night's.
_DARK = 128


def palette_of(widget: QWidget) -> Palette:
    """Return the palette of the theme that a widget wears."""
    return NIGHT if widget.palette().window().color().lightness() < _DARK else DAY


def dress(app: QApplication, palette: Palette) -> None:
    """Give the whole application a theme, unless it wears it: Qt goes through all widgets when it is given a sheet."""
    sheet = _sheet(palette)
    if app.styleSheet() == sheet:
        return
    app.setFont(typeface(BODY))
    colours = QPalette()
    for role, colour in (
        (QPalette.ColorRole.Window, palette.ground),
        (QPalette.ColorRole.Base, palette.raised),
        (QPalette.ColorRole.AlternateBase, palette.sheet),
        (QPalette.ColorRole.Button, palette.sheet),
        (QPalette.ColorRole.WindowText, palette.text),
        (QPalette.ColorRole.Text, palette.text),
        (QPalette.ColorRole.ButtonText, palette.text),
        (QPalette.ColorRole.PlaceholderText, palette.quiet),
        (QPalette.ColorRole.Mid, palette.border),
        (QPalette.ColorRole.Midlight, palette.accent_ground),
        (QPalette.ColorRole.Highlight, palette.accent),
        (QPalette.ColorRole.HighlightedText, palette.raised),
        (QPalette.ColorRole.ToolTipBase, palette.raised),
        (QPalette.ColorRole.ToolTipText, palette.text),
    ):
        colours.setColor(role, QColor(colour))
    app.setPalette(colours)
    app.setStyleSheet(sheet)


def _sheet(p: Palette) -> str:
    return f"""
    QMainWindow, #frame {{ background: {p.ground}; }}
    #header {{ background: {p.ground}; border-bottom: 1px solid {p.line}; }}
    #strip {{ background: {p.ground}; border-top: 1px solid {p.line}; }}
    #card, #card QWidget#cardBody {{ background: {p.sheet}; border: none; }}
    #line {{ background: {p.sheet}; border-bottom: 1px solid {p.line}; }}
    #column, #choices, #chooseSide, #chooseSide > QWidget {{ background: {p.sheet}; }}
    #column {{ border-left: 1px solid {p.line}; }}
    #overPage, #overBody {{ background: {p.ground}; }}
    #notice {{ background: {p.raised}; border: 1px solid {p.line}; border-radius: 4px; padding: 7px 12px; }}
    #tour {{ background: {p.raised}; border: 2px solid {p.accent}; border-radius: 6px; }}
    #tag {{ background: {p.raised}; border: 1px solid {p.accent}; border-radius: 4px; }}
    QLabel[heading="true"] {{ color: {p.quiet}; font-weight: 600; padding-top: 8px; }}
    QToolButton#form, QToolButton#recent {{ background: {p.raised}; color: {p.text}; border: 1px solid {p.border}; }}
    QToolButton#form:hover, QToolButton#recent:hover {{ border: 1px solid {p.accent}; }}
    QToolButton#form:focus, QToolButton#recent:focus {{ border: 2px solid {p.accent}; }}
    QMenuBar {{ background: {p.ground}; }}
    QMenuBar::item {{ padding: 5px 10px; background: transparent; }}
    QMenuBar::item:selected {{ background: {p.accent_ground}; }}
    QSplitter::handle {{ background: {p.line}; }}
    QLabel[quiet="true"] {{ color: {p.quiet}; }}
    QLabel[weight="look"] {{ color: {p.look}; }}
    QLabel[weight="fails"] {{ color: {p.fails}; }}
    #unsettled {{ color: {p.look}; }}
    #unsettled[settled="true"] {{ color: {p.quiet}; }}
    #banner {{ background: {p.look_ground}; border-bottom: 1px solid {p.look}; }}
    #banner QLabel {{ color: {p.look}; }}
    QLineEdit {{ background: {p.raised}; border: 1px solid {p.border}; border-radius: 3px;
        padding: 4px 7px; min-height: 22px; selection-background-color: {p.accent};
        selection-color: {p.raised}; }}
    QLineEdit:focus {{ border: 2px solid {p.accent}; padding: 3px 6px; }}
    QLineEdit[wrong="true"] {{ border: 2px solid {p.fails}; padding: 3px 6px; }}
    QLineEdit#pieceName {{ background: transparent; border: 1px solid transparent; font-weight: 600; }}
    QLineEdit#pieceName:hover {{ border: 1px solid {p.border}; }}
    QLineEdit#pieceName:focus {{ background: {p.raised}; border: 2px solid {p.accent}; }}
    QPushButton, QToolButton {{ background: transparent; color: {p.accent}; border: 1px solid transparent;
        border-radius: 3px; padding: 4px 9px; min-height: 24px; }}
    QPushButton:hover, QToolButton:hover {{ background: {p.accent_ground}; }}
    QPushButton:focus, QToolButton:focus {{ border: 2px solid {p.accent}; padding: 3px 8px; }}
    QPushButton:disabled, QToolButton:disabled {{ color: {p.quiet}; }}
    QPushButton[fix="true"] {{ background: {p.accent_ground}; text-align: left; }}
    QPushButton[main="true"] {{ background: {p.accent}; color: {p.raised}; font-weight: 600; }}
    QPushButton[main="true"]:focus {{ border: 2px solid {p.text}; }}
    QPushButton[main="true"]:disabled {{ background: {p.line}; color: {p.quiet}; }}
    QPushButton[figure="true"] {{ color: {p.text}; text-align: left; padding: 0; border-left: 0; }}
    QPushButton[figure="true"]:hover {{ background: {p.accent_ground}; }}
    QPushButton[figure="true"]:focus {{ background: {p.accent_ground}; border: none;
        border-bottom: 2px solid {p.accent}; padding: 0; }}
    QToolButton::menu-indicator {{ image: none; }}
    QPushButton:checked {{ background: {p.accent_ground}; color: {p.text}; font-weight: 600; }}
    QComboBox {{ background: {p.raised}; border: 1px solid {p.border}; border-radius: 3px; padding: 4px 8px;
        min-height: 22px; }}
    QComboBox:focus {{ border: 2px solid {p.accent}; padding: 3px 7px; }}
    QComboBox::drop-down {{ border: none; width: 20px; }}
    QComboBox QAbstractItemView {{ background: {p.raised}; border: 1px solid {p.line};
        selection-background-color: {p.accent_ground}; selection-color: {p.text}; }}
    QCheckBox {{ spacing: 7px; min-height: 30px; }}
    QCheckBox:focus {{ color: {p.accent}; }}
    QMenu {{ background: {p.raised}; border: 1px solid {p.line}; padding: 4px; }}
    QMenu::item {{ padding: 7px 26px 7px 14px; }}
    QMenu::item:selected {{ background: {p.accent_ground}; }}
    QMenu::item:disabled {{ color: {p.quiet}; }}
    QMenu::separator {{ height: 1px; background: {p.line}; margin: 4px 8px; }}
    #editor {{ background: {p.raised}; border: 1px solid {p.accent}; border-radius: 4px; }}
    QScrollBar:vertical {{ background: transparent; width: 10px; }}
    QScrollBar:horizontal {{ background: transparent; height: 10px; }}
    QScrollBar::handle {{ background: {p.border}; border-radius: 4px; min-height: 24px; min-width: 24px; }}
    QScrollBar::add-line, QScrollBar::sub-line {{ width: 0; height: 0; }}
    QScrollArea {{ border: none; background: transparent; }}
    QToolTip {{ background: {p.raised}; color: {p.text}; border: 1px solid {p.line}; padding: 4px; }}
    """
