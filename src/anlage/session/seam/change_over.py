"""What is done before a pass that is welded another way than the one before it: gas, torch, source, leads, filler."""

from collections.abc import Iterator
from functools import cache
from itertools import pairwise

from msgspec import Struct

from anlage.core.machine import folded
from anlage.core.procedure import Deposit, Wps
from anlage.core.quantities.units import System
from anlage.core.toml_rows import rows_by_id
from anlage.data.files import text_of
from anlage.data.tables import processes
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import shown

NO_GAS = "none"


class Step(Struct, frozen=True, forbid_unknown_fields=True):
    """One thing that is done; `says` names what was before by {one} and what comes by {other}."""

    id: str
    says: str


class ChangeOver(Struct, frozen=True):
    """Before which pass, by its id and number, and what is done there in its order."""

    pass_id: str
    number: int
    steps: tuple[str, ...]

    @property
    def text(self) -> str:
        """All of it in a sentence."""
        return f"Before pass {self.number}: {'; '.join(self.steps)}."


def change_overs(wps: Wps, system: System) -> tuple[ChangeOver, ...]:
    """Return what is done between neighbouring passes of different deposits, in the order of the passes.

    Validity
    --------
    What is stated of the deposits alone; where neither names its machine, both are taken to be welded from one. What
    is stated on one side alone, or is not stated on both, is told as not known, never taken as unchanged.

    Sources
    -------
    `change_overs.toml`: common practice, no source.
    """
    homes, found = {each.id: each for each in wps.deposits}, []
    for number, (one, other) in enumerate(pairwise(wps.passes), 2):
        steps = _steps(wps, homes[one.deposit], homes[other.deposit], system)
        if said := tuple(_table()[name].says.format(one=was, other=comes) for name, was, comes in steps):
            found.append(ChangeOver(other.id, number, said))
    return tuple(found)


@cache
def _table() -> dict[str, Step]:
    return dict(rows_by_id(text_of("change_overs.toml"), "step", Step, where="change_overs.toml"))


def _steps(wps: Wps, one: Deposit, other: Deposit, system: System) -> Iterator[tuple[str, str, str]]:
    """Yield each step by its name, with what was and what comes."""
    if one.id == other.id:
        return
    was, comes = _gas(one), _gas(other)
    if was and was != NO_GAS and comes == NO_GAS:
        yield "gas-off", was, ""
    yield from _source(one, other)
    yield from _machine(one, other)
    yield from _current(one.current_type, other.current_type)
    if not was or not comes:
        yield "gas-unknown", "", ""
    elif was == NO_GAS != comes:
        yield "gas-on", "", _flowing(wps, other, comes, system)
    elif comes != NO_GAS and was.casefold() != comes.casefold():
        yield "gas-other", was, _flowing(wps, other, comes, system)
    before, after = (_filler(wps, each, system) for each in (one, other))
    if after and before != after:
        yield "filler", before, after


def _source(one: Deposit, other: Deposit) -> Iterator[tuple[str, str, str]]:
    """Yield what another process asks for: the torch or electrode that is not used any more is made safe first."""
    if one.process == other.process:
        return
    carried = {row.id: row.electrode for row in processes().values()}
    kind = carried.get(one.process or "")
    if kind == "tungsten":
        yield "torch-away", "", ""
    elif kind == "stick":
        yield "electrode-out", "", ""
    if one.process and other.process:
        yield "source", one.process, other.process


def _machine(one: Deposit, other: Deposit) -> Iterator[tuple[str, str, str]]:
    """Yield that another machine is gone to; where only one is named nobody knows whether it is another."""
    was, comes = ((each.machine or "").strip() for each in (one, other))
    if bool(was) != bool(comes):
        yield "machine-unknown", "", ""
    elif folded(was) != folded(comes):
        yield "machine", was, comes


def _current(was: str | None, comes: str | None) -> Iterator[tuple[str, str, str]]:
    if not was or not comes:
        yield "current-unknown", "", ""
    elif was != comes:
        yield ("current" if "AC" in (was, comes) else "leads"), was, comes


def _gas(deposit: Deposit) -> str:
    """Return the shielding gas, `none` where the process takes none, "" where it is not stated."""
    row = processes().get(deposit.process or "")
    if row is not None and row.shield == "own":
        return NO_GAS
    said = (deposit.shielding_gas or "").strip()
    return NO_GAS if said.casefold() == NO_GAS else said


def _flowing(wps: Wps, deposit: Deposit, gas: str, system: System) -> str:
    flow = _sized(wps, deposit, "gas_flow_l_min", system)
    return f"{gas} at {flow}" if flow else gas


def _filler(wps: Wps, deposit: Deposit, system: System) -> str:
    if not deposit.filler:
        return ""
    return f"{deposit.filler} {_sized(wps, deposit, 'filler_diameter_mm', system)}".strip()


def _sized(wps: Wps, deposit: Deposit, leaf: str, system: System) -> str:
    path = f"deposits/{deposit.id}/{leaf}"
    text = shown(wps, path, system)
    return f"{text}\N{NO-BREAK SPACE}{field_of(path).unit(system)}" if text else ""
