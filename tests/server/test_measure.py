"""Measure over the API: kinds of space, sections, what waited on a device, practice rooms, photographs, papers."""

from io import BytesIO
from pathlib import Path
from shutil import rmtree
from typing import Any
from uuid import uuid4

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image
from pypdf import PdfReader

from pinakotheke.core.survey.practice import true_room
from pinakotheke.server import models

from .base import Caller, ServerTestCase

LOW = {"section": "A", "what": "width", "level": "low", "face": "back"}


def said(text: str = "", slot: dict[str, Any] | None = None, line: str = "", key: str = "") -> dict[str, Any]:
    return {"key": key or uuid4().hex, "text": text, "slot": slot, "line": line}


class KindTests(ServerTestCase):
    def space(self, kind: str) -> Any:
        answer = self.ada.post(f"/households/{self.household()}/spaces", {"name": kind, "kind": kind})
        self.assertEqual(answer.status_code, 201, answer.content)
        return answer.body

    def test_every_kind_opens_with_a_reading_to_take(self) -> None:
        kinds = [row["kind"] for row in self.ada.get("/measure").body["spaces"]]
        self.assertEqual(len(kinds), 13)
        for kind in kinds:
            body = self.space(kind)
            self.assertEqual(body["kind"], kind)
            self.assertTrue(body["next"]["says"])
            self.assertEqual(body["missing"], body["next"]["left"])
            self.assertTrue(all(s["elevation"]["dimensions"] for s in body["sections"]), kind)

    def test_a_kind_there_is_none_of(self) -> None:
        self.assertProblem(
            self.ada.post(f"/households/{self.household()}/spaces", {"name": "a", "kind": "cellar"}), 422
        )

    def test_a_line_is_heard_where_the_speaker_stands(self) -> None:
        space = self.space("walk-in L")
        heard = self.ada.post(f"/spaces/{space['id']}/call-out",
                              {"line": "width 2100 2104 2098", "section": "B", "version": 1}).body  # fmt: skip
        self.assertEqual({r["section"] for r in heard["space"]["survey"]["readings"]}, {"B"})
        self.assertProblem(self.ada.post(f"/spaces/{space['id']}/call-out",
                                         {"line": "width 2100", "section": "Z", "version": 2}), 404)  # fmt: skip

    def test_what_the_readings_mean_is_said(self) -> None:
        space = self.closet("width 3114 3114 3114; height 2400 2400 2400; depth 612 612; floor 0 at 0, 17 at 3114; "
                            "diagonals 3175 3170; pipe at 400, 0 up, 60 x 2000, out 80")  # fmt: skip
        (section,) = self.ada.get(f"/spaces/{space}").body["sections"]
        means = dict(section["means"])
        self.assertEqual(means["levelled plinth"], "out by 17 mm: 1557 mm + 1557 mm")
        self.assertIn("°", means["left corner"])
        self.assertIn("pipe stands out 80 mm", [c["why"] for c in section["closed"]])

    def test_a_wall_that_leans_away_takes_a_minus(self) -> None:
        space = self.closet("width 1800 1800 1800; height 2400; depth 600")
        slot = {"section": "A", "what": "plumb", "side": "left"}
        answer = self.ada.post(f"/spaces/{space}/readings", {"version": 2, "slot": slot, "text": "-3"})
        self.assertEqual(answer.body["survey"]["readings"][-1]["value"], -3)
        self.assertProblem(self.ada.post(f"/spaces/{space}/readings", {"version": 3, "slot": LOW, "text": "-3"}), 422)


class ArrivalTests(ServerTestCase):
    def arrive(self, space: int, *messages: dict[str, Any], who: Caller | None = None) -> Any:
        return (who or self.ada).post(f"/spaces/{space}/arrivals", {"messages": list(messages)})

    def values(self, space: int) -> list[float]:
        return [r["value"] for r in self.ada.get(f"/spaces/{space}").body["survey"]["readings"]]

    def test_sent_twice_it_is_kept_once(self) -> None:
        space = self.closet()
        messages = [said("1846", LOW), said(line="height 2412 2408 2415")]
        for _ in range(3):
            self.assertEqual(self.arrive(space, *messages).body["refused"], [])
        self.assertEqual(self.values(space), [1846, 2412, 2408, 2415])

    def test_what_reached_the_server_before_the_connection_broke_is_not_doubled(self) -> None:
        space = self.closet()
        key = uuid4().hex
        self.ada.post(f"/spaces/{space}/readings", {"version": 1, "slot": LOW, "text": "1846", "key": key})
        self.arrive(space, said("1846", LOW, key=key))
        self.ada.post(f"/spaces/{space}/call-out", {"version": 2, "line": "depth 600 601", "key": key + "a"})
        self.arrive(space, said(line="depth 600 601", key=key + "a"))
        self.assertEqual(self.values(space), [1846, 600, 601])

    def test_what_another_hand_read_meanwhile_stays(self) -> None:
        space = self.closet()
        self.ada.post(f"/spaces/{space}/call-out", {"version": 1, "line": "low back width 1850"})
        self.arrive(space, said("1846", LOW))
        self.assertEqual(self.values(space), [1850, 1846])

    def test_one_that_cannot_be_kept_is_said_and_holds_up_none(self) -> None:
        space = self.closet()
        bad, worse = said("3' 14\"", LOW), said(line="flurb 12")
        answer = self.arrive(space, said("1846", LOW), bad, worse, said(line="depth 600 601")).body
        self.assertEqual({r["key"] for r in answer["refused"]}, {bad["key"], worse["key"]})
        self.assertTrue(all(r["problem"] and r["mend"] for r in answer["refused"]))
        self.assertEqual(self.values(space), [1846, 600, 601])

    def test_one_bad_message_of_many_holds_up_no_other(self) -> None:
        space = self.closet()
        bad = (
            {"key": uuid4().hex, "text": "1846", "slot": {**LOW, "what": "girth"}},
            {"key": uuid4().hex, "text": "1846", "slot": {**LOW, "section": "A", "level": "attic"}},
            {"key": uuid4().hex, "line": "width 1800", "section": "gone"},
            {"key": uuid4().hex, "line": "x" * 5000}, "no message at all",
        )  # fmt: skip
        answer = self.arrive(space, said("1846", LOW), *bad, said(line="depth 600 601"))
        self.assertEqual(answer.status_code, 200)
        self.assertEqual(len(answer.body["refused"]), len(bad), answer.body["refused"])
        self.assertEqual(self.values(space), [1846, 600, 601])

    def test_a_stranger_and_nonsense(self) -> None:
        space = self.closet()
        self.assertProblem(self.arrive(space, said("1846", LOW), who=self.eve), 404)
        self.assertProblem(self.arrive(space), 422)
        self.assertEqual([r["key"] for r in self.arrive(space, {"key": "../../x"}).body["refused"]], ["../../x"])
        nowhere = said("1846", {**LOW, "section": "Q"})
        self.assertEqual(len(self.arrive(space, nowhere).body["refused"]), 1)


class PracticeTests(ServerTestCase):
    def start(self, difficulty: str = "usual") -> Any:
        return self.ada.post(f"/households/{self.household()}/practice", {"difficulty": difficulty}).body

    def test_the_whole_exercise(self) -> None:
        space = self.start()
        at = f"/spaces/{space['id']}"
        for _ in range(60):
            if not space["missing"]:
                break
            space = self.ada.post(f"{at}/instruments/laser",
                                  {"version": space["version"], "slot": space["next"]["slot"]}).body  # fmt: skip
        self.assertEqual(space["missing"], 0)
        space = self.ada.post(f"{at}/instruments/stud finder", {"version": space["version"]}).body
        self.assertGreater(len(space["studs"]), 1)
        space = self.ada.post(f"{at}/seen", {"version": space["version"], "number": 0}).body
        self.assertEqual(space["obstacles"][0]["name"], "socket")
        self.assertProblem(self.ada.post(f"{at}/seen", {"version": space["version"], "number": 0}), 422, "already")
        answer = self.ada.post(f"{at}/truth", {"version": space["version"]}).body
        self.assertGreaterEqual(answer["review"]["score"], 70)
        self.assertTrue(answer["review"]["unlevel"])
        self.assertEqual(answer["review"]["overlooked"], ["pipe"])
        self.assertTrue(answer["space"]["practice"]["shown"])

    def test_the_truth_stays_on_the_server(self) -> None:
        space = self.start("awkward")
        row = models.Space.objects.get(pk=space["id"])
        room = true_room(row.practice["seed"], "awkward")  # type: ignore[index]
        text = str(self.ada.get(f"/spaces/{row.pk}").body)
        self.assertNotIn(str(row.practice["seed"]), text.replace(str(row.pk), ""))  # type: ignore[index]
        self.assertNotIn(f"{room.width:.1f}", text)

    def test_readings_scatter(self) -> None:
        space = self.start("gentle")
        at, slot = f"/spaces/{space['id']}/instruments/tape", space["next"]["slot"]
        for n in range(1, 9):
            space = self.ada.post(at, {"version": n, "slot": slot}).body
        values = [r["value"] for r in space["survey"]["readings"]]
        self.assertGreater(len(set(values)), 1)

    def test_where_there_is_no_truth(self) -> None:
        closet = self.closet()
        self.assertProblem(self.ada.post(f"/spaces/{closet}/instruments/laser", {"version": 1, "slot": LOW}), 422,
                           "practice rooms")  # fmt: skip
        space = self.start()
        at = f"/spaces/{space['id']}/instruments"
        self.assertProblem(self.ada.post(f"{at}/level", {"version": 1, "slot": LOW}), 422, "does not read")
        self.assertProblem(self.ada.post(f"{at}/laser", {"version": 1, "slot": {**LOW, "section": "Q"}}), 422)
        self.assertProblem(self.ada.post(f"{at}/sextant", {"version": 1, "slot": LOW}), 422)


def picture(size: tuple[int, int] = (2400, 1200), kind: str = "JPEG") -> bytes:
    out = BytesIO()
    image = Image.new("RGB", size, "white")
    exif = image.getexif()
    exif[0x010F] = "a camera's own name"
    image.save(out, kind, exif=exif)
    return out.getvalue()


class PhotoTests(ServerTestCase):
    def tearDown(self) -> None:
        rmtree(settings.MEDIA_ROOT, ignore_errors=True)

    def send(self, space: int, data: bytes, name: str = "a.jpg", who: Caller | None = None) -> Any:
        caller = (who or self.ada).client
        headers = {"X-CSRFToken": caller.cookies["csrftoken"].value}
        form = {"file": SimpleUploadedFile(name, data), "note": "the left corner"}
        return caller.post(f"/api/spaces/{space}/photos", form, headers=headers)

    def test_it_is_shrunk_and_carries_nothing_but_the_picture(self) -> None:
        space = self.closet()
        answer = self.send(space, picture())
        self.assertEqual(answer.status_code, 201, answer.content)
        (photo,) = self.ada.get(f"/spaces/{space}").body["photos"]
        file = self.ada.client.get(photo["url"])
        data = b"".join(file.streaming_content)
        kept = Image.open(BytesIO(data))
        self.assertEqual((kept.size, dict(kept.getexif())), ((1600, 800), {}))
        self.assertNotIn(b"camera", data)

    def test_only_members_see_it_and_it_goes_with_its_file(self) -> None:
        space = self.closet()
        photo = self.send(space, picture((40, 40), "PNG")).json()
        self.assertEqual(self.eve.client.get(photo["url"]).status_code, 404)
        self.assertProblem(self.eve.delete(f"/photos/{photo['id']}"), 404)
        self.assertEqual(self.send(space, picture((40, 40)), who=self.eve).status_code, 404)
        path = Path(models.Photo.objects.get().file.path)
        self.assertTrue(path.is_relative_to(settings.MEDIA_ROOT))
        self.assertTrue(path.exists())
        self.assertEqual(self.ada.delete(f"/photos/{photo['id']}").status_code, 204)
        self.assertFalse(path.exists())

    def test_files_that_are_no_photographs(self) -> None:
        space = self.closet()
        for data in (b"", b"GIF89a", b"<svg onload=alert(1)>", picture()[:200], b"\xff" * 13_000_000):
            answer = self.send(space, data)
            self.assertEqual(answer.status_code, 422, data[:20])
            self.assertIn("photo", answer.json()["title"] + answer.json()["mend"])
        self.assertEqual(self.ada.get(f"/spaces/{space}").body["photos"], [])


class PaperTests(ServerTestCase):
    def test_field_sheet_and_drawings_to_scale(self) -> None:
        for space in self.demo().space_set.all():
            for path in ("field-sheet.pdf", "drawing.pdf?scale=20", "drawing.pdf?scale=24"):
                answer = self.ada.client.get(f"/api/spaces/{space.pk}/{path}")
                self.assertEqual(answer.headers["Content-Type"], "application/pdf")
                self.assertIn(space.name, PdfReader(BytesIO(answer.content)).pages[0].extract_text())

    def test_what_is_no_scale_and_whose_space_it_is_not(self) -> None:
        space = self.closet()
        self.assertProblem(self.ada.get(f"/spaces/{space}/drawing.pdf?scale=7"), 422, "1:10")
        self.assertProblem(self.eve.get(f"/spaces/{space}/field-sheet.pdf"), 404)
