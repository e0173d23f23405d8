"""Drawers laid out from their things: in compartments, in trays, in both; by hand; and told when they are full."""

from unittest import TestCase

from pinakotheke.core.drawing import design_elevation, design_section
from pinakotheke.core.errors import EditRefused
from pinakotheke.core.house import HouseRules
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Design, Task, design_space, verify
from pinakotheke.core.layout.build.dividers import strips_of
from pinakotheke.core.layout.edit.commands import (
    AssignGroup,
    LockBay,
    LockPart,
    MoveEdge,
    MovePart,
    RemovePart,
    SetFinish,
    ShiftTray,
    TurnTray,
)
from pinakotheke.core.layout.edit.edits import apply
from pinakotheke.core.layout.edit.trays import turned
from pinakotheke.core.layout.insert.designs import design_with
from pinakotheke.core.layout.insert.fittings import fittings, inserts_of
from pinakotheke.core.layout.models import Unplaced
from pinakotheke.core.layout.placement.pool import offered
from pinakotheke.core.layout.report.leftover import room_for
from pinakotheke.core.materials import bill
from pinakotheke.core.materials.inserts import cuts_of_drawers
from pinakotheke.core.survey import Survey, envelopes
from pinakotheke.core.systems import Finish
from pinakotheke.core.systems.ranges import Article, Range

from .examples import demo_house


class DrawerDesignTests(TestCase):
    def chest(self, *sizes: tuple[int, int, int]) -> Survey:
        readings = [
            {"id": f"{n}{what}", "section": f"drawer-{n}", "what": what, "value": value}
            for n, size in enumerate(sizes, 1)
            for what, value in zip(("width", "depth", "height"), size, strict=True)
        ]
        parts = [{"id": f"drawer-{n}", "kind": "drawer"} for n in range(1, len(sizes) + 1)]
        return Survey.model_validate({"kind": "chest of drawers", "sections": parts, "readings": readings})

    def task(self, survey: Survey, *things: Thing) -> Task:
        rules = HouseRules()
        return Task("chest", survey, envelopes(survey, rules), things, (), rules, effort=0.2)

    def test_shallow_goes_shallow_daily_goes_up_and_everything_holds(self) -> None:
        rows = (
            ("pen-cup", 3, "daily"), ("scissors", 2, "daily"), ("stapler-set", 3, "weekly"), ("screw-box", 6, "monthly"),
            ("cable-box", 1, "rarely"), ("paper-ream", 2, "monthly"), ("battery-pack", 5, "monthly"),
        )  # fmt: skip
        things = tuple(
            Thing(id=f"t{n}", name=kind, kind=kind, count=count, frequency=often)  # type: ignore[arg-type]
            for n, (kind, count, often) in enumerate(rows)
        )
        survey = self.chest((560, 430, 70), (560, 430, 110), (560, 430, 180))
        task = self.task(survey, *things)
        got = design_space(task)
        self.assertIsNone(got.blocked)
        for design in got.alternatives:
            self.assertEqual(verify(design, task.envelopes, things, survey, task.limits), ())
            at = {a.thing: design.part(a.part).section for a in design.assignments}
            self.assertEqual({at["t0"], at["t1"]}, {"drawer-1"}, design.title)
            self.assertNotEqual(at["t4"], "drawer-1")
        self.assertTrue(any(d.families == ("dividers",) for d in got.alternatives))

    def test_what_is_changed_by_hand_changes_the_strips(self) -> None:
        """Strips follow the compartments: they are never placed by hand."""

        things = tuple(Thing(id=f"t{n}", name="Pens", kind="pen-cup", count=1) for n in range(4))
        task = self.task(self.chest((400, 300, 80)), *things)
        design = design_space(task).alternatives[0]
        cell = next(p for p in design.parts if p.role == "compartment")
        after = apply(design, RemovePart(part=cell.id))
        self.assertEqual([u.thing for u in after.unplaced], [a.thing for a in design.held_by(cell.id)])
        self.assertEqual(len([p for p in after.parts if p.role == "divider"]), len(strips_of(after, after.bays[0])))

    def test_a_divider_is_moved_by_the_compartment_beside_it(self) -> None:
        """Everything along the strip gives way: floors add up, nothing overlaps, and there and back again is the same."""

        things = tuple(Thing(id=f"t{n}", name="Pens", kind="pen-cup", count=1) for n in range(6))
        task = self.task(self.chest((520, 460, 80)), *things)
        design = design_space(task).alternatives[0]
        moved = 0
        for cell in [p for p in design.parts if p.role == "compartment"]:
            for side in ("left", "right", "back", "front"):
                try:
                    after = apply(design, MoveEdge(part=cell.id, side=side, steps=1))  # type: ignore[arg-type]
                except EditRefused as refused:
                    self.assertIn("divider", refused.problem)
                    continue
                moved += 1
                faults = {f.code for f in verify(after, task.envelopes, things, task.survey, task.limits)}
                self.assertLessEqual(faults, {"size", "capacity"})  # it may have become too small for what is in it
                grown = after.part(cell.id)
                self.assertGreater(grown.w * grown.d, cell.w * cell.d)
                back = apply(after, MoveEdge(part=cell.id, side=side, steps=-1))  # type: ignore[arg-type]
                self.assertEqual({p.id: p for p in back.parts}, {p.id: p for p in design.parts})
        self.assertGreater(moved, 6)
        cell = next(p for p in design.parts if p.role == "compartment")
        for command in (MovePart(part=cell.id, steps=1), MoveEdge(part=cell.id, side="front", steps=-60)):
            with self.assertRaises(EditRefused):
                apply(design, command)

    def six(self) -> tuple[Task, Design]:
        """Six groups in two drawers."""
        rows = (("pen-cup", 3), ("scissors", 2), ("stapler-set", 3), ("battery-pack", 5), ("calculator", 2), ("map", 3))
        things = tuple(Thing(id=f"t{n}", name=kind, kind=kind, count=count) for n, (kind, count) in enumerate(rows))
        task = self.task(self.chest((560, 430, 110), (560, 430, 110)), *things)
        return task, design_space(task).alternatives[0]

    def test_a_locked_drawer_stays_when_the_rest_is_found(self) -> None:
        """And no compartment that is new has the id of one that there was."""
        task, design = self.six()
        full = next(p for p in design.parts if p.role == "compartment" and design.held_by(p.id))
        locked = apply(design, LockBay(bay=full.bay or 0))
        (again,) = design_space(task.but(keep=locked)).alternatives
        self.assertEqual(verify(again, task.envelopes, task.things, task.survey, task.limits), ())
        self.assertEqual((again.id, again.title, again.unplaced), (design.id, design.title, ()))
        self.assertEqual([p for p in again.parts if p.bay == full.bay], [p for p in locked.parts if p.bay == full.bay])
        self.assertTrue(again.bays[full.bay or 0].locked)
        was = {p.id for p in design.parts if p.role == "compartment" and p.bay != full.bay}
        self.assertFalse(was & {p.id for p in again.parts if p.role == "compartment"})
        self.assertLessEqual(was, {*again.spent})

    def test_a_locked_compartment_stays_and_the_rest_is_laid_around_it(self) -> None:
        task, design = self.six()
        for full in [p for p in design.parts if p.role == "compartment" and design.held_by(p.id)]:
            locked = apply(design, LockPart(part=full.id))
            (again,) = design_space(task.but(keep=locked)).alternatives
            self.assertEqual(verify(again, task.envelopes, task.things, task.survey, task.limits), ())
            self.assertEqual(again.unplaced, (), "no worse than it was")
            self.assertEqual(again.part(full.id), locked.part(full.id))
            self.assertEqual(again.held_by(full.id), locked.held_by(full.id))

    def fitted(self, task: Task, named: str) -> Design:
        """The design of one way to fit the drawers out."""
        return next(design_with(task, f) for f in fittings(task) if f.named == named)

    def deep(self) -> Task:
        """A deep drawer full of low things."""
        things = tuple(
            Thing(id=f"t{n}", name=f"Pens {n}", kind="custom", count=1, size=(200, 60, 30), mass=0.2, way="drawer",
                  frequency="daily" if n == 5 else "rarely")
            for n in range(12)
        )  # fmt: skip
        return self.task(self.chest((420, 400, 180)), *things)

    def test_trays_stand_on_each_other_between_dividers(self) -> None:
        """Low things in a deep drawer: side by side they have no place, in piles of trays they have."""
        task = self.deep()
        design = self.fitted(task, "mixed")
        self.assertEqual(design.unplaced, ())
        trays = [p for p in design.parts if p.family == "tray-set"]
        self.assertTrue(any(p.z > 0 for p in trays))
        self.assertTrue(any(p.role == "divider" for p in design.parts))
        by_id = {p.id: p for p in design.parts}
        daily = by_id[next(a.part for a in design.assignments if a.thing == "t5")]
        self.assertFalse(any(p.carrier == daily.id for p in design.parts), "what is wanted daily is on top")

    def test_a_tray_is_turned_and_shifted_with_what_stands_on_it(self) -> None:
        task = self.deep()
        design = self.fitted(task, "bought")
        foot = next(p for p in design.parts if any(q.carrier == p.id for q in design.parts) and p.z == 0)
        above = next(p for p in design.parts if p.carrier == foot.id)
        bare = design
        for p in design.parts:  # alone on its floor
            if p.role == "compartment" and p.z == 0 and p.id != foot.id:
                while any(q.id == p.id for q in bare.parts):
                    bare = apply(bare, RemovePart(part=p.id))
        bare = apply(bare, ShiftTray(part=above.id, front=-(foot.y // 5)))
        foot = bare.part(foot.id)
        turned = apply(bare, TurnTray(part=above.id))
        for was, now in ((bare.part(i), turned.part(i)) for i in (foot.id, above.id)):
            self.assertEqual((now.w, now.d, now.z), (was.d, was.w, was.z))
        self.assertEqual(apply(turned, TurnTray(part=foot.id)).part(above.id).w, above.w)
        with self.assertRaises(EditRefused):
            apply(bare, ShiftTray(part=foot.id, right=200))
        with self.assertRaises(EditRefused):
            apply(self.fitted(self.six()[0], "even"), TurnTray(part="b1-cell-1"))

    def test_of_a_pile_the_trays_above_come_down(self) -> None:
        design = self.fitted(self.deep(), "bought")
        foot = next(p for p in design.parts if any(q.carrier == p.id for q in design.parts) and p.z == 0)
        above = next(p for p in design.parts if p.carrier == foot.id)
        after = apply(design, RemovePart(part=foot.id))
        self.assertEqual((after.part(above.id).z, after.part(above.id).fixed_to), (0, "drawer"))
        lost = sum(a.count for a in design.held_by(foot.id))
        self.assertEqual(sum(u.count for u in after.unplaced), lost)

    def test_a_divider_takes_the_trays_beside_it_along_and_never_cuts_one(self) -> None:
        task = self.deep()
        design = self.fitted(task, "mixed")
        cells = {p.id: p for p in design.parts if p.role == "compartment" and p.family == "dividers"}
        moved = refused = 0
        for tray in (p for p in design.parts if p.carrier in cells):
            for side in ("left", "right", "back", "front"):
                for steps in (-1, -40):
                    try:
                        after = apply(design, MoveEdge(part=tray.carrier, side=side, steps=steps))  # type: ignore[arg-type]
                    except EditRefused:
                        refused += 1
                        continue
                    moved += 1
                    own = after.part(tray.carrier)
                    now = after.part(tray.id)
                    self.assertTrue(own.x <= now.x and now.x + now.w <= own.x + own.w)
                    self.assertTrue(own.y <= now.y and now.y + now.d <= own.y + own.d)
        self.assertTrue(refused)

    def test_what_no_drawer_takes_is_told_with_what_would_do(self) -> None:
        things = (
            Thing(id="tall", name="Tall jar", kind="custom", count=1, size=(80, 80, 130), mass=0.3, way="drawer"),
            Thing(id="pads", name="Pads", kind="custom", count=30, size=(200, 150, 30), mass=0.2, way="drawer",
                  frequency="rarely"),
        )  # fmt: skip
        got = design_space(self.task(self.chest((440, 340, 100)), *things))
        assert got.blocked is not None
        why = {r.thing: (r.why, r.measured, r.limit) for r in got.blocked.refused}
        clear = got.alternatives[0].bays[0].drawer
        assert clear is not None
        self.assertEqual(why["tall"], ("inside", 130 + 4, clear.clear))
        self.assertEqual(why["pads"][0], "all full")
        without = design_space(self.task(self.chest((440, 340, 100)), things[1].model_copy(update={"count": 16})))
        assert without.blocked is not None
        half = next(r for r in without.blocked.relaxations if r.kind == "spares")
        self.assertEqual((half.value, half.things), (8, ("pads",)))

    def test_a_dresser_keeps_in_its_drawers_what_the_house_keeps_there(self) -> None:
        house = demo_house()
        space = house.space("kitchen-dresser")
        task = Task(space.id, space.survey, envelopes(space.survey, house.rules), house.things_in(space.id), house.people,
                    house.rules, use=space.use, stock=house.stock, effort=0.2)  # fmt: skip
        got = design_space(task)
        self.assertIsNone(got.blocked)
        for design in (*got.alternatives, *(p.design for p in got.frontier if p.design is not None)):
            self.assertEqual(verify(design, task.envelopes, task.things, task.survey, task.limits), ())
            drawers = {b.index for b in design.bays if b.drawer is not None}
            self.assertEqual({p.role for p in design.parts if p.bay in drawers}, {"compartment", "divider"})
            self.assertTrue(any(a.part.startswith(f"b{n + 1}-cell") for n in drawers for a in design.assignments))
        again = design_space(task.but(keep=got.alternatives[0])).alternatives
        self.assertEqual((len(again), again[0].unplaced), (1, ()))

    def test_every_kind_of_part_asked_for_is_also_what_fits_out_drawers(self) -> None:
        """As the rung of the ladder asks that says so: no drawer is left empty for it."""
        task, _ = self.six()
        every = offered(task.rules)
        self.assertLessEqual({"dividers", "tray-set"}, set(every))
        self.assertEqual(inserts_of(task.but(families=every)), inserts_of(task))

    def test_what_is_left_free_says_what_would_lie_there(self) -> None:
        task, _ = self.six()
        design = self.fitted(task, "fewest")
        free = [p for p in design.parts if p.role == "compartment" and not design.held_by(p.id)]
        self.assertTrue(free)
        told = room_for(design, free[0], task.things)
        self.assertTrue(told)
        thing, count = told[0]
        more = tuple(t.model_copy(update={"count": t.count + count}) if t.id == thing else t for t in task.things)
        way = next(a.way for a in design.assignments if a.thing == thing)
        left = design.model_copy(update={"unplaced": (Unplaced(thing=thing, count=count),)})
        full = apply(left,
                     AssignGroup(thing=thing, way=way, count=count, source=None, target=free[0].id))  # fmt: skip
        self.assertEqual(verify(full, task.envelopes, more, task.survey, task.limits), ())
        self.assertEqual(room_for(full, free[0], more), ())

    def test_a_drawer_is_drawn_with_its_front_below_and_cut_through(self) -> None:
        task = self.deep()
        design = self.fitted(task, "bought")
        deep = task.survey.only("drawer-1").least("depth") or 0
        above = {r.of: r for r in design_elevation(design, task.survey, task.things, "metric", "x").rects if r.role}
        for p in design.parts:
            self.assertEqual(above[p.id].y, deep - p.y - p.d)
        drawn = design_section(design, task.survey, task.things, "metric", "x", 0)
        trays = [r for r in drawn.rects if r.role == "compartment"]
        self.assertTrue(any(r.y > 0 for r in trays), "trays on each other are seen")
        for r in trays:
            p = design.part(r.of)
            self.assertEqual((r.x, r.y, r.w, r.h), (p.y, p.z, p.d, p.h))
        clear = design.bays[0].drawer
        assert clear is not None
        self.assertTrue(all(r.y + r.h <= clear.clear for r in drawn.rects if r.layer == "content"))

    def test_strips_are_as_thick_as_was_wished(self) -> None:
        task, _ = self.six()
        thin = task.but(finish=Finish(strip=3))
        design = self.fitted(thin, "even")
        self.assertEqual({min(p.w, p.d) for p in design.parts if p.role == "divider"}, {3})
        self.assertEqual({line.thickness for cut in cuts_of_drawers(design) for line in cut.strips}, {3})
        cell = next(p.id for p in design.parts if p.role == "compartment" and p.y + p.d < design.bays[0].depth)
        moved = apply(design, MoveEdge(part=cell, side="front", steps=-1))
        self.assertEqual({min(p.w, p.d) for p in moved.parts if p.role == "divider"}, {3})
        with self.assertRaises(EditRefused):
            apply(design, SetFinish(finish=Finish(strip=9)))

    def test_a_households_own_trays_are_set_and_priced(self) -> None:
        """A range of three sizes: no other tray is used, in whole packs at its prices."""
        sizes = {(240, 120, 60): 3.0, (120, 120, 60): 2.0, (240, 240, 60): 5.0}
        listed = tuple(
            Article(kind="cell", price=price, width=w, depth=d, height=h) for (w, d, h), price in sizes.items()
        )
        own = Range(id="mine", family="tray-set", name="Trays from the yard", articles=listed)
        task, _ = self.six()
        design = self.fitted(task.but(ranges=(own,)), "bought")
        trays = [p for p in design.parts if p.role == "compartment"]
        self.assertTrue(trays)
        self.assertEqual({p.family for p in trays}, {own.family_id})
        self.assertLessEqual({(max(p.w, p.d), min(p.w, p.d), p.h) for p in trays}, set(sizes))
        self.assertEqual(design.ranges, (own,))
        each = {line.name: line.each for line in bill(design).lines}
        self.assertTrue(all(float(price) / 2 in sizes.values() for price in each.values()), each)
        self.assertEqual(turned(design, trays[0])[trays[0].id].w, trays[0].d)
