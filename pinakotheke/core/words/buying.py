"""What is said of a purchase: its budget, its cut plans, where it is bought."""

from collections.abc import Sequence
from decimal import Decimal

from ..materials.choice import Omission
from ..materials.plans import StuffPlan
from ..materials.suppliers import Order
from ..saying import counted
from ..units import Units, format_length
from .money import money


def budget_in_words(total: Decimal, budget: Decimal | None, currency: str) -> str:
    """How the list stands against the budget; nothing where there is none."""
    if budget is None:
        return ""
    if total <= budget:
        return f"Within the budget of {money(budget, currency)}: {money(budget - total, currency)} are left."
    return f"Over the budget of {money(budget, currency)} by {money(total - budget, currency)}."


def leave_out_in_words(omissions: Sequence[Omission], then: Decimal, budget: Decimal, currency: str) -> str:
    """What to leave out first, and where that leads."""
    if not omissions:
        return "Nothing on the list can simply be left out: a cheaper design, another system, or fewer spaces."
    names = " and ".join([", ".join(o.name for o in omissions[:-1]), omissions[-1].name] if omissions[1:] else
                         [omissions[0].name])  # fmt: skip
    enough = "" if then <= budget else f", still {money(then - budget, currency)} over"
    return f"Leave out {names} first: {money(then, currency)}{enough}."


def plan_in_words(plan: StuffPlan, currency: str) -> str:
    """What a cut plan costs, and what is proven of it."""
    found = plan.plan
    cost, least = Decimal(found.cost) / 100, Decimal(found.bound) / 100
    if not found.cost:
        return "All of it comes from offcuts in hand."
    if found.is_proven:
        return f"{money(cost, currency)}, and no plan is cheaper."
    return f"{money(cost, currency)}; no plan is cheaper than {money(least, currency)} ({found.gap:.0%} less)."


def rests_in_words(plan: StuffPlan, units: Units) -> str:
    """What is wasted and what is worth keeping."""
    kept = [" × ".join(format_length(mm, units) for mm in rest) for rest in plan.kept]
    waste = f"{plan.waste:.0%} becomes no part"
    return f"{waste}; worth keeping: {', '.join(kept)}." if kept else f"{waste}; no rest is worth keeping."


def order_in_words(order: Order, currency: str) -> str:
    """What an order costs and when it is there."""
    cents = Decimal(order.cents) / 100
    if not order.ordered:
        return "nothing on the list"
    days = f"{order.days} {counted(order.days, 'day', 'days')}"
    fee = f", {money(Decimal(order.delivery) / 100, currency)} of it delivery" if order.delivery else ", delivery free"
    return f"{money(cents, currency)}{fee}, there in {days}"
