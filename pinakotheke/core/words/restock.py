"""What is said of what is used up: how much there is, when it runs out, and what to do past its day."""

from datetime import date

from ..inventory import Thing
from ..saying import counted
from ..tables import load
from ..upkeep.restock import Movement, RunOut, Stock, Supply, is_medicine, use_by

MEDICINE = "Past its day: do not take it. Hand it in where local rules say, often at a pharmacy; never down a drain."
FOOD = "Past the best-before day on it: look, smell and taste first. A use-by day is another thing: bin it."
OTHER = "Past the day on it: try it on a hidden spot first, or throw it away as local rules say."
LOCKED = "Kept dry, under 25 °C, and locked where children are."


def stock_in_words(supply: Supply, stock: Stock) -> str:
    """What is there: `1 in use since 2026-03-01, 2 spare`."""
    said = [f"1 in use since {stock.open_since}"] if supply.lasting and stock.open_since else []
    if supply.lasting and not stock.open_since:
        said.append("none in use")
    said.append(f"{stock.unopened} spare" if supply.lasting else f"{stock.unopened} there")
    return ", ".join(said)


def movement_in_words(supply: Supply, one: Movement) -> str:
    """What happened to a supply: `bought 12, best before 2027-03-01`."""
    taken = "opened" if supply.lasting else "took"
    verb = {"opened": taken, "thrown": "threw away"}.get(one.did, one.did)
    count = "" if one.did == "finished" else f" {one.count}"
    return f"{verb}{count}, best before {one.best_before}" if one.best_before else f"{verb}{count}"


def run_out_in_words(found: RunOut | None, stock: Stock, units: int) -> str:
    """When nothing is left, and how sure that is; or what is missing to say so."""
    if units == 0:
        return "none left"
    if found is not None:
        return (
            f"used up about {found.likely}; {found.sure:.0%} sure between {found.earliest} and {found.latest}"
            if found.earliest != found.latest
            else f"used up about {found.likely}, {found.sure:.0%} sure"
        )
    least = int(load("restock")["estimate"]["gaps"]["value"]) + 1
    more = least - len(stock.taken)
    if more > 0:
        return f"when it is used up shows after {more} more {counted(more, 'tick', 'ticks')} on other days"
    return "when it is used up cannot be said: it was not taken for longer than ever before, or it lasts very long"


def cautions(supply: Supply, stock: Stock, thing: Thing, today: date) -> list[str]:
    """What is past its day, unopened or in use, what is to be used first, and how medicine is kept."""
    said = []
    medicine, food = is_medicine(thing), thing.row.group in ("pantry", "pets")
    past = MEDICINE if medicine else FOOD if food else OTHER
    by = use_by(supply, stock, thing.kind)
    spoilt = stock.past(today)
    if spoilt or (by and by < today.isoformat()):
        what = [f"{spoilt} unopened"] if spoilt else []
        if by and by < today.isoformat():
            what.append("the one in use")
        told = " and ".join(what)
        said.append(f"{told[0].upper()}{told[1:]}. {past}")
    soon = int(load("restock")["estimate"]["soon"]["value"])
    for day, whose in ((by, "the one in use"), (stock.first, "what is spare")):
        left = (date.fromisoformat(day) - today).days if day else -1
        if 0 <= left <= soon:
            said.append(f"Use {whose} by {day}.")
    if medicine:
        said.append(LOCKED)
    return said
