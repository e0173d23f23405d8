"""How full places are, held against the verifier: what it proves to fit is at most full, what it calls too much is more."""

from unittest import TestCase

from pinakotheke.core.layout import Design
from pinakotheke.core.layout.verify.verifier import verify
from pinakotheke.core.upkeep import Place, planned
from pinakotheke.core.upkeep.capacity import Rooms, known_most
from pinakotheke.core.upkeep.review import relief

from .examples import FOLDED, WARDROBE, hung, regions, wardrobe

FULL = 1 + 1e-9


class CapacityTests(TestCase):
    def lived_in(self, design: Design, things) -> tuple[Rooms, dict[str, dict[str, int]]]:  # type: ignore[no-untyped-def]
        plan = planned(design, things)
        places = {f"{p.part}/{p.box}": Place(id=f"p{n}", space="s", name=p.part, design="d", part=p.part, box=p.box)
                  for n, p in enumerate(plan)}  # fmt: skip
        held = {places[f"{p.part}/{p.box}"].id: dict(p.holds) for p in plan}
        by_id = {p.id: p for p in places.values()}
        return Rooms(places=by_id, designs={"s": design}, things={t.id: t for t in things}, most={}), held

    def test_what_is_proven_to_fit_is_at_most_full(self) -> None:
        for design, things in ((wardrobe(), WARDROBE), (hung(), FOLDED)):
            rooms, held = self.lived_in(design, things)
            for place, contents in held.items():
                self.assertLessEqual(rooms.full(place, contents), FULL, (place, contents))

    def test_more_and_more_of_a_thing_is_too_much_when_the_verifier_says_so(self) -> None:
        """Pieces are added one after the other; both change their mind at the same number, for room or for weight."""
        compared = 0
        for design, things in ((wardrobe(), WARDROBE), (hung(), FOLDED)):
            rooms, held = self.lived_in(design, things)
            for a in design.assignments:
                part = next(p for p in design.parts if p.id == a.part)
                if a.container or len(design.held_by(a.part)) > 1:
                    continue
                place = next(p.id for p in rooms.places.values() if p.part == a.part)
                for count in range(a.count, a.count + 60):
                    grown = tuple(
                        b.model_copy(update={"count": count}) if b.id == a.id else b for b in design.assignments
                    )
                    faults = verify(design.model_copy(update={"assignments": grown}), regions(), things)
                    over = any(f.where == part.id and f.code in ("capacity", "load") for f in faults)
                    self.assertEqual(rooms.full(place, {**held[place], a.thing: count}) > FULL, over, (a.thing, count))
                    compared += 1
                    if over:
                        break
        self.assertGreater(compared, 20)

    def test_what_overflows_goes_where_the_proof_lets_it(self) -> None:
        design = wardrobe()
        rooms, held = self.lived_in(design, WARDROBE)
        places = list(rooms.places.values())
        for place, contents in held.items():
            for thing in contents:
                there = relief(places, held, rooms, thing, 1, out_of=place)
                if there is not None:
                    self.assertNotEqual(there, place)
                    self.assertLessEqual(rooms.full(there, {**held[there], thing: held[there].get(thing, 0) + 1}), FULL)

    def test_places_that_nobody_measured_take_what_they_held(self) -> None:
        place = Place(id="p", space="s", name="Box")
        shirts = WARDROBE[0]
        most = known_most([{"p": {shirts.id: 4}}, {"p": {shirts.id: 6}}], {shirts.id: shirts})
        rooms = Rooms(places={"p": place}, designs={}, things={shirts.id: shirts}, most=most)
        self.assertEqual((rooms.full("p", {shirts.id: 6}), rooms.full("p", {shirts.id: 3})), (1, 0.5))
        self.assertEqual(rooms.full("p", {}), 0)
