"""How large the bead of a pass is, and from what that follows."""

from functools import lru_cache

from msgspec import Struct

from anlage.core.beads import bead_area_of_rate
from anlage.core.catalogue import Filler, FillerCurrent
from anlage.core.errors import UnknownNameError
from anlage.core.joint import STEEL_G_CM3
from anlage.core.procedure import Deposit, Pass
from anlage.core.processes import Deposition, Process
from anlage.core.ranges import Interval
from anlage.data.tables import catalogue, processes


class BeadArea(Struct, frozen=True):
    """The section of a bead over the stated range [mm²], its middle, and in a few words where it comes from."""

    span: Interval
    middle: float
    origin: str


class Rate(Struct, frozen=True):
    """Weld metal per hour of arc [kg/h] at the middle of the stated settings, with its least and most."""

    span: Interval
    middle: float
    origin: str


def filler_of(deposit: Deposit) -> Filler | None:
    """Return the filler of a deposit, if the catalogue knows it."""
    return _filler_named(deposit.filler) if deposit.filler else None


@lru_cache(maxsize=256)
def _filler_named(name: str) -> Filler | None:
    try:
        return catalogue().filler(name)
    except UnknownNameError:
        return None


def density_of(deposit: Deposit) -> float:
    """Return the density of the weld metal [g/cm³]: the filler's, else steel's."""
    filler = filler_of(deposit)
    return (filler.density_g_cm3 if filler else None) or STEEL_G_CM3


@lru_cache(maxsize=256)
def _current_row(classification: str, diameter_mm: float, process: str, mode: str) -> FillerCurrent | None:
    return catalogue().filler_current(classification, diameter_mm, process=process, mode=mode)


def usual_settings(deposit: Deposit) -> FillerCurrent | None:
    """Return the usual settings of a deposit's filler in its size and process, if the catalogue has them."""
    filler, size = filler_of(deposit), deposit.filler_diameter_mm
    if filler is None or size is None:
        return None
    # of two sizes the thinner one: it lays less, so a joint is not called full too early
    return _current_row(filler.classification, size.low, deposit.process or "", deposit.transfer_mode or "")


def process_of(deposit: Deposit) -> Process | None:
    """Return the process of a deposit, `None` where it is not stated or not known."""
    return processes().get(deposit.process or "")


def lays_sticks(deposit: Deposit) -> bool:
    """Return whether a deposit is laid with covered sticks, which end and are changed."""
    process = process_of(deposit)
    return process is not None and process.electrode == "stick"


def is_wire_fed(deposit: Deposit) -> bool:
    """Return whether a deposit is laid with wire from a spool."""
    process = process_of(deposit)
    return process is not None and process.electrode == "wire"


def is_hand_fed(deposit: Deposit) -> bool:
    """Return whether the filler of a deposit comes as rods led by hand."""
    process = process_of(deposit)
    return process is not None and process.hand_fed


def _deposition(deposit: Deposit) -> Deposition | None:
    process = process_of(deposit)
    return process.deposition if process else None


def deposition_efficiency(deposit: Deposit) -> tuple[float, str]:
    """Return the deposition efficiency of a deposit and where it comes from; 1 where nothing is known."""
    filler = filler_of(deposit)
    if filler and filler.deposition_efficiency_percent and deposit.process in filler.processes[:1]:
        return filler.deposition_efficiency_percent / 100, f"{filler.classification}, catalogue"
    row = _deposition(deposit)
    return (row.middle, f"{deposit.process}, handbook figure") if row else (1.0, "not known, 1 taken")


def _middle(span: Interval) -> float:
    return (span.low + span.high) / 2


def rate_of(deposit: Deposit, each: Pass) -> Rate | None:
    """Return the weld metal laid per hour of arc: from wire feed, or from the electrode's table value and the amps."""
    size, density = deposit.filler_diameter_mm, density_of(deposit)
    if each.wire_speed_mm_min is not None and size is not None:
        efficiency, origin = deposition_efficiency(deposit)
        row = _deposition(deposit)
        share = efficiency * (row.fill if row else 1.0) * density * 60e-6 * 0.7853981633974483
        speed = each.wire_speed_mm_min
        low, high = share * size.low**2 * speed.low, share * size.high**2 * speed.high
        middle = share * _middle(size) ** 2 * _middle(speed)
        return Rate(Interval(low, high), middle, f"wire feed, efficiency {efficiency:g} ({origin})")
    usual = usual_settings(deposit)
    if not lays_sticks(deposit) or usual is None or not usual.deposition_kg_h_typical or each.current_a is None:
        return None
    per_amp = usual.deposition_kg_h_typical / (usual.at_amps or _middle(each.current_a))
    amps = each.current_a
    origin = f"{usual.classification} {usual.diameter_mm:g} mm, {usual.deposition_kg_h_typical:g} kg/h at "
    origin += f"{usual.at_amps:g} A, in proportion to the current"
    return Rate(Interval(per_amp * amps.low, per_amp * amps.high), per_amp * _middle(amps), origin)


def bead_area(deposit: Deposit, each: Pass) -> BeadArea | None:
    """Return the section of a pass's bead: as stated, else from what its settings deposit; `None` when not known."""
    if each.bead_area_mm2 is not None:
        return BeadArea(each.bead_area_mm2, _middle(each.bead_area_mm2), "stated")
    rate, travel = rate_of(deposit, each), each.travel_speed_mm_min
    if rate is None or travel is None:
        return None
    density = density_of(deposit)

    def area(kg_h: float, speed: float) -> float:
        return bead_area_of_rate(kg_h, travel_speed_mm_min=speed, density_g_cm3=density)

    span = Interval(area(rate.span.low, travel.high), area(rate.span.high, travel.low))
    return BeadArea(span, area(rate.middle, _middle(travel)), rate.origin)
