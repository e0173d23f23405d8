"""One bay: where its compartments stand at the least trouble, and the points of the whole of it."""

from ..columns import (
    ABOVE,
    AGAINST,
    AT_HAND,
    BELOW,
    BIG,
    BY_FOOT,
    BY_TOP,
    C_ABOVE,
    C_BELOW,
    C_BOARD,
    C_COVER,
    C_COVERED,
    C_FOOT,
    C_HI,
    C_LEVEL,
    C_LO,
    C_LOTS,
    C_MASK,
    C_OWNER,
    C_PRICE,
    C_ROLE,
    CLOTHES,
    COLUMN,
    COVER_PRICE,
    CROWD,
    DOUBLE,
    EACH,
    EMPTY,
    FAR,
    FAR_IN,
    FOOD,
    FRONT_COST,
    GROUP,
    HAS_BASE,
    HEADROOM,
    KIND,
    LENGTHS,
    MIXED,
    OPTION,
    OVER_RAIL,
    OWNER,
    OWNERS,
    PIECES,
    PITCHES,
    RAIL,
    SEASON,
    SHELF,
    SHELF_PRICE,
    SHOES,
    STANDS,
    USE,
)
from .compartments import columns_of, weigh
from .compiled import jit


@jit
def in_sequence(plan, s):
    """The compartments of slot `s` as the sequence that is judged next; how many they are."""
    number, sequence = plan[0][s], plan[22]
    for k in range(number):
        sequence[0, k], sequence[1, k] = s, k
    return number


@jit
def stand(wall, plan, n, b, written, limit):
    """Where the `n` compartments in sequence stand in bay `b`, at the least trouble: exact, by a dynamic programme over
    their feet in order. The feet are written where that is asked for; returns the points, `BIG` when they do not stand
    or cost no less than `limit`.
    """
    bays_i, bays_f = wall[6], wall[7]
    held_i, points, back, rows, sequence, line = plan[1], plan[6], plan[7], plan[15], plan[22], plan[23]
    work = plan[16]
    pitches = bays_i[b, PITCHES]
    if n == 0:
        return 0.0
    clean, rest = False, 0
    for k in range(n):
        s, i = sequence[0, k], sequence[1, k]
        rest += held_i[s, i, C_BELOW] + held_i[s, i, C_ABOVE]
        if held_i[s, i, C_MASK] & (CLOTHES | FOOD):
            clean = True
        if clean and held_i[s, i, C_MASK] & SHOES:
            return BIG
    if rest > pitches:
        return BIG
    cover = bays_f[b, COVER_PRICE]
    # What the heights that are still to come may better it by.
    hope = bays_f[b, SHELF_PRICE] + n * plan[24][b]
    before, unit_before, low_before, high_before, cover_before = -1, 0, 0, 0, 0
    for k in range(n):
        s, i = sequence[0, k], sequence[1, k]
        units, board = held_i[s, i, C_BELOW] + held_i[s, i, C_ABOVE], held_i[s, i, C_BOARD] != 0
        level, up = held_i[s, i, C_LEVEL], units if held_i[s, i, C_LEVEL] == BY_TOP else 0
        # What stands above it must still go in.
        low, high = held_i[s, i, C_LO], min(held_i[s, i, C_HI], pitches - rest)
        rest -= units
        if k > 0:
            low = max(low, low_before + unit_before)
        if low > high:
            return BIG
        work[0] += high - low + 1
        least, at, pointer, cheapest = BIG, -1, low_before, BIG
        for p in range(low, high + 1):
            if k == 0:
                total, origin = 0.0, -1
            else:
                highest = min(p - unit_before - cover_before, high_before)
                while pointer <= highest:
                    if points[before, pointer] < least:
                        least, at = points[before, pointer], pointer
                    pointer += 1
                total, origin = least + cover * cover_before, at
                if cover_before and board:
                    touching = p - unit_before
                    if low_before <= touching <= high_before and points[before, touching] < total:
                        total, origin = points[before, touching], touching
            total += rows[s, i, p]
            if total < BIG:
                if level:
                    total -= line[b, p + up]
                if board and k == 0 and p == 0 and bays_i[b, HAS_BASE]:
                    total -= bays_f[b, SHELF_PRICE]
            cheapest = min(cheapest, total)
            points[k, p] = min(total, BIG)
            back[k, p] = origin
        if cheapest >= BIG or cheapest - hope >= limit:
            return BIG
        before, unit_before, low_before, high_before = k, units, low, high
        cover_before = held_i[s, i, C_COVER]
    best, at = BIG, -1
    for p in range(low_before, high_before + 1):
        total = points[before, p]
        if cover_before:
            total = total + cover if p + unit_before + 1 <= pitches else BIG
        if total < best:
            best, at = total, p
    if at < 0 or best >= limit:
        return BIG
    if not written:
        return best
    for k in range(n - 1, -1, -1):
        s, i = sequence[0, k], sequence[1, k]
        held_i[s, i, C_FOOT], held_i[s, i, C_COVERED] = at, 0
        if held_i[s, i, C_COVER]:
            top, touched = at + held_i[s, i, C_BELOW] + held_i[s, i, C_ABOVE], False
            if k + 1 < n:
                over, j = sequence[0, k + 1], sequence[1, k + 1]
                touched = held_i[over, j, C_BOARD] != 0 and held_i[over, j, C_FOOT] == top
            held_i[s, i, C_COVERED] = 0 if touched else 1
        at = back[k, at]
    return best


@jit
def bay_points(wall, plan, s, b, written):
    """All points of slot `s` as bay `b`; `BIG` when it does not stand. Its feet are `written` or only tried."""
    return points_of(wall, plan, in_sequence(plan, s), b, written, BIG)


@jit
def over_another(held_i, s, k, rails_of, drop):
    """Whether a rail makes a double hang with the one below it: of one owner, and what is longer hangs above, as people
    hang shirts over trousers.
    """
    return held_i[s, k, C_OWNER] == rails_of and held_i[s, k, C_BELOW] >= drop


@jit
def points_of(wall, plan, n, b, written, limit):
    """The same of the `n` compartments in sequence; `BIG` as well when it comes to no less than `limit`. Where the feet
    are not written, one of them is the scratch bay's, which is weighed only if it comes to that.
    """
    options_i, options_f, groups, bays_i, bays_f, weights = wall[1], wall[2], wall[5], wall[6], wall[7], wall[9]
    held_i, held_f, lots, sequence = plan[1], plan[2], plan[3], plan[22]
    if n == 0:
        return weights[EMPTY] if bays_f[b, STANDS] > 0 else 0.0
    total = 0.0
    hung, boards, owners, seen = False, 0, 0, 0
    rails, rails_of, drop = 0, 0, 0
    far = weights[FAR_IN] * bays_f[b, FAR] / 100
    for i in range(n):
        s, k = sequence[0, i], sequence[1, i]
        total += held_f[s, k, C_PRICE] + bays_f[b, FRONT_COST] * (held_i[s, k, C_BELOW] + held_i[s, k, C_ABOVE])
        boards += held_i[s, k, C_BOARD]
        kinds, last, alike = 0, -1, 0
        for j in range(held_i[s, k, C_LOTS]):
            g, o, m = lots[s, k, j, GROUP], lots[s, k, j, OPTION], lots[s, k, j, PIECES]
            total += columns_of(m, options_i[o, EACH]) * options_f[o, COLUMN] + options_f[o, AGAINST]
            total += far * groups[g, USE]
            if groups[g, KIND] != last:
                kinds += 1
                last = groups[g, KIND]
            alike += 1
            if groups[g, OWNER] > 0 and groups[g, SEASON] == 0:
                bit = 1 << min(groups[g, OWNER], 60)
                if seen & bit == 0:
                    seen |= bit
                    owners += 1
        if held_i[s, k, C_BELOW] == 0 or held_i[s, k, C_COVER]:
            if held_i[s, k, C_LEVEL] == BY_FOOT:
                for j in range(held_i[s, k, C_LOTS]):
                    total += weights[HEADROOM] * (held_i[s, k, C_ABOVE] - options_i[lots[s, k, j, OPTION], ABOVE])
            most = 4 if held_i[s, k, C_COVER] else 3
            if alike > most:
                total += weights[CROWD] * (alike - most)
            if kinds > 1:
                total += weights[MIXED] * (kinds - 1)
            if hung and held_i[s, k, C_COVER]:
                total += weights[OVER_RAIL]
        else:
            hung = True
            if held_i[s, k, C_ROLE] == RAIL and held_i[s, k, C_OWNER] > 0:
                rails = rails + 1 if rails == 0 or over_another(held_i, s, k, rails_of, drop) else 0
                rails_of, drop = held_i[s, k, C_OWNER], held_i[s, k, C_BELOW]
            for j in range(held_i[s, k, C_LOTS]):
                total += weights[LENGTHS] * (held_i[s, k, C_BELOW] - options_i[lots[s, k, j, OPTION], BELOW])
    if owners > 1:
        total += weights[OWNERS] * (owners - 1)
    if rails > 1:
        total -= weights[DOUBLE]
    # A board is no shallower than those over it, so it costs no less.
    dearest = 0.0
    for i in range(n - 1, -1, -1):
        s, k = sequence[0, i], sequence[1, i]
        if held_i[s, k, C_ROLE] == SHELF:
            dearest = max(dearest, held_f[s, k, C_PRICE])
            total += dearest - held_f[s, k, C_PRICE]
    if bays_i[b, AT_HAND]:
        total -= bays_f[b, SHELF_PRICE] * min(boards, bays_i[b, AT_HAND])
    # The heights last: most of what is tried costs too much wherever it stands.
    if total - bays_f[b, SHELF_PRICE] - n * plan[24][b] >= limit:
        return BIG
    if not written:
        weigh(wall, plan, bays_i.shape[0], 0, b)
    heights = stand(wall, plan, n, b, written, limit - total)
    return total + heights if heights < BIG else BIG
