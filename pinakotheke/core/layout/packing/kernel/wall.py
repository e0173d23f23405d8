"""The whole wall: its points, the heights that neighbouring bays share, and a plan copied."""

import numpy as np

from ..columns import (
    APART,
    BY_TOP,
    C_ABOVE,
    C_BELOW,
    C_CAPACITY,
    C_FOOT,
    C_HI,
    C_LEVEL,
    C_LO,
    C_LOTS,
    C_OWNER,
    C_ROLE,
    C_USED,
    COUNT,
    DOUBLE,
    EACH,
    FREE,
    GROUP,
    KIN,
    KINS,
    LINE,
    LINED,
    LINES,
    NEXT,
    OPTION,
    OUT,
    OUT_PIECE,
    OWNER,
    OWNER_RUNS,
    PIECES,
    RAIL,
    RESERVE,
    SEASON,
    SECTION,
    SPLIT,
    STEP,
    STORE,
    STORES,
    TOLERANCE,
    UNEVEN,
    WALLS,
    WORD,
    WORDS,
)
from .bay import bay_points, over_another
from .compartments import columns_of
from .compiled import jit


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
