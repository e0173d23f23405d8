"""The families of parts: what they offer in a space, how bays stand, what they cost, by hand."""

from decimal import Decimal
from unittest import TestCase

from pinakotheke.core.house import HouseRules
from pinakotheke.core.layout import Task, Weights, design_space, verify
from pinakotheke.core.layout.placement.candidates import stand
from pinakotheke.core.layout.placement.fills import fills_of, shapes_worth
from pinakotheke.core.layout.placement.pool import allowed, candidates
from pinakotheke.core.survey import envelopes
from pinakotheke.core.survey.corners import blind_zones, corners
from pinakotheke.core.systems import FAMILIES, Bay, Finish, OnPart, Part, Row

from .examples import PLAIN, demo_house, region, regions, survey, task
from .examples import thing as _thing
from .made_up.ladder import Ladder
from .test_shelves import carries

FOLDED_ONLY = (_thing("j", "jumper", 5), _thing("s", "shoe-men", 3))
CARCASE, TRACK = FAMILIES["carcase"], FAMILIES["track"]
PLAIN_FINISH = Finish()
OPEN = "width 1846 1846 1846; height 2412 2412 2412; depth 612 612; door none"


def bays_of(family_id: str, line: str = OPEN, widths: tuple[int, ...] | None = None) -> tuple[Bay, ...]:
    """Bays of the tallest shape with the given modules, or the first row offered."""
    family, e = FAMILIES[family_id], region(line)
    shape = shapes_worth(family, e, PLAIN_FINISH)[0]
    if widths is None:
        made = fills_of(family, survey(line).main, e, PLAIN_FINISH, [])
        return stand((max(made, key=lambda f: len(f.rows[0][1].widths)),), {"A": e}, {}, {}).bays
    row = Row(shape=shape, x=family.stretches(e, shape)[0][0], widths=widths)
    return tuple(b.model_copy(update={"section": "A"}) for b in family.bays(e, row))


def price(family_id: str, part: Part) -> Decimal:
    return FAMILIES[family_id].price(part)


class CarcaseTests(TestCase):
    def test_shapes_go_under_the_ceiling_and_into_the_depth(self) -> None:
        heights = {s.height for s in CARCASE.shapes(region(OPEN), PLAIN_FINISH)}
        self.assertEqual(heights, {702, 926, 1270, 1430, 1910, 2070, 2230, 2390})
        low = {s.height for s in CARCASE.shapes(region(OPEN.replace("2412", "2100")), PLAIN_FINISH)}
        self.assertEqual(max(low), 2070)
        shallow = {s.depth for s in CARCASE.shapes(region(OPEN.replace("612", "500")), PLAIN_FINISH)}
        self.assertEqual(shallow, {370, 460})
        self.assertEqual(CARCASE.shapes(region(OPEN.replace("2412", "690")), PLAIN_FINISH), ())

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
        shape = shapes_worth(CARCASE, e, PLAIN_FINISH)[0]
        self.assertEqual(CARCASE.stretches(e, shape), ((3, 800), (860, 1843)))
        self.assertFalse(CARCASE.allows(e, Row(shape=shape, x=700, widths=(608,))))
        self.assertTrue(CARCASE.allows(e, Row(shape=shape, x=860, widths=(928,))))

    def test_an_obstacle_over_a_low_carcase_does_not(self) -> None:
        e = region(OPEN + "; pipe at 800, 2000 up, 60 x 100")
        low = next(s for s in CARCASE.shapes(e, PLAIN_FINISH) if s.height == 1910)
        self.assertEqual(CARCASE.stretches(e, low), ((3, 1843),))

    def test_fillers_close_narrow_slack_only(self) -> None:
        e = region(OPEN, HouseRules(fit="easy", reserve=0))
        shape = shapes_worth(CARCASE, e, PLAIN_FINISH)[0]
        row = Row(shape=shape, x=12, widths=(928, 832))
        bays = CARCASE.bays(e, row)
        strips = [p for p in CARCASE.structure(e, row, bays, PLAIN_FINISH) if p.role == "filler"]
        self.assertEqual([(p.id, p.x, p.w) for p in strips], [("filler-1-left", 0, 12)])
        # 1846 - 12 - 1760 = 74 mm on the right: wider than any strip.
        row = Row(shape=shape, x=12, widths=(928, 384, 448))
        narrow = CARCASE.bays(e, row)
        strips = [p for p in CARCASE.structure(e, row, narrow, PLAIN_FINISH) if p.role == "filler"]
        self.assertEqual([p.w for p in strips], [12])

    def test_every_frame_has_its_plinth(self) -> None:
        e = region(OPEN)
        shape = shapes_worth(CARCASE, e, PLAIN_FINISH)[0]
        row = Row(shape=shape, x=3, widths=(608, 608))
        parts = CARCASE.structure(e, row, CARCASE.bays(e, row), PLAIN_FINISH)
        frames, plinths = ([p for p in parts if p.role == role] for role in ("frame", "plinth"))
        self.assertEqual([p.x for p in frames], [p.x for p in plinths])
        self.assertEqual({p.z for p in frames}, {70})
        self.assertEqual({p.h for p in frames}, {2390 - 70})

    def test_shelves_carry_the_least_of_rating_and_sag(self) -> None:
        narrow, wide = bays_of("carcase", widths=(448, 928))
        self.assertEqual(CARCASE.component("shelf", narrow).rating, min(25, carries(narrow.w, narrow.depth)))
        self.assertLess(CARCASE.component("shelf", wide).rating, CARCASE.component("shelf", narrow).rating)

    def test_a_drawer_gives_its_floor_less_runners_and_gap(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        got = CARCASE.component("drawer", bay, 224)
        self.assertEqual((got.height, got.capacity), (224, (668 - 26) * (558 - 30)))

    def test_prices_by_hand(self) -> None:
        (bay,) = bays_of("carcase", widths=(704,))
        shelf = Part(
            id="s", item="carcase.shelf", role="shelf", bay=0, x=0, y=0, z=0, w=668, d=558, h=18, fixed_to="wall"
        )
        # 5.50 + 26.00 × 0.668 × 0.558 m² = 15.19.
        self.assertEqual(price("carcase", shelf), Decimal("15.19"))
        rail = shelf.model_copy(update={"role": "rail", "item": "carcase.rail"})
        # 6.00 + 7.50 × 0.668 m = 11.01.
        self.assertEqual(price("carcase", rail), Decimal("11.01"))
        drawer = shelf.model_copy(update={"role": "drawer", "item": "carcase.drawer", "h": 160})
        # 27.00 + 48.00 × 0.668 × (0.160 + 0.558) m² = 50.02.
        self.assertEqual(price("carcase", drawer), Decimal("50.02"))
        self.assertEqual(CARCASE.component("shelf", bay).price, Decimal("15.19"))
        self.assertEqual(price("carcase", shelf.model_copy(update={"role": "base"})), 0)

    def test_pull_outs_only_behind_the_opening(self) -> None:
        bays = bays_of("carcase", PLAIN, (448, 448, 448, 448))
        self.assertEqual([b.pulls for b in bays], [False, True, True, False])


class TrackPlaceTests(TestCase):
    def test_the_track_over_the_standards_keeps_to_the_width_up_there(self) -> None:
        # Found by the long run of random cases: the wall narrows just above the standards' top, at the track.
        e = region("width 1900 1900 1880; height 2520; depth 600; door none")
        shape = next(s for s in TRACK.shapes(e, PLAIN_FINISH) if s.height == 1260)
        self.assertLess(e.span(1260, 1290)[1], e.span(0, 1260)[1])
        ((start, end),) = TRACK.stretches(e, shape)
        a, b = e.span(1260, 1260 + TRACK.table.track_height)
        self.assertTrue(a <= start and end <= b)


class ShoeShelfTests(TestCase):
    def test_a_sloped_one_takes_the_height_of_its_slope_and_is_another_article(self) -> None:
        (bay, *_) = bays_of("carcase")
        flat = CARCASE.placed(bay, "x", "shoe shelf", 320)
        sloped = CARCASE.placed(CARCASE.finished(bay, Finish(sloped_shoes=True)), "x", "shoe shelf", 320)
        # By hand: 350 mm deep at 15 degrees rise 350 × 0.2588 = 91 mm.
        self.assertEqual((flat.h, sloped.h, sloped.item), (30, 30 + 91, "carcase.sloped-shoe-shelf"))
        self.assertGreater(CARCASE.price(sloped), CARCASE.price(flat))
        self.assertEqual(CARCASE.named(sloped), "Sloped shoe shelf")

    def test_a_design_with_them_holds(self) -> None:
        shoes = (
            _thing("heels", "shoe-heel", 12, frequency="daily"),
            _thing("flats", "shoe-flat", 8, frequency="daily"),
        )
        reach = Weights(money=0, room=0, reach=10, parts=0, hours=0, reuse=0)
        one = task(shoes, families=("carcase",), finish=Finish(sloped_shoes=True), weights=reach)
        designs = design_space(one).alternatives
        self.assertTrue([p for d in designs for p in d.parts if p.role == "shoe shelf"])
        for design in designs:
            self.assertEqual(verify(design, regions(), shoes, survey()), ())
            shelves = [p for p in design.parts if p.role == "shoe shelf"]
            self.assertTrue(all(p.h > 100 and p.item.endswith("sloped-shoe-shelf") for p in shelves))


class TrackTests(TestCase):
    def test_standards_hang_from_under_the_ceiling(self) -> None:
        members = {s.member for s in TRACK.shapes(region(OPEN), PLAIN_FINISH)}
        self.assertEqual(members, {560, 1120, 1540, 1960} | ({2240} if 2240 + 140 <= 2412 - 60 else set()))
        for shape in TRACK.shapes(region(OPEN), PLAIN_FINISH):
            self.assertLessEqual(shape.height, 2412 - 60)

    def test_a_standard_at_every_end_of_a_bay(self) -> None:
        e = region(OPEN)
        shape = shapes_worth(TRACK, e, PLAIN_FINISH)[0]
        row = Row(shape=shape, x=3, widths=(690, 840))
        bays = TRACK.bays(e, row)
        parts = TRACK.structure(e, row, bays, PLAIN_FINISH)
        centres = [p.x + p.w / 2 for p in parts if p.role == "standard"]
        self.assertEqual(centres, [bays[0].x, bays[1].x, bays[1].x + 840])
        (track,) = [p for p in parts if p.role == "track"]
        self.assertEqual((track.x, track.w), (3, 690 + 840 + 24))

    def test_a_pair_of_brackets_under_a_shelf_and_over_a_rail(self) -> None:
        (bay,) = bays_of("track", widths=(690,))
        shelf = Part(id="s", item="track.shelf", role="shelf", bay=0, x=bay.x, y=bay.y, z=1000, w=bay.w, d=bay.depth,
                     h=18, fixed_to=OnPart(part="standard-1"))  # fmt: skip
        self.assertEqual([b.z for b in TRACK.brackets(shelf, bay)], [988, 988])
        rail = shelf.model_copy(update={"role": "rail", "h": 25})
        self.assertEqual([b.z for b in TRACK.brackets(rail, bay)], [1025, 1025])
        self.assertEqual(TRACK.brackets(shelf.model_copy(update={"role": "floor"}), bay), ())

    def test_brackets_limit_what_a_shelf_carries(self) -> None:
        (bay,) = bays_of("track", widths=(420,))
        self.assertLessEqual(TRACK.component("shelf", bay).rating, min(32, 2 * 18))

    def test_short_standards_hang_over_what_stands_below(self) -> None:
        e = region(OPEN + "; radiator at 300, 0 up, 1200 x 600, out 120")
        short = [s for s in TRACK.shapes(e, PLAIN_FINISH) if s.member == 1120]
        self.assertEqual({s.height for s in short}, {1260, 2060})


class DoorTests(TestCase):
    def structure(self, finish: Finish) -> list[Part]:
        e = region(OPEN)
        shape = next(s for s in shapes_worth(CARCASE, e, finish) if s.height == 2070)
        row = Row(shape=shape, x=3, widths=(448, 832))
        return list(CARCASE.structure(e, row, CARCASE.bays(e, row), finish))

    def test_hinged_doors_stand_before_the_frames_one_or_two_to_a_module(self) -> None:
        parts = self.structure(Finish(doors="hinged"))
        doors = [p for p in parts if p.role == "door"]
        self.assertEqual([p.w for p in doors], [446, 414, 414])
        front = max(p.y + p.d for p in parts if p.role == "frame")
        self.assertEqual({p.y for p in doors}, {front})

    def test_sliding_doors_take_depth_and_overlap(self) -> None:
        deepest = {f: max(s.depth for s in CARCASE.shapes(region(OPEN), Finish(doors=f))) for f in ("none", "sliding")}  # type: ignore[arg-type]
        self.assertLess(deepest["sliding"], deepest["none"] + 1)
        one, other = (p for p in self.structure(Finish(doors="sliding")) if p.role == "door")
        self.assertEqual(one.x + one.w - other.x, 40)
        self.assertFalse(one.overlaps(other))

    def test_legs_crown_and_lights_are_parts(self) -> None:
        roles = {p.role for p in self.structure(Finish(base="legs", crown=True, lights=True))}
        self.assertTrue({"legs", "crown", "light"} <= roles and "plinth" not in roles)
        parts = tuple(self.structure(Finish(lights=True)))
        self.assertIn("driver", {key for key, *_ in CARCASE.extras(parts)})


class SlopeAndCornerTests(TestCase):
    def test_under_a_slope_heights_step_down(self) -> None:
        house = demo_house()
        stair = house.space("stair-cupboard").survey
        e = envelopes(stair, house.rules)["A"]
        stepped = [f for f in fills_of(CARCASE, stair.main, e, PLAIN_FINISH, []) if "step down" in f.said]
        self.assertTrue(stepped)
        for fill in stepped:
            for family, row in fill.rows:
                self.assertTrue(family.allows(e, row))
            heights = [r.shape.height for _, r in sorted(fill.rows, key=lambda pair: pair[1].x)]
            self.assertEqual(heights, sorted(heights, reverse=True))

    def test_under_a_roof_the_tall_stands_further_out(self) -> None:
        house = demo_house()
        loft = house.space("loft-wardrobe").survey
        e = envelopes(loft, house.rules)["A"]
        back = {s.height: s.setback for s in CARCASE.shapes(e, PLAIN_FINISH)}
        self.assertEqual(back[926], 0)
        self.assertGreater(back[max(back)], 0)

    def test_a_corner_is_left_or_reached_through_a_corner_module(self) -> None:
        house = demo_house()
        porters = house.space("porters-room").survey
        meet = corners(porters)
        found, blind = envelopes(porters, house.rules), blind_zones(meet)
        (zone,) = blind["A"]
        widths = set()
        for fill in fills_of(CARCASE, porters.section("A"), found["A"], PLAIN_FINISH, blind["A"]):
            for bay in stand((fill,), found, meet, {}).bays:
                if bay.blind:
                    widths.add(bay.w + 36)
                    self.assertFalse(bay.pulls)
                    self.assertGreaterEqual(bay.w - bay.blind, 290)
                else:
                    self.assertLessEqual(bay.x + bay.w, zone[0] + 1)
        self.assertTrue(widths and widths <= set(CARCASE.corners))


class CandidateTests(TestCase):
    def test_every_row_stands_in_its_stretch(self) -> None:
        for line in (OPEN, PLAIN, OPEN + "; pipe at 900, 0 up, 60 x 2400"):
            read, found = survey(line), regions(line)
            pool = candidates(Task("closet", read, found, (), (), HouseRules(), families=tuple(FAMILIES)))
            self.assertTrue(pool)
            for candidate in pool:
                for family, row, section, first, end in candidate.spans:
                    self.assertTrue(family.allows(found[section], row), (family.id, row))
                    self.assertEqual(end - first, len(row.widths))
                    ends = [(b.x, b.x + b.w) for b in candidate.bays[first:end]]
                    self.assertEqual(ends, sorted(ends))

    def test_symmetric_when_nothing_else_decides(self) -> None:
        e = region(OPEN)
        two = next(
            f for f in fills_of(CARCASE, survey(OPEN).main, e, PLAIN_FINISH, []) if len(f.rows[0][1].widths) == 2
        )
        ((_, row),) = two.rows
        self.assertEqual(row.x, 3 + ((1843 - 3) - sum(row.widths)) // 2)

    def test_wide_bays_stand_where_drawers_come_out(self) -> None:
        e = region(PLAIN)
        four = next(
            f for f in fills_of(CARCASE, survey(PLAIN).main, e, PLAIN_FINISH, []) if len(f.rows[0][1].widths) == 4
        )
        self.assertTrue([b for b in stand((four,), {"A": e}, {}, {}).bays if b.pulls])


class MadeUpFamilyTests(TestCase):
    """One module and one table in the tests: the family turns up everywhere by itself."""

    def test_it_is_searched_proven_drawn_bought_and_walked_round(self) -> None:
        from pinakotheke.core.drawing import design_elevation, walkround
        from pinakotheke.core.materials import bill, hours

        FAMILIES["ladder"] = Ladder()
        try:
            self.assertIn("ladder", allowed(HouseRules()))
            one = task(line=OPEN, families=("ladder",), things=FOLDED_ONLY)
            got = design_space(one)
            self.assertIsNone(got.blocked)
            design = got.alternatives[0]
            self.assertEqual(design.families, ("ladder",))
            self.assertEqual(verify(design, one.envelopes, FOLDED_ONLY), ())
            lines = {line.item: line for line in bill(design).lines}
            self.assertEqual(lines["ladder.shelf"].name, "Rung tray")
            self.assertEqual(lines["ladder.shelf"].each, Decimal("7.00"))
            self.assertGreater(hours(design).hours, 0)
            drawn = design_elevation(design, one.survey, FOLDED_ONLY, "metric", "x")
            self.assertTrue({p.id for p in design.parts} <= {r.of for r in drawn.rects})
            self.assertEqual(walkround(design, one.survey, FOLDED_ONLY)[:4], b"glTF")
        finally:
            del FAMILIES["ladder"]


class ObstacleTests(TestCase):
    """Cases that a random search found: each once made a design that does not verify."""

    def solve(self, line: str) -> None:
        from pinakotheke.core.layout.verify.verifier import verify

        from .examples import TIGHT_FIT, WARDROBE, solved

        for family in ("carcase", "track", "cleat", "rack", "pegs"):
            got = solved(WARDROBE, line, TIGHT_FIT, 0.02, families=(family,))
            for design in got.alternatives:
                self.assertEqual(verify(design, regions(line), WARDROBE), ())

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
        shape = shapes_worth(CARCASE, e, PLAIN_FINISH)[0]
        row = Row(shape=shape, x=52, widths=(928, 832))
        bays = CARCASE.bays(e, row)
        self.assertFalse([p for p in CARCASE.structure(e, row, bays, PLAIN_FINISH) if p.id == "filler-left"])
        self.solve(OPEN + "; meter at 0, 1000 up, 2 x 100, access 600")

    def test_a_track_needs_its_own_strip_of_wall(self) -> None:
        e = region(OPEN)
        shape = shapes_worth(TRACK, e, PLAIN_FINISH)[0]
        over = region(OPEN + f"; pipe at 500, {shape.height + 5} up, 80 x 10, out 40")
        self.assertTrue(TRACK.allows(e, Row(shape=shape, x=3, widths=(840, 840))))
        self.assertFalse(TRACK.allows(over, Row(shape=shape, x=3, widths=(840, 840))))
        self.solve(OPEN + f"; pipe at 500, {shape.height + 5} up, 80 x 10, out 40")

    def test_a_standard_does_not_stand_on_a_pipe(self) -> None:
        e = region(OPEN + "; pipe at 3, 900 up, 20 x 100, out 40")
        shape = shapes_worth(TRACK, e, PLAIN_FINISH)[0]
        self.assertFalse(TRACK.allows(e, Row(shape=shape, x=3, widths=(840,))))
        self.assertTrue(TRACK.allows(e, Row(shape=shape, x=24, widths=(840,))))
