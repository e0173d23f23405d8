"""A drawer is three depths: inside, reachable, and what an insert may take."""

from ..base import Frozen
from ..tables import value
from .models import Survey


class DrawerSizes(Frozen):
    """Sizes of a drawer in mm: `inside` as read, `reachable` from the front, `usable` for an insert."""

    inside: float
    reachable: float
    usable_width: float
    usable_height: float


def drawer_sizes(survey: Survey, section_id: str) -> DrawerSizes | None:
    """Of one drawer; None until a width, a depth and a height were read.

    reachable = opens by − overhang of the top, at most the inside depth (handbook section 1). An insert is narrower
    than the least width by its play and lower than the least height by the liner.
    """
    one = survey.only(section_id)
    width, depth, height = one.least("width"), one.least("depth"), one.least("height")
    if width is None or depth is None or height is None:
        return None
    opens = one.least("opens")
    reachable = depth if opens is None else max(min(depth, opens - max(one.values("overhang"), default=0)), 0)
    liner = max(one.values("liner"), default=value("survey.liner"))
    return DrawerSizes(inside=depth, reachable=reachable, usable_width=width - value("survey.insert_play"),
                       usable_height=height - liner)  # fmt: skip
