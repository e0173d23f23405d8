"""Fills of one section with one family: its heights and depths, in rows that the exact run filling finds, in orders and at
places that keep off what stands there.
"""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from itertools import accumulate, groupby, islice, pairwise, permutations, product, zip_longest

from ...survey import Envelope
from ...survey.models import Section
from ...systems import Family, Finish, Row, Shape
from ...systems.standing import SEEN, comes_out
from .candidates import Fill
from .run import front, mask_of, rows, rows_between

PERMUTED_UP_TO = 4
PER_COUNT = 10
"""Rows of modules kept for each count."""
CLEARLY = 1.25
"""A lesser depth is worth a look when it stands along so much more of the wall."""
PLACES = 6
"""Places along its slack where a row is tried."""
FULL = 0.85
"""A row that takes so much of what the fullest takes is full."""
TALL, LOW_FILLS = 1500, 4
"""Of what is lower than people are, mm, so many rows of modules are looked at."""
DENSEST_COUNTS = 4
"""Of a long stretch, only the counts that use it best are furnished."""
MOST_FILLS = 160


def clear_of(fill: Fill, near: Sequence[tuple[float, float]], envelope: Envelope) -> Fill | None:
    """What of a fill keeps clear of some stretches at the ends of its wall; None where nothing does."""
    kept = []
    for family, row in fill.rows:
        x, widths = row.x, list(row.widths)
        cut = family.fillings(sum(widths)) is not None  # its modules are of any width
        for low, high in near:
            while widths and low <= x < high:
                first = widths.pop(0)
                if cut and x + first - high >= family.smallest():
                    widths, first = [int(x + first - high), *widths], int(high - x)
                x += first
            while widths and low < x + sum(widths) + family.ends <= high + family.ends:
                widths.pop()
                rest = int(low - family.ends - x - sum(widths))
                if cut and rest >= family.smallest():
                    widths.append(rest)
        stands = Row(shape=row.shape, x=x, widths=tuple(widths)) if widths and not family.lies_on else None
        if stands is not None and (stands == row or family.allows(envelope, stands)):
            kept.append((family, stands))
    return Fill(fill.section, tuple(kept), fill.said) if kept else None


def fills_of(family: Family, section: Section, envelope: Envelope, finish: Finish,
             blind: list[tuple[float, float]]) -> list[Fill]:  # fmt: skip
    """Fills of one family: every height at the greatest depth that fits, fewest modules first; heights that step down
    under a slope.
    """
    if not family.suits(section):
        return []
    found: list[Fill] = []
    shapes = shapes_worth(family, envelope, finish)
    by_shape = [
        list(islice(_of_shape(family, shape, section, envelope, blind),
                    LOW_FILLS if shape.height < TALL and section.slope == "none" else None))
        for shape in shapes
    ]  # fmt: skip
    found += [fill for turn in zip_longest(*by_shape) for fill in turn if fill is not None]
    if section.slope == "along" and len(shapes) > 1:
        found += _stepped(family, shapes, section, envelope)
        found += [
            Fill(section.id, tuple((family, row) for row in made), f"{len(made)} storeys, boards cut to the slope")
            for made in family.storeys(envelope)
        ]
    return found[:MOST_FILLS]


def shapes_worth(family: Family, envelope: Envelope, finish: Finish) -> tuple[Shape, ...]:
    """Every height the family offers in this space, each at the greatest depth that fits; and at a lesser one where
    that stands along clearly more of the wall.
    """
    by_height: dict[tuple[int, int], list[Shape]] = {}
    for shape in family.shapes(envelope, finish):
        if family.modules_at(shape):
            by_height.setdefault((shape.height, shape.member), []).append(shape)
    kept: list[Shape] = []
    for shapes in by_height.values():
        longest = 0.0
        for shape in sorted(shapes, key=lambda s: -s.depth):
            length = sum(b - a for a, b in family.stretches(envelope, shape) if b - a >= family.smallest())
            if length > longest * CLEARLY:
                kept.append(shape)
                longest = length
    return tuple(kept)


def _of_shape(family: Family, shape: Shape, section: Section, envelope: Envelope,
              blind: list[tuple[float, float]]) -> Iterator[Fill]:  # fmt: skip
    per_stretch: list[list[_Choice | None]] = []
    for start, end in family.stretches(envelope, shape):
        options: list[_Choice | None] = [None]
        for lo, hi, left, right in _corners(family, start, end, blind):
            options += [_with_corners(c, left, right) for c in ways_to_fill(family, shape, envelope, lo, hi)]
        if len(options) > 1:
            per_stretch.append(options)
    if not per_stretch:
        return
    combined = sorted(
        (tuple(c for c in choice if c) for choice in product(*per_stretch[:4])),
        key=lambda cs: (_count(cs), -_used(cs)),
    )
    for choice in _fullest_first(_densest([c for c in combined if c])):
        made = tuple((family, Row(shape=shape, x=x, widths=widths)) for x, widths, _ in choice)
        yield Fill(section.id, made, "; ".join(said for *_, said in choice if said))


_Choice = tuple[int, tuple[int, ...], str]


def _count(choice: tuple[_Choice, ...]) -> int:
    return sum(len(widths) for _, widths, _ in choice)


def _used(choice: tuple[_Choice, ...]) -> int:
    return sum(sum(widths) for _, widths, _ in choice)


def _fullest_first(choices: list[tuple[_Choice, ...]]) -> Iterator[tuple[_Choice, ...]]:
    """What takes nearly all of the wall, in turns of every number of modules, and after every two of it one that leaves
    more of it bare.
    """
    most = max(map(_used, choices), default=0)
    full = _in_turns([c for c in choices if _used(c) >= FULL * most])
    spare = iter(_in_turns([c for c in choices if _used(c) < FULL * most]))
    for n, choice in enumerate(full):
        yield choice
        if n % 2:
            yield from islice(spare, 1)
    yield from spare


def _in_turns(choices: list[tuple[_Choice, ...]]) -> list[tuple[_Choice, ...]]:
    by_count: dict[int, list[tuple[_Choice, ...]]] = {}
    for choice in choices:
        by_count.setdefault(_count(choice), []).append(choice)
    for row in by_count.values():
        # Modules all alike are what people build first, though others may use more of the wall.
        row[1:] = sorted(row[1:], key=lambda choice: len({w for _, widths, _ in choice for w in widths}) > 1)
    return [c for turn in zip_longest(*by_count.values()) for c in turn if c is not None]


def _corners(family: Family, start: int, end: int, blind: list[tuple[float, float]],
             ) -> Iterator[tuple[int, int, int, int]]:  # fmt: skip
    """What is left to fill of a stretch that runs into corners: up to the corner, or with a corner module in it."""
    lefts: list[tuple[int, int]] = [(start, 0)]
    rights: list[tuple[int, int]] = [(end, 0)]
    for a, b in blind:
        if a <= start < b:
            lefts = [(int(b) + 1, 0), *((start + w, w) for w in family.corners if start + w - b >= SEEN)]
        elif a < end <= b + 20:
            rights = [(int(a), 0), *((end - w, w) for w in family.corners if a - (end - w) >= SEEN)]
    for (lo, left), (hi, right) in product(lefts, rights):
        if hi > lo:
            yield lo, hi, left, right


def _with_corners(choice: _Choice, left: int, right: int) -> _Choice:
    x, widths, said = choice
    if not left and not right:
        return choice
    return x - left, (*((left,) if left else ()), *widths, *((right,) if right else ())), said


def _densest(combined: list[tuple[_Choice, ...]]) -> list[tuple[_Choice, ...]]:
    """Of each module count the `PER_COUNT` widest; of more than eight counts the densest few."""
    by_count: dict[int, list[tuple[_Choice, ...]]] = {}
    for choice in combined:
        row = by_count.setdefault(sum(len(o[1]) for o in choice), [])
        if len(row) < PER_COUNT:
            row.append(choice)
    counts = _dense({n: _used(by_count[n][0]) for n in sorted(by_count)})
    return [choice for n in counts for choice in by_count[n]]


def _dense(used: Mapping[int, int]) -> list[int]:
    """Of counts of modules and the width that each uses: all of a few, of many those that use most."""
    if len(used) <= 2 * DENSEST_COUNTS:
        return list(used)
    return sorted(sorted(used, key=lambda n: -used[n])[:DENSEST_COUNTS])


def ways_to_fill(family: Family, shape: Shape, envelope: Envelope, start: int, end: int, most: int = PER_COUNT,
                 ) -> Iterator[_Choice]:  # fmt: skip
    """Rows of modules for a stretch: of each count those that use most of it and some others, `most` in all, in the best
    order at the best place.
    """
    length = end - start - family.ends
    barred = [(lo - start, hi - start) for lo, hi in family.barred(envelope, shape)]
    own = family.fillings(length)
    if own is not None:
        for widths in dict.fromkeys((*own, *_beside_obstacles(length, family.modules, barred))):
            arranged = _arrange(envelope, start, length, widths, mask_of(barred, length))
            if arranged:
                yield *arranged, f"{sum(widths)} mm of {length} mm, cut to the wall"
        return
    modules = family.modules_at(shape)
    if not modules or length < modules[0]:
        return
    edge, mask = front(length, modules), mask_of(barred, length)
    by_count = dict(enumerate(edge.used, 1))
    for count in by_count if mask else _dense(by_count):
        used = by_count[count]
        alike = next(((m,) * count for m in reversed(modules) if m * count <= length), ())
        some = _spread(rows(length, modules, count, 16 * most), most)
        for widths in dict.fromkeys((*some, *((alike,) if alike and most > 1 else ()))):
            arranged = _arrange(envelope, start, length, widths, mask)
            if arranged is not None:
                yield *arranged, _said(sum(widths), length, count, used, edge.count_bound)
    if mask:
        yield from _round_obstacles(modules, start, length, mask)


def _spread(rows_there: tuple[tuple[int, ...], ...], number: int) -> list[tuple[int, ...]]:
    """The fullest half of so many rows, and the rest evenly over the others."""
    fullest, others = rows_there[: number // 2], rows_there[number // 2 :]
    rest = number - len(fullest)
    return [*fullest, *others[:: max(1, -(-len(others) // max(rest, 1)))]]


def _beside_obstacles(
    length: int, modules: tuple[int, ...], barred: list[tuple[int, int]]
) -> Iterator[tuple[int, ...]]:
    """Boards cut to what lies at the two sides of an obstacle, and each side alone."""
    narrowest, widest = modules[0], modules[-1]
    for at in sorted({edge for lo, hi in barred for edge in (lo, hi) if 0 < edge < length}):
        left, right = narrowest <= at <= widest, narrowest <= length - at <= widest
        if left and right:
            yield at, length - at
        if left:
            yield (at,)
        if right:
            yield (length - at,)


def _said(used: int, length: int, count: int, most: int, least_count: int) -> str:
    return (
        f"{used} mm of {length} mm used with {count}; most possible with {count}: {most} mm (exact);"
        f" whole stretch needs at least {least_count}"
    )


def _round_obstacles(modules: tuple[int, ...], start: int, length: int, mask: int) -> Iterator[_Choice]:
    """For each count the fullest row whose uprights keep off what stands there, from the best of a few places."""
    best: dict[int, _Choice] = {}
    for n in range(PLACES + 1):
        x = n * modules[0] // PLACES
        for widths in rows_between(length, modules, mask, x):
            known = best.get(len(widths))
            if known is None or sum(widths) > sum(known[1]):
                best[len(widths)] = (start + x, widths, f"{sum(widths)} mm of {length} mm used with {len(widths)}, "
                                     "standing beside the obstacles")  # fmt: skip
    yield from best.values()


def _arrange(envelope: Envelope, start: int, length: int, widths: tuple[int, ...], mask: int,
             ) -> tuple[int, tuple[int, ...]] | None:  # fmt: skip
    """Order and place of a row with no upright on a barred bit: the most width that pull-outs can use, then centred,
    then symmetric.
    """
    whole = sum(widths)
    slack = length - whole
    orders = sorted(_orders(widths), key=_uneven)
    if not mask and comes_out(envelope, start + 20, start + length - 20):
        # All of it comes out wherever it stands: in the middle, as even as it goes.
        return start + slack // 2, orders[0]
    best, most = None, -1
    for places in _from_the_middle(slack):
        for order, x in product(orders, places):
            ends = [*accumulate(order, initial=x)]
            if any(mask >> at & 1 for at in ends):
                continue
            pulled = sum(b - a for a, b in pairwise(ends) if comes_out(envelope, start + a + 20, start + b - 20))
            if pulled > most:
                best, most = (start + x, order), pulled
            if most == whole:
                return best
    return best


def _uneven(order: tuple[int, ...]) -> int:
    """Millimetres by which a row differs from its mirror image."""
    return sum(abs(a - b) for a, b in zip(order, reversed(order), strict=True))


def _from_the_middle(slack: int) -> Iterator[list[int]]:
    """Places along the slack where a row is tried, those as far from the middle together, the nearest first."""
    places = {slack * n // PLACES for n in range(PLACES + 1)}
    for _, alike in groupby(sorted(places, key=lambda at: (abs(at - slack // 2), at)), lambda at: abs(at - slack // 2)):
        yield list(alike)


def _orders(widths: tuple[int, ...]) -> list[tuple[int, ...]]:
    """All orders of a few modules; of many, widest in the middle and widest first."""
    if len(set(widths)) == 1:
        return [widths]
    if len(widths) <= PERMUTED_UP_TO:
        return sorted(set(permutations(widths)), reverse=True)
    middle: list[int] = []
    for n, width in enumerate(sorted(widths, reverse=True)):
        middle.insert(len(middle) if n % 2 else 0, width)
    return [tuple(middle), widths, widths[::-1]]


def _stepped(family: Family, shapes: tuple[Shape, ...], section: Section, envelope: Envelope) -> Iterator[Fill]:
    """Rows that step down under a ceiling that falls along the wall: the tallest where it stands, then the next."""
    for tallest in range(len(shapes)):
        taken: list[tuple[Family, Row]] = []
        for shape in sorted(shapes[tallest:], key=lambda s: -s.height):
            for start, end in family.stretches(envelope, shape):
                for lo, hi in gaps(start, end, [(r.x, r.end + family.ends) for _, r in taken]):
                    best = max(ways_to_fill(family, shape, envelope, lo, hi), key=lambda c: sum(c[1]), default=None)
                    if best:
                        taken.append((family, Row(shape=shape, x=best[0], widths=best[1])))
        if len({r.shape.height for _, r in taken}) > 1:
            heights = ", ".join(f"{r.shape.height} mm" for _, r in taken)
            yield Fill(section.id, tuple(taken), f"heights step down under the slope: {heights}")


def gaps(start: int, end: int, taken: Iterable[tuple[int, int]]) -> Iterator[tuple[int, int]]:
    at = start
    for a, b in sorted(taken):
        if a > at:
            yield at, min(a, end)
        at = max(at, b)
    if at < end:
        yield at, end
