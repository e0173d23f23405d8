"""The families that a search or a design may be built of: those that ship, and a household's own ranges."""

from collections.abc import Iterable

from .family import Family, NoSuchFamily
from .parts import Bay, Part
from .ranges import SHIPPED, Range, family_of_range


class Catalogue:
    """Families by id. Two catalogues of the same ranges answer alike: there is nothing else to them."""

    __slots__ = ("_own",)

    def __init__(self, ranges: Iterable[Range] = ()) -> None:
        self._own = {own.family_id: family_of_range(own) for own in ranges}

    def __getitem__(self, family_id: str) -> Family:
        family = self._own.get(family_id) or SHIPPED.get(family_id)
        if family is None:
            raise NoSuchFamily("family.unknown", family=family_id)
        return family

    def __contains__(self, family_id: object) -> bool:
        return family_id in self._own or family_id in SHIPPED

    def of(self, item: Part | Bay) -> Family:
        """The family a part or a bay belongs to; raises `NoSuchFamily`."""
        return self[item.family]


SHIPPED_ONLY = Catalogue()
"""The families that ship, for whoever has no ranges of their own."""
