"""About how long a design takes to install. The household's own log will replace these figures."""

from ..base import Frozen, Why
from ..layout import Design
from ..systems import HOLDERS


class Hours(Frozen):
    """Working hours of one person, and how they were estimated."""

    hours: float
    why: Why


def hours(design: Design) -> Hours:
    """Hours to stand every module (`hours_a_module` of its family) and to fit what goes into it (`hours` of the
    compartment). Common practice: a day for four carcases, 2 to 2.5 h for a track of ten parts.
    """
    modules = sum(design.family_of(b).table.hours_a_module for b in design.bays)
    fitted = sum(design.family_of(p).spec(p.role).hours for p in design.parts if p.role in HOLDERS)
    return Hours(
        hours=modules + fitted,
        why=Why(
            rule="hours",
            values=(("modules", modules, "h"), ("what goes into them", fitted, "h"), ("bays", len(design.bays), "pieces")),
            basis="C", source="a day for four carcases on a level base; 2 to 2.5 h for a track system of ten parts",
        ),
    )  # fmt: skip
