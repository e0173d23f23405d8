"""The verifier passes good answers and is shown to fail on each kind of bad one."""

from unittest import TestCase

from pinakotheke.core.layout import Design, Unplaced, verify
from pinakotheke.core.layout.models import Assignment
from pinakotheke.core.systems import Part

from .examples import WARDROBE, regions, thing, wardrobe

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
        from .examples import PLAIN

        self.assertIn("closed", self.codes(self.design, region=regions(PLAIN + pipe)))

    def test_two_parts_in_one_place(self) -> None:
        frames = [p for p in self.design.parts if p.role == "frame"]
        self.assertIn("overlap", self.codes(changed(self.design, "frame", x=frames[1].x)))

    def test_hung_on_nothing(self) -> None:
        for role in ("drawer", "rail"):
            self.assertIn("support", self.codes(changed(self.design, role, fixed_to="frame-9")))
        self.assertIn("support", self.codes(changed(self.design, "rail", w=self.part("rail").w - 40)))

    def test_behind_a_return(self) -> None:
        from .examples import PLAIN

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
        stray = Assignment(thing="shirts", part=frame, way="hang", count=1)
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
