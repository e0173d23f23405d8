"""What is tried before anything is drilled, and what is not as drawn: by hand sums, by shapely, by the proof."""

from datetime import date, timedelta
from itertools import pairwise
from math import ceil, floor
from unittest import TestCase

from shapely import LineString, Point

from pinakotheke.core.errors import Refusal
from pinakotheke.core.install import (
    InstallChoice,
    drilling_map,
    faults_of_schedule,
    level_line,
    order_of_work,
    schedule,
)
from pinakotheke.core.install.amiss import cut_anew, hole_strayed, holes_changed, short_part, wall_bows
from pinakotheke.core.install.choice import Strayed
from pinakotheke.core.install.holes import packing
from pinakotheke.core.install.trial import trial_rooms
from pinakotheke.core.layout import verify
from pinakotheke.core.survey import Reading
from pinakotheke.core.words.installing import hole_in_words, step_facts, step_in_words
from pinakotheke.core.words.not_as_drawn import changed_in_words, short_in_words

from .examples import PLAIN, WARDROBE, hung, wardrobe
from .test_install import CHOICE, MONDAY, STUDS, case_of, cleated

RUN = 1843


class TrialTests(TestCase):
    def test_a_height_goes_as_far_as_the_proof_lets_it(self) -> None:
        """Moved so far there is still headroom; a millimetre further there is not."""
        tried = 0
        for design in (hung(), wardrobe(), cleated()):
            case = case_of(design, f"{PLAIN}; {STUDS}")
            for room in trial_rooms(case):
                part, up = case.parts[room.mark.part], room.up if not room.reaches else None
                for far, way in ((up, 1), (room.down, -1)):
                    if far is None or far < 0:
                        continue
                    tried += 1
                    for by, holds in ((floor(far), True), (ceil(far) + 1, False)):
                        moved = part.model_copy(update={"z": part.z + way * by})
                        parts = tuple(moved if p.id == part.id else p for p in design.parts)
                        found = verify(design.model_copy(update={"parts": parts}), case.envelopes, WARDROBE)
                        self.assertEqual(
                            not any(f.code == "headroom" for f in found), holds, (part.id, way * by, found)
                        )
        self.assertGreater(tried, 4)

    def test_it_is_said_by_how_much_to_change(self) -> None:
        design = hung()
        case = case_of(design, f"{PLAIN}; {STUDS}")
        choice = CHOICE.model_copy(update={"waits_at": "on the bed"})
        line = level_line(case.survey, case.survey.main, RUN, 2408)
        facts = step_facts(case, choice, {case.survey.main.id: line}, "the closet", "metric", {})
        told = {s.turn: step_in_words(s, case, facts, "metric") for s in order_of_work(case, choice)}
        self.assertTrue(any("higher before" in line or "lower before" in line for line in told["trial"][1]))
        self.assertIn("on the bed", " ".join(told["empty"][1]))


class BowTests(TestCase):
    def bowed(self, bow: float):  # type: ignore[no-untyped-def]
        case = case_of(hung(), f"{PLAIN}; {STUDS}")
        reading = Reading(id="b1", what="bow", side="middle", value=bow, section=case.survey.main.id)
        survey = wall_bows(wall_bows(case.survey, reading.model_copy(update={"value": 99.0})), reading)
        self.assertEqual([r.value for r in survey.readings if r.what == "bow"], [bow])
        before = drilling_map(case, case.survey.main, RUN, 2408)
        after = drilling_map(case_of(hung(), f"{PLAIN}; {STUDS}; bow {bow:g}"), survey.main, RUN, 2408)
        return case, before, after

    def test_packing_by_hand_and_by_a_line_of_shapely(self) -> None:
        part = next(p for p in hung().parts if p.role == "track").model_copy(update={"x": 0, "w": 1600})
        # 4 · 8 · 400 · 1200 / 1600² = 6 of 8 mm at a quarter: there a straight part stands 2 mm off.
        self.assertAlmostEqual(packing(8, 1600, part, 400), 2)
        self.assertEqual(packing(8, 1600, part, 800), 0)
        self.assertAlmostEqual(packing(-8, 1600, part, 800), 8)
        for bow in (-9.0, 7.0):
            wall = LineString([(x, 4 * bow * x * (RUN - x) / RUN**2) for x in range(RUN + 1)])
            for x, w in ((0, 1843), (100, 700), (900, 900)):
                one = part.model_copy(update={"x": x, "w": w})
                over = wall.intersection(LineString([(x, -50), (x, 50), (x + w, 50), (x + w, -50)]).convex_hull)
                straight = over.bounds[3]
                for at in range(x + 40, x + w - 40, 90):
                    gap = Point(at, straight).distance(wall.intersection(LineString([(at, -50), (at, 50)])))
                    self.assertAlmostEqual(packing(bow, RUN, one, at), gap if gap >= 1 else 0, delta=0.05)

    def test_a_map_of_a_wall_that_bows_is_packed_with_longer_screws(self) -> None:
        case, before, after = self.bowed(8)
        track = next(p for p in hung().parts if p.role == "track")
        for was, now in zip(before.holes, after.holes, strict=True):
            self.assertEqual((was.along, was.height), (now.along, now.height))
            wanted = packing(8, RUN, track, now.along) if now.part == track.id else 0
            self.assertAlmostEqual(now.packing, wanted)
            self.assertAlmostEqual(now.depth - was.depth, wanted)
        (changed,) = holes_changed(before, after, ())
        self.assertEqual((changed.part, changed.elsewhere, changed.otherwise), (track.id, 0, 0))
        self.assertIn("packed out, with longer screws", changed_in_words(case, [changed]))
        self.assertIn("packed out by", hole_in_words(next(h for h in after.holes if h.packing), "metric"))
        self.assertEqual(holes_changed(before, after, {track.id}), ())


class StrayedTests(TestCase):
    def test_the_next_hole_keeps_away_from_one_that_strayed(self) -> None:
        case = case_of(hung(), f"{PLAIN}; {STUDS}")
        before = drilling_map(case, case.survey.main, RUN, 2408)
        hole = next(h for h in before.holes if h.into == "stud")
        self.assertEqual(hole_strayed(CHOICE, before, hole.number, 2, "left"), (hole, CHOICE))
        _, choice = hole_strayed(CHOICE, before, hole.number, 4, "right")
        (strayed,) = choice.strayed
        self.assertEqual((strayed.along, strayed.height), (hole.along + 4, hole.height))
        after = drilling_map(case, case.survey.main, RUN, 2408, choice.strayed)
        now = next(h for h in after.holes if h.number == hole.number)
        self.assertEqual((now.into, now.stud, now.refused), ("stud", hole.stud, False))
        self.assertGreaterEqual(abs(now.along - strayed.along), 10)
        self.assertLessEqual(abs(now.along - hole.along), 38 / 2 - 8)
        self.assertEqual([h for h in after.holes if h.number != hole.number],
                         [h for h in before.holes if h.number != hole.number])  # fmt: skip

    def test_where_a_hole_cannot_move_the_strayed_one_is_filled(self) -> None:
        case = case_of(hung(), f"{PLAIN}; {STUDS}")
        before = drilling_map(case, case.survey.main, RUN, 2408)
        upright = next(h for h in before.holes if case.parts[h.part].role == "standard")
        there = Strayed(section=before.section, along=upright.along + 4, height=upright.height)
        now = next(
            h for h in drilling_map(case, case.survey.main, RUN, 2408, [there]).holes if h.number == upright.number
        )
        self.assertEqual((now.along, now.refused), (upright.along, False))
        self.assertIn("glued dowel", hole_in_words(now, "metric"))

    def test_what_is_no_hole_or_goes_nowhere_is_refused(self) -> None:
        case = case_of(hung(), f"{PLAIN}; {STUDS}")
        found = drilling_map(case, case.survey.main, RUN, 2408)
        with self.assertRaisesRegex(Refusal, "no hole 900"):
            hole_strayed(CHOICE, found, 900, 9, "left")
        with self.assertRaisesRegex(Refusal, "Which way"):
            hole_strayed(CHOICE, found, 1, 9, "")


class ShortTests(TestCase):
    def test_short_boards_are_used_centred_or_cut_anew(self) -> None:
        design = cleated()
        case = case_of(design, f"{PLAIN}; {STUDS}")
        board = next(
            p for p in design.parts if p.role == "shelf" and sum(c.belongs_to == p.id for c in design.parts) > 1
        )
        under = sorted((p for p in design.parts if p.belongs_to == board.id), key=lambda p: p.x)
        self.assertEqual(short_part(design, board, 2), ("use", 0))
        ends = [p for p in under if p.d > p.w]
        verdict, bears = short_part(design, board, 6)
        self.assertEqual(verdict, "centre")
        self.assertAlmostEqual(bears, min(ends[0].x + ends[0].w - board.x, board.x + board.w - ends[-1].x) - 3)
        verdict, _ = short_part(design, board, 60)
        self.assertEqual(verdict, "anew")
        said = short_in_words(case, board, 60, "anew", 0, date(2026, 3, 9), "imperial")
        self.assertIn("wait until Monday, 9 March", said)
        self.assertIn('2 3/8" short', said)

    def test_the_step_of_a_part_cut_anew_waits_for_it_and_so_does_what_hangs_on_it(self) -> None:
        case = case_of(hung(), f"{PLAIN}; {STUDS}")
        steps = order_of_work(case, CHOICE)
        hang = next(s for s in steps if s.turn == "hang")
        choice = cut_anew(CHOICE, hang.parts[0], MONDAY, None)
        self.assertEqual(choice.again[0].there, MONDAY + timedelta(days=7))
        choice = cut_anew(choice, hang.parts[0], MONDAY, date(2026, 3, 14))
        self.assertEqual(len(choice.again), 1)
        times = schedule(steps, choice, 1.0)
        self.assertEqual(faults_of_schedule(steps, times.booked, choice), ())
        starts = {b.step: b.start for b in times.booked}
        day = 12 * 24 * 60
        waiting = {hang.id}
        for step in steps:
            if waiting & set(step.after):
                waiting.add(step.id)
        self.assertTrue(all(starts[name] >= day for name in waiting))
        self.assertTrue(any(starts[s.id] < day for s in steps))
        early = [b.model_copy(update={"start": b.start - day, "end": b.end - day}) for b in times.booked]
        self.assertIn(f"anew: {hang.id}", faults_of_schedule(steps, early, choice))
        self.assertEqual(InstallChoice.model_validate(choice.model_dump(mode="json")), choice)
        self.assertTrue(all(a <= b for a, b in pairwise(sorted(starts.values()))))
