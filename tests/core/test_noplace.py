"""Why a thing has no place: thirty cases, each with the one sentence that a carpenter would say, its number counted by hand
where one is in it.
"""

from typing import Any, get_args
from unittest import TestCase

from pinakotheke.core.house import Person, SpaceUse
from pinakotheke.core.inventory import Thing
from pinakotheke.core.layout import Task
from pinakotheke.core.layout.packing.limits import Why
from pinakotheke.core.layout.placement.pool import candidates
from pinakotheke.core.layout.search.noplace import REASONS, why_no_place
from pinakotheke.core.survey import envelopes, with_stacks
from pinakotheke.core.tables import load
from pinakotheke.core.units import Units
from pinakotheke.core.words import Speech, no_place_in_words

from .examples import ADULT, TIGHT_FIT, survey_of, thing

CY = Person(id="cy", name="Cy", stature=1100, age="child")
WIDE = "width 1000; height 2400; depth 600; door none"


def custom(name: str, size: tuple[int, int, int], count: int = 1, **facts: object) -> Thing:
    """A thing of a size of its own."""
    return thing(name, "custom", count, size=size, **facts)


class NoPlaceTests(TestCase):
    maxDiff = None

    def says(self, sentence: str, one: Thing, line: str = WIDE, *, kind: str = "reach-in closet",
             people: tuple[Person, ...] = (ADULT,), units: Units = "metric", count: int = 0, **more: Any,
             ) -> None:  # fmt: skip
        """What is said where so many pieces (all, when none are named) have no place in a space."""
        survey = with_stacks(survey_of(kind, line))
        task = Task("closet", survey, envelopes(survey, TIGHT_FIT), (one,), people, TIGHT_FIT, **more)
        bays = [b for c in candidates(task) for b in c.bays]
        refused = why_no_place(one, count or one.count, bays, task.home)
        speech = Speech({one.id: one.name.capitalize()}, units, "EUR")
        self.assertEqual(no_place_in_words(refused, speech), sentence)

    def test_sizes(self) -> None:
        self.says(
            "Oven: 60 mm taller than the gap of 555 mm, with 25 mm to spare above it.",
            custom("oven", (595, 560, 590)),
            line="width 620; height 570; depth 600; door none",
        )
        self.says(
            'Oven: 2 3/8" taller than the gap of 21 7/8", with 1" to spare above it.',
            custom("oven", (595, 560, 590)),
            line="width 620; height 570; depth 600; door none",
            units="imperial",
        )
        self.says(
            "Microwave: 30 mm taller than the gap of 295 mm, with 25 mm to spare above it.",
            custom("microwave", (480, 380, 300)),
            kind="fixed shelves",
            line="level 1: width 780; depth 400; height 310; shelf 900 up",
        )
        self.says("Box: 326 mm wider than the widest place here, 984 mm.", custom("box", (1300, 300, 300)))
        self.says("Chest: 64 mm deeper than the deepest place here, 636 mm.", custom("chest", (900, 700, 400)))
        self.says("Trunk: 64 mm deeper than the deepest place here, 636 mm.", custom("trunk", (700, 700, 400)))
        self.says(
            "Pole: 160 mm taller than the gap of 2365 mm, with 25 mm to spare above it.",
            custom("pole", (300, 300, 2500)),
        )

    def test_what_hangs(self) -> None:
        self.says(
            "Shirts: hanging wants 560 mm of depth, and there are 345 mm.",
            thing("shirts", "shirt", 20),
            line="width 1000; height 2400; depth 350; door none",
        )
        self.says(
            'Shirts: hanging wants 22 1/16" of depth, and there are 13 9/16".',
            thing("shirts", "shirt", 20),
            line="width 1000; height 2400; depth 350; door none",
            units="imperial",
        )
        self.says(
            "Gowns: hangs 1650 mm down, 320 mm more than there is under the highest rail.",
            thing("gowns", "dress-long", 3),
            line="width 1000; height 1500; depth 600; door none",
        )
        self.says(
            "Coats: hangs 1450 mm down, 220 mm more than there is under the highest rail.",
            thing("coats", "coat-long", 2),
            line="width 1000; height 1400; depth 600; door none",
        )

    def test_what_is_left_over(self) -> None:
        self.says("Shirts: 12 left over; 336 mm more of rail would take them.", thing("shirts", "shirt", 40), count=12)
        self.says("Boots: 3 left over; 750 mm more of shoe shelf would take them.", thing("boots", "boot-ankle", 3))
        self.says("Hats: 4 left over; 600 mm more of shelf would take them.", thing("hats", "hat", 9), count=4)

    def test_what_must_never_be(self) -> None:
        self.says(
            "Gas: fuel gas stands outdoors, upright and ventilated, or not at all.", thing("gas", "gas-cylinder", 1)
        )
        self.says(
            "Gas: 1 left over; 330 mm more of floor would take it.",
            thing("gas", "gas-cylinder", 1),
            use=SpaceUse(where="outdoors"),
        )
        self.says(
            "Bleach: must stand above 1400 mm or behind a lock, and no place up there takes it.",
            thing("bleach", "bleach", 2),
            people=(ADULT, CY),
            line="width 1000; height 1300; depth 600; door none",
        )
        self.says(
            "Petrol: must stand above 1400 mm or behind a lock, and no place up there takes it.",
            thing("petrol", "petrol-can", 1),
            people=(ADULT, CY),
        )
        self.says(
            "Bleach: 2 left over; 120 mm more of shelf would take them.",
            thing("bleach", "bleach", 2),
            people=(ADULT, CY),
            line="width 1000; height 1300; depth 600; door none",
            use=SpaceUse(locked=True),
        )

    def test_odd_things(self) -> None:
        self.says(
            "Safe: 1 left over; 310 mm more of shelf for boxes would take it.",
            custom("safe", (300, 300, 300), mass=120),
        )
        self.says(
            "Printer: 1 left over; 510 mm more of shelf for boxes would take it.",
            custom("printer", (500, 400, 300), mass=45),
            families=("track",),
        )
        self.says(
            "Kayak: hangs 3600 mm down, 1316 mm more than there is under the highest rail.", thing("kayak", "kayak", 1)
        )
        self.says(
            "Mower: 568 mm wider than the widest place here, 752 mm.",
            thing("mower", "lawn-mower", 1),
            line="width 800; height 2400; depth 300; door none",
        )
        self.says(
            "Ladder: hangs 2300 mm down, 400 mm more than there is under the highest rail.",
            thing("ladder", "ladder", 1),
            line="width 1000; height 2000; depth 600; door none",
            families=("pegs",),
        )
        self.says(
            "Skis: hangs 1800 mm down, 576 mm more than there is under the highest rail.",
            thing("skis", "skis", 2),
            line="width 1000; height 1500; depth 600; door none",
            families=("carcase",),
        )
        self.says("Bicycle: 780 mm wider than the widest place here, 990 mm.", thing("bicycle", "bicycle", 1))
        self.says("Tyres: 4 left over; 2608 mm more of floor would take them.", thing("tyres", "tyre", 8), count=4)
        self.says(
            "Vase: 452 mm taller than the deepest drawer here is inside, 248 mm.",
            custom("vase", (300, 300, 700), way="drawer"),
        )
        self.says(
            "Socks: nothing that may be built here takes them.",
            thing("socks", "socks", 12, way="drawer"),
            families=("cleat",),
        )
        self.says(
            'Suits: 9 left over; 23 1/16" more of rail would take them.',
            thing("suits", "suit", 30),
            count=9,
            units="imperial",
        )
        self.says(
            "Broom: 1 left over; 110 mm more of hook bar would take it.",
            thing("broom", "broom", 1),
            families=("carcase",),
        )
        self.says(
            "Case: 14 mm deeper than the deepest place here, 286 mm.",
            thing("case", "custom", 1, size=(400, 300, 500), mass=12),
            line="width 1000; height 2400; depth 250; door none",
        )

    def test_every_reason_has_its_sentence_and_every_storage_its_word(self) -> None:
        table = load("no_place")
        self.assertEqual(set(REASONS) - {"reach"} - set(table), set())
        self.assertTrue(set(get_args(Why)) <= set(REASONS))
