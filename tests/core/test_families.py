"""The two families of parts: what they offer in a space, how bays stand, what they cost, by hand."""

from decimal import Decimal
from unittest import TestCase

from pinakotheke.core.house import HouseRules
from pinakotheke.core.layout.candidates import candidates, shapes_worth
from pinakotheke.core.systems import FAMILIES, Bay, Part
from pinakotheke.core.systems.beams import shelf_carries

from .examples import PLAIN, region

CARCASE, TRACK = FAMILIES["carcase"], FAMILIES["track"]
OPEN = "width 1846 1846 1846; height 2412 2412 2412; depth 612 612; door none"


def bays_of(family_id: str, line: str = OPEN, widths: tuple[int, ...] | None = None) -> tuple[Bay, ...]:
    """Bays of the tallest shape with the given modules, or the first row offered."""
    family, e = FAMILIES[family_id], region(line)
    shape = shapes_worth(family, e)[0]
    if widths is None:
        return next(iter(candidates(family, shape, e))).bays
    return family.bays(e, shape, ((family.stretches(e, shape)[0][0], widths),))


def price(family_id: str, part: Part) -> Decimal:
    return FAMILIES[family_id].price(part)


class CarcaseTests(TestCase):
    def test_shapes_go_under_the_ceiling_and_into_the_depth(self) -> None:
        heights = {s.height for s in CARCASE.shapes(region(OPEN))}
        self.assertEqual(heights, {1270, 1430, 1910, 2070, 2230, 2390})
        low = {s.height for s in CARCASE.shapes(region(OPEN.replace("2412", "2100")))}
        self.assertEqual(max(low), 2070)
        shallow = {s.depth for s in CARCASE.shapes(region(OPEN.replace("612", "500")))}
        self.assertEqual(shallow, {370, 460})
        self.assertEqual(CARCASE.shapes(region(OPEN.replace("2412", "1000"))), ())

    def test_a_bay_stands_inside_its_boards(self) -> None:
        first, second = bays_of("carcase", widths=(608, 704))
        # 3 mm fit, 18 mm boards: inside from 21, 608 - 36 wide; the next begins where the first ends.
        self.assertEqual((first.x, first.w), (21, 572))
        self.assertEqual((second.x, second.w), (3 + 608 + 18, 704 - 36))
        # Plinth 70 and bottom 18; top board 18 under 2390.
        self.assertEqual((first.z0, first.z1, first.pitch), (88, 2372, 32))
        self.assertEqual((first.depth, first.hang_depth), (584 - 6 - 20, 584 - 6))

    def test_an_obstacle_to_the_floor_parts_the_run(self) -> None:
        e = region(OPEN + "; pipe at 800, 0 up, 60 x 2400")
        shape = shapes_worth(CARCASE, e)[0]
        self.assertEqual(CARCASE.stretches(e, shape), ((3, 800), (860, 1843)))
        self.assertFalse(CARCASE.allows(e, shape, 700, (608,)))
        self.assertTrue(CARCASE.allows(e, shape, 860, (928,)))

    def test_an_obstacle_over_a_low_carcase_does_not(self) -> None:
        e = region(OPEN + "; pipe at 800, 2000 up, 60 x 100")
        low = next(s for s in CARCASE.shapes(e) if s.height == 1910)
        self.assertEqual(CARCASE.stretches(e, low), ((3, 1843),))

    def test_fillers_close_narrow_slack_only(self) -> None:
        e = region(OPEN, HouseRules(fit="easy", reserve=0))
        shape = shapes_worth(CARCASE, e)[0]
        bays = CARCASE.bays(e, shape, ((12, (928, 832)),))
        strips = [p for p in CARCASE.structure(e, shape, bays) if p.role == "filler"]
        self.assertEqual([(p.id, p.x, p.w) for p in strips], [("filler-left", 0, 12)])
        # 1846 - 12 - 1760 = 74 mm on the right: wider than any strip.
        narrow = CARCASE.bays(e, shape, ((12, (928, 384, 448)),))
        strips = [p for p in CARCASE.structure(e, shape, narrow) if p.role == "filler"]
        self.assertEqual([p.w for p in strips], [12])

    def test_every_frame_has_its_plinth(self) -> None:
        e = region(OPEN)
        shape = shapes_worth(CARCASE, e)[0]
        parts = CARCASE.structure(e, shape, bays_of("carcase", widths=(608, 608)))
        frames, plinths = ([p for p in parts if p.role == role] for role in ("frame", "plinth"))
        self.assertEqual([p.x for p in frames], [p.x for p in plinths])
        self.assertEqual({p.z for p in frames}, {70})
        self.assertEqual({p.h for p in frames}, {2390 - 70})

    def test_shelves_carry_the_least_of_rating_and_sag(self) -> None:
        narrow, wide = bays_of("carcase", widths=(448, 928))
        self.assertEqual(CARCASE.component("shelf", narrow).rating, min(25, shelf_carries(narrow.w, narrow.depth, 18)))
        self.assertLess(CARCASE.component("shelf", wide).rating, CARCASE.component("shelf", narrow).rating)

    def test_a_drawer_gives_its_floor_less_runners_and_gap(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        got = CARCASE.component("drawer", bay, 224)
        self.assertEqual((got.height, got.capacity), (224, (668 - 26) * (558 - 30)))

    def test_prices_by_hand(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        shelf = Part(id="s", item="carcase.shelf", role="shelf", bay=0, x=0, y=0, z=0, w=668, d=558, h=18, fixed_to="")
        # 5.50 + 26.00 × 0.668 × 0.558 m² = 15.19.
        self.assertEqual(price("carcase", shelf), Decimal("15.19"))
        rail = shelf.model_copy(update={"role": "rail"})
        # 6.00 + 7.50 × 0.668 m = 11.01.
        self.assertEqual(price("carcase", rail), Decimal("11.01"))
        drawer = shelf.model_copy(update={"role": "drawer", "h": 160})
        # 27.00 + 48.00 × 0.668 × (0.160 + 0.558) m² = 50.02.
        self.assertEqual(price("carcase", drawer), Decimal("50.02"))
        self.assertEqual(CARCASE.component("shelf", bay).price, Decimal("15.19"))
        self.assertEqual(price("carcase", shelf.model_copy(update={"role": "base"})), 0)

    def test_pull_outs_only_behind_the_opening(self) -> None:
        bays = bays_of("carcase", PLAIN, (448, 448, 448, 448))
        self.assertEqual([b.pulls for b in bays], [False, True, True, False])


class TrackTests(TestCase):
    def test_standards_hang_from_under_the_ceiling(self) -> None:
        members = {s.member for s in TRACK.shapes(region(OPEN))}
        self.assertEqual(members, {1120, 1540, 1960} | ({2240} if 2240 + 140 <= 2412 - 60 else set()))
        for shape in TRACK.shapes(region(OPEN)):
            self.assertLessEqual(shape.height, 2412 - 60)

    def test_a_standard_at_every_end_of_a_bay(self) -> None:
        e = region(OPEN)
        shape = shapes_worth(TRACK, e)[0]
        bays = bays_of("track", widths=(690, 840))
        parts = TRACK.structure(e, shape, bays)
        centres = [p.x + p.w / 2 for p in parts if p.role == "standard"]
        self.assertEqual(centres, [bays[0].x, bays[1].x, bays[1].x + 840])
        (track,) = [p for p in parts if p.role == "track"]
        self.assertEqual((track.x, track.w), (3, 690 + 840 + 24))

    def test_a_pair_of_brackets_under_a_shelf_and_over_a_rail(self) -> None:
        (bay,) = bays_of("track", widths=(690,))
        shelf = Part(id="s", item="track.shelf", role="shelf", bay=0, x=bay.x, y=bay.y, z=1000, w=bay.w, d=bay.depth,
                     h=18, fixed_to="standard-1")  # fmt: skip
        self.assertEqual([b.z for b in TRACK.brackets(shelf, bay)], [988, 988])
        rail = shelf.model_copy(update={"role": "rail", "h": 25})
        self.assertEqual([b.z for b in TRACK.brackets(rail, bay)], [1025, 1025])
        self.assertEqual(TRACK.brackets(shelf.model_copy(update={"role": "base"}), bay), ())

    def test_brackets_limit_what_a_shelf_carries(self) -> None:
        (bay,) = bays_of("track", widths=(420,))
        self.assertLessEqual(TRACK.component("shelf", bay).rating, min(32, 2 * 18))

    def test_it_has_no_drawers(self) -> None:
        self.assertFalse({"drawer", "tray", "base"} & TRACK.roles)


class CandidateTests(TestCase):
    def test_every_row_stands_in_its_stretch(self) -> None:
        for line in (OPEN, PLAIN, OPEN + "; pipe at 900, 0 up, 60 x 2400"):
            e = region(line)
            for family in FAMILIES.values():
                for shape in shapes_worth(family, e):
                    for candidate in candidates(family, shape, e):
                        self.assertGreater(candidate.modules, 0)
                        for x, widths in candidate.rows:
                            self.assertTrue(family.allows(e, shape, x, widths))
                        ends = [(b.x, b.x + b.w) for b in candidate.bays]
                        self.assertEqual(ends, sorted(ends))

    def test_symmetric_when_nothing_else_decides(self) -> None:
        e = region(OPEN)
        shape = shapes_worth(CARCASE, e)[0]
        two = next(c for c in candidates(CARCASE, shape, e) if c.modules == 2)
        ((x, widths),) = two.rows
        slack = (1843 - 3) - sum(widths)
        self.assertEqual(x, 3 + slack // 2)

    def test_wide_bays_stand_where_drawers_come_out(self) -> None:
        e = region(PLAIN)
        shape = shapes_worth(CARCASE, e)[0]
        for candidate in candidates(CARCASE, shape, e):
            if candidate.modules == 4:
                pulls = [b.w for b in candidate.bays if b.pulls]
                self.assertTrue(pulls)
                break
        else:
            self.fail("no row of four")


class ObstacleTests(TestCase):
    """Cases that a random search found: each once made a design that does not verify."""

    def solve(self, line: str) -> None:
        from pinakotheke.core.layout import verify

        from .examples import TIGHT_FIT, WARDROBE, solved

        for family in FAMILIES:
            got = solved(WARDROBE, line, TIGHT_FIT, 0.02, families=(family,))
            for design in got.alternatives:
                self.assertEqual(verify(design, region(line), WARDROBE), ())

    def test_what_lies_flat_on_the_wall_closes_nothing(self) -> None:
        line = OPEN + "; box at 0, 0 up, 13 x 71, out 0"
        self.assertEqual(bays_of("carcase", line, (608,))[0].blocked, ())
        self.solve(line)

    def test_skirting_thicker_than_the_obstacle_hides_it(self) -> None:
        line = OPEN + "; skirting 90 x 15; box at 300, 20 up, 40 x 40, out 10"
        self.assertEqual(bays_of("carcase", line, (608,))[0].blocked, ())
        self.solve(line)

    def test_no_filler_where_access_is_needed(self) -> None:
        e = region(OPEN + "; meter at 0, 1000 up, 2 x 100, access 600", HouseRules(fit="easy", reserve=0))
        shape = shapes_worth(CARCASE, e)[0]
        bays = CARCASE.bays(e, shape, ((52, (928, 832)),))
        self.assertFalse([p for p in CARCASE.structure(e, shape, bays) if p.id == "filler-left"])
        self.solve(OPEN + "; meter at 0, 1000 up, 2 x 100, access 600")

    def test_a_track_needs_its_own_strip_of_wall(self) -> None:
        e = region(OPEN)
        shape = shapes_worth(TRACK, e)[0]
        over = region(OPEN + f"; pipe at 500, {shape.height + 5} up, 80 x 10, out 40")
        self.assertTrue(TRACK.allows(e, shape, 3, (840, 840)))
        self.assertFalse(TRACK.allows(over, shape, 3, (840, 840)))
        self.solve(OPEN + f"; pipe at 500, {shape.height + 5} up, 80 x 10, out 40")

    def test_a_standard_does_not_stand_on_a_pipe(self) -> None:
        e = region(OPEN + "; pipe at 3, 900 up, 20 x 100, out 40")
        shape = shapes_worth(TRACK, e)[0]
        self.assertFalse(TRACK.allows(e, shape, 3, (840,)))
        self.assertTrue(TRACK.allows(e, shape, 24, (840,)))
