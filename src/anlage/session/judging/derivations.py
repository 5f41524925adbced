"""What is worked out of a document where no leaf states it: the closed list that `variables.toml` may name."""

from collections.abc import Callable, Mapping
from types import MappingProxyType
from typing import Any

from anlage.core.catalogue import Gas
from anlage.core.codes import Measured
from anlage.core.errors import UnknownNameError
from anlage.core.heat import arc_energy
from anlage.core.procedure import Deposit, Joint, Pass, Wps, pass_energy
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, Recorded, RecordedDeposit
from anlage.data.tables import catalogue, processes

NONE = "none"


def backing_of(joint: Joint) -> str | None:
    """Return whether a joint has backing, `yes` or `no`, by its preparation or as stated."""
    if joint.kind and joint.kind.endswith("backing"):
        return "yes"
    if joint.backing:
        return "no" if joint.backing.casefold() in (NONE, "no") else "yes"
    return "no" if joint.kind else None


def _known_gas(name: str | None) -> Gas | None:
    if not name or name.casefold() == NONE:
        return None
    try:
        return catalogue().gas(name)
    except UnknownNameError:
        return None


def _stated_gas(_wps: Wps, deposit: Deposit) -> str | None:
    """Return the gas by its own name; one that the catalogue does not know as it is stated."""
    gas = _known_gas(deposit.shielding_gas)
    return gas.id if gas else deposit.shielding_gas


def _recorded_gas(_pqr: Pqr, deposit: RecordedDeposit) -> str | None:
    """Return the gas by its own name; one that the catalogue does not know is no fact."""
    gas = _known_gas(deposit.shielding_gas)
    return gas.id if gas else None


def _filler_present(_document: Any, deposit: Deposit | RecordedDeposit) -> str | None:
    """Return whether a deposit is laid with filler; a stick is its own."""
    process = processes().get(deposit.process or "")
    if (deposit.filler or "").casefold() == NONE:
        return "without"
    return "with" if process is not None and process.electrode == "stick" else None


def _coupon_weld(pqr: Pqr, _element: None) -> str:
    """Return what was welded: by the preparation, else as the record says."""
    kind = pqr.joint.kind or ("fillet" if pqr.header.weld == "fillet" else "groove")
    return "fillet" if kind == "fillet" else "groove"


def _pipe_diameter(pqr: Pqr, _element: None) -> float | None:
    return pqr.joint.od_mm if pqr.joint.product == "pipe" else None


def _stated_energy(_wps: Wps, each: Pass) -> Interval | None:
    energy = pass_energy(each)
    return energy.interval if energy else None


def _recorded_energy(_pqr: Pqr, deposit: RecordedDeposit) -> Measured | None:
    """Return the recorded arc energy: as recorded so, or from the recorded volts, amps and speeds."""
    if deposit.heat_input_kj_mm is not None:
        return measured(deposit.heat_input_kj_mm) if deposit.heat_input_basis == "arc_energy" else None
    volts, amps, speed = deposit.voltage_v, deposit.current_a, deposit.travel_speed_mm_min
    if volts is None or amps is None or speed is None:
        return None
    least = arc_energy(volts.least, amps.least, speed.most / 60)
    mean = arc_energy(volts.mean, amps.mean, speed.mean / 60)
    most = arc_energy(volts.most, amps.most, speed.least / 60)
    return Measured(least, mean, most)


def _measure_of_heat_input(pqr: Pqr, _element: None) -> str | None:
    return "energy" if any(_recorded_energy(pqr, each) for each in pqr.deposits) else None


def measured(recorded: Recorded) -> Measured:
    """Return a recorded quantity as a fact."""
    return Measured(recorded.least, recorded.mean, recorded.most)


DERIVATIONS: Mapping[tuple[str, str], Callable[[Any, Any], Any]] = MappingProxyType({
    ("wps", "backing"): lambda wps, _element: backing_of(wps.joint),
    ("wps", "gas"): _stated_gas,
    ("wps", "filler_present"): _filler_present,
    ("wps", "arc_energy"): _stated_energy,
    ("pqr", "backing"): lambda pqr, _element: backing_of(pqr.joint),
    ("pqr", "gas"): _recorded_gas,
    ("pqr", "filler_present"): _filler_present,
    ("pqr", "arc_energy"): _recorded_energy,
    ("pqr", "coupon_weld"): _coupon_weld,
    ("pqr", "pipe_diameter"): _pipe_diameter,
    ("pqr", "heat_input_measure"): _measure_of_heat_input,
})  # fmt: skip
