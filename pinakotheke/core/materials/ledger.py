"""The ledger of money: what each space was estimated at, what was ordered, received, returned and spent. A return costs a
trip, and the trip is counted.
"""

from collections.abc import Mapping, Sequence
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import Field, StringConstraints

from ..base import Frozen, Id
from ..tables import load

NOTHING = Decimal(0)
EntryKind = Literal["ordered", "received", "returned"]


class MoneyEntry(Frozen):
    """Money of one space on one day, in the household's currency."""

    id: Id
    space: Id
    kind: EntryKind
    amount: Annotated[Decimal, Field(gt=0, le=1_000_000, decimal_places=2)]
    what: Annotated[str, StringConstraints(strip_whitespace=True, max_length=200)] = ""
    on: Annotated[str, Field(pattern=r"^(\d{4}-\d\d-\d\d)?$")] = ""


class Account(Frozen):
    """One space's money. `spent` is what was received less what was returned, and the trips that returns took."""

    space: str
    estimate: Decimal
    ordered: Decimal = NOTHING
    received: Decimal = NOTHING
    returned: Decimal = NOTHING
    trips: int = 0
    spent: Decimal = NOTHING

    @property
    def due(self) -> Decimal:
        """Ordered and not yet received."""
        return max(NOTHING, self.ordered - self.received)


def trip_cost() -> Decimal:
    """What a trip back to a supplier costs."""
    return Decimal(str(load("stock")["money"]["trip"]["value"]))


def accounts(estimates: Mapping[str, Decimal], entries: Sequence[MoneyEntry]) -> tuple[Account, ...]:
    """An account for every space that has an estimate or an entry, and one (`""`) for all of them, last."""
    spaces = [*estimates, *dict.fromkeys(e.space for e in entries if e.space not in estimates)]
    found = [
        _account(space, estimates.get(space, NOTHING), [e for e in entries if e.space == space]) for space in spaces
    ]
    whole = _account("", sum(estimates.values(), NOTHING), entries)
    return (*found, whole)


def _account(space: str, estimate: Decimal, entries: Sequence[MoneyEntry]) -> Account:
    sums = {
        kind: sum((e.amount for e in entries if e.kind == kind), NOTHING)
        for kind in ("ordered", "received", "returned")
    }
    trips = sum(e.kind == "returned" for e in entries)
    spent = sums["received"] - sums["returned"] + trips * trip_cost()
    return Account(space=space, estimate=estimate, trips=trips, spent=spent, **sums)
