"""Seasons: nothing lost, nothing doubled, no place ever fuller than it takes; the fewest laid aside against every order."""

from collections import Counter
from datetime import date
from itertools import product
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st
from networkx import DiGraph, dijkstra_path_length

from pinakotheke.core.upkeep import Stay
from pinakotheke.core.upkeep.seasons import (
    ASIDE,
    FULL,
    IN_USE,
    Move,
    Swap,
    SwapRow,
    after_moves,
    moves_of,
    next_day,
    order_of_moves,
)

SIZE = {"a": 1, "b": 2, "c": 3, "d": 4, "e": 2, "f": 1}
PLACES = ("p", "q", "r")


def full(takes: dict[str, int]):  # type: ignore[no-untyped-def]
    return lambda place, contents: sum(SIZE[t] * n for t, n in contents.items()) / takes[place]


def replayed(moves, held, takes):  # type: ignore[no-untyped-def]
    """Carry the moves out; whatever is wrong at any moment."""
    lying = {p: Counter(one) for p, one in held.items()}
    lying.setdefault(ASIDE, Counter())
    out, wrong = Counter(), []
    whole = sum((Counter(one) for one in held.values()), Counter())
    for m in moves:
        if m.source != IN_USE:
            if lying.setdefault(m.source, Counter())[m.thing] < m.count:
                wrong.append(f"{m} was not there")
            lying[m.source][m.thing] -= m.count
        else:
            out[m.thing] -= m.count
        if m.target != IN_USE:
            lying.setdefault(m.target, Counter())[m.thing] += m.count
            if m.target != ASIDE and full(takes)(m.target, +lying[m.target]) > FULL:
                wrong.append(f"{m.target} is overfull after {m}")
        else:
            out[m.thing] += m.count
        if sum((+one for one in lying.values()), Counter()) + +out != whole + +Counter({t: -n for t, n in out.items()}):
            wrong.append(f"something is lost or doubled after {m}")
    return lying, wrong


@st.composite
def houses(draw):  # type: ignore[no-untyped-def]
    """Things in places that take both states, now and after; some are in use in one of them."""
    things = draw(st.lists(st.sampled_from(sorted(SIZE)), unique=True, min_size=1, max_size=5))
    at = {t: (draw(st.sampled_from((*PLACES, IN_USE))), draw(st.sampled_from((*PLACES, IN_USE)))) for t in things}
    takes = {}
    for place in PLACES:
        states = [sum(SIZE[t] for t in things if at[t][n] == place) for n in (0, 1)]
        takes[place] = max(1, *states) + draw(st.integers(0, 2))
    return at, takes


class OrderTests(TestCase):
    @settings(max_examples=150, deadline=None)
    @given(houses())
    def test_nothing_is_lost_or_doubled_and_no_place_is_ever_overfull(self, house) -> None:  # type: ignore[no-untyped-def]
        at, takes = house
        rows = tuple(SwapRow(thing=t, count=1, during=was, after=to) for t, (was, to) in at.items())
        swap = Swap(id="s", name="Winter", begins="10-15", ends="04-15", rows=rows, now="during")
        stays = [Stay(id=t, place=was, thing=t, count=1) for t, (was, _) in at.items() if was]
        moves = moves_of(swap, stays, dict.fromkeys(at, 1))
        held = after_moves(stays, ())
        order = order_of_moves(moves, held, full(takes))
        lying, wrong = replayed(order.moves, held, takes)
        self.assertEqual(wrong, [])
        self.assertEqual({p: dict(+one) for p, one in lying.items() if +one}, after_moves(stays, moves))
        self.assertTrue(order.fewest)
        self.assertEqual(sum(m.target == ASIDE for m in order.moves), self.fewest(moves, held, takes))

    def fewest(self, moves, held, takes) -> int:  # type: ignore[no-untyped-def]
        """The fewest laid aside, by networkx over every state of the house: each move at its source, aside or done."""
        graph = DiGraph()
        for state in product((0, 1, 2), repeat=len(moves)):
            lying = {p: Counter(one) for p, one in held.items()}
            for at, m in zip(state, moves, strict=True):
                if at and m.source:
                    lying[m.source][m.thing] -= 1
                if at == 2 and m.target:
                    lying.setdefault(m.target, Counter())[m.thing] += 1
            if any(full(takes)(p, +one) > FULL for p, one in lying.items()):
                continue
            for n, at in enumerate(state):
                for to, cost in ((1, 1), (2, 0)) if at == 0 else ((2, 0),) if at == 1 else ():
                    graph.add_edge(state, (*state[:n], to, *state[n + 1 :]), weight=cost)
            graph.add_node(state, fits=True)
        graph.remove_nodes_from([s for s, facts in graph.nodes(data=True) if not facts.get("fits")])
        ends = (2,) * len(moves)
        return int(dijkstra_path_length(graph, (0,) * len(moves), ends)) if moves else 0

    def test_two_sets_that_take_turns_in_one_place(self) -> None:
        """By hand: winter tyres come off the rack onto the car, then the summer set, in use before, goes onto the rack."""
        rows = (
            SwapRow(thing="a", count=4, during=IN_USE, after="rack"),
            SwapRow(thing="f", count=4, during="rack", after=IN_USE),
        )
        swap = Swap(id="s", name="Tyres", begins="10-15", ends="04-15", rows=rows, now="after")
        stays = [Stay(id="1", place="rack", thing="a", count=4)]
        moves = moves_of(swap, stays, {"a": 4, "f": 4})
        order = order_of_moves(moves, after_moves(stays, ()), full({"rack": 4}))
        self.assertEqual(order.moves, (Move("a", 4, "rack", IN_USE), Move("f", 4, IN_USE, "rack")))

    def test_two_full_places_that_change_their_contents_lay_one_aside(self) -> None:
        rows = (SwapRow(thing="c", count=1, during="p", after="q"), SwapRow(thing="d", count=1, during="q", after="p"))
        swap = Swap(id="s", name="Clothes", begins="10-15", ends="04-15", rows=rows, now="during")
        stays = [Stay(id="1", place="p", thing="c", count=1), Stay(id="2", place="q", thing="d", count=1)]
        held = after_moves(stays, ())
        order = order_of_moves(moves_of(swap, stays, {"c": 1, "d": 1}), held, full({"p": 4, "q": 4}))
        self.assertEqual(sum(m.target == ASIDE for m in order.moves), 1)
        self.assertEqual(len(order.moves), 3)

    def test_many_things_are_moved_even_where_the_fewest_is_not_proven(self) -> None:
        rows = tuple(SwapRow(thing=t, count=9, during="p", after="q") for t in SIZE)
        back = tuple(SwapRow(thing=f"{t}{t}", count=9, during="q", after="p") for t in SIZE)
        sizes = {**SIZE, **{f"{t}{t}": n for t, n in SIZE.items()}}
        takes = {"p": 9 * 13, "q": 9 * 13}

        def share(place, contents):  # type: ignore[no-untyped-def]
            return sum(sizes[t] * n for t, n in contents.items()) / takes[place]

        swap = Swap(id="s", name="Clothes", begins="10-15", ends="04-15", rows=(*rows, *back), now="during")
        stays = [Stay(id=r.thing, place=r.during, thing=r.thing, count=9) for r in swap.rows]
        moves = moves_of(swap, stays, dict.fromkeys(sizes, 9))
        order = order_of_moves(moves, after_moves(stays, ()), share)
        self.assertEqual(Counter(m.target for m in order.moves if m.target != ASIDE), Counter({"p": 6, "q": 6}))

    def test_no_more_is_moved_than_there_is(self) -> None:
        row = SwapRow(thing="a", count=5, during="p", after="q")
        swap = Swap(id="s", name="Winter", begins="10-15", ends="04-15", rows=(row,), now="during")
        moves = moves_of(swap, [Stay(id="1", place="p", thing="a", count=3)], {"a": 5})
        self.assertEqual(moves, (Move("a", 3, "p", "q"),))
        self.assertEqual(moves_of(swap, [], {"a": 5}), ())

    def test_the_next_day(self) -> None:
        swap = Swap(id="s", name="Winter", begins="10-15", ends="02-29")
        self.assertEqual(next_day(swap, date(2026, 10, 15)), date(2026, 10, 15))
        self.assertEqual(next_day(swap, date(2026, 10, 16)), date(2027, 10, 15))
        self.assertEqual(next_day(swap.model_copy(update={"now": "during"}), date(2027, 1, 1)), date(2027, 2, 28))
