"""How large the bead of a pass is, and from what that follows."""

from functools import lru_cache

from msgspec import Struct

from anlage.core.beads import bead_area_of_rate
from anlage.core.catalogue import Filler, FillerCurrent
from anlage.core.errors import UnknownNameError
from anlage.core.joint import STEEL_G_CM3
from anlage.core.procedure import Deposit, Pass
from anlage.core.processes import Deposition, Process, of_sticks
from anlage.core.proposal import Melting, melting_of_rod, melting_of_stick, melting_of_wire
from anlage.core.ranges import Interval
from anlage.data.tables import catalogue, processes
from anlage.data.usual_table import usual_table

THIN_FIRST = ("root", "tack")  # roles that take the thinner of two sizes


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


def usual_settings(deposit: Deposit, each: Pass | None = None) -> FillerCurrent | None:
    """Return the usual settings of a deposit's filler in its process, if the catalogue has them.

    Of two sizes it is the thinner one, which lays less, so that a joint is not called full too early. For a pass over
    the root it is the thicker one, unless its current is one for the thinner alone.
    """
    filler, size = filler_of(deposit), deposit.filler_diameter_mm
    if filler is None or size is None:
        return None
    named = (filler.classification, deposit.process or "", deposit.transfer_mode or "")
    thin = _current_row(named[0], size.low, named[1], named[2])
    if each is None or size.is_single or each.role in (*THIN_FIRST, None):
        return thin
    thick = _current_row(named[0], size.high, named[1], named[2])
    if thick is None or thin is None or each.current_a is None:
        return thick or thin
    amps = _middle(each.current_a)
    return thin if thin.amps_min <= amps <= thin.amps_max and amps < thick.amps_min else thick


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


def deposition_fill(deposit: Deposit) -> float:
    """Return the share of a wire's section that is metal."""
    row = _deposition(deposit)
    return row.fill if row else 1.0


def _middle(span: Interval) -> float:
    return (span.low + span.high) / 2


def melting_of(deposit: Deposit, row: FillerCurrent | None) -> Melting | None:
    """Return how much a covered electrode or a rod led by hand lays over the current; `None` where nobody says.

    Parameters
    ----------
    deposit : whose process, filler and size it is
    row : the catalogue's row of its filler
    """
    filler, size = filler_of(deposit), deposit.filler_diameter_mm
    if row is not None and lays_sticks(deposit):
        return _melting_of_stick(row.classification, row.diameter_mm, filler.family if filler else "")
    if not lays_sticks(deposit) and is_hand_fed(deposit) and size is not None and deposit.filler:
        if deposit.operation in ("machine", "automatic"):
            return None  # its wire is fed
        return _melting_of_rod(row.diameter_mm if row else size.low, density_of(deposit))
    return None


@lru_cache(maxsize=256)
def _melting_of_stick(classification: str, diameter_mm: float, family: str) -> Melting | None:
    table = usual_table()
    like = next((each.like for each in table.alike if family.startswith(each.family)), "")
    rows = catalogue().filler_currents
    own = _current_row(classification, diameter_mm, of_sticks(processes()), "")
    same = [row for row in rows if row.classification == classification]
    known = [row for row in same if row.deposition_kg_h_typical]
    if own is None:
        return None
    return melting_of_stick(own, known or [row for row in rows if row.classification == like])


@lru_cache(maxsize=64)
def _melting_of_rod(diameter_mm: float, density_g_cm3: float) -> Melting:
    return melting_of_rod(diameter_mm, usual_table().rod, density_ratio=density_g_cm3 / STEEL_G_CM3)


def rate_of(deposit: Deposit, each: Pass) -> Rate | None:
    """Return the weld metal laid per hour of arc: from wire feed, or by the current of an electrode or a rod."""
    size = deposit.filler_diameter_mm
    if each.wire_speed_mm_min is not None and size is not None:
        efficiency, origin = deposition_efficiency(deposit)
        speed, fill, density = each.wire_speed_mm_min, deposition_fill(deposit), density_of(deposit)
        low, middle, high = (
            melting_of_wire(d, efficiency=efficiency, fill=fill, density_g_cm3=density) * feed
            for d, feed in ((size.low, speed.low), (_middle(size), _middle(speed)), (size.high, speed.high))
        )
        return Rate(Interval(low, high), middle, f"wire feed, efficiency {efficiency:g} ({origin})")
    if each.current_a is None:
        return None
    melting = melting_of(deposit, usual_settings(deposit, each))
    if melting is None:
        return None
    amps = each.current_a
    span = Interval(melting.rate(amps.low), melting.rate(amps.high))
    return Rate(span, melting.rate(_middle(amps)), melting.origin)


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
