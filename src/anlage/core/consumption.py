"""What a weld takes: filler to buy, electrodes, gas, arc time, elapsed time, energy, money."""

from collections.abc import Iterable, Mapping, Sequence

from msgspec import Struct

from anlage.core.beads.deposit import electrode_metal
from anlage.core.results import require_above_zero

MIN_PER_H, J_PER_KWH = 60.0, 3.6e6
SHIELDING, PURGE = ", shielding", ", purging"  # behind the name of a gas: at the torch, behind the root


class Run(Struct, frozen=True, kw_only=True):
    """One pass over the whole length.

    Parameters
    ----------
    filler : what is bought, by classification and size
    metal_kg : weld metal [kg]
    efficiency : share of the filler bought that becomes weld metal
    arc_min : time under the arc [min]; `None` where the speed is not stated
    power_w : mean power of the arc [W]; `None` where it is not stated
    gas : its shielding gas; "" for none
    gas_l_min : flow of the gas [l/min]; `None` where it is not stated
    purge, purge_l_min : the gas behind the root and its flow [l/min], likewise
    factor : share of the working time that the arc burns
    electrode_kg : weld metal of one covered electrode [kg]; `None` for wire and rods
    """

    filler: str
    metal_kg: float
    efficiency: float
    arc_min: float | None
    power_w: float | None = None
    gas: str = ""
    gas_l_min: float | None = None
    purge: str = ""
    purge_l_min: float | None = None
    factor: float | None = None
    electrode_kg: float | None = None


class Rates(Struct, frozen=True, kw_only=True):
    """The user's own rates, in whatever money; `None`: not stated."""

    labour_per_h: float | None = None
    filler_per_kg: float | None = None
    gas_per_m3: float | None = None
    power_per_kwh: float | None = None


class Purchase(Struct, frozen=True, kw_only=True):
    """What is bought of one filler: mass [kg], and the number of electrodes where they are counted."""

    filler: str
    mass_kg: float
    electrodes: float | None


class Takes(Struct, frozen=True, kw_only=True):
    """What all passes take; `None` where a pass does not say."""

    metal_kg: float
    fillers: tuple[Purchase, ...]
    arc_min: float | None
    elapsed_min: float | None
    energy_kwh: float | None
    gases_l: Mapping[str, float | None]
    cost: Mapping[str, float | None]

    @property
    def whole_cost(self) -> float | None:
        """All costs together; `None` as soon as one is not known."""
        return _sum(self.cost.values())


def takes(runs: Sequence[Run], *, wait_min: float = 0.0, rates: Rates | None = None) -> Takes:
    """Return what passes take together.

    Parameters
    ----------
    runs : every pass over its whole length
    wait_min : wait between two passes for the interpass temperature [min]
    rates : the user's rates; without them nothing costs anything known

    Returns
    -------
    Takes : elapsed time is arc time over the operating factor, and the waits between the passes; purge gas flows for
        the elapsed time and the wait of every pass that states it, what displaces the air before is not in it

    Validity
    --------
    One welder; setting up, cleaning and grinding are what the operating factor leaves beside the arc.

    Sources
    -------
    Sums; operating factors are plausibility windows of the trade (from memory, M).

    Examples
    --------
    >>> takes([Run(filler="E7018 3.2", metal_kg=1.3, efficiency=0.65, arc_min=66.0, factor=0.25)]).elapsed_min
    264.0
    """
    rates = rates or Rates()
    fillers: dict[str, list[Run]] = {}
    gases: dict[str, list[float | None]] = {}
    for run in runs:
        fillers.setdefault(run.filler, []).append(run)
        if run.gas:
            gases.setdefault(f"{run.gas}{SHIELDING}", []).append(_times(run.arc_min, run.gas_l_min))
        if run.purge:  # it flows on between the arcs, and while the weld cools between passes
            time = None if run.arc_min is None or not run.factor else run.arc_min / run.factor + wait_min
            gases.setdefault(f"{run.purge}{PURGE}", []).append(_times(time, run.purge_l_min))
    bought = tuple(_bought(name, own) for name, own in fillers.items())
    arc = _sum(run.arc_min for run in runs)
    elapsed = _sum(None if run.arc_min is None or not run.factor else run.arc_min / run.factor for run in runs)
    if elapsed is not None:
        elapsed += wait_min * max(len(runs) - 1, 0)
    energy = _sum(
        None if run.arc_min is None or run.power_w is None else run.arc_min * 60 * run.power_w / J_PER_KWH
        for run in runs
    )
    litres_of = {name: _sum(own) for name, own in gases.items()}
    cost = {
        "labour": _times(None if elapsed is None else elapsed / MIN_PER_H, rates.labour_per_h),
        "filler": _times(sum(each.mass_kg for each in bought), rates.filler_per_kg),
        "gas": _times(_sum(None if v is None else v / 1000 for v in litres_of.values()), rates.gas_per_m3),
        "power": _times(energy, rates.power_per_kwh),
    }
    if not litres_of:
        del cost["gas"]
    return Takes(
        metal_kg=sum(run.metal_kg for run in runs), fillers=bought, arc_min=arc, elapsed_min=elapsed,
        energy_kwh=energy, gases_l=litres_of, cost=cost,
    )  # fmt: skip


def _bought(name: str, runs: Sequence[Run]) -> Purchase:
    count = _sum(None if run.electrode_kg is None else run.metal_kg / run.electrode_kg for run in runs)
    return Purchase(filler=name, mass_kg=sum(run.metal_kg / run.efficiency for run in runs), electrodes=count)


def _sum(values: Iterable[float | None]) -> float | None:
    total = 0.0
    for value in values:
        if value is None:
            return None
        total += value
    return total


def _times(amount: float | None, rate: float | None) -> float | None:
    return None if amount is None or rate is None else amount * rate


def electrode_count(
    weld_metal_kg: float, *, diameter_mm: float, consumed_length_mm: float, recovery: float, density_g_cm3: float
) -> float:
    """Return how many covered electrodes lay some weld metal, not rounded up.

    Parameters
    ----------
    weld_metal_kg : weld metal [kg]
    diameter_mm : diameter of the core wire [mm]
    consumed_length_mm : length of an electrode less its stub [mm]
    recovery : weld metal over core metal melted
    density_g_cm3 : density of the weld metal [g/cm³]

    Raises
    ------
    InputError : a value is not above 0

    Validity
    --------
    Recovery in the sense of ISO 2401; electrodes thrown away half burnt are not counted.

    Sources
    -------
    Conservation of metal.

    Examples
    --------
    >>> electrode_count(1.0, diameter_mm=4, consumed_length_mm=400, recovery=1.15, density_g_cm3=7.85)
    22.04
    """
    require_above_zero(weld_metal_kg=weld_metal_kg)
    one = electrode_metal(
        diameter_mm, consumed_length_mm=consumed_length_mm, recovery=recovery, density_g_cm3=density_g_cm3
    )
    return weld_metal_kg / one
