"""A carcase round a hatch, a valve or a meter: where it stands, what is left in it, and what the verifier refuses."""

from unittest import TestCase

from pinakotheke.core.checks import check_design
from pinakotheke.core.layout.verify.verifier import verify
from pinakotheke.core.survey import Envelope
from pinakotheke.core.systems import FAMILIES, Bay, Finish, Row
from pinakotheke.core.words import sentence

from .examples import region, regions, solved, survey, thing

CARCASE = FAMILIES["carcase"]
PLAIN_FINISH = Finish()


class DividerTests(TestCase):
    """A carcase round a hatch: its back cut out there, a divider between it and what is stored."""

    LINE = "width 2000; height 2400; depth 620; door none; hatch at 760, 300 up, 300 x 300, access 600"
    GARMENTS = (thing("shirts", "shirt", 20), thing("jumpers", "jumper", 8), thing("jeans", "jeans", 6))

    def row(self, *widths: int, x: int = 0) -> tuple[Row, Envelope, tuple[Bay, ...]]:
        """A row over the hatch."""
        e = region(self.LINE)
        shape = next(s for s in CARCASE.shapes(e, PLAIN_FINISH) if (s.height, s.depth) == (2070, 584))
        row = Row(shape=shape, x=e.x_from + x, widths=widths)
        return row, e, CARCASE.bays(e, row)

    def test_the_run_goes_on_over_the_hatch_and_no_side_stands_before_it(self) -> None:
        row, e, _ = self.row(608, 928)
        self.assertEqual(len(CARCASE.stretches(e, row.shape)), 1)
        self.assertTrue(CARCASE.allows(e, row))
        self.assertFalse(CARCASE.allows(e, self.row(928, 608)[0]), "two sides would meet before the hatch")

    def test_the_bay_is_what_is_left_beside_it_and_the_divider_stands_between(self) -> None:
        row, e, bays = self.row(608, 928)
        parts = CARCASE.structure(e, row, bays, PLAIN_FINISH)
        (divider,) = (p for p in parts if p.role == "divider")
        # By hand: the frame's inside ends at 608 + 928 - 18, the hatch at 760 + 300; then the board of the divider.
        self.assertEqual((divider.x, divider.w), (1060, 18))
        self.assertEqual((bays[1].x, bays[1].w), (1078, e.x_from + 608 + 928 - 18 - 1078))
        self.assertEqual(bays[0].w, 608 - 36, "the neighbour is whole")
        self.assertEqual(divider.h, 2070 - 70 - 36)
        self.assertEqual(CARCASE.price(divider), CARCASE.priced("divider", area_mm2=divider.h * divider.d))

    def test_what_reaches_the_floor_or_is_no_matter_of_reaching_parts_the_run(self) -> None:
        for said in ("hatch at 760, 0 up, 300 x 300, access 600", "panel at 760, 300 up, 300 x 300, access 600",
                     "box at 760, 300 up, 300 x 300, out 100"):  # fmt: skip
            e = region(f"width 2000; height 2400; depth 620; door none; {said}")
            shape = next(s for s in CARCASE.shapes(e, PLAIN_FINISH) if (s.height, s.depth) == (2070, 584))
            self.assertGreater(len(CARCASE.stretches(e, shape)), 1, said)

    def test_a_narrow_frame_over_it_stays_empty(self) -> None:
        _, _, bays = self.row(704, 448)
        self.assertEqual([(b.low, b.high) for b in bays[1].blocked], [(88, 2070)])

    def test_a_search_uses_it_and_everything_verifies(self) -> None:
        got = solved(self.GARMENTS, self.LINE, families=("carcase",), effort=0.2)
        divided = [d for d in got.alternatives if any(p.role == "divider" for p in d.parts)]
        self.assertTrue(divided)
        for design in divided:
            self.assertEqual(verify(design, regions(self.LINE), self.GARMENTS, survey(self.LINE)), ())
            hatch = next(c for c in region(self.LINE).closed if c.enclosed and c.y1 > 500)
            for part in design.parts:
                if part.role not in ("frame", "door", "curtain"):
                    self.assertFalse(
                        hatch.meets(part.x, part.x + part.w, part.y, part.y + part.d, part.z, part.z + part.h)
                    )

    def test_a_note_says_what_is_cut_out_of_the_back(self) -> None:
        got = solved(self.GARMENTS, self.LINE, families=("carcase",), effort=0.2)
        design = next(d for d in got.alternatives if any(p.role == "divider" for p in d.parts))
        found = check_design(design, survey(self.LINE), regions(self.LINE), self.GARMENTS, ())
        (note,) = (f for f in found if f.code == "fit.back-cut")
        self.assertEqual(design.part(note.where[0]).role, "frame")
        self.assertIn("round the hatch: its back is cut out there, 300 mm by 300 mm", sentence(note, "metric"))

    def test_the_verifier_faults_a_shelf_or_a_side_before_the_hatch(self) -> None:
        got = solved(self.GARMENTS, self.LINE, families=("carcase",), effort=0.2)
        design = next(d for d in got.alternatives if any(p.role == "divider" for p in d.parts))
        divider = next(p for p in design.parts if p.role == "divider")
        frame = next(p for p in design.parts if p.role == "frame" and p.bay == divider.bay)
        for part, change in ((divider, {"x": 900}), (frame, {"x": 900}), (frame, {"z": 400, "h": 1000})):
            moved = design.model_copy(
                update={"parts": tuple(p.model_copy(update=change) if p.id == part.id else p for p in design.parts)}
            )
            codes = {f.code for f in verify(moved, regions(self.LINE), self.GARMENTS) if f.where == part.id}
            self.assertIn("closed", codes, (part.role, change))
