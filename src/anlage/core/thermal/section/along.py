"""The third dimension: heat that leaves the section along the seam, as a sink that follows from product solutions.

Glossary
--------
F : factor on the rise of a pass that was laid at once over the whole length of the seam; 1 far from its ends
κ : share of the rise that leaves along the seam in a second
"""

import math
from collections.abc import Sequence

from msgspec import Struct

from anlage.core.errors import InputError

YOUNG_S = 1e-3  # s: a pass younger than this has lost nothing along the seam
Segments = tuple[tuple[float, float], ...]


class Along(Struct, frozen=True):
    """Where the section lies along its seam; `closed` for a ring, where nothing leaves.

    `run_off_mm` is the plate beyond each end of the seam, `None` for a plate that goes on.
    """

    length_mm: float
    station_mm: float
    run_off_mm: tuple[float, float] | None = None
    closed: bool = False

    @property
    def loses(self) -> bool:
        """Whether heat can leave along the seam at all."""
        return not self.closed and self.run_off_mm != (0.0, 0.0)


class Laid(Struct, frozen=True):
    """A heat along the seam: how much [J/mm], when [s], and over what of it (`None`: the whole seam)."""

    heat_j_mm: float
    at_s: float
    over_mm: tuple[float, float] | None = None


def require_along(along: Along) -> None:
    """Refuse a station that is not on its seam.

    Raises
    ------
    InputError : the length is not above 0, the station lies beyond it, or a run-off is below 0
    """
    if not 0 < along.length_mm < math.inf:
        raise InputError(f"{along.length_mm:g} mm is no seam", where="seam.length_mm", mend="state a length above 0")
    if not 0 <= along.station_mm <= along.length_mm:
        text = f"{along.station_mm:g} mm is not on a seam of {along.length_mm:g} mm"
        raise InputError(text, where="seam.station_mm", mend="state a place from 0 to the length")
    if along.run_off_mm is not None and not all(0 <= each < math.inf for each in along.run_off_mm):
        raise InputError("is below 0", where="seam.run_off_mm", mend="state lengths from 0 up")


def along_factor(
    along: Along, age_s: float, *, diffusivity: float, over_mm: tuple[float, float] | None = None
) -> float:
    """Return the factor F on the rise of a pass at a station of its seam.

    Parameters
    ----------
    along : the seam and the station
    age_s : time since the pass [s]
    diffusivity : of the metal at the mean temperature of the plate, a [mm²/s]
    over_mm : what of the seam was heated [mm]; the whole of it when not stated

    Validity
    --------
    Properties that do not change; the pass laid at once.

    Sources
    -------
    Carslaw and Jaeger 1959, product solution; plate ends by images, H.

    Examples
    --------
    >>> along_factor(Along(200, 100), 300, diffusivity=8.5106)
    0.8383
    >>> along_factor(Along(300, 150, (0.0, 0.0)), 1200, diffusivity=8.5106)
    1.0
    """
    if along.closed or age_s < YOUNG_S:
        return 1.0
    reach = math.sqrt(4 * diffusivity * age_s)
    x = along.station_mm
    return (
        sum(
            math.erf((end - x) / reach) - math.erf((start - x) / reach)
            for start, end in segments(along, reach, over_mm)
        )
        / 2
    )


def along_slope(along: Along, age_s: float, *, diffusivity: float, over_mm: tuple[float, float] | None = None) -> float:
    """Return how fast F changes [1/s], as `along_factor`.

    Parameters
    ----------
    along : the seam and the station
    age_s : time since the pass [s]
    diffusivity : a [mm²/s]
    over_mm : what of the seam was heated [mm]

    Validity
    --------
    As `along_factor`.

    Sources
    -------
    As `along_factor`, its derivative.

    Examples
    --------
    >>> age, told = 300.0, dict(diffusivity=8.5106)
    >>> 1000 * along_slope(Along(200, 100), age, **told)
    -0.699
    """
    if along.closed or age_s < YOUNG_S:
        return 0.0
    reach = math.sqrt(4 * diffusivity * age_s)
    x, total = along.station_mm, 0.0
    for start, end in segments(along, reach, over_mm):
        high, low = (end - x) / reach, (start - x) / reach
        total += high * math.exp(-min(high * high, 700.0)) - low * math.exp(-min(low * low, 700.0))
    return -total / (2 * age_s * math.sqrt(math.pi))


def leaving(along: Along, laid: Sequence[Laid], now_s: float, *, diffusivity: float) -> float:
    """Return κ, the share of the section's rise that leaves along the seam in a second [1/s]; below 0 where it returns.

    Parameters
    ----------
    along : the seam and the station
    laid : every heat so far
    now_s : the time [s]
    diffusivity : a [mm²/s]

    Validity
    --------
    One share for the whole section: a short seam comes out warm, by 4 to 8 K at 100 to 150 mm.

    Sources
    -------
    As `along_factor`: κ = -ΣQ·F'/ΣQ·F.

    Examples
    --------
    >>> 1e4 * leaving(Along(200, 100), [Laid(1000, 0)], 300, diffusivity=8.5106)
    8.338
    """
    if not along.loses:
        return 0.0
    told = {"diffusivity": diffusivity}
    factor = sum(h.heat_j_mm * along_factor(along, now_s - h.at_s, over_mm=h.over_mm, **told) for h in laid)
    slope = sum(h.heat_j_mm * along_slope(along, now_s - h.at_s, over_mm=h.over_mm, **told) for h in laid)
    return -slope / factor if factor > 0 else 0.0


def segments(along: Along, reach_mm: float, over_mm: tuple[float, float] | None = None) -> Segments:
    """Return what is heated along the seam and its images in the ends of the plate [mm]."""
    start, end = (0.0, along.length_mm) if over_mm is None else over_mm
    if along.run_off_mm is None:
        return ((start, end),)
    before, after = along.run_off_mm
    start, end = max(start, -before), min(end, along.length_mm + after)
    whole = along.length_mm + before + after
    count = math.ceil(3 * reach_mm / (2 * whole)) + 1
    found = []
    for k in range(-count, count + 1):
        shift = 2 * k * whole
        found.append((start + shift, end + shift))
        found.append((-2 * before - end + shift, -2 * before - start + shift))
    return tuple(found)
