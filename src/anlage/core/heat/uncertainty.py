"""How far meters may read wrong, and what that makes of a heat input.

Glossary
--------
tolerance : how far a reading may be off either way: a share of it, or an amount; every error within is as likely
two sigma : the amount within which 95 of 100 readings lie; errors are spread as a bell
expanded uncertainty : two standard uncertainties; 95 of 100 true values lie within it
"""

import math
import re
from collections.abc import Sequence

from msgspec import Struct

from anlage.core.errors import InputError, UnknownNameError, shortened
from anlage.core.quantities.units import Kind
from anlage.core.results import require_above_zero

SIGMAS = 2.0
WIDEST = 0.5  # of a reading: what is off by more measures nothing
_TEXT = re.compile(
    r"(?:±|\+/?-|\+-)?\s*(?P<number>\d+(?:[.,]\d+)?)\s*"
    r"(?:(?P<share>%)\s*(?:of\s+(?P<scale>\d+(?:[.,]\d+)?)\s*(?P<of_unit>[^\s\d]+)?|(?:of\s+)?(?:the\s+)?reading)?"
    r"|(?P<unit>[^\s\d%]\S*))"
    r"\s*(?P<sigmas>,?\s*(?:2|two)\s*(?:sigma|σ|s\.?d\.?)|,?\s*2σ)?",
    re.IGNORECASE,
)


class Tolerance(Struct, frozen=True):
    """How far a meter may be off: `share` of the reading, or `amount` in its unit; `two_sigma` says which of both."""

    share: float = 0.0
    amount: float = 0.0
    two_sigma: bool = False

    def half_width(self, reading: float) -> float:
        """Return how far a reading may be off, as a share of it."""
        return self.share + self.amount / reading

    def standard(self, reading: float) -> float:
        """Return its standard uncertainty as a share of a reading: half of two sigma, or a tolerance over √3."""
        return self.half_width(reading) / (SIGMAS if self.two_sigma else math.sqrt(3))


def tolerance_of(text: str, kind: Kind) -> Tolerance:
    """Return the tolerance of a meter as people state it.

    Parameters
    ----------
    text : `2.5 %`, `1 % of 500 A`, `±5 A`, `3 % two sigma`
    kind : what the meter reads; an amount is given in its base unit

    Raises
    ------
    InputError : it is no tolerance, none above 0, in another unit, or over half of the reading

    Sources
    -------
    Share of full scale: an amount, the share times the full scale (H, from memory).

    Examples
    --------
    >>> from anlage.data.tables import unit_table
    >>> tolerance_of("1 % of 500 A", unit_table()["current"]), tolerance_of("3 % two sigma", unit_table()["current"])
    (Tolerance(share=0.0, amount=5.0, two_sigma=False), Tolerance(share=0.03, amount=0.0, two_sigma=True))
    """
    found = _TEXT.fullmatch(text.strip())
    number = _number(found["number"]) if found else 0.0
    mend = f"write 2.5 %, 1 % of 500 {kind.base}, ±5 {kind.base}, or one of them with two sigma"
    if found is None or not number > 0:
        raise InputError(f"{shortened(text)} is no tolerance", where="tolerance", mend=mend)
    sigmas = found["sigmas"] is not None
    if not found["share"]:
        return Tolerance(amount=_factor(found["unit"], kind, mend) * number, two_sigma=sigmas)
    if number / 100 > WIDEST:
        raise InputError(f"{number:g} % of a reading measures nothing", where="tolerance", mend=mend)
    if found["scale"]:
        if not found["of_unit"]:
            raise InputError(f"{found['scale']} has no unit", where="tolerance", mend=mend)
        amount = number / 100 * _number(found["scale"]) * _factor(found["of_unit"], kind, mend)
        return Tolerance(amount=amount, two_sigma=sigmas)
    return Tolerance(share=number / 100, two_sigma=sigmas)


def _number(text: str) -> float:
    return float(text.replace(",", "."))


def _factor(unit: str, kind: Kind, mend: str) -> float:
    try:
        return kind.unit(unit.rstrip(",")).factor
    except UnknownNameError as fault:
        raise InputError(f"{unit} is not what this meter reads in", where="tolerance", mend=mend) from fault


class Spread(Struct, frozen=True):
    """How far a heat input may be off, as shares of it: expanded uncertainty, and both worst cases."""

    expanded: float
    least: float
    most: float


def heat_spread(rates: Sequence[tuple[float, Tolerance]], divided: Sequence[tuple[float, Tolerance]] = ()) -> Spread:
    """Return how far a heat input may be off by the meters that it was worked out from.

    Parameters
    ----------
    rates : reading and tolerance of each that it grows with: voltage, current
    divided : reading and tolerance of each that it falls with: travel speed

    Returns
    -------
    Spread : expanded uncertainty 2·√Σu²; the worst cases as shares of the heat input, `least` below 1, `most` above

    Raises
    ------
    InputError : a reading is not above 0

    Validity
    --------
    Errors that do not hang together, each small against its reading; the efficiency k is a convention and has none.

    Sources
    -------
    JCGM 100 (GUM): standard uncertainties add as squares, a tolerance is taken as rectangular (H, from memory).

    Examples
    --------
    >>> one, two, three = (Tolerance(share=each) for each in (0.01, 0.025, 0.03))
    >>> heat_spread([(25.4, one), (214, two)], [(318, three)])
    Spread(expanded=0.0465, least=0.9371, most=1.0672)
    """
    for reading, _ in (*rates, *divided):
        require_above_zero(reading=reading)
    parts = [*rates, *divided]
    expanded = SIGMAS * math.sqrt(sum(each.standard(reading) ** 2 for reading, each in parts))
    up, down = 1.0, 1.0
    for reading, each in rates:
        up, down = up * (1 + each.half_width(reading)), down * (1 - each.half_width(reading))
    for reading, each in divided:
        wide = min(each.half_width(reading), 1 - 1e-9)
        up, down = up / (1 - wide), down / (1 + wide)
    return Spread(expanded, max(down, 0.0), up)
