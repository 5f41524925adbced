"""The symbols of shielding gases, each with what it may hold."""

from collections.abc import Mapping
from functools import cache

import msgspec
import rtoml
from msgspec import Struct, field

from anlage.data.files import text_of


class Share(Struct, frozen=True, forbid_unknown_fields=True):
    """How much of one component there may be [% by volume]."""

    to: float
    least: float = field(name="from", default=0.0)
    above: float | None = None

    def holds(self, share: float) -> bool:
        """Whether a share lies within."""
        return share <= self.to and (share > self.above if self.above is not None else share >= self.least)


class GasSymbol(Struct, frozen=True, forbid_unknown_fields=True):
    """One symbol: which components it has beside argon, and how much of each."""

    id: str
    parts: Mapping[str, Share]

    def holds(self, shares: Mapping[str, float], *, whole: bool) -> bool:
        """Whether a gas with these components is of the symbol; `whole` where it is pure."""
        if shares.keys() != self.parts.keys():
            return False
        is_pure = all(each.to == 100 for each in self.parts.values())
        return is_pure is whole and all(self.parts[name].holds(share) for name, share in shares.items())


@cache
def gas_symbols() -> tuple[GasSymbol, ...]:
    """Return the symbols of ISO 14175."""
    return msgspec.convert(rtoml.loads(text_of("gas_symbols.toml"))["symbol"], tuple[GasSymbol, ...])
