"""What alternatives are searched for, and what is said of each."""

from .models import Goal, Weights

WEIGHTS: dict[Goal, Weights] = {
    "cheapest": Weights(money=5, room=0, reach=1, parts=0, hours=0, reuse=2),
    "roomiest": Weights(money=0.25, room=5, reach=4, parts=0, hours=0, reuse=1),
    "reach": Weights(money=0.1, room=0, reach=10, parts=0, hours=0, reuse=1),
    "quickest": Weights(money=0.5, room=0, reach=2, parts=6, hours=8, reuse=1),
    "yours": Weights(),
}
TITLES: dict[Goal, str] = {
    "cheapest": "Cheapest", "roomiest": "Most room to grow", "reach": "Easiest to reach",
    "quickest": "Soonest up", "yours": "As you weigh it",
}  # fmt: skip
REASONS: dict[Goal, str] = {
    "cheapest": "The least money that gives everything a place.",
    "roomiest": "The most empty room left for what comes next.",
    "reach": "What is used most hangs and lies where its owner reaches it best.",
    "quickest": "The fewest parts and the fewest hours of work.",
    "yours": "Found for the weights set by hand.",
}
SEARCHED: tuple[Goal, ...] = ("roomiest", "cheapest", "reach", "quickest")
"""The order of searching: the roomiest soonest holds everything, and the others may start from it."""
SPARE_SHELVES: frozenset[Goal] = frozenset({"roomiest", "reach", "yours"})
"""Goals whose empty height is given shelves."""
