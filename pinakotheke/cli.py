"""The core's own face: a house file in, JSON or a drawing out.

Exit code 0 when it did what was asked, 1 when no design holds everything, 2 for bad input, with one line per fault.
"""

import argparse
import json
import sys
from dataclasses import asdict
from math import inf
from pathlib import Path
from time import perf_counter, process_time
from typing import Any, get_args

from .core.checks import Finding, check_design, check_survey
from .core.drawing import (
    SCALES,
    TEXT_MM,
    Drawing,
    design_elevation,
    design_plan,
    field_sheet,
    survey_elevation,
    survey_plan,
    to_pdf,
    to_svg,
    walkround,
)
from .core.errors import HouseFileError, PinakothekeError, Refusal
from .core.housefile import House, Space, load_house
from .core.inventory import demand
from .core.layout import Blocked, Design, Limits, Solution, Task, Watch, design_space, ledger
from .core.materials import Choice, Cutting, bill, hours, offcuts_in_hand, purchase
from .core.survey import Envelope, envelope, envelopes, with_stacks
from .core.systems import Catalogue, Finish
from .core.words import (
    Speech,
    blocked_in_words,
    no_place_in_words,
    outcome_in_words,
    relaxation_in_words,
    remedy,
    sensitivity_in_words,
    sentence,
)

BEGAN = perf_counter() - process_time()
"""When the program began, as nearly as its own work until here tells: what is waited for counts from then."""
SEARCHED = 0.9
"""The share of the time given until the answer is put together."""


def main(argv: list[str] | None = None) -> int:
    """Run one command; returns the exit code."""
    args, units = _parser().parse_args(argv), "metric"
    try:
        house = load_house(_read(args.house))
        units = house.units
        result, code = _COMMANDS[args.command](house, args)
    except HouseFileError as error:
        for line in error.lines():
            print(line, file=sys.stderr)
        return 2
    except (PinakothekeError, OSError) as error:
        print(error.said_in(units) if isinstance(error, Refusal) else error, file=sys.stderr)
        return 2
    if isinstance(result, bytes):
        return _write_bytes(result, args.out)
    text = result if isinstance(result, str) else json.dumps(result, ensure_ascii=False, indent=1) + "\n"
    if args.out:
        Path(args.out).write_text(text, "utf-8")
    else:
        sys.stdout.write(text)
    return code


def _write_bytes(data: bytes, out: str | None) -> int:
    if out:
        Path(out).write_bytes(data)
    else:
        sys.stdout.buffer.write(data)
    return 0


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m pinakotheke", description=__doc__)
    commands = parser.add_subparsers(dest="command", required=True)
    for name, about in (
        ("design", "alternatives with metrics, bound and gap"),
        ("check", "envelope, demand and findings"),
        ("cut", "the list to buy and the cut plans"),
        ("draw", "a drawing to scale"),
    ):
        command = commands.add_parser(name, help=about, description=about)
        command.add_argument("house", metavar="HOUSE.json", help="a house file, or - for standard input")
        command.add_argument("--space", metavar="ID", help="the space; needed when the house has several")
        command.add_argument("-o", dest="out", metavar="FILE", help="write to FILE instead of standard output")
        if name in ("design", "cut", "draw"):
            command.add_argument("--seconds", type=float, metavar="S",
                                 help="how long it takes in all; if not said, as long as a whole search")  # fmt: skip
        if name in ("cut", "draw"):
            command.add_argument("--design", type=int, metavar="N", help="which alternative, from 1")
        if name == "cut":
            command.add_argument("--cutting", choices=get_args(Cutting), default="measure",
                                 help="parts cut to measure, cut from whole stock, carcases made too")  # fmt: skip
        if name == "draw":
            command.add_argument("--as", dest="form", choices=["svg", "pdf", "glb", "field-sheet"], default="svg",
                                 help="format; field-sheet is the blank sheet to carry")  # fmt: skip
            command.add_argument("--view", choices=["elevation", "plan"], default="elevation")
            command.add_argument("--section", default="", metavar="ID", help="a wall, level or drawer of the space")
            command.add_argument("--scale", type=int, choices=sorted(SCALES), default=20, help="of a PDF (default 20)")
    return parser


def _read(name: str) -> bytes:
    return sys.stdin.buffer.read() if name == "-" else Path(name).read_bytes()


def _space(house: House, args: argparse.Namespace) -> Space:
    if args.space is None and len(house.spaces) == 1:
        return _designed(house.spaces[0])
    if args.space is None:
        raise Refusal("command.which-space", spaces=[s.id for s in house.spaces])
    return _designed(house.space(args.space))


def _designed(space: Space) -> Space:
    """A space as it is designed in: shelves that move on their holes make one place."""
    return space.model_copy(update={"survey": with_stacks(space.survey)})


def _solve(house: House, space: Space, seconds: float | None) -> Solution:
    others = [_designed(s) for s in house.spaces if s.id != space.id]
    task = _task(house, space, _regions(house, space))
    return design_space(task.but(
        budget=house.rules.budget, watch=Watch(until=BEGAN + SEARCHED * seconds if seconds is not None else inf),
        others=lambda: [_task(house, s, envelopes(s.survey, house.rules)) for s in others],
    ))  # fmt: skip


def _task(house: House, space: Space, regions: dict[str, Envelope]) -> Task:
    return Task(space=space.id, survey=space.survey, envelopes=regions, things=house.things_in(space.id),
                people=house.people, rules=house.rules, stock=house.stock, ranges=house.ranges,
                containers=house.containers, use=space.use, finish=Finish.of_house(house.rules))  # fmt: skip


def _regions(house: House, space: Space) -> dict[str, Envelope]:
    """The clear regions of a space; raises what the main one is refused for when there is none at all."""
    regions = envelopes(space.survey, house.rules)
    return regions or {space.survey.main.id: envelope(space.survey, house.rules)}


def _limits(house: House, space: Space, regions: dict[str, Envelope]) -> Limits:
    return Limits.in_space(house.people, space.survey, regions, space.use)


def _summary(house: House, space: Space, design: Design) -> dict[str, Any]:
    things = house.things_in(space.id)
    regions = _regions(house, space)
    findings = check_design(design, space.survey, regions, things, house.people, limits=_limits(house, space, regions))
    return {
        "design": design.model_dump(mode="json"),
        "gap": design.outcome.gap,
        "ledger": ledger(things, house.rules, design).model_dump(mode="json"),
        "outcome": outcome_in_words(design, house.units),
        "total": str(bill(design).total),
        "hours": hours(design).hours,
        "findings": _said(findings, house),
    }


def _said(findings: tuple[Finding, ...], house: House) -> list[dict[str, Any]]:
    """Findings as data, each with its sentence and its mend as the page says them."""
    return [
        {**f.model_dump(mode="json"), "sentence": sentence(f, house.units), "remedy": remedy(f, house.units)}
        for f in findings
    ]


def _design(house: House, args: argparse.Namespace) -> tuple[Any, int]:
    space = _space(house, args)
    solution = _solve(house, space, args.seconds)
    blocked = solution.blocked
    return {
        "alternatives": [_summary(house, space, d) for d in solution.alternatives],
        "blocked": _blocked(house, space, blocked) if blocked else None,
        "frontier": [p.model_dump(mode="json", exclude={"design"}) for p in solution.frontier],
        "sensitivities": [
            {**s.model_dump(mode="json"),
             "sentence": sensitivity_in_words(s, house.units, house.currency, Catalogue(house.ranges))}
            for s in solution.sensitivities
        ],
    }, 1 if blocked else 0  # fmt: skip


def _blocked(house: House, space: Space, blocked: Blocked) -> dict[str, Any]:
    """Why not everything fits, as data and as the page says it."""
    names = {t.id: t.name for t in house.things_in(space.id)}
    speech = Speech(names, house.units, house.currency, {s.id: s.name for s in house.spaces})
    return {
        **blocked.model_dump(mode="json"),
        "sentence": blocked_in_words(blocked, speech),
        "refused": [{**r.model_dump(mode="json"), "sentence": no_place_in_words(r, speech)} for r in blocked.refused],
        "relaxations": [
            {**r.model_dump(mode="json"), "sentence": relaxation_in_words(r, speech)} for r in blocked.relaxations
        ],
    }


def _check(house: House, args: argparse.Namespace) -> tuple[Any, int]:
    spaces = [house.space(args.space)] if args.space else list(house.spaces)
    spaces = [_designed(space) for space in spaces]
    return [_checked(house, space) for space in spaces], 0


def _checked(house: House, space: Space) -> dict[str, Any]:
    things = house.things_in(space.id)
    wanted = demand(things, house.rules).model_dump(mode="json")
    try:
        region = envelope(space.survey, house.rules)
    except Refusal as error:
        return {"space": space.id, "envelope": None, "problem": error.said_in(house.units), "demand": wanted,
                "findings": [], "designs": []}  # fmt: skip
    regions = _regions(house, space)
    return {
        "space": space.id,
        "envelope": region.model_dump(mode="json"),
        "sections": {name: e.model_dump(mode="json") for name, e in regions.items()},
        "demand": wanted,
        "findings": _said(check_survey(space.survey, regions), house),
        "designs": [
            {"design": h.current.id, "title": h.current.title,
             "findings": _said(check_design(h.current, space.survey, regions, things, house.people,
                                            limits=_limits(house, space, regions)), house)}
            for h in house.designs if h.base.space == space.id
        ],
    }  # fmt: skip


def _chosen(house: House, space: Space, args: argparse.Namespace) -> Design:
    """The household's own design of the space, or the asked alternative of a fresh search."""
    own = [h.current for h in house.designs if h.base.space == space.id]
    if own and args.design is None:
        return own[0]
    alternatives = _solve(house, space, args.seconds).alternatives
    number = args.design or 1
    if not 1 <= number <= len(alternatives):
        raise Refusal("command.no-alternative", number=number, found=len(alternatives))
    return alternatives[number - 1]


def _cut(house: House, args: argparse.Namespace) -> tuple[Any, int]:
    """The list of one space, or of all that have designs, and how it is cut."""
    if args.space is None and args.design is None:
        first = {h.base.space: h.current for h in reversed(house.designs)}
        designs = [(s.name, first[s.id]) for s in house.spaces if s.id in first]
    if args.space is not None or args.design is not None or not designs:
        space = _space(house, args)
        designs = [(space.name, _chosen(house, space, args))]
    choice = Choice(cutting=args.cutting)
    bought = purchase(designs, choice, offcuts_in_hand(house.stock, house.sawing), house.sawing)
    return {
        "lines": [line.model_dump(mode="json") for line in bought.lines],
        "total": str(bought.total),
        "by_space": {space: str(amount) for space, amount in bought.by_space},
        "hours": round(bought.hours, 2),
        "uncut": [p.model_dump(mode="json") for p in bought.uncut],
        "plans": [
            {"stuff": plan.stuff.said(house.units), "parts": [p.model_dump(mode="json") for p in plan.parts],
             "waste": plan.waste, "cost": plan.plan.cost, "bound": plan.plan.bound, **asdict(plan.plan)}
            for plan in bought.plans
        ],
    }, 0  # fmt: skip


def _draw(house: House, args: argparse.Namespace) -> tuple[Any, int]:
    space = _space(house, args)
    if args.form == "field-sheet":
        return field_sheet(house.space(space.id).survey, house.units, space.name), 0
    if args.form == "glb":
        return walkround(_chosen(house, space, args), space.survey, house.things_in(space.id)), 0
    drawing = _drawing(house, space, args, TEXT_MM * args.scale if args.form == "pdf" else 0)
    return to_pdf([drawing], args.scale, house.units) if args.form == "pdf" else to_svg(drawing), 0


def _drawing(house: House, space: Space, args: argparse.Namespace, text: float) -> Drawing:
    """The measured space, or a design of it when one was chosen."""
    if args.section or (args.design is None and not any(h.base.space == space.id for h in house.designs)):
        view = survey_elevation if args.view == "elevation" else survey_plan
        return view(space.survey, house.units, space.name, text=text, section_id=args.section)
    design = _chosen(house, space, args)
    if args.view == "plan":
        return design_plan(design, space.survey, house.units, space.name, text=text)
    things = house.things_in(space.id)
    return design_elevation(design, space.survey, things, house.units, space.name, text=text)


_COMMANDS = {"design": _design, "check": _check, "cut": _cut, "draw": _draw}
