"""Reviews and growth: days by hand, what to look at, where what overflows would have room, what children will reach."""

from collections import Counter
from datetime import date
from unittest import TestCase

from pinakotheke.core.house import Person, reach_zone
from pinakotheke.core.house.growth import usual_stature
from pinakotheke.core.inventory import Thing
from pinakotheke.core.upkeep import Place, Stay
from pinakotheke.core.upkeep.capacity import Rooms, known_most
from pinakotheke.core.upkeep.growing import growing, reach_in, usual_years
from pinakotheke.core.upkeep.review import Leaving, Review, due, held_in, leaving, relief, sooner, to_look_at

TODAY = date(2026, 3, 10)


def thing(key: str, kind: str = "jumper", **more) -> Thing:  # type: ignore[no-untyped-def]
    return Thing(id=key, name=key, kind=kind, count=more.pop("count", 4), **more)


class DueTests(TestCase):
    def test_both_schools_by_hand(self) -> None:
        moved = date(2026, 1, 10)
        self.assertEqual(due(moved, [], "fortnight"), date(2026, 1, 24))
        self.assertEqual(due(moved, [], "month"), date(2026, 2, 9))
        once = [Review(id="a", space="s", on="2026-01-25")]
        self.assertEqual(due(moved, once, "fortnight"), date(2026, 4, 10))
        self.assertEqual(due(moved, once, "month"), date(2026, 2, 9))
        twice = [*once, Review(id="b", space="s", on="2026-04-12")]
        self.assertEqual(due(moved, twice, "fortnight"), date(2026, 6, 1))
        late = [*twice, Review(id="c", space="s", on="2026-12-05")]
        self.assertEqual(due(moved, late, "month"), date(2027, 3, 1))
        chosen = [*late, Review(id="d", space="s", on="2026-12-20", next_on="2027-01-15")]
        self.assertEqual(due(moved, chosen, "month"), date(2027, 1, 15))

    def test_what_leaves_has_a_place_to_go_and_a_day(self) -> None:
        one = thing("old", decision="sell")
        self.assertEqual(leaving(one, TODAY, None)[1], date(2026, 4, 9))
        said = Leaving(id="l", thing="old", to="Ines", by="2026-03-12")
        self.assertEqual(leaving(one, TODAY, said), ("Ines", date(2026, 3, 12)))

    def test_what_never_goes_back_is_used_more_often(self) -> None:
        self.assertEqual([sooner(f) for f in ("daily", "weekly", "rarely")], ["daily", "daily", "seasonal"])


class LookTests(TestCase):
    def setUp(self) -> None:
        self.places = [Place(id=p, space="s", name=p) for p in ("p", "q", "r")]
        self.things = {t.id: t for t in (thing("jumpers"), thing("hats", "hat"))}
        self.stays = [Stay(id="1", place="p", thing="jumpers", count=4),
                      Stay(id="2", place="q", thing="hats", count=1, lent_to="Ines", lent_on="2025-11-01")]  # fmt: skip

    def rooms(self, **most: float) -> Rooms:
        return Rooms(places={p.id: p for p in self.places}, designs={}, things=self.things, most=most)

    def test_overfull_empty_still_and_lent(self) -> None:
        full = known_most([held_in(self.stays)], self.things)
        moved = {"jumpers": date(2025, 1, 1), "hats": date(2026, 3, 1)}
        looks = to_look_at(self.places, self.stays, self.rooms(**{**full, "p": full["p"] / 2}), moved, TODAY)
        expected = [("full", "p", ""), ("empty", "r", ""), ("lent", "q", "hats"), ("still", "p", "jumpers")]
        self.assertEqual([(x.why, x.place, x.thing) for x in looks], expected)
        self.assertEqual((looks[0].amount, looks[2].amount, looks[3].amount), (2, 129, 433))

    def test_nobody_says_where_there_is_room_that_was_not_measured(self) -> None:
        self.assertIsNone(relief(self.places, held_in(self.stays), self.rooms(q=1000.0), "jumpers", 1, out_of="p"))
        self.assertEqual(held_in(self.stays)["p"], Counter({"jumpers": 4}))


class GrowthTests(TestCase):
    def test_a_child_grows_as_the_table_says(self) -> None:
        child = Person(id="juna", name="Juna", stature=usual_stature(7), age="child")
        self.assertAlmostEqual(usual_years(child.stature), 7, places=3)
        ten = child.model_copy(update={"stature": usual_stature(10)})
        self.assertAlmostEqual(reach_in(child, 3), reach_zone(ten).high, delta=1)
        self.assertAlmostEqual(reach_in(child, 0), reach_zone(child).high, delta=0.01)

    def test_what_moves_down_and_what_moves_up(self) -> None:
        child = Person(id="juna", name="Juna", stature=usual_stature(7), age="child")
        near, soon = reach_in(child, 0) - 50, reach_in(child, 2) - 1
        heights = {"low": near, "high": soon, "top": 2300.0}
        places = [Place(id=name, space="s", name=name, height=height) for name, height in heights.items()]
        toys = thing("toys", "toy-bin", owner="juna")
        things = {t.id: t for t in (toys, thing("pills", "medicine-box"), thing("hats", "hat"))}
        stays = [Stay(id=f"{p}{t}", place=p, thing=t, count=1) for p in ("low", "high", "top") for t in things]
        got = [(g.way, g.place, g.thing, g.years) for g in growing([child], places, stays, things, locked=False)]
        self.assertEqual(got, [("down", "high", "toys", 2), ("up", "high", "pills", 2), ("down", "top", "toys", 7)])
        locked = growing([child], places, stays, things, locked=True)
        self.assertEqual({g.way for g in locked}, {"down"})
        grown = child.model_copy(update={"age": "adult"})
        self.assertEqual(growing([grown], places, stays, things, locked=False), [])
