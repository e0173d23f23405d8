"""The many words for one kind of thing, and what a quick-add line makes of them."""

from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from pinakotheke.core.errors import CallOutError
from pinakotheke.core.inventory import KINDS, quick_add
from pinakotheke.core.inventory.parse import guesses, named

WORDS = [(w, k.id) for k in KINDS.values() if k.id != "custom" for w in (k.one, k.many, *k.words)]


class WordTests(TestCase):
    def test_one_and_many_and_shortened(self) -> None:
        for word, kind in (
            ("shirt", "shirt"), ("Shirts", "shirt"), ("pairs of trousers", "trousers"),
            ("drain cleaner", "drain-cleaner"),
            ("boxes of tea", "tea-box"), ("tea boxes", "tea-box"), ("bottle of bleach", "bleach"), ("glasses", "glass"),
            ("bike pump", "bike-pump"), ("T-shirts", "t-shirt"), ("tins", "tin-food"), ("hammers", "hammer"),
        ):  # fmt: skip
            found = named(word)
            self.assertEqual((found.kind.id, found.guess) if found else None, (kind, False), word)

    def test_no_word_means_two_kinds_by_accident(self) -> None:
        """A kind's own id, and its own words for one and for many, lead to itself or to a kind that has them too."""
        for kind in (k for k in KINDS.values() if k.id != "custom"):
            for word in (kind.id, kind.one, kind.many):
                got = named(word)
                assert got is not None
                found = got.kind
                own = {w.lower() for w in (found.id, found.one, found.many, *found.words)}
                self.assertTrue(found.id == kind.id or word.lower() in own, (word, kind.id, found.id))

    def test_what_is_close_is_guessed_and_others_are_offered(self) -> None:
        (thing,) = quick_add("3 shrits", (), "metric")
        self.assertEqual((thing.kind, thing.unsure), ("shirt", "kind"))
        self.assertIn("shorts", [k.id for k in guesses("shrits", "shirt")])

    @given(st.sampled_from(WORDS), st.integers(1, 999))
    def test_every_word_can_be_added(self, row: tuple[str, str], count: int) -> None:
        word, kind = row
        (thing,) = quick_add(f"{count} {word}", (), "metric")
        self.assertEqual((thing.count, thing.unsure), (count, ""))
        own = {w.lower() for w in (thing.row.id, thing.row.one, thing.row.many, *thing.row.words)}
        self.assertTrue(thing.kind == kind or word.lower() in own, (word, kind, thing.kind))

    def test_amounts_that_cannot_be(self) -> None:
        for line in ("600 kg rice", "0 kg flour", "0 shirts", "100000 hats"):
            with self.assertRaises(CallOutError) as caught:
                quick_add(line, (), "metric")
            self.assertTrue(caught.exception.mend, line)

    def test_grams_and_commas(self) -> None:
        (oats,) = quick_add("750 g oats", (), "metric")
        self.assertEqual((oats.name, oats.mass), ("Oats", 0.75))
        (rice,) = quick_add("1,5 kg rice", (), "metric")
        self.assertEqual(rice.note[:6], "1.5 kg")
