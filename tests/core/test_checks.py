"""Findings against cases worked by hand; every finding has words, a basis and a source."""

from math import cos, hypot, radians
from unittest import TestCase

from pinakotheke.core.checks import SEVERITIES, Finding, check_design, check_survey
from pinakotheke.core.house import HouseRules, Person, SpaceUse
from pinakotheke.core.house.people import reach_zone, shared_zone
from pinakotheke.core.layout import Design, Limits
from pinakotheke.core.layout.edit.commands import AssignGroup
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.survey import envelope, envelopes
from pinakotheke.core.words import remedy, sentence

from .examples import (
    ADULT,
    FOLDED,
    PLAIN,
    TIGHT_FIT,
    WARDROBE,
    demo_house,
    region,
    solved,
    survey,
    survey_of,
    thing,
    wardrobe,
)  # fmt: skip


def findings(design: Design, line: str = PLAIN, things: tuple = WARDROBE, people: tuple = (ADULT,)) -> list[Finding]:
    read = survey(line)
    return list(check_design(design, read, {"A": envelope(read, TIGHT_FIT)}, things, people))


def of(found: list[Finding], code: str) -> list[Finding]:
    return [f for f in found if f.code == code]


class ReachTests(TestCase):
    def test_a_standing_adult(self) -> None:
        # Drillis & Contini (1966): shoulder 0.818 + arm 0.440 − half a hand 0.054 = 1.204 of 1700 mm.
        zone = reach_zone(ADULT)
        self.assertAlmostEqual(zone.high, 2046.8)
        self.assertAlmostEqual(zone.easy_low, 484.5)
        self.assertAlmostEqual(zone.easy_high, 1591.2)
        # Reaching over a shelf 558 mm deep costs half of that.
        self.assertAlmostEqual(reach_zone(ADULT, 558).high, 2046.8 - 279)

    def test_who_sits_on_some_days_is_held_to_the_seated_range(self) -> None:
        # 2010 ADA Standards, 308: unobstructed 15 to 48 in, 380 to 1220 mm.
        for posture in ("seated", "both"):
            zone = reach_zone(ADULT.model_copy(update={"posture": posture}))
            self.assertEqual((zone.low, zone.high), (380, 1220))

    def test_what_belongs_to_the_house_is_for_every_adult(self) -> None:
        small = Person(id="bo", name="Bo", stature=1500)
        child = Person(id="cy", name="Cy", stature=1100, age="child")
        self.assertEqual(shared_zone((ADULT, small, child)).high, reach_zone(small).high)

    def test_daily_things_too_high_are_to_be_fixed_and_seldom_ones_only_minded(self) -> None:
        child = Person(id="cy", name="Cy", stature=800, age="child")
        own = tuple(t.model_copy(update={"owner": "cy"}) for t in WARDROBE)
        found = [f for f in findings(wardrobe(), things=own, people=(child,)) if f.code == "reach.high"]
        self.assertTrue(found)
        for finding in found:
            self.assertGreater(finding.measured, finding.limit)
            often = finding.detail in ("daily", "weekly")
            self.assertEqual(finding.severity, "fix" if often else "mind")
            self.assertEqual(finding.person, "Cy")


class DesignCheckTests(TestCase):
    def test_a_good_design_has_no_stop(self) -> None:
        self.assertFalse([f for f in findings(wardrobe()) if f.severity == "stop"])

    def test_worst_first(self) -> None:
        order = [SEVERITIES.index(f.severity) for f in findings(wardrobe())]
        self.assertEqual(order, sorted(order))

    def test_faults_of_the_verifier_become_stops(self) -> None:
        found = findings(wardrobe(), PLAIN.replace("width 1846 1849 1843", "width 900"))
        self.assertEqual(found[0].severity, "stop")
        self.assertTrue(of(found, "fit.envelope"))

    def test_what_must_never_be_is_told_of_a_hand_edit_as_well(self) -> None:
        design, read = wardrobe(), survey(PLAIN)
        stood = tuple(a.model_copy(update={"way": "shelf"}) if a.thing == "boots" else a for a in design.assignments)
        design = design.model_copy(update={"assignments": stood})
        things = (*WARDROBE[:3], thing("boots", "bleach", 1))
        regions, child = {"A": envelope(read, TIGHT_FIT)}, Person(id="kim", name="Kim", stature=1150, age="child")

        def told(*people: Person, locked: bool = False) -> list[Finding]:
            limits = Limits.in_space(people, read, regions, SpaceUse(locked=locked))
            return of(list(check_design(design, read, regions, things, people, limits=limits)), "safety.limit")

        self.assertEqual(told(ADULT), [])
        self.assertEqual(told(ADULT, child, locked=True), [])
        (found,) = told(ADULT, child)
        self.assertEqual(found.severity, "stop")
        self.assertIn("within the grip of someone it is kept from", sentence(found, "metric"))

    def test_a_frame_that_cannot_be_tilted_up(self) -> None:
        tall = next(d for d in solved(families=("carcase",)).alternatives)
        frame = next(p for p in tall.parts if p.role == "frame")
        ceiling = hypot(frame.h, frame.d) + 10  # the diagonal and the slack to turn in
        low = f"width 1846; height {int(ceiling) - 1}; depth 612; opening 1250 x 2030; nibs 296 300"
        high = f"width 1846; height {int(ceiling) + 2}; depth 612; opening 1250 x 2030; nibs 296 300"
        self.assertTrue(of(findings(tall, low), "carry.tilt"))
        self.assertFalse(of(findings(tall, high), "carry.tilt"))

    def test_a_frame_that_does_not_turn_in_the_passage(self) -> None:
        widest = max(hypot(p.w, p.d) for p in wardrobe().parts if p.role == "frame")
        narrow, enough = (f"{PLAIN}; passage {n}" for n in (int(widest) - 1, int(widest) + 1))
        (finding,) = of(findings(wardrobe(), narrow), "carry.turn")
        self.assertEqual((finding.severity, round(finding.measured)), ("fix", round(widest)))
        self.assertFalse(of(findings(wardrobe(), enough), "carry.turn"))

    def test_tall_units_are_to_be_anchored_and_it_says_so_with_its_source(self) -> None:
        (finding,) = of(findings(wardrobe()), "safety.anchor")
        self.assertIn("F2057", finding.source)
        self.assertIn("wall", remedy(finding))

    def test_a_track_wants_studs(self) -> None:
        track = next(d for d in solved(families=("track",)).alternatives)
        self.assertTrue(of(findings(track), "fixing.studs"))
        self.assertFalse(of(findings(track, PLAIN + "; studs 40 then every 400"), "fixing.studs"))

    def test_as_drilled_takes_anchors_and_only_minds_the_studs(self) -> None:
        track = solved(families=("track",)).alternatives[0]
        for fixing, severity in (("studs-first", "fix"), ("as-drilled", "mind")):
            rules = track.rules.model_copy(update={"fixing": fixing})
            (finding,) = of(findings(track.model_copy(update={"rules": rules})), "fixing.studs")
            self.assertEqual(finding.severity, severity)

    def test_an_overloaded_shelf_sags_too_far(self) -> None:
        design = wardrobe()
        shelf = next(p for p in design.parts if p.role == "shelf")
        for a in design.assignments:
            if a.thing == "jumpers" and a.part != shelf.id:
                send = AssignGroup(thing=a.thing, way=a.way, count=a.count, source=a.part, target=shelf.id)
                design = apply(design, send)
        heavy = tuple(t.model_copy(update={"mass": 60}) if t.id == "jumpers" else t for t in WARDROBE)
        found = findings(design, things=heavy)
        sag = of(found, "strength.sag")
        self.assertTrue(sag and all(f.measured > f.limit for f in sag))
        self.assertTrue(of(found, "strength.rating"))

    def test_every_finding_can_be_said_in_both_units(self) -> None:
        heavy = tuple(t.model_copy(update={"mass": 80}) for t in WARDROBE)
        for finding in findings(wardrobe(), PLAIN.replace("1250", "1190") + "; meter at 50, 900 up, 200 x 300", heavy):
            for units in ("metric", "imperial"):
                said = sentence(finding, units)  # type: ignore[arg-type]
                self.assertTrue(said.endswith((".", ")", "?")), said)
                self.assertNotIn("{", said)
            self.assertTrue(finding.source, finding.code)


class SurveyCheckTests(TestCase):
    def test_missing_doubted_and_cautions(self) -> None:
        doubted = "width 1846; low back width 1846; low back width 1900"
        read = survey(doubted + "; height 2400; depth 600; panel at 50, 900 up, 300 x 500")
        found = list(check_survey(read, {"A": envelope(read, TIGHT_FIT)}))
        self.assertTrue({"survey.missing", "survey.repeat", "clear.caution"} <= {f.code for f in found})

    def test_nothing_wrong_in_a_full_survey(self) -> None:
        self.assertEqual(check_survey(survey(), {"A": region()}), ())


class SurveyTests(TestCase):
    def found(self, kind: str, *lines: str) -> dict[str, Finding]:
        read = survey_of(kind, *lines)
        return {f.code: f for f in check_survey(read, {read.main.id: envelope(read, HouseRules())})}

    def test_a_floor_out_of_level_wants_a_plinth(self) -> None:
        wall = "width 3114 3114 3114; height 2700 2700 2700; floor 0 at 0, {} at 3114"
        self.assertEqual(self.found("wall", wall.format(17))["survey.plinth"].measured, 17)
        self.assertNotIn("survey.plinth", self.found("wall", wall.format(10)))

    def test_a_corner_out_of_square(self) -> None:
        # 600 deep: 5.24 mm at 89.5° is over 5 mm, 4.19 mm at 89.6° is not.
        niche = "width 1800 1800 1800; height 2400 2400 2400; depth 600 600; diagonal right {}"
        for angle, seen in ((89.5, True), (89.6, False)):
            across = (1800**2 + 600**2 - 2 * 1800 * 600 * cos(radians(angle))) ** 0.5
            self.assertEqual("survey.square" in self.found("recess", niche.format(f"{across:.3f}")), seen, angle)

    def test_a_passage_too_narrow(self) -> None:
        room = "A: width 2000; height 2400; B: width {}; height 2400; C: width 2000; height 2400"
        self.assertEqual(self.found("walk-in U", room.format(1750))["clear.passage"].measured, 550)
        self.assertNotIn("clear.passage", self.found("walk-in U", room.format(1800)))

    def test_damp(self) -> None:
        found = self.found("shed", "width 1800; height 2000; damp")
        self.assertIn("cardboard", remedy(found["survey.damp"]))

    def test_every_finding_of_the_demo_is_said_whole(self) -> None:
        said = 0
        for space in demo_house().spaces:
            found = envelopes(space.survey, demo_house().rules)
            for finding in check_survey(space.survey, found) if found else ():
                if finding.code != "clear.caution":  # a published figure is quoted as it is published
                    self.assertNotIn(" mm", sentence(finding, "imperial"), finding.code)
                self.assertGreater(len(sentence(finding, "metric") + remedy(finding)), 30)
                said += 1
        self.assertGreater(said, 20)


class StandingTests(TestCase):
    def test_racks_and_trolleys_can_tip_over_too(self) -> None:
        boxes = (thing("boxes", "box-medium", 6),)
        rack = solved(boxes, "width 1900; height 2400; depth 500; door none", families=("rack",)).alternatives[0]
        (finding,) = of(findings(rack, "width 1900; height 2400; depth 500; door none", boxes), "safety.anchor")
        posts = {p.id for p in rack.parts if p.role == "post"}
        self.assertEqual((set(finding.where), finding.subject), (posts, "Rack"))
        as_trolley = {"role": "trolley", "item": "trolley.trolley", "h": 1100, "d": 350, "w": 300}
        parts = tuple(p.model_copy(update=as_trolley) if p.id in posts else p for p in rack.parts)
        trolley = rack.model_copy(update={"parts": parts})
        (finding,) = of(findings(trolley, "width 1900; height 2400; depth 500; door none", boxes), "safety.anchor")
        self.assertEqual(finding.subject, "Trolley")

    def test_peg_boards_and_cleats_want_studs_as_tracks_do(self) -> None:
        line = "width 1800; height 2400; depth 620; door none"
        hooked = (thing("bags", "rucksack", 4, way="hook"),)
        for family, things in (("pegs", hooked), ("cleat", FOLDED)):
            design = next(d for d in solved(things, line, families=(family,)).alternatives if not d.unplaced)
            found = of(findings(design, line, things), "fixing.studs")
            self.assertTrue(found, family)
            for finding in found:
                parts = [design.part(p) for p in finding.where]
                self.assertEqual({(p.x, p.w) for p in parts}, {(parts[0].x, parts[0].w)})
                self.assertLess(finding.measured, finding.limit)
            self.assertFalse(of(findings(design, line + "; studs 40 then every 300", things), "fixing.studs"), family)
