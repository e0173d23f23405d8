"""Bills counted by hand: pieces, packs, cuts and cents."""

import csv
import io
from collections import Counter
from decimal import Decimal
from unittest import TestCase

from pinakotheke.core.layout import Design
from pinakotheke.core.materials import Choice, bill, hours, purchase, table_of
from pinakotheke.core.systems import FAMILIES, HOLDERS, Part
from pinakotheke.core.systems.families.track import Track

from .examples import hung, wardrobe


def track_design() -> Design:
    return hung()


class BillTests(TestCase):
    def test_every_part_is_bought_once(self) -> None:
        for design in (wardrobe(), track_design()):
            listed = Counter(
                p for line in bill(design).lines if not line.item.startswith("container") for p in line.parts
            )
            bought = {p.id for p in design.parts if p.role not in ("base", "floor", "track", "container")}
            self.assertEqual(set(listed), bought)
            self.assertEqual(set(listed.values()), {1})

    def test_totals_add_up_to_the_cent(self) -> None:
        for design in (wardrobe(), track_design()):
            got = bill(design)
            for line in got.lines:
                self.assertEqual(line.each, line.each.quantize(Decimal("0.01")))
            self.assertEqual(got.total, sum((line.total for line in got.lines), Decimal(0)))

    def test_a_frame_priced_by_hand(self) -> None:
        # 34.00 + 15.50 × (2 sides h×d + top and bottom w×d + back w×h) in m².
        frame = next(p for p in wardrobe().parts if p.role == "frame")
        w, d, h = (Decimal(n) / 1000 for n in (frame.w, frame.d, frame.h))
        by_hand = (Decimal("34") + Decimal("15.5") * (2 * h * d + 2 * w * d + w * h)).quantize(Decimal("0.01"))
        self.assertEqual(FAMILIES["carcase"].price(frame), by_hand)

    def test_two_anchors_a_frame(self) -> None:
        design = wardrobe()
        (anchors,) = (line for line in bill(design).lines if line.item == "carcase.anchor")
        self.assertEqual(anchors.needed, 2 * sum(p.role == "frame" for p in design.parts))

    def test_every_light_has_a_cable_that_reaches_its_driver(self) -> None:
        family = FAMILIES["carcase"]
        lights = tuple(
            Part(
                id=f"light-{n}",
                item="carcase.light",
                role="light",
                x=x,
                y=500,
                z=2000,
                w=600,
                d=14,
                h=12,
                fixed_to="wall",
            )
            for n, x in enumerate((0, 800, 1600, 2400, 9000))
        )
        got = {e.article: e.needed for e in family.extras(lights)}
        # Four at the first driver, which stands with the third: 1600, 800, 0 and 800 away, and 600 over; the fifth alone.
        self.assertEqual(got, {"driver": 2, "cable-1200": 2, "cable-2400": 3})

    def test_track_is_bought_in_the_lengths_sold(self) -> None:
        family = FAMILIES["track"]
        assert isinstance(family, Track)
        self.assertEqual(family.track_pieces(1200), (1300,))
        self.assertEqual(family.track_pieces(2500), (2500,))
        self.assertEqual(family.track_pieces(2600), (2500, 1300))
        self.assertEqual(family.track_pieces(4300), (2500, 1900))

    def test_screws_are_bought_in_packs(self) -> None:
        (screws,) = (line for line in bill(track_design()).lines if line.item == "track.screws")
        self.assertEqual(screws.bought % 25, 0)
        self.assertTrue(0 <= screws.spare < 25)

    def test_csv_reads_back(self) -> None:
        got = purchase([("Bedroom", wardrobe())], Choice())
        self.assertEqual(got.total, bill(wardrobe()).total)
        for units, unit in (("metric", "mm"), ("imperial", "in")):
            out = io.StringIO()
            csv.writer(out).writerows(table_of(got, units, "EUR"))  # type: ignore[arg-type]
            rows = list(csv.DictReader(io.StringIO(out.getvalue())))
            self.assertEqual(len(rows), len(got.lines) + 1)
            self.assertEqual(Decimal(rows[-1]["total EUR"]), got.total)
            self.assertIn(f"width {unit}", rows[0])
        self.assertNotIn('"', rows[0]["width in"])


class HoursTests(TestCase):
    def test_hours_are_those_of_the_modules_and_of_what_goes_into_them(self) -> None:
        for design in (wardrobe(), track_design()):
            stood = sum(design.family_of(b).table.hours_a_module for b in design.bays)
            fitted = sum(design.family_of(p).spec(p.role).hours for p in design.parts if p.role in HOLDERS)
            self.assertAlmostEqual(hours(design).hours, stood + fitted)
        # Handbook section 9: a day of eight hours for four carcases on a level base.
        self.assertEqual(4 * FAMILIES["carcase"].table.hours_a_module, 8)
