"""What `nullah work` answers, carried out by nothing but its own figures, against the solids of `nullah solids`.

No published source: the shapes are those of the answer's own description. The code here shares none with the
program's: regions become solids by trimesh's extrusions and hulls, and solids are read back from the files.
"""

import json
import re
from pathlib import Path

import numpy as np
import pytest
import trimesh
from manifold3d import CrossSection, Manifold, Mesh
from tests.told import each_choice

from nullah.cli import main
from nullah.core.project import Piece, Project
from nullah.demo.worked_joints import WORKED
from nullah.files.project_file import project_text

PAGE = Path(__file__).parents[2] / "docs" / "joints.md"
#: From the plane of the two axes after an axis, in cyclic order, to x, y, z.
TURNED = {
    "x": [[0, 0, 1, 0], [1, 0, 0, 0], [0, 1, 0, 0]],
    "y": [[0, 1, 0, 0], [0, 0, 1, 0], [1, 0, 0, 0]],
    "z": [[1, 0, 0, 0], [0, 1, 0, 0], [0, 0, 1, 0]],
}


def solid_of(region):
    """A region of the answer as a solid."""
    shape = region["shape"]
    if shape == "hull":
        return Manifold.hull_points(region["points_mm"])
    low, high = sorted((region["from_mm"], region["to_mm"]))
    if shape == "bore":
        section = CrossSection.circle(region["diameter_mm"] / 2, 64).translate(region["centre_mm"])
    else:
        points = np.array(region["polygon_mm"])
        a, b = points.T
        clockwise = a @ np.roll(b, -1) - b @ np.roll(a, -1) < 0
        section = CrossSection([points[::-1] if clockwise else points])
    return Manifold.extrude(section, high - low).translate([0, 0, low]).transform(TURNED[region["axis"]])


def carried_out(blank, operations):
    """A blank, less all that its operations take; countersinks are left to those who bore them."""
    solid = Manifold.cube(blank)
    for operation in operations:
        for region in operation["takes"]:
            if region["shape"] == "beyond":
                point, normal = np.array(region["point_mm"]), np.array(region["normal"])
                solid = solid.trim_by_plane(tuple(-normal), float(-normal @ point))
            elif "to_diameter_mm" not in region:
                solid -= solid_of(region)
    return solid


def read_back(path):
    mesh = trimesh.load(path)
    return Manifold(Mesh(np.asarray(mesh.vertices, np.float32), np.asarray(mesh.faces, np.uint32)))


CASES = [("box", chosen) for chosen in each_choice("box")] + [("drawer", chosen) for chosen in each_choice("drawer")]


@pytest.mark.parametrize("case", CASES, ids=lambda case: f"{case[0]} {' '.join(value for _, value in case[1])}")
def test_the_answer_makes_the_parts(case, tmp_path):
    form, chosen = case
    (tmp_path / "p.nullah").write_text(project_text(Project(Piece(form, form, choices=chosen))), encoding="utf-8")
    assert main(["work", str(tmp_path / "p.nullah"), "--json", str(tmp_path / "work.json")]) == 0
    assert main(["solids", str(tmp_path / "p.nullah"), "--parts", str(tmp_path / "parts")]) == 0
    answer = json.loads((tmp_path / "work.json").read_text(encoding="utf-8"))
    operations = [each for task in answer["tasks"] for each in task["operations"]]
    assert {part["id"] for part in answer["parts"]} == {path.stem for path in (tmp_path / "parts").glob("*.stl")}
    for part in answer["parts"]:
        made = carried_out(part["blank_mm"], [each for each in operations if each["part"] == part["id"]])
        wanted = read_back(tmp_path / "parts" / f"{part['id']}.stl")
        off = (made - wanted).volume() + (wanted - made).volume()
        # A mark on the whole surface of what is cut is the most; what was missed or cut twice is far more.
        assert off < 0.004 * wanted.volume() + 60, part["id"]


def test_the_examples_of_the_documentation_say_what_they_take():
    """Every line of the page is whole: what takes wood says where, in figures of its settings and lines."""
    blocks = re.findall(r"```json\n(.*?)```", PAGE.read_text(encoding="utf-8"), re.S)
    operations = [json.loads(line) for block in blocks for line in block.splitlines()]
    assert len(blocks) == len(WORKED)
    assert all(each["settings"] or each["needs"] or each["draws"] for each in operations)
    drawn = {(each["part"], line["name"]) for each in operations for line in each["draws"]}
    assert all((each["part"], line["name"]) in drawn for each in operations for line in each["needs"])
