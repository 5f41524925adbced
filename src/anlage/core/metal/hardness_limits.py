"""What hardness a heat-affected zone may have, and how fast makers of steel want it to cool."""

from msgspec import Struct

from anlage.core.toml_rows import whole_table


class GroupLimit(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """The most of one material group [HV10], as welded and heat-treated; `None` where the standard has none."""

    group: str
    confidence: str
    as_welded: float | None = None
    treated: float | None = None


class SourLimit(Struct, frozen=True, forbid_unknown_fields=True):
    """The most for sour service [HV10]."""

    most: float
    source: str
    confidence: str


class CoolingWindow(Struct, frozen=True, forbid_unknown_fields=True):
    """Recommended t8/5 of steels up to a yield [MPa]: least and most [s]."""

    to: float
    low: float
    high: float


class HardnessLimits(Struct, frozen=True, forbid_unknown_fields=True):
    """All limits with their source."""

    source: str
    sour: SourLimit
    groups: tuple[GroupLimit, ...]
    windows: tuple[CoolingWindow, ...]

    def of(self, group: str, *, treated: bool) -> float | None:
        """Return the most of a material group [HV10]; `None` where the table has none."""
        row = next((each for each in self.groups if group.startswith(each.group)), None)
        return None if row is None else row.treated if treated else row.as_welded

    def window(self, yield_mpa: float) -> CoolingWindow | None:
        """Return the recommended window of a yield strength."""
        return next((each for each in self.windows if yield_mpa <= each.to), None)


def read_hardness_limits(text: str) -> HardnessLimits:
    """Return the limits written in `text` (TOML)."""
    return whole_table(text, HardnessLimits, where="hardness_limits.toml")
