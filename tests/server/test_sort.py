"""Sort and Brief over the API: lists in and out, many at once, homes and pins, the plan of work, what is owned."""

from io import BytesIO
from typing import Any
from zipfile import ZIP_DEFLATED, ZipFile

from django.core.files.uploadedfile import SimpleUploadedFile
from openpyxl import Workbook, load_workbook

from pinakotheke.server import models

from .base import Caller, ServerTestCase


def xlsx(rows: list[list[Any]]) -> bytes:
    book = Workbook()
    sheet = book.active
    for row in rows:
        sheet.append(row)
    out = BytesIO()
    book.save(out)
    return out.getvalue()


def hollow() -> bytes:
    """A real XLSX whose sheet is no XML."""
    out = BytesIO()
    with ZipFile(BytesIO(xlsx([["a"], ["b"]]))) as whole, ZipFile(out, "w") as broken:
        for name in whole.namelist():
            broken.writestr(name, b"<x" if "sheet1" in name else whole.read(name))
    return out.getvalue()


class ListTests(ServerTestCase):
    def send(self, space: int, step: str, data: bytes | str, name: str = "a.csv", who: Caller | None = None,
             **form: str) -> Any:  # fmt: skip
        caller = (who or self.ada).client
        fields: dict[str, Any] = {"text": "", **form}
        if isinstance(data, bytes):
            fields["file"] = SimpleUploadedFile(name, data)
        else:
            fields["text"] = data
        headers = {"X-CSRFToken": caller.cookies["csrftoken"].value}
        return caller.post(f"/api/spaces/{space}/things/{step}", fields, headers=headers)

    def test_a_list_with_other_names_for_its_columns(self) -> None:
        space = self.closet()
        rows = [["Qty", "Item", "How often", "Colour"], [14, "shirts", "daily", "blue"], [3, "hats", "", "red"]]
        plain = b"Qty;Item;How often;Colour\n14;shirts;daily;blue\n"
        for data, name in ((xlsx(rows), "a.xlsx"), (plain, "a.csv")):
            preview = self.send(space, "preview", data, name).json()
            self.assertEqual([c["guess"] for c in preview["columns"]], ["count", "name", "frequency", None])
        taken = self.send(space, "list", xlsx(rows), "a.xlsx", columns="count,name,frequency,").json()
        self.assertEqual((taken["added"], taken["faults"]), (2, []))
        self.assertEqual([t["thing"]["count"] for t in taken["things"]["things"]], [14, 3])

    def test_pasted_rows_and_those_that_are_not_understood(self) -> None:
        space = self.closet()
        got = self.send(space, "list", "count\twhat\n2\tshirts\nmany\thats\n1\tflurb\n", columns="count,name").json()
        self.assertEqual((got["added"], [f["row"] for f in got["faults"]]), (2, [3]))

    def test_out_and_in_keeps_every_row_and_column(self) -> None:
        space = self.closet("", "14 shirts, daily, keep; box 45 x 32 x 28, Christmas; 2 old easels, 600 x 90 x 1100")
        first = models.Thing.objects.get(name="Shirts")
        first.note, first.together = "=HYPERLINK(1)", "-x"
        first.save()
        other = self.closet()
        for form in ("csv", "xlsx"):
            file = self.ada.client.get(f"/api/spaces/{space}/things.{form}").content
            header = self.send(other, "preview", file, f"a.{form}").json()["columns"]
            taken = self.send(other, "list", file, f"a.{form}", columns=",".join(c["guess"] for c in header)).json()
            self.assertEqual((taken["added"], taken["faults"]), (3, []), form)
        fields = ("name", "kind", "count", "frequency", "decision", "size", "label", "note", "together")
        found = models.Thing.objects.order_by("pk").values(*fields)
        sent, back = (list(found.filter(space=s)) for s in (space, other))
        self.assertEqual(back, sent + sent)

    def test_no_cell_can_run(self) -> None:
        space = self.closet("", "3 shirts")
        models.Thing.objects.update(name="=1+1", note="@SUM(A1)", label="+2")
        self.assertNotIn("\r\n=", self.ada.client.get(f"/api/spaces/{space}/things.csv").content.decode())
        book = load_workbook(BytesIO(self.ada.client.get(f"/api/spaces/{space}/things.xlsx").content))
        for row in book.active.iter_rows():
            self.assertFalse([c for c in row if c.data_type == "f"])

    def test_hostile_files(self) -> None:
        space = self.closet()
        bomb = BytesIO()
        with ZipFile(bomb, "w", ZIP_DEFLATED) as archive:
            archive.writestr("xl/worksheets/sheet1.xml", b"0" * 80_000_000)
        for data, name, says in (
            (b"x" * 6_000_000, "a.csv", "too large"), (b"", "a.csv", "empty"),
            (b"PK\x03\x04nonsense", "a.xlsx", "XLSX"), (hollow(), "a.xlsx", "XLSX"),
            (bomb.getvalue(), "a.xlsx", "unpacks"), ("count,what\n3,caf\xe9".encode("latin-1"), "a.csv", "UTF-8"),
            (b"\x00\x01\x02", "a.csv", "no text"), (",".join("c" * 200).encode(), "a.csv", "60 columns"),
            (("a\n" + "b\n" * 5001).encode(), "a.csv", "5000 rows"),
        ):  # fmt: skip
            answer = self.send(space, "preview", data, name)
            self.assertEqual(answer.status_code, 422, (name, says))
            self.assertIn(says, answer.json()["title"])
            self.assertTrue(answer.json()["mend"])
        self.assertEqual(self.ada.get(f"/spaces/{space}/things").body["things"], [])

    def test_formulas_are_kept_as_the_text_they_are(self) -> None:
        space = self.closet()
        data = xlsx([["count", "what", "note"], [2, "shirts", "=CMD()"]])
        self.assertEqual(self.send(space, "list", data, "a.xlsx", columns="count,name,note").json()["added"], 1)
        self.assertEqual(models.Thing.objects.get().note, "=CMD()")

    def test_whose_space_it_is_and_what_names_the_things(self) -> None:
        space = self.closet()
        self.assertEqual(self.send(space, "preview", "a\nb", who=self.eve).status_code, 404)
        answer = self.send(space, "list", "count,what\n2,shirts", columns="count,")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("No column", answer.json()["title"])


class ManyTests(ServerTestCase):
    def test_many_at_once_or_none(self) -> None:
        space = self.closet("", "14 shirts; 3 hats; 2 scarves")
        things = self.ada.get(f"/spaces/{space}/things").body["things"]
        house, ids = models.Space.objects.get(pk=space).household_id, [t["id"] for t in things]
        changed = self.ada.post(f"/households/{house}/things/change", {"ids": ids, "decision": "sell"}).body
        self.assertEqual(changed, {"changed": 3})
        after = self.ada.get(f"/spaces/{space}/things").body
        self.assertEqual([(p["decision"], p["pieces"]) for p in after["piles"]], [("sell", 19)])
        at = f"/households/{house}/things/change"
        self.assertProblem(self.ada.post(at, {"ids": [*ids, 10**6], "decision": "bin"}), 404)
        after = self.ada.get(f"/spaces/{space}/things").body
        self.assertEqual({t["thing"]["decision"] for t in after["things"]}, {"sell"})
        self.assertProblem(self.eve.post(at, {"ids": ids, "decision": "bin"}), 404)

    def test_duplicate(self) -> None:
        space = self.closet("", "14 shirts, daily")
        first = self.ada.get(f"/spaces/{space}/things").body["things"][0]
        self.assertEqual(self.ada.post(f"/things/{first['id']}/duplicate").status_code, 201)
        both = [t["thing"] for t in self.ada.get(f"/spaces/{space}/things").body["things"]]
        self.assertEqual({**both[0], "id": ""}, {**both[1], "id": ""})

    def test_what_the_demand_would_be_otherwise(self) -> None:
        space = self.closet("", "14 shirts; 9 T-shirts; 9 tins; 1 laptop")
        body = self.ada.get(f"/spaces/{space}/things").body
        self.assertTrue(any(s["rule"] == "hang" and "hanging" in s["changes"] for s in body["schools"]))
        self.assertTrue(any("7 over" in line for line in body["over_stock"]))
        self.assertTrue(any("fewer" in p["says"] for p in body["purge"]))
        self.assertEqual(body["sockets"], 1)


class HomesTests(ServerTestCase):
    def test_pin_and_reflow(self) -> None:
        house = self.demo()
        homes = self.ada.get(f"/households/{house.pk}/homes").body
        self.assertGreater(homes["moves"], 20)
        self.assertEqual(sum(len(r["homes"]) for r in homes["rooms"]) + len(homes["homeless"]),
                         house.thing_set.filter(decision__in=("keep", "repair", "undecided")).count())  # fmt: skip
        gas = next(h for r in homes["rooms"] for h in r["homes"] if h["name"] == "Gas cylinder")
        self.assertEqual(gas["current"], "", "it stands where it may")
        after = self.ada.post(f"/things/{gas['id']}/pin", {"version": gas["version"], "space": "boiler-cupboard"}).body
        stop = next(f for f in after["findings"] if f["code"] == "home.fuel")
        self.assertEqual(stop["severity"], "stop")
        self.assertIn("licensed", stop["remedy"])
        loose = {"version": gas["version"] + 1, "space": "", "band": None}
        again = self.ada.post(f"/things/{gas['id']}/pin", loose).body
        self.assertNotIn("home.fuel", [f["code"] for f in again["findings"]])
        self.assertProblem(self.ada.post(f"/things/{gas['id']}/pin", {"version": 1, "space": "moon"}), 404)
        self.assertProblem(self.eve.get(f"/households/{house.pk}/homes"), 404)

    def test_moving_there(self) -> None:
        house = self.demo()
        homes = self.ada.get(f"/households/{house.pk}/homes").body
        room, home = next((r, h) for r in homes["rooms"] for h in r["homes"] if h["current"])
        self.ada.post(f"/things/{home['id']}/go", {"version": home["version"], "space": room["key"]})
        self.assertEqual(models.Thing.objects.get(pk=home["id"]).space.key, room["key"])  # type: ignore[union-attr]

    def test_the_demo_comes_back_as_it_went(self) -> None:
        house = self.demo()
        text = self.ada.client.get(f"/api/households/{house.pk}/house-file").content
        self.assertIn(b'"stock"', text)
        self.assertIn(b'"work"', text)


class WorkTests(ServerTestCase):
    def test_plan_do_and_drop_a_session(self) -> None:
        space = models.Space.objects.get(pk=self.closet())
        at = f"/households/{space.household_id}/sessions"
        data = {"space": space.key, "goal": "Empty it", "minutes": 60}
        (session,) = self.ada.post(at, data).body["sessions"]
        body = self.ada.put(f"{at}/{session['key']}", {**data, "done": True, "spent": 75}).body
        self.assertEqual((body["planned"], body["spent"]), (0, 75))
        self.assertEqual(self.ada.delete(f"{at}/{session['key']}").body["sessions"], [])
        self.assertProblem(self.ada.delete(f"{at}/{session['key']}"), 404)
        self.assertProblem(self.ada.post(at, {**data, "space": "moon"}), 404)
        self.assertProblem(self.ada.post(at, {**data, "minutes": 0}), 422)
        self.assertProblem(self.eve.get(at), 404)

    def test_what_is_owned_is_offered(self) -> None:
        space = models.Space.objects.get(pk=self.closet("", "30 rolls of tape"))
        at = f"/households/{space.household_id}/owned"
        body = self.ada.post(at, {"name": "Baskets", "count": 3, "size": "320 x 380 x 220"}).body
        self.assertEqual(body["owned"][0]["litres"], "25 litres")
        self.assertIn("Baskets", str(self.ada.get(f"/spaces/{space.pk}/things").body["offers"]))
        self.assertProblem(self.ada.post(at, {"name": "Odd", "size": "320 x 380"}), 422, "width by depth by height")
        self.assertEqual(self.ada.delete(f"{at}/{body['owned'][0]['key']}").body["owned"], [])

    def test_what_a_space_is_for(self) -> None:
        space = models.Space.objects.get(pk=self.closet("width 1800 1800 1800; height 2400; depth 600", "2 mugs"))
        use = {"zones": ["kitchen"], "where": "indoors", "locked": True}
        self.assertEqual(self.ada.put(f"/spaces/{space.pk}/use", {"version": 2, "use": use}).status_code, 200)
        self.assertProblem(self.ada.put(f"/spaces/{space.pk}/use", {"version": 2, "use": use}), 409)
        (room,) = self.ada.get(f"/households/{space.household_id}/homes").body["rooms"]
        self.assertIn("with the kitchen things", room["homes"][0]["why"])

    def test_a_person_may_be_kept_from_things(self) -> None:
        house = self.household()
        data = {"name": "Juna", "stature": "1230", "age": "child", "hand": "left", "pronoun": "her",
                "kept_from": ["poison"]}  # fmt: skip
        (person,) = self.ada.post(f"/households/{house}/people", data).body["people"]
        self.assertEqual((person["hand"], person["kept_from"]), ("left", ["poison"]))
        self.assertProblem(self.ada.post(f"/households/{house}/people", {**data, "kept_from": ["lions"]}), 422)
