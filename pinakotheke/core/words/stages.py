"""The state of each stage in a few words, for the spine."""

from ..base import Frozen
from ..checks.findings import Finding, Severity
from ..inventory import Thing
from ..saying import counted
from ..survey import Survey, doubts, missing


class States(Frozen):
    """One line a stage, and the worst that is wrong."""

    survey: str
    inventory: str
    layout: str
    checks: str
    materials: str
    install: str
    upkeep: str
    worst: Severity | None


def states_in_words(survey: Survey, things: tuple[Thing, ...], designs: int, findings: tuple[Finding, ...],
                    cost: str | None, currency: str, ticked: int = 0,
                    places: int = 0) -> States:  # fmt: skip
    """The stages of a space as they stand; `findings` worst first, `ticked` steps done at the wall,
    `places` that things are put back into.
    """
    absent, doubted = sum(s.needed for s in missing(survey)), len(doubts(survey))
    undecided = sum(t.decision == "undecided" for t in things)
    stops, fixes = (sum(f.severity == severity for f in findings) for severity in ("stop", "fix"))
    read = f"{absent} {counted(absent, 'reading', 'readings')} missing" if absent else "complete"
    listed = f"{len(things)} {counted(len(things), 'thing', 'things')}" if things else "nothing yet"
    hung = f"{designs} {counted(designs, 'alternative', 'alternatives')}" if designs else "not asked yet"
    return States(
        survey=read + (f", {doubted} doubted" if doubted else ""),
        inventory=listed + (f", {undecided} undecided" if undecided else ""),
        layout=hung + (f", {stops} {counted(stops, 'stop', 'stops')}" if stops else ""),
        checks=(f"{stops} must not stay" if stops else f"{fixes} to fix" if fixes else "nothing to fix")
        if designs
        else "no design yet",
        materials=f"{cost} {currency}" if cost else "no design yet",
        install=(f"{ticked} {counted(ticked, 'step', 'steps')} done" if ticked else "not begun")
        if designs
        else "no design yet",
        upkeep=f"{places} {counted(places, 'place', 'places')}" if places else "not moved in",
        worst=findings[0].severity if findings else None,
    )
