"""Solids that the walk-round shows things by, as meshes of unit size about their middle, y up and z out from the wall:
stretched to what they show, and each kept once in the file however often it is seen.
"""

from collections.abc import Iterable
from functools import cache
from itertools import pairwise
from typing import TYPE_CHECKING

import numpy as np

if TYPE_CHECKING:
    import trimesh

Profile = tuple[tuple[float, float], ...]
"""Points (z, y) of an outline seen from the right, every one in sight from the first."""
BOX: Profile = ((-0.5, -0.5), (0.5, -0.5), (0.5, 0.5), (-0.5, 0.5))
GARMENT: Profile = ((0.0, -0.5), (0.46, -0.5), (0.5, 0.4), (0.1, 0.5), (-0.1, 0.5), (-0.5, 0.4), (-0.46, -0.5))
"""Shoulders on a hanger, a little narrower at the hem."""
FOLD: Profile = ((-0.5, -0.4), (-0.44, -0.5), (0.44, -0.5), (0.5, -0.36), (0.5, 0.36), (0.44, 0.5), (-0.44, 0.5),
                 (-0.5, 0.4))  # fmt: skip
"""One folded piece, its fold to the front."""
SHOE: Profile = ((-0.5, -0.5), (0.5, -0.5), (0.5, -0.15), (0.2, -0.02), (-0.05, 0.5), (-0.5, 0.5))
"""Heel at the back, toe to the front."""
LID = 0.16
"""Share of a box's height that its lid covers."""
MOST_FOLDS = 12


@cache
def solid(shape: str, count: int = 1) -> "trimesh.Trimesh":
    """A box, garment, shoes (a pair), folded (so many on each other) or lidded (a box with its lid)."""
    if shape == "garment":
        return _prism(GARMENT)
    if shape == "shoes":
        return _of(_prism(SHOE, (-0.5, -0.04)), _prism(SHOE, (0.04, 0.5)))
    if shape == "folded":
        edges = np.linspace(-0.5, 0.5, min(max(count, 1), MOST_FOLDS) + 1)
        return _of(*(_prism(FOLD, up=(low, high)) for low, high in pairwise(edges)))
    if shape == "lidded":
        return _of(_prism(BOX, (-0.48, 0.48), (-0.5, 0.5 - LID), 0.96), _prism(BOX, up=(0.5 - LID, 0.5)))
    return _prism(BOX)


def _of(*meshes: "trimesh.Trimesh") -> "trimesh.Trimesh":
    """Meshes as one."""
    starts = np.cumsum([0, *(len(m.vertices) for m in meshes)])
    return _mesh(np.vstack([m.vertices for m in meshes]),
                 np.vstack([m.faces + start for m, start in zip(meshes, starts, strict=False)]))  # fmt: skip


def _prism(profile: Profile, across: tuple[float, float] = (-0.5, 0.5), up: tuple[float, float] = (-0.5, 0.5),
           deep: float = 1.0) -> "trimesh.Trimesh":  # fmt: skip
    """A profile drawn out across x, its height between two others; its ends are fans about its first point."""
    number = len(profile)
    low, high = up
    points = [(x, low + (y + 0.5) * (high - low), z * deep) for x in across for z, y in profile]
    faces: list[tuple[int, int, int]] = []
    for n in range(1, number - 1):
        faces += [(0, n, n + 1), (number, number + n + 1, number + n)]
    for n in range(number):
        after = (n + 1) % number
        faces += [(n, number + n, after), (number + n, number + after, after)]
    return _mesh(points, faces)


def _mesh(points: Iterable[object], faces: Iterable[object]) -> "trimesh.Trimesh":
    import trimesh

    return trimesh.Trimesh(np.array(points), np.array(faces), process=False)
