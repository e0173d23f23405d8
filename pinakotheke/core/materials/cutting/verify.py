"""A cut diagram gone over again, by a saw that knows nothing of how it was found: it starts with the whole sheet, makes
every cut where it is told to, and looks at what lies on the bench in the end.
"""

from collections import Counter
from collections.abc import Sequence

from .sheets import CutSheet, Panel, Sheet, SheetPlan

Box = tuple[int, int, int, int]
"""Corner and sides, mm."""


def faults_of(plan: SheetPlan, panels: Sequence[Panel], stock: Sequence[Sheet], *, kerf: int = 0, trim: int = 0,
              stages: int = 99) -> tuple[str, ...]:  # fmt: skip
    """What is wrong with a plan; nothing where it can be sawn and adds up."""
    told: list[str] = []
    asked = Counter({p.key: sum(q.count for q in panels if q.key == p.key) for p in panels if p.count})
    given = Counter(p.panel.key for s in plan.sheets for p in s.parts)
    told += [f"{key}: {given[key]} cut, {asked[key]} asked for" for key in asked | given if given[key] != asked[key]]
    sizes = {p.key: p for p in panels}
    for number, sheet in enumerate(plan.sheets, 1):
        told += [f"sheet {number}: {fault}" for fault in _sawn(sheet, sizes, kerf, trim, stages)]
    for one in stock:
        taken = sum(s.sheet == one for s in plan.sheets)
        if one.count is not None and taken > one.count:
            told.append(f"{one.key}: {taken} taken, {one.count} there")
    told += [f"no stock: {s.sheet.key}" for s in plan.sheets if s.sheet not in stock]
    if plan.cost != sum(s.sheet.price for s in plan.sheets):
        told.append(f"cost {plan.cost} is not the sum of its sheets")
    if plan.bound > plan.cost:
        told.append(f"bound {plan.bound} over cost {plan.cost}")
    return tuple(told)


def _sawn(sheet: CutSheet, sizes: dict[str, Panel], kerf: int, trim: int, stages: int) -> list[str]:
    told = []
    length, width = sheet.sheet.length, sheet.sheet.width
    lying: set[Box] = {(trim, trim, length - 2 * trim, width - 2 * trim)}
    if trim and sum(c.stage == 0 for c in sheet.cuts) != 4:
        told.append("its four edges are not trimmed")
    area = (length - 2 * trim) * (width - 2 * trim)
    dust = 0
    for cut in sheet.cuts:
        box = (cut.x, cut.y, cut.w, cut.h)
        if cut.stage == 0:
            continue  # the edges; what they leave is where the sawing begins
        if cut.stage > stages + 1:
            told.append(f"a cut of stage {cut.stage}, {stages} and a trim are allowed")
        if box not in lying:
            told.append(f"a cut through {box}, which does not lie on the bench")
            continue
        lying.remove(box)
        halves, lost = _halves(box, cut.way == "crosscut", cut.at, kerf)
        if halves is None:
            told.append(f"a cut at {cut.at} beside {box}")
            continue
        lying |= set(halves)
        dust += lost
    parts = [(p.x, p.y, p.w, p.h) for p in sheet.parts]
    for p in sheet.parts:
        size = sizes.get(p.panel.key)
        if size is None:
            told.append(f"{p.panel.key} was not asked for")
        elif (p.w, p.h) != (size.length, size.width) and not (size.turns and (p.h, p.w) == (size.length, size.width)):
            told.append(f"{p.panel.key} is {p.w} × {p.h}, or lies against its grain")
    rests = [(r.x, r.y, r.w, r.h) for r in sheet.rests]
    if Counter(lying) != Counter(parts) + Counter(rests):
        told.append("what lies on the bench is not the parts and the rests")
    if sum(w * h for _, _, w, h in [*parts, *rests]) + dust != area:
        told.append("parts, rests and dust are not the sheet")
    return told


def _halves(box: Box, across: bool, at: int, kerf: int) -> tuple[list[Box] | None, int]:
    """Both halves of a box, without one that the kerf takes whole; and the area it took."""
    x, y, w, h = box
    near = at - (x if across else y)
    whole = w if across else h
    far = whole - near - kerf
    if near <= 0 or near >= whole:
        return None, 0
    halves: list[Box] = [(x, y, near, h) if across else (x, y, w, near)]
    if far > 0:
        halves.append((at + kerf, y, far, h) if across else (x, at + kerf, w, far))
    side = h if across else w
    return halves, side * (whole - near - max(0, far))
