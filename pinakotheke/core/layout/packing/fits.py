"""What pieces ask of a compartment, and whether they go in: the one place for it.

The search cuts its lots by it, the verifier proves by it, the checks and the ledger add up by it.
"""

from dataclasses import dataclass
from math import ceil

from ...house import HouseRules
from ...inventory import Thing
from ...inventory.containers import Container, boxed, in_one, stacked
from ...inventory.kinds import Way
from ...inventory.needs import need, posed, rows_deep
from ...systems import PULL_OUTS, Bay, Family, Part, Role
from ...tables import value
from .lying import bed

NEVER = 1e9
"""What pieces ask that do not go in at all: more than any compartment has, mm and kg."""


@dataclass(frozen=True, slots=True)
class Ask:
    """What `count` pieces of a thing ask: `amount` in the compartment's own unit (mm, or mm² of a drawer's floor),
    `clear` along the bay's axis with the room to get them out, `depth` out from its back, `width` of the widest rigid
    piece, `height` only where the axis is no height, `mass` in kg.
    """

    amount: float
    clear: float
    depth: float
    width: float
    mass: float
    height: float = 0.0
    stacks: int = 1


def ask(thing: Thing, way: Way, role: Role, family: Family, bay: Bay, rules: HouseRules, count: int, *,
        turned: bool = False, container: Container | None = None) -> Ask:  # fmt: skip
    """What so many pieces ask of a compartment of this role in this bay. Of a container that does not take them they
    ask for more than there is.
    """
    if container is not None:
        kept = boxed(thing, container, count, rules, turned)
        if kept is None:
            return Ask(NEVER, NEVER, NEVER, NEVER, NEVER)
        return Ask(kept.amount, kept.clear, kept.depth, kept.piece_width, kept.mass)
    if role == "compartment":
        return _in_cell(thing, family.clear_depth(role, bay), bay, count)
    n = need(thing, way, rules, count, turned)
    stacks = ceil(count / n.per_stack)
    if way == "hook":
        width, depth, _ = on_hook(thing, turned, family.clear_depth(role, bay) + overhang(way, role))
        return Ask(count * (width + value("fold.between")), n.clear, depth, width, n.mass)
    if way == "overhead":
        return Ask(count * (n.piece_width + value("fold.between")), n.clear, n.depth, n.piece_width, n.mass)
    if family.spec(role).capacity == "depth":
        return Ask(n.amount, n.clear, 0.0, n.depth, n.mass)
    rows = rows_in(thing, way, role, family, bay, n.depth)
    if rows == 1:
        return Ask(n.amount, n.clear, n.depth, n.piece_width, n.mass, stacks=stacks)
    across = ceil(stacks / rows)
    return Ask(n.amount * across / stacks, n.clear, n.depth * min(rows, stacks), n.piece_width, n.mass, stacks=across)


def on_hook(thing: Thing, turned: bool, room: float) -> tuple[float, float, float]:
    """Width, depth and height of a piece on a hook: edge on to the wall, or flat against it where that comes out farther
    than the `room` before it.
    """
    width, depth, height = posed(thing, "hook", turned)
    return (depth, width, height) if not turned and width < depth and depth > room else (width, depth, height)


def in_column(thing: Thing, way: Way, role: Role, family: Family, bay: Bay, rules: HouseRules, *, turned: bool = False,
              container: Container | None = None) -> int:  # fmt: skip
    """How many pieces share one column of a compartment, whose width `ask` of one piece says: a stack, rows one behind
    the other, boxes on each other; 1 for what hangs.
    """
    if container is not None:
        return max(1, in_one(thing, container)) * stacked(thing, container, rules)
    if way in ("hang", "hook", "overhead", "floor") or family.spec(role).capacity == "depth":
        return 1
    n = need(thing, way, rules, 1, turned)
    return n.per_stack * rows_in(thing, way, role, family, bay, n.depth)


def rows_in(thing: Thing, way: Way, role: Role, family: Family, bay: Bay, depth: float) -> int:
    """How many rows of a thing stand one behind the other in a compartment."""
    return rows_deep(thing, way, depth, family.clear_depth(role, bay))


def _in_cell(thing: Thing, depth: float, bay: Bay, count: int) -> Ask:
    """A compartment on a drawer's floor, which its own bay is: pieces as they lie in the least of its width."""
    clear = bay.drawer.clear if bay.drawer is not None else 0
    lie = bed(thing, count, depth, clear)
    if lie is None:
        return Ask(NEVER, 0, NEVER, NEVER, count * thing.piece_mass, NEVER)
    return Ask(lie.width, 0, lie.depth, lie.pose.w, count * thing.piece_mass, lie.height)


def overhang(way: Way, role: Role) -> float:
    """How far things may stand out past the depth of a compartment, mm."""
    if role in ("hooks", "floor", "platform"):
        return value("fold.stand_out")
    return value("fold.overhang") if way in ("shelf", "shoe") and role in ("shelf", "shoe shelf", "base") else 0.0


@dataclass(frozen=True, slots=True)
class Misfit:
    """Why pieces do not go into a compartment (a row of `size` in `tables/faults.toml`): what was measured against which
    limit.
    """

    measured: float
    limit: float
    why: str


def misfit(thing: Thing, way: Way, role: Role, a: Ask, family: Family, bay: Bay) -> Misfit | None:
    """Whether pieces go into a compartment of this role at all, whatever else is in it; None when they do."""
    spec = family.spec(role)
    if way not in spec.ways:
        return Misfit(0, 0, "way")
    if spec.kinds and thing.kind not in spec.kinds:
        return Misfit(0, 0, "kind")
    depth, width = family.clear_depth(role, bay) + overhang(way, role), family.clear_width(role, bay)
    if bay.drawer is not None and a.height > bay.drawer.clear:
        return Misfit(a.height, bay.drawer.clear, "high")
    if a.depth > depth:
        return Misfit(a.depth, depth, "deep")
    if a.width > width - bay.blind * 0.5:
        return Misfit(a.width, width, "wide")
    if bay.w < spec.least_width:
        return Misfit(bay.w, spec.least_width, "bay narrow")
    if not spec.least_depth <= bay.depth <= spec.most_depth:
        return Misfit(bay.depth, spec.least_depth, "bay depth")
    if role in PULL_OUTS and not bay.pulls:
        return Misfit(0, 0, "slides")
    if spec.fronts and not front_for(family, role, a):
        return Misfit(a.clear, spec.fronts[-1] - spec.lost_height, "high")
    return None


def front_for(family: Family, role: Role, a: Ask) -> int:
    """The lowest front of a drawer or basket that takes pieces so high; 0 when none does, or it has no front."""
    spec = family.spec(role)
    return next((f for f in spec.fronts if f - spec.lost_height >= a.clear), 0)


def position(part: Part, bay: Bay) -> int:
    """Where a part stands along its bay's axis, mm."""
    return int(getattr(part, bay.axis))
