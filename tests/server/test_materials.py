"""Buy through the API: what is cut and printed for drawers."""

from io import BytesIO, StringIO
from typing import Any

import ezdxf
from pypdf import PdfReader

from .base import ServerTestCase

MM = 72 / 25.4
READINGS = "width 386 388; depth 462 458; height 95; opens 430"
THINGS = "3 boxes of pens\n2 pairs of scissors\n3 desk tools\n4 packs of batteries\n2 rolls of tape"


class DrawerTests(ServerTestCase):
    def drawer(self) -> tuple[int, dict[str, Any]]:
        """A drawer with things, solved; its space and its first design."""
        made = self.ada.post(f"/households/{self.household()}/spaces", {"name": "Desk drawer", "kind": "drawer"}).body
        space = int(made["id"])
        heard = self.ada.post(f"/spaces/{space}/call-out", {"line": READINGS, "version": made["version"]})
        self.assertEqual(heard.body["heard"]["misheard"], [])
        for line in THINGS.splitlines():
            self.assertEqual(self.ada.post(f"/spaces/{space}/things", {"line": line}).status_code, 201)
        self.ada.post(f"/spaces/{space}/solves")
        return space, self.ada.get(f"/spaces/{space}/designs").body["designs"][0]

    def test_strips_and_templates_measure_what_they_say(self) -> None:
        space, design = self.drawer()
        cuts = self.ada.get(f"/designs/{design['id']}/cuts").body
        self.assertTrue(cuts["in_drawers"])
        (drawer,) = cuts["drawers"]
        dxf = self.ada.get(f"/designs/{design['id']}/strips.dxf")
        document = ezdxf.read(StringIO(dxf.content.decode()))
        self.assertFalse(document.audit().errors)
        lengths = sorted(
            round(max(p[0] for p in line.get_points()) - min(p[0] for p in line.get_points()))
            for line in document.modelspace().query("LWPOLYLINE")
        )
        said = sorted(int(strip["size"].split(" ")[0]) for strip in drawer["strips"] for _ in range(strip["count"]))
        self.assertEqual(lengths, said)
        self.assertRegex(drawer["slot"], r"^6\.3 × \d+\.\d$")  # finer than the tape: it is cut to
        for path, wanted in (
            (f"/designs/{design['id']}/drawers.pdf", 1),
            (f"/designs/{design['id']}/drawers.pdf?size=map", 5),
            (f"/spaces/{space}/floors.pdf", 1),
        ):
            answer = self.ada.get(path)
            self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"))
            self.assertAlmostEqual(self._floor(answer.content) * wanted, 384, delta=0.5, msg=path)
        self.assertGreater(len(PdfReader(BytesIO(self.ada.get(f"/spaces/{space}/floors.pdf").content)).pages), 3)
        self.assertEqual(self.eve.get(f"/designs/{design['id']}/strips.dxf").status_code, 404)

    def _floor(self, data: bytes) -> float:
        """Width of the largest rectangle that is stroked on the first page, mm of paper: the floor's outline."""
        content = PdfReader(BytesIO(data)).pages[0].get_contents()
        assert content is not None
        widths = [float(args[2]) for args, operator in content.operations if operator == b"re"]
        return max(widths) / MM

    def test_where_there_is_no_drawer_none_is_printed(self) -> None:
        space = self.closet("width 2000; height 2400; depth 600", "12 shirts")
        answer = self.ada.get(f"/spaces/{space}/floors.pdf")
        self.assertEqual(answer.status_code, 422)
