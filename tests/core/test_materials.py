"""Bills counted by hand: pieces, packs, cuts and cents."""

import csv
import io
from collections import Counter
from decimal import Decimal
from unittest import TestCase

from pinakotheke.core.layout import Design
from pinakotheke.core.materials import bill, bill_csv, hours
from pinakotheke.core.systems import FAMILIES
from pinakotheke.core.systems.track import Track

from .examples import solved, wardrobe


def track_design() -> Design:
    return solved(families=("track",)).alternatives[0]


class BillTests(TestCase):
    def test_every_part_is_bought_once(self) -> None:
        for design in (wardrobe(), track_design()):
            listed = Counter(p for line in bill(design).lines if "anchor" not in line.item for p in line.parts)
            bought = {p.id for p in design.parts if p.role != "base"}
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
        got = bill(wardrobe())
        for units, unit in (("metric", "mm"), ("imperial", "in")):
            rows = list(csv.DictReader(io.StringIO(bill_csv(got, units, "EUR"))))  # type: ignore[arg-type]
            self.assertEqual(len(rows), len(got.lines) + 1)
            self.assertEqual(Decimal(rows[-1]["total EUR"]), got.total)
            self.assertIn(f"width {unit}", rows[0])
        self.assertNotIn('"', rows[0]["width in"])


class HoursTests(TestCase):
    def test_two_hours_a_carcase(self) -> None:
        design = wardrobe()
        self.assertEqual(hours(design).hours, 2 * sum(p.role == "frame" for p in design.parts))

    def test_two_and_a_quarter_hours_for_ten_parts_of_track(self) -> None:
        design = track_design()
        parts = sum(p.role not in ("bracket", "track") for p in design.parts)
        self.assertAlmostEqual(hours(design).hours, parts / 10 * 2.25)
