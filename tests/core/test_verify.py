"""The verifier passes good answers and is shown to fail on each kind of bad one."""

from typing import Any
from unittest import TestCase

from pinakotheke.core.layout import Design, Unplaced, verify
from pinakotheke.core.layout.models import Assignment
from pinakotheke.core.layout.placement.candidates import stand
from pinakotheke.core.layout.placement.fills import fills_of
from pinakotheke.core.layout.verify.verifier import Fault
from pinakotheke.core.survey import envelopes
from pinakotheke.core.survey.corners import blind_zones, corners
from pinakotheke.core.survey.square import frames
from pinakotheke.core.systems import FAMILIES, Finish, OnPart, Part

from .examples import FOLDED, PLAIN, WARDROBE, demo_house, hung, region, regions, solved, thing, wardrobe
from .test_walkround import loft

REGION = regions()


def changed(design: Design, role: str, **fields: object) -> Design:
    """The design with the first part of a role changed."""
    target = next(p for p in design.parts if p.role == role)
    return design.model_copy(
        update={"parts": tuple(p.model_copy(update=fields) if p is target else p for p in design.parts)}
    )


class VerifierTests(TestCase):
    def setUp(self) -> None:
        self.design = wardrobe()

    def codes(self, design: Design, **options: object) -> set[str]:
        return {f.code for f in verify(design, options.get("region", REGION), options.get("things", WARDROBE))}  # type: ignore[arg-type]

    def part(self, role: str) -> Part:
        return next(p for p in self.design.parts if p.role == role)

    def test_a_good_design_has_no_fault(self) -> None:
        self.assertEqual(verify(self.design, REGION, WARDROBE), ())

    def test_outside_the_envelope(self) -> None:
        self.assertIn("envelope", self.codes(changed(self.design, "frame", x=-5)))
        self.assertIn("envelope", self.codes(changed(self.design, "frame", h=5000)))
        self.assertIn(
            "envelope", self.codes(self.design, region=regions("width 900; height 2412; depth 612; door none"))
        )

    def test_in_a_closed_regions(self) -> None:
        frame = self.part("frame")
        pipe = f"; pipe at {frame.x + 50}, 0 up, 40 x 2000, out 60"

        self.assertIn("closed", self.codes(self.design, region=regions(PLAIN + pipe)))

    def test_two_parts_in_one_place(self) -> None:
        frames = [p for p in self.design.parts if p.role == "frame"]
        self.assertIn("overlap", self.codes(changed(self.design, "frame", x=frames[1].x)))

    def test_hung_on_nothing(self) -> None:
        for role in ("drawer", "rail"):
            self.assertIn("support", self.codes(changed(self.design, role, fixed_to=OnPart(part="frame-9"))))
        self.assertIn("support", self.codes(changed(self.design, "rail", w=self.part("rail").w - 40)))

    def test_a_floor_in_the_air(self) -> None:
        bucket = (*FOLDED, thing("bucket", "bucket", 1, way="floor"))
        design = next(d for d in solved(bucket, families=("track",)).alternatives if not d.unplaced)
        self.assertEqual(verify(design, REGION, bucket), ())
        faults = verify(changed(design, "floor", z=400), REGION, bucket)
        self.assertIn("support", {f.code for f in faults if f.why == "no floor"})

    def test_behind_a_return(self) -> None:

        tight = regions(PLAIN.replace("opening 1250 x 2030; nibs 296 300", "opening 300 x 2030; nibs 773 773"))
        self.assertIn("pull-out", self.codes(self.design, region=tight))

    def test_too_much_in_a_compartment(self) -> None:
        more = tuple(a.model_copy(update={"count": 400}) if a.thing == "shirts" else a for a in self.design.assignments)
        many = (thing("shirts", "shirt", 400 * sum(a.thing == "shirts" for a in more)), *WARDROBE[1:])
        codes = self.codes(self.design.model_copy(update={"assignments": more}), things=many)
        self.assertTrue({"capacity", "load"} <= codes, codes)

    def test_too_big_for_it(self) -> None:
        big = (*WARDROBE[:1], thing("jumpers", "jumper", 5, size=(3000, 3000, 60)), *WARDROBE[2:])
        self.assertIn("size", self.codes(self.design, things=big))

    def test_no_headroom(self) -> None:
        rail = self.part("rail")
        self.assertIn("headroom", self.codes(changed(self.design, "rail", z=rail.z - 32 * 40)))

    def test_lost_or_invented_pieces(self) -> None:
        self.assertIn("count", self.codes(self.design.model_copy(update={"assignments": self.design.assignments[1:]})))
        self.assertIn(
            "count", self.codes(self.design.model_copy(update={"unplaced": (Unplaced(thing="shirts", count=1),)}))
        )
        frame = self.part("frame").id
        stray = Assignment(id="stray", thing="shirts", part=frame, way="hang", count=1)
        self.assertIn(
            "count", self.codes(self.design.model_copy(update={"assignments": (*self.design.assignments, stray)}))
        )

    def test_what_is_not_known(self) -> None:
        self.assertEqual(
            self.codes(
                self.design.model_copy(
                    update={"bays": tuple(b.model_copy(update={"family": "wicker"}) for b in self.design.bays)}
                )
            ),
            {"unknown"},
        )
        self.assertIn("unknown", self.codes(self.design, things=WARDROBE[1:]))
        twice = self.design.model_copy(update={"parts": (*self.design.parts, self.design.parts[0])})
        self.assertIn("unknown", self.codes(twice))


class WholeSpaceTests(TestCase):
    """Rules that the families beside carcases bring: each good answer is broken in one way and the proof must say so."""

    def broken(self, design: Design, part_id: str, **fields: object) -> set[str]:
        parts = tuple(p.model_copy(update=fields) if p.id == part_id else p for p in design.parts)
        return {f.code for f in verify(design.model_copy(update={"parts": parts}), regions(), self.things)}

    def setUp(self) -> None:

        self.design, self.things = hung(), FOLDED

    def test_a_shelf_lower_than_the_standard_reaches_is_not_carried(self) -> None:
        shelf = next(p for p in self.design.parts if p.role == "shelf")
        self.assertIn("support", self.broken(self.design, shelf.id, z=56))

    def test_a_standard_taken_away_leaves_shelves_hanging(self) -> None:
        standard = next(p for p in self.design.parts if p.role == "standard")
        gone = self.design.model_copy(update={"parts": tuple(p for p in self.design.parts if p.id != standard.id)})
        self.assertIn("support", {f.code for f in verify(gone, regions(), self.things)})

    def test_a_design_for_a_wall_nobody_measured(self) -> None:
        elsewhere = self.design.model_copy(
            update={"bays": tuple(b.model_copy(update={"section": "Z"}) for b in self.design.bays)}
        )
        self.assertEqual({f.code for f in verify(elsewhere, regions(), self.things)}, {"unknown"})

    def test_a_container_that_is_not_there_or_too_small(self) -> None:
        held = next(a for a in self.design.assignments)
        for container in ("no-such-box", "tray-s"):
            assignments = tuple(
                a.model_copy(update={"container": container}) if a == held else a for a in self.design.assignments
            )
            codes = {
                f.code
                for f in verify(self.design.model_copy(update={"assignments": assignments}), regions(), self.things)
            }
            self.assertTrue(codes & {"unknown", "size", "capacity"}, (container, codes))

    def test_what_a_bay_says_of_itself_counts_for_nothing(self) -> None:
        design = wardrobe()
        loose = tuple(b.model_copy(update={"z1": 9000, "blocked": (), "depth": 2000}) for b in design.bays)
        self.assertEqual(verify(design.model_copy(update={"bays": loose}), regions(), WARDROBE), ())
        drawer = next(p for p in design.parts if p.role == "rail")
        up = tuple(p.model_copy(update={"z": p.z + 700}) if p.id == drawer.id else p for p in design.parts)
        told = verify(design.model_copy(update={"bays": loose, "parts": up}), regions(), WARDROBE)
        self.assertTrue(told, "a taller bay was only said")
        row = design.rows[0].row
        fewer = design.rows[0].model_copy(update={"row": row.model_copy(update={"widths": row.widths[:1]})})
        codes = {f.why for f in verify(design.model_copy(update={"rows": (fewer,)}), regions(), WARDROBE)}
        self.assertIn("other bays", codes)

    def corner(self, **of_the_next: Any) -> tuple[list[Fault], Part]:
        """A tray at the end of wall A and a panel on wall B beside it: what is wrong, and the tray."""
        task, design = loft()
        self.assertEqual(verify(design, task.envelopes, task.things, task.survey), ())
        end = int(next(f for f in frames(task.survey) if f.section == "A").length)
        last = max((p for p in design.parts if p.section == "A" and p.d > 200), key=lambda p: p.x + p.w)
        beside = last.model_copy(update={"id": "stray", "section": "B", "role": "panel", "bay": None, "w": 300})
        tray = last.model_copy(update={"id": "tray", "role": "tray", "bay": None, "x": end - last.w - 5})
        parts = (*(p for p in design.parts if p.id != last.id), tray, beside.model_copy(update=of_the_next))
        return list(verify(design.model_copy(update={"parts": parts}), task.envelopes, task.things, task.survey)), tray

    def test_a_pull_out_in_a_corner_opens_into_the_next_run(self) -> None:
        for x, meets in ((700, True), (3000, False)):
            faults, tray = self.corner(x=x, y=20, d=400)
            found = [f for f in faults if (f.code, f.why, f.where) == ("pull-out", "corner", tray.id)]
            self.assertEqual([f.other for f in found], ["stray"] if meets else [])

    def test_parts_of_two_walls_in_one_corner_are_found_in_the_plan(self) -> None:
        faults, _ = self.corner(x=40, y=20, w=400, d=400)
        self.assertTrue([f for f in faults if f.code == "overlap" and f.why == "corner"])

    def test_a_board_without_its_notch_meets_the_pipe(self) -> None:

        line = "width 1000; height 2400; depth 500; door none; pipe at 0, 0 up, 80 x 2400, out 90"
        design = solved(FOLDED, line, families=("cleat",)).alternatives[0]
        shelf = next(p for p in design.parts if p.cuts)
        parts = tuple(p.model_copy(update={"cuts": ()}) if p.id == shelf.id else p for p in design.parts)
        faults = verify(design.model_copy(update={"parts": parts}), {"A": region(line)}, FOLDED)
        self.assertIn(shelf.id, {f.where for f in faults if f.code == "closed"})


class CornerTests(TestCase):
    def test_what_a_bay_says_of_its_corner_is_not_believed(self) -> None:
        house = demo_house()
        porters = house.space("porters-room").survey
        meet = corners(porters)
        found, blind = envelopes(porters, house.rules), blind_zones(meet)
        carcase = FAMILIES["carcase"]
        stood = (stand((f,), found, meet, {}) for f in fills_of(carcase, porters.section("A"), found["A"], Finish(),
                                                                blind["A"]))  # fmt: skip
        candidate = next(c for c in stood if any(b.blind for b in c.bays))
        index = next(b.index for b in candidate.bays if b.blind)
        lying = tuple(b.model_copy(update={"blind": 0}) for b in candidate.bays)
        bay = lying[index]
        shelf = carcase.placed(bay, "s", "shelf", bay.z0 + 10 * bay.pitch)
        chest = thing("chest", "custom", 1, size=(bay.w - 20, 250, 300))
        row = Assignment(id="a1", thing="chest", part="s", way="box", count=1)
        design = wardrobe().model_copy(
            update={"bays": lying, "rows": candidate.standing, "assignments": (row,), "unplaced": (),
                    "parts": (*candidate.structure(found, Finish()), shelf)}
        )  # fmt: skip
        self.assertEqual([f.why for f in verify(design, found, (chest,)) if f.where == "s"], [])
        self.assertEqual([f.why for f in verify(design, found, (chest,), porters) if f.where == "s"], ["wide"])
