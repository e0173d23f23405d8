"""Where is it: an index of each household, kept between requests and brought up to date by what changed."""

from collections import OrderedDict
from threading import Lock

from pinakotheke.core.inventory.kinds import KINDS, kind_of
from pinakotheke.core.upkeep import Answer, Entry, Index
from pinakotheke.core.upkeep.find import purposes

from .. import models

MOST_HOUSEHOLDS = 8
"""So many households' indexes are kept; the one that was asked longest ago goes."""


class _Household:
    """The index of one household, with what it was made from."""

    def __init__(self) -> None:
        self.index, self.lock = Index(), Lock()
        self.stamp: tuple[object, ...] | None = None
        self.things: dict[int, int] = {}
        self.people: dict[str, str] = {}

    def refreshed(self, household: int) -> Index:
        """The index with what changed since; nothing is read where the household's log is as it was."""
        stamp = tuple(models.LogEntry.objects.filter(household=household).order_by("-pk").values_list("pk")[:1])
        if stamp and stamp == self.stamp:
            return self.index
        people = dict(models.Person.objects.filter(household=household).values_list("key", "name"))
        if people != self.people:
            self.things, self.people = {}, people
        self._things(household)
        self._places(household)
        self.stamp = stamp
        return self.index

    def _things(self, household: int) -> None:
        rows = models.Thing.objects.filter(household=household)
        now = dict(rows.values_list("pk", "version"))
        for gone in self.things.keys() - now.keys():
            self.index.drop(f"t{gone}")
        changed = [pk for pk, version in now.items() if self.things.get(pk) != version]
        fields = ("pk", "name", "kind", "owner", "label", "note", "together")
        some = rows if len(changed) > len(now) / 2 else rows.filter(pk__in=changed[:500])
        if len(changed) > 500:
            some = rows
        for pk, name, kind, owner, *rest in some.values_list(*fields):
            if self.things.get(pk) == now.get(pk):
                continue
            row = kind_of(kind) if kind in KINDS else None
            self.index.put(Entry(f"t{pk}", name, (row.one, row.many, *row.words, row.group, row.id) if row else (),
                                 self.people.get(owner, ""), " ".join((*purposes().get(kind, ()), *rest))))  # fmt: skip
        self.things = now

    def _places(self, household: int) -> None:
        places = {f"p{pk}": (name, space) for pk, name, space in
                  models.Place.objects.filter(household=household).values_list("pk", "name", "space__name")}  # fmt: skip
        spaces = {f"s{pk}": (name, "") for pk, name in
                  models.Space.objects.filter(household=household).values_list("pk", "name")}  # fmt: skip
        here = places | spaces
        for key in self.index.keys - here.keys():
            if not key.startswith("t"):
                self.index.drop(key)
        for key, (name, space) in here.items():
            self.index.put(Entry(key, name, place=space))


_households: OrderedDict[int, _Household] = OrderedDict()
_lock = Lock()


def find(household: int, question: str, most: int) -> tuple[Answer, ...]:
    """What answers a question: keys are `t`, `p` or `s` with the row of a thing, a place or a space."""
    with _lock:
        one = _households.setdefault(household, _Household())
        _households.move_to_end(household)
        while len(_households) > MOST_HOUSEHOLDS:
            _households.popitem(last=False)
    with one.lock:
        return one.refreshed(household).find(question, most)
