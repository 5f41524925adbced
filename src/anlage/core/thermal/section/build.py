"""From a case to what the run works with: metals as tables, the grid, the metal in its cells, surfaces and weights."""

import math
from collections.abc import Callable, Mapping
from dataclasses import dataclass

import numpy as np
from msgspec import UNSET

from anlage.core.errors import InputError
from anlage.core.thermal.section.along import Along, require_along
from anlage.core.thermal.section.case import (
    AreaCase,
    Gradient,
    LossesCase,
    MetalCase,
    SectionCase,
    SideCase,
    SourceCase,
)
from anlage.core.thermal.section.cut_cells import Contact, CutGrid
from anlage.core.thermal.section.grid import Array, grid_lines
from anlage.core.thermal.section.losses import CAP_C, CONVECTION, EMISSIVITY, NO_LOSS, Loss, Shedding, require_loss
from anlage.core.thermal.section.polygons import Span, bounds
from anlage.core.thermal.section.system import System, Weights, Whole
from anlage.core.thermal.section.tables import HeatTable, Tables, constant_table, table_of

MARGIN_MM = 6.0
LEAST_THROUGH = 4
EVEN_UP_TO = 60  # cells: a section no higher than this is even all through
OVERLAP = 1e-6  # of a cell: more metal than it holds
Named = Callable[[str], HeatTable]


@dataclass(frozen=True)
class Built:
    """What stays the same through a run."""

    case: SectionCase
    tables: Tables
    numbers: Mapping[str, int]
    lines: tuple[Array, Array]
    weights: Weights
    extent: tuple[Span, Span]
    along: Along | None
    diffusivity: float
    losses: Mapping[str, Loss]  # "air" and the four sides
    end_faces_mm: float | None

    def number(self, metal: str) -> int:
        """Return the number of a metal among the tables."""
        return self.numbers[metal]


def built(case: SectionCase, named: Named) -> Built:
    """Return what a run of a case works with.

    Parameters
    ----------
    case : from `read_case`, or one that `require_case` lets through
    named : returns the heat table of a metal by the name that the case calls it in the catalogue

    Raises
    ------
    InputError : a metal, a grid, a loss or a seam that cannot be
    """
    metals = tuple(_table(name, metal, named) for name, metal in case.metals.items())
    numbers = {name: n for n, name in enumerate(case.metals)}
    lines = _lines(case)
    extent = bounds([area.outline_mm for area in case.areas])
    losses = _losses(case.losses)
    first = metals[numbers[case.areas[0].metal]]
    along, diffusivity, ends = _along(case, first)
    return Built(
        case,
        Tables.of(metals),
        numbers,
        lines,
        _weights(case, lines[1], extent),
        extent,
        along,
        diffusivity,
        losses,
        ends,
    )


def grid_of(case: Built) -> tuple[CutGrid, Array, Whole]:
    """Return the grid with the metal that is there from the start, its temperature [°C] and metal, cell by cell.

    Raises
    ------
    InputError : areas overlap
    """
    grid = CutGrid.empty(*case.lines)
    shape = grid.metal.shape
    most, metal, heat = np.zeros(shape), np.full(shape, -1, dtype=np.intp), np.zeros(shape)
    for area in case.case.areas:
        areas = grid.add(area.outline_mm)
        number = case.number(area.metal)
        more = areas > most
        metal = np.where(more, number, metal)
        most = np.maximum(most, areas)
        heat += areas * _initial(area, case)
    require_room(grid, "areas")
    celsius = np.divide(heat, grid.metal, out=np.full(shape, case.case.ambient_c), where=grid.metal > 0)
    grid.contacts = _contacts(case.case)
    if isinstance(case.case.losses, LossesCase):
        for groove in case.case.losses.grooves:
            grid.add_groove(groove.outline_mm)
    return grid, celsius, metal


def require_room(grid: CutGrid, where: str) -> None:
    """Refuse metal that lies where metal lies already.

    Raises
    ------
    InputError : a cell holds more than its area
    """
    whole = np.diff(grid.ys)[:, None] * np.diff(grid.zs)[None, :]
    full = np.argwhere(grid.metal > whole * (1 + OVERLAP) + 1e-9)
    if full.size:
        i, j = full[0]
        place = f"y {grid.ys[i]:.4g}..{grid.ys[i + 1]:.4g}, z {grid.zs[j]:.4g}..{grid.zs[j + 1]:.4g} mm"
        raise InputError(f"overlap at {place}", where=where, mend="state outlines that only touch")


def shedding_of(case: Built, grid: CutGrid, system: System) -> Shedding:
    """Return the free surface of every cell by how it gives off heat; a groove gives off as its mouth."""
    surface = grid.surface(case.extent)
    weight = case.weights.cells[None, :]
    parts: dict[Loss, Array] = {}

    def add(loss: Loss, lengths: Array) -> None:
        if not loss.is_none:
            parts[loss] = parts.get(loss, np.zeros_like(lengths)) + lengths

    air = case.losses["air"]
    add(air, surface.open_air * weight)
    for name, lengths in surface.sides.items():
        add(case.losses[name], lengths * _side_weights(case, name, weight))
    stated = case.case.losses
    grooves = stated.grooves if isinstance(stated, LossesCase) else ()
    for groove, lengths in zip(grooves, surface.grooves, strict=True):
        total = float(lengths.sum())
        add(air, lengths * weight * (min(groove.mouth_mm / total, 1.0) if total > 0 else 0.0))
    if case.end_faces_mm is not None:
        add(air, 2 * grid.metal * weight / case.end_faces_mm)
    return Shedding.of((loss, system.gathered(lengths)) for loss, lengths in parts.items())


def heated_share(case: Built, grid: CutGrid, source: SourceCase) -> Array:
    """Return how a source without metal of its own spreads over the cells that hold metal under it.

    Raises
    ------
    InputError : there is no metal under it
    """
    whole = np.diff(grid.ys)[:, None] * np.diff(grid.zs)[None, :]
    share = grid.areas(source.outline_mm) * np.minimum(grid.metal / whole, 1.0) * case.weights.cells[None, :]
    if not share.sum() > 0:
        raise InputError("has no metal under it", where=f"source {source.id}", mend="state an outline on metal")
    return np.asarray(share / share.sum())


def _side_weights(case: Built, name: str, weight: Array) -> Array:
    if name not in ("bottom", "top"):
        return weight
    return np.broadcast_to(case.weights.lines[:-1] if name == "bottom" else case.weights.lines[1:], weight.shape)


def _table(name: str, metal: MetalCase, named: Named) -> HeatTable:
    where = f"metals.{name}"
    points = (metal.temperature_c, metal.enthalpy_j_mm3)
    if metal.catalogue is not None:
        if any(each is not None for each in (*points, metal.conductivity_w_mm_k, metal.heat_capacity_j_mm3_k)):
            raise InputError("is stated twice", where=where, mend="state catalogue, or the properties")
        return named(metal.catalogue)
    conductivity = metal.conductivity_w_mm_k
    if isinstance(conductivity, float) and metal.heat_capacity_j_mm3_k is not None and points == (None, None):
        return constant_table(name, conductivity_w_mm_k=conductivity, heat_capacity_j_mm3_k=metal.heat_capacity_j_mm3_k)
    lengths = {len(each) for each in (*points, conductivity) if isinstance(each, tuple)}
    if isinstance(conductivity, tuple) and None not in points and len(lengths) == 1 and not metal.heat_capacity_j_mm3_k:
        return table_of(name, np.array(points[0]), np.array(points[1]), np.array(conductivity))
    mend = "state catalogue; or conductivity_w_mm_k and heat_capacity_j_mm3_k; or lists of temperature_c, "
    raise InputError("is no metal", where=where, mend=f"{mend}conductivity_w_mm_k and enthalpy_j_mm3 of one length")


def _lines(case: SectionCase) -> tuple[Array, Array]:
    grid = case.grid
    areas = [area.outline_mm for area in case.areas]
    outlines = [*areas, *(source.outline_mm for source in case.sources)]
    extent = bounds(outlines)
    found = []
    for axis, stated in enumerate((grid.y_mm, grid.z_mm)):
        if stated is not None:
            found.append(_stated_lines(stated, extent[axis], "grid.y_mm" if axis == 0 else "grid.z_mm"))
            continue
        marks = {end for outline in outlines for end in bounds([outline])[axis]} if axis else set(extent[axis])
        marks |= {end for outline in areas for end in bounds([outline])[axis]}
        marks |= {contact.from_mm[axis] for contact in case.contacts if contact.from_mm[axis] == contact.to_mm[axis]}
        marks = _spaced(marks, extent[axis], grid.fine_mm / 2)
        core = _core(case, axis, extent[axis])
        found.append(
            grid_lines(marks, core=core, fine_mm=grid.fine_mm, growth=grid.growth, least=LEAST_THROUGH if axis else 1)
        )
    return found[0], found[1]


def _spaced(marks: set[float], extent: Span, least: float) -> set[float]:
    """Return marks without those that would make slivers of cells; the ends stay."""
    kept = [extent[0]]
    for mark in sorted(marks):
        if mark - kept[-1] >= least and extent[1] - mark >= least:
            kept.append(mark)
    return {*kept, extent[1]}


def _core(case: SectionCase, axis: int, extent: Span) -> Span:
    """Return where the grid is even: as stated, else round grooves and sources, and all through what is not thick."""
    if case.grid.core_mm is not None:
        return case.grid.core_mm[axis]
    if axis == 1 and extent[1] - extent[0] <= EVEN_UP_TO * case.grid.fine_mm:
        return extent
    outlines = [source.outline_mm for source in case.sources]
    if isinstance(case.losses, LossesCase):
        outlines += [groove.outline_mm for groove in case.losses.grooves]
    if not outlines:
        return extent
    low, high = bounds(outlines)[axis]
    return low - MARGIN_MM, high + MARGIN_MM


def _stated_lines(stated: tuple[float, ...], extent: Span, where: str) -> Array:
    lines = np.array(stated, dtype=np.float64)
    if lines.size < 2 or not np.all(np.diff(lines) > 0) or not np.all(np.isfinite(lines)):
        raise InputError("do not rise", where=where, mend="state two lines or more, each beyond the one before")
    if lines[0] > extent[0] + 1e-9 or lines[-1] < extent[1] - 1e-9:
        text = f"do not hold {extent[0]:g}..{extent[1]:g} mm"
        raise InputError(text, where=where, mend="state lines beyond all outlines")
    return lines


def _weights(case: SectionCase, zs: Array, extent: tuple[Span, Span]) -> Weights:
    centres = (zs[:-1] + zs[1:]) / 2
    if case.pipe is None:
        return Weights(np.ones_like(centres), np.ones_like(zs))
    outside = case.pipe.od_mm / 2
    wall = extent[1][1] - case.pipe.inside_z_mm
    if not 0 < wall < outside:
        text = f"a wall of {wall:g} mm makes no pipe of {case.pipe.od_mm:g} mm"
        raise InputError(text, where="pipe.od_mm", mend="state the outside diameter")
    inside = outside - wall
    at = inside + np.array(zs) - case.pipe.inside_z_mm
    return Weights(np.maximum((at[:-1] + at[1:]) / 2, 0.0) / outside, np.maximum(at, 0.0) / outside)


def _losses(stated: object) -> Mapping[str, Loss]:
    sides = ("left", "right", "bottom", "top")
    if not isinstance(stated, LossesCase):
        return dict.fromkeys(("air", *sides), NO_LOSS)
    air = _loss(stated, "losses")
    found = {"air": air}
    for name in sides:
        side = stated.sides.get(name)  # type: ignore[call-overload]
        found[name] = air if side is None else NO_LOSS if side == "none" else _loss(side, f"losses.sides.{name}")
    return found


def _loss(side: SideCase, where: str) -> Loss:
    own = [side.emissivity, side.convection_w_mm2_k1_25, side.cap_c]
    if side.coefficient_w_m2_k is not UNSET:
        if any(each is not UNSET for each in own):
            raise InputError(
                "is stated twice", where=where, mend="state coefficient_w_m2_k, or emissivity and the rest"
            )
        loss = Loss(0.0, 0.0, float(side.coefficient_w_m2_k) * 1e-6, None)
    else:
        loss = Loss(
            EMISSIVITY if side.emissivity is UNSET else float(side.emissivity),
            CONVECTION if side.convection_w_mm2_k1_25 is UNSET else float(side.convection_w_mm2_k1_25),
            0.0,
            CAP_C if side.cap_c is UNSET else side.cap_c,
        )
    require_loss(loss, where)
    return loss


def _along(case: SectionCase, base: HeatTable) -> tuple[Along | None, float, float | None]:
    seam = case.seam
    wants_ends = isinstance(case.losses, LossesCase) and case.losses.end_faces
    if seam is None:
        if wants_ends:
            raise InputError("is missing", where="seam.plate_length_mm", mend="state how long the plate is")
        return None, 0.0, None
    plate = seam.plate_length_mm
    if plate is None and seam.run_off_mm is not None and seam.length_mm is not None:
        plate = seam.length_mm + sum(seam.run_off_mm)
    if wants_ends and (plate is None or not 0 < plate < math.inf):
        raise InputError("is missing", where="seam.plate_length_mm", mend="state how long the plate is")
    initial = case.areas[0].initial_c
    start = initial if isinstance(initial, float) else case.ambient_c
    diffusivity = seam.diffusivity_mm2_s or base.diffusivity_at(start)
    if not 0 < diffusivity < math.inf:
        raise InputError("is not above 0", where="seam.diffusivity_mm2_s", mend="state mm²/s above 0")
    if seam.length_mm is None:
        if not (wants_ends or seam.closed):
            raise InputError("is missing", where="seam.length_mm", mend="state how long the seam is")
        return None, diffusivity, plate if wants_ends else None
    station = seam.length_mm / 2 if seam.station_mm is None else seam.station_mm
    along = Along(seam.length_mm, station, seam.run_off_mm, seam.closed)
    require_along(along)
    return along, diffusivity, plate if wants_ends else None


def _initial(area: AreaCase, case: Built) -> Array:
    """Return the temperature of an area at the start, cell by cell [°C]."""
    shape = (case.lines[0].size - 1, case.lines[1].size - 1)
    initial = case.case.ambient_c if area.initial_c is None else area.initial_c
    if not isinstance(initial, Gradient):
        return np.full(shape, float(initial))
    (y0, z0), (y1, z1) = initial.from_mm, initial.to_mm
    y, z = ((lines[:-1] + lines[1:]) / 2 for lines in case.lines)
    length = math.hypot(y1 - y0, z1 - z0)
    along = ((y[:, None] - y0) * (y1 - y0) + (z[None, :] - z0) * (z1 - z0)) / length
    places = np.linspace(0, length, len(initial.temperature_c))
    return np.asarray(np.interp(along, places, np.array(initial.temperature_c)))


def _contacts(case: SectionCase) -> tuple[Contact, ...]:
    order = {source.id: n for n, source in enumerate(case.sources)}
    found = []
    for n, contact in enumerate(case.contacts):
        axis = 0 if contact.from_mm[0] == contact.to_mm[0] else 1
        if contact.from_mm[axis] != contact.to_mm[axis]:
            mend = "state a contact along y or along z"
            raise InputError("lies across the grid", where=f"contacts[{n}]", mend=mend)
        opens = None
        if contact.opens_with is not None:
            if contact.opens_with not in order:
                raise InputError(f"no source {contact.opens_with}", where=f"contacts[{n}]", mend="name a source")
            opens = len(case.areas) + sum(
                1 for s in case.sources[: order[contact.opens_with] + 1] if s.metal is not None
            )
        low, high = sorted((contact.from_mm[1 - axis], contact.to_mm[1 - axis]))
        found.append(Contact(axis, contact.from_mm[axis], (low, high), opens))
    return tuple(found)
