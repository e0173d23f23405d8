"""What a search is about, how it is watched, and what it remembers while it lasts."""

from collections.abc import Callable, Iterable, Mapping
from dataclasses import dataclass, field, replace
from decimal import Decimal
from functools import cached_property
from math import inf
from time import perf_counter
from typing import Any, NamedTuple

from ...house import HouseRules, Person, SpaceUse
from ...inventory import Thing
from ...inventory.containers import Container, owned_container
from ...inventory.owned import Owned, offers
from ...survey import Envelope, Survey
from ...survey.way_in import WayIn
from ...systems import Bay, Catalogue, Family, Finish, Holder, Part, Range
from ..goals import WEIGHTS
from ..models import Design, Goal, Weights
from .limits import Limits


@dataclass(slots=True)
class Watch:
    """What a long solve tells, and how it is stopped. `check` raises `Cancelled` or returns; a search that ends `until` a
    time of `perf_counter` stops with what it has, and goes on improving that until then.
    """

    check: Callable[[], None] = lambda: None
    progress: Callable[[float, str], None] = lambda share, what: None
    found: Callable[[Design], None] = lambda design: None
    until: float = inf

    @property
    def time_is_up(self) -> bool:
        """Whether the search is to come to its end."""
        return perf_counter() >= self.until


class Compartment(NamedTuple):
    """Price, capacity, rating and hours of a compartment, and its part as it stands at the foot of its bay."""

    price: float
    capacity: float
    rating: float
    hours: float
    part: Part


@dataclass(slots=True)
class SearchCache:
    """What one search has worked out so far. It is made with its task and goes with it: another household, another
    survey or another rule is another task.
    """

    takes: dict[tuple[object, ...], bool] = field(default_factory=dict)
    """Whether a piece of a thing goes into a bay of a size, as far as it was asked."""
    troubles: dict[tuple[object, ...], tuple[float, ...]] = field(default_factory=dict)
    """Trouble of a thing at every foot in a bay of a kind."""
    components: dict[tuple[object, ...], Compartment] = field(default_factory=dict)
    """What a compartment is, costs and carries."""

    heap: Any = None
    """The things with their options, by kind of bay."""

    def component(self, family: Family, role: Holder, bay: Bay, front: int, depth: int = 0, alike: object = None,
                  ) -> Compartment:  # fmt: skip
        """A compartment of a bay, which every lot asks for: of a bay of another `depth` where one is given. `alike` stands
        for all bays that have the same ones, and is looked up sooner than a bay.
        """
        key = (family.id, role, front, depth, alike or bay)
        known = self.components.get(key)
        if known is None:
            bay = bay.model_copy(update={"depth": depth}) if depth else bay
            c = family.component(role, bay, front)
            part = family.placed(bay, "x", role, bay.z0, front)
            known = self.components[key] = Compartment(float(c.price), c.capacity, c.rating, c.hours, part)
        return known


@dataclass(frozen=True, slots=True)
class Household:
    """What of a household decides where things may live."""

    rules: HouseRules
    people: tuple[Person, ...]
    sockets: tuple[tuple[str, float], ...] = ()
    owned: tuple[tuple[str, Container], ...] = ()
    """Containers the household has, each with the thing it suits."""
    to_buy: tuple[Container, ...] = ()
    """Containers the household buys from; those that ship when it lists none."""
    families: Catalogue = field(default_factory=Catalogue)
    cache: SearchCache = field(default_factory=SearchCache, compare=False)
    limits: Limits = field(default_factory=lambda: Limits(()))
    folds: bool = False
    """Whether what the house hangs may be laid away where the rails are full."""
    way_in: WayIn = field(default_factory=WayIn)
    damp: bool = False
    """Whether the floor is damp: no box and no shoe stands on it."""


@dataclass(frozen=True)
class Task:
    """Everything a search is about. It is never changed; `but` makes another one of it."""

    space: str
    survey: Survey
    envelopes: Mapping[str, Envelope]
    things: tuple[Thing, ...]
    people: tuple[Person, ...]
    rules: HouseRules
    finish: Finish = field(default_factory=Finish)
    use: SpaceUse = field(default_factory=SpaceUse)
    """Where the space is, and whether it is locked."""
    stock: tuple[Owned, ...] = ()
    ranges: tuple[Range, ...] = ()
    """The household's own ranges of parts."""
    containers: tuple[Container, ...] = ()
    """What containers the household can buy; those that ship when it lists none."""
    weights: Weights | None = None
    """A person's own weights, searched beside the usual goals."""
    budget: Decimal | None = None
    """No more than this, when asked."""
    families: tuple[str, ...] | None = None
    keep: Design | None = None
    """A design of which the locked bays and parts stay."""
    seed: int = 1
    effort: float = 1.0
    folds: bool = False
    """Whether what the house hangs may be laid away: only when a person asked for it."""
    others: Callable[[], Iterable["Task"]] = field(default=lambda: (), compare=False)
    """Of the other spaces of the house, when asked: what may take in what has no place here."""
    watch: Watch = field(default_factory=Watch)
    cache: SearchCache = field(default_factory=SearchCache, repr=False, compare=False)

    def but(self, **changes: Any) -> "Task":
        """The same task with some of it otherwise: nothing else is lost, and nothing known of it is taken over."""
        return replace(self, **{"cache": SearchCache(), **changes})

    @cached_property
    def catalogue(self) -> Catalogue:
        """The families it may be built of."""
        return Catalogue((*self.ranges, *(self.keep.ranges if self.keep else ())))

    @cached_property
    def home(self) -> Household:
        """What of the household decides where things may live."""
        at_hand = {o.id: owned_container(o) for o in self.stock}
        owned = tuple((o.thing, at_hand[o.owned]) for o in offers(self.things, self.stock))
        return Household(self.rules, self.people, sockets_of(self.survey), owned, self.containers, self.catalogue,
                         self.cache, limits=self.limits, folds=self.folds, damp=self.survey.damp,
                         way_in=WayIn.of(self.survey, self.envelopes))  # fmt: skip

    @cached_property
    def limits(self) -> Limits:
        """What must never be in this space."""
        return Limits.in_space(self.people, self.survey, self.envelopes, self.use)

    def weights_for(self, goal: Goal) -> Weights:
        """The weights of a goal."""
        return self.weights if goal == "yours" and self.weights else WEIGHTS[goal]


def sockets_of(survey: Survey) -> tuple[tuple[str, float], ...]:
    """Section and middle of every socket."""
    return tuple((o.section, o.x + o.width / 2) for o in survey.obstacles if o.kind == "socket")
