"""Buy through the API: two spaces in one list, its files read back, the saw, the money."""

import csv
from decimal import Decimal
from io import BytesIO, StringIO
from typing import Any

import ezdxf
from django.contrib.auth import get_user_model
from openpyxl import load_workbook
from pypdf import PdfReader

from pinakotheke.core.housefile import House, Space
from pinakotheke.core.layout import History
from pinakotheke.server import models
from pinakotheke.server.actions.house import import_house

from ..core.examples import hung, survey, wardrobe
from .base import ServerTestCase

MM = 72 / 25.4


class PurchaseTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        designs = [d.model_copy(update={"space": s}) for d, s in ((wardrobe(), "bed"), (hung(), "hall"))]
        house = House(
            name="Attic",
            spaces=tuple(Space(id=i, name=n, survey=survey()) for i, n in (("bed", "Bedroom"), ("hall", "Hall"))),
            designs=tuple(History(base=d) for d in designs),
        )
        row = import_house(get_user_model().objects.get(username="ada"), house)
        self.path = f"/households/{row.pk}"
        self.row = row
        self.ids = list(models.Design.objects.filter(space__household=row).order_by("pk").values_list("pk", flat=True))

    def asked(self, **how: str) -> str:
        pairs = [f"designs={pk}" for pk in self.ids] + [f"{k}={v}" for k, v in how.items()]
        return "&".join(pairs)

    def bought(self, **how: str) -> dict[str, Any]:
        answer = self.ada.get(f"{self.path}/purchase?{self.asked(**how)}")
        self.assertEqual(answer.status_code, 200, answer.content)
        body: dict[str, Any] = answer.body
        return body

    def test_page_csv_xlsx_and_pdf_say_the_same(self) -> None:
        for how in ({}, {"cutting": "make"}, {"without": "containers", "cutting": "make", "kerf": "4"}):
            page = self.bought(**how)
            total = Decimal(page["total"].replace(".", "").replace(",", "."))
            told = [(li["name"], str(li["bought"]), self._decimal(li["total"])) for li in page["lines"]]
            text = self.ada.get(f"{self.path}/purchase.csv?{self.asked(**how)}").content.decode()
            rows = list(csv.DictReader(StringIO(text)))
            self.assertEqual([(r["name"], r["bought"], Decimal(r["total EUR"])) for r in rows[:-1]], told)
            self.assertEqual(Decimal(rows[-1]["total EUR"]), total)
            self.assertEqual(sum(amount for *_, amount in told), total)
            book = load_workbook(BytesIO(self.ada.get(f"{self.path}/purchase.xlsx?{self.asked(**how)}").content))
            cells = [[str(c.value or "") for c in row] for row in book.worksheets[0].iter_rows()]
            self.assertEqual(cells, list(csv.reader(StringIO(text))))
            paper = PdfReader(BytesIO(self.ada.get(f"{self.path}/purchase.pdf?{self.asked(**how)}").content))
            words = " ".join(p.extract_text() for p in paper.pages)
            self.assertIn(page["total"], words)
            for line in page["lines"]:
                self.assertIn(line["total"], words)
            shares = [self._decimal(s["share"]) for s in page["spaces"]]
            self.assertEqual(sum(shares), total)

    def _decimal(self, figures: str) -> Decimal:
        return Decimal(figures.replace(".", "").replace(",", "."))

    def test_variants_cost_what_they_say(self) -> None:
        now = self.bought()
        others = self.ada.get(f"{self.path}/purchase/variants?{self.asked()}").body["variants"]
        made = next(v for v in others if v["cutting"] == "make")
        then = self.bought(cutting="make")
        change = self._decimal(then["total"]) - self._decimal(now["total"])
        self.assertEqual(made["money"], f"{'+' if change > 0 else '−'}{str(abs(change)).replace('.', ',')} EUR")
        self.assertEqual(now["plans"], [])
        self.assertEqual({p["kind"] for p in then["plans"]}, {"sheet"})
        self.assertEqual(self.ada.get(f"{self.path}/purchase?{self.asked(without='roof')}").status_code, 422)

    def test_over_the_budget_it_says_what_to_leave_out_first(self) -> None:
        self.row.rules = {**self.row.rules, "budget": "50"}
        self.row.save()
        page = self.bought()
        self.assertTrue(page["over"])
        self.assertIn("Over the budget of 50,00 EUR", page["budget"])
        self.assertTrue(page["leave_out"]["says"])

    def test_sawn_and_spoiled(self) -> None:
        plan = self.bought(cutting="make")
        total = plan["total"]
        labels = plan["plans"][-1]["diagrams"][0]["labels"][0]
        ask = {"designs": self.ids, "cutting": "make"}
        after = self.ada.post(f"{self.path}/sawn", {**ask, "labels": labels}).body
        (sawn,) = after["sawn"]
        self.assertEqual(sorted(p["label"] for p in sawn["parts"]), sorted(labels))
        left = [p["label"] for one in after["plans"] for p in one["parts"]]
        self.assertFalse(set(labels) & set(left))
        self.assertEqual(after["total"], total)  # bought is bought
        self.assertEqual(self.ada.post(f"{self.path}/sawn", {**ask, "labels": labels}).status_code, 422)
        self.assertEqual(self.ada.post(f"{self.path}/spoilt", {"part": sawn["parts"][0]["id"]}).status_code, 204)
        again = self.bought(cutting="make")
        self.assertIn(sawn["parts"][0]["label"], [p["label"] for one in again["plans"] for p in one["parts"]])
        self.assertTrue(again["sawn"][0]["parts"][0]["spoiled"])
        self.assertEqual(self.ada.post(f"{self.path}/spoilt", {"part": sawn["parts"][0]["id"]}).status_code, 404)
        kept = self.ada.get(f"{self.path}/house-file").content.decode()
        self.assertIn(f'"{sawn["parts"][0]["id"]}"', kept)
        self.assertEqual(self.ada.delete(f"{self.path}/sawn/{sawn['key']}").status_code, 204)
        self.assertEqual(self.bought(cutting="make")["total"], total)
        self.assertEqual(self.eve.delete(f"{self.path}/sawn/{sawn['key']}").status_code, 404)

    def test_papers_for_the_saw_measure_what_they_say(self) -> None:
        how = self.asked(cutting="make")
        plans = self.bought(cutting="make")["plans"]
        sheets = sum(len(p["diagrams"]) for p in plans)
        document = ezdxf.read(StringIO(self.ada.get(f"{self.path}/cuts.dxf?{how}").content.decode()))
        self.assertFalse(document.audit().errors)
        boxes = [
            sorted(round(max(p[k] for p in line.get_points()) - min(p[k] for p in line.get_points())) for k in (0, 1))
            for line in document.modelspace().query('LWPOLYLINE[layer=="CUT"]')
        ]
        said = [sorted(int(n) for n in part["cut"].split(" × ")) for one in plans for part in one["parts"]]
        self.assertEqual(sorted(boxes), sorted(said))
        self.assertEqual(len(document.modelspace().query('LWPOLYLINE[layer=="SHEET"]')), sheets)
        paper = PdfReader(BytesIO(self.ada.get(f"{self.path}/cuts.pdf?{how}").content))
        self.assertEqual(len(paper.pages), sheets)
        content = paper.pages[0].get_contents()
        assert content is not None
        widest = max(float(args[2]) for args, operator in content.operations if operator == b"re")
        self.assertAlmostEqual(widest / MM * 10, 2440, delta=1)
        labels = PdfReader(BytesIO(self.ada.get(f"{self.path}/labels.pdf?{how}").content))
        self.assertIn("Bedroom", labels.pages[0].extract_text())
        self.assertEqual(self.ada.get(f"{self.path}/cuts.pdf?{self.asked()}").status_code, 422)

    def test_the_ledger_of_money(self) -> None:
        for kind, amount in (("ordered", "120"), ("received", "100,00"), ("returned", "30.00")):
            entry = {"space": "bed", "kind": kind, "amount": amount, "what": "shelves"}
            self.assertEqual(self.ada.post(f"{self.path}/money", entry).status_code, 204)
        money = self.ada.get(f"{self.path}/money?{self.asked()}").body
        bed, all_ = money["accounts"][0], money["accounts"][-1]
        # By hand: 100 - 30 and one trip of 12.
        self.assertEqual((bed["name"], bed["spent"], bed["trips"], bed["due"]), ("Bedroom", "82,00", 1, "20,00"))
        self.assertEqual(all_["estimate"], self.bought()["total"])
        self.assertEqual(self.ada.delete(f"{self.path}/money/{money['entries'][0]['key']}").status_code, 204)
        self.assertEqual(self.ada.post(f"{self.path}/money", {**entry, "space": "moon"}).status_code, 404)
        self.assertEqual(self.ada.post(f"{self.path}/money", {**entry, "amount": "some"}).status_code, 422)

    def test_a_suppliers_list_is_brought_compared_and_taken_away(self) -> None:
        name = self.bought()["lines"][0]["name"]
        text = f"article\tprice\tstock\n{name}\t0.01\t900\nother\tdear\t1"
        columns = "article,price,stock"
        client = self.ada.client

        def sent(path: str, **fields: str) -> Any:
            headers = {"X-CSRFToken": client.cookies["csrftoken"].value}
            return client.post(f"/api{self.path}{path}", {"text": text, **fields}, headers=headers)

        guessed = [c["guess"] for c in sent("/prices/look").json()["columns"]]
        self.assertEqual(guessed, columns.split(","))
        taken = sent("/prices", columns=columns, name="Next door", delivery="0", days="0").json()
        self.assertEqual((taken["added"], [f["row"] for f in taken["faults"]]), (1, [3]))
        shops = self.ada.get(f"{self.path}/purchase/shops?{self.asked()}").body
        self.assertIn("Next door", [b["name"] for b in shops["baskets"]])
        self.assertEqual([(one["name"], one["rows"]) for one in shops["lists"]], [("Next door", 1)])
        self.assertIn('"Next door"', self.ada.get(f"{self.path}/house-file").content.decode())
        self.assertEqual(sent("/prices", columns="article,,", name="x").status_code, 422)
        self.assertEqual(self.eve.delete(f"{self.path}/prices/p1").status_code, 404)
        self.assertEqual(self.ada.delete(f"{self.path}/prices/p1").status_code, 204)
        self.assertEqual(self.ada.get(f"{self.path}/purchase/shops?{self.asked()}").body["lists"], [])

    def test_boards_in_hand_are_cut_first(self) -> None:
        board = {"name": "old table top", "size": "1200 x 700 x 18", "kind": "board"}
        before = self.bought(cutting="make")
        self.assertEqual(self.ada.post(f"{self.path}/owned", board).status_code, 201)
        after = self.bought(cutting="make")
        stock = [s for one in after["plans"] for d in one["diagrams"] for s in d["stock"]]
        self.assertIn("1200 × 700, offcut o1.1", stock)
        self.assertLessEqual(self._decimal(after["total"]), self._decimal(before["total"]))

    def test_old_furniture_is_taken_apart_into_boards(self) -> None:
        piece = {"name": "bookcase", "size": "900 x 620 x 2200", "kind": "furniture"}
        key = self.ada.post(f"{self.path}/owned", piece).body["owned"][0]["key"]
        path = f"{self.path}/owned/{key}/apart"
        owned = self.ada.post(path, {"shelves": 4, "thickness": "18 mm"}).body["owned"]
        self.assertEqual([(o["count"], o["size"]) for o in owned],
                         [(2, "2110 × 530 × 18 mm"), (2, "774 × 620 × 18 mm"), (4, "864 × 620 × 18 mm")])  # fmt: skip
        self.assertEqual(self.ada.post(path, {"shelves": 4}).status_code, 404)
        stock = [s for one in self.bought(cutting="make")["plans"] for d in one["diagrams"] for s in d["stock"]]
        self.assertTrue([s for s in stock if "offcut o" in s])

    def test_lengths_are_said_and_a_wrong_one_is_refused_with_its_mend(self) -> None:
        self.assertEqual(self.bought(cutting="make", kerf="1/8 in")["kerf"], "3")
        answer = self.ada.get(f"{self.path}/purchase?{self.asked(kerf='thin')}")
        self.assertEqual(answer.status_code, 422)
        self.assertTrue(answer.body["title"])
        short = self.bought(cutting="make", longest="1500")
        self.assertTrue(short["uncut"])  # sides are longer than the car
        self.assertEqual(self.eve.get(f"{self.path}/purchase?{self.asked()}").status_code, 404)
