"""Best fit: every compartment that takes some pieces of a group, or a new one at every place of a stack, judged by what it
does to the whole bay."""

from ..columns import (
    ABOVE,
    AGAINST,
    BELOW,
    BIG,
    C_ABOVE,
    C_BELOW,
    C_LOTS,
    COLUMN,
    DOUBLE,
    EACH,
    EMPTY,
    LEAST,
    MODULUS,
    MOST_COMPARTMENTS,
    PITCHES,
    PRICE,
    SHELF_PRICE,
    SPLIT,
    TRIED,
    TYPE,
)
from .bay import bay_points, in_sequence, points_of
from .compartments import add_compartment, add_lot, columns_of, copy_compartment, most_in, room_for, weigh
from .compiled import jit, next_random

STEPS = 30
"""Feet that are judged in the time that one compartment of a stack is reckoned in."""


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
                    copy_compartment(plan, b, k, scratch, 0)
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
