"""Why a group lives where it does."""

from ..inventory.zones import Home, Reason
from ..units import Units, format_mass


def reason_words(reason: Reason, units: Units = "metric") -> str:
    """One reason, in a few words."""
    detail = reason.detail
    if reason.code == "heavy":
        detail = f"{reason.amount:g} kg" if units == "metric" else format_mass(reason.amount, units)
    return {
        "pinned": "you put it there",
        "zone": f"with the {detail} things",
        "often": f"{detail}: between knee and eye",
        "seldom": f"{detail}: high up",
        "low": "low: heavy or dirty",
        "heavy": f"{detail} a piece: low",
        "hazard": f"out of the reach of {detail}",
        "own reach": f"within {detail}'s own reach",
        "power": "a socket is there",
        "dry": "dry",
        "together": f"used together: {detail}",
        "door": "near the door",
        "here": "it is there already",
        "outdoors": "outdoors, as fuel and gas must be",
        "wide": "wide",
    }[reason.code]


def why(home: Home, units: Units = "metric") -> str:
    """All reasons of a home in one line."""
    return "; ".join(reason_words(r, units) for r in home.reasons) or "room was left there"
