"""Old furniture as stock: a bookcase taken apart is a set of boards, of which only what has no holes is used."""

from ..inventory.owned import Owned
from ..mechanics.materials import Grade
from .choice import saw


def taken_apart(piece: Owned, shelves: int, thickness: int, grade: Grade) -> tuple[Owned, ...]:
    """The boards of one upright piece of furniture, with usable sizes, mm: two sides, between whose rows of holes a
    strip is whole; top and bottom, which lose their screwed ends; and its loose shelves. The back is too thin to count.
    """
    width, depth, height = (round(side) for side in piece.size)
    inside, strip = width - 2 * thickness, round(saw("hole_strip"))
    boards = [
        ("side", 2 * piece.count, height - 2 * strip, depth - 2 * strip),
        ("top and bottom", 2 * piece.count, inside - 2 * strip, depth),
        ("shelf", shelves * piece.count, inside, depth),
    ]
    return tuple(
        Owned(id=f"{piece.id}-{n}", name=f"{piece.name}, {name}"[:120], kind="board", count=count, grade=grade,
              size=(float(length), float(wide), float(thickness)), space=piece.space)
        for n, (name, count, length, wide) in enumerate(boards, 1) if count and length > 0 and wide > 0
    )  # fmt: skip
