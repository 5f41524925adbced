"""The catalogue: base metals, fillers, gases, pipes, tungsten and process limits, looked up by the trade's names."""

import math
import re
from collections.abc import Callable, Iterable, Mapping
from functools import cached_property
from itertools import chain

import msgspec
from msgspec.structs import replace

from anlage.core.catalogue.filler_sizes import FillerSize
from anlage.core.catalogue.names import filler_key, metal_key, plain_key
from anlage.core.catalogue.rows import (
    GAS_COMPONENTS,
    AnyRow,
    BaseMetal,
    Filler,
    FillerCurrent,
    Gas,
    PipeSize,
    PNumberRow,
    ProcessLimits,
    Row,
    SoldSize,
    Tungsten,
    read_rows,
)
from anlage.core.errors import UnknownNameError

# The systems that group metals, and their family, with their columns in the table of grades.
GROUP_COLUMNS = {
    "p_number": "p_number", "group_number": "p_group", "iso15608_group": "iso15608_group", "d1_1_group": "d1_1_group",
    "family": "family",
}  # fmt: skip
_STAINLESS_COATING = re.compile(r"^(E3\d\d.*|E2\d\d\d.*|E4\d\d.*|E16-8-2)-1[567]$", re.IGNORECASE)
_GAS_PART = re.compile(r"(?P<before>\d+(?:\.\d+)?)?\s*%?\s*(?P<gas>CO2|ARGON|AR|HELIUM|HE|O2|H2|N2)\s*", re.IGNORECASE)
_GAS_SPOKEN = {"ARGON": "Ar", "HELIUM": "He", "AR": "Ar", "HE": "He"}


class MetalGroup(msgspec.Struct, frozen=True):
    """The groups of one metal by the system that counts them, with their source and confidence."""

    name: str
    groups: Mapping[str, str]
    confidence: str
    source: str
    yield_mpa: float | None = None  # specified minimum

    def group(self, system: str) -> str:
        """Return its group in a system, such as `p_number` or `iso15608_group`; "" where the table has none."""
        return self.groups.get(system, "")


class Catalogue:
    """All tables of metals, consumables and processes: read when first asked for, never changed.

    Parameters
    ----------
    text_of : returns the CSV text of a table by its name, such as `gases`
    metals, fillers : what is added to those that ship
    """

    def __init__(
        self, text_of: Callable[[str], str], metals: tuple[BaseMetal, ...] = (), fillers: tuple[Filler, ...] = ()
    ) -> None:
        self._text_of = text_of
        self._own_metals, self._own_fillers = metals, fillers

    @property
    def has_own_fillers(self) -> bool:
        """Whether fillers are added to those that ship."""
        return bool(self._own_fillers)

    def adding(self, metals: tuple[BaseMetal, ...], fillers: tuple[Filler, ...]) -> "Catalogue":
        """Return a catalogue with these metals and fillers beside those that ship; the very same one with none."""
        return Catalogue(self._text_of, metals, fillers) if metals or fillers else self

    def _rows(self, name: str, row: type[AnyRow]) -> tuple[AnyRow, ...]:
        return read_rows(self._text_of(name), row, where=f"{name}.csv")

    @cached_property
    def base_metals(self) -> tuple[BaseMetal, ...]:
        """Grades with composition and strength."""
        return (*self._rows("base_metals", BaseMetal), *self._own_metals)

    @cached_property
    def p_numbers(self) -> tuple[PNumberRow, ...]:
        """Metals of ASME IX QW/QB-422, an excerpt."""
        return self._rows("p_numbers", PNumberRow)

    @cached_property
    def fillers(self) -> tuple[Filler, ...]:
        """Filler classifications."""
        return (*self._rows("fillers", Filler), *self._own_fillers)

    @cached_property
    def filler_currents(self) -> tuple[FillerCurrent, ...]:
        """Usual settings by filler size."""
        return self._rows("filler_currents", FillerCurrent)

    @cached_property
    def filler_sizes(self) -> tuple[FillerSize, ...]:
        """Every size that the table of settings has, under both of its names."""
        rows = self._rows("filler_currents", SoldSize)
        return tuple(dict.fromkeys(FillerSize(row.diameter_mm, row.diameter_in) for row in rows))

    @cached_property
    def gases(self) -> tuple[Gas, ...]:
        """Shielding, backing and plasma gases."""
        return self._rows("gases", Gas)

    @cached_property
    def pipes(self) -> tuple[PipeSize, ...]:
        """Pipe sizes, NPS 1/8 to 36."""
        return self._rows("pipe_sizes", PipeSize)

    @cached_property
    def process_limits(self) -> tuple[ProcessLimits, ...]:
        """Thermal efficiency and plausibility windows by process variant."""
        return self._rows("process_limits", ProcessLimits)

    @cached_property
    def tungsten(self) -> tuple[Tungsten, ...]:
        """Usual currents of tungsten electrodes."""
        return self._rows("tungsten", Tungsten)

    # Look-up ---------------------------------------------------------------------------------

    def metal_group(self, name: str, *, where: str = "base") -> MetalGroup:
        """Return P-Number and group of a base metal, from the grades table or else from QW/QB-422.

        Raises
        ------
        UnknownNameError : neither table has the metal
        """
        key = metal_key(name)
        if metal := self._metal(key):
            groups = {system: getattr(metal, column) for system, column in GROUP_COLUMNS.items()}
            return MetalGroup(metal.id, groups, metal.confidence, metal.source, metal.smys_mpa)
        if row := self._p_rows.get(key):
            groups = {"p_number": row.p_number, "group_number": row.group_number}
            return MetalGroup(row.id, groups, row.confidence, row.source)
        names = chain((m.id for m in self.base_metals), (row.id for row in self.p_numbers))
        raise UnknownNameError(name, names, where=where, otherwise=" or state p_number and group_number")

    def base_metal(self, name: str) -> BaseMetal | None:
        """Return the grade of this name with composition and strength; `None` where the table has none."""
        return self._metal(metal_key(name))

    def filler(self, name: str, *, where: str = "filler") -> Filler:
        """Return the filler of this classification; optional hydrogen and moisture designators do not count.

        A stainless electrode -15 or -17 takes the row of its -16 (same F-Number and strength, H).

        Raises
        ------
        UnknownNameError : the catalogue has no such filler
        """
        if found := self._fillers.get(filler_key(name)):
            return found
        stainless = _STAINLESS_COATING.match(name.strip())
        if stainless and (found := self._fillers.get(filler_key(f"{stainless[1]}-16"))):
            return replace(found, classification=name.strip().upper().replace("LMO", "LMo"))
        known = (filler.classification for filler in self.fillers)
        raise UnknownNameError(name, known, where=where, otherwise=" or add it to those of your works")

    def filler_rows(self) -> Mapping[str, Filler]:
        """Return every filler by its classification, stainless electrodes -15 and -17 beside their -16."""
        found = {row.classification: row for row in self.fillers}
        for name, row in tuple(found.items()):
            if name.endswith("-16") and _STAINLESS_COATING.match(name):
                found |= {
                    f"{name[:-3]}-{coating}": row for coating in (15, 17) if f"{name[:-3]}-{coating}" not in found
                }
        return found

    def gas(self, name: str, *, where: str = "gas") -> Gas:
        """Return the gas of this name: its id, a standard designation, or its parts as `75Ar/25CO2`.

        Raises
        ------
        UnknownNameError : the catalogue has no such gas
        """
        if found := self._gases.get(plain_key(name)):
            return found
        parts = gas_composition(name)
        for gas in self.gases:
            if parts and parts == dict(gas.components):
                return gas
        raise UnknownNameError(name, (gas.id for gas in self.gases), where=where)

    def pipe(self, nps: str, schedule: str) -> PipeSize:
        """Return the pipe of a nominal size (`4`, `NPS 1-1/2`, `DN 100`) and schedule (`40`, `Sch 80S`, `XS`).

        Raises
        ------
        UnknownNameError : no such size, or the size has no such schedule
        """
        size = self._pipes.get(_nps_key(nps))
        if size is None:
            raise UnknownNameError(nps, (pipe.nps for pipe in self.pipes), where="nps")
        found = size.get(_schedule_key(schedule))
        if found is None:
            raise UnknownNameError(schedule, (pipe.schedule for pipe in size.values()), where="schedule")
        return found

    def filler_current(
        self, classification: str, diameter_mm: float, *, process: str = "", mode: str = ""
    ) -> FillerCurrent | None:
        """Return the usual settings of an electrode, rod or wire of this size, if the table has them.

        Trade sizes of both systems are taken for each other, 2.4 mm for 2.5 mm; a mode that is not found is left out.
        """
        rows = [
            row
            for row in self.filler_currents
            if row.classification == classification
            and abs(row.diameter_mm - diameter_mm) <= 0.15
            and process in ("", row.process)
        ]
        return next((row for row in rows if row.mode == mode), rows[0] if rows else None)

    def search(self, text: str) -> tuple[BaseMetal | PNumberRow | Filler | Gas, ...]:
        """Return every metal, filler and gas whose name, number or family holds all words of `text`, names first."""
        words = [plain_key(word) for word in text.split() if plain_key(word)]
        tables = chain[BaseMetal | PNumberRow | Filler | Gas](
            self.base_metals, self.p_numbers, self.fillers, self.gases
        )
        found = [
            (0 if plain_key(text) in plain_key(_title(row)) else 1, order, row)
            for order, row in enumerate(tables)
            if words and all(word in _haystack(row) for word in words)
        ]
        return tuple(row for _, _, row in sorted(found, key=lambda entry: entry[:2]))

    # Indexes ---------------------------------------------------------------------------------

    @cached_property
    def _metals(self) -> Mapping[str, BaseMetal]:
        return _by(self.base_metals, lambda metal: (metal_key(metal.id),))

    @cached_property
    def _metals_in_full(self) -> Mapping[str, BaseMetal]:
        return _by(self.base_metals, lambda metal: (metal_key(f"{metal.spec} {metal.grade}"),))

    def _metal(self, key: str) -> BaseMetal | None:
        # Names in full are asked for seldom, and a start makes keys for what it asks alone.
        return self._metals.get(key) or self._metals_in_full.get(key)

    @cached_property
    def _p_rows(self) -> Mapping[str, PNumberRow]:
        return _by(
            self.p_numbers, lambda row: (metal_key(row.id), metal_key(row.uns) if row.uns else metal_key(row.id))
        )

    @cached_property
    def _fillers(self) -> Mapping[str, Filler]:
        return _by(self.fillers, lambda filler: (filler_key(filler.classification),))

    @cached_property
    def _gases(self) -> Mapping[str, Gas]:
        return _by(
            self.gases,
            lambda gas: map(plain_key, filter(None, (gas.id, gas.aws_a5_32_1997, gas.iso_14175_designation))),
        )

    @cached_property
    def _pipes(self) -> Mapping[str, Mapping[str, PipeSize]]:
        sizes: dict[str, dict[str, PipeSize]] = {}
        for pipe in self.pipes:
            for key in (_nps_key(pipe.nps), f"dn{pipe.dn}"):
                sizes.setdefault(key, {}).setdefault(_schedule_key(pipe.schedule), pipe)
        return sizes


def _by(rows: Iterable[AnyRow], keys: Callable[[AnyRow], Iterable[str]]) -> dict[str, AnyRow]:
    index: dict[str, AnyRow] = {}
    for row in rows:
        for key in keys(row):
            index.setdefault(key, row)
    return index


def _title(row: Row) -> str:
    return str(getattr(row, "classification", "") or getattr(row, "id", ""))


def _haystack(row: Row) -> str:
    names = ("id", "spec", "grade", "uns_or_en", "uns", "family", "classification", "aws_spec", "iso_designation",
             "aws_a5_32_1997", "iso_14175_designation", "iso_14175_group")  # fmt: skip
    return plain_key(" ".join(str(getattr(row, name, "")) for name in names))


def gas_composition(name: str) -> dict[str, float]:
    """Return the percentages of a gas written by its parts; {} when it is none, or they do not add up to 100.

    Examples
    --------
    >>> gas_composition("75Ar/25CO2"), gas_composition("Ar-12CO2"), gas_composition("90Ar/20CO2")
    ({'Ar': 75.0, 'CO2': 25.0}, {'Ar': 88.0, 'CO2': 12.0}, {})
    """
    matches = list(_GAS_PART.finditer(name))
    rest = _GAS_PART.sub("", name).strip(" -/+,")
    if not matches or rest.strip("-/+, "):
        return {}
    parts = {_GAS_SPOKEN.get(m["gas"].upper(), m["gas"].upper()): m["before"] for m in matches}
    if len(parts) == 1:
        return dict.fromkeys(parts, 100.0) if set(parts.values()) <= {None, "100"} else {}
    shares = {gas: float(share) for gas, share in parts.items() if share is not None}
    rest_of_it = [gas for gas, share in parts.items() if share is None]
    if len(rest_of_it) == 1 and sum(shares.values()) < 100:
        shares[rest_of_it[0]] = 100 - sum(shares.values())
    whole = len(shares) == len(parts) and math.isclose(sum(shares.values()), 100, abs_tol=0.01)
    return {gas: shares[gas] for gas in GAS_COMPONENTS if gas in shares} if whole else {}


def _nps_key(nps: str) -> str:
    text = re.sub(r"(?i)^(nps|dn)\s*", lambda m: "dn" if m[1].lower() == "dn" else "", nps.strip())
    text = text.removesuffix('"').removesuffix("in").strip()
    if re.fullmatch(r"\d{0,3}\.\d{1,5}", text):  # 1.5 for 1-1/2
        whole, rest = divmod(float(text), 1)
        part, of = rest.as_integer_ratio()
        text = "-".join(filter(None, (f"{whole:.0f}" if whole else "", f"{part}/{of}" if part else "")))
    return re.sub(r"[\s-]+", "-", text).casefold()


def _schedule_key(schedule: str) -> str:
    return re.sub(r"(?i)^sch(edule)?\.?\s*", "", schedule.strip()).casefold()
