"""What each family of metals wants before and between passes."""

from collections.abc import Mapping
from typing import Literal

from msgspec import Struct

from anlage.core.toml_rows import rows_by_id, whole_table


class Family(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A row of `data/metal/families.toml`: how preheat is found, the usual most between passes [°C], heat input.

    `most_c` is what a metal that needs no preheat is warmed to at most, to dry it; `treated` what heat treatment after
    welding does to it, or needs.
    """

    id: str
    preheat: Literal["schools", "fixed", "none"]
    interpass: tuple[float, float]
    say: str
    confidence: str
    fixed_c: float | None = None
    most_c: float | None = None
    heat_input: tuple[float, float] | None = None
    treated: str = ""


class Planned(Struct, frozen=True, forbid_unknown_fields=True):
    """Hydrogen of a process and kind of filler, for planning [ml/100 g]; `bare` where no flux takes up moisture."""

    process: str
    most: float
    family: str = ""
    bare: bool = False


class PlannedHydrogen(Struct, frozen=True, forbid_unknown_fields=True):
    """All rows of planning figures, with their source."""

    source: str
    confidence: str
    rows: tuple[Planned, ...]

    def of(self, process: str, family: str) -> float | None:
        """Return the planning figure of a process and a filler's family; `None` where no row fits."""
        return next((row.most for row in self.rows if row.process == process and row.family in family), None)

    def is_bare(self, process: str) -> bool:
        """Return whether a process has wire or rod without flux alone, so that its figure stands without a class."""
        return any(row.process == process and row.bare for row in self.rows)


class UsualDilution(Struct, frozen=True, forbid_unknown_fields=True):
    """Usual dilution of one process, as shares."""

    process: str
    low: float
    high: float


class Dilutions(Struct, frozen=True, forbid_unknown_fields=True):
    """Usual dilutions, and the fillers that are compared for one pair of metals."""

    source: str
    confidence: str
    compared: tuple[str, ...]
    rows: tuple[UsualDilution, ...]

    def of(self, process: str) -> UsualDilution | None:
        """Return the usual dilution of a process; `None` where the table has none."""
        return next((row for row in self.rows if row.process == process), None)


def read_dilutions(text: str) -> Dilutions:
    """Return the usual dilutions written in `text` (TOML)."""
    return whole_table(text, Dilutions, where="dilution.toml")


def read_families(text: str) -> Mapping[str, Family]:
    """Return the families written in `text` (TOML) by their id."""
    return rows_by_id(text, "family", Family, where="families.toml")


def read_planned_hydrogen(text: str) -> PlannedHydrogen:
    """Return the planning figures written in `text` (TOML)."""
    return whole_table(text, PlannedHydrogen, where="hydrogen.toml")


class Residuals(Struct, frozen=True, forbid_unknown_fields=True):
    """The most of each element that carbon steel may hold unasked [% by mass], with the source."""

    source: str
    confidence: str
    most: Mapping[str, float]


def read_residuals(text: str) -> Residuals:
    """Return the residuals written in `text` (TOML)."""
    return whole_table(text, Residuals, where="residuals.toml")
