"""Which indicating crayons show a preheat and an interpass limit: one that must melt, one that must not."""

from typing import Literal

from msgspec import Struct

from anlage.core.toml_rows import whole_table

Units = Literal["si", "us"]


class Crayons(Struct, frozen=True, forbid_unknown_fields=True):
    """A stock: ratings in both scales, and how exact they are [% of the rating]."""

    source: str
    confidence: str
    accuracy_percent: float
    fahrenheit: tuple[float, ...]
    celsius: tuple[float, ...]

    def ratings(self, units: Units) -> tuple[float, ...]:
        """Return the ratings of one scale."""
        return self.celsius if units == "si" else self.fahrenheit


class CrayonPair(Struct, frozen=True):
    """Ratings in the scale of the stock; `None` where none of the stock serves."""

    must_melt: float | None
    must_not: float | None


def read_crayons(text: str) -> Crayons:
    """Return the stock written in `text` (TOML)."""
    return whole_table(text, Crayons, where="crayons.toml")


def crayon_pair(stock: Crayons, *, least: float | None, most: float | None, units: Units) -> CrayonPair:
    """Return the pair for a least and a most temperature, in the scale of `units`.

    Parameters
    ----------
    stock : what there is
    least, most : preheat and interpass limit, in °C or °F as `units` has it
    units : which scale

    Validity
    --------
    The least must be reached: the lowest rating at or above it melts. The most must not be passed: the highest at or
    below it does not melt.

    Sources
    -------
    Common practice, no source.

    Examples
    --------
    >>> from anlage.data.metal_tables import crayons
    >>> crayon_pair(crayons(), least=80, most=260, units="si")
    CrayonPair(must_melt=100.0, must_not=250.0)
    """
    ratings = sorted(stock.ratings(units))
    melts = None if least is None else next((rating for rating in ratings if rating >= least - 1e-9), None)
    stays = None if most is None else next((rating for rating in reversed(ratings) if rating <= most + 1e-9), None)
    return CrayonPair(melts, stays)
