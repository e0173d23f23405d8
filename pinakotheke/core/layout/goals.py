"""What alternatives are searched for, and what is said of each."""

from ..tables import load
from .models import Goal, Weights

WEIGHTS: dict[Goal, Weights] = {
    "cheapest": Weights(money=5, room=0, reach=0.6, parts=0, hours=0, reuse=2, order=3),
    "roomiest": Weights(money=0.25, room=5, reach=4, parts=0, hours=0, reuse=1, order=8),
    "reach": Weights(money=0.1, room=0, reach=10, parts=0, hours=0, reuse=1),
    "quickest": Weights(money=0.5, room=0, reach=2, parts=6, hours=8, reuse=1),
    "tidiest": Weights(money=1, room=0, reach=4, parts=0, hours=0, reuse=1, order=10),
    "yours": Weights(),
}
TITLES: dict[str, str] = load("goals")["title"]
REASONS: dict[str, str] = load("goals")["reason"]
SEARCHED: tuple[Goal, ...] = ("roomiest", "cheapest", "tidiest", "reach", "quickest")
"""The order of searching: the roomiest soonest holds everything, and the others may start from it."""
SPARE_SHELVES: frozenset[Goal] = frozenset({"roomiest", "reach", "yours"})
"""Goals whose empty height is given shelves."""
