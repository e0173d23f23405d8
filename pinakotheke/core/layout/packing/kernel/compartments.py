"""One compartment: what it comes to by what is in it, what more it takes, and lots set into it and taken out again."""

from ..columns import (
    ABOVE,
    BELOW,
    BIG,
    BLOCKS,
    BOARD,
    C_ABOVE,
    C_BELOW,
    C_BOARD,
    C_CAPACITY,
    C_COVER,
    C_FLOOR,
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
    COVERED,
    EACH,
    EVERYBODY,
    FLOOR,
    GROUP,
    HIGHEST,
    LAST,
    LEVEL,
    LOOSE,
    LOWEST,
    MASS,
    MOST_LOTS,
    OPTION,
    OWNER,
    PIECES,
    PITCHES,
    PRICE,
    RATING,
    ROLE,
    ROW,
    SEASON,
    STEP,
    TARE,
)
from .compiled import jit


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
def copy_compartment(plan, s, k, t, r):
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
    copy_compartment(plan, s, k, t, r)
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
