"""Restock: what is there after what happened, by hand; when it runs out, by hand and over simulated households."""

from datetime import date, timedelta
from unittest import TestCase

import numpy as np

from pinakotheke.core.inventory import Thing
from pinakotheke.core.upkeep.restock import (
    Movement,
    RunOut,
    Stock,
    Supply,
    dates_on,
    par,
    run_out,
    stock_of,
    to_buy,
    use_by,
)
from pinakotheke.core.words.restock import cautions, run_out_in_words, stock_in_words

TODAY = date(2026, 3, 1)
SOAP = Supply(id="soap", thing="soap", spare=1)
TINS = Supply(id="tins", thing="tins", lasting=False, spare=6, pack=4)


def moved(supply: Supply, *rows: tuple[str, str, int, str]) -> Stock:
    """Rows of what was done, when, how many, and the day on it."""
    made = [{"id": f"m{n}", "supply": supply.id, "did": did, "on": on, "count": count, "best_before": best}
            for n, (did, on, count, best) in enumerate(rows)]  # fmt: skip
    return stock_of(supply, [Movement.model_validate(one) for one in made])


def after(gaps: list[int], unopened: int, last: date = TODAY) -> Stock:
    """Taken singly with these gaps, the last time on a day, and so many unopened left."""
    days = [last - timedelta(days=sum(gaps[n:])) for n in range(len(gaps) + 1)]
    rows = [("opened", d.isoformat(), 1, "") for d in days]
    return moved(SOAP, *rows, ("counted", last.isoformat(), unopened, ""))


class StockTests(TestCase):
    def test_first_in_by_its_day_is_first_out(self) -> None:
        bought = (("bought", "2026-01-05", 2, "2026-09-01"), ("bought", "2026-01-12", 1, "2026-06-01"),
                  ("bought", "2026-01-20", 1, ""))  # fmt: skip
        stock = moved(SOAP, *bought)
        self.assertEqual([(lot.best_before, lot.count) for lot in stock.lots],
                         [("2026-06-01", 1), ("2026-09-01", 2), ("", 1)])  # fmt: skip
        self.assertEqual((stock.first, stock.unopened), ("2026-06-01", 4))
        opened = moved(SOAP, *bought, ("opened", "2026-02-01", 1, ""))
        self.assertEqual(
            (opened.open_best, opened.open_since, opened.first), ("2026-06-01", "2026-02-01", "2026-09-01")
        )
        self.assertEqual(moved(SOAP, *bought, ("thrown", "2026-02-01", 3, "")).lots[0].count, 1)
        self.assertEqual(moved(SOAP, *bought, ("counted", "2026-02-01", 2, "")).unopened, 2)
        self.assertEqual(moved(SOAP, *bought, ("counted", "2026-02-01", 7, "")).unopened, 7)
        self.assertEqual(moved(SOAP, *bought, ("opened", "2026-02-01", 9, "")).unopened, 0)
        self.assertEqual(moved(SOAP, ("opened", "2026-02-01", 1, ""), ("finished", "2026-02-09", 1, "")).open_since, "")

    def test_what_comes_late_is_set_into_its_day(self) -> None:
        stock = moved(SOAP, ("opened", "2026-02-01", 1, ""), ("bought", "2026-01-05", 2, "2026-04-01"))
        self.assertEqual((stock.unopened, stock.open_best), (1, "2026-04-01"))

    def test_what_is_past_its_day_is_bought_again_and_said(self) -> None:
        stock = moved(TINS, ("bought", "2025-01-05", 5, "2026-02-01"), ("bought", "2026-01-05", 2, "2027-02-01"))
        self.assertEqual((stock.past(TODAY), par(TINS, stock, TODAY)), (5, 6))
        self.assertEqual(to_buy(TINS, stock, TODAY), 1)  # 6 less 2 sound ones: 4, a pack
        thing = Thing(id="tins", name="Beans", kind="tin-food", count=6)
        self.assertTrue(any("best-before" in said for said in cautions(TINS, stock, thing, TODAY)))
        pills = Thing(id="tins", name="Pills", kind="medicine-box", count=6)
        said = cautions(TINS, stock, pills, TODAY)
        self.assertIn("do not take it", said[0])
        self.assertIn("locked", said[-1])
        soon = moved(TINS, ("bought", "2026-01-05", 2, "2026-03-10"))
        self.assertEqual(cautions(TINS, soon, thing, TODAY), ["Use what is spare by 2026-03-10."])

    def test_one_in_use_and_one_spare(self) -> None:
        self.assertEqual(to_buy(SOAP, moved(SOAP), TODAY), 2)
        used = moved(SOAP, ("opened", "2026-02-01", 1, ""))
        self.assertEqual(to_buy(SOAP, used, TODAY), 1)
        self.assertEqual(
            to_buy(SOAP, moved(SOAP, ("bought", "2026-01-01", 2, ""), ("opened", "2026-02-01", 1, "")), TODAY), 0
        )
        self.assertEqual(stock_in_words(SOAP, used), "1 in use since 2026-02-01, 0 spare")

    def test_the_day_of_the_pack_goes_along_into_the_jar(self) -> None:
        flour = Thing(id="flour", name="Flour", kind="flour-bag", count=2)
        supply = Supply(id="flour", thing="flour")
        rows = [Movement(id="a", supply="flour", did="bought", count=1, on="2026-01-01", best_before="2026-05-01"),
                Movement(id="b", supply="flour", did="opened", on="2026-01-10")]  # fmt: skip
        self.assertEqual(dates_on([supply], rows, {"flour": flour}), {"flour": "2026-05-01"})
        short = supply.model_copy(update={"keeps": 30})
        self.assertEqual(use_by(short, stock_of(short, rows), "flour-bag"), "2026-02-09")
        long = [rows[0].model_copy(update={"best_before": ""}), rows[1]]
        self.assertEqual(use_by(supply, stock_of(supply, long), "flour-bag"), "2026-07-09")  # 180 days from 10 January


class RunOutTests(TestCase):
    def test_by_hand_where_the_gaps_are_alike(self) -> None:
        """Every ten days, the last today: with two spare the one in use, and they, are used up after 30 days."""
        found = run_out(SOAP, after([10] * 8, 2), TODAY)
        assert found is not None
        self.assertEqual(found.likely, "2026-03-31")
        self.assertLessEqual("2026-03-26", found.earliest)
        self.assertLessEqual(found.latest, "2026-04-05")
        four = run_out(SOAP, after([10] * 8, 2, TODAY - timedelta(days=4)), TODAY)
        assert four is not None
        self.assertEqual(four.likely, "2026-03-27")

    def test_by_hand_where_several_are_taken_at_once(self) -> None:
        """Three tins a week, the last time today: nine are used up at the third taking, in 21 days."""
        rows = [("opened", (TODAY - timedelta(days=7 * n)).isoformat(), 3, "") for n in range(7)]
        found = run_out(TINS, moved(TINS, *rows, ("counted", TODAY.isoformat(), 9, "")), TODAY)
        assert found is not None
        self.assertEqual(found.likely, "2026-03-22")

    def test_by_hand_for_so_many_days(self) -> None:
        monthly = SOAP.model_copy(update={"days": 60})
        self.assertIn(par(monthly, after([10] * 8, 0), TODAY), (6, 7))
        self.assertEqual(par(monthly, after([10, 10], 0), TODAY), 9)  # three in twenty days: nine in sixty
        self.assertEqual(par(monthly, Stock(), TODAY), 1)

    def test_too_little_is_said_and_not_guessed(self) -> None:
        stock = after([10, 12, 9], 1)
        self.assertIsNone(run_out(SOAP, stock, TODAY))
        self.assertIn("after 2 more ticks", run_out_in_words(None, stock, 2))
        self.assertEqual(run_out_in_words(None, stock, 0), "none left")
        long_ago = after([10] * 8, 1, TODAY - timedelta(days=400))
        self.assertIsNone(run_out(SOAP, long_ago, TODAY))
        self.assertIn("longer than ever", run_out_in_words(None, long_ago, 2))
        same = RunOut(likely="2026-03-02", earliest="2026-03-02", latest="2026-03-02", sure=0.9)
        self.assertEqual(run_out_in_words(same, stock, 2), "used up about 2026-03-02, 90% sure")

    def test_the_interval_holds_as_often_as_it_says(self) -> None:
        """A thousand households of each kind, gaps of 20 days on average: as regular as a normal of 4 days, gamma of shape
        9 and 4, and irregular as of shape 2. Looked at on a day between two takings. Both within 3 %.
        """
        for seed, shape in enumerate((0, 9, 4, 2)):
            with self.subTest(shape=shape):
                rng = np.random.default_rng(100 + seed)
                held, said, runs = 0, 0.0, 0
                while runs < 1000:
                    known, spare = int(rng.integers(5, 20)), int(rng.integers(0, 3))
                    size = known + spare + 2
                    gaps = rng.gamma(shape, 20 / shape, size) if shape else rng.normal(20, 4, size)
                    days = np.round(np.cumsum(np.maximum(gaps, 0))).astype(int)
                    if len(set(days)) < len(days):
                        continue
                    # The day comes before the next taking whatever the gaps were: one chosen by them would bend them.
                    today = TODAY + timedelta(days=int(days[known]))
                    rows = [("opened", (TODAY + timedelta(days=int(d))).isoformat(), 1, "") for d in days[: known + 1]]
                    stock = moved(SOAP, *rows, ("counted", today.isoformat(), spare, ""))
                    found = run_out(SOAP, stock, today)
                    if found is None:
                        continue
                    runs += 1
                    ends = (TODAY + timedelta(days=int(days[known + spare + 1]))).isoformat()
                    held += found.earliest <= ends <= found.latest
                    said += found.sure
                self.assertAlmostEqual(held / runs, said / runs, delta=0.03)
