"""How much metal a consumable lays an hour: of a covered electrode and a rod by the current, of a wire by its feed."""

import math
from collections.abc import Iterable, Sequence
from itertools import pairwise

from msgspec import Struct

from anlage.core.catalogue import FillerCurrent
from anlage.core.proposal.tables import RodRate

MM3_MIN_TO_KG_H = 60e-6  # of a metal of 1 g/cm³
LEAST_SHARE = 0.2  # of the least rate known: no line is drawn on below it


class Melting(Struct, frozen=True, kw_only=True):
    """Weld metal per hour of arc: over the current by points (A, kg/h), or in proportion to the feed of a wire.

    Parameters
    ----------
    points : at least two, rising; between and beyond them the rate goes straight on
    per_feed_kg_h : rate of a wire fed at 1 mm/min; `None` where the current says it
    origin, confidence : where it comes from
    """

    points: tuple[tuple[float, float], ...] = ()
    per_feed_kg_h: float | None = None
    origin: str
    confidence: str

    def rate(self, middle: float) -> float:
        """Return the weld metal per hour [kg/h] at a current [A], or at a wire feed [mm/min].

        Examples
        --------
        >>> Melting(points=((0, 0), (100, 0.95)), origin="", confidence="M").rate(80)
        0.76
        """
        if self.per_feed_kg_h is not None:
            return self.per_feed_kg_h * middle
        return max(_straight(self.points, middle), LEAST_SHARE * self.points[0][1])

    def middle_for(self, rate_kg_h: float) -> float:
        """Return the current [A] or wire feed [mm/min] that lays so much."""
        if self.per_feed_kg_h is not None:
            return rate_kg_h / self.per_feed_kg_h
        return _straight([(rate, amps) for amps, rate in self.points], rate_kg_h)


def _straight(points: Sequence[tuple[float, float]], x: float) -> float:
    """Return y at x on a polyline, its first and last pieces drawn on."""
    pieces = list(pairwise(points))
    (x1, y1), (x2, y2) = next((piece for piece in pieces if x <= piece[1][0]), pieces[-1])
    return y1 + (y2 - y1) * (x - x1) / (x2 - x1)


def melting_of_wire(diameter_mm: float, *, efficiency: float, fill: float, density_g_cm3: float) -> float:
    """Return the weld metal per hour of a wire fed at 1 mm/min [kg/h].

    Sources
    -------
    Conservation of metal.

    Examples
    --------
    >>> 7400 * melting_of_wire(1.2, efficiency=0.96, fill=1.0, density_g_cm3=7.85)
    3.784
    """
    return efficiency * fill * density_g_cm3 * math.pi / 4 * diameter_mm**2 * MM3_MIN_TO_KG_H


def melting_of_stick(row: FillerCurrent, alike: Iterable[FillerCurrent]) -> Melting | None:
    """Return how a covered electrode melts: by its own figure in the catalogue, else by those of its kind.

    Parameters
    ----------
    row : the electrode in its size
    alike : rows of electrodes that melt like it, in any size; those without a figure do not count

    Validity
    --------
    In proportion to the current; between sizes an ampere's rate is taken in proportion to the diameter. By d² and the
    current together, as is written at times, a 3.2 mm electrode would lay half more than the catalogue's own figures.

    Sources
    -------
    Typical published deposition figures, from memory, M; by likeness L.
    """
    if row.deposition_kg_h_typical and row.at_amps:
        per_amp, kg_h, amps = row.deposition_kg_h_typical / row.at_amps, row.deposition_kg_h_typical, row.at_amps
        origin = f"{row.classification} {row.diameter_mm:g} mm, {kg_h:g} kg/h at {amps:g} A, in proportion"
        origin += " to the current"
        return Melting(points=((0.0, 0.0), (100.0, 100 * per_amp)), origin=origin, confidence=row.confidence)
    known = sorted(
        (each.diameter_mm, each.deposition_kg_h_typical / each.at_amps, each.classification)
        for each in alike
        if each.deposition_kg_h_typical and each.at_amps
    )
    if not known:
        return None
    size = min(max(row.diameter_mm, known[0][0]), known[-1][0])
    per_amp = _straight([(d, rate) for d, rate, _ in known], size) if len(known) > 1 else known[0][1]
    origin = f"as {known[0][2]}, {100 * per_amp:.2f} kg/h at 100 A, in proportion to the current"
    return Melting(points=((0.0, 0.0), (100.0, 100 * per_amp)), origin=origin, confidence="L")


def melting_of_rod(diameter_mm: float, rods: Sequence[RodRate], *, density_ratio: float = 1.0) -> Melting:
    """Return what a welder feeds by hand of a rod, over the current.

    Parameters
    ----------
    diameter_mm : of the rod [mm]; between two sizes of the table in proportion, beyond them as the nearest
    rods : the table, by rising size
    density_ratio : density of the metal over that of steel: as much is fed by volume

    Sources
    -------
    Common practice, no source, L: steel and stainless, arc time only.

    Examples
    --------
    >>> melting_of_rod(2.0, (RodRate(1.6, ((70, 0.25), (100, 0.4))), RodRate(2.4, ((90, 0.35), (140, 0.65))))).rate(90)
    0.35
    """
    size = min(max(diameter_mm, rods[0].size_mm), rods[-1].size_mm)
    thin = max((rod for rod in rods if rod.size_mm <= size), key=lambda rod: rod.size_mm)
    thick = min((rod for rod in rods if rod.size_mm >= size), key=lambda rod: rod.size_mm)
    share = (size - thin.size_mm) / (thick.size_mm - thin.size_mm) if thick is not thin else 0.0
    at = sorted({amps for amps, _ in (*thin.at, *thick.at)})
    points = tuple(
        (amps, density_ratio * ((1 - share) * _straight(thin.at, amps) + share * _straight(thick.at, amps)))
        for amps in at
    )
    return Melting(points=points, origin=f"rod of {diameter_mm:g} mm fed by hand, common practice", confidence="L")
