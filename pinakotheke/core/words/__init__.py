"""Every sentence a person reads, made from data in the household's units, so that the command line says what the page
says. Whatever else of the core has something to say gives numbers, names and codes.
"""

from .acts import act_in_words
from .amounts import amount, storage_sum
from .because import because_in_words
from .blocks import Speech, blocked_in_words, no_place_in_words, relaxation_in_words
from .choices import (
    family_names,
    free_in_words,
    glance_in_words,
    holds_in_words,
    home_in_words,
    method_in_words,
    outcome_in_words,
    sensitivity_in_words,
)
from .demand import changes_in_words, class_in_words, offer_in_words, over_stock_in_words, purge_in_words
from .doubts import NEXT, doubt_in_words
from .findings import DEFER, closed_in_words, remedy, remedy_of, sentence
from .homes import reason_words, why
from .money import figures, money, more_or_less
from .slips import BASES, Slip, slip
from .stages import States, states_in_words
from .standing import agreed_in_words, next_in_words, state_in_words

__all__ = [
    "BASES",
    "DEFER",
    "NEXT",
    "Slip",
    "Speech",
    "States",
    "act_in_words",
    "agreed_in_words",
    "amount",
    "because_in_words",
    "blocked_in_words",
    "changes_in_words",
    "class_in_words",
    "closed_in_words",
    "doubt_in_words",
    "family_names",
    "figures",
    "free_in_words",
    "glance_in_words",
    "holds_in_words",
    "home_in_words",
    "method_in_words",
    "money",
    "more_or_less",
    "next_in_words",
    "no_place_in_words",
    "offer_in_words",
    "outcome_in_words",
    "over_stock_in_words",
    "purge_in_words",
    "reason_words",
    "relaxation_in_words",
    "remedy",
    "remedy_of",
    "sensitivity_in_words",
    "sentence",
    "slip",
    "state_in_words",
    "states_in_words",
    "storage_sum",
    "why",
]
