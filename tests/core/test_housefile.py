"""The house file: it comes back as it went, agrees with its schema, and bad ones are told what is wrong where."""

import json
from pathlib import Path
from typing import Any
from unittest import TestCase

import jsonschema

from pinakotheke.core.errors import HouseFileError
from pinakotheke.core.housefile import MOST_BYTES, House, dump_house, load_house
from pinakotheke.core.layout import History
from pinakotheke.core.layout.edits import MovePart

from .examples import demo_house, wardrobe

SCHEMA = json.loads((Path(__file__).parents[2] / "docs" / "house.schema.json").read_text("utf-8"))


def small(**changes: Any) -> dict[str, Any]:
    """A small valid house as plain data, with changes."""
    house: dict[str, Any] = {
        "format": "pinakotheke-house-1",
        "name": "Attic",
        "spaces": [{"id": "closet", "name": "Closet"}],
        "things": [{"id": "t1", "name": "Shirts", "kind": "shirt", "count": 3, "space": "closet"}],
    }
    return {**house, **changes}


class RoundTripTests(TestCase):
    def test_the_demo_comes_back_as_it_went(self) -> None:
        text = dump_house(demo_house())
        self.assertEqual(dump_house(load_house(text)), text)

    def test_a_house_with_an_edited_design(self) -> None:
        design = wardrobe()
        rail = next(p for p in design.parts if p.role == "rail")
        history = History(base=design).after(MovePart(part=rail.id, steps=-1))
        house = House.model_validate({**small(), "designs": [history.model_dump(mode="json")]})
        again = load_house(dump_house(house))
        self.assertEqual(again, house)
        self.assertEqual(again.designs[0].current, history.current)

    def test_the_files_agree_with_the_schema(self) -> None:
        jsonschema.validate(json.loads(dump_house(demo_house())), SCHEMA)
        jsonschema.validate(small(), SCHEMA)
        with self.assertRaises(jsonschema.ValidationError):
            jsonschema.validate(small(colour="red"), SCHEMA)


class BadFileTests(TestCase):
    def faults(self, data: Any) -> str:
        text = data if isinstance(data, (str, bytes)) else json.dumps(data)
        with self.assertRaises(HouseFileError) as caught:
            load_house(text)
        lines = caught.exception.lines()
        self.assertTrue(lines)
        for line in lines:
            self.assertIn("found ", line)
            self.assertIn("expected ", line)
        return "\n".join(lines)

    def test_what_is_no_json(self) -> None:
        for text in ("", "{", "[1,", b"\xff\xfe\x00", '{"name": NaN}', '{"name": Infinity}', "[" * 100_000):
            with self.subTest(text[:20]):
                self.faults(text)

    def test_what_is_no_house(self) -> None:
        for data in ([], 3, "house", None, {}, {"format": "something-else", "name": "x"}):
            self.faults(data)

    def test_unknown_fields_are_named_with_their_path(self) -> None:
        self.assertIn("colour", self.faults(small(colour="red")))
        self.assertIn("things[0].colour", self.faults(small(things=[{**small()["things"][0], "colour": "red"}])))

    def test_numbers_out_of_all_measure(self) -> None:
        def reading(value: object) -> dict[str, Any]:
            survey = {"readings": [{"id": "r1", "what": "width", "value": value}]}
            return small(spaces=[{"id": "closet", "name": "Closet", "survey": survey}])

        for value in (0, -1, 1e9, 1e308, "wide", None, [], True and "1e400"):
            with self.subTest(value):
                self.assertIn("spaces[0].survey.readings[0].value", self.faults(reading(value)))
        huge = json.dumps(reading(1)).replace('"value": 1', '"value": ' + "9" * 5000)
        self.faults(huge)

    def test_counts_and_references(self) -> None:
        row = small()["things"][0]
        for change, part in (
            ({"count": 0}, "count"),
            ({"count": 10_001}, "count"),
            ({"count": 1.5}, "count"),
            ({"kind": "nonsense"}, "kind"),
            ({"space": "elsewhere"}, "elsewhere"),
            ({"owner": "nobody"}, "nobody"),
            ({"id": "../etc"}, "id"),
        ):
            with self.subTest(change):
                self.assertIn(part, self.faults(small(things=[{**row, **change}])))
        self.assertIn("twice", self.faults(small(things=[row, row])))

    def test_a_file_too_large_is_not_read(self) -> None:
        self.assertIn("at most", self.faults(b" " * (MOST_BYTES + 1)))

    def test_ten_thousand_things_load(self) -> None:
        rows = [{**small()["things"][0], "id": f"t{n}"} for n in range(10_000)]
        self.assertEqual(len(load_house(json.dumps(small(things=rows))).things), 10_000)
