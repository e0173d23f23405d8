"""A crowded survey: 200 obstacles and 500 readings in one space, and what is asked of it at each keystroke."""

from time import perf_counter

from pinakotheke.core.drawing import survey_elevation, survey_plan
from pinakotheke.core.house import HouseRules
from pinakotheke.core.survey import Survey, doubts, envelope, hear, missing, next_reading

ALLOWED_MS = 50


def crowded(obstacles: int, readings: int) -> Survey:
    """A long utility wall with everything on it."""
    each = max(readings // 25, 1)  # a twentieth of the readings to each size, the rest falls and studs
    rows = [{"what": "width", "level": lv, "face": "back", "value": 7200 + n % 3} for n, lv in
            enumerate(("low", "middle", "high") * each)]  # fmt: skip
    rows += [
        {"what": "height", "side": s, "value": 2600 + n % 3} for n, s in enumerate(("left", "middle", "right") * each)
    ]
    rows += [{"what": "depth", "side": s, "value": 640 + n % 3} for n, s in enumerate(("left", "right") * each)]
    rows += [{"what": "fall", "face": "back", "at": 30.0 * n, "value": float(n % 9)} for n in range(readings // 4)]
    rows += [{"what": "stud", "value": 60.0 + 48 * n} for n in range(max(readings - len(rows), 0))]
    things = [
        {"id": f"o{n}", "kind": ("pipe", "valve", "socket", "meter")[n % 4], "x": 35 * n % 7000, "z": 90 * n % 2300,
         "width": 60, "height": 80, "projection": 80, "access": (0, 600)[n % 2], "keep_out": 20}
        for n in range(obstacles)
    ]  # fmt: skip
    return Survey.model_validate(
        {"kind": "utility cupboard", "readings": [{"id": f"r{n}", **row} for n, row in enumerate(rows[:readings])],
         "obstacles": things}
    )  # fmt: skip


def main() -> None:
    """Milliseconds, the best of five, and the ratio to what is allowed."""
    print("surveys: how long a crowded space takes")
    for obstacles, readings in ((20, 50), (200, 500)):
        survey = crowded(obstacles, readings)
        acts = {
            "envelope": lambda s=survey: envelope(s, HouseRules()),
            "doubts": lambda s=survey: doubts(s),
            "missing": lambda s=survey: missing(s),
            "next reading": lambda s=survey: next_reading(s),
            "elevation": lambda s=survey: survey_elevation(s, "metric", "Wall"),
            "plan": lambda s=survey: survey_plan(s, "metric", "Wall"),
            "call-out heard": lambda s=survey: hear("low back width 7201", s, "metric"),
        }
        for name, act in acts.items():
            best = min(_time(act) for _ in range(5))
            print(f"  {obstacles:3} obstacles {readings:3} readings  {name:15} {best:7.1f} ms "
                  f"({best / ALLOWED_MS:.2f} of {ALLOWED_MS} ms)")  # fmt: skip


def _time(act: object) -> float:
    started = perf_counter()
    act()  # type: ignore[operator]
    return (perf_counter() - started) * 1000
