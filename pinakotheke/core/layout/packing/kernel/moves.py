"""Moves: a part of the wall ruined and set in again, accepted by annealing."""

import numpy as np

from ..columns import (
    ABOVE,
    BELOW,
    C_LOTS,
    DOUBLE,
    GROUP,
    LINES,
    MODULUS,
    OWNER,
    PIECES,
    PITCHES,
    RAIL,
    ROLE,
    TYPE,
)
from .bay import bay_points
from .compartments import add_compartment, most_in, recount, take_out, weigh
from .compiled import jit, next_random
from .fit import place
from .wall import all_points, copy_plan, draw_all

MOVE = 2800
"""Feet that are judged in the time of a move's upkeep."""
USUAL = 11_000
"""What a move of usual size comes to, in feet judged."""


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
