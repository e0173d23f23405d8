"""Every code of the registry: one case in which it fires, and one just inside the limit in which it keeps still.

Each entry of `CASES` names its code and gives the codes found in the two cases. Limits are those of the tables; where a
limit is a number, the two cases lie a millimetre or a pound at either side of it.
"""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, field
from functools import lru_cache
from math import hypot
from typing import Any
from unittest import TestCase

from pinakotheke.core.checks import Finding, check_design, check_survey, rules
from pinakotheke.core.checks.homes import home_findings
from pinakotheke.core.house import Answer, HouseRules, Person, SpaceUse
from pinakotheke.core.house.lifting import shelf_lift
from pinakotheke.core.house.limits import HouseLimits
from pinakotheke.core.house.people import reach_zone
from pinakotheke.core.inventory import Thing
from pinakotheke.core.inventory.zones import Conflict
from pinakotheke.core.layout import Assignment, Design, Limits, Unplaced
from pinakotheke.core.mechanics.fasteners import lag_withdrawal
from pinakotheke.core.mechanics.shelves import rail_sag
from pinakotheke.core.survey import Survey, envelope, envelopes
from pinakotheke.core.survey.carry import tilt_height
from pinakotheke.core.systems import FAMILIES, Bay, OnPart, Part
from pinakotheke.core.tables import value
from pinakotheke.core.words import remedy, sentence

from .examples import ADULT, PLAIN, TIGHT_FIT, WARDROBE, hung, solved, survey, survey_of, thing, wardrobe

Codes = set[str]
Both = tuple[Codes, Codes]
STUDS = "; studs 100 then every 400"


@dataclass
class Given:
    """What is judged: a design in a space, with things and people; each may be another."""

    design: Design = field(default_factory=wardrobe)
    line: str = PLAIN
    things: tuple[Thing, ...] = WARDROBE
    people: tuple[Person, ...] = (ADULT,)
    use: SpaceUse | None = None
    house: HouseRules | None = None
    read: Survey | None = None

    def found(self) -> tuple[Finding, ...]:
        """Everything that is found."""
        read = self.read or survey(self.line)
        regions = {"A": envelope(read, TIGHT_FIT)} if self.read is None else envelopes(read, TIGHT_FIT)
        limits = None if self.use is None else Limits.in_space(self.people, read, regions, self.use)
        return check_design(self.design, read, regions, self.things, self.people, limits=limits, use=self.use,
                            house=self.house)  # fmt: skip


def codes(**given: Any) -> Codes:
    return {f.code for f in Given(**given).found()}


def read(kind: str, *lines: str) -> Codes:
    got = survey_of(kind, *lines)
    return {f.code for f in check_survey(got, {got.main.id: envelope(got, HouseRules())})}


def changed(role: str, design: Design | None = None, **fields: Any) -> Design:
    """A design with the first part of a role changed."""
    design = design or wardrobe()
    target = next(p for p in design.parts if p.role == role)
    return design.model_copy(
        update={"parts": tuple(p.model_copy(update=fields) if p is target else p for p in design.parts)}
    )


def having(*parts: Part, design: Design | None = None) -> Design:
    design = design or wardrobe()
    return design.model_copy(update={"parts": (*design.parts, *parts)})


def holding(*rows: tuple[str, str, str, int], design: Design | None = None) -> Design:
    """A design in which only these things are: thing, part, way, count."""
    held = tuple(Assignment(id=f"a{n}", thing=t, part=p, way=w, count=c)  # type: ignore[arg-type]
                 for n, (t, p, w, c) in enumerate(rows))  # fmt: skip
    return (design or wardrobe()).model_copy(update={"assignments": held})


def first(role: str, design: Design | None = None) -> Part:
    return next(p for p in (design or wardrobe()).parts if p.role == role)


SHELF = "b2-shelf-3"
"""A shelf of the wardrobe that holds jumpers."""


def last(holds: Callable[[int], bool], numbers: Iterable[int]) -> int:
    """The last of ascending numbers before something no longer holds."""
    return next(n for n in numbers if not holds(n)) - 1


# -- what was read --


def survey_cases() -> dict[str, Both]:
    niche = "width 1800 1800 1800; height 2400 2400 2400; depth 600 600; diagonal right {}"
    wall = "width 3114 3114 3114; height 2700 2700 2700; floor 0 at 0, {} at 3114"

    def across(out: float) -> str:
        # The diagonal of a right corner whose side wall goes out by so much over the depth.
        return f"{hypot(1800 + out, 600):.3f}"

    plain = survey(PLAIN)
    without = check_survey(plain, {"A": envelope(plain, TIGHT_FIT)})
    rough = survey("width 1846")
    return {
        "survey.missing": ({f.code for f in check_survey(rough, {"A": envelope(survey(PLAIN), TIGHT_FIT)})},
                           {f.code for f in without}),
        "survey.repeat": (codes(line=PLAIN + "; low back width 1846; low back width 1850"),
                          codes(line=PLAIN + "; low back width 1846; low back width 1849")),
        "survey.neighbour": (codes(line="width 1846 1890 1843; height 2412; depth 612; opening 1250 x 2030"),
                             codes(line="width 1846 1880 1843; height 2412; depth 612; opening 1250 x 2030")),
        "survey.sum": (codes(line=PLAIN.replace("1250", "1261")), codes(line=PLAIN.replace("1250", "1250"))),
        "survey.triangle": (codes(line=PLAIN + "; diagonals 1500 1940"), codes(line=PLAIN + "; diagonals 1947 1943")),
        "survey.outside": (codes(line=PLAIN + "; socket at 1840, 300 up, 80 x 80"),
                           codes(line=PLAIN + "; socket at 1740, 300 up, 80 x 80")),
        "survey.square": (read("recess", niche.format(across(6))), read("recess", niche.format(across(4)))),
        "survey.plinth": (read("wall", wall.format(11)), read("wall", wall.format(10))),
        "survey.damp": (read("shed", "width 1800; height 2000; damp"), read("shed", "width 1800; height 2000")),
        "survey.level": (codes(), codes(line=PLAIN + "; floor 0 at 0, 3 at 900, 4 at 1800")),
        "clear.passage": tuple(  # type: ignore[dict-item]
            read("walk-in U", f"A: width 2000; height 2400; B: width {n}; height 2400; C: width 2000; height 2400")
            for n in (1799, 1800)
        ),
        "clear.caution": (codes(line=PLAIN + "; panel at 50, 900 up, 300 x 500"),
                          codes(line=PLAIN + "; socket at 50, 300 up, 80 x 80")),
    }  # fmt: skip


# -- the design's own geometry --


def fit_cases() -> dict[str, Both]:
    plain, design = codes(), wardrobe()
    frame, rail = first("frame"), first("rail")
    many = tuple(a.model_copy(update={"count": 400}) if a.thing == "shirts" else a for a in design.assignments)
    full = last(lambda n: "fit.capacity" not in codes(
        design=design.model_copy(update={"assignments": tuple(
            a.model_copy(update={"count": n}) if a.thing == "shirts" else a for a in design.assignments)}),
        things=(thing("shirts", "shirt", n), *WARDROBE[1:])), range(9, 60))  # fmt: skip

    def shirts(n: int) -> Codes:
        rows = tuple(a.model_copy(update={"count": n}) if a.thing == "shirts" else a for a in design.assignments)
        return codes(design=design.model_copy(update={"assignments": rows}),
                     things=(thing("shirts", "shirt", n), *WARDROBE[1:]))  # fmt: skip

    hatch = dividers()
    return {
        "fit.unplaced": (codes(design=design.model_copy(update={"unplaced": (Unplaced(thing="shirts", count=1),)})), plain),
        "fit.capacity": (shirts(full + 1), shirts(full)),
        "fit.headroom": (codes(design=changed("rail", z=rail.z - 32 * 40)), plain),
        "fit.envelope": (codes(design=changed("frame", x=-5)), plain),
        "fit.closed": (codes(line=f"{PLAIN}; pipe at {frame.x + 50}, 0 up, 40 x 2000, out 60"), plain),
        "fit.overlap": (codes(design=having(frame.model_copy(update={"id": "again", "x": frame.x + frame.w - 1}))),
                        codes(design=having(frame.model_copy(
                            update={"id": "again", "x": frame.x, "w": 3, "z": 2100, "h": 3})))),
        "fit.support": (codes(design=changed("rail", w=rail.w - 40)), plain),
        "fit.size": (codes(things=(WARDROBE[0], thing("jumpers", "jumper", 5, size=(3000, 3000, 60)), *WARDROBE[2:])),
                     plain),
        "fit.count": (codes(design=design.model_copy(update={"assignments": design.assignments[1:]})), plain),
        "fit.unknown": (codes(things=WARDROBE[1:]), plain),
        "fit.back-cut": (hatch, plain),
        "pull-out.return": (codes(line=PLAIN.replace("opening 1250 x 2030; nibs 296 300",
                                                     "opening 300 x 2030; nibs 773 773")), plain),
        "strength.rating": (codes(design=design.model_copy(update={"assignments": many}),
                                  things=(thing("shirts", "shirt", 400), *WARDROBE[1:])), plain),
    }  # fmt: skip


@lru_cache
def dividers() -> Codes:
    """A design whose frame stands round a hatch, as `test_dividers` has it."""
    from .test_dividers import DividerTests  # its line and its garments

    line, garments = DividerTests.LINE, DividerTests.GARMENTS
    found = solved(garments, line, families=("carcase",), effort=0.2)
    design = next(d for d in found.alternatives if any(p.role == "divider" for p in d.parts))
    return codes(design=design, line=line, things=garments)


# -- strength, fixings, standing --


def weighing(mass: float) -> dict[str, Any]:
    """The wardrobe with jumpers so heavy on their shelf."""
    return {
        "things": tuple(t.model_copy(update={"mass": mass / t.count}) if t.id == "jumpers" else t for t in WARDROBE)
    }


def strength_cases() -> dict[str, Both]:
    def without(code: str, **more: Any) -> Callable[[int], bool]:
        return lambda kg: code not in codes(**weighing(kg), **more)

    def both(code: str, **more: Any) -> Both:
        most = last(without(code, **more), range(1, 400))
        return codes(**weighing(most + 1), **more), codes(**weighing(most), **more)

    usual = int(value("rail.support_every"))
    longest = last(lambda w: rail_sag(w, value("hang.load") * w / 1000) <= w / value("strength.sag"), range(600, 6000))
    drawer = first("drawer")
    socks = tuple(t.model_copy(update={"mass": 3.0}) if t.id == "socks" else t for t in WARDROBE)
    light = tuple(t.model_copy(update={"mass": 1.0}) if t.id == "socks" else t for t in WARDROBE)
    assert drawer.id in {a.part for a in wardrobe().assignments}
    return {
        "strength.sag": both("strength.sag"),
        "strength.stress": both("strength.stress"),
        "strength.support": both("strength.support"),
        "strength.runner": (codes(things=socks), codes(things=light)),
        "strength.rail": (codes(design=changed("rail", w=longest + 1)), codes(design=changed("rail", w=longest))),
        "strength.rail-support": (codes(design=changed("rail", w=usual + 1)), codes(design=changed("rail", w=usual))),
    }


def on_track(line: str, kilos: float = 5, rules_: HouseRules | None = None, lining: str = "plasterboard",
             house: HouseRules | None = None) -> Codes:  # fmt: skip
    """A design on track and standard with so many kilograms of jeans."""
    design = hung()
    things = tuple(t.model_copy(update={"mass": kilos / t.count}) if t.id == "jeans" else t for t in hung_things())
    if rules_ is not None:
        design = design.model_copy(update={"rules": rules_})
    got = survey(line).model_copy(update={"lining": lining})
    return codes(design=design, things=things, read=got, house=house)


def hung_things() -> tuple[Thing, ...]:
    from .examples import FOLDED

    return FOLDED


def overhead(kilos: float) -> Codes:
    """A platform hung from the ceiling by two struts, with suitcases so heavy on it."""
    bay = Bay(index=2, section="A", family="overhead", x=0, w=1200, y=0, depth=570, hang_depth=600, z0=1990, z1=2410,
              pitch=20, pulls=False, has_base=False)  # fmt: skip
    platform = FAMILIES["overhead"].placed(bay, "p", "platform", 1990)
    struts = [Part(id=f"h{n}", item="overhead.hanger", role="hanger", section="A", x=x, y=570, z=1990, w=30, d=30, h=420,
                   fixed_to="ceiling") for n, x in enumerate((0, 1170))]  # fmt: skip
    platform = platform.model_copy(update={"fixed_to": OnPart(part="h0")})
    design = having(platform, *struts).model_copy(update={"bays": (*wardrobe().bays, bay)})
    boxes = thing("boxes", "suitcase-large", 4, way="overhead", mass=max(kilos / 4, 0.1))
    held = Assignment(id="up", thing="boxes", part="p", way="overhead", count=4)
    return codes(
        design=design.model_copy(update={"assignments": (*design.assignments, held)}), things=(*WARDROBE, boxes)
    )


def fixing_cases() -> dict[str, Both]:
    drilled = TIGHT_FIT.model_copy(update={"fixing": "as-drilled"})
    line = PLAIN + STUDS
    most = last(lambda kg: "fixing.screw" not in on_track(line, kg), range(1, 2000))
    each = lag_withdrawal(HouseLimits().gravity, value("fixing.lag"), value("fixing.lag_thread"))
    heaviest = last(lambda kg: "fixing.lag" not in overhead(kg), range(int(7 * each), int(9 * each)))
    return {
        "fixing.studs": (on_track(PLAIN), on_track(line)),
        "fixing.screw": (on_track(line, most + 1), on_track(line, most)),
        "fixing.anchor": (on_track(line, 60, drilled), on_track(line, 60)),
        "fixing.unknown": (on_track(PLAIN, lining="unknown"), on_track(line)),
        "fixing.joists": (overhead(10), codes()),
        "fixing.lag": (overhead(heaviest + 1), overhead(heaviest)),
    }


def rolling(high: int) -> Codes:
    """A light trolley so high, where the wardrobe's frames stood."""
    as_trolley = {"role": "trolley", "item": "trolley.trolley", "z": 0, "h": high, "d": 200, "w": 200}
    frames = [p for p in wardrobe().parts if p.role == "frame"]
    trolley = frames[0].model_copy(update=as_trolley)
    return codes(design=wardrobe().model_copy(update={"parts": (trolley,), "assignments": ()}))


def standing_cases() -> dict[str, Both]:
    high, deep = int(value("strength.anchor_height")), int(value("strength.anchor_slender"))
    frames = [p for p in wardrobe().parts if p.role == "frame"]

    def lower(h: int) -> Design:
        parts = tuple(p.model_copy(update={"z": 0, "h": h}) if p.role == "frame" else p for p in wardrobe().parts)
        return wardrobe().model_copy(update={"parts": parts})

    assert high < deep * frames[0].d
    tallest = max(frames, key=lambda p: hypot(p.h, p.d))
    ceiling = tilt_height(tallest.h, tallest.d) + value("fit.diagonal_room")
    rooms = [f"width 1846; height {int(ceiling) + n}; depth 612; opening 1250 x 2030; nibs 296 300" for n in (-1, 2)]
    widest = max(hypot(p.w, p.d) for p in frames)
    head = [
        f"width 1846 1849 1843; height 2412; depth 612; opening 1250 x {frames[0].d + n}; nibs 296 300" for n in (-1, 1)
    ]
    two = int(value("strength.two_person_height"))
    # Its drawer out and the test load on that tip it; with nothing that comes out the load hangs at the front itself.
    shut = tuple(p for p in wardrobe().parts if p.role != "drawer")
    still = wardrobe().model_copy(update={"parts": tuple(
        p.model_copy(update={"d": frames[0].d}) if p.role == "plinth" else p for p in shut)})  # fmt: skip
    return {
        "safety.anchor": (codes(design=lower(high + 1)), codes(design=lower(high))),
        "safety.tips": (codes(), codes(design=still)),
        "safety.rolls": (rolling(int(value("tip.test_height"))), rolling(int(value("tip.test_height")) - 1)),
        "carry.tilt": (codes(line=rooms[0]), codes(line=rooms[1])),
        "carry.opening": (codes(line=head[0]), codes(line=head[1])),
        "carry.turn": (
            codes(line=f"{PLAIN}; passage {int(widest) - 1}"),
            codes(line=f"{PLAIN}; passage {int(widest) + 1}"),
        ),
        "carry.two-person": (codes(design=lower(two + 1)), codes(design=lower(two))),
    }


# -- opening, reaching, harm --


def walled(width: int) -> Survey:
    """A walk-in of three walls whose middle one is so wide."""
    return survey_of(
        "walk-in U", f"A: width 2000; height 2412; B: width {width}; height 2412; C: width 2000; height 2412"
    )


def motion_cases() -> dict[str, Both]:
    from .test_choices import SlidingDoorTests  # noqa: F401  (what straddles is shown there on a search's own doors)

    drawer = first("drawer")
    out = 2 * drawer.d - drawer.d + value("clear.pull_stand")
    leaf = Part(id="leaf", item="carcase.door", role="door", section="A", bay=0, x=3, y=590, z=70, w=450, d=18, h=2000,
                fixed_to=OnPart(part="frame-1"), hinge="left")  # fmt: skip
    swung = 450 + value("passage.door_leaf")

    def facing(part: Part, room: float) -> Codes:
        # Runs of a U are planned 600 deep, and what is left between them is the passage.
        got = walled(int(1200 + room))
        design = having(part).model_copy(update={"parts": (part.model_copy(update={"section": "A"}),)})
        design = design.model_copy(update={"bays": tuple(b.model_copy(update={"section": "A"}) for b in design.bays)})
        return codes(design=design, read=got)

    doors = [Part(id=f"d{n}", item="carcase.door", role="door", section="A", x=x, y=590, z=70, w=700, d=18, h=2000,
                  fixed_to=OnPart(part="frame-1")) for n, x in enumerate((3, 703))]  # fmt: skip

    def across(line: int) -> Codes:
        # The leaves meet at 703; a tray from so far to the left of it.
        tray = Part(id="pull", item="carcase.tray", role="tray", section="A", bay=0, x=line, y=6, z=300, w=300, d=500, h=64,
                    fixed_to=OnPart(part="frame-1"))  # fmt: skip
        return codes(design=having(*doors, tray))

    def box(y: int) -> str:
        return f"{PLAIN}; box at {drawer.x + 100}, 700 up, 100 x 300, {y} out from the wall, out 50"

    def standing_out(part: Part, y: float) -> Codes:
        got = survey(PLAIN)
        post = {
            "id": "post",
            "kind": "box",
            "x": part.x + 100,
            "z": part.z,
            "width": 50,
            "height": 60,
            "y": y,
            "projection": 50,
        }
        return codes(design=having(part), read=Survey.model_validate({**got.model_dump(), "obstacles": [post]}))

    farthest = drawer.model_copy(update={"id": "another"})
    return {
        "doors.straddle": (across(600), across(703)),
        "pull-out.stand": (facing(drawer, out - 2), facing(drawer, out + 2)),
        "pull-out.meets": (standing_out(farthest, farthest.y + 2 * farthest.d - 1),
                           standing_out(farthest, farthest.y + 2 * farthest.d)),
        "doors.swing": (facing(leaf, swung - 2), facing(leaf, swung + 2)),
        "doors.meets": (standing_out(leaf, leaf.y + 400), standing_out(leaf, leaf.y + 450)),
    }  # fmt: skip


def reach_cases() -> dict[str, Both]:
    child = Person(id="kim", name="Kim", stature=1150, age="child")
    seated = ADULT.model_copy(update={"posture": "seated"})
    theirs = tuple(t.model_copy(update={"owner": "kim"}) for t in WARDROBE)
    shelf = next(p for p in wardrobe().parts if p.id == SHELF)
    grip = reach_zone(child, shelf.d).high - shelf.h
    low, eye = reach_zone(seated).low - shelf.h, reach_zone(ADULT, shelf.d).easy_high - shelf.h
    socks = next(p for p in wardrobe().parts if p.role == "drawer")
    assert socks.z < eye

    def at(z: float, **given: Any) -> Codes:
        parts = tuple(p.model_copy(update={"z": int(z)}) if p.id == SHELF else p for p in wardrobe().parts)
        return codes(design=wardrobe().model_copy(update={"parts": parts}), **given)

    def daily(z: float) -> Codes:
        return at(z, things=tuple(t.model_copy(update={"frequency": "daily"}) if t.id == "jumpers" else t
                                  for t in WARDROBE if t.id in ("jumpers",)))  # fmt: skip

    rare = tuple(t.model_copy(update={"frequency": "rarely"}) for t in WARDROBE)
    stool = (*rare, thing("steps", "ladder-step", 1))
    top = reach_zone(ADULT, shelf.d).high
    kilos = shelf_lift(30, (shelf.z + shelf.h + 100) / 10, "fair")

    def box(mass: float) -> Codes:
        crate = thing("crate", "moving-box", 1, size=(400, 300, 200), mass=mass, way="box")
        return codes(design=holding(("crate", SHELF, "box", 1)), things=(crate,))

    return {
        "reach.high": (at(grip + 2, things=theirs, people=(child,)), at(1, things=theirs[1:2], people=(child,))),
        "reach.low": (
            at(low - 2, people=(seated,), things=WARDROBE[1:2]),
            at(low + 2, people=(seated,), things=WARDROBE[1:2]),
        ),
        "reach.zone": (daily(eye + 2), daily(eye - 2)),
        "reach.stool": (at(top + 5, things=rare), at(top + 5, things=stool)),
        "reach.lift": (box(kilos * 1.01), box(kilos * 0.99)),
    }


def harm_cases() -> dict[str, Both]:
    child = Person(id="kim", name="Kim", stature=1150, age="child")
    shelf = next(p for p in wardrobe().parts if p.id == SHELF)
    locked = int(value("reach.locked_above")) - shelf.h

    def kept(kind: str, *, z: int = 0, way: str = "shelf", people: tuple[Person, ...] = (ADULT,), part: str = SHELF,
             line: str = PLAIN, **use: Any) -> Codes:  # fmt: skip
        parts = tuple(p.model_copy(update={"z": z or p.z}) if p.id == part else p for p in wardrobe().parts)
        design = holding(("it", part, way, 1)).model_copy(update={"parts": parts})
        return codes(design=design, things=(thing("it", kind, 1, frequency="monthly"),), people=people, line=line,
                     use=SpaceUse(**use) if use else None)  # fmt: skip

    wide = int(value("inventory.wide_above"))

    def broad(width: int) -> Codes:
        design = holding(("it", "b2-shelf-5", "box", 1))
        parts = tuple(p.model_copy(update={"z": 1800}) if p.id == "b2-shelf-5" else p for p in design.parts)
        it = thing("it", "moving-box", 1, size=(width, 300, 200), frequency="monthly", way="box")
        return codes(design=design.model_copy(update={"parts": parts}), things=(it,))

    def told(code: str, **facts: Any) -> Codes:
        found = home_findings((Conflict(code=code, thing="t", space="s", **facts),), {"t": "T"}, {"s": "S"}, {})  # type: ignore[arg-type]
        return {f.code for f in found}

    panelled = PLAIN + "; panel at 1600, 1200 up, 200 x 300"

    def told_by(says: str) -> Codes:
        yes = Answer(question="panel", about=survey(panelled).obstacles[0].id, says=says, by="Ada", on="2026-11-27")  # type: ignore[arg-type]
        return codes(line=panelled, use=SpaceUse(answers=(yes,)))

    damp = Survey.model_validate({**survey(PLAIN).model_dump(), "damp": True})
    book = thing("it", "paper-ream", 1, frequency="monthly")
    on_floor = holding(("it", "b1-base-2", "shelf", 1))
    floor = tuple(p.model_copy(update={"z": 0}) if p.id == "b1-base-2" else p for p in on_floor.parts)
    low = on_floor.model_copy(update={"parts": floor})
    charger = thing("it", "chargers", 1, frequency="daily") if "chargers" in kinds() else None
    power = charger or next(thing("it", k, 1, frequency="daily") for k, row in kinds().items() if "power" in row.needs)
    socket = PLAIN + "; socket at 1700, 300 up, 80 x 80"
    return {
        "ask.open": (codes(line=panelled), codes(design=wardrobe().model_copy(update={"parts": ()}), things=())),
        "ask.yes": (told_by("yes"), told_by("no")),
        "ask.no": (told_by("no"), told_by("yes")),
        "safety.limit": (kept("bleach", people=(ADULT, child), locked=False, where="indoors"),
                         kept("bleach", people=(ADULT, child), locked=True)),
        "home.fuel": (kept("petrol-can", where="indoors"), kept("petrol-can", where="outdoors")),
        "home.child": (kept("bleach", z=locked - 2, people=(ADULT, child)), kept("bleach", z=locked + 2,
                                                                               people=(ADULT, child))),
        "home.damp": (codes(design=low, things=(book,), read=damp), codes(design=low, things=(book,))),
        "home.wide-high": (broad(wide + 1), broad(wide)),
        "home.no-socket": (codes(design=holding(("it", SHELF, "shelf", 1)), things=(power,)),
                           codes(design=holding(("it", SHELF, "shelf", 1)), things=(power,), line=socket)),
        # Of a whole house: what a home weighs, is reached by and has room for is asked by `homes`, tested in test_zones.
        "home.heavy": (told("heavy", measured=20, limit=10), set()),
        "home.out-of-reach": (told("out of reach", measured=2200, limit=2000), set()),
        "home.no-room": (told("no room", measured=40), set()),
    }  # fmt: skip


def kinds() -> Any:
    from pinakotheke.core.inventory.kinds import KINDS

    return KINDS


def sense_cases() -> dict[str, Both]:
    design, plain = wardrobe(), codes()
    shelves = [p for p in design.parts if p.role == "shelf"]
    one, other = shelves[0].id, shelves[1].id
    hers, his = thing("a", "jumper", 2, owner="ada"), thing("b", "jeans", 2, owner="bo")
    both = (hers, his)
    narrow = design.model_copy(update={"bays": tuple(
        b.model_copy(update={"w": 249}) if b.index == 0 else b for b in design.bays)})  # fmt: skip
    just = design.model_copy(update={"bays": tuple(
        b.model_copy(update={"w": 250}) if b.index == 0 else b for b in design.bays)})  # fmt: skip
    mixed = design.model_copy(update={"bays": tuple(
        b.model_copy(update={"family": "track"}) if b.index == 0 else b for b in design.bays)})  # fmt: skip
    full = design.model_copy(
        update={"parts": tuple(p for p in design.parts if p.id not in ("b1-shelf-3", "b2-shelf-5"))}
    )
    # Two bays of shelves, three in each: at one height, or half a metre apart.
    level = [shelves[1].model_copy(update={"id": f"l{n}", "bay": n % 2, "z": 300 + 300 * (n // 2)}) for n in range(6)]
    steps = [p.model_copy(update={"z": p.z + (137 if p.bay else 0)}) for p in level]
    only = [p for p in design.parts if p.role in ("frame", "plinth")]
    shoes = thing("s", "trainers", 1)
    jumpers = thing("j", "jumper", 2)

    def beside(parts: list[Part]) -> Codes:
        bare = design.model_copy(update={"parts": (*only, *parts), "assignments": ()})
        return codes(design=bare, things=())

    return {
        "sense.hung": (codes(design=holding(("shirts", one, "shelf", 9))), plain),
        "sense.clean": (codes(design=holding(("s", other, "shoe", 1), ("j", other, "shelf", 2)), things=(shoes, jumpers)),
                        codes(design=holding(("s", one, "shoe", 1), ("j", other, "shelf", 2)), things=(shoes, jumpers))),
        "sense.together": (codes(design=holding(("j", one, "shelf", 1), ("j", other, "shelf", 1)), things=(jumpers,)),
                           codes(design=holding(("j", one, "shelf", 2)), things=(jumpers,))),
        "sense.owners": (codes(design=holding(("a", one, "shelf", 2), ("b", one, "shelf", 2)), things=both),
                         codes(design=holding(("a", one, "shelf", 2), ("b", other, "shelf", 2)), things=both)),
        "sense.lines": (beside(steps), beside(level)),
        "sense.systems": (codes(design=mixed), plain),
        "sense.slivers": (codes(design=narrow), codes(design=just)),
        "sense.empties": (plain, codes(design=full)),
    }  # fmt: skip


CASES: tuple[Callable[[], dict[str, Both]], ...] = (
    survey_cases, fit_cases, strength_cases, fixing_cases, standing_cases, motion_cases, reach_cases, harm_cases,
    sense_cases,
)  # fmt: skip


class EveryCodeTests(TestCase):
    def holds(self, cases: dict[str, Both]) -> None:
        for code, (fires, quiet) in cases.items():
            with self.subTest(code):
                self.assertIn(code, fires)
                self.assertNotIn(code, quiet)

    def test_what_was_read(self) -> None:
        self.holds(survey_cases())

    def test_the_designs_own_geometry(self) -> None:
        self.holds(fit_cases())

    def test_strength(self) -> None:
        self.holds(strength_cases())

    def test_fixings(self) -> None:
        self.holds(fixing_cases())

    def test_standing_and_carrying(self) -> None:
        self.holds(standing_cases())

    def test_opening(self) -> None:
        self.holds(motion_cases())

    def test_reaching_and_lifting(self) -> None:
        self.holds(reach_cases())

    def test_what_can_hurt(self) -> None:
        self.holds(harm_cases())

    def test_at_a_glance(self) -> None:
        self.holds(sense_cases())

    def test_none_is_missing_and_each_has_a_source_and_a_mend(self) -> None:
        tried = {code for cases in CASES for code in cases()}
        self.assertEqual(tried, set(rules()))
        for finding in (*Given().found(), *Given(line=PLAIN + "; damp", **weighing(90)).found()):
            self.assertTrue(finding.source and remedy(finding) and sentence(finding, "metric"), finding.code)
