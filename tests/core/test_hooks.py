"""What hangs on a peg hangs from there: nothing reaches into what is below, and the verifier measures from the peg."""

from unittest import TestCase

from pinakotheke.core.layout import Design, verify
from pinakotheke.core.layout.packing.contain import lying
from pinakotheke.core.systems import FAMILIES, Part

from .examples import TIGHT_FIT, regions, solved, thing

LINE = "width 1800; height 2400; depth 400; door none"
BAGS = (thing("bags", "rucksack", 4, way="hook"),)


def hung_bags() -> Design:
    """Bags on a hook board."""
    return next(d for d in solved(BAGS, LINE, families=("pegs",)).alternatives if not d.unplaced)


class HookTests(TestCase):
    def test_things_hang_from_the_peg_and_end_their_own_length_below_it(self) -> None:
        design = hung_bags()
        board = next(p for p in design.parts if p.role == "hooks")
        family, tall = design.family_of(board), BAGS[0].row.size[2]  # type: ignore[index]
        peg = board.z + family.spec("hooks").peg
        self.assertEqual(family.peg(board), peg)
        for one in lying(design, board, {t.id: t for t in BAGS}):
            self.assertAlmostEqual(one.z + one.h, peg)
            self.assertAlmostEqual(one.z, peg - tall)
            low, _ = family.takes(board, tall + 25)
            self.assertLessEqual(low, one.z, "what is hung lies within what its compartment takes")

    def test_the_last_on_a_hook_board_asks_for_no_room_beside_it(self) -> None:
        design = hung_bags()
        board = next(p for p in design.parts if p.role == "hooks")
        family, bay = design.family_of(board), design.bay_of(board)
        self.assertEqual(family.capacity("hooks", bay) - family.clear_width("hooks", bay), 20)

    def test_in_every_family_a_thing_on_a_hook_is_within_its_compartment(self) -> None:
        for family in FAMILIES.values():
            if "hooks" not in family.specs:
                continue
            part = Part(id="h", item=f"{family.id}.hooks", role="hooks", bay=0, x=0, y=0, z=1500, w=800, d=30,
                        h=family.spec("hooks").height, fixed_to="wall")  # fmt: skip
            for tall in (120, 480, 1300):
                low, high = family.takes(part, tall + 25)
                self.assertLessEqual(low, family.peg(part) - tall, family.id)
                self.assertGreaterEqual(high, part.z + part.h, family.id)

    def test_the_verifier_refuses_what_reaches_into_what_is_below(self) -> None:
        design = hung_bags()
        board = next(p for p in design.parts if p.role == "hooks" and design.held_by(p.id))
        low = min(one.z for one in lying(design, board, {t.id: t for t in BAGS}))
        family, bay = design.family_of(board), design.bay_of(board)
        for top, ok in ((low, True), (low + 8, False)):
            shelf = family.placed(bay, "below", "shelf", int(top) - 18)
            with_shelf = design.model_copy(update={"parts": (*design.parts, shelf)})
            faults = {f.why for f in verify(with_shelf, regions(LINE, TIGHT_FIT), BAGS) if f.code == "headroom"}
            self.assertEqual("above" in faults, not ok, top)
