"""The search's inner loop, compiled: a wall of bays, each a stack of compartments from the floor up.

Heights are derived, not searched: a compartment is as high as its tallest content asks, and an exact dynamic programme
over the pitches of a bay says where each stands (`stand`). Groups are set in by best fit (`place`): every compartment
that takes some pieces, or a new one at every place of the stack, judged by what it does to the whole bay. The search
ruins a part of the wall, sets what came out in again, and accepts by annealing (`improve`).

Plain arrays in, plain arrays out; `arrays` fills and `answer` reads them. All randomness is the *minimal standard*
generator x ← 48271·x mod (2³¹ − 1) (Park and Miller 1988, Communications of the ACM 31; multiplier of 1993; from
memory), so the compiled and the plain form take the same steps. Compiled by numba, kept on disk; with
`NUMBA_DISABLE_JIT=1` the same functions run as plain Python, slowly.

`wall` is the tuple of what is given, `plan` that of what is searched: compartments of each bay, what is in them and
what is left out. The last row of the plan's arrays is a scratch bay, on which changes are tried.
"""

from typing import Any

import numpy as np
from numba import njit

from .columns import (
    ABOVE,
    AGAINST,
    APART,
    AT_HAND,
    BELOW,
    BIG,
    BLOCKS,
    BOARD,
    BY_FOOT,
    BY_TOP,
    C_ABOVE,
    C_BELOW,
    C_BOARD,
    C_CAPACITY,
    C_COVER,
    C_COVERED,
    C_FLOOR,
    C_FOOT,
    C_HI,
    C_LEVEL,
    C_LO,
    C_LOTS,
    C_MASK,
    C_MASS,
    C_OWNER,
    C_PRICE,
    C_RATING,
    C_ROLE,
    C_USED,
    CAPACITY,
    CLASS,
    CLOTHES,
    COLUMN,
    COUNT,
    COVER_PRICE,
    COVERED,
    CROWD,
    DOUBLE,
    EACH,
    EMPTY,
    EVERYBODY,
    FAR,
    FAR_IN,
    FLOOR,
    FOOD,
    FREE,
    FRONT_COST,
    GROUP,
    HAS_BASE,
    HEADROOM,
    HIGHEST,
    KIN,
    KIND,
    KINS,
    LAST,
    LEAST,
    LENGTHS,
    LEVEL,
    LINE,
    LINED,
    LINES,
    LOOSE,
    LOWEST,
    MASS,
    MIXED,
    MODULUS,
    MOST_COMPARTMENTS,
    MOST_LOTS,
    MULTIPLIER,
    NEXT,
    OPTION,
    OUT,
    OUT_PIECE,
    OVER_RAIL,
    OWNER,
    OWNER_RUNS,
    OWNERS,
    PIECES,
    PITCHES,
    PRICE,
    RAIL,
    RATING,
    RESERVE,
    ROLE,
    ROW,
    SEASON,
    SECTION,
    SHELF,
    SHELF_PRICE,
    SHOES,
    SPLIT,
    STANDS,
    STEP,
    STORE,
    STORES,
    TARE,
    TOLERANCE,
    TRIED,
    TYPE,
    UNEVEN,
    USE,
    WALLS,
    WORD,
    WORDS,
)

# Without numba's count of references nothing can be allocated here, and a move takes a third of the time: the count is
# atomic, was kept at every call, and both cores kept it of the same arrays.
HOW: Any = {"nogil": True, "error_model": "numpy", "_nrt": False}
jit: Any = njit(**HOW, no_cpython_wrapper=True, no_cfunc_wrapper=True)  # type: ignore[call-overload]
BEGIN, IMPROVE, LINE_UP, RECKON = range(4)
"""What `run` is asked to do."""
STEPS, MOVE = 30, 2800
"""Feet that are judged in the time that one compartment of a stack is reckoned in, and in that of a move's upkeep."""
USUAL = 11_000
"""What a move of usual size comes to, in feet judged."""


@jit
def next_random(state):
    """The next state of the generator."""
    return (state * MULTIPLIER) % MODULUS


@jit
def columns_of(pieces, each):
    """Columns that so many pieces take."""
    return (pieces + each - 1) // each


@jit
def mass_of(options_f, o, pieces, each):
    """Kilograms of so many pieces, with the containers of their columns."""
    return pieces * options_f[o, MASS] + columns_of(pieces, each) * options_f[o, TARE]


@jit
def borne(options_f, o, each, kilograms):
    """The most pieces that weigh no more than so much, with the containers of their columns."""
    one, tare = options_f[o, MASS], options_f[o, TARE]
    column = one * each + tare
    if column <= 0:
        return 1 << 30
    whole = int(kilograms / column + 1e-9)
    rest = kilograms - whole * column - tare
    return whole * each + (min(each - 1, int(rest / one + 1e-9)) if rest > 0 and one > 0 else 0)


@jit
def recount(wall, plan, s, k, b):
    """What a compartment of slot `s` is in bay `b`, from what is in it."""
    options_i, options_f, groups, bays_i = wall[1], wall[2], wall[5], wall[6]
    held_i, held_f, lots = plan[1], plan[2], plan[3]
    first = lots[s, k, 0, OPTION]
    held_i[s, k, C_ROLE] = options_i[first, ROLE]
    held_i[s, k, C_FLOOR], held_i[s, k, C_COVER], held_i[s, k, C_BOARD], held_i[s, k, C_LEVEL] = (
        options_i[first, FLOOR],
        options_i[first, COVERED],
        options_i[first, BOARD],
        options_i[first, LEVEL],
    )
    below, above, mask, owner = 0, 0, 0, 0
    used, mass, price = 0.0, 0.0, 0.0
    for j in range(held_i[s, k, C_LOTS]):
        g, o, n = lots[s, k, j, GROUP], lots[s, k, j, OPTION], lots[s, k, j, PIECES]
        below, above = max(below, options_i[o, BELOW]), max(above, options_i[o, ABOVE])
        mask |= groups[g, CLASS]
        if groups[g, OWNER] > 0:
            owner = groups[g, OWNER] if owner in (0, groups[g, OWNER]) else EVERYBODY
        used += columns_of(n, options_i[o, EACH]) * options_f[o, STEP]
        mass += mass_of(options_f, o, n, options_i[o, EACH])
        if j == 0 or options_f[o, PRICE] > price:
            # A board is as deep as the deepest on it asks, and carries what that one does.
            price = options_f[o, PRICE]
            held_f[s, k, C_RATING] = options_f[o, RATING]
    low, high = 0, 100000
    for j in range(held_i[s, k, C_LOTS]):
        o = lots[s, k, j, OPTION]
        low = max(low, options_i[o, LOWEST] + options_i[o, BELOW] - below)
        high = min(high, options_i[o, HIGHEST] + options_i[o, BELOW] - below)
    (
        held_i[s, k, C_BELOW],
        held_i[s, k, C_ABOVE],
        held_i[s, k, C_LO],
        held_i[s, k, C_HI],
        held_i[s, k, C_MASK],
        held_i[s, k, C_OWNER],
    ) = below, above, low, high, mask, owner
    held_f[s, k, C_USED], held_f[s, k, C_MASS], held_f[s, k, C_PRICE] = used, mass, price
    held_f[s, k, C_CAPACITY] = options_f[first, CAPACITY]
    held_i[s, k, C_HI] = min(high, bays_i[b, PITCHES] - below - above, bays_i[b, LAST] - below)


@jit
def weigh(wall, plan, s, k, b):
    """The points of a compartment of slot `s` at every foot in bay `b`."""
    options_i, troubles, bays_i, blocked = wall[1], wall[3], wall[6], wall[8]
    held_i, lots, rows = plan[1], plan[3], plan[15]
    below, low, high = held_i[s, k, C_BELOW], held_i[s, k, C_LO], held_i[s, k, C_HI]
    units, width = below + held_i[s, k, C_ABOVE], troubles.shape[1]
    for p in range(low, high + 1):
        rows[s, k, p] = 0.0
    for j in range(held_i[s, k, C_LOTS]):
        o = lots[s, k, j, OPTION]
        one, shift = options_i[o, ROW], below - options_i[o, BELOW]
        for p in range(low, high + 1):
            rows[s, k, p] += troubles[one, min(p + shift, width - 1)]
    free = bays_i[b, LOOSE] == 1 or held_i[s, k, C_FLOOR] == 1
    for r in range(bays_i[b, BLOCKS]):
        if not (free and blocked[b, r, 2] == 1):
            for p in range(max(low, blocked[b, r, 0] - units + 1), min(high, blocked[b, r, 1] - 1) + 1):
                rows[s, k, p] = BIG


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


@jit
def room_for(wall, plan, s, k, g, o):
    """Pieces of group `g` that option `o` may add to a compartment."""
    options_i, options_f, groups, apart = wall[1], wall[2], wall[5], wall[10]
    held_i, held_f, lots = plan[1], plan[2], plan[3]
    if held_i[s, k, C_ROLE] != options_i[o, ROLE] or held_i[s, k, C_FLOOR] != options_i[o, FLOOR]:
        return 0
    if held_i[s, k, C_MASK] & apart[groups[g, CLASS]]:
        return 0
    mine = groups[g, OWNER]
    if held_i[s, k, C_OWNER] != 0 and mine > 0 and held_i[s, k, C_OWNER] != mine:
        # What is out of season hangs with what is out of season, whoever wears it.
        if groups[g, SEASON] == 0:
            return 0
        for j in range(held_i[s, k, C_LOTS]):
            other = lots[s, k, j, GROUP]
            if groups[other, SEASON] == 0 and groups[other, OWNER] > 0:
                return 0
    each, step = options_i[o, EACH], options_f[o, STEP]
    there = 0
    for j in range(held_i[s, k, C_LOTS]):
        if lots[s, k, j, GROUP] == g and lots[s, k, j, OPTION] == o:
            there = lots[s, k, j, PIECES]
    if there == 0 and held_i[s, k, C_LOTS] == MOST_LOTS:
        return 0
    free = held_f[s, k, C_CAPACITY] - held_f[s, k, C_USED] + columns_of(there, each) * step
    rating = options_f[o, RATING] if options_f[o, PRICE] > held_f[s, k, C_PRICE] else held_f[s, k, C_RATING]
    bearing = rating - held_f[s, k, C_MASS] + mass_of(options_f, o, there, each)
    return max(min(int(free / step + 1e-9) * each, borne(options_f, o, each, bearing)) - there, 0)


@jit
def most_in(wall, o):
    """Pieces that an option puts into a compartment of its own."""
    options_i, options_f = wall[1], wall[2]
    each = options_i[o, EACH]
    return min(
        int(options_f[o, CAPACITY] / options_f[o, STEP] + 1e-9) * each, borne(options_f, o, each, options_f[o, RATING])
    )


@jit
def _copy(plan, s, k, t, r):
    """What compartment `k` of slot `s` is, and its lots, as compartment `r` of slot `t`."""
    held_i, held_f, lots = plan[1], plan[2], plan[3]
    for i in range(held_i.shape[2]):
        held_i[t, r, i] = held_i[s, k, i]
    for i in range(held_f.shape[2]):
        held_f[t, r, i] = held_f[s, k, i]
    for j in range(held_i[s, k, C_LOTS]):
        for i in range(3):
            lots[t, r, j, i] = lots[s, k, j, i]


@jit
def _move(plan, s, k, t, r):
    """The same with its points at every foot."""
    held_i, rows = plan[1], plan[15]
    _copy(plan, s, k, t, r)
    for p in range(held_i[s, k, C_LO], held_i[s, k, C_HI] + 1):
        rows[t, r, p] = rows[s, k, p]


@jit
def add_lot(wall, plan, s, k, b, g, o, n):
    """Pieces into a compartment that is there."""
    c, lots = plan[1][s, k], plan[3]
    for j in range(c[C_LOTS]):
        if lots[s, k, j, GROUP] == g and lots[s, k, j, OPTION] == o:
            lots[s, k, j, PIECES] += n
            recount(wall, plan, s, k, b)
            return
    j = c[C_LOTS]
    lots[s, k, j, GROUP], lots[s, k, j, OPTION], lots[s, k, j, PIECES] = g, o, n
    c[C_LOTS] = j + 1
    recount(wall, plan, s, k, b)


@jit
def add_compartment(wall, plan, s, at, b, g, o, n):
    """A new compartment at a place of the stack."""
    count = plan[0]
    for k in range(count[s], at, -1):
        _move(plan, s, k - 1, s, k)
    count[s] += 1
    plan[1][s, at, C_LOTS] = 0
    add_lot(wall, plan, s, at, b, g, o, n)
    weigh(wall, plan, s, at, b)


@jit
def take_out(wall, plan, s, k, b, j):
    """A lot out of its compartment; the compartment goes when nothing is left. Returns whether it went."""
    count, held_i, lots = plan[0], plan[1], plan[3]
    last = held_i[s, k, C_LOTS] - 1
    for i in range(3):
        lots[s, k, j, i] = lots[s, k, last, i]
    held_i[s, k, C_LOTS] = last
    if last > 0:
        recount(wall, plan, s, k, b)
        weigh(wall, plan, s, k, b)
        return False
    for r in range(k, count[s] - 1):
        _move(plan, s, r + 1, s, r)
    count[s] -= 1
    return True


@jit
def place(wall, plan, g, pieces, state, noise):
    """Best fit of so many pieces of a group, as many at a time as one compartment takes; what finds no place is left
    out. Returns the generator's state.
    """
    starts, options_i, options_f, bays_i, bays_f, weights = wall[0], wall[1], wall[2], wall[6], wall[7], wall[9]
    count, held_i, worth, work, sequence = plan[0], plan[1], plan[4], plan[16], plan[22]
    bays, group_count = bays_i.shape[0], wall[5].shape[0]
    scratch = bays
    guess, guessed, gains = plan[25], plan[26], plan[27]
    while pieces > 0:
        best, best_bay, best_k, best_at, best_option, best_n = BIG, -1, -1, -1, -1, 0
        tried = 0
        for b in range(bays):
            if bays_i[b, PITCHES] == 0:
                continue
            total_units = 0
            for k in range(count[b]):
                total_units += held_i[b, k, C_BELOW] + held_i[b, k, C_ABOVE]
            slack = bays_i[b, PITCHES] - total_units
            # What a new compartment may save: the points of an empty bay, a shelf that is at hand or the base.
            gains[b] = bays_f[b, SHELF_PRICE] + weights[DOUBLE] + (weights[EMPTY] if count[b] == 0 else 0.0)
            row = bays_i[b, TYPE] * group_count + g
            for o in range(starts[row], starts[row + 1]):
                for k in range(count[b]):
                    n = min(pieces, room_for(wall, plan, b, k, g, o))
                    if n == 0:
                        continue
                    c = held_i[b, k]
                    below, above = max(c[C_BELOW], options_i[o, BELOW]), max(c[C_ABOVE], options_i[o, ABOVE])
                    if below + above - c[C_BELOW] - c[C_ABOVE] > slack:
                        continue
                    state = next_random(state)
                    left = weights[SPLIT] * (1.0 + (pieces - n) / pieces) if n < pieces else 0.0
                    shift = left + noise * state / MODULUS
                    # No bay gets better by what is added: the least that it may come to.
                    if shift + options_f[o, LEAST] + options_f[o, AGAINST] >= best:
                        continue
                    _copy(plan, b, k, scratch, 0)
                    add_lot(wall, plan, scratch, 0, b, g, o, n)
                    number = in_sequence(plan, b)
                    sequence[0, k], sequence[1, k] = scratch, 0
                    score = points_of(wall, plan, number, b, False, best + worth[b] - shift) - worth[b] + shift
                    work[0] += STEPS * number
                    if score < best:
                        best, best_bay, best_k, best_at, best_option, best_n = score, b, k, -1, o, n
                units = options_i[o, BELOW] + options_i[o, ABOVE]
                if units > slack or count[b] == MOST_COMPARTMENTS:
                    continue
                n = min(pieces, most_in(wall, o))
                if n == 0:
                    continue
                state = next_random(state)
                left = weights[SPLIT] * (1.0 + (pieces - n) / pieces) if n < pieces else 0.0
                rough = options_f[o, PRICE] + options_f[o, AGAINST] + left + noise * state / MODULUS
                rough += columns_of(n, options_i[o, EACH]) * options_f[o, COLUMN]
                rough += options_f[o, LEAST]
                if rough - gains[b] >= best:
                    continue
                if tried < TRIED:
                    at = tried
                    tried += 1
                else:
                    at = 0
                    for i in range(1, TRIED):
                        if guess[i] > guess[at]:
                            at = i
                    if guess[at] <= rough:
                        continue
                guess[at], guessed[at, 0], guessed[at, 1] = rough, b, o
        for i in range(tried):
            b, o = guessed[i, 0], guessed[i, 1]
            if guess[i] - gains[b] >= best:
                continue
            n = min(pieces, most_in(wall, o))
            left = weights[SPLIT] * (1.0 + (pieces - n) / pieces) if n < pieces else 0.0
            held_i[scratch, 0, C_LOTS] = 0
            add_lot(wall, plan, scratch, 0, b, g, o, n)
            for at in range(count[b] + 1):
                state = next_random(state)
                for k in range(count[b]):
                    sequence[0, k + (k >= at)], sequence[1, k + (k >= at)] = b, k
                sequence[0, at], sequence[1, at] = scratch, 0
                work[0] += STEPS * (count[b] + 1)
                shift = left + noise * state / MODULUS
                score = points_of(wall, plan, count[b] + 1, b, False, best + worth[b] - shift) - worth[b] + shift
                if score < best:
                    best, best_bay, best_k, best_at, best_option, best_n = score, b, -1, at, o, n
        if best_bay < 0 or best >= BIG / 2:
            plan[5][g] += pieces
            return state
        if best_k >= 0:
            add_lot(wall, plan, best_bay, best_k, best_bay, g, best_option, best_n)
            weigh(wall, plan, best_bay, best_k, best_bay)
        else:
            add_compartment(wall, plan, best_bay, best_at, best_bay, g, best_option, best_n)
        worth[best_bay] = bay_points(wall, plan, best_bay, best_bay, True)
        pieces -= best_n
    return state


@jit
def all_points(wall, plan):
    """Points of the whole wall: its bays, what is left out, what lies in more places than one, and the reserve."""
    options_i, options_f = wall[1], wall[2]
    groups, bays_i, bays_f, weights, in_order = wall[5], wall[6], wall[7], wall[9], wall[11]
    count, held_i, held_f, lots, worth, out, words = plan[0], plan[1], plan[2], plan[3], plan[4], plan[5], plan[8]
    given, asked, places, bays_of, last = plan[9], plan[10], plan[11], plan[12], plan[13]
    owners_in, walls_of, last_wall, kins = plan[17], plan[18], plan[19], plan[20]
    serial, uneven, double_bays, doubled = 0, 0, 0, 0
    foot_of = plan[21]
    for i in range(kins.shape[1]):
        kins[0, i], kins[1, i] = 0, -1
    total = 0.0
    bays = bays_i.shape[0]
    for store in range(STORES):
        given[store], asked[store] = 0.0, 0.0
    for g in range(places.shape[0]):
        places[g], bays_of[g], last[g] = 0, 0, -1
        walls_of[g], last_wall[g] = 0, -1
    for w in range(words.shape[0]):
        for b in range(words.shape[1]):
            words[w, b] = 0
    for b in range(bays):
        total += worth[b]
        owners_in[b] = 0
        section = int(bays_f[b, SECTION])
        rails, rails_of, drop = 0, 0, 0
        for k in range(count[b]):
            serial += 1
            foot = held_i[b, k, C_FOOT] + held_i[b, k, C_BELOW]
            if held_i[b, k, C_ROLE] == RAIL and held_i[b, k, C_OWNER] > 0:
                rails = rails + 1 if rails == 0 or over_another(held_i, b, k, rails_of, drop) else 0
                rails_of, drop = held_i[b, k, C_OWNER], held_i[b, k, C_BELOW]
            used, capacity = held_f[b, k, C_USED], held_f[b, k, C_CAPACITY]
            for j in range(held_i[b, k, C_LOTS]):
                g, o, n = lots[b, k, j, GROUP], lots[b, k, j, OPTION], lots[b, k, j, PIECES]
                amount = columns_of(n, options_i[o, EACH]) * options_f[o, STEP]
                asked[options_i[o, STORE]] += amount
                given[options_i[o, STORE]] += capacity * amount / used
                if places[g] == 0:
                    foot_of[g] = foot
                elif foot_of[g] != foot:
                    uneven += 1
                places[g] += 1
                if last[g] != b:
                    beside = last[g] >= 0 and (bays_i[last[g], NEXT] == b or bays_i[b, NEXT] == last[g])
                    if not (beside and foot_of[g] == foot):
                        bays_of[g] += 1  # at one height in neighbouring bays it is still together
                    last[g] = b
                    if last_wall[g] != section:
                        walls_of[g] += 1
                        last_wall[g] = section
                kin = groups[g, KIN]
                if kins[1, kin] != serial:
                    kins[0, kin] += 1
                    kins[1, kin] = serial
                if groups[g, OWNER] > 0 and groups[g, SEASON] == 0:
                    owners_in[b] |= 1 << min(groups[g, OWNER], 60)
                if groups[g, WORD] >= 0:
                    words[groups[g, WORD], b] = 1
        if rails > 1:
            double_bays += 1
            doubled |= 1 << min(rails_of, 60)
    total += weights[UNEVEN] * uneven
    # One double hang for everybody is worth something, not one more.
    while doubled:
        doubled &= doubled - 1
        double_bays -= 1
    total += weights[DOUBLE] * double_bays
    for g in range(groups.shape[0]):
        if out[g] > 0:
            total += weights[OUT] * out[g] / groups[g, COUNT] + weights[OUT_PIECE] * out[g]
        if places[g] > 1:
            total += weights[SPLIT] * (places[g] - 1) + weights[APART] * (bays_of[g] - 1)
            total += weights[WALLS] * (walls_of[g] - 1)
    for store in range(STORES):
        if asked[store] > 0:
            free = 1.0 - asked[store] / given[store]
            if free < weights[FREE]:
                total += weights[RESERVE] * (weights[FREE] - free)
    for w in range(words.shape[0]):
        number = 0
        for b in range(bays):
            number += words[w, b]
        if number > 1:
            total += weights[WORDS] * (number - 1)
    for i in range(kins.shape[1]):
        if kins[0, i] > 1:
            total += weights[KINS] * (kins[0, i] - 1)
    # Everybody's bays follow one another: each stretch of them beyond the first costs.
    before, met, stretches = 0, 0, 0
    for i in range(in_order.shape[0]):
        here = owners_in[in_order[i]]
        if here == 0:
            continue
        new = here & ~before
        while new:
            new &= new - 1
            stretches += 1
        met |= here
        before = here
    while met:
        met &= met - 1
        stretches -= 1
    return total + weights[OWNER_RUNS] * stretches + weights[LINES] * lines_missed(wall, plan)


@jit
def level_of(held_i, b, k):
    """At what pitch a compartment makes a line with its neighbours': that of its board, or the top of its front; -1 for
    what makes none.
    """
    if held_i[b, k, C_LEVEL] == 0:
        return -1
    up = held_i[b, k, C_BELOW] + held_i[b, k, C_ABOVE] if held_i[b, k, C_LEVEL] == BY_TOP else 0
    return held_i[b, k, C_FOOT] + up


@jit
def lines_missed(wall, plan):
    """Heights short of those that neighbouring bays should share; with what the bays' points were bettered by for heights
    at which they were drawn, in units of a line.
    """
    bays_i, weights, count, held_i, line = wall[6], wall[9], plan[0], plan[1], plan[23]
    could, shared, drawn = 0, 0, 0.0
    for b in range(bays_i.shape[0]):
        mine, theirs, beside = 0, 0, bays_i[b, NEXT]
        for k in range(count[b]):
            at = level_of(held_i, b, k)
            if at >= 0:
                mine += 1
                drawn += line[b, at]
        if beside < 0:
            continue
        for k in range(count[beside]):
            theirs += 1 if held_i[beside, k, C_LEVEL] else 0
        could += min(mine, theirs)
        j = 0
        for k in range(count[b]):
            at = level_of(held_i, b, k)
            while at >= 0 and j < count[beside]:
                there = level_of(held_i, beside, j)
                if there > at + TOLERANCE:
                    break
                j += 1
                if there >= at - TOLERANCE and there >= 0:
                    shared += 1
                    break
    missed = max(0.0, np.ceil(weights[LINED] * could - 1e-6) - shared)
    return missed + (drawn / weights[LINES] if weights[LINES] > 0 else 0.0)


@jit
def draw(wall, plan, b, points):
    """What a bay's points are bettered by at the heights that its neighbours have, and by less at those of the others of
    its row; half as much so near to them that it looks like one line.
    """
    bays_i, count, held_i, line = wall[6], plan[0], plan[1], plan[23]
    line[b], plan[24][b] = 0.0, points
    for other in range(bays_i.shape[0]):
        if other == b or bays_i[other, LINE] != bays_i[b, LINE]:
            continue
        share = points if bays_i[b, NEXT] == other or bays_i[other, NEXT] == b else 0.4 * points
        for k in range(count[other]):
            at = level_of(held_i, other, k)
            if at >= 0:
                for p in range(max(0, at - TOLERANCE), min(at + TOLERANCE, line.shape[1] - 1) + 1):
                    line[b, p] = max(line[b, p], share if p == at else 0.5 * share)


@jit
def draw_all(wall, plan, points, rounds):
    """Every bay in its turn drawn to the heights of the others, and standing anew."""
    for _ in range(rounds):
        for b in range(wall[6].shape[0]):
            if plan[0][b] > 0:
                draw(wall, plan, b, points)
                plan[4][b] = bay_points(wall, plan, b, b, True)
            else:
                plan[23][b], plan[24][b] = 0.0, 0.0


@jit
def copy_plan(plan, other, bays):
    """One plan as another."""
    for b in range(bays):
        other[0][b] = plan[0][b]
        for k in range(plan[0][b]):
            for i in range(plan[1].shape[2]):
                other[1][b, k, i] = plan[1][b, k, i]
            for i in range(plan[2].shape[2]):
                other[2][b, k, i] = plan[2][b, k, i]
            for j in range(plan[1][b, k, C_LOTS]):
                for i in range(3):
                    other[3][b, k, j, i] = plan[3][b, k, j, i]
            for p in range(plan[1][b, k, C_LO], plan[1][b, k, C_HI] + 1):
                other[15][b, k, p] = plan[15][b, k, p]
        other[4][b] = plan[4][b]
        for p in range(plan[23].shape[1]):
            other[23][b, p] = plan[23][b, p]
        other[24][b] = plan[24][b]
    for g in range(plan[5].shape[0]):
        other[5][g] = plan[5][g]


@jit
def _out(wall, plan, b, k, j, removed):
    lots = plan[3]
    removed[lots[b, k, j, GROUP]] += lots[b, k, j, PIECES]
    return take_out(wall, plan, b, k, b, j)


@jit
def _bay_out(wall, plan, b, removed):
    while plan[0][b] > 0:
        _out(wall, plan, b, plan[0][b] - 1, 0, removed)


@jit
def _group_out(wall, plan, g, removed):
    count, held_i, lots, worth = plan[0], plan[1], plan[3], plan[4]
    for b in range(wall[6].shape[0]):
        changed, k = False, 0
        while k < count[b]:
            j, gone = 0, False
            while j < held_i[b, k, C_LOTS]:
                if lots[b, k, j, GROUP] == g:
                    changed = True
                    gone = _out(wall, plan, b, k, j, removed)
                    if gone:
                        break
                else:
                    j += 1
            if not gone:
                k += 1
        if changed:
            worth[b] = bay_points(wall, plan, b, b, True)


@jit
def hanging(wall, g, b):
    """The option by which a group hangs lowest in a bay; -1 where it does not hang there."""
    starts, options_i, bays_i = wall[0], wall[1], wall[6]
    row, least = bays_i[b, TYPE] * wall[5].shape[0] + g, -1
    for o in range(starts[row], starts[row + 1]):
        units = options_i[o, BELOW] + options_i[o, ABOVE]
        if options_i[o, ROLE] == RAIL and (least < 0 or units < options_i[least, BELOW] + options_i[least, ABOVE]):
            least = o
    return least


@jit
def hang_double(wall, plan, removed, state):
    """A bay taken for two rails, one above the other, with two groups of one owner on them; what else is of that length
    comes in by best fit. This is what people build first, and what single moves seldom come upon.
    """
    groups, bays_i, options_i = wall[5], wall[6], wall[1]
    number = groups.shape[0]
    state = next_random(state)
    b = state % bays_i.shape[0]
    state = next_random(state)
    under = state % number
    state = next_random(state)
    if bays_i[b, PITCHES] == 0 or groups[under, OWNER] <= 0:
        return state
    low = hanging(wall, under, b)
    if low < 0:
        return state
    for step in range(number):
        over = (state + step) % number
        if over == under or groups[over, OWNER] != groups[under, OWNER]:
            continue
        high = hanging(wall, over, b)
        if high < 0:
            continue
        units = options_i[low, BELOW] + options_i[low, ABOVE] + options_i[high, BELOW] + options_i[high, ABOVE]
        if units > bays_i[b, PITCHES]:
            continue
        _bay_out(wall, plan, b, removed)
        _group_out(wall, plan, under, removed)
        _group_out(wall, plan, over, removed)
        for k in range(2):
            g, o = (under, low) if k == 0 else (over, high)
            n = min(removed[g], most_in(wall, o))
            if n > 0:
                add_compartment(wall, plan, b, plan[0][b], b, g, o, n)
                removed[g] -= n
        plan[4][b] = bay_points(wall, plan, b, b, True)
        break
    return state


@jit
def ruin(wall, plan, removed, state):
    """Take a part of the wall out: lots at random, whole compartments, one group or two everywhere, a bay; or a bay is
    made one of two rails.
    """
    groups, bays_i, weights = wall[5], wall[6], wall[9]
    count, held_i, worth = plan[0], plan[1], plan[4]
    bays, number = bays_i.shape[0], groups.shape[0]
    full = 0
    for b in range(bays):
        full += 1 if count[b] > 0 else 0
    state = next_random(state)
    kind = state % 100
    if full == 0:
        return state
    if weights[DOUBLE] > 0 and kind >= 92:
        state = hang_double(wall, plan, removed, state)
    elif kind < 22:
        state = next_random(state)
        rounds = 1 + state % 4
        for _ in range(rounds):
            state = next_random(state)
            b = state % bays
            if count[b] == 0:
                continue
            state = next_random(state)
            k = state % count[b]
            state = next_random(state)
            _out(wall, plan, b, k, state % held_i[b, k, C_LOTS], removed)
            worth[b] = bay_points(wall, plan, b, b, True)
    elif kind < 62:
        state = next_random(state)
        rounds = 1 + state % 3
        for _ in range(rounds):
            state = next_random(state)
            b = state % bays
            if count[b] == 0:
                continue
            state = next_random(state)
            k = state % count[b]
            while not _out(wall, plan, b, k, 0, removed):
                pass
            worth[b] = bay_points(wall, plan, b, b, True)
    elif kind < 82:
        state = next_random(state)
        rounds = 1 + state % 3
        for _ in range(rounds):
            state = next_random(state)
            _group_out(wall, plan, state % number, removed)
    else:
        state = next_random(state)
        rounds = 1 + (1 if state % 3 == 0 else 0)
        for _ in range(rounds):
            state = next_random(state)
            b = state % bays
            _bay_out(wall, plan, b, removed)
            worth[b] = bay_points(wall, plan, b, b, True)
    return state


@jit
def set_in(wall, plan, removed, state, noise):
    """All that was taken out or left out, group by group in the order of their turns, a little shuffled."""
    turns = wall[4]
    groups, out, keys = removed.shape[0], plan[5], plan[14]
    for g in range(groups):
        removed[g] += out[g]
        out[g] = 0
        if removed[g] > 0:
            state = next_random(state)
            keys[g] = turns[g] * (0.75 + 0.5 * state / MODULUS)
    while True:
        g = -1
        for h in range(groups):
            if removed[h] > 0 and (g < 0 or keys[h] > keys[g]):
                g = h
        if g < 0:
            return state
        pieces = removed[g]
        removed[g] = 0
        state = place(wall, plan, g, pieces, state, noise)


@jit
def begin(wall, plan, removed, state, noise):
    """Everything set in anew; bays that hold something already keep it. Returns (state, points)."""
    bays = wall[6].shape[0]
    for b in range(bays):
        plan[4][b] = bay_points(wall, plan, b, b, True)
    for g in range(removed.shape[0]):
        removed[g] = 0
    state = set_in(wall, plan, removed, state, noise)
    return state, all_points(wall, plan)


@jit
def improve(wall, plan, best, kept, removed, moves, hot, cold, state, best_points):
    """So many moves of ruin and repair from `plan`, whose best is in `best`; fewer where a move is more work than is
    usual. `kept` is where a move begins. Returns (state, points of the best).
    """
    bays, work, drawn = wall[6].shape[0], plan[16], 0.5 * wall[9][LINES]
    now = all_points(wall, plan)
    copy_plan(plan, kept, bays)
    work[0] = 0
    move = 0
    while move < moves and work[0] < moves * USUAL:
        heat = hot * (cold / hot) ** (max(move, work[0] / USUAL) / moves)
        move += 1
        work[0] += MOVE
        for g in range(removed.shape[0]):
            removed[g] = 0
        state = ruin(wall, plan, removed, state)
        state = next_random(state)
        noise = 0.0 if state % 4 == 0 else heat * 0.5
        state = set_in(wall, plan, removed, state, noise)
        if drawn > 0:
            draw_all(wall, plan, drawn, 1)
        points = all_points(wall, plan)
        state = next_random(state)
        if points <= now or np.exp((now - points) / heat) * MODULUS > state:
            now = points
            copy_plan(plan, kept, bays)
            if points < best_points - 1e-9:
                best_points = points
                copy_plan(plan, best, bays)
        else:
            copy_plan(kept, plan, bays)
    if drawn > 0:
        # The best with every bay where it stands best by itself: a line may cost more than it is worth.
        copy_plan(best, kept, bays)
        for b in range(bays):
            kept[23][b], kept[24][b] = 0.0, 0.0
            kept[4][b] = bay_points(wall, kept, b, b, True)
        points = all_points(wall, kept)
        if points < best_points - 1e-9:
            best_points = points
            copy_plan(kept, best, bays)
    return state, best_points


@jit
def reckon(wall, plan):
    """What is in every bay weighed anew: a plan that was made under other points."""
    for b in range(wall[6].shape[0]):
        for k in range(plan[0][b]):
            recount(wall, plan, b, k, b)
            weigh(wall, plan, b, k, b)
        plan[4][b] = bay_points(wall, plan, b, b, True)


@jit
def line_up(wall, plan, points):
    """Shelves of neighbouring bays at one height, as far as what they hold allows it: each bay stands anew, drawn to the
    heights that the others of its row have.
    """
    draw_all(wall, plan, points, 3)


@njit(**HOW, cache=True)
def run(what, wall, plan, best, kept, removed, moves, hot, cold, state, points):
    """The one way in, so that one piece of machine code is kept and fetched: begin a plan, improve it, line its shelves
    up or weigh it anew. Returns (state, points).
    """
    if what == BEGIN:
        return begin(wall, plan, removed, state, hot)
    if what == IMPROVE:
        return improve(wall, plan, best, kept, removed, moves, hot, cold, state, points)
    if what == LINE_UP:
        line_up(wall, plan, points)
    else:
        reckon(wall, plan)
    return state, all_points(wall, plan)
