"""A design from outside carried out once, before anyone relies on it: what in it refers to nothing, and which command of
its history refuses.
"""

from collections.abc import Iterator

from ...errors import PinakothekeError
from ...systems import HOLDERS, INSIDE
from ..models import Design
from .commands import Refound
from .edits import History, apply

Fault = tuple[str, str, str]
"""Path within the history, what stands there, what was expected."""


def replayed(history: History) -> Iterator[Fault]:
    """Every reason why a history cannot be carried out; none when it can."""
    wrong = list(_referring(history.base, "base"))
    yield from wrong
    if wrong:
        return
    design = history.base
    for n, command in enumerate(history.done):
        if isinstance(command, Refound):
            found = list(_referring(command.design, f"done[{n}].design"))
            if found:
                yield from found
                return
        try:
            design = apply(design, command)
        except (PinakothekeError, KeyError, IndexError, ValueError) as error:
            yield f"done[{n}]", command.do, f"a command that can be carried out ({error})"
            return


def _referring(design: Design, at: str) -> Iterator[Fault]:
    """What a design names that is not there: families, bays, parts, roles its families lack."""
    catalogue, ids = design.catalogue, {p.id for p in design.parts}
    for n, bay in enumerate(design.bays):
        if bay.family not in catalogue:
            yield f"{at}.bays[{n}].family", bay.family, "a family that ships, or one of the design's own ranges"
        if bay.index != n:
            yield f"{at}.bays[{n}].index", str(bay.index), f"{n}, its place in the list"
    for n, part in enumerate(design.parts):
        if part.family not in catalogue:
            yield f"{at}.parts[{n}].item", part.item, "an article of a family that is here"
        elif part.role in INSIDE and not catalogue.of(part).makes(part.role):
            yield f"{at}.parts[{n}].role", part.role, f"a part that {catalogue.of(part).spoken} has"
        if part.bay is not None and part.bay >= len(design.bays):
            yield f"{at}.parts[{n}].bay", str(part.bay), f"a bay up to {len(design.bays) - 1}"
        if part.bay is None and part.role in INSIDE:
            yield f"{at}.parts[{n}].bay", "nothing", "the bay it is in"
        if part.carrier and part.carrier not in ids:
            yield f"{at}.parts[{n}].fixed_to", part.carrier, "a part of the design, or the house"
    holders = {p.id for p in design.parts if p.role in HOLDERS}
    for n, a in enumerate(design.assignments):
        if a.part not in holders:
            yield f"{at}.assignments[{n}].part", a.part, "a part of the design that holds things"
        if a.container and design.box(a.container) is None:
            yield f"{at}.assignments[{n}].container", a.container, "a container of the design, or one that ships"
    for n, standing in enumerate(design.rows):
        if standing.family not in catalogue:
            yield f"{at}.rows[{n}].family", standing.family, "a family that is here"
        if standing.end > len(design.bays) or standing.first > standing.end:
            yield f"{at}.rows[{n}].end", str(standing.end), f"at most {len(design.bays)}"
