"""Shelves that are there and can be moved on their holes: levels one above the other taken as one place to fit.

A level whose shelf is *movable* lies on pins in holes. With the fixed level below it, and all movable ones above, it
makes a *stack*: as high as all of them together, as wide and deep as the narrowest and shallowest. The shelves that
are there may stand at any hole of it; where one stands now is a hole.
"""

from math import ceil

from ..tables import value
from .models import Obstacle, Reading, Section, Stack, Survey

THINNEST, THICKEST = 5.0, 60.0
"""Between what a shelf is thick, mm; common practice."""
UP = "-up"
"""How the id of a stack ends, after that of its lowest level."""


def with_stacks(survey: Survey) -> Survey:
    """The survey with a section for every stack after its highest level; the levels stay, to be fitted as they are."""
    if any(s.kind == "stack" for s in survey.parts):
        return survey
    sections: list[Section] = []
    readings: list[Reading] = []
    obstacles: list[Obstacle] = []
    for levels in _stacked(survey):
        stack = _stack(survey, levels)
        if stack is not None:
            section, read, stands = stack
            sections.append(section)
            readings += read
            obstacles += stands
    if not sections:
        return survey
    after = {section.id: section for section in sections}
    parts: list[Section] = []
    for part in survey.parts:
        parts.append(part)
        parts += [s for s in after.values() if members(survey, s.id)[-1] == part.id]
    return survey.model_copy(
        update={"sections": tuple(parts), "readings": (*survey.readings, *readings),
                "obstacles": (*survey.obstacles, *obstacles)}
    )  # fmt: skip


def members(survey: Survey, stack_id: str) -> tuple[str, ...]:
    """Ids of the levels a stack takes the place of, from the lowest; empty for what is no stack."""
    return next((tuple(s.id for s in g) for g in _stacked(survey) if g[0].id + UP == stack_id), ())


def _stacked(survey: Survey) -> list[list[Section]]:
    """Levels that lie above each other with movable shelves between them."""
    groups: list[list[Section]] = []
    for section in survey.parts:
        if section.kind != "level":
            continue
        if section.movable and groups:
            groups[-1].append(section)
        else:
            groups.append([section])
    return [g for g in groups if len(g) > 1]


def _stack(survey: Survey, levels: list[Section],
           ) -> tuple[Section, list[Reading], list[Obstacle]] | None:  # fmt: skip
    """The stack of some levels with what is known of it; None while heights of shelves or clear sizes are lacking."""
    ones = [survey.only(s.id) for s in levels]
    feet = [one.least("shelf height", section=s.id) for one, s in zip(ones, levels, strict=True)]
    sizes = [[one.least(what, section=s.id) for what in ("width", "depth", "height")]
             for one, s in zip(ones, levels, strict=True)]  # fmt: skip
    if any(foot is None for foot in feet) or any(size is None for row in sizes for size in row):
        return None
    known = [float(foot or 0) for foot in feet]
    widths, depths, heights = zip(*[[float(size or 0) for size in row] for row in sizes], strict=True)
    pitch = round(next((s.holes for s in levels if s.holes), value("survey.hole_pitch")))
    boards = [up - low - high for low, up, high in zip(known, known[1:], heights, strict=False)]
    if not all(THINNEST <= thick <= THICKEST for thick in boards):
        return None  # heights that contradict each other; the doubts say so
    board = ceil(max(boards))
    # The shelf of the second level lies on its pins at its own underside.
    anchor = round(known[1] - known[0] - board)
    name = f"levels {levels[0].id.rpartition('-')[2]} to {levels[-1].id.rpartition('-')[2]}"
    own = levels[0].id + UP
    section = Section(id=own, kind="stack", name=name,
                      stack=Stack(pitch=pitch, shelves=len(levels) - 1, board=board, anchor=max(anchor, 1)))  # fmt: skip
    read = [
        Reading.model_validate({"id": f"{own}-{what.replace(' ', '-')}", "section": own, "what": what, "value": mm})
        for what, mm in (("width", min(widths)), ("depth", min(depths)),
                         ("height", known[-1] + heights[-1] - known[0]), ("shelf height", known[0]))
    ]  # fmt: skip
    stands = [
        o.model_copy(update={"id": f"{own}-{o.id}", "section": own, "z": o.z + foot - known[0]})
        for section_, foot in zip(levels, known, strict=True) for o in survey.obstacles if o.section == section_.id
    ]  # fmt: skip
    return section, read, stands
