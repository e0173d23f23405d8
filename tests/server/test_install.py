"""The plan at the wall through the API: what is said of the work, ticks of two people and of a lost connection, what is not
as drawn, papers.
"""

import csv
from io import BytesIO, StringIO
from tempfile import TemporaryDirectory

import ezdxf
import vobject
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image
from pypdf import PdfReader

from pinakotheke.server import models

from .base import ServerTestCase

READ = (
    "width 1846 1849 1843; height 2412 2408 2415; depth 612 618; opening 1250 x 2030; nibs 296 300; "
    "studs 112 then every 400; floor 0 6 14 9; socket at 600, 300 up, 80 x 80"
)


class InstallTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet(READ, "9 shirts; 5 jumpers; 6 jeans")
        self.ada.post(f"/spaces/{self.space}/solves", {"families": ["track"]})
        self.row = models.Design.objects.filter(space=self.space).order_by("pk").first()
        assert self.row is not None
        self.path = f"/designs/{self.row.pk}"

    def read(self):  # type: ignore[no-untyped-def]
        answer = self.ada.get(f"{self.path}/install")
        self.assertEqual(answer.status_code, 200)
        return answer.body

    def choice(self, **change: object):  # type: ignore[no-untyped-def]
        now = self.read()
        said = {**now["choice"], **change, "version": now["space_version"]}
        return self.ada.put(f"{self.path}/install", said)

    def test_the_plan_and_what_is_said_of_it(self) -> None:
        got = self.read()
        self.assertEqual([s["number"] for s in got["steps"]], list(range(1, len(got["steps"]) + 1)))
        self.assertTrue(all(a < s["number"] for s in got["steps"] for a in s["after"]))
        (wall,) = got["walls"]
        self.assertTrue(wall["holes"])
        self.assertIn("no order is done sooner", got["times"])
        said = self.choice(old="tracks", paint=True, people=1, start="2026-03-02", evening=0)
        self.assertEqual(said.status_code, 200)
        turns = [s["turn"] for s in said.body["steps"]]
        self.assertEqual(turns[:4], ["empty", "remove", "patch", "paint"])
        self.assertEqual({s["hands"] for s in said.body["steps"]}, {1})
        self.assertTrue(all(s["starts"][:10] >= "2026-03-07" for s in said.body["steps"]))  # the first Saturday
        self.assertEqual(self.read()["choice"]["old"], "tracks")

    def test_what_cannot_be_is_refused_with_the_mend(self) -> None:
        now = self.read()
        stale = self.ada.put(f"{self.path}/install", {**now["choice"], "version": now["space_version"] + 7})
        self.assertEqual(stale.status_code, 409)
        self.assertEqual(self.choice(start="2026-02-31").status_code, 422)
        self.assertEqual(self.choice(people=9).status_code, 422)
        got = self.choice(evening=0, weekend=0)
        self.assertIn("say when there is time", got.body["times"])
        self.assertEqual({s["starts"] for s in got.body["steps"]}, {None})
        self.assertEqual(self.ada.get(f"{self.path}/install.ics").status_code, 422)
        gone = self.ada.post(f"{self.path}/ticks", {"key": "k1", "step": "no:such"})
        self.assertEqual((gone.status_code, gone.body["mend"][:6]), (422, "Reload"))
        for path in ("install", "install.pdf", "strips.pdf", "holes.csv", "holes.dxf", "install.ics"):
            self.assertEqual(self.eve.get(f"{self.path}/{path}").status_code, 404, path)
        self.assertEqual(self.eve.post(f"{self.path}/ticks", {"key": "k", "step": "empty"}).status_code, 404)

    def test_two_people_tick_and_a_tick_sent_twice_is_one(self) -> None:
        house = models.Space.objects.get(pk=self.space).household_id
        self.let_in(house)
        first = {"key": "a1", "step": "empty", "minutes": 90}
        self.assertEqual(self.ada.post(f"{self.path}/ticks", first).status_code, 200)
        again = self.ada.post(f"{self.path}/ticks", {**first, "minutes": 5}).body
        self.assertEqual(again["minutes"], 90)
        self.assertEqual(self.eve.post(f"{self.path}/ticks", {"key": "e1", "step": "line:A"}).status_code, 200)
        got = self.read()
        done = {s["id"]: s for s in got["steps"] if s["done"]}
        self.assertEqual(set(done), {"empty", "line:A"})
        self.assertEqual(done["line:A"]["ticks"][0]["by"], "eve")
        self.assertIsNone(done["empty"]["starts"])
        self.assertEqual((got["timed"], got["done_hours"]), (1, 1.5))
        estimate = models.Tick.objects.get(key="a1").estimate
        self.assertAlmostEqual(got["share"], round((240 + 90) / (240 + estimate), 2))
        states = self.ada.get(f"/spaces/{self.space}/ledger?design={self.row.pk}").body["states"]
        self.assertEqual(states["install"], "2 steps done")
        self.assertEqual(self.ada.delete(f"{self.path}/ticks/e1").status_code, 204)
        self.assertEqual(self.ada.delete(f"{self.path}/ticks/e1").status_code, 404)
        self.assertEqual({s["id"] for s in self.read()["steps"] if s["done"]}, {"empty"})

    def test_a_stud_elsewhere_makes_the_map_anew_and_locks_what_hangs(self) -> None:
        before = self.read()
        for n, step in enumerate(s for s in before["steps"] if s["turn"] in ("support", "board")):
            self.ada.post(f"{self.path}/ticks", {"key": f"t{n}", "step": step["id"]})
        hang = next(s for s in before["steps"] if s["turn"] == "hang")
        data = {"key": "x1", "step": hang["id"], "amiss": True, "section": "A", "what": "stud", "number": 3,
                "at": "940"}  # fmt: skip
        said = self.ada.post(f"{self.path}/ticks", data)
        self.assertEqual(said.status_code, 200)
        self.assertIn("The stud stands at 940 mm, not 912 mm.", said.body["note"])
        self.assertIn("elsewhere", said.body["note"])
        self.assertEqual(self.ada.post(f"{self.path}/ticks", data).body, said.body)
        after = self.read()
        self.assertEqual(after["walls"][0]["studs"][:3], ["112", "512", "940"])
        self.assertNotEqual([h["along"] for h in after["walls"][0]["holes"]],
                            [h["along"] for h in before["walls"][0]["holes"]])  # fmt: skip
        self.assertFalse(next(s for s in after["steps"] if s["id"] == hang["id"])["done"])
        shown = self.ada.get(self.path).body
        up = {p for s in after["steps"] if s["turn"] == "board" for p in s["parts"]}
        self.assertTrue({p["id"] for p in shown["parts"] if p["locked"]} <= up)
        self.assertTrue(any(p["locked"] for p in shown["parts"]))
        wrong = self.ada.post(f"{self.path}/ticks", {**data, "key": "x2", "number": 40})
        self.assertEqual(wrong.status_code, 422)
        self.assertIn("were read on this wall", wrong.content.decode())

    def test_a_bow_a_strayed_hole_and_a_short_part_plan_the_rest_anew(self) -> None:
        before = self.read()
        hang = next(s for s in before["steps"] if s["turn"] == "hang")
        tell = {"step": hang["id"], "amiss": True, "section": "A"}
        bow = self.ada.post(f"{self.path}/ticks", {**tell, "key": "b", "what": "bow", "way": "out", "at": "14 mm"}).body
        self.assertIn("The middle of the wall stands 14 mm out.", bow["note"])
        self.assertIn("packed out", bow["note"])
        wall = self.read()["walls"][0]
        self.assertTrue(any("packed out by" in h["says"] for h in wall["holes"]))
        self.assertEqual(models.Reading.objects.get(space=self.space, what="bow").value, 14)
        number = next(h["number"] for h in wall["holes"] if "stud" in h["says"])
        gone = {**tell, "key": "h", "what": "hole", "number": number, "way": "left", "at": "9"}
        self.assertIn("9 mm to the left: fill it", self.ada.post(f"{self.path}/ticks", gone).body["note"])
        short = {**tell, "key": "s", "what": "short", "part": hang["parts"][0], "at": "50", "there": "2031-05-02"}
        self.assertIn("wait until Friday, 2 May", self.ada.post(f"{self.path}/ticks", short).body["note"])
        after = self.read()
        self.assertEqual([a["what"] for a in after["aside"]], ["strayed", "again"])
        moved = next(h for h in after["walls"][0]["holes"] if h["number"] == number)
        self.assertIn("moved", moved["says"])
        late = next(s for s in after["steps"] if s["id"] == hang["id"])
        self.assertGreaterEqual(late["starts"][:10], "2031-05-02")
        house = models.Space.objects.get(pk=self.space).household_id
        file = self.ada.get(f"/households/{house}/house-file").content
        self.assertEqual(self.ada.get(f"/households/{self.bring(file)['household']}/house-file").content, file)
        self.assertEqual(self.choice(again=[]).body["aside"], after["aside"][:1])
        for wrong in ({"what": "bow", "way": "left", "at": "8"}, {"what": "hole", "number": 900, "way": "up", "at": "9"},
                      {"what": "short", "part": "nothing", "at": "9"}, {"what": "stud", "number": 1, "at": "a finger"},
                      {"what": "bow", "way": "in", "at": "8", "section": "Z"},
                      {"what": "short", "part": hang["parts"][0], "at": "50", "there": "2031-02-31"}):  # fmt: skip
            said = self.ada.post(f"{self.path}/ticks", {**tell, "key": f"w{wrong}"[:20].replace("'", ""), **wrong})
            self.assertEqual(said.status_code, 422, wrong)
        self.assertEqual(len([t for s in self.read()["steps"] for t in s["ticks"]]), 3)

    def test_a_photo_of_a_step_sent_twice_is_kept_once(self) -> None:
        picture = BytesIO()
        Image.new("RGB", (40, 30)).save(picture, "PNG")
        caller = self.ada.client
        caller.get("/api/session")
        headers = {"X-CSRFToken": caller.cookies["csrftoken"].value}

        def send(**more: object):  # type: ignore[no-untyped-def]
            form = {"moment": "step", "design": self.row.pk, "step": "empty", "key": "p1", **more,
                    "file": SimpleUploadedFile("wall.png", picture.getvalue(), "image/png")}  # fmt: skip
            return caller.post(f"/api/spaces/{self.space}/photos", form, headers=headers)

        with TemporaryDirectory() as here, self.settings(MEDIA_ROOT=here):
            sent = [send(), send()]
            self.assertEqual([s.status_code for s in sent], [201, 201])
            (photo,) = next(s for s in self.read()["steps"] if s["id"] == "empty")["photos"]
            self.assertEqual({s.json()["id"] for s in sent}, {photo["id"]})
            self.assertEqual(self.ada.get(f"/spaces/{self.space}").body["photos"], [])
            self.assertEqual(send(key="p2", design=9999).status_code, 404)

    def test_papers_say_what_the_page_says(self) -> None:
        got = self.read()
        rows = list(csv.reader(StringIO(self.ada.get(f"{self.path}/holes.csv").content.decode())))
        holes = got["walls"][0]["holes"]
        self.assertEqual([r[1] for r in rows[1:]], [str(h["number"]) for h in holes])
        self.assertEqual([r[3] for r in rows[1:]], [h["along"] for h in holes])
        drawn = ezdxf.read(StringIO(self.ada.get(f"{self.path}/holes.dxf").content.decode()))
        circles = [c for c in drawn.modelspace() if c.dxftype() == "CIRCLE"]
        self.assertEqual(len(circles), len(holes))
        self.assertEqual({round(c.dxf.center.x) for c in circles}, {round(float(h["along"])) for h in holes})
        book = PdfReader(BytesIO(self.ada.get(f"{self.path}/install.pdf").content))
        text = " ".join(" ".join(page.extract_text() for page in book.pages).split())
        for step in got["steps"]:
            self.assertIn(f"{step['number']}. {step['title']}", text)
        self.assertIn("licensed", text)
        strips = PdfReader(BytesIO(self.ada.get(f"{self.path}/strips.pdf").content))
        self.assertIn("100 mm", strips.pages[0].extract_text())
        events = list(vobject.readOne(self.ada.get(f"{self.path}/install.ics").content.decode()).vevent_list)
        days = {s["starts"][:10] for s in got["steps"]}
        self.assertEqual({e.dtstart.value.date().isoformat() for e in events}, days)

    def test_the_house_file_carries_what_was_said_and_done(self) -> None:
        self.choice(old="rails", people=3)
        self.ada.post(f"{self.path}/ticks", {"key": "a1", "step": "empty", "minutes": 90, "note": "two boxes more"})
        house = models.Space.objects.get(pk=self.space).household_id
        file = self.ada.get(f"/households/{house}/house-file").content
        brought = self.bring(file)["household"]
        again = self.ada.get(f"/households/{brought}/house-file").content
        self.assertEqual(again, file)
        tick = models.Tick.objects.get(household=brought)
        self.assertEqual((tick.key, tick.minutes, tick.note), ("a1", 90, "two boxes more"))
        self.assertEqual(tick.space.install["old"], "rails")
