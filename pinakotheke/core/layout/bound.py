"""A lower bound for the interior: the linear programme of shares.

A lot that asks `a` of a compartment with capacity C is charged the share a/C of that compartment's points and height
at least; the shares of one compartment add up to at most 1, so no layout costs less. The height shares in a bay add
up to at most its height. A lot may stay out at the price of an unplaced one. Splits, covers, the leftovers inside a
compartment and the true order only cost more, so the programme's optimum is a valid bound.
"""

from .columns import ASKED, BASE_CREDIT, BAY, EXTRA, FRONT_COST, HAS_BASE, OPEN, PITCHES, ROOM, ROW, UNITS
from .interior import UNPLACED, Problem

Programme = tuple[list[float], list[tuple[int, int, float]], int, list[float]]


def programme(problem: Problem) -> Programme:
    """The programme as plain numbers: costs of the variables, entries (row, variable, coefficient), number of lots (the
    first rows, each = 1) and the heights of the bays (the other rows, each ≤). Each lot's first variable leaves it out.
    """
    spot_i, spot_f, troubles, bay_i, bay_f, *_ = problem.arrays
    costs: list[float] = []
    entries: list[tuple[int, int, float]] = []
    lots = len(problem.lots)
    for lot in range(lots):
        entries.append((lot, len(costs), 1.0))
        costs.append(UNPLACED)
        for s in range(problem.starts[lot], problem.starts[lot + 1]):
            bay = int(spot_i[s, BAY])
            share = float(spot_f[s, ASKED] / spot_f[s, ROOM])
            units = int(spot_i[s, UNITS])
            cost = share * (spot_f[s, OPEN] + bay_f[bay, FRONT_COST] * units) + spot_f[s, EXTRA]
            cost += float(troubles[spot_i[s, ROW]].min())
            entries.append((lot, len(costs), 1.0))
            entries.append((lots + bay, len(costs), share * units))
            costs.append(float(cost))
    return costs, entries, lots, [float(bay_i[b, PITCHES]) for b in range(len(problem.bays))]


def credit(problem: Problem) -> float:
    """What shelves on the bays' own bottoms save at most: it is taken off the programme's optimum."""
    _, _, _, bay_i, bay_f, *_ = problem.arrays
    return float(sum(bay_f[b, BASE_CREDIT] for b in range(len(problem.bays)) if bay_i[b, HAS_BASE]))


def lower_bound(problem: Problem) -> float:
    """No interior of these lots in these bays costs less than this; below zero where what is at hand outweighs the rest."""
    from ortools.linear_solver import pywraplp  # 0.1 s to import, and only a solve needs it

    costs, entries, lots, heights = programme(problem)
    solver = pywraplp.Solver.CreateSolver("GLOP")
    rows = [solver.Constraint(1, 1) for _ in range(lots)] + [solver.Constraint(0, h) for h in heights]
    variables = [solver.NumVar(0, 1, "") for _ in costs]
    objective = solver.Objective()
    for variable, cost in zip(variables, costs, strict=True):
        objective.SetCoefficient(variable, cost)
    for row, variable_n, coefficient in entries:
        rows[row].SetCoefficient(variables[variable_n], coefficient)
    objective.SetMinimization()
    if solver.Solve() != pywraplp.Solver.OPTIMAL:
        # Rare, on badly scaled rows: the programme without the bays' heights is each lot's own least, a bound as well.
        least: dict[int, float] = {}
        for row, variable_n, _ in entries:
            if row < lots:
                least[row] = min(least.get(row, UNPLACED), costs[variable_n])
        return sum(least.values()) - credit(problem)
    return float(objective.Value()) - credit(problem)
