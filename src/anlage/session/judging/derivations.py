"""What is worked out of a document where no leaf states it: the closed list that `variables.toml` may name."""

import re
from collections.abc import Callable, Iterable, Mapping, Sequence
from functools import cache
from pkgutil import resolve_name
from types import MappingProxyType
from typing import Any

from anlage.core.codes import Measured
from anlage.core.document import with_
from anlage.core.heat import arc_energy
from anlage.core.procedure import Deposit, Joint, Pass, Sector, Wps, pass_energy
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, Recorded, RecordedDeposit, WeldedPass
from anlage.data.tables import processes
from anlage.session.judging import drawn
from anlage.session.judging.coupons import MAKES, make_words
from anlage.session.judging.results import toughness_tested, way_of_bends
from anlage.session.leaves.gases import GASES, co2_percent, gas_symbol, gas_tokens
from anlage.session.leaves.iso_numbers import iso_number

NONE = "none"
_DESIGNATOR = re.compile(r"[ -]?H(16|8|4|2)R?\s*$")
SETTINGS = ("current_a", "voltage_v", "travel_speed_mm_min")


def backing_of(joint: Joint) -> str | None:
    """Return whether a joint has backing, `yes` or `no`, by its preparation or as stated."""
    if joint.kind and joint.kind.endswith("backing"):
        return "yes"
    if joint.backing:
        return "no" if joint.backing.casefold() in (NONE, "no") else "yes"
    return "no" if joint.kind else None


def _stated_gas(leaf: str) -> Callable[[Wps, Deposit], frozenset[str] | None]:
    """Return what reads the gases that a deposit may be laid with."""
    return lambda _wps, deposit: gas_tokens(getattr(deposit, leaf)) or None


def _recorded_gas(leaf: str) -> Callable[[Pqr, RecordedDeposit], str | None]:
    """Return what reads the gas that a deposit was laid with: one; what names several records none."""

    def read(_pqr: Pqr, deposit: RecordedDeposit) -> str | None:
        found = gas_tokens(getattr(deposit, leaf))
        return next(iter(found)) if len(found) == 1 else None

    return read


def _make(leaf: str) -> Callable[[Any, Any], str | None]:
    """Return what reads a trade name: case and blanks do not count."""
    return lambda _document, deposit: make_words(getattr(deposit, leaf))


def _filler_present(_document: Any, deposit: Deposit | RecordedDeposit) -> str | None:
    """Return whether a deposit is laid with filler; a stick is its own."""
    process = processes().get(deposit.process or "")
    if (deposit.filler or "").casefold() == NONE:
        return "without"
    return "with" if process is not None and process.electrode == "stick" else None


def _iso_number(_document: Any, deposit: Any) -> str:
    return iso_number(deposit.process, deposit.filler, deposit.shielding_gas)


def _coupon_weld(pqr: Pqr, _element: None) -> str:
    """Return what was welded: by the preparation, else as the record says."""
    kind = pqr.joint.kind or ("fillet" if pqr.header.weld == "fillet" else "groove")
    return "fillet" if kind == "fillet" else "groove"


def _pipe_diameter(pqr: Pqr, _element: None) -> float | None:
    return pqr.joint.od_mm if pqr.joint.product == "pipe" else None


def _stated_energy(wps: Wps, each: Pass) -> Interval | None:
    """Return the arc energy of a pass over all its sectors; of a controlled waveform only what its source shows."""
    deposit = next((one for one in wps.deposits if one.id == each.deposit), None)
    if deposit is not None and deposit.waveform == "yes":
        return each.heat_input_kj_mm
    found = [pass_energy(part) for part in in_sectors(wps, each)]
    known = [energy.interval for energy in found if energy is not None]
    return _hull(known) if known and len(known) == len(found) else None


def in_sectors(wps: Wps, each: Pass) -> tuple[Pass, ...]:
    """Return a pass as it is laid: in each of its sectors, with what is the pass's where the sector states nothing.

    The pass itself is among them: nobody says that its sectors go all the way.
    """
    parts = [each]
    for sector in wps.sectors:
        if sector.of == each.id:
            own = {name: getattr(sector, name) for name in SETTINGS if getattr(sector, name) is not None}
            parts.append(with_(each, **own))
    return tuple(parts)


def hottest_sector(wps: Wps, each: Pass) -> Sector | None:
    """Return the sector of a pass that is laid hotter than the rest of it, `None` where none is."""
    whole, *parts = (pass_energy(part) for part in in_sectors(wps, each))
    least = whole.interval.high if whole else 0.0
    own = [sector for sector in wps.sectors if sector.of == each.id]
    known = [(part.interval.high, sector) for part, sector in zip(parts, own, strict=True) if part is not None]
    most, sector = max(known, key=lambda pair: pair[0], default=(0.0, None))
    return sector if most > least else None


def _over_sectors(name: str) -> Callable[[Wps, Pass], Interval | None]:
    def read(wps: Wps, each: Pass) -> Interval | None:
        found = [value for part in in_sectors(wps, each) if (value := getattr(part, name)) is not None]
        return _hull(found) if found else None

    return read


def _hull(spans: Sequence[Interval]) -> Interval:
    return Interval(min(span.low for span in spans), max(span.high for span in spans))


def _recorded_energy(pqr: Pqr, deposit: RecordedDeposit) -> Measured | None:
    """Return the recorded arc energy: pass by pass, else as recorded so, else from the extremes of what was read.

    Of extremes only the mean is sure: the highest volts and amps need not belong to the lowest speed. Of a source of
    controlled waveform volts times amps says nothing.
    """
    each_pass = [found for one in welded_in(pqr, deposit) if (found := energy_of(one, deposit)) is not None]
    if each_pass:
        return Measured(min(each_pass), sum(each_pass) / len(each_pass), max(each_pass))
    if deposit.heat_input_kj_mm is not None:
        return measured(deposit.heat_input_kj_mm) if deposit.heat_input_basis == "arc_energy" else None
    read = [measured(each) for each in (deposit.voltage_v, deposit.current_a, deposit.travel_speed_mm_min) if each]
    known = [each for each in read if each is not None]
    if len(known) < len(SETTINGS) or deposit.waveform == "yes":
        return None
    volts, amps, speed = known
    least = arc_energy(volts.least, amps.least, speed.most / 60)
    mean = arc_energy(volts.mean, amps.mean, speed.mean / 60)
    most = arc_energy(volts.most, amps.most, speed.least / 60)
    return Measured(least, mean, most, sure=None if most == mean else mean)


def welded_in(pqr: Pqr, deposit: RecordedDeposit) -> tuple[WeldedPass, ...]:
    """Return the recorded passes of a deposit; of a coupon with one deposit also those that name none."""
    alone = len(pqr.deposits) == 1
    return tuple(each for each in pqr.welded if each.deposit == deposit.id or (alone and not each.deposit))


def energy_of(each: WeldedPass, deposit: RecordedDeposit) -> float | None:
    """Return the arc energy that was read of one pass [kJ/mm]; `None` where something of it is missing.

    Energy over the length of the bead, or power over travel speed, where the source shows one; else volts times amps
    over travel speed, which a controlled waveform does not allow.

    Sources
    -------
    ASME BPVC IX QW-409.1(a), (c) (H, from memory).
    """
    if each.energy_j is not None:
        return each.energy_j / each.bead_mm / 1000 if each.bead_mm is not None else None
    if each.travel_speed_mm_min is None:
        return None
    if each.power_w is not None:
        return each.power_w * 60 / each.travel_speed_mm_min / 1000
    if each.voltage_v is None or each.current_a is None or deposit.waveform == "yes":
        return None
    return arc_energy(each.voltage_v, each.current_a, each.travel_speed_mm_min / 60)


def _recorded_area(pqr: Pqr, deposit: RecordedDeposit) -> Measured | None:
    return _spread([each.bead_area_mm2 for each in welded_in(pqr, deposit)])


def _recorded_run_out(pqr: Pqr, deposit: RecordedDeposit) -> Measured | None:
    """Return the length of bead of a length of electrode, pass by pass."""
    pairs = [(each.bead_mm, each.electrode_mm) for each in welded_in(pqr, deposit)]
    return _spread([bead / electrode for bead, electrode in pairs if bead is not None and electrode is not None])


def _spread(values: Iterable[float | None]) -> Measured | None:
    known = [value for value in values if value is not None]
    return Measured(min(known), sum(known) / len(known), max(known)) if known else None


def _measure_of_heat_input(pqr: Pqr, deposit: RecordedDeposit) -> str | None:
    """Return by what the heat input of a deposit was recorded; the energy where several are."""
    ways = (("energy", _recorded_energy), ("bead_area", _recorded_area), ("run_out", _recorded_run_out))
    return next((word for word, read in ways if read(pqr, deposit)), None)


def _bead_going_up(document: Any, _element: None) -> str | None:
    """Return how beads that go uphill are laid, `none` where nothing goes uphill; woven where any bead is."""
    technique = document.technique
    if technique.progression is None:
        return None
    if technique.progression != "uphill":
        return NONE
    woven = any(each.bead == "weave" for each in getattr(document, "passes", ()))
    return "weave" if woven else technique.bead_technique


def _bends(pqr: Pqr, _element: None) -> str | None:
    return way_of_bends(pqr)


def _penetration(pqr: Pqr, _element: None) -> str | None:
    """Return whether a groove coupon was welded through, as it says of itself."""
    return {"groove": "complete", "partial": "partial"}.get(pqr.header.weld or "")


def _hydrogen_designator(_document: Any, deposit: Any) -> str:
    """Return the hydrogen designator that the filler is named with, `none` where it is named without."""
    found = _DESIGNATOR.search(deposit.filler or "")
    return f"H{found[1]}" if found else NONE


def _impact_tested(pqr: Pqr, _element: None) -> str | None:
    tested = toughness_tested(pqr)
    return None if tested is None else "yes" if tested else "no"


def _symbols(_document: Any, deposit: Any) -> frozenset[str] | None:
    """Return the symbols of the gases that a deposit names; none where one of them has no symbol."""
    found = [gas_symbol(each) for each in gas_tokens(deposit.shielding_gas)]
    return frozenset(found) if found and all(found) else None


def _recorded_symbol(pqr: Pqr, deposit: Any) -> str | None:
    found = _symbols(pqr, deposit)
    return next(iter(found)) if found and len(found) == 1 else None


def _co2(_document: Any, deposit: Any) -> Interval | float | None:
    """Return the share of carbon dioxide over the gases that a deposit names [%]."""
    found = [share for each in gas_tokens(deposit.shielding_gas) if (share := co2_percent(each)) is not None]
    return (found[0] if len(found) == 1 else Interval(min(found), max(found))) if found else None


def _direction(document: Any, deposit: Any) -> str | None:
    """Return which way a deposit is laid: its own way, else that of the whole weld."""
    own: str | None = deposit.progression or document.technique.progression
    return own


def _control(_pqr: Pqr, deposit: RecordedDeposit) -> str | None:
    """Return by what the melting of a deposit was held: current where it was recorded, else the wire feed."""
    if measured(deposit.current_a) if deposit.current_a else None:
        return "current"
    return "wire feed" if deposit.wire_speed_mm_min and measured(deposit.wire_speed_mm_min) else None


def _width(leaf: str, other: str = "") -> Callable[[Wps, Deposit], float | None]:
    """Return what reads how wide the range of a setting is over all passes of a deposit, highest over lowest.

    Where not every pass states it, the other leaf counts; `None` where not every pass states that either.
    """

    def read(wps: Wps, deposit: Deposit) -> float | None:
        own = [part for each in wps.passes if each.deposit == deposit.id for part in in_sectors(wps, each)]
        for name in filter(None, (leaf, other)):
            spans = [getattr(each, name, None) for each in own]
            known = [span for span in spans if span is not None]
            if known and len(known) == len(spans):
                whole = _hull(known)
                return whole.high / whole.low if whole.low > 0 else None
        return None

    return read


def _flow_width(_wps: Wps, deposit: Deposit) -> float | None:
    flow = deposit.gas_flow_l_min
    return flow.high / flow.low if flow else None


def _maker(end: str) -> Callable[[Wps, Deposit], float | None]:
    return lambda _wps, deposit: getattr(deposit.maker_current_a, end) if deposit.maker_current_a else None


def _from_beads(name: str) -> Callable[[Wps, Pass], Interval | None]:
    """Return what asks the beads as they lie: laying them is loaded by the code that asks for them alone."""

    def read(wps: Wps, each: Pass) -> Interval | None:
        found: Interval | None = _of_laid(name)(wps, each)
        return found

    return read


@cache
def _of_laid(name: str) -> Any:
    return resolve_name(f"anlage.session.judging.laid:{name}")


def measured(recorded: Recorded) -> Measured | None:
    """Return a recorded quantity as a fact; `None` while no mean is recorded.

    An end that was not written down is taken at the mean: that buys no more than the mean itself.
    """
    span = recorded.span
    if span is None or recorded.mean is None:
        return None
    return Measured(span.low, recorded.mean, span.high)


WIDTHS: Mapping[str, tuple[str, ...]] = MappingProxyType(
    {
        "melting_span": ("current_a", "wire_speed_mm_min"),
        "volts_span": ("voltage_v",),
        "travel_span": ("travel_speed_mm_min",),
    }
)  # variables that say how wide the range of a setting is over all passes of a deposit, with its leaves

OF_BEADS = ("bead_height", "bead_slenderness", "bead_unsplit_width")  # of a pass as it lies among all others

DERIVATIONS: Mapping[tuple[str, str], Callable[[Any, Any], Any]] = MappingProxyType({
    ("wps", "iso_4063"): _iso_number,
    ("pqr", "iso_4063"): _iso_number,
    ("wps", "backing"): lambda wps, _element: backing_of(wps.joint),
    **{("wps", name): _stated_gas(name) for name in GASES},
    **{("pqr", name): _recorded_gas(name) for name in GASES},
    **{(kind, name): _make(name) for kind in ("wps", "pqr") for name in MAKES},
    ("wps", "filler_present"): _filler_present,
    ("wps", "arc_energy"): _stated_energy,
    ("pqr", "backing"): lambda pqr, _element: backing_of(pqr.joint),
    ("pqr", "filler_present"): _filler_present,
    ("pqr", "arc_energy"): _recorded_energy,
    ("pqr", "coupon_weld"): _coupon_weld,
    ("pqr", "pipe_diameter"): _pipe_diameter,
    ("pqr", "heat_input_measure"): _measure_of_heat_input,
    ("pqr", "bends"): _bends,
    ("pqr", "vertical_up_bead"): _bead_going_up,
    ("wps", "vertical_up_bead"): _bead_going_up,
    ("pqr", "bead_area"): _recorded_area,
    ("pqr", "run_out"): _recorded_run_out,
    ("pqr", "penetration"): _penetration,
    ("pqr", "impact_tested"): _impact_tested,
    ("wps", "gas_symbol"): _symbols,
    ("pqr", "gas_symbol"): _recorded_symbol,
    ("wps", "co2"): _co2,
    ("pqr", "co2"): _co2,
    ("pqr", "direction"): _direction,
    ("wps", "direction"): _direction,
    ("pqr", "control"): _control,
    ("wps", "hydrogen_designator"): _hydrogen_designator,
    **{("wps", name): _width(*leaves) for name, leaves in WIDTHS.items()},
    ("wps", "flow_span"): _flow_width,
    ("wps", "maker_least"): _maker("low"),
    ("wps", "maker_most"): _maker("high"),
    ("wps", "shallower_share"): drawn.shallower_share,
    ("wps", "thickest"): drawn.thickest,
    **{(kind, name): read for kind in ("wps", "pqr") for name, read in (
        ("root_side", drawn.root_side), ("groove_form", drawn.groove_form), ("groove_depth", drawn.groove_depth),
        ("highest_yield", drawn.highest_yield), ("joint_class", drawn.joint_class), ("throat", drawn.throat),
    )},
    ("wps", "joint_family"): drawn.joint_family,
    ("wps", "sides_welded"): drawn.sides_welded,
    **{("wps", f"drawn_{name}"): drawn.nominal(name) for name in drawn.DIMENSIONS},
    **{("wps", name): _from_beads(name.removeprefix("bead_")) for name in OF_BEADS},
    **{("wps", name): _over_sectors(leaf) for name, leaf in zip(("amps", "volts", "speed"), SETTINGS, strict=True)},
})  # fmt: skip
