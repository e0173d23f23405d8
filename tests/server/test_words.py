"""A house's own words: guessed, put right once, known from then on; and notes as they are pasted."""

from typing import Any

from pinakotheke.core.housefile import load_house

from .base import ServerTestCase

NOTE = """Wardrobe
- 14 shirts, daily
- winter coats (3)
* hats, scarves and gloves

Ada:
  • 2 handbags
  • flumps
1.2 m of shirts"""


class WordTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.home = self.household()
        self.space = self.ada.post(f"/households/{self.home}/spaces", {"name": "Hall"}).body["id"]

    def add(self, line: str) -> list[dict[str, Any]]:
        answer = self.ada.post(f"/spaces/{self.space}/things", {"line": line})
        self.assertEqual(answer.status_code, 201, answer.body)
        return list(answer.body["things"])

    def change(self, row: dict[str, Any], **fields: object) -> dict[str, Any]:
        answer = self.ada.patch(f"/things/{row['id']}", {"version": row["version"], **fields})
        self.assertEqual(answer.status_code, 200, answer.body)
        return dict(answer.body)

    def test_a_guess_is_marked_and_its_other_meanings_offered(self) -> None:
        (row,) = self.add("3 tartan bonnet hats")
        self.assertEqual((row["thing"]["kind"], row["thing"]["unsure"]), ("hat", "kind"))
        self.assertIn("beanie", [k["id"] for k in row["others"]])

    def test_what_was_put_right_once_is_known_from_then_on(self) -> None:
        (row,) = self.add("3 flumps")
        self.assertEqual(row["thing"]["unsure"], "size")
        right = self.change(row, kind="jumper")
        self.assertEqual((right["thing"]["unsure"], right["thing"]["size"], right["others"]), ("", None, []))
        again = self.add("2 flump")[-1]
        self.assertEqual((again["thing"]["kind"], again["thing"]["unsure"]), ("jumper", ""))
        self.assertEqual(self.ada.get(f"/households/{self.home}/words").body["words"][0]["kind_name"], "jumpers")

    def test_a_size_given_once_is_that_of_the_next(self) -> None:
        self.add("2 flumps, 300 x 200 x 150")
        self.assertEqual(self.add("5 flumps")[-1]["thing"]["size"], [300, 200, 150])
        (first, *_) = self.add("1 zonk")[-1:]
        self.change(first, size="400 x 300 x 200")
        self.assertEqual(self.add("4 zonks")[-1]["thing"]["size"], [400, 300, 200])

    def test_a_word_can_be_forgotten(self) -> None:
        (row,) = self.add("3 flumps")
        self.change(row, kind="jumper")
        self.assertEqual(self.eve.delete(f"/households/{self.home}/words?word=flump").status_code, 404)
        self.assertEqual(self.ada.delete(f"/households/{self.home}/words?word=flump").status_code, 204)
        self.assertEqual(self.ada.delete(f"/households/{self.home}/words?word=flump").status_code, 404)
        self.assertEqual(self.add("2 flumps")[-1]["thing"]["unsure"], "size")

    def test_a_guess_that_is_right_is_said_to_be(self) -> None:
        (row,) = self.add("3 tartan bonnet hats")
        self.assertEqual(self.change(row, unsure="")["thing"]["unsure"], "")
        self.assertEqual(self.add("tartan bonnet hat")[-1]["thing"]["unsure"], "")

    def test_a_count_is_no_guess_once_somebody_counted(self) -> None:
        (row,) = self.add("hats")
        self.assertEqual(row["thing"]["unsure"], "count")
        self.assertEqual(self.change(row, count=4)["thing"]["unsure"], "")

    def test_a_size_that_is_none_is_refused_with_the_mend(self) -> None:
        (row,) = self.add("3 flumps")
        answer = self.ada.patch(f"/things/{row['id']}", {"version": row["version"], "size": "large"})
        self.assertEqual(answer.status_code, 422)
        self.assertTrue(answer.body["mend"])

    def test_the_words_go_with_the_house_file(self) -> None:
        (row,) = self.add("3 flumps")
        self.change(row, kind="jumper")
        house = load_house(self.ada.get(f"/households/{self.home}/house-file").content)
        self.assertEqual([(w.word, w.kind) for w in house.words], [("flump", "jumper")])
        came = self.bring(self.ada.get(f"/households/{self.home}/house-file").content)
        self.assertEqual(self.ada.get(f"/households/{came['household']}/words").body["words"][0]["word"], "flump")


class NoteTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.home = self.household()
        self.ada.post(f"/households/{self.home}/people", {"name": "Ada"})
        self.space = self.ada.post(f"/households/{self.home}/spaces", {"name": "Hall"}).body["id"]

    def test_a_note_is_read_and_taken_as_it_was_put_right(self) -> None:
        read = self.ada.post(f"/spaces/{self.space}/things/note/preview", {"text": NOTE}).body["rows"]
        self.assertEqual(
            [(r["thing"]["count"], r["thing"]["kind"], r["thing"]["unsure"]) for r in read],
            [(14, "shirt", ""), (3, "coat-short", ""), (1, "hat", "count"), (1, "scarf", "count"), (1, "gloves", "count"),
             (2, "handbag", ""), (1, "custom", "size"), (43, "shirt", "count")],
        )  # fmt: skip
        self.assertEqual(self.ada.get(f"/spaces/{self.space}/things").body["things"], [])
        things = [r["thing"] for r in read]
        things[2] |= {"count": 5, "unsure": ""}
        things[6] |= {"kind": "jumper", "size": None, "mass": None, "unsure": ""}
        taken = self.ada.post(f"/spaces/{self.space}/things/note", {"things": things})
        self.assertEqual(taken.status_code, 201, taken.body)
        rows = [row["thing"] for row in taken.body["things"]]
        self.assertEqual(len({row["id"] for row in rows}), 8)
        self.assertEqual((rows[2]["count"], rows[6]["kind"]), (5, "jumper"))
        self.assertEqual(self.ada.get(f"/households/{self.home}/words").body["words"][0]["word"], "flump")

    def test_headings_say_whose_or_what_belongs_together(self) -> None:
        read = self.ada.post(f"/spaces/{self.space}/things/note/preview", {"text": "Ada:\n3 hats\n\nTravel:\n2 bags"})
        hats, bags = (row["thing"] for row in read.body["rows"])
        self.assertEqual((hats["owner"], hats["together"]), ("ada", ""))
        self.assertEqual((bags["owner"], bags["together"]), ("", "Travel"))

    def test_a_stranger_s_note_is_not_taken(self) -> None:
        self.assertEqual(self.eve.post(f"/spaces/{self.space}/things/note/preview", {"text": "hats"}).status_code, 404)
        thing = {"id": "t1", "name": "Hats", "kind": "hat", "count": 2, "owner": "nobody"}
        answer = self.ada.post(f"/spaces/{self.space}/things/note", {"things": [thing]})
        self.assertEqual((answer.status_code, answer.body["title"]), (422, "Nobody here is nobody."))
