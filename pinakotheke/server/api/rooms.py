"""Places with what they take, read from the rows: for swaps and reviews."""

from collections.abc import Iterable, Mapping, Sequence
from functools import cached_property

from pinakotheke.core.checks import Case
from pinakotheke.core.checks.fit import proven
from pinakotheke.core.inventory import Thing
from pinakotheke.core.upkeep import Stay
from pinakotheke.core.upkeep.capacity import Contents, Rooms, known_most
from pinakotheke.core.words import sentence

from .. import models, rows
from .layout_view import Scene

WRONG = {"fit.capacity", "strength.rating", "fit.size", "fit.headroom", "safety.limit"}
"""What is wrong with what lies in a part; not how the design itself stands."""


class Lying:
    """Some places with what lies in them, and the designs that they came from."""

    def __init__(self, household: models.Household, place_rows: Iterable[models.Place], stays: Sequence[Stay],
                 things: Mapping[str, Thing]) -> None:  # fmt: skip
        self.household, self.stays, self.things = household, stays, things
        self.rows = {p.key: p for p in place_rows}
        self.places = {key: rows.place_of(p) for key, p in self.rows.items()}

    @cached_property
    def scenes(self) -> dict[str, tuple[Scene, models.Design]]:
        """By space, the design that was moved into."""
        wanted = {(p.space_id, p.design) for p in self.rows.values() if p.design}
        found = models.Design.objects.select_related("space__household").filter(space__in={s for s, _ in wanted})
        return {d.space.key: (Scene(d.space), d) for d in found if (d.space_id, d.key) in wanted}

    def rooms(self, *states: Mapping[str, Contents]) -> Rooms:
        """What the places take; those that nobody measured take what lies in them in one of these states."""
        designs = {space: rows.history_of(d).current for space, (_, d) in self.scenes.items()}
        return Rooms(places=self.places, designs=designs, things=self.things, most=known_most(states, self.things))

    def wrong(self, rooms: Rooms, state: Mapping[str, Contents]) -> list[str]:
        """What the proof of each design says of its compartments in this state, in words."""
        said = []
        for space, (scene, _) in self.scenes.items():
            here = {key: state[key] for key, p in self.places.items() if p.space == space and key in state}
            parts = {self.places[key].part for key in here}
            things = {t.id: t for t in scene.things} | {t: self.things[t] for one in here.values() for t in one}
            kept = rooms.kept_so(space, here)
            case = Case(scene.survey, scene.regions, kept, tuple(things.values()), scene.people, limits=scene.limits,
                        house=scene.rules)  # fmt: skip
            said += [sentence(f, scene.units) for f in proven.run(case) if f.code in WRONG and parts & set(f.where)]
        return list(dict.fromkeys(said))

    def named(self, key: str) -> str:
        """A place as a person says it: with its space."""
        row = self.rows.get(key)
        return f"{row.name} ({row.space.name})" if row else "a place that is gone"
