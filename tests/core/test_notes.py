"""Pasted notes: twenty of 10 to 60 lines, in the shapes that people write, dictate and copy them."""

from collections.abc import Callable
from random import Random
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from pinakotheke.core.inventory.parse import note_lines, read_note

from .test_natural_lines import PEOPLE, is_meant, lines_of

SHAPES: dict[str, Callable[[list[str]], str]] = {
    "one a line": "\n".join,
    "with empty lines": "\n\n".join,
    "dashes": lambda rows: "\n".join(f"- {row}" for row in rows),
    "stars": lambda rows: "\n".join(f"* {row}" for row in rows),
    "dots": lambda rows: "\n".join(f"  • {row}" for row in rows),
    "numbered": lambda rows: "\n".join(f"{n}. {row}" for n, row in enumerate(rows, 1)),
    "numbered in brackets": lambda rows: "\n".join(f"{n}) {row}" for n, row in enumerate(rows, 1)),
    "boxes to tick": lambda rows: "\n".join(f"[{'x' if n % 3 else ' '}] {row}" for n, row in enumerate(rows)),
    "ticks": lambda rows: "\n".join(f"☐ {row}" for row in rows),
    "full stops": lambda rows: "\n".join(f"{row}." for row in rows),
    "semicolons": "; ".join,
    "semicolons and lines": lambda rows: ";\n".join(rows),
    "windows": "\r\n".join,
    "deep": lambda rows: "\n".join("    " * (n % 3) + f"- {row}" for n, row in enumerate(rows)),
    "a title": lambda rows: "# Wardrobe\n" + "\n".join(f"- {row}" for row in rows),
    "a heading": lambda rows: "Wardrobe:\n" + "\n".join(rows),
    "headings": lambda rows: "\n\n".join(f"Box {chr(65 + n)}:\n{row}" for n, row in enumerate(rows[:20])),
    "capitals": lambda rows: "\n".join(row[:1].upper() + row[1:] for row in rows),
    "commas at the end": lambda rows: "\n".join(f"{row}," for row in rows),
    "no end": lambda rows: "  \n \n".join(rows) + "\n\n\n",
}


class NoteTests(TestCase):
    def test_twenty_notes(self) -> None:
        said = lines_of("said.txt")
        self.assertEqual(len(SHAPES), 20)
        wrong: list[str] = []
        total = 0
        for n, (shape, write) in enumerate(SHAPES.items()):
            rows = Random(n).sample(said, 10 + 50 * n // 19)
            rows = rows[:20] if shape == "headings" else rows
            got = [row.thing for row in read_note(write([line for line, _ in rows]), PEOPLE, "metric")]
            wanted = [one for _, means in rows for one in means.split(" + ")]
            total += len(wanted)
            if len(got) != len(wanted):
                wrong.append(f"{shape}: {len(got)} things for {len(wanted)}")
            wrong += [
                f"{shape}: {thing.name} {thing.count} {thing.kind}, meant {means}"
                for thing, means in zip(got, wanted, strict=False)
                if "together" not in means and not is_meant(thing, means)
            ]
        self.assertLessEqual(len(wrong) / total, 0.03, "\n".join(wrong[:20]))

    def test_a_dictated_sentence(self) -> None:
        got = read_note("14 shirts, 3 coats and two hats. A dozen towels, his golf clubs", PEOPLE, "metric")
        self.assertEqual([(r.thing.count, r.thing.kind) for r in got],
                         [(14, "shirt"), (3, "coat-short"), (2, "hat"), (12, "towel"), (1, "golf-bag")])  # fmt: skip
        self.assertEqual(got[-1].thing.owner, "bruno")

    def test_what_stands_above_is_whose_or_belongs_together(self) -> None:
        rows = read_note("Ada\n- hats\n- scarves\n\nTravel: 2 rucksacks, 1 tent", PEOPLE, "metric")
        self.assertEqual([(r.thing.owner, r.thing.together) for r in rows],
                         [("ada", ""), ("ada", ""), ("", "Travel"), ("", "Travel")])  # fmt: skip

    @given(st.text(max_size=400))
    def test_any_text_is_read_without_breaking(self, text: str) -> None:
        rows = read_note(text, PEOPLE, "metric")
        self.assertEqual(len({r.thing.id for r in rows}), len(rows))
        self.assertLessEqual(len(note_lines(text)), 400)
