"""Homes for things, what the demand would be otherwise, what is owned, and lists in and out."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from pinakotheke.core.checks.homes import home_findings
from pinakotheke.core.house import HouseRules, Person, SpaceUse
from pinakotheke.core.inventory import KINDS, Thing, demand, quick_add
from pinakotheke.core.inventory.columns import COLUMNS, RISKY, guarded, guess_columns, read_rows, write_rows
from pinakotheke.core.inventory.owned import Owned, offers
from pinakotheke.core.inventory.places import Place, band_heights, house_zone, place_of
from pinakotheke.core.inventory.things import BANDS
from pinakotheke.core.inventory.variants import other_schools, over_stock, piles, purge_steps, sockets_wanted
from pinakotheke.core.inventory.zones import Homes, homes
from pinakotheke.core.words import remedy, sentence, why

from .examples import demo_house, region, survey, thing

RULES = HouseRules(reserve=0)
ADULT = Person(id="ada", name="Ada", stature=1700)
CHILD = Person(id="bo", name="Bo", stature=1200, age="child")
SEATED = Person(id="cy", name="Cy", stature=1750, posture="seated")


def place(key: str, zones: str, room: float = 500, **facts: object) -> Place:
    """A space with so many litres at each height."""
    return Place.model_validate(
        {"id": key, "name": key, "zones": tuple(zones.split()), "where": "indoors", "damp": False, "sockets": 0,
         "from_door": 5000, "locked": False, "room": dict.fromkeys(BANDS, room), "top": 2400, **facts}
    )  # fmt: skip


def lives(found: Homes, key: str) -> tuple[str, str]:
    home = next(h for h in found.homes if h.thing == key)
    return home.space, home.band


HALL, KITCHEN, SHED = place("hall", "entrance wardrobe"), place("kitchen", "kitchen"), place(
    "shed", "garden outdoors", where="outdoors", damp=True)  # fmt: skip
ALL = (HALL, KITCHEN, SHED)


class HomeTests(TestCase):
    def homes(self, *things: Thing, people: tuple[Person, ...] = (ADULT,), places: tuple[Place, ...] = ALL) -> Homes:
        return homes(tuple(t.model_copy(update={"space": ""}) for t in things), places, people)

    def codes(self, found: Homes) -> list[str]:
        return [c.code for c in found.conflicts]

    def test_by_what_it_is_and_how_often(self) -> None:
        found = self.homes(
            thing("mugs", "mug", 4, frequency="daily"), thing("tree", "christmas-box", 1, frequency="rarely")
        )
        self.assertEqual(lives(found, "mugs"), ("kitchen", "easy"))
        self.assertEqual(lives(found, "tree")[1], "top")
        self.assertIn("between knee and eye", why(found.homes[0]))

    def test_fuel_and_gas_go_outdoors_or_nowhere(self) -> None:
        self.assertEqual(lives(self.homes(thing("gas", "gas-cylinder")), "gas"), ("shed", "low"))
        found = self.homes(thing("gas", "gas-cylinder"), places=(HALL, KITCHEN))
        self.assertEqual((found.homes, self.codes(found)), ((), ["no room"]))

    def test_a_person_may_overrule_and_is_told(self) -> None:
        pinned = thing("gas", "gas-cylinder", pin_space="kitchen", pin_band="low")
        found = self.homes(pinned)
        self.assertEqual(lives(found, "gas"), ("kitchen", "low"))
        self.assertTrue(found.homes[0].pinned)
        self.assertIn("fuel", self.codes(found))
        (stop, *_) = home_findings(found.conflicts, {"gas": "Gas cylinder"}, {"kitchen": "Kitchen"}, {})
        self.assertEqual(stop.severity, "stop")
        self.assertIn("outdoors", sentence(stop, "metric"))
        self.assertIn("local codes", remedy(stop).lower())

    def test_poison_and_children(self) -> None:
        bleach = thing("bleach", "bleach", 1, frequency="monthly")
        low = band_heights(house_zone((ADULT, CHILD)), 2400)
        self.assertIn(lives(self.homes(bleach, people=(ADULT,)), "bleach")[1], ("low", "easy", "high"))
        found = self.homes(bleach, people=(ADULT, CHILD))
        self.assertGreaterEqual(low[lives(found, "bleach")[1]][0], 1400)  # type: ignore[index]
        forced = self.homes(bleach.model_copy(update={"pin_band": "low"}), people=(ADULT, CHILD))
        self.assertIn("child", self.codes(forced))
        locked = tuple(p.model_copy(update={"locked": True}) for p in ALL)
        self.assertNotIn("child", self.codes(self.homes(bleach.model_copy(update={"pin_band": "low"}),
                                                        people=(ADULT, CHILD), places=locked)))  # fmt: skip

    def test_no_poison_among_the_food(self) -> None:
        self.assertNotEqual(lives(self.homes(thing("f", "fertiliser"), places=(HALL, KITCHEN)), "f")[0], "kitchen")

    def test_owners_reach(self) -> None:
        for person in (CHILD, SEATED):
            found = self.homes(thing("x", "t-shirt", 3, owner=person.id, frequency="rarely"), people=(ADULT, person))
            self.assertIn(lives(found, "x")[1], ("low", "easy"), person.name)

    def test_heavy_goes_low_and_says_when_it_may_not(self) -> None:
        self.assertEqual(lives(self.homes(thing("w", "weights")), "w")[1], "low")
        found = self.homes(thing("w", "weights", pin_band="top"))
        self.assertIn("heavy", self.codes(found))

    def test_damp_and_cardboard(self) -> None:
        found = self.homes(thing("b", "box-medium", pin_space="shed"))
        self.assertIn("damp", self.codes(found))
        self.assertEqual(lives(self.homes(thing("p", "paper-ream"), places=(SHED, HALL)), "p")[0], "hall")

    def test_used_together_lives_together(self) -> None:
        desk, loft = place("desk", "office"), place("loft", "loft")
        lamp, album = thing("a", "charger", frequency="daily"), thing("b", "keepsake", frequency="daily")
        apart = self.homes(lamp, album, places=(desk, loft))
        self.assertEqual((lives(apart, "a")[0], lives(apart, "b")[0]), ("desk", "loft"))
        both = self.homes(*(t.model_copy(update={"together": "evening"}) for t in (lamp, album)), places=(desk, loft))
        self.assertEqual(lives(both, "a")[0], lives(both, "b")[0])

    def test_power(self) -> None:
        dead, live = place("dead", "office"), place("live", "office", sockets=2)
        laptop = thing("l", "laptop", frequency="daily")
        self.assertEqual(lives(self.homes(laptop, places=(dead, live)), "l")[0], "live")
        self.assertIn("no socket", self.codes(self.homes(laptop, places=(dead,))))

    def test_what_is_full_flows_on_and_a_pin_moves_the_rest(self) -> None:
        # Two pots are 23 litres: one pair goes at each height. The third finds the other cupboard nearer than high up.
        small, large = place("small", "kitchen", room=25), place("large", "kitchen loft", room=500)
        pots = tuple(thing(f"p{n}", "pot", 2, frequency="daily", space="small") for n in range(3))
        free = homes(pots, (small, large), (ADULT,))
        self.assertEqual(sorted(h.space for h in free.homes), ["large", "small", "small"])
        out = next(h.thing for h in free.homes if h.space == "large")
        was_easy = next(h.thing for h in free.homes if (h.space, h.band) == ("small", "easy"))
        pin = {"pin_space": "small", "pin_band": "easy"}
        after = homes(tuple(p.model_copy(update=pin) if p.id == out else p for p in pots), (small, large), (ADULT,))
        self.assertEqual(lives(after, out), ("small", "easy"))
        self.assertNotEqual(lives(after, was_easy), ("small", "easy"))

    @given(st.lists(st.sampled_from(sorted(KINDS.keys() - {"custom"})), max_size=25), st.integers(0, 400))
    def test_no_space_is_overfilled_and_nothing_is_lost(self, kinds: list[str], room: int) -> None:
        things = tuple(thing(f"t{n}", kind, 1 + n % 4) for n, kind in enumerate(kinds))
        places = tuple(p.model_copy(update={"room": dict.fromkeys(BANDS, float(room))}) for p in ALL)
        found = homes(things, places, (ADULT, CHILD))
        for left in found.left.values():
            self.assertTrue(all(litres >= 0 for litres in left.values()))
        homeless = {c.thing for c in found.conflicts if c.code == "no room"}
        self.assertEqual({h.thing for h in found.homes} | homeless, {t.id for t in things})
        self.assertFalse({h.thing for h in found.homes} & homeless)

    def test_the_demo_has_homes_with_reasons(self) -> None:
        house = demo_house()
        places = tuple(place_of(s.id, s.name, s.use, s.survey, house.rules, house.people) for s in house.spaces)
        found = homes(house.things, places, house.people)
        self.assertGreater(len(house.things), 240)
        self.assertGreater(len(found.homes), 200)
        self.assertTrue(all(why(h) for h in found.homes))
        gas = next(t for t in house.things if t.kind == "gas-cylinder")
        self.assertEqual(lives(found, gas.id)[0], "coal-shed")  # it stands in the boiler cupboard now

    def test_room_comes_from_the_readings(self) -> None:
        # 1843 wide less 3 a side, 612 deep, 2408 high: 1837 · 612 · 2408 mm³ ≈ 2707 litres, 35 % of it for things.
        got = place_of("c", "c", SpaceUse(), survey(), HouseRules(fit="every-inch"), (ADULT,))
        e = region()
        litres = (e.x_to - e.x_from) * (e.y_to - e.y_from) * e.z_to / 1e6
        self.assertAlmostEqual(sum(got.room.values()), 0.35 * litres, delta=1)


class OtherwiseTests(TestCase):
    def test_eight_coats_fewer(self) -> None:
        coats = (thing("coats", "coat-long", 16),)
        (step,) = purge_steps(coats, RULES)
        self.assertEqual((step.pieces, step.freed[0].by), (8, -8 * 90.0))  # 0.72 m of rail

    def test_other_schools(self) -> None:
        heap = (thing("shirts", "shirt", 10), thing("tees", "t-shirt", 10))
        found = {(s.rule, s.choice): {c.storage: c.by for c in s.changes} for s in other_schools(heap, RULES)}
        self.assertEqual(found["hang", "all-that-can"]["hanging"], 10 * 22)
        self.assertEqual(found["hangers", "slim"]["hanging"], -0.25 * 10 * 28)
        self.assertNotIn(("hangers", "ordinary"), found)
        self.assertAlmostEqual(found["reserve", "0.2"]["hanging"], 280 / 0.8 - 280)

    def test_piles_and_what_they_free(self) -> None:
        heap = (
            thing("a", "shirt", 10),
            thing("b", "shirt", 5, decision="sell"),
            thing("c", "shirt", 3, decision="sell"),
        )
        sell = next(p for p in piles(heap, RULES) if p.decision == "sell")
        self.assertEqual((sell.groups, sell.pieces, sell.storage[0].by), (2, 8, 8 * 28))

    def test_one_open_one_spare(self) -> None:
        heap = (thing("tins", "tin-food", 9), thing("shirts", "shirt", 9), thing("soap", "soap-pack", 2))
        self.assertEqual([(o.thing, o.over) for o in over_stock(heap)], [("tins", 7)])

    def test_sockets(self) -> None:
        heap = (thing("a", "laptop"), thing("b", "charger"), thing("c", "shirt"), thing("d", "drill", decision="bin"))
        self.assertEqual(sockets_wanted(heap), 2)

    def test_hooks_floor_and_overhead_are_counted(self) -> None:
        heap = (thing("brooms", "broom", 3), thing("bikes", "bicycle", 2), thing("kayak", "kayak"))
        lines = {line.storage: line.bare for line in demand(heap, RULES).lines}
        self.assertEqual(lines["hooks"], 3)
        self.assertEqual(lines["floor"], 2 * (620 + 20))
        self.assertAlmostEqual(lines["overhead"], 620 * 420 * 3600 / 1e6)

    def test_books_stand_side_by_side(self) -> None:
        (line,) = demand((thing("books", "book", 20),), RULES).lines
        self.assertEqual((line.storage, line.bare), ("folded", 20 * 28))


class OwnedTests(TestCase):
    BASKET = Owned(id="o1", name="Baskets", count=3, size=(320, 380, 220))

    def test_what_fits_is_offered_in_the_fewest(self) -> None:
        # Inside 314 × 374 × 217 = 25.5 l, 70 % of it: 17.8 l. Forty balls of yarn are 40 · 0.9 = 36 l: three baskets.
        (offer,) = offers((thing("yarn", "yarn-ball", 40, way="drawer"),), (self.BASKET,)) or (None,)
        if offer is None:
            (offer,) = offers((thing("tapes", "tape-roll", 60),), (self.BASKET,))
        self.assertEqual(offer.owned, "o1")
        self.assertLessEqual(offer.wanted, 3)

    def test_what_is_in_use_or_too_large_is_not(self) -> None:
        one = self.BASKET.model_copy(update={"count": 1})
        used = (thing("a", "tape-roll", 5, container="o1"), thing("b", "tape-roll", 5))
        self.assertEqual(offers(used, (one,)), ())
        self.assertEqual(offers((thing("press", "press"),), (self.BASKET,)), ())


class QuickTests(TestCase):
    PEOPLE = (Person(id="m", name="Maren Holt", pronoun="her"), Person(id="t", name="Teo Lind", pronoun="his"))

    def one(self, line: str) -> Thing:
        (got,) = quick_add(line, self.PEOPLE, "metric")
        return got

    def test_the_lines_people_say(self) -> None:
        shirts = self.one("14 shirts, hers, daily")
        self.assertEqual((shirts.count, shirts.owner, shirts.frequency), (14, "m", "daily"))
        self.assertEqual(self.one("6 bath towels").kind, "towel")
        tyres = self.one("4 tyres 205/55 R16, winter")
        self.assertEqual((tyres.count, tyres.size, tyres.frequency), (4, (205, 631.9, 631.9), "seasonal"))
        box = self.one("box 45 x 32 x 28, Christmas, yearly")
        self.assertEqual((box.size, box.label, box.frequency), ((450, 320, 280), "Christmas", "rarely"))
        rice = self.one("3 kg rice")
        self.assertEqual((rice.kind, rice.count, rice.mass), ("jar-dry", 1, 3.0))
        self.assertEqual(self.one("2 boxes of tea, for guests").label, "for guests")

    def test_whose_when_it_could_be_several(self) -> None:
        both = (*self.PEOPLE, Person(id="x", name="Xu", pronoun="her"))
        (shirts,) = quick_add("3 shirts, hers", both, "metric")
        self.assertEqual((shirts.owner, shirts.unsure), ("", "owner"))


TEXT = st.text(st.characters(codec="utf-8", exclude_categories=("Cs", "Cc")), max_size=20)


class ListTests(TestCase):
    PEOPLE = (Person(id="m", name="Maren Holt"),)

    def test_columns_by_their_names(self) -> None:
        got = guess_columns(["Qty", "Item", "How often", "Colour", "Width (mm)", "Whose"])
        self.assertEqual(got, {0: "count", 1: "name", 2: "frequency", 4: "width", 5: "owner"})

    def test_rows_are_read_or_refused_one_by_one(self) -> None:
        rows = [["14", "shirts", "daily", "Maren"], ["2", "flurbs", "", ""], ["x", "hats", "", ""], ["", "", "", ""],
                ["3", "hats", "sometimes", ""], ["1", "hat", "", "Nobody"]]  # fmt: skip
        got = read_rows(
            rows, {0: "count", 1: "name", 2: "frequency", 3: "owner"}, self.PEOPLE, "metric", "s", frozenset()
        )
        self.assertEqual([(t.count, t.kind, t.owner) for t in got.things], [(14, "shirt", "m"), (2, "custom", "")])
        self.assertEqual(got.things[1].unsure, "size")
        self.assertEqual([f.row for f in got.faults], [4, 6, 7])
        self.assertTrue(all(f.problem and f.mend for f in got.faults))

    @given(st.lists(st.builds(
        lambda n, kind, name, label, note, size: Thing.model_validate(
            {"id": f"t{n}", "name": name, "kind": kind, "count": n, "space": "s", "label": label, "note": note,
             "size": size if kind != "custom" else (100, 200, 300)}),
        st.integers(1, 9999), st.sampled_from(sorted(KINDS)),
        TEXT.filter(lambda s: s.strip() and s.strip() == s), TEXT.map(str.strip), TEXT.map(str.strip),
        st.none() | st.tuples(*[st.integers(1, 3000).map(float)] * 3)), max_size=6))  # fmt: skip
    def test_out_and_in_again_is_the_same(self, things: list[Thing]) -> None:
        header, *rows = write_rows(things, self.PEOPLE, "metric")
        self.assertEqual(guess_columns(header), dict(enumerate(COLUMNS)))
        for row in rows:
            self.assertFalse(any(cell.startswith(RISKY) for cell in row), row)
        back = read_rows(rows, dict(enumerate(COLUMNS)), self.PEOPLE, "metric", "s", frozenset())
        self.assertEqual(back.faults, ())
        drop = {"id": "", "size": None}
        self.assertEqual(
            [{**t.model_dump(), **drop} for t in back.things], [{**t.model_dump(), **drop} for t in things]
        )

    def test_what_a_spreadsheet_would_run_is_guarded(self) -> None:
        for text in ("=1+1", "+cmd", "-2", "@SUM(A1)", "\tx"):
            self.assertEqual(guarded(text)[0], "'")
        self.assertEqual(guarded("shirts"), "shirts")
