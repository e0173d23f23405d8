"""The tables of the trade: every value has a unit, a basis and a source, and lies where such values lie."""

from typing import Any, get_args
from unittest import TestCase

from pinakotheke.core.inventory.kinds import KINDS, Way
from pinakotheke.core.inventory.things import DECISIONS, FREQUENCIES, uses_a_month
from pinakotheke.core.survey.models import ObstacleKind
from pinakotheke.core.systems import FAMILIES
from pinakotheke.core.tables import entry, load, value
from pinakotheke.core.words import BASES

INCH = 25.4


def leaves(node: Any, path: str = "") -> dict[str, Any]:
    """Every entry of the rules by its dotted key."""
    if isinstance(node, dict) and "value" in node:
        return {path: node}
    found: dict[str, Any] = {}
    for key, child in node.items():
        found |= leaves(child, f"{path}.{key}".lstrip("."))
    return found


class RuleTests(TestCase):
    def test_every_value_has_unit_basis_and_source(self) -> None:
        rules = leaves(load("rules"))
        self.assertGreater(len(rules), 50)
        for key, row in rules.items():
            with self.subTest(key):
                self.assertEqual(set(row), {"value", "unit", "basis", "source"})
                self.assertIn(row["basis"], BASES)
                self.assertTrue(row["unit"] and row["source"])
                self.assertEqual(entry(key).value, row["value"])

    def test_an_unknown_key_is_named(self) -> None:
        for key in ("fit.nothing", "nothing", "fit.easy.more"):
            with self.assertRaisesRegex(KeyError, key):
                value(key)

    def test_published_figures_are_those_published(self) -> None:
        # 2010 ADA Standards 308.2.1: 15 to 48 inches. NFPA 70 410.16: 12 and 6 inches; 110.26(A): 3 feet, 30 inches,
        # 6 feet 6 inches (all from memory). CGPM 1901: standard gravity.
        for key, inches in (
            ("reach.seated_low", 15),
            ("reach.seated_high", 48),
            ("clear.light_open", 12),
            ("clear.light_enclosed", 6),
            ("clear.panel_depth", 36),
            ("clear.panel_width", 30),
            ("clear.panel_height", 78),
            ("strength.stud_every", 24),
        ):
            with self.subTest(key):
                self.assertLess(abs(value(key) - inches * INCH), 2)
        self.assertEqual(value("strength.gravity"), 9.80665)

    def test_body_proportions_add_up(self) -> None:
        # Drillis & Contini (1966): upper arm 0.186, forearm 0.146, hand 0.108 of stature.
        arm = 0.186 + 0.146 + 0.108
        self.assertAlmostEqual(value("reach.grip"), value("reach.shoulder") + arm - 0.108 / 2, places=3)
        self.assertAlmostEqual(value("reach.fingertip"), value("reach.shoulder") - arm, delta=0.002)
        order = [value(f"reach.{k}") for k in ("knee", "fingertip", "elbow", "shoulder", "eye", "grip")]
        self.assertEqual(order, sorted(order))


class KindTests(TestCase):
    def test_each_kind_can_be_kept_as_it_says(self) -> None:
        for kind in KINDS.values():
            with self.subTest(kind.id):
                self.assertTrue(set(kind.ways) <= set(get_args(Way)))
                self.assertGreater(kind.mass, 0)
                if "hang" in kind.ways:
                    self.assertTrue(15 <= kind.rail <= 150 and 300 <= kind.drop <= 1800)
                if set(kind.ways) - {"hang"} and kind.id != "custom":
                    assert kind.size is not None
                    self.assertTrue(all(0.2 <= mm <= 4000 for mm in kind.size))

    def test_no_word_names_two_kinds(self) -> None:
        seen: dict[str, str] = {}
        for kind in KINDS.values():
            for word in {kind.id, kind.one, kind.many, *kind.words}:
                self.assertIn(seen.setdefault(word.lower(), kind.id), (kind.id,), word)

    def test_garments_that_crease_hang(self) -> None:
        for kind in KINDS.values():
            if kind.creases:
                self.assertIn("hang", kind.ways, kind.id)


class OtherTableTests(TestCase):
    def test_every_obstacle_kind_has_its_row(self) -> None:
        self.assertEqual(set(load("obstacles")), set(get_args(ObstacleKind)))
        for kind in ("panel", "light", "meter", "valve", "heater"):
            self.assertIn("decide", load("obstacles")[kind]["caution"])

    def test_frequencies_fall(self) -> None:
        uses = [uses_a_month(f) for f in FREQUENCIES]
        self.assertEqual(uses, sorted(uses, reverse=True))
        self.assertIn("undecided", DECISIONS)

    def test_families_state_prices_ratings_and_pitch(self) -> None:
        for family in FAMILIES.values():
            table = family.table
            self.assertEqual(list(family.modules), sorted(family.modules))
            self.assertTrue(family.about.endswith("."))
            for row in family.source["price"].values():
                self.assertTrue(all(number > 0 for number in row.values()))
            for role, spec in family.specs.items():
                self.assertTrue(spec.ways and (spec.rating or spec.rating_per_m), (family.id, role))
            for role in family.specs:
                free = role in ("base", "floor", "compartment") or not table.price
                self.assertTrue(free or role.replace(" ", "-") in table.price, (family.id, role))
