"""A wall and its heap as the plain arrays that the kernel works on, and its answer read back."""

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import islice
from math import inf
from typing import Any, get_args

import numpy as np

from ...inventory import Thing, uses_a_month
from ...inventory.needs import STORAGE_OF, STORAGES, ways
from ...systems import FRONTS, Bay, Holder
from ...tables import load, value
from ..models import Weights
from . import columns
from .apart import apart_bits, class_of
from .options import PITCHES, Option, fitted, kind_of_bay, options, size_of_bay
from .task import Household
from .trouble import often

ROLES: tuple[Holder, ...] = get_args(Holder)
CODE: dict[str, int] = {role: n for n, role in enumerate(ROLES)}
Troubles = dict[tuple[tuple[float, ...], int, int, int, float], int]
"""Rows of trouble by foot, with the feet within reach and that out of the way, each with its number."""
BOARDS = frozenset({"shelf", "base", "shoe shelf"})
"""What closes a drawer below it by its own board, and lines up with its neighbours."""


@dataclass(frozen=True, slots=True)
class Scale:
    """Points a unit of each thing costs under the weights of a goal."""

    money: float
    front: float
    reach: float
    part: float
    hour: float
    reuse: float
    order: float

    @classmethod
    def of(cls, weights: Weights) -> "Scale":
        """5 is one point for a unit of money; the others are in proportion to what they usually weigh against it."""
        return cls(money=weights.money / 5, front=weights.room / 10, reach=weights.reach / 2,
                   part=weights.parts / 5 * value("design.part_points"),
                   hour=weights.hours / 5 * value("design.hour_points"), reuse=weights.reuse / 5,
                   order=weights.order / 5)  # fmt: skip


@dataclass(slots=True)
class Lot:
    """So many pieces of one thing in one compartment."""

    thing: Thing
    count: int
    option: Option


@dataclass(slots=True)
class Stacked:
    """A compartment in its bay: what is in it, and how many pitches up its foot stands."""

    role: Holder
    foot: int
    units: int
    lots: list[Lot]
    covered: bool = False
    """A drawer over which a cover lies."""

    @property
    def below(self) -> int:
        """Pitches from its foot to the part itself, for what hangs."""
        return max((lot.option.below for lot in self.lots), default=0)

    @property
    def front(self) -> int:
        """The height of a drawer's or basket's front: that of the tallest thing in it; 0 for what has none."""
        return max((lot.option.front for lot in self.lots), default=0) if self.role in FRONTS else 0


@dataclass(slots=True)
class Answer:
    """A whole wall furnished: its points, its stacks bay by bay, and the pieces without a place."""

    points: float
    stacks: list[list[Stacked]]
    out: dict[str, int]
    plan: Any = field(repr=False, default=None)

    @property
    def unplaced(self) -> int:
        """Pieces without a place."""
        return sum(self.out.values())


class Heap:
    """The things to be kept, with their options in every kind of bay that was asked about so far."""

    def __init__(self, things: Sequence[Thing], home: Household) -> None:
        self.things = [t for t in things if t.stays]
        self.home = home
        self.sockets = home.sockets if any("power" in t.row.needs for t in self.things) else ()
        self._blocks: dict[tuple[object, object], Block] = {}
        self._kinds: dict[object, list[list[Option]]] = {}
        self._troubles: Troubles = {}
        self._table = np.zeros((3, 0, PITCHES + 1))
        self._weighed: dict[Scale, Any] = {}
        owners = {o: n for n, o in enumerate(dict.fromkeys(t.owner for t in self.things if t.owner), 1)}
        kinds = {k: n for n, k in enumerate(dict.fromkeys(t.row.group for t in self.things))}
        words = {w: n for n, w in enumerate(dict.fromkeys(t.together for t in self.things if t.together))}
        self.words = len(words)
        kin = {k: n for n, k in enumerate(dict.fromkeys(_kin(t, home) for t in self.things))}
        self.kins = len(kin)
        self.rows = np.zeros((max(1, len(self.things)), 8), np.int64)
        for n, t in enumerate(self.things):
            self.rows[n] = (t.count, owners.get(t.owner, 0), class_of(t), kinds[t.row.group], words.get(t.together, -1),
                            int(100 * often(t)), kin[_kin(t, home)], _is_out_of_season(t, home))  # fmt: skip
        self.turns = np.asarray([_turn(t) for t in self.things] or [0.0])

    def alike(self, bay: Bay) -> tuple[object, object]:
        """What a bay shares with all that have the same options: its kind and its size."""
        return (kind_of_bay(bay, self.sockets), self.home.limits.opening(bay)), size_of_bay(bay)

    def block(self, bay: Bay) -> "Block":
        """The options of every thing in a bay of this kind."""
        key = kind, _ = self.alike(bay)
        known = self._blocks.get(key)
        if known is None:
            of_kind = self._kinds.get(kind)
            if of_kind is None:
                of_kind = self._kinds[kind] = [options(t, bay, self.home, self.home.limits) for t in self.things]
            known = self._blocks[key] = Block.of([fitted(row, bay, self.home, key) for row in of_kind], self._troubles)
        return known

    def troubles(self, scale: Scale) -> Any:
        """All rows of trouble that its options refer to, weighted; what is beyond reach costs the same for any goal."""
        known = self._table.shape[1]
        if known < max(1, len(self._troubles)):
            table = np.zeros((3, max(1, len(self._troubles)), PITCHES + 1))
            table[:, :known] = self._table
            feet = np.arange(PITCHES + 1)
            for (points, near, far, up, put_by), n in islice(self._troubles.items(), known, None):
                long = min(len(points), PITCHES + 1)
                table[0, n, :long], table[0, n, long:] = points[:long], points[long - 1]
                table[1, n] = (feet < near) | (feet > far)
                table[2, n] = put_by * (feet < up)
            self._table = table
        done = self._weighed.get(scale)
        fresh = self._table[:, len(done) if done is not None else 0 :]
        if fresh.shape[1]:
            points = load("sense")["points"]
            outside, in_the_way = points["reach"], points["put_by"] * scale.order
            rows = fresh[0] * scale.reach + fresh[1] * outside + fresh[2] * in_the_way
            done = self._weighed[scale] = rows if done is None else np.concatenate([done, rows])
        return done

    def homeless(self, bays: Sequence[Bay]) -> list[Thing]:
        """Things that have no option in any of the bays."""
        kinds = {id(block): block for block in (self.block(b) for b in bays if not b.locked)}.values()
        return [t for n, t in enumerate(self.things) if not any(block.rows[n] for block in kinds)]


def _kin(t: Thing, home: Household) -> tuple[str, ...]:
    """What a thing is by its last word, and whose: bath towels are kin to hand towels. What hangs longest is kin to all
    that hangs as long, and out of season whoever's it is: people give it one rail.
    """
    if (t.row.drop or 0) >= value("design.long_hang") and ways(t, home.rules)[0] == "hang":
        return "long hang", "", "" if _is_out_of_season(t, home) else t.owner
    return t.row.group, t.row.one.split()[-1], t.owner


def _is_out_of_season(t: Thing, home: Household) -> bool:
    """Whether a garment may hang with those of everybody that are seldom worn."""
    return uses_a_month(t.frequency) < uses_a_month("monthly") and ways(t, home.rules)[0] == "hang"


def _turn(t: Thing) -> float:
    """The order of setting in: what hangs by falling drop, then shoes, then by size."""
    if t.row.drop and "hang" in t.row.ways:
        return 3000 + t.row.drop
    if t.row.group == "shoes":
        return 2500
    w, d, h = t.size or t.row.size or (100, 100, 100)
    return float(300 + max(w, d, h) + 20 * (w * d * h * t.count / 1e6) ** 0.5)


@dataclass(slots=True)
class Block:
    """The options of a heap in one kind of bay: by thing, and as rows of the kernel's tables before they are weighed."""

    rows: list[list[Option]]
    flat: list[Option]
    whole: Any
    real: Any
    prices: Any
    """Price, hours, parts, money of a column, containers at hand: what a goal weighs."""
    _weighed: dict[Scale, Any] = field(default_factory=dict)

    @classmethod
    def of(cls, rows: list[list[Option]], troubles: Troubles) -> "Block":
        """Those options, their troubles kept in the heap's table."""
        flat = [o for row in rows for o in row]
        leaving, top = load("sense")["leaving"]["rank"], load("sense")["points"]["no_top"]
        whole = np.array([
            (CODE[o.role], o.below, o.above, o.lowest, o.highest, o.each,
             troubles.setdefault((o.troubles, o.near, o.far, o.up, o.put_by), len(troubles)),
             int(o.highest == 0 and o.way == "floor"), int(o.role == "drawer"), int(o.role in BOARDS),
             columns.BY_FOOT if o.role in BOARDS else columns.BY_TOP if o.role in FRONTS else 0,
             STORAGES.index(STORAGE_OF[o.way])) for o in flat
        ], np.int64).reshape(-1, 12)  # fmt: skip
        against = [leaving * o.rank + top * o.put_by * (not o.on_top) for o in flat]
        real = np.array([(o.step, o.mass, o.tare, 0.0, o.capacity, o.rating, 0.0, a, 0.0)
                         for o, a in zip(flat, against, strict=True)], float).reshape(-1, 9)  # fmt: skip
        prices = np.array([(o.price, o.hours, o.extra, float(o.at_hand)) for o in flat], float).reshape(-1, 4)
        return cls(rows, flat, whole, real, prices)

    def weighed(self, scale: Scale, troubles: Any) -> Any:
        """Its fractions with the points of a goal; `troubles` are those of the heap under it."""
        if scale in self._weighed:
            return self._weighed[scale]
        real = self.real.copy()
        real[:, columns.PRICE] = scale.money * self.prices[:, 0] + scale.part + scale.hour * self.prices[:, 1]
        real[:, columns.COLUMN] = scale.money * self.prices[:, 2] - scale.reuse * 5 * self.prices[:, 3]
        real[:, columns.AGAINST] *= scale.order
        real[:, columns.LEAST] = _least(self.whole, troubles)
        self._weighed[scale] = real
        return real


class Wall:
    """Bays and a heap as arrays, under one goal."""

    def __init__(self, heap: Heap, bays: Sequence[Bay], spans: Sequence[int], scale: Scale) -> None:
        self.heap, self.bays, self.scale = heap, bays, scale
        blocks: dict[int, tuple[int, Block]] = {}
        types: list[int] = []
        for bay in bays:
            if bay.locked:
                types.append(0)
                continue
            block = heap.block(bay)
            types.append(blocks.setdefault(id(block), (len(blocks), block))[0])
        made = [block for _, block in blocks.values()]
        self.options = [o for block in made for o in block.flat]
        starts = [0]
        for block in made:
            for row in block.rows:
                starts.append(starts[-1] + len(row))
        starts += [starts[-1]] * (len(heap.things) + 1 - len(starts))
        whole = np.concatenate([b.whole for b in made]) if made else np.zeros((0, 12), np.int64)
        troubles = heap.troubles(scale)
        real = np.concatenate([b.weighed(scale, troubles) for b in made]) if made else np.zeros((0, 9))
        self.arrays = (np.asarray(starts, np.int64), whole, real, troubles, heap.turns, heap.rows,
                       *self._bay_tables(types, spans), weights_of(heap.home.rules.reserve, scale.order),
                       apart_bits(), self._in_order())  # fmt: skip

    def _bay_tables(self, types: list[int], spans: Sequence[int]) -> tuple[Any, Any, Any]:
        n = max(1, len(self.bays))
        whole, real = np.zeros((n, 9), np.int64), np.zeros((n, 6))
        sections = {s: k for k, s in enumerate(dict.fromkeys(b.section for b in self.bays))}
        most = max((len(b.blocked) for b in self.bays), default=0)
        blocked = np.zeros((n, max(1, most), 3), np.int64)
        component, families = self.heap.home.cache.component, self.heap.home.families
        for k, bay in enumerate(self.bays):
            family = families.of(bay)
            ranges = sorted(
                (max(0, (b.low - bay.z0) // bay.pitch), -(-(b.high - bay.z0) // bay.pitch), int(b.loose))
                for b in bay.blocked if b.high > bay.z0 and b.low < bay.z1
            )  # fmt: skip
            blocked[k, : len(ranges)] = np.asarray(ranges).reshape(-1, 3)
            whole[k] = (types[k], 0 if bay.locked else min(bay.pitches, PITCHES), int(bay.has_base), int(bay.loose),
                        bay.at_hand, len(ranges), spans[k],
                        (bay.highest - bay.z0) // bay.pitch if bay.highest else PITCHES,
                        self._beside(k, spans))  # fmt: skip
            shelf = (
                component(family, "shelf", bay, 0, alike=self.heap.alike(bay)).price if "shelf" in family.specs else 0.0
            )
            points = self.scale.money * shelf + self.scale.part
            across = bay.w
            stands = not (family.companion or family.on_what_is_there or bay.locked)
            far = self.heap.home.way_in.far(bay.section, bay.x + bay.w / 2) / 1000
            real[k] = (self.scale.front * across * bay.pitch / 1e4, points, points, float(stands), far,
                       sections[bay.section])  # fmt: skip
        return whole, real, blocked

    def _beside(self, k: int, spans: Sequence[int]) -> int:
        """The bay right beside one in its row, at whose heights its own may stand; -1 for none."""
        bay, beside = self.bays[k], load("sense")["beside"]
        return next(
            (n for n, other in enumerate(self.bays)
             if spans[n] == spans[k] and 0 <= other.x - (bay.x + bay.w) <= beside), -1
        )  # fmt: skip

    def _in_order(self) -> Any:
        """The bays in which people have their own, along the walls: all that stand or hang side by side."""
        families = self.heap.home.families
        side_by_side = [n for n, b in enumerate(self.bays) if not families.of(b).lies_on]
        sections = list(dict.fromkeys(b.section for b in self.bays))
        side_by_side.sort(key=lambda n: (sections.index(self.bays[n].section), self.bays[n].x))
        return np.asarray(side_by_side, np.int64)

    def plan(self) -> tuple[Any, ...]:
        """An empty plan."""
        b, g = max(1, len(self.bays)), self.heap.rows.shape[0]
        c, m = columns.MOST_COMPARTMENTS, columns.MOST_LOTS
        return (
            np.zeros(b + 1, np.int64), np.zeros((b + 1, c, 14), np.int64), np.zeros((b + 1, c, 5)),
            np.zeros((b + 1, c, m, 3), np.int64), np.zeros(b + 1), self.heap.rows[:, columns.COUNT].copy(),
            np.zeros((c, PITCHES + 2)), np.zeros((c, PITCHES + 2), np.int64),
            np.zeros((max(1, self.heap.words), b), np.int64), np.zeros(columns.STORES), np.zeros(columns.STORES),
            np.zeros(g, np.int64), np.zeros(g, np.int64), np.zeros(g, np.int64), np.zeros(g),
            np.zeros((b + 1, c, PITCHES + 1)), np.zeros(1, np.int64),
            np.zeros(b, np.int64), np.zeros(g, np.int64), np.zeros(g, np.int64),
            np.zeros((2, max(1, self.heap.kins)), np.int64), np.zeros(g, np.int64), np.zeros((2, c), np.int64),
            np.zeros((b + 1, PITCHES + 2)), np.zeros(b + 1),
            np.zeros(columns.TRIED), np.zeros((columns.TRIED, 2), np.int64), np.zeros(b),
        )  # fmt: skip

    def like(self, other: "Wall", plan: tuple[Any, ...]) -> tuple[Any, ...]:
        """A plan with what another wall's plan holds, each bay as that which stands most where it does, as far as its
        compartments take it.
        """
        mine = self.plan()
        for b, old in _matched(self.bays, other.bays).items():
            for k in range(plan[0][old]):
                held = self._taken(b, [(int(g), other.options[o], int(n))
                                       for g, o, n in plan[3][old, k, : plan[1][old, k, columns.C_LOTS]]])  # fmt: skip
                if held:
                    at = mine[0][b]
                    mine[0][b] += 1
                    mine[1][b, at, columns.C_LOTS] = len(held)
                    mine[3][b, at, : len(held)] = held
                    for g, _, n in held:
                        mine[5][g] -= n
        self.reckoned(mine)
        for b in map(int, np.flatnonzero(mine[4] >= columns.BIG)):
            # What does not stand there is set in anew.
            for k in range(mine[0][b]):
                for g, _, n in mine[3][b, k, : mine[1][b, k, columns.C_LOTS]]:
                    mine[5][g] += n
            mine[0][b] = 0
        return mine

    def _taken(self, b: int, lots: list[tuple[int, Option, int]]) -> list[tuple[int, int, int]]:
        """Of the lots of one compartment what a compartment of bay `b` takes, as (group, option, pieces)."""
        starts, row = self.arrays[0], self.arrays[6][b, columns.TYPE] * len(self.heap.things)
        free, bears, found = inf, inf, []
        for g, old, n in lots:
            like = next((o for o in range(starts[row + g], starts[row + g + 1]) if self.options[o].is_like(old)), None)
            if like is None:
                continue
            one = self.options[like]
            free, bears = min(free, one.capacity), min(bears, one.rating)
            n = min(n, int(free / one.step + 1e-9) * one.each)
            mass = n * one.mass + -(-n // one.each) * one.tare
            if n and mass <= bears:
                free, bears = free - -(-n // one.each) * one.step, bears - mass
                found.append((g, like, n))
        return found

    def copied(self, plan: tuple[Any, ...]) -> tuple[Any, ...]:
        """A plan of its own, alike."""
        return tuple(array.copy() for array in plan)

    def begin(self, plan: tuple[Any, ...], state: int, noise: float) -> tuple[int, float]:
        """Everything set in by best fit; state and points."""
        return self._run("BEGIN", plan, hot=noise, state=state)

    def improve(self, plan: tuple[Any, ...], best: tuple[Any, ...], kept: tuple[Any, ...], moves: int, hot: float,
                cold: float, state: int, points: float) -> tuple[int, float]:  # fmt: skip
        """So many moves; `points` are those of the `best` so far, which is written. State and points."""
        return self._run("IMPROVE", plan, best, kept, moves, hot, cold, state, points)

    def line_up(self, plan: tuple[Any, ...]) -> None:
        """Shelves of neighbouring bays at one height, as far as they may be."""
        self._run(
            "LINE_UP", plan, points=load("sense")["points"]["line"] * max(1.0, 2 * self.scale.reach, self.scale.order)
        )

    def reckoned(self, plan: tuple[Any, ...]) -> float:
        """The points of a plan that was made under other ones, or of a wall that changed."""
        return self._run("RECKON", plan)[1]

    def _run(self, what: str, plan: tuple[Any, ...], best: tuple[Any, ...] | None = None,
             kept: tuple[Any, ...] | None = None, moves: int = 0, hot: float = 1.0, cold: float = 1.0, state: int = 1,
             points: float = 0.0) -> tuple[int, float]:  # fmt: skip
        from . import kernel  # numba takes half a second to import, and only a search needs it

        removed = np.zeros(len(self.heap.rows), np.int64)
        state, points = kernel.run(getattr(kernel, what), self.arrays, plan, best or plan, kept or plan, removed, moves,
                                   float(hot), float(cold), state, float(points))  # fmt: skip
        return int(state), float(points)

    def read(self, plan: tuple[Any, ...], points: float) -> Answer:
        """A plan as compartments and pieces."""
        count, whole, _, lots, _, out = plan[:6]
        stacks: list[list[Stacked]] = []
        for b in range(len(self.bays)):
            stack = []
            for k in range(count[b]):
                c = whole[b, k]
                inside = [
                    Lot(self.heap.things[int(g)], int(n), self.options[int(o)])
                    for g, o, n in lots[b, k, : c[columns.C_LOTS]]
                ]
                role = ROLES[int(c[columns.C_ROLE])]
                if k == 0 and role == "shelf" and c[columns.C_FOOT] == 0 and self.bays[b].has_base:
                    role = "base"
                stack.append(Stacked(role, int(c[columns.C_FOOT]), int(c[columns.C_BELOW] + c[columns.C_ABOVE]), inside,
                                     bool(c[columns.C_COVERED])))  # fmt: skip
            stacks.append(stack)
        left = {t.id: int(out[n]) for n, t in enumerate(self.heap.things) if out[n]}
        return Answer(points, stacks, left, plan)


def _matched(bays: Sequence[Bay], others: Sequence[Bay]) -> dict[int, int]:
    """Of every bay the one of the others, of its family and wall, that stands most where it does; each once."""
    pairs = sorted(
        (-(min(a.x + a.w, b.x + b.w) - max(a.x, b.x)), n, m)
        for n, a in enumerate(bays) for m, b in enumerate(others)
        if (a.section, a.family, a.locked) == (b.section, b.family, False)
    )  # fmt: skip
    found: dict[int, int] = {}
    for apart, n, m in pairs:
        if apart < 0 and n not in found and m not in found.values():
            found[n] = m
    return found


def _least(whole: Any, troubles: Any) -> Any:
    """The least trouble of every option over the feet between which its compartment may stand."""
    if not len(whole):
        return np.zeros(0)
    feet = np.arange(troubles.shape[1])
    may = (feet >= whole[:, [columns.LOWEST]]) & (feet <= whole[:, [columns.HIGHEST]])
    return np.where(may, troubles[whole[:, columns.ROW]], columns.BIG).min(axis=1)


def weights_of(reserve: float, order: float) -> Any:
    """The points of sense in the order of their columns, and the reserve that is wished for. `order` weighs what tidies."""
    points = load("sense")["points"]
    firm = [points[name] for name in ("out", "out_piece", "reserve", "empty")]
    tidy = [points["split"] * max(1.0, order)]  # as few places as may be, whatever it costs
    tidy += [points[name] * order for name in (
        "apart", "walls", "words", "crowd", "mixed", "owners", "owner_runs", "over_rail", "far_in",
        "lengths", "headroom", "kin", "uneven")]  # fmt: skip
    # Two rails one above the other are worth it where order counts for more than usual.
    double = points["double"] * max(0.0, order - 1)
    lines = points["lines"] * max(1.0, order)
    lined = points["lined"] if order <= 1 else 1.0
    return np.array([*firm, *tidy, double, lines, lined, reserve], float)
