"""A lower bound for the interior: the linear programme of shares.

A lot that asks `a` of a compartment with capacity C is charged the share a/C of that compartment's price and height
at least; the shares of one compartment add up to at most 1, so no layout costs less. The height shares in a bay add
up to at most its height. A lot may stay out at the price of an unplaced one. Splits, covers, the leftovers inside a
compartment and the true order only cost more, so the programme's optimum is a valid bound.
"""

from collections.abc import Sequence

from .interior import UNPLACED
from .lots import Lot
from .packing import BayPacker


def lower_bound(lots: Sequence[Lot], packers: Sequence[BayPacker]) -> float:
    """No interior of these lots in these bays costs less than this (the credit for a shelf on the bay's own bottom
    is taken off once per bay)."""
    from ortools.linear_solver import pywraplp  # 0.1 s to import, and only a solve needs it

    solver = pywraplp.Solver.CreateSolver("GLOP")
    heights = [solver.Constraint(0, p.most) for p in packers]
    objective = solver.Objective()
    for lot in lots:
        one = solver.Constraint(1, 1)
        out = solver.NumVar(0, 1, "")
        one.SetCoefficient(out, 1)
        objective.SetCoefficient(out, UNPLACED)
        for option in lot.options:
            for bay in sorted(option.bays):
                packer = packers[bay]
                price, capacity = packer.opening(option)
                share = option.asked / capacity
                weights = packer.weights
                cost = share * (weights.price * price + weights.front * option.units * packer.dm2)
                cost += weights.reach * min(option.costs)
                variable = solver.NumVar(0, 1, "")
                one.SetCoefficient(variable, 1)
                heights[bay].SetCoefficient(variable, share * option.units)
                objective.SetCoefficient(variable, cost)
    objective.SetMinimization()
    if solver.Solve() != pywraplp.Solver.OPTIMAL:
        raise RuntimeError("the linear programme of shares has always a solution: everything left out")
    credit = sum(p.weights.price * p.shelf_price for p in packers if p.bay.has_base)
    return max(0.0, float(objective.Value()) - credit)
