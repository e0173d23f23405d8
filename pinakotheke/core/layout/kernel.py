"""The search's inner loop, compiled: who lives in which spot, and in which order compartments stand.

Plain arrays in, plain arrays out; `interior` fills and reads them. One bay's cost: its lots sorted by falling height
go first-fit into compartments of their role, drawers form one chest under a cover, and the compartments are ordered
by an exact dynamic programme over sets (up to `exact` of them, else by the foot each likes best). The moves: a lot to
another spot (putting another out when there is no room), two lots change places, a whole thing to one bay.

All randomness is the *minimal standard* generator x ← 48271·x mod (2³¹ − 1) (Park and Miller 1988, Communications of
the ACM 31; multiplier of 1993; from memory), so the compiled and the plain form take the same steps.

Compiled by numba, kept on disk; with `NUMBA_DISABLE_JIT=1` the same functions run as plain Python, slowly.
"""

import numpy as np
from numba import njit

from .columns import (
    ASKED,
    BASE_CREDIT,
    BAY,
    BIG,
    COVER_COST,
    EXTRA,
    FLOOR,
    FRONT_COST,
    HAS_BASE,
    HIGHEST,
    LOAD,
    LOWEST,
    MASS,
    MODULUS,
    MOST_IN_BAY,
    MOST_SLOTS,
    MULTIPLIER,
    OPEN,
    OUT,
    PITCHES,
    RANK,
    ROLE,
    ROOM,
    ROW,
    UNITS,
)

jit = njit(cache=True, nogil=True)


@jit
def next_random(state):
    """The next state of the generator."""
    return (state * MULTIPLIER) % MODULUS


@jit
def foot_at(top, units, lowest, pitches, blocked, count, loose):
    """The lowest foot at or above `top` where so many pitches meet no closed range; beyond the top when none."""
    at = max(top, lowest)
    for k in range(count):
        if loose and blocked[k, 2] == 1:
            continue
        if at < blocked[k, 1] and blocked[k, 0] < at + units:
            at = blocked[k, 1]
    return at if at + units <= pitches else pitches + 1


@jit
def pack(held, n, spot_i, spot_f, chest_role, slot_i, slot_f, member, cover_cost, pitches):
    """First-fit by rank of the `n` spots in `held`; returns (number of slots, price) or (-1, 0) when too high.

    `slot_i`: role, units, lowest, highest, loose; `slot_f`: room, load. `member[k]` is the slot of the k-th spot.
    The chest is the last slot when there is one, and its drawers stay as slots marked by role −1.
    """
    for k in range(1, n):  # insertion sort: the lists are short and nearly sorted
        one = held[k]
        rank = spot_i[one, RANK]
        j = k - 1
        while j >= 0 and spot_i[held[j], RANK] > rank:
            held[j + 1] = held[j]
            j -= 1
        held[j + 1] = one
    slots, price, used, chest = 0, 0.0, 0, 0
    for k in range(n):
        s = held[k]
        role = spot_i[s, ROLE]
        price += spot_f[s, EXTRA]
        into = -1
        for c in range(slots):
            if slot_i[c, 0] == role and spot_f[s, ASKED] <= slot_f[c, 0] and spot_f[s, MASS] <= slot_f[c, 1]:
                # What stands on the floor and what may not stay in slots that suit both.
                if spot_i[s, FLOOR] == 1 and slot_i[c, 2] > 0:
                    continue
                into = c
                break
        if into < 0:
            if slots == MOST_SLOTS:
                return -1, 0.0
            into = slots
            slots += 1
            slot_i[into, 0] = role
            slot_i[into, 1] = spot_i[s, UNITS]
            slot_i[into, 2] = spot_i[s, LOWEST]
            slot_i[into, 3] = spot_i[s, HIGHEST]
            slot_i[into, 4] = spot_i[s, FLOOR]
            slot_f[into, 0] = spot_f[s, ROOM]
            slot_f[into, 1] = spot_f[s, LOAD]
            price += spot_f[s, OPEN]
            used += spot_i[s, UNITS]
            if role == chest_role:
                chest += 1
            if used + (1 if chest > 0 else 0) > pitches:
                return -1, 0.0
        slot_f[into, 0] -= spot_f[s, ASKED]
        slot_f[into, 1] -= spot_f[s, MASS]
        slot_i[into, 2] = max(slot_i[into, 2], spot_i[s, LOWEST])
        slot_i[into, 3] = min(slot_i[into, 3], spot_i[s, HIGHEST])
        slot_i[into, 4] = min(slot_i[into, 4], spot_i[s, FLOOR])
        member[k] = into
    if chest > 0:
        price += cover_cost
    return slots, price


@jit
def order(held, n, slots, spot_i, troubles, chest_role, slot_i, member, bay_i, blocked, n_blocked, exact,
          where, feet):  # fmt: skip
    """Stack the slots; returns (points of trouble, pitches used) with `where` the blocks from below and `feet` theirs,
    or (BIG, 0) when they do not stand. A block is a slot, or the chest (block number = its first drawer).
    """
    pitches = bay_i[PITCHES]
    blocks = 0
    block = np.empty(MOST_SLOTS, np.int64)
    units = np.empty(MOST_SLOTS, np.int64)
    chest = -1
    used = 0
    for c in range(slots):
        used += slot_i[c, 1]
        if slot_i[c, 0] == chest_role:
            if chest >= 0:
                units[chest] += slot_i[c, 1]
                continue
            chest = blocks
            block[blocks] = c
            units[blocks] = slot_i[c, 1] + 1
            used += 1
        else:
            block[blocks] = c
            units[blocks] = slot_i[c, 1]
        blocks += 1
    # Trouble of every block at every foot.
    cost = np.zeros((blocks, pitches + 1))
    liked = np.zeros(blocks, np.int64)
    rise = np.zeros(slots, np.int64)
    if chest >= 0:
        up = 0
        for c in range(slots):
            if slot_i[c, 0] == chest_role:
                rise[c] = up
                up += slot_i[c, 1]
    of_slot = np.zeros(slots, np.int64)
    for b in range(blocks):
        of_slot[block[b]] = b
    if chest >= 0:
        for c in range(slots):
            if slot_i[c, 0] == chest_role:
                of_slot[c] = chest
    for k in range(n):
        c = member[k]
        b = of_slot[c]
        row = spot_i[held[k], ROW]
        up = rise[c]
        for foot in range(pitches + 1):
            cost[b, foot] += troubles[row, min(foot + up, pitches)]
    if blocks <= exact:
        full = (1 << blocks) - 1
        best = np.full(full + 1, BIG)
        top = np.zeros(full + 1, np.int64)
        last = np.full(full + 1, -1, np.int64)
        at = np.zeros(full + 1, np.int64)
        best[0] = 0.0
        for held_set in range(full):
            if best[held_set] >= BIG:
                continue
            for b in range(blocks):
                bit = 1 << b
                if held_set & bit:
                    continue
                c = block[b]
                foot = foot_at(top[held_set], units[b], slot_i[c, 2], pitches, blocked, n_blocked, slot_i[c, 4] == 1)
                if foot > slot_i[c, 3] or foot > pitches:
                    continue
                total = best[held_set] + cost[b, foot]
                both = held_set | bit
                if total < best[both]:
                    best[both], top[both], last[both], at[both] = total, foot + units[b], b, foot
        if best[full] >= BIG:
            return BIG, 0, 0
        walk, k = full, blocks
        while walk:
            k -= 1
            where[k] = block[last[walk]]
            feet[k] = at[walk]
            walk ^= 1 << last[walk]
        return best[full], used, blocks
    for b in range(blocks):
        c = block[b]
        low = min(slot_i[c, 2], pitches)
        best_foot, least = low, cost[b, low]
        for foot in range(low, min(slot_i[c, 3], pitches - units[b]) + 1):
            if cost[b, foot] < least - 1e-12:
                best_foot, least = foot, cost[b, foot]
        liked[b] = best_foot * 2 + (0 if slot_i[c, 3] == 0 else 1)
    sequence = np.argsort(liked, kind="mergesort")
    total, up = 0.0, 0
    for k in range(blocks):
        b = sequence[k]
        c = block[b]
        foot = foot_at(up, units[b], slot_i[c, 2], pitches, blocked, n_blocked, slot_i[c, 4] == 1)
        if foot > slot_i[c, 3] or foot > pitches:
            return BIG, 0, 0
        total += cost[b, foot]
        where[k], feet[k] = c, foot
        up = foot + units[b]
    return total, used, blocks


@jit
def bay_cost(bay, held, n, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, chest_role, shelf_role, exact):
    """Points of a bay that holds exactly these spots; BIG when they do not fit."""
    if n == 0:
        return 0.0
    slot_i = np.empty((MOST_SLOTS, 5), np.int64)
    slot_f = np.empty((MOST_SLOTS, 2))
    member = np.empty(n, np.int64)
    where = np.empty(MOST_SLOTS, np.int64)
    feet = np.empty(MOST_SLOTS, np.int64)
    slots, price = pack(held, n, spot_i, spot_f, chest_role, slot_i, slot_f, member, bay_f[bay, COVER_COST],
                        bay_i[bay, PITCHES])  # fmt: skip
    if slots < 0:
        return BIG
    points, used, _blocks = order(held, n, slots, spot_i, troubles, chest_role, slot_i, member, bay_i[bay],
                                 blocked[bay], n_blocked[bay], exact, where, feet)  # fmt: skip
    if points >= BIG:
        return BIG
    if bay_i[bay, HAS_BASE] == 1 and slot_i[where[0], 0] == shelf_role and feet[0] == 0:
        price -= bay_f[bay, BASE_CREDIT]
    return price + points + used * bay_f[bay, FRONT_COST]


@jit
def put(lot, spot, choice, spot_i, members, count, place):
    """A free lot into a spot."""
    bay = spot_i[spot, BAY]
    choice[lot] = spot
    members[bay, count[bay]] = lot
    place[lot] = count[bay]
    count[bay] += 1


@jit
def take(lot, choice, spot_i, members, count, place):
    """A placed lot out of its spot."""
    bay = spot_i[choice[lot], BAY]
    count[bay] -= 1
    moved = members[bay, count[bay]]
    members[bay, place[lot]] = moved
    place[moved] = place[lot]
    choice[lot] = -1


@jit
def cost_of(bay, choice, members, count, held, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, chest_role,
            shelf_role, exact):  # fmt: skip
    """Points of a bay as it stands."""
    n = count[bay]
    for k in range(n):
        held[k] = choice[members[bay, k]]
    return bay_cost(bay, held, n, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, chest_role, shelf_role,
                    exact)  # fmt: skip


@jit
def apart(lot, bay, label, labels, weight, by_change):
    """Change of the points for a label that lives in several bays when a lot of it joins (+1) or leaves (−1) one."""
    mine = label[lot]
    if mine < 0:
        return 0.0
    before = 0
    for b in range(labels.shape[1]):
        if labels[mine, b] > 0:
            before += 1
    labels[mine, bay] += by_change
    after = 0
    for b in range(labels.shape[1]):
        if labels[mine, b] > 0:
            after += 1
    return weight * (max(after - 1, 0) - max(before - 1, 0))


@jit
def anneal(choice, starts, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, thing, things, group, groups,
           split, together, roles, moves, hot, cold, state, begun, exact):  # fmt: skip
    """Greedy insertion of every free lot, then `moves` random moves from `hot` to `cold` (both 0 moves: only the
    insertion). `choice` is changed to the best seen; returns (state of the generator, best points, lots out, moves
    that changed something).
    """
    chest_role, shelf_role = roles[0], roles[1]
    n, n_bays = choice.shape[0], bay_i.shape[0]
    members = np.zeros((n_bays, n + 1), np.int64)
    count = np.zeros(n_bays, np.int64)
    place = np.zeros(n, np.int64)
    held = np.empty(n + 1, np.int64)
    cost = np.zeros(n_bays)
    total, out = 0.0, 0
    for lot in range(n):
        spot = choice[lot]
        if spot >= 0:
            choice[lot] = -1
            put(lot, spot, choice, spot_i, members, count, place)
            total += apart(lot, spot_i[spot, BAY], thing, things, split, 1)
            total += apart(lot, spot_i[spot, BAY], group, groups, together, 1)
        else:
            total += OUT
            out += 1
    for b in range(n_bays):
        cost[b] = cost_of(b, choice, members, count, held, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked,
                          chest_role, shelf_role, exact)  # fmt: skip
        total += cost[b]
    if begun == 0:
        # Hardest first: few spots, then much asked.
        hard = np.empty(n)
        for lot in range(n):
            most = 0.0
            for s in range(starts[lot], starts[lot + 1]):
                most = max(most, spot_i[s, UNITS] * spot_f[s, ASKED])
            hard[lot] = (starts[lot + 1] - starts[lot]) * 1e9 - most
        for lot in np.argsort(hard, kind="mergesort"):
            if choice[lot] < 0:
                change = _insert(lot, choice, starts, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked,
                                 thing, things, group, groups, split, together, members, count, place, held, cost,
                                 chest_role, shelf_role, exact)  # fmt: skip
                if change < BIG:
                    total += change - OUT
                    out -= 1
    best_choice = choice.copy()
    best, best_out, changed = total, out, 0
    touched = np.empty(MOST_IN_BAY, np.int64)
    old_spot = np.empty(MOST_IN_BAY, np.int64)
    old_cost = cost.copy()
    movable = 0
    pool = np.empty(n, np.int64)
    for lot in range(n):
        if starts[lot + 1] > starts[lot]:
            pool[movable] = lot
            movable += 1
    if movable == 0:
        moves = 0
    for step in range(moves):
        heat = hot * (cold / hot) ** (step / moves)
        for b in range(n_bays):
            old_cost[b] = cost[b]
        before, out_before, n_touched = total, out, 0
        state = next_random(state)
        lot = pool[state % movable]
        state = next_random(state)
        kind = state % 100
        state = next_random(state)
        spot = starts[lot] + state % (starts[lot + 1] - starts[lot])
        if spot == choice[lot]:
            continue
        bay = spot_i[spot, BAY]
        touched[0], old_spot[0], n_touched = lot, choice[lot], 1
        other = -1
        if kind < 30 and count[bay] > 0:
            # Two change places, or the other goes wherever it costs least.
            state = next_random(state)
            other = members[bay, state % count[bay]]
            if other == lot:
                other = -1
        if other >= 0:
            touched[1], old_spot[1], n_touched = other, choice[other], 2
        if kind >= 92:
            # The whole thing (or what is used with it) to one bay.
            for one in range(n):
                if (
                    one != lot
                    and n_touched < MOST_IN_BAY - 1
                    and choice[one] >= 0
                    and (thing[one] == thing[lot] or (group[lot] >= 0 and group[one] == group[lot]))
                ):
                    touched[n_touched], old_spot[n_touched] = one, choice[one]
                    n_touched += 1
        for k in range(n_touched):
            one = touched[k]
            if choice[one] >= 0:
                b = spot_i[choice[one], BAY]
                take(one, choice, spot_i, members, count, place)
                total += apart(one, b, thing, things, split, -1) + apart(one, b, group, groups, together, -1) + OUT
                out += 1
        for k in range(n_touched):
            if old_spot[k] >= 0:
                b = spot_i[old_spot[k], BAY]
                fresh = cost_of(b, choice, members, count, held, spot_i, spot_f, troubles, bay_i, bay_f, blocked,
                                n_blocked, chest_role, shelf_role, exact)  # fmt: skip
                total += fresh - cost[b]
                cost[b] = fresh
        put(lot, spot, choice, spot_i, members, count, place)
        fresh = cost_of(bay, choice, members, count, held, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked,
                        chest_role, shelf_role, exact)  # fmt: skip
        if fresh >= BIG and n_touched == 1 and count[bay] > 1:
            # No room: someone of that bay leaves, and finds the best other place or stays out for now.
            state = next_random(state)
            other = members[bay, state % (count[bay] - 1)]
            if other == lot:
                other = members[bay, count[bay] - 1]
            touched[1], old_spot[1], n_touched = other, choice[other], 2
            take(other, choice, spot_i, members, count, place)
            total += apart(other, bay, thing, things, split, -1) + apart(other, bay, group, groups, together, -1) + OUT
            out += 1
            fresh = cost_of(bay, choice, members, count, held, spot_i, spot_f, troubles, bay_i, bay_f, blocked,
                            n_blocked, chest_role, shelf_role, exact)  # fmt: skip
        ok = fresh < BIG
        if ok:
            total += fresh - cost[bay] - OUT
            cost[bay] = fresh
            out -= 1
            total += apart(lot, bay, thing, things, split, 1) + apart(lot, bay, group, groups, together, 1)
            for k in range(1, n_touched):
                change = _insert(touched[k], choice, starts, spot_i, spot_f, troubles, bay_i, bay_f, blocked,
                                 n_blocked, thing, things, group, groups, split, together, members, count, place,
                                 held, cost, chest_role, shelf_role, exact)  # fmt: skip
                if change < BIG:
                    total += change - OUT
                    out -= 1
            rise = total - before
            if rise > 0:
                state = next_random(state)
                ok = state / MODULUS < np.exp(-rise / heat)
        else:
            take(lot, choice, spot_i, members, count, place)
        if ok:
            changed += 1
            if out < best_out or (out == best_out and total < best - 1e-9):
                best, best_out = total, out
                best_choice[:] = choice
            continue
        for k in range(n_touched):
            one = touched[k]
            if choice[one] >= 0:
                b = spot_i[choice[one], BAY]
                take(one, choice, spot_i, members, count, place)
                apart(one, b, thing, things, split, -1)
                apart(one, b, group, groups, together, -1)
        for k in range(n_touched):
            if old_spot[k] >= 0:
                b = spot_i[old_spot[k], BAY]
                put(touched[k], old_spot[k], choice, spot_i, members, count, place)
                apart(touched[k], b, thing, things, split, 1)
                apart(touched[k], b, group, groups, together, 1)
        for b in range(n_bays):
            cost[b] = old_cost[b]
        total, out = before, out_before
    choice[:] = best_choice
    return state, best, best_out, changed


@jit
def _insert(lot, choice, starts, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, thing, things, group,
            groups, split, together, members, count, place, held, cost, chest_role, shelf_role, exact):  # fmt: skip
    """A free lot into the spot where it costs least; returns the change of points, BIG when no spot takes it."""
    best, where, fresh = BIG, -1, 0.0
    for s in range(starts[lot], starts[lot + 1]):
        bay = spot_i[s, BAY]
        n = count[bay]
        for k in range(n):
            held[k] = choice[members[bay, k]]
        held[n] = s
        one = bay_cost(bay, held, n + 1, spot_i, spot_f, troubles, bay_i, bay_f, blocked, n_blocked, chest_role,
                       shelf_role, exact)  # fmt: skip
        if one >= BIG:
            continue
        extra = one - cost[bay]
        if thing[lot] >= 0 and things[thing[lot], bay] == 0:
            for b in range(things.shape[1]):
                if things[thing[lot], b] > 0:
                    extra += split
                    break
        if group[lot] >= 0 and groups[group[lot], bay] == 0:
            for b in range(groups.shape[1]):
                if groups[group[lot], b] > 0:
                    extra += together
                    break
        if extra < best:
            best, where, fresh = extra, s, one
    if where < 0:
        return BIG
    bay = spot_i[where, BAY]
    put(lot, where, choice, spot_i, members, count, place)
    cost[bay] = fresh
    apart(lot, bay, thing, things, split, 1)
    apart(lot, bay, group, groups, together, 1)
    return best
