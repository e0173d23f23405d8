"""The house file: it comes back as it went, agrees with its schema, and bad ones are told what is wrong where."""

import json
import tracemalloc
from pathlib import Path
from typing import Any
from unittest import TestCase

import jsonschema

from pinakotheke.core.errors import HouseFileError
from pinakotheke.core.housefile import MOST_BYTES, House, dump_house, load_house
from pinakotheke.core.layout import History
from pinakotheke.core.layout.edit.commands import LockBay, MovePart
from pinakotheke.core.layout.edit.edits import MOST_EDITS

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


class ReplayTests(TestCase):
    """A house file whose design cannot be carried out is refused with the path."""

    def house(self, **changes: Any) -> dict[str, Any]:
        history = History(base=wardrobe()).model_dump(mode="json")
        return small(designs=[{**history, **changes}])

    def refused(self, data: dict[str, Any]) -> tuple[tuple[str, str, str], ...]:
        with self.assertRaises(HouseFileError) as caught:
            load_house(json.dumps(data))
        return caught.exception.faults

    def test_what_is_sound_loads(self) -> None:
        self.assertEqual(len(load_house(json.dumps(self.house())).designs), 1)

    def test_an_assignment_to_a_part_that_is_not_there(self) -> None:
        base = wardrobe().model_dump(mode="json")
        base["assignments"][0]["part"] = "b9-shelf-9"
        ((path, found, _),) = self.refused(self.house(base=base))
        self.assertEqual((path, found), ("designs[0].base.assignments[0].part", "b9-shelf-9"))

    def test_a_role_its_family_lacks_a_bay_and_a_carrier_that_are_not_there(self) -> None:
        for change, field in (
            ({"role": "platform"}, "role"), ({"bay": 99}, "bay"), ({"bay": None}, "bay"),
            ({"fixed_to": {"part": "nothing"}}, "fixed_to"), ({"item": "wicker.shelf"}, "item"),
        ):  # fmt: skip
            base = wardrobe().model_dump(mode="json")
            n = next(n for n, p in enumerate(base["parts"]) if p["role"] == "shelf")
            base["parts"][n].update(change)
            faults = self.refused(self.house(base=base))
            self.assertIn(f"designs[0].base.parts[{n}].{field}", [path for path, *_ in faults], change)

    def test_a_command_that_refuses(self) -> None:
        ((path, found, expected),) = self.refused(self.house(done=[{"do": "move", "part": "nothing", "steps": 1}]))
        self.assertEqual((path, found), ("designs[0].done[0]", "move"))
        self.assertIn("There is no part", expected)

    def test_undone_is_bounded_as_done_is(self) -> None:
        step = {"do": "lock bay", "bay": 0, "locked": True}
        for name in ("done", "undone"):
            ((path, *_),) = self.refused(self.house(**{name: [step] * (MOST_EDITS + 1)}))
            self.assertEqual(path, f"designs[0].{name}")

    def test_a_named_version_stays_one(self) -> None:
        house = load_house(json.dumps(self.house(kept=True)))
        self.assertTrue(load_house(dump_house(house)).designs[0].kept)
        edited = house.designs[0].after(LockBay(bay=0)).undo().redo()
        self.assertTrue(edited.kept)


class LimitTests(TestCase):
    """Lengths are looked at before what is in the lists, and reading ends after a hundred faults."""

    def faults(self, data: Any) -> tuple[tuple[str, str, str], ...]:
        with self.assertRaises(HouseFileError) as caught:
            load_house(json.dumps(data))
        return caught.exception.faults

    def test_a_million_empty_objects_are_one_fault_and_no_work(self) -> None:
        survey = {"readings": [{}] * 1_000_000}
        for data, path in (
            (small(things=[{}] * 1_000_000), "things"),
            (small(spaces=[{"id": "c", "name": "C", "survey": survey}]), "spaces[0].survey.readings"),
        ):
            tracemalloc.start()
            ((got, _, expected),) = self.faults(data)
            peak = tracemalloc.get_traced_memory()[1]
            tracemalloc.stop()
            self.assertEqual(got, path)
            self.assertIn("at most", expected)
            self.assertLess(peak, 400e6, "a fault a row took two gigabytes; what is left is the JSON itself")

    def test_it_stops_after_a_hundred_faults(self) -> None:
        self.assertEqual(len(self.faults(small(things=[{}] * 20_000))), 100)
        history = History(base=wardrobe()).model_dump(mode="json")
        history["base"]["parts"] = [{}] * 4000
        self.assertEqual(len(self.faults(small(designs=[history] * 3))), 100)
