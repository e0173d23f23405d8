"""Proofs by a general solver (CP-SAT): what the compiled searches cannot say. Imported where it is used, for the solver
takes its time to load.
"""

from collections.abc import Sequence
from typing import NamedTuple

from .partition import ROWS, Choice, bound
from .skyline import MOVES, Rect, Spot, pack

SMALL = 12
"""Rigid pieces up to which a skyline that left something out is not believed."""
EFFORT = 4.0
"""The solver's deterministic time for the rows of one drawer."""


class Rows(NamedTuple):
    """The least depth of rows without a column parted again: `used` as found and its proven `bound`, mm; the row and the
    choice of each group. `used` is None where nothing was found.
    """

    used: int | None
    bound: int
    rows: tuple[int, ...] = ()
    chosen: tuple[int, ...] = ()

    @property
    def is_proven(self) -> bool:
        """Whether nothing less is possible."""
        return self.used == self.bound


def rows(groups: Sequence[Sequence[Choice]], width: int, strip: int, *, within: int,
         effort: float = EFFORT) -> Rows:  # fmt: skip
    """Rows of compartments side by side that hold all groups in the least depth, at most `within`; `effort` is the
    solver's deterministic time, so that the same groups give the same answer.
    """
    from ortools.sat.python import cp_model

    n, most = len(groups), min(ROWS, len(groups))
    model = cp_model.CpModel()
    x = {(i, k, r): model.new_bool_var("") for i in range(n) for k in range(len(groups[i])) for r in range(most)}
    deep = [model.new_int_var(0, within, "") for _ in range(most)]
    used = [model.new_bool_var("") for _ in range(most)]
    for i in range(n):
        model.add_exactly_one(x[i, k, r] for k in range(len(groups[i])) for r in range(most))
    for r in range(most):
        inside = [(i, k, c) for i, g in enumerate(groups) for k, c in enumerate(g)]
        model.add(sum((c.w + strip) * x[i, k, r] for i, k, c in inside) <= (width + strip) * used[r])
        for i in range(n):
            model.add(deep[r] >= sum(c.d * x[i, k, r] for k, c in enumerate(groups[i])))
        if r:
            model.add(deep[r - 1] >= deep[r])
    least = bound(groups, width, strip)
    total = sum(deep) + strip * (sum(used) - 1)
    model.add(total <= within)
    model.add(total >= least)
    area = sum((c.w + strip) * (c.d + strip) * x[i, k, r] for i, g in enumerate(groups) for k, c in enumerate(g)
               for r in range(most))  # fmt: skip
    model.add(area <= (width + strip) * (total + strip))
    model.minimize(total)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_deterministic_time = effort
    status = solver.solve(model)
    if status == cp_model.INFEASIBLE:
        return Rows(None, within + 1)
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return Rows(None, max(least, round(solver.best_objective_bound)))
    at = {i: (r, k) for (i, k, r), var in x.items() if solver.value(var)}
    return Rows(round(solver.objective_value), max(least, round(solver.best_objective_bound)),
                tuple(at[i][0] for i in range(n)), tuple(at[i][1] for i in range(n)))  # fmt: skip


def settle(rects: Sequence[Rect], floor: tuple[int, int], closed: Sequence[Spot] = (), *, worth: Sequence[float] = (),
           moves: int = MOVES, seed: int = 1, effort: float = 0.5) -> list[Spot | None]:  # fmt: skip
    """Where rigid pieces lie, as `skyline.pack` says it; where that leaves some of few out, the general solver is asked
    for all of them.
    """
    spots = pack(rects, floor, closed, worth=worth, moves=moves, seed=seed)
    if all(spots) or len(rects) > SMALL:
        return spots
    found = lay(rects, floor, closed, effort=effort)
    return list(found) if isinstance(found, list) else spots


def lay(rects: Sequence[Rect], floor: tuple[int, int], closed: Sequence[Spot] = (), *, effort: float = 0.5,
        ) -> list[Spot] | bool | None:  # fmt: skip
    """All rigid pieces on a floor: where each lies; False when that is proven to be impossible; None when neither was
    found in the `effort`.
    """
    from ortools.sat.python import cp_model

    width, depth = floor
    if sum(r.w * r.d for r in rects) > width * depth - sum(c.w * c.d for c in closed):
        return False
    if any(min((max(r.w - width, r.d - depth), max(r.d - width, r.w - depth)) if r.turns
               else (max(r.w - width, r.d - depth),)) > 0 for r in rects):  # fmt: skip
        return False
    model = cp_model.CpModel()
    across, along, made = [], [], []
    for r in rects:
        turned = model.new_bool_var("") if r.turns and r.w != r.d else 0
        w, d = r.w + (r.d - r.w) * turned, r.d + (r.w - r.d) * turned
        sides = sorted({r.w, r.d})
        size = cp_model.Domain.from_values(sides)
        wv, dv = model.new_int_var_from_domain(size, ""), model.new_int_var_from_domain(size, "")
        model.add(wv == w)
        model.add(dv == d)
        xv, yv = model.new_int_var(0, width - min(sides), ""), model.new_int_var(0, depth - min(sides), "")
        xe, ye = model.new_int_var(0, width, ""), model.new_int_var(0, depth, "")
        across.append(model.new_interval_var(xv, wv, xe, ""))
        along.append(model.new_interval_var(yv, dv, ye, ""))
        made.append((xv, yv, wv, dv))
    for c in closed:
        across.append(model.new_fixed_size_interval_var(c.x, c.w, ""))
        along.append(model.new_fixed_size_interval_var(c.y, c.d, ""))
    model.add_no_overlap_2d(across, along)
    solver = cp_model.CpSolver()
    solver.parameters.num_workers = 1
    solver.parameters.max_deterministic_time = effort
    status = solver.solve(model)
    if status == cp_model.INFEASIBLE:
        return False
    if status not in (cp_model.OPTIMAL, cp_model.FEASIBLE):
        return None
    return [Spot(*(int(solver.value(v)) for v in one)) for one in made]
