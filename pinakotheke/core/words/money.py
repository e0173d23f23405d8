"""Money as it is written where its currency is at home."""

from decimal import Decimal

from ..tables import load


def figures(amount: Decimal | float, currency: str, *, whole: bool = False) -> str:
    """An amount in the separators of its currency, to the cent, or in whole units.

    >>> figures(1600, "EUR"), figures(1600, "USD"), figures(1234.5, "CHF"), figures(1600, "JPY")
    ('1.600,00', '1,600.00', '1’234.50', '1,600')
    """
    thousands, decimals, digits = load("currencies").get(currency, (",", ".", 2))
    text = f"{amount:,.{0 if whole else digits}f}"
    return text.translate({ord(","): thousands, ord("."): decimals})


def money(amount: Decimal | float, currency: str, *, whole: bool = False) -> str:
    """The same with its currency."""
    return f"{figures(amount, currency, whole=whole)} {currency}"
