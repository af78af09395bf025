"""Solids of a piece in open formats: STL for the whole, glTF with every part by its name and tone."""

from __future__ import annotations

from pathlib import Path

from nullah.core.plan import Plan
from nullah.core.wood.species import SpeciesError, find_species
from nullah.writing import why, write_file

#: Endings that can be written.
ENDINGS = (".stl", ".glb")


class SolidsError(OSError):
    """The solids cannot be written; the message is the sentence to show."""


def write_solids(plan: Plan, target: Path) -> None:
    """Write the solids of a piece, put together.

    Parameters
    ----------
    plan : Plan
        With its proof.
    target : Path
        Ends in ``.stl`` (mm, one mesh) or ``.glb`` (glTF 2.0: metres, Y up, a node for each part).

    Raises
    ------
    SolidsError
        For another ending, a piece without solids, or a file that cannot be written.
    """
    ending = target.suffix.lower()
    if ending not in ENDINGS:
        raise SolidsError(f"{target.name}: solids are written as {' or '.join(ENDINGS)}.")
    if plan.proof is None or not plan.parts:
        raise SolidsError("There is nothing to write: the piece has no solids yet.")
    data = _data(plan, ending)
    try:
        write_file(target, data)
    except OSError as error:
        raise SolidsError(f"{target} cannot be written: {why(error)}.") from error


def write_parts(plan: Plan, folder: Path) -> None:
    """Write each part by itself as STL, in the frame of its blank, mm; triangles face outward.

    Parameters
    ----------
    plan : Plan
    folder : Path
        Made where it is not there; files are called by the parts' ids.

    Raises
    ------
    SolidsError
        For a piece without parts, or a folder that cannot be written.
    """
    import trimesh
    from trimesh.exchange.export import export_mesh

    from nullah.core.apprentice.building import in_own_frame
    from nullah.core.piece.frames import frames_of
    from nullah.core.piece.solids import build, mesh_of, recipe

    if not plan.parts:
        raise SolidsError("There is nothing to write: the piece has no parts.")
    parts, frames = {part.id: part for part in plan.parts}, frames_of(plan.assembly)
    try:
        folder.mkdir(parents=True, exist_ok=True)
        for part in plan.parts:
            solid = in_own_frame(build(recipe(part, plan.assembly.joints, parts)), frames[part.id])
            points, triangles = mesh_of(solid)
            mesh = trimesh.Trimesh(points, triangles, process=False)
            write_file(folder / f"{part.id}.stl", bytes(export_mesh(mesh, None, file_type="stl")))
    except OSError as error:
        raise SolidsError(f"{folder} cannot be written: {why(error)}.") from error


def _data(plan: Plan, ending: str) -> bytes:
    import numpy as np
    import trimesh
    from trimesh.exchange.export import export_mesh, export_scene

    from nullah.core.piece.solids import build, mesh_of

    assert plan.proof is not None
    scene = trimesh.Scene()
    meshes = []
    for part in plan.parts:
        points, triangles = mesh_of(build(plan.proof.recipes[part.id]))
        colours = np.tile(_colour(plan.species_of(part)), (len(triangles), 1))
        mesh = trimesh.Trimesh(points, triangles, face_colors=colours, process=False)
        meshes.append(mesh)
        scene.add_geometry(mesh, node_name=part.id, geom_name=f"{part.number} {part.name}")
    if ending == ".stl":
        return bytes(export_mesh(trimesh.util.concatenate(meshes), None, "stl"))
    # Millimetres with Z up become metres with Y up.
    scene.apply_transform(np.array([[1, 0, 0, 0], [0, 0, 1, 0], [0, -1, 0, 0], [0, 0, 0, 1000]]) / 1000)
    return bytes(export_scene(scene, None, "glb"))


def _colour(species: str) -> list[int]:
    try:
        tone = find_species(species).tone
    except SpeciesError:
        tone = "#c9b193"
    return [*(int(tone[at : at + 2], 16) for at in (1, 3, 5)), 255]
