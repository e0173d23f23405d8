"""What stands on a page of a PDF, read back by a library that did not write it."""

from collections.abc import Iterator
from typing import Any

from pypdf.generic import ContentStream

POINTS_A_MM = 72 / 25.4


def operations(page: object) -> Iterator[tuple[float, float, bytes, list[Any]]]:
    """Every operation of a page with how far its origin is moved, in points; turns and scales are not followed."""
    x, y = 0.0, 0.0
    kept: list[tuple[float, float]] = []
    for operands, operator in ContentStream(page["/Contents"].get_object(), None).operations:  # type: ignore[index]
        if operator == b"q":
            kept.append((x, y))
        elif operator == b"Q":
            x, y = kept.pop()
        elif operator == b"cm":
            x, y = x + float(operands[4]), y + float(operands[5])
        else:
            yield x, y, operator, operands
