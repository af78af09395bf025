"""What the desktop is told of the program: the entry, the type of its files, the icon, the page of the manual."""

import configparser
import tomllib
import xml.etree.ElementTree as ElementTree
from pathlib import Path

from PySide6.QtGui import QImage, QPainter
from PySide6.QtSvg import QSvgRenderer

ROOT = Path(__file__).parents[1]
SHARE = ROOT / "share"


def test_all_of_it_comes_with_the_wheel():
    told = tomllib.loads((ROOT / "pyproject.toml").read_text(encoding="utf-8"))["tool"]["setuptools"]["data-files"]
    there = {str(path.relative_to(ROOT)) for path in SHARE.rglob("*") if path.is_file()}
    assert {file for files in told.values() for file in files} == there
    assert all(str(Path(file).parent) == folder for folder, files in told.items() for file in files)


def test_the_desktop_entry_opens_a_project():
    entry = configparser.ConfigParser(interpolation=None)
    entry.optionxform = str
    entry.read(SHARE / "applications" / "nullah.desktop", encoding="utf-8")
    group = entry["Desktop Entry"]
    assert group["Exec"] == "nullah %f" and group["Type"] == "Application"
    mime = ElementTree.parse(SHARE / "mime" / "packages" / "nullah.xml").getroot()
    (kind,) = [each.get("type") for each in mime.iter() if each.tag.endswith("mime-type")]
    assert group["MimeType"] == f"{kind};"
    assert [each.get("pattern") for each in mime.iter() if each.tag.endswith("glob")] == ["*.nullah"]
    meta = ElementTree.parse(SHARE / "metainfo" / "nullah.metainfo.xml").getroot()
    assert meta.findtext("launchable") == "nullah.desktop" and meta.findtext("project_license") == "MIT"


def test_the_icon_is_a_picture(qapp):
    renderer = QSvgRenderer(str(SHARE / "icons" / "hicolor" / "scalable" / "apps" / "nullah.svg"))
    assert renderer.isValid()
    image = QImage(64, 64, QImage.Format.Format_ARGB32)
    image.fill(0)
    painter = QPainter(image)
    renderer.render(painter)
    painter.end()
    assert len({image.pixel(x, y) for x in range(0, 64, 3) for y in range(0, 64, 3)}) > 5


def test_the_page_of_the_manual_names_every_command():
    page = (SHARE / "man" / "man1" / "nullah.1").read_text(encoding="utf-8")
    for command in (ROOT / "src" / "nullah" / "cli").glob("*.py"):
        if command.stem not in ("__init__", "__main__", "options"):
            assert command.stem in page, command.stem
