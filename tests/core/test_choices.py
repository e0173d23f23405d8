"""What a search offers beside its answer, any edits of whole rows, findings about doors, and the command line's face."""

import json
from decimal import Decimal
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from pinakotheke.core.checks import check_design
from pinakotheke.core.errors import Cancelled, EditRefused
from pinakotheke.core.housefile import House, Space, dump_house, load_house
from pinakotheke.core.layout import Design, History, Relaxation, Task, Watch, Weights, verify
from pinakotheke.core.layout.edit.commands import (
    AddPart,
    CopyBay,
    LockBay,
    MirrorRow,
    RemovePart,
    ReshapeRow,
    SetFinish,
    SwapFamily,
    SwapPart,
    WidenBay,
)
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.layout.goals import REASONS, SEARCHED, TITLES, WEIGHTS
from pinakotheke.core.layout.models import Standing
from pinakotheke.core.layout.packing.arrays import Scale
from pinakotheke.core.layout.placement.candidates import Candidate
from pinakotheke.core.layout.placement.pool import candidates
from pinakotheke.core.layout.report.costing import cost_of
from pinakotheke.core.layout.report.merits import room_of
from pinakotheke.core.survey import envelopes
from pinakotheke.core.systems import Finish
from pinakotheke.core.words import remedy, sentence

from .examples import ADULT, FOLDED, WARDROBE, demo_house, hung, regions, solved, survey, wardrobe
from .test_cli import DEMO, run

STRUCTURE = frozenset({"envelope", "overlap", "support", "unknown", "count"})
PARTS = frozenset({"frame", "plinth", "legs", "crown", "light", "door", "curtain", "track", "standard", "filler"})


class AnyRowEditTests(TestCase):
    """Rows may be stood anew in any order: what stands always stands, and no piece is lost."""

    @settings(max_examples=40, deadline=None)
    @given(st.data())
    def test_any_edits_of_rows_keep_every_piece_and_stand(self, data: st.DataObject) -> None:
        base, things = data.draw(st.sampled_from([(wardrobe(), WARDROBE), (hung(), FOLDED)]))
        bay = st.integers(0, len(base.bays) - 1)
        step = st.sampled_from([-1, 1])
        commands = st.one_of(
            st.builds(MirrorRow, bay=bay),
            st.builds(WidenBay, bay=bay, steps=step),
            st.builds(ReshapeRow, bay=bay, taller=step),
            st.builds(ReshapeRow, bay=bay, deeper=step),
            st.builds(CopyBay, bay=bay, onto=bay),
            st.builds(LockBay, bay=bay, locked=st.booleans()),
            st.builds(SwapFamily, bay=bay, family=st.sampled_from(["carcase", "track", "rack", "cleat"])),
            st.builds(SetFinish, finish=st.builds(Finish, doors=st.sampled_from(["none", "hinged", "sliding"]),
                                                  lights=st.booleans(), base=st.sampled_from(["plinth", "legs"]))),
            st.builds(AddPart, role=st.sampled_from(["shelf", "rail", "hooks"]), bay=bay, z=st.integers(0, 2200)),
        )  # fmt: skip
        history = History(base=base)
        for command in data.draw(st.lists(commands, min_size=1, max_size=5)):
            try:
                history = history.after(command)
            except EditRefused as refused:
                self.assertTrue(refused.problem and refused.mend)
        design = history.current
        self.assertEqual([s.first for s in design.rows], [0, *(s.end for s in design.rows[:-1])])
        for fault in verify(design, regions(), things):
            part = next((p for p in design.parts if p.id == fault.where), None)
            # Hand edits may crowd what is inside a bay; frames, standards and doors never stand where they may not.
            self.assertFalse(fault.code in STRUCTURE and (part is None or part.role in PARTS), fault)
        for _ in history.done:
            history = history.undo()
        self.assertEqual(history.current, base)


class WeightTests(TestCase):
    def test_every_goal_has_weights_a_title_and_a_reason(self) -> None:
        self.assertLessEqual(set(WEIGHTS), set(TITLES) & set(REASONS))
        self.assertTrue(set(SEARCHED) <= set(WEIGHTS))
        self.assertEqual(len(set(TITLES.values())), len(TITLES))

    def test_points_grow_with_the_weight_and_five_is_one_point_for_a_unit_of_money(self) -> None:
        self.assertEqual(Scale.of(Weights(money=5)).money, 1)
        one, two = Scale.of(Weights(money=2, reach=3, parts=1)), Scale.of(Weights(money=4, reach=6, parts=2))
        for field in ("money", "reach", "part"):
            self.assertAlmostEqual(getattr(two, field), 2 * getattr(one, field))
        nothing = Scale.of(Weights(money=0, room=0, reach=0, parts=0, hours=0, reuse=0))
        self.assertEqual(
            (nothing.money, nothing.front, nothing.reach, nothing.part, nothing.hour, nothing.reuse), (0,) * 6
        )


class MeasureTests(TestCase):
    def test_cost_counts_every_part_and_a_part_less_costs_less(self) -> None:
        design = wardrobe()
        drawer = next(p for p in design.parts if p.role == "drawer")
        less = apply(design, RemovePart(part=drawer.id))
        family = design.family_of(drawer)
        self.assertEqual(cost_of(design).total - cost_of(less).total, family.price(drawer))

    def test_room_is_the_empty_share_by_front(self) -> None:
        design, names = wardrobe(), {t.id: t for t in WARDROBE}
        full = room_of(design, names)
        self.assertTrue(0 < full < 1)
        empty = design.model_copy(update={"assignments": ()})
        self.assertAlmostEqual(room_of(empty, names), 1)
        rail = next(p for p in design.parts if p.role == "rail")
        self.assertGreater(room_of(apply(design, RemovePart(part=rail.id)), names), 0)

    def test_only_what_a_rule_can_change_is_carried_out(self) -> None:
        self.assertFalse(Relaxation(kind="size", value=40).applies)
        self.assertTrue(Relaxation(kind="reserve", value=0.1).applies)


class SlidingDoorTests(TestCase):
    def test_a_pull_out_across_the_meeting_line_is_found(self) -> None:
        design = solved(families=("carcase",), finish=Finish(doors="sliding")).alternatives[0]
        leaves = [p for p in design.parts if p.role == "door"]
        if len(leaves) < 2:
            self.skipTest("too narrow for sliding doors")
        line = (leaves[0].x + leaves[0].w + leaves[1].x) / 2
        bay = next(b for b in design.bays if b.x < line < b.x + b.w) if any(
            b.x < line < b.x + b.w for b in design.bays) else None  # fmt: skip
        if bay is None:
            self.skipTest("the doors meet at a side")
        shelf = next(p for p in design.parts if p.bay == bay.index and p.role in ("shelf", "base"))
        tray = shelf.model_copy(
            update={"id": "pull", "item": "carcase.tray", "role": "tray", "z": shelf.z + 400, "h": 64}
        )
        pulled = design.model_copy(update={"parts": (*design.parts, tray)})
        found = [f for f in check_design(pulled, survey(), regions(), WARDROBE, (ADULT,)) if f.code == "doors.straddle"]
        self.assertIn(("pull",), [f.where for f in found])
        for units in ("metric", "imperial"):
            self.assertIn("meet", sentence(found[0], units))  # type: ignore[arg-type]
        self.assertTrue(remedy(found[0]))


class HouseFileTests(TestCase):
    def test_designs_of_every_kind_come_back_as_they_went(self) -> None:
        edited = History(base=wardrobe()).after(MirrorRow(bay=0)).after(LockBay(bay=0)).after(
            SetFinish(finish=Finish(base="legs")))  # fmt: skip
        house = House(
            name="Two", spaces=(Space(id="closet", name="Closet", survey=survey()),), things=(*WARDROBE,),
            designs=(edited, History(base=hung().model_copy(update={"id": "hung"}))),
        )  # fmt: skip
        once = dump_house(house)
        back = load_house(once)
        self.assertEqual(back, house)
        self.assertEqual(back.designs[0].current, edited.current)
        self.assertEqual(dump_house(back), once)

    def test_a_row_names_its_bays(self) -> None:
        for design in (wardrobe(), hung()):
            standing: Standing
            for standing in design.rows:
                self.assertEqual(standing.end - standing.first, len(standing.row.widths))
            self.assertEqual(design.rows[-1].end, len(design.bays))

    def test_one_section_of_a_design_keeps_its_parts_and_who_lives_there(self) -> None:
        design: Design = wardrobe()
        self.assertEqual(design.in_section("A").parts, design.parts)
        self.assertEqual((design.in_section("Z").parts, design.in_section("Z").assignments), ((), ()))
        with self.assertRaises(KeyError):
            design.part("nowhere")
        with self.assertRaises(KeyError):
            design.bay_of(design.parts[0].model_copy(update={"bay": None}))


class CommandLineTests(TestCase):
    def test_the_frontier_and_what_one_more_would_change_are_told(self) -> None:
        got = run("design", DEMO, "--space", "ticket-drawer")
        told = json.loads(got.stdout)
        self.assertEqual(got.returncode, 0)
        self.assertGreaterEqual(len(told["alternatives"]), 2)
        costs = [Decimal(p["cost"]) for p in told["frontier"]]
        self.assertEqual(costs, sorted(costs))

    def test_a_part_is_swapped_only_within_its_family(self) -> None:
        shelf = next(p for p in hung().parts if p.role == "shelf")
        with self.assertRaises(EditRefused) as caught:
            apply(hung(), SwapPart(part=shelf.id, role="drawer"))
        self.assertIn("Track and standard has no drawer", caught.exception.problem)


class PoolTests(TestCase):
    """Which ways to stand things are tried at all."""

    def pool(self, space_id: str) -> list[Candidate]:
        house = demo_house()
        space = house.space(space_id)
        found = envelopes(space.survey, house.rules)
        return candidates(Task(space_id, space.survey, found, house.things_in(space_id), house.people, house.rules))

    def test_every_candidate_stands_inside_its_walls_and_no_two_rows_share_a_place(self) -> None:
        house = demo_house()
        for space_id in ("ticket-office", "parcels-room", "stair-cupboard"):
            found = envelopes(house.space(space_id).survey, house.rules)
            for candidate in self.pool(space_id):
                parts = candidate.structure(found, Finish())
                for part in parts:
                    region = found[part.section]
                    self.assertGreaterEqual(part.y, region.y_from, (space_id, part.id))
                    self.assertLessEqual(part.z + part.h, region.z_to, (space_id, part.id))
                ids = [p.id for p in parts]
                self.assertEqual(len(ids), len(set(ids)))

    def test_a_room_of_three_walls_is_tried_with_one_two_and_three_of_them(self) -> None:
        walls = {len(c.fills) for c in self.pool("parcels-room")}
        self.assertEqual(walls, {1, 2, 3})

    def test_bays_are_numbered_through_and_rows_cover_them(self) -> None:
        for candidate in self.pool("porters-room")[:40]:
            self.assertEqual([b.index for b in candidate.bays], list(range(len(candidate.bays))))
            covered = [n for _, _, _, first, end in candidate.spans for n in range(first, end)]
            self.assertEqual(covered, list(range(len(candidate.bays))))
            self.assertIn(candidate.main, candidate.families)

    def test_a_search_broken_off_while_looking_for_candidates_stops_there(self) -> None:
        house = demo_house()
        space = house.space("parcels-room")

        def stop() -> None:
            raise Cancelled

        with self.assertRaises(Cancelled):
            found = envelopes(space.survey, house.rules)
            candidates(Task(space.id, space.survey, found, (), house.people, house.rules, watch=Watch(check=stop)))

    def test_levels_know_how_high_they_stand(self) -> None:
        house = demo_house()
        dresser = house.space("kitchen-dresser").survey
        feet = dresser.feet
        self.assertTrue(feet and all(name in {s.id for s in dresser.parts} for name in feet))
        for candidate in self.pool("kitchen-dresser"):
            for bay in candidate.bays:
                self.assertEqual(bay.foot, feet.get(bay.section, 0))
