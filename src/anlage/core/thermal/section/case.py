"""A section as it is handed to the model: metals, areas, losses, sources, the seam, probes; the JSON of the contract.

Lengths in mm, y to the right, z up, seam along x; every key names its unit.
"""

import math
from collections.abc import Mapping
from typing import Literal, TypeVar

import msgspec
from msgspec import UNSET, Struct, UnsetType

from anlage.core.errors import FormatError, InputError
from anlage.core.thermal.section.polygons import area, crosses_itself

Pair = tuple[float, float]
Outline = tuple[Pair, ...]
SMALLEST_MM2 = 1e-4
MOST_CORNERS = 2000

Kind = TypeVar("Kind", bound=Struct)


class MetalCase(Struct, frozen=True, forbid_unknown_fields=True):
    """A metal: by its name, by two constants, or by points over temperature."""

    catalogue: str | None = None
    conductivity_w_mm_k: float | tuple[float, ...] | None = None
    heat_capacity_j_mm3_k: float | None = None
    temperature_c: tuple[float, ...] | None = None
    enthalpy_j_mm3: tuple[float, ...] | None = None


class Gradient(Struct, frozen=True, forbid_unknown_fields=True):
    """Temperatures evenly spaced along a line, straight between, the same across it and beyond its ends."""

    from_mm: Pair
    to_mm: Pair
    temperature_c: tuple[float, ...]


class AreaCase(Struct, frozen=True, forbid_unknown_fields=True):
    """Metal that is there from the start."""

    metal: str
    outline_mm: Outline
    initial_c: float | Gradient | None = None


class GridCase(Struct, frozen=True, forbid_unknown_fields=True):
    """How fine: cells of a width in the core and their growth outward, or the lines themselves."""

    fine_mm: float = 1.5
    growth: float = 1.2
    core_mm: tuple[Pair, Pair] | None = None
    y_mm: tuple[float, ...] | None = None
    z_mm: tuple[float, ...] | None = None


class SideCase(Struct, frozen=True, forbid_unknown_fields=True):
    """What a surface gives off."""

    emissivity: float | UnsetType = UNSET
    convection_w_mm2_k1_25: float | UnsetType = UNSET
    cap_c: float | UnsetType | None = UNSET
    coefficient_w_m2_k: float | UnsetType = UNSET


class GrooveCase(Struct, frozen=True, forbid_unknown_fields=True):
    """A groove, whose walls lose as its mouth."""

    outline_mm: Outline
    mouth_mm: float


class LossesCase(SideCase, frozen=True, forbid_unknown_fields=True):
    """What the free surface gives off, apart from sides and grooves of their own."""

    sides: Mapping[Literal["left", "right", "bottom", "top"], Literal["none"] | SideCase] = {}
    grooves: tuple[GrooveCase, ...] = ()
    end_faces: bool = False


class WaitCase(Struct, frozen=True, forbid_unknown_fields=True):
    """A source waits until a probe reads less."""

    probe: str
    below_c: float


class SourceCase(Struct, frozen=True, forbid_unknown_fields=True):
    """Heat of one pass [J/mm, net] in an outline, and the metal that is born there.

    `delay_s` is how long after its start, and any waiting, the arc reaches the section.
    """

    id: str
    heat_j_mm: float
    outline_mm: Outline
    metal: str | None = None
    duration_s: float = 3.0
    start_s: float | None = None
    gap_s: float | None = None
    delay_s: float = 0.0
    wait_for: WaitCase | None = None


class SeamCase(Struct, frozen=True, forbid_unknown_fields=True):
    """The third dimension: how long the seam is, where the section lies on it, and the plate beyond its ends."""

    length_mm: float | None = None
    station_mm: float | None = None
    run_off_mm: Pair | None = None
    closed: bool = False
    plate_length_mm: float | None = None
    diffusivity_mm2_s: float | None = None
    far_c: float | None = None
    preheated_mm: Pair | None = None


class PipeCase(Struct, frozen=True, forbid_unknown_fields=True):
    """A girth seam: y along the axis, z from the inside out; heat per mm of the outside circumference."""

    od_mm: float
    inside_z_mm: float = 0.0


class ToleranceCase(Struct, frozen=True, forbid_unknown_fields=True):
    """How far a step may be off."""

    absolute_k: float = 2.0
    relative: float = 0.01
    fixed_step_s: float | None = None


class ContactCase(Struct, frozen=True, forbid_unknown_fields=True):
    """Two areas that touch along y or along z without being fused; `opens_with` names the source that fuses them."""

    from_mm: Pair
    to_mm: Pair
    opens_with: str | None = None


class SectionCase(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A whole case."""

    format: Literal["anlage-section"] = "anlage-section"
    version: Literal[1] = 1
    ambient_c: float = 20.0
    metals: Mapping[str, MetalCase]
    areas: tuple[AreaCase, ...]
    grid: GridCase = GridCase()
    losses: Literal["none"] | LossesCase = "none"
    sources: tuple[SourceCase, ...] = ()
    seam: SeamCase | None = None
    pipe: PipeCase | None = None
    probes: Mapping[str, Pair]
    contacts: tuple[ContactCase, ...] = ()
    times_s: tuple[float, ...] | None = None
    end_s: float | Literal["all"]
    tolerance: ToleranceCase = ToleranceCase()


def read_case(text: str, *, where: str) -> SectionCase:
    """Return a case from JSON, after checking what can be checked without cutting a grid.

    Raises
    ------
    FormatError : it is no JSON, a key is unknown, or a value is not of its kind
    InputError : an outline crosses itself or has no area, a name is of nothing, a number cannot be
    """
    try:
        case = msgspec.json.decode(text, type=SectionCase)
    except msgspec.ValidationError as fault:
        raise FormatError(str(fault), where=where, mend="mend the key that is named") from fault
    except (msgspec.DecodeError, UnicodeError, RecursionError) as fault:
        raise FormatError(f"is no JSON: {fault}", where=where, mend="mend it at the place that is named") from fault
    require_case(case)
    return case


def require_case(case: SectionCase) -> None:
    """Refuse a case whose parts cannot be, or do not fit each other.

    Raises
    ------
    InputError : an outline crosses itself or has no area, a name is of nothing, a number cannot be
    """
    if not case.areas:
        raise InputError("holds no metal", where="areas", mend="state an area at least")
    for n, each in enumerate(case.areas):
        _require_outline(each.outline_mm, f"areas[{n}]")
        _require_metal(case, each.metal, f"areas[{n}]")
        if isinstance(each.initial_c, Gradient):
            _require_gradient(each.initial_c, f"areas[{n}].initial_c")
    _require_sources(case)
    for name, (y, z) in case.probes.items():
        if not (math.isfinite(y) and math.isfinite(z)):
            raise InputError("is no place", where=f"probes.{name}", mend="state y and z in mm")
    _require_times(case)
    if not (math.isfinite(case.ambient_c) and case.ambient_c > -273.15):
        raise InputError(f"{case.ambient_c:g} °C does not exist", where="ambient_c", mend="state a temperature")


def _require_sources(case: SectionCase) -> None:
    ids: set[str] = set()
    for n, source in enumerate(case.sources):
        where = f"sources[{n}]"
        if source.id in ids:
            raise InputError(f"{source.id} comes twice", where=where, mend="give each source an id of its own")
        ids.add(source.id)
        _require_outline(source.outline_mm, where)
        if source.metal is not None:
            _require_metal(case, source.metal, where)
        if not (0 <= source.heat_j_mm < math.inf and 0 <= source.duration_s < math.inf):
            raise InputError("is below 0", where=where, mend="state heat and duration from 0 up")
        _require_start(source, first=n == 0, where=where)
        if source.wait_for is not None and source.wait_for.probe not in case.probes:
            mend = f"name one of {', '.join(case.probes)}" if case.probes else "state the probe"
            raise InputError(f"no probe {source.wait_for.probe}", where=f"{where}.wait_for", mend=mend)


def _require_start(source: SourceCase, *, first: bool, where: str) -> None:
    stated = [each for each in (source.start_s, source.gap_s) if each is not None]
    if len(stated) != 1 or (first and source.start_s is None):
        mend = "state start_s" if first else "state start_s, or gap_s after the one before"
        raise InputError("does not say when it starts", where=where, mend=mend)
    for time in (stated[0], source.delay_s):
        if not 0 <= time < math.inf:
            raise InputError(f"{time:g} s is no time", where=where, mend="state seconds from 0 up")


def _require_times(case: SectionCase) -> None:
    if case.times_s is not None:
        rising = all(a < b for a, b in zip(case.times_s, case.times_s[1:], strict=False))
        if not rising or any(not 0 <= t < math.inf for t in case.times_s):
            raise InputError("do not rise from 0", where="times_s", mend="state rising seconds")
    if case.end_s != "all" and not 0 < case.end_s < math.inf:
        raise InputError(f"{case.end_s:g} s is no end", where="end_s", mend='state seconds above 0, or "all"')
    if case.end_s == "all" and not case.sources:
        raise InputError("has no last source", where="end_s", mend="state seconds")
    tolerance = case.tolerance
    fixed = tolerance.fixed_step_s
    if not (tolerance.absolute_k > 0 and tolerance.relative >= 0 and (fixed is None or fixed > 0)):
        raise InputError("is not above 0", where="tolerance", mend="state kelvin, or a step, above 0")


def _require_metal(case: SectionCase, name: str, where: str) -> None:
    if name not in case.metals:
        mend = f"name one of {', '.join(case.metals)}" if case.metals else "state metals"
        raise InputError(f"no metal {name}", where=where, mend=mend)


def _require_outline(outline: Outline, where: str) -> None:
    if not 3 <= len(outline) <= MOST_CORNERS or not all(math.isfinite(v) for point in outline for v in point):
        raise InputError("is no outline", where=where, mend=f"state 3 to {MOST_CORNERS} corners in mm")
    if crosses_itself(outline):
        raise InputError("crosses itself", where=where, mend="state its corners in their order")
    if area(outline) < SMALLEST_MM2:
        raise InputError("has no area", where=where, mend="state its corners in their order")


def _require_gradient(gradient: Gradient, where: str) -> None:
    if gradient.from_mm == gradient.to_mm or not gradient.temperature_c:
        raise InputError("is no line", where=where, mend="state two places and a temperature at least")
