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


def more_or_less(amount: Decimal | float, currency: str) -> str:
    """A difference with its sign and currency; nothing where there is none.

    >>> more_or_less(12.5, "CHF"), more_or_less(-3, "EUR"), more_or_less(0, "EUR")
    ('+12.50 CHF', '−3,00 EUR', '')
    """
    return f"{'+' if amount > 0 else '−'}{money(max(amount, -amount), currency)}" if amount else ""
