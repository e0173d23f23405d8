"""What a household buys for some of its designs: the list, the plans as they would be ticked off, the shops of the day."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from functools import cached_property

from pinakotheke.core.drawing import Drawing
from pinakotheke.core.drawing.of_cuts import boards_diagram, sheet_diagram
from pinakotheke.core.materials import (
    Choice,
    Named,
    Offcut,
    Purchase,
    Sawn,
    Shopping,
    StandIn,
    StuffPlan,
    WithLists,
    offcuts_in_hand,
    purchase,
    sawn_board,
    sawn_sheet,
    shopping,
)
from pinakotheke.core.units import Units

from .. import models, rows


@dataclass
class Buying:
    """What a household buys for some of its designs, by a choice, on a day."""

    household: models.Household
    designs: Sequence[models.Design]
    choice: Choice
    day: date

    @cached_property
    def units(self) -> Units:
        """The household's."""
        return self.household.units  # type: ignore[return-value]

    @property
    def currency(self) -> str:
        """The household's."""
        return self.household.currency

    @cached_property
    def sawing(self) -> tuple[Sawn, ...]:
        """What was sawn."""
        return rows.sawing_of(self.household)

    @cached_property
    def named(self) -> Named:
        """The designs with the names of their spaces."""
        return [(self.name_of(row), rows.history_of(row).current) for row in self.designs]

    def name_of(self, row: models.Design) -> str:
        """The name of a design's space; two of one name have their keys beside it."""
        name = row.space.name
        double = sum(other.space.name == name for other in self.designs) > 1
        return f"{name} ({row.space.key})" if double else name

    @cached_property
    def bought(self) -> Purchase:
        """The list."""
        return purchase(self.named, self.choice, self.offcuts, self.sawing)

    @cached_property
    def offcuts(self) -> tuple[Offcut, ...]:
        """Boards and rests in hand."""
        return offcuts_in_hand(rows.stock_of(self.household), self.sawing)

    def planned(self) -> list[tuple[StuffPlan, Sawn]]:
        """Every sheet and board of the plans, as it would be ticked off."""
        found = []
        for plan in self.bought.plans:
            if plan.sheets is not None:
                found += [(plan, sawn_sheet("s0", plan, one)) for one in plan.sheets.sheets]
            elif plan.lengths is not None:
                found += [(plan, sawn_board("s0", plan, board)) for board in plan.lengths.boards]
        return found

    def diagrams(self, plan: StuffPlan, first: int, text: float = 0) -> list[Drawing]:
        """A drawing a sheet; one for all boards of a stuff."""
        day, how = self.day.isoformat(), {"text": text} if text else {}
        if plan.sheets is not None:
            return [
                sheet_diagram(plan, one, first + n, self.units, day, **how) for n, one in enumerate(plan.sheets.sheets)
            ]
        assert plan.lengths is not None
        return [
            boards_diagram(plan, plan.lengths.boards, self.choice.kerf, self.choice.trim, first, self.units, day, **how)
        ]

    @cached_property
    def market(self) -> WithLists:
        """The simulated suppliers, and those whose lists the household brought."""
        return WithLists(StandIn(self.day), rows.price_lists_of(self.household))

    @cached_property
    def shops(self) -> Shopping:
        """Where to buy."""
        return shopping(self.bought.lines, self.market, self.day)


def designs_to_buy(household: models.Household) -> list[models.Design]:
    """The design of every space that has one: the kept one first, or the first of the gallery."""
    found: dict[int, models.Design] = {}
    there = models.Design.objects.filter(space__household=household).select_related("space__household")
    for row in there.order_by("space_id", "-kept", "pk"):
        if row.space_id not in found and row.space.practice is None and rows.sound_history_of(row) is not None:
            found[row.space_id] = row
    return list(found.values())
