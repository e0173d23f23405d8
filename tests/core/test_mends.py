"""The questions a design is asked, what was found as a table, and the acts that mend a finding."""

from collections.abc import Iterator
from decimal import Decimal
from io import BytesIO
from unittest import TestCase

from pypdf import PdfReader

from pinakotheke.core.checks import Finding, Memory, check_design, kind_of, kinds, matrix, mended, mends, rules
from pinakotheke.core.checks.check import Case, of_section
from pinakotheke.core.drawing import Asked, Said, check_report
from pinakotheke.core.house import HouseLimits, HouseRules, Person
from pinakotheke.core.layout import Design, History, apply
from pinakotheke.core.layout.edit.commands import AssignGroup, MakeShelf, MovePart, SetFinish
from pinakotheke.core.materials import bill
from pinakotheke.core.mechanics.shelves import ShelfMake
from pinakotheke.core.survey import envelope
from pinakotheke.core.words import act_in_words, remedy

from .examples import ADULT, PLAIN, TIGHT_FIT, WARDROBE, survey, wardrobe

READ = survey(PLAIN)
NAMES = {t.id: t.name for t in WARDROBE}
SHORT = Person(id="mo", name="Mo", stature=1150, age="child")
THEIRS = tuple(t.model_copy(update={"owner": "mo"}) for t in WARDROBE)


def too_high() -> Design:
    """The wardrobe with its jumpers over a child's reach."""
    design = wardrobe()
    shelf = next(p for p in design.parts if any(a.thing == "jumpers" for a in design.held_by(p.id)))
    while not all_of("reach.high", found(design, (SHORT,))):
        design = apply(design, MovePart(part=shelf.id, steps=1))
    return design


def found(design: Design, people: tuple[Person, ...] = (ADULT,)) -> tuple[Finding, ...]:
    """Of an adult's things; or all is a child's."""
    things = WARDROBE if people == (ADULT,) else THEIRS
    return check_design(design, READ, {"A": envelope(READ, TIGHT_FIT)}, things, people)


def price(design: Design) -> Decimal:
    return bill(design).total


def all_of(code: str, things: tuple[Finding, ...]) -> list[Finding]:
    return [f for f in things if f.code == code]


class MatrixTests(TestCase):
    def test_every_code_answers_one_question(self) -> None:
        for code in rules():
            self.assertEqual(sum(code.partition(".")[0] in kind.of for kind in kinds()), 1, code)
            self.assertIn(kind_of(code), kinds())
        with self.assertRaises(KeyError):
            kind_of("nothing.such")

    def test_every_finding_stands_where_its_part_is(self) -> None:
        design, findings = too_high(), found(too_high(), (SHORT,))
        rows = matrix(design, findings)
        self.assertEqual([row.bay for row in rows], [*(b.index for b in design.bays), None])
        shown = {n for row in rows for numbers in row.found.values() for n in numbers}
        self.assertEqual(shown, set(range(len(findings))))
        bay_of = {p.id: p.bay for p in design.parts}
        for row in rows:
            for kind, numbers in row.found.items():
                for n in numbers:
                    self.assertEqual(kind_of(findings[n].code).id, kind)
                    if row.bay is None:
                        self.assertTrue({bay_of.get(id_) for id_ in findings[n].where} <= {None})

    def test_what_was_not_read_is_not_known_rather_than_wrong(self) -> None:
        unread = survey(PLAIN.split("; studs")[0])
        findings = check_design(wardrobe(), unread, {"A": envelope(unread, TIGHT_FIT)}, WARDROBE, (ADULT,))
        self.assertTrue(all(f.unknown for f in findings if f.code in ("survey.missing", "survey.level")))
        self.assertFalse(any(f.unknown for f in findings if f.code.startswith(("fit.", "strength."))))


class MendTests(TestCase):
    def test_each_act_takes_the_finding_away_and_brings_nothing_to_fix(self) -> None:
        design = too_high()
        findings = found(design, (SHORT,))
        high = all_of("reach.high", findings)
        self.assertTrue(high)
        offered = 0
        for finding in high:
            for mend in mends(design, finding, THEIRS, lambda d: found(d, (SHORT,)), price):
                offered += 1
                after = found(apply(design, mend.command), (SHORT,))
                self.assertNotIn((finding.where, finding.subject), [(f.where, f.subject) for f in
                                                                    all_of("reach.high", after)])  # fmt: skip
                for severity in ("stop", "fix"):
                    self.assertLessEqual(sum(f.severity == severity for f in after),
                                         sum(f.severity == severity for f in findings))  # fmt: skip
                said = act_in_words(mend.command, design, NAMES, "metric")
                self.assertRegex(said, r"^(Move|Send) .*\d mm\.$")
        self.assertGreater(offered, 0)

    def test_what_breaks_a_rating_is_lightened(self) -> None:
        design = wardrobe()
        shelves = [p for p in design.parts if p.role == "shelf"]
        heavy = tuple(t.model_copy(update={"mass": 9.0}) if t.id == "jumpers" else t for t in WARDROBE)

        def judged(one: Design) -> tuple[Finding, ...]:
            return check_design(one, READ, {"A": envelope(READ, TIGHT_FIT)}, heavy, (ADULT,))

        over = [f for f in judged(design) if f.code in ("strength.rating", "strength.sag")]
        self.assertTrue(shelves)
        for finding in over:
            for mend in mends(design, finding, heavy, judged, price):
                self.assertIsInstance(mend.command, (AssignGroup, MakeShelf))
                self.assertLess(
                    len([f for f in judged(apply(design, mend.command)) if f.code == finding.code]), len(over)
                )

    def test_a_shelf_that_sags_is_made_of_the_cheapest_board_that_does(self) -> None:
        heavy = tuple(t.model_copy(update={"mass": 3.6}) if t.id == "jumpers" else t for t in WARDROBE)
        strict = HouseRules(limits=HouseLimits(shelves=ShelfMake(shows=300)))

        def judged(one: Design) -> tuple[Finding, ...]:
            return check_design(one, READ, {"A": envelope(READ, TIGHT_FIT)}, heavy, (ADULT,), house=strict)

        (sagging,) = all_of("strength.sag", judged(wardrobe()))
        self.assertIn("of the same board", remedy(sagging))
        made = [m for m in mends(wardrobe(), sagging, heavy, judged, price) if isinstance(m.command, MakeShelf)]
        costs = [price(apply(wardrobe(), m.command)) for m in made]
        self.assertTrue(made)
        self.assertEqual(costs, sorted(costs))
        thicker = apply(wardrobe(), made[0].command)
        self.assertGreater(costs[0], price(wardrobe()))
        self.assertFalse(all_of("strength.sag", judged(thicker)))
        # The next search and every other edit leave it what it is.
        again = apply(thicker, SetFinish(finish=thicker.finish.model_copy(update={"crown": True})))
        shelf = next(p for p in again.parts if p.id == sagging.where[0])
        self.assertEqual((shelf.make, shelf.h), (made[0].command.make, made[0].command.make.thickness))

    def test_what_an_act_took_away_is_told_until_it_is_undone(self) -> None:
        before = History(base=too_high())
        high = all_of("reach.high", found(before.current, (SHORT,)))[0]
        act = mends(before.current, high, THEIRS, lambda d: found(d, (SHORT,)), price)[0].command
        after = before.after(act)
        (done,) = mended(after, lambda d: found(d, (SHORT,)), 8)
        self.assertEqual(done.command, act)
        self.assertIn(high.subject, [f.subject for f in done.mends])
        self.assertEqual(mended(after.undo(), lambda d: found(d, (SHORT,)), 8), [])

    def test_only_the_wall_that_was_touched_is_judged_again(self) -> None:
        asked: list[str] = []

        @of_section("reach.high")
        def counting(case: Case) -> Iterator[Finding]:
            asked.append(case.made.parts[0].section)
            return iter(())

        design = wardrobe()
        both = design.model_copy(update={
            "parts": (*design.parts, *(p.model_copy(update={"id": f"B{p.id}", "section": "B"}) for p in design.parts)),
            "bays": (*design.bays, *(b.model_copy(update={"index": b.index + 2, "section": "B"}) for b in design.bays)),
        })  # fmt: skip
        memory, regions = Memory(), {"A": envelope(READ, TIGHT_FIT), "B": envelope(READ, TIGHT_FIT)}
        people = (ADULT,)
        for one in (both, both, apply(both, MovePart(part="b2-shelf-5", steps=1))):
            check_design(one, READ, regions, WARDROBE, people, checks=(counting,), memory=memory)
        self.assertEqual(asked, ["A", "B", "A"])

    def test_what_takes_a_reading_is_offered_no_act(self) -> None:
        design = wardrobe()
        for finding in found(design):
            if finding.code.startswith(("survey.", "fixing.", "safety.anchor")):
                self.assertEqual(mends(design, finding, WARDROBE, found, price), [])


class ReportTests(TestCase):
    def test_the_report_says_every_question_every_finding_and_who_decides(self) -> None:
        findings = found(too_high(), (SHORT,))
        asked = [
            Asked(name=k.name, asks=k.asks, found=tuple(
                Said(severity=f.severity, sentence=f"finding {n} <of> & {f.code}", remedy="Mend it.", source=f.source,
                     unknown=f.unknown)
                for n, f in enumerate(findings) if kind_of(f.code) == k
            ))
            for k in kinds()
        ]  # fmt: skip
        for units in ("metric", "imperial"):
            pages = PdfReader(BytesIO(check_report("Closet", "Cheapest", "2026-11-27", ["Reckoned."], asked, "Local codes",
                                                   units))).pages  # type: ignore[arg-type]  # fmt: skip
            text = " ".join(" ".join(p.extract_text() for p in pages).split())
            for k in kinds():
                self.assertIn(k.asks, text)
            for n, f in enumerate(findings):
                self.assertIn(f"finding {n} <of> & {f.code}", text)
            self.assertIn("it never permits. Local codes", text)
            width = float(pages[0].mediabox.width)
            self.assertAlmostEqual(width, 595.3 if units == "metric" else 612, places=0)
