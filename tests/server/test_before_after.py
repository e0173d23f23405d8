"""Before and after through the API: figures, games, the report; the map, strips and letters to cut."""

from io import BytesIO
from pathlib import Path

from django.conf import settings
from django.core.files.uploadedfile import SimpleUploadedFile
from PIL import Image
from pypdf import PdfReader

from pinakotheke.server import models

from .test_keeping import KeepingTestCase


def photo(colour: str) -> bytes:
    out = BytesIO()
    Image.new("RGB", (60, 40), colour).save(out, "JPEG")
    return out.getvalue()


class BeforeAfterTests(KeepingTestCase):
    def figures(self) -> dict[str, tuple[str, str]]:
        body = self.ada.get(f"/spaces/{self.space}/before-after").body
        return {f["name"]: (f["before"], f["after"]) for f in body["figures"]}

    def test_figures_by_hand(self) -> None:
        self.assertEqual(self.figures()["pieces"], ("27", "27"))
        models.Thing.objects.filter(name="Scarves").update(decision="sell")
        jeans = models.Thing.objects.get(name="Jeans")
        models.Thing.objects.filter(pk=jeans.pk).update(decision="give away")
        self.ada.post(f"/things/{jeans.pk}/gone")
        got = self.figures()
        self.assertEqual((got["pieces"], got["pieces out"]), (("27", "17"), ("", "10")))
        noted = {"pieces": 40, "floor": 1.2, "rail": 0.8, "shelf": None}
        self.assertEqual(self.ada.put(f"/spaces/{self.space}/before", noted).body["noted"], noted)
        got = self.figures()
        self.assertEqual((got["pieces"][0], got["rail"][0], got["floor covered"][0]), ("40", "0.8 m", "1.2 m²"))
        given = self.ada.get(f"/spaces/{self.space}/ledger?design={self.row.pk}").body["ledger"]["lines"]
        rail = next(line["given"] for line in given if line["storage"] == "hanging")
        self.assertEqual(got["rail"][1], f"{rail / 1000:.1f} m")
        models.Household.objects.update(units="imperial")
        self.assertEqual(self.figures()["floor covered"][0], "13 sq ft")
        self.assertEqual(self.eve.get(f"/spaces/{self.space}/before-after").status_code, 404)

    def test_a_game_is_kept_once_and_is_another_one_each_time(self) -> None:
        first = self.ada.get(f"/spaces/{self.space}/before-after").body["to_find"]
        self.assertEqual(len(first), len(set(first)))
        finds = [{"thing": name, "seconds": 10 + n} for n, name in enumerate(first[:3])] + [{"thing": first[3]}]
        for _ in range(2):
            got = self.ada.post(f"/spaces/{self.space}/hunts", {"key": "h1", "moment": "before", "finds": finds}).body
        (game,) = got["hunts"]
        self.assertEqual(game["says"], "2 min 33 s for 4, 12 s for one, 3 of 4 found")  # 10 + 11 + 12 + 120
        self.assertEqual(self.figures()["finding things"], (game["says"], ""))
        self.assertEqual(self.ada.delete(f"/households/{self.house}/hunts/h1").body["hunts"], [])
        self.assertEqual(self.ada.post(f"/spaces/{self.space}/hunts", {"key": "x", "moment": "now"}).status_code, 422)

    def test_the_report_has_photos_beside_each_other_and_every_figure(self) -> None:
        for moment, colour in (("before", "teal"), ("after", "red"), ("after", "blue")):
            headers = {"X-CSRFToken": self.ada.client.cookies["csrftoken"].value}
            file = SimpleUploadedFile("p.jpg", photo(colour), "image/jpeg")
            data = {"file": file, "moment": moment}
            sent = self.ada.client.post(f"/api/spaces/{self.space}/photos", data, headers=headers)
            self.assertEqual(sent.status_code, 201, sent.content)
        reader = PdfReader(BytesIO(self.ada.get(f"/spaces/{self.space}/before-after.pdf").content))
        text = "".join(page.extract_text() for page in reader.pages)
        for name in self.figures():
            self.assertIn(name, text)
        self.assertIn("Photo 2: before and after", text)
        self.assertIn("no photo", text)
        self.assertEqual(sum(len(page.images) for page in reader.pages), 3)

    def test_the_map_on_paper_says_what_is_where(self) -> None:
        pages = PdfReader(BytesIO(self.ada.get(f"/spaces/{self.space}/map.pdf").content)).pages
        text = "".join(page.extract_text() for page in pages)
        self.assertIn("9 Shirts", text)
        for place in self.places:
            self.assertIn(place["name"].split()[0], text)

    def test_the_printer_prints_into_its_folder(self) -> None:
        ids = [p["id"] for p in self.places if p["stays"]]
        got = self.ada.post(f"/spaces/{self.space}/strips", {"places": ids, "tape": "tape-18"}).body
        self.assertEqual(len(got["strips"]), len(ids))
        files = sorted((Path(settings.VAR_DIR) / got["folder"]).glob("*.png"))
        self.assertGreaterEqual(len(files), len(ids))
        image = Image.open(files[-1])
        self.assertAlmostEqual(image.height / image.info["dpi"][1] * 25.4, 18, delta=0.2)
        self.assertTrue(all(models.Place.objects.filter(pk__in=ids).values_list("printed", flat=True)))
        self.assertEqual(self.ada.post(f"/spaces/{self.space}/strips", {"places": ids, "tape": "no"}).status_code, 422)
        cut = self.ada.get(f"/spaces/{self.space}/labels.svg?places={ids[0]}&mirrored=true")
        self.assertIn(b"scale(-1 1)", cut.content)
        self.assertEqual(self.eve.get(f"/spaces/{self.space}/labels.svg").status_code, 404)
