"""The order of work and the drilling map: 200 steps for three people with a bound, maps of a wall with eight tracks and
thirty studs, and the whole plan of the first design of every brief.
"""

from datetime import date
from random import Random
from statistics import median
from time import perf_counter

from pinakotheke.core.checks import Case
from pinakotheke.core.install import InstallChoice, Step, drilling_map, faults_of_schedule, install_plan, schedule
from pinakotheke.core.install.schedule import _pieces, by_list, stretches
from pinakotheke.core.layout import Task, design_space
from pinakotheke.core.survey import Survey, envelopes, hear
from pinakotheke.core.systems import Part

from .briefs import BRIEFS, read_brief

MONDAY = date(2026, 3, 2)
PROMISED_FIRST_S, PROMISED_S, PROMISED_MAP_MS = 0.2, 5.0, 50.0
STEPS, PEOPLE, TRACKS, STUDS = 200, 3, 8, 30


def main() -> None:
    """Schedules over five seeds, the map, the briefs."""
    for seed in range(5):
        steps, choice = made_up(seed), InstallChoice(start=MONDAY, people=PEOPLE)
        pieces = _pieces(steps, choice, 360)
        began = perf_counter()
        by_list(pieces, stretches(choice, sum(p.minutes * p.hands for p in pieces)), PEOPLE)
        first = perf_counter() - began
        began = perf_counter()
        found = schedule(steps, choice, PROMISED_S)
        took = perf_counter() - began
        assert not faults_of_schedule(steps, found.booked, choice)
        print(f"{STEPS} steps, {PEOPLE} people, seed {seed}: first {1000 * first:.0f} ms "
              f"({first / PROMISED_FIRST_S:.0%} of promise), {took:.1f} s, "
              f"{'proven' if found.is_proven else f'gap {found.gap:.2%}'}, {found.days} days, "
              f"{found.list_end - found.end} min sooner than the list")  # fmt: skip
    wide_wall()
    for path in sorted(BRIEFS.glob("*.toml")):
        _, survey, things, people, rules = read_brief(path)
        clear = envelopes(survey, rules)
        design = design_space(Task("space", survey, clear, things, people, rules, effort=0.05)).alternatives[0]
        case = Case(survey, clear, design, things, people, house=rules)
        began = perf_counter()
        plan = install_plan(case, InstallChoice(start=MONDAY), seconds=PROMISED_S)
        assert plan.times is not None
        print(f"{path.stem}: {len(design.parts)} parts, {len(plan.steps)} steps, "
              f"{sum(len(m.holes) for m in plan.maps.values())} holes in {perf_counter() - began:.2f} s, "
              f"{'proven' if plan.times.is_proven else f'gap {plan.times.gap:.2%}'}")  # fmt: skip


def made_up(seed: int) -> tuple[Step, ...]:
    """Steps in turns at forty places, as rows of modules have them: what is before each, one or two people, some to dry."""
    dice, places, steps = Random(seed), 40, list[Step]()
    for n in range(STEPS):
        turn, place = divmod(n, places)
        after = [f"s{n - places}"] if turn else []
        after += [f"s{n - 1}"] if place % 8 and dice.random() < 0.5 else []
        steps.append(Step(id=f"s{n}", turn="tug", minutes=dice.randint(3, 60), hands=dice.choice((1, 1, 1, 2)),
                          wait=120 if dice.random() < 0.03 else 0, after=tuple(after)))  # fmt: skip
    return tuple(steps)


def wide_wall() -> None:
    """Eight tracks one above the other along thirty studs."""
    line = "width 12000 12000 12000; height 2600; depth 600; studs 200 then every 400"
    heard = hear(line, Survey(kind="wall"), "metric")
    survey = heard.kept_in(Survey(kind="wall"))
    path = next(iter(sorted(BRIEFS.glob("*.toml"))))
    _, other, things, people, rules = read_brief(path)
    clear = envelopes(other, rules)
    design = design_space(Task("space", other, clear, things, people, rules, effort=0.05)).alternatives[0]
    tracks = tuple(
        Part(id=f"track-{n}", item="track.track", role="track", x=50, y=0, z=400 + 250 * n, w=11_900, d=16, h=30,
             fixed_to="wall")
        for n in range(TRACKS)
    )  # fmt: skip
    case = Case(
        survey, envelopes(survey, rules), design.model_copy(update={"parts": tracks}), things, people, house=rules
    )
    times = []
    for _ in range(15):
        began = perf_counter()
        found = drilling_map(case, survey.main, 12_000, 2600)
        times.append(1000 * (perf_counter() - began))
    middle = median(times)
    print(f"map of {TRACKS} tracks and {len(survey.studs)} studs: {len(found.holes)} holes in {middle:.1f} ms "
          f"({middle / PROMISED_MAP_MS:.0%} of promise)")  # fmt: skip


if __name__ == "__main__":
    main()
