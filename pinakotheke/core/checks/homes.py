"""Conflicts of homes as findings, and the reasons for a home in words."""

from ..inventory.zones import Conflict, Home, Reason
from .findings import Finding, Severity

SEVERITY: dict[str, Severity] = {
    "fuel": "stop", "child": "stop", "damp": "fix", "heavy": "fix", "wide high": "mind", "out of reach": "fix",
    "no socket": "mind", "no room": "fix",
}  # fmt: skip
_SOURCES: dict[str, tuple[str, str]] = {
    "fuel": ("P", "NFPA 58 for cylinders (from memory); local code rules"),
    "child": ("C", "handbook section 3: locked, or above 1.4 m"),
    "damp": ("C", "handbook section 4: closed plastic, off the floor"),
    "heavy": ("P", "revised NIOSH lifting equation, DHHS (NIOSH) 94-110 (from memory)"),
    "wide high": ("C", "handbook section 2: above the shoulder no wider"),
    "out of reach": ("P", "Drillis & Contini 1966 in Winter (from memory)"),
    "no socket": ("C", "handbook section 4: charging things live within reach of a socket"),
    "no room": ("C", "the clear volume of the spaces"),
}


def home_findings(
    conflicts: tuple[Conflict, ...], names: dict[str, str], spaces: dict[str, str]
) -> tuple[Finding, ...]:
    """Conflicts as findings, worst first; `names` of things and of spaces."""
    order: tuple[Severity, ...] = ("stop", "fix", "mind", "note")
    found = [
        Finding(code=f"home.{c.code.replace(' ', '-')}", severity=_severity(c), where=(c.thing,),
                subject=names.get(c.thing, c.thing), measured=c.measured, limit=c.limit,
                unit="litres" if c.code == "no room" else "kg" if c.code == "heavy" else "mm",
                basis=_SOURCES[c.code][0], source=_SOURCES[c.code][1],
                detail=c.detail if c.code in ("child", "out of reach") else spaces.get(c.space, ""), person=c.detail)
        for c in conflicts
    ]  # fmt: skip
    return tuple(sorted(found, key=lambda f: order.index(f.severity)))


def _severity(conflict: Conflict) -> Severity:
    """A lift a little over its limit is to be known; half as much again, or where none is safe, is to be mended."""
    if conflict.code == "heavy" and conflict.measured <= STRAINS_MOST * conflict.limit:
        return "mind"
    return SEVERITY[conflict.code]


STRAINS_MOST = 1.5


def reason_words(reason: Reason) -> str:
    """One reason, in a few words."""
    detail = reason.detail
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


def why(home: Home) -> str:
    """All reasons of a home in one line."""
    return "; ".join(reason_words(r) for r in home.reasons) or "room was left there"
