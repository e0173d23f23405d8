"""Whole searches: alternatives that differ for a reason, and honest answers when not everything fits."""

from unittest import TestCase

from pydantic import ValidationError

from pinakotheke.core.errors import Cancelled
from pinakotheke.core.house import HouseRules
from pinakotheke.core.layout import Design, verify
from pinakotheke.core.layout.models import Outcome
from pinakotheke.core.layout.solve import MOST_GROUPS, Watch, _distinct, allowed
from pinakotheke.core.materials import bill

from .examples import WARDROBE, demo_house, region, solved, thing


class SolveTests(TestCase):
    def test_alternatives_are_complete_proven_and_named(self) -> None:
        got = solved()
        self.assertIsNone(got.blocked)
        self.assertGreaterEqual(len(got.alternatives), 2)
        for design in got.alternatives:
            self.assertEqual(verify(design, region(), WARDROBE), ())
            self.assertEqual(design.unplaced, ())
            self.assertTrue(design.title and design.reason and design.outcome.method)
            self.assertGreaterEqual(design.outcome.gap, 0)

    def test_no_alternative_is_cheaper_than_the_cheapest_of_its_family(self) -> None:
        got = solved(effort=0.4)
        cheapest = next(d for d in got.alternatives if d.id == "cheapest")
        for other in got.alternatives:
            if other.family == cheapest.family:
                self.assertLessEqual(bill(cheapest).total, bill(other).total)

    def test_when_all_are_of_one_family_the_other_is_offered_if_it_holds_everything(self) -> None:
        got = solved((thing("shirts", "shirt", 6), thing("jumpers", "jumper", 4)), effort=0.3)
        self.assertEqual({d.family for d in got.alternatives}, {"carcase", "track"})

    def test_alternatives_that_came_out_alike_are_one_with_both_reasons(self) -> None:
        one = solved().alternatives[0]
        twin = one.model_copy(update={"id": "reach", "reason": "Within reach too."})
        (kept,) = _distinct([one, twin])
        self.assertEqual((kept.id, kept.reason), (one.id, f"{one.reason} Within reach too."))

    def test_same_seed_same_answer(self) -> None:
        self.assertEqual(solved(), solved())

    def test_a_first_complete_design_comes_before_the_rest(self) -> None:
        found: list[Design] = []
        solved(watch=Watch(found=found.append))
        self.assertEqual(found[0].unplaced, ())
        self.assertGreater(len(found), 3)

    def test_the_demo_closet(self) -> None:
        house = demo_house()
        space = house.spaces[0]
        from pinakotheke.core.layout import design_space
        from pinakotheke.core.survey import envelope

        got = design_space(space.id, envelope(space.survey, house.rules), house.things_in(space.id), house.people,
                           house.rules, effort=0.3)  # fmt: skip
        self.assertIsNone(got.blocked)
        self.assertGreaterEqual(len(got.alternatives), 3)

    def test_it_stops_when_asked_to(self) -> None:
        calls = 0

        def check() -> None:
            nonlocal calls
            calls += 1
            if calls > 3:
                raise Cancelled

        with self.assertRaises(Cancelled):
            solved(watch=Watch(check=check))
        self.assertEqual(calls, 4)

    def test_progress_rises_to_the_end(self) -> None:
        told: list[float] = []
        solved(watch=Watch(progress=lambda share, what: told.append(share)))
        self.assertEqual(told, sorted(told))
        self.assertEqual(told[-1], 1.0)

    def test_a_floor_kept_clear_has_nothing_standing_on_it(self) -> None:
        # Handbook section 3, school of the clear floor: nothing stands on it but what has wheels.
        rules = HouseRules(fit="every-inch", reserve=0, floor="clear")
        self.assertEqual(allowed(rules), ("track",))
        folded = (thing("jumpers", "jumper", 5), thing("shirts", "shirt", 9))
        got = solved(folded, rules=rules)
        self.assertTrue(got.alternatives)
        self.assertEqual({d.family for d in got.alternatives}, {"track"})
        for design in got.alternatives:
            self.assertGreater(min(p.z for p in design.parts), 0)

    def test_what_only_a_drawer_takes_asks_for_the_floor(self) -> None:
        rules = HouseRules(fit="every-inch", reserve=0, floor="clear")
        got = solved((thing("socks", "socks", 12, way="drawer"),), rules=rules)
        assert got.blocked is not None
        self.assertEqual([r.kind for r in got.blocked.relaxations], ["floor", "move out"])

    def test_nothing_to_keep_still_gives_a_design(self) -> None:
        self.assertTrue(solved(()).alternatives)


class BlockedTests(TestCase):
    def test_a_closet_smaller_than_the_narrowest_part(self) -> None:
        got = solved(line="width 300 300 300; height 2400; depth 600; door none")
        assert got.blocked is not None
        self.assertEqual((got.alternatives, got.blocked.kind, got.blocked.subject), ((), "size", "width"))
        # The narrowest carcase is 384 and 300 − 2 × 3 mm is clear: 90 mm short.
        self.assertEqual(got.blocked.short, 90)
        self.assertIsNone(solved((), line="width 390 390 390; height 2400; depth 600; door none").blocked)

    def test_too_shallow_or_too_low(self) -> None:
        for line, subject in (
            ("width 1846; height 2400; depth 150; door none", "depth"),
            ("width 1846; height 700; depth 600; door none", "height"),
        ):
            got = solved(line=line)
            assert got.blocked is not None
            self.assertEqual(got.blocked.subject, subject)
            self.assertGreater(got.blocked.short, 0)

    def test_too_much_names_what_is_left_out_and_what_would_do(self) -> None:
        rules = HouseRules(fit="every-inch", reserve=0.3)
        heap = (*WARDROBE, thing("gowns", "dress-long", 30), thing("boxes", "box-medium", 8))
        got = solved(heap, "width 900; height 2412; depth 612; door none", rules)
        assert got.blocked is not None
        self.assertEqual(got.blocked.kind, "demand")
        self.assertEqual(len(got.alternatives), 1)
        self.assertEqual(sum(u.count for u in got.alternatives[0].unplaced), got.blocked.short)
        move = next(r for r in got.blocked.relaxations if r.kind == "move out")
        # Moving out what the note names does let the rest fit.
        left = {u.thing: u.count for u in got.alternatives[0].unplaced}
        self.assertEqual(set(left), set(move.things))
        rest = tuple(
            t.model_copy(update={"count": t.count - left.get(t.id, 0)}) for t in heap if t.count > left.get(t.id, 0)
        )
        self.assertLessEqual(sum(t.count for t in rest), sum(t.count for t in heap) - move.value)

    def test_a_smaller_reserve_that_would_do_is_found_and_does(self) -> None:
        shirts = (thing("shirts", "shirt", 24, way="hang"),)
        line = "width 900; height 2300; depth 600; door none"
        got = solved(shirts, line, HouseRules(fit="every-inch", reserve=0.6))
        assert got.blocked is not None
        reserve = next(r.value for r in got.blocked.relaxations if r.kind == "reserve")
        self.assertLess(reserve, 0.6)
        self.assertIsNone(solved(shirts, line, HouseRules(fit="every-inch", reserve=reserve)).blocked)

    def test_slim_hangers_that_would_do_are_offered_and_do(self) -> None:
        # 34 shirts: 952 mm of rail on ordinary hangers, 714 on slim ones; one rail of at most 840 fits.
        shirts = (thing("shirts", "shirt", 34, way="hang"),)
        line = "width 900; height 2100; depth 600; door none"
        got = solved(shirts, line)
        assert got.blocked is not None
        self.assertIn("hangers", [r.kind for r in got.blocked.relaxations])
        slim = HouseRules(fit="every-inch", reserve=0, hangers="slim")
        self.assertIsNone(solved(shirts, line, slim).blocked)

    def test_ten_thousand_things_are_refused_at_once(self) -> None:
        got = solved(tuple(thing(f"t{n}", "shirt", 1) for n in range(10_000)))
        assert got.blocked is not None
        self.assertEqual((got.blocked.kind, got.blocked.short), ("too many", 10_000 - MOST_GROUPS))
        self.assertEqual(solved((thing("t", "box-medium", 10_000),)).blocked.kind, "demand")  # type: ignore[union-attr]


class OutcomeTests(TestCase):
    def outcome(self, **fields: object) -> Outcome:
        return Outcome.model_validate(
            {"status": "within", "objective": 10, "bound": 9, "method": "m", "run": "r", **fields}
        )

    def test_the_gap(self) -> None:
        self.assertAlmostEqual(self.outcome().gap, 0.1)
        self.assertEqual(self.outcome(objective=0, bound=0, status="proven").gap, 0)

    def test_an_outcome_cannot_contradict_itself(self) -> None:
        for bad in ({"bound": 11}, {"status": "proven"}, {"bound": 10}, {"objective": float("nan")}):
            with self.subTest(bad), self.assertRaises(ValidationError):
                self.outcome(**bad)
