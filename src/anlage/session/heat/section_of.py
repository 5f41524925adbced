"""An open procedure as a case of the section model; apart from what asks, for it loads NumPy."""

import math
from collections.abc import Iterator
from functools import cache
from typing import Literal

from anlage.core.beads import Bead
from anlage.core.joint import MAKES
from anlage.core.machine import Calibrated
from anlage.core.procedure import Deposit, Wps
from anlage.core.thermal.section.case import (
    AreaCase,
    ContactCase,
    GridCase,
    GrooveCase,
    LossesCase,
    MetalCase,
    PipeCase,
    SeamCase,
    SectionCase,
    SideCase,
    SourceCase,
    WaitCase,
    require_case,
)
from anlage.core.thermal.section.metals import MetalHeat, heat_table, metal_named
from anlage.core.thermal.section.tables import HeatTable
from anlage.data.heat_tables import heat_metals
from anlage.session.heat.cooling import widened_heats
from anlage.session.heat.meters import NO_MACHINES
from anlage.session.heat.reading_place import reading_places_of
from anlage.session.heat.sequence import (
    AMBIENT_C,
    FINE_MM,
    FROM_END_MM,
    LONGEST_LUMP_MM,
    OTHER_PLACE,
    PLACE,
    PLATES,
    POOL_MM,
    STOP_S,
    Corner,
    outlines_of,
    seam_length,
)
from anlage.session.weld.analyses import Side, filler_analysis, sides_of
from anlage.session.weld.beads import bead_layout, joint_shape

Outline = tuple[tuple[float, float], ...]
ON = 1e-6  # mm: edges so near lie on each other
STAINLESS_CR, NICKEL_NI = 10.5, 40.0  # % by mass: where a deposit conducts as stainless, as nickel


@cache
def table_of_family(name: str) -> HeatTable:
    """Return the heat table of a metal of the model by its id."""
    return heat_table(heat_metals()[name])


def heat_of(side: Side) -> MetalHeat:
    """Return the properties of a side of the joint, by its family.

    Raises
    ------
    UnknownNameError : no metal of the model stands for it
    """
    if side.family == "low-alloy-CrMo" and side.metal is not None and side.metal.composition.get("Cr", 0.0) <= 1.5:
        return heat_metals()["1.25Cr-0.5Mo"]
    if side.family == "aluminium" and side.metal is not None and side.metal.grade[:1] == "6":
        return heat_metals()["aluminium-6xxx"]
    return metal_named(side.family or "titanium", heat_metals())


def emissivities(wps: Wps) -> tuple[float, float, float]:
    """Return the emissivity of the first side: low, usual, high."""
    return heat_of(sides_of(wps)[0]).emissivity


def section_case(wps: Wps, corner: Corner, works: Calibrated = NO_MACHINES) -> SectionCase:
    """Return the case of a procedure at one corner of what is stated: the longest waits or the shortest.

    Raises
    ------
    InputError : its outlines cannot be cut, or overlap
    """
    shape, layout = joint_shape(wps), bead_layout(wps)
    assert shape is not None
    assert layout is not None
    piece, preheat = wps.piece, wps.preheat
    assert piece.half_width_mm is not None
    sides = sides_of(wps)
    metals = {heat_of(side).id: MetalCase(catalogue=heat_of(side).id) for side in sides}
    names = [heat_of(side).id for side in sides]
    areas = []
    for n, outline in enumerate(outlines_of(shape, piece.half_width_mm)):
        areas.append(AreaCase(names[min(n, len(names) - 1)], outline, preheat.minimum_c))
    places = reading_places_of(wps, [area.outline_mm for area in areas])
    sources = list(_sources(wps, corner, (names[0], frozenset(places)), works))
    metals |= {each.metal: MetalCase(catalogue=each.metal) for each in sources if each.metal is not None}
    ambient = AMBIENT_C if piece.ambient_c is None else piece.ambient_c
    seam, plate = _seam(wps)
    case = SectionCase(
        ambient_c=ambient, metals=metals, areas=tuple(areas), grid=GridCase(fine_mm=FINE_MM),
        losses=_losses(wps, corner, end_faces=plate is not None and plate <= LONGEST_LUMP_MM),
        sources=tuple(sources), seam=seam, pipe=_pipe(wps), probes=places,
        contacts=tuple(_contacts(wps, corner, sources, areas)), end_s="all",
    )  # fmt: skip
    require_case(case)
    return case


def _sources(wps: Wps, corner: Corner, known: tuple[str, frozenset[str]], works: Calibrated) -> Iterator[SourceCase]:
    layout, heats, length = bead_layout(wps), widened_heats(wps, works), seam_length(wps)
    base, read = known
    assert layout is not None
    assert length is not None
    homes = {each.id: each for each in wps.deposits}
    passes = {each.id: each for each in wps.passes}
    stop = wps.piece.stop_s
    pause = STOP_S if stop is None else stop.low if corner == "long" else stop.high
    most = wps.preheat.interpass_maximum_c
    assert most is not None
    from_end = 0.0 if wps.joint.product == "pipe" else min(FROM_END_MM, length / 2)
    before_s = 0.0
    for n, bead in enumerate(layout.beads):
        stated = passes[bead.key]
        assert stated.travel_speed_mm_min is not None
        span = stated.travel_speed_mm_min
        speed = (span.low if corner == "long" else span.high) / 60
        heat = 1000 * (heats[bead.key].high if corner == "long" else heats[bead.key].low)
        yield SourceCase(
            id=bead.key, heat_j_mm=heat, outline_mm=tuple(bead.outline),
            metal=_deposit_metal(homes[stated.deposit], base),
            duration_s=POOL_MM / speed, start_s=0.0 if n == 0 else None,
            gap_s=None if n == 0 else before_s + pause, delay_s=0.0 if n == 0 else (length - from_end) / speed,
            wait_for=None if n == 0 else WaitCase(_read_for(bead, read), most),
        )  # fmt: skip
        before_s = max(from_end / speed, POOL_MM / speed)


def _deposit_metal(deposit: Deposit, base: str) -> str:
    """Return the metal of the model that a deposit conducts as: its filler's, else the base metal's."""
    found = filler_analysis(deposit)
    if found is None:
        return base
    if found.composition.get("Ni", 0.0) > NICKEL_NI:
        return "alloy-625"
    if found.composition.get("Cr", 0.0) >= STAINLESS_CR:
        return "duplex" if found.composition["Cr"] > 21.5 and found.composition.get("Ni", 0.0) < 10 else "austenitic"
    return base


def _losses(wps: Wps, corner: Corner, *, end_faces: bool) -> LossesCase:
    shape = joint_shape(wps)
    assert shape is not None
    low, _, high = emissivities(wps)
    grooves = tuple(
        GrooveCase(tuple(groove.outline), math.dist(*groove.mouth))
        for groove in shape.grooves
        if groove.side and not groove.surfacing
    )
    sides: dict[Literal["left", "right", "bottom", "top"], Literal["none"] | SideCase] = {}
    if wps.joint.product == "pipe" and wps.purge.flow_l_min is not None:
        sides["bottom"] = SideCase(emissivity=0.0, convection_w_mm2_k1_25=0.0)  # dammed: nothing leaves inside
    return LossesCase(
        emissivity=low if corner == "long" else high,
        sides=sides,
        grooves=grooves,
        end_faces=end_faces,
    )


def _seam(wps: Wps) -> tuple[SeamCase, float | None]:
    length, beyond = seam_length(wps), wps.piece.beyond_mm
    assert length is not None
    if wps.joint.product == "pipe":
        return SeamCase(length_mm=length, closed=True), None
    from_end = min(FROM_END_MM, length / 2)
    if beyond is None:
        return SeamCase(length_mm=length, station_mm=length - from_end), None
    plate = length + 2 * beyond
    seam = SeamCase(length_mm=length, station_mm=length - from_end, run_off_mm=(beyond, beyond), plate_length_mm=plate)
    return seam, plate


def _pipe(wps: Wps) -> PipeCase | None:
    if wps.joint.product != "pipe" or wps.joint.od_mm is None:
        return None
    return PipeCase(wps.joint.od_mm)


def _read_for(bead: Bead, read: frozenset[str]) -> str:
    return OTHER_PLACE if bead.side == 2 and OTHER_PLACE in read else PLACE


def _contacts(wps: Wps, corner: Corner, sources: list[SourceCase], areas: list[AreaCase]) -> Iterator[ContactCase]:
    """Yield faces that touch and are not fused: root faces until the first pass, the faces beside a fillet for ever.

    How well heat crosses such faces nobody knows: not at all in the longest run, as through metal in the shortest.
    """
    kind = wps.joint.kind
    if kind is not None and MAKES[kind].family in PLATES:
        if corner == "long":
            opens = None if MAKES[kind].form == "fillet" else sources[0].id
            yield from (ContactCase(*span, opens) for span in touching(areas[0].outline_mm, areas[1].outline_mm))
        return
    opening, face, thickness = (getattr(wps.joint, n) for n in ("root_opening_mm", "root_face_mm", "thickness_mm"))
    is_closed = opening is None or opening.nominal == 0
    if is_closed and face is not None and face.nominal > 0 and thickness is not None and sources:
        yield ContactCase((0.0, 0.0), (0.0, min(face.nominal, thickness)), sources[0].id)


def touching(one: Outline, other: Outline) -> Iterator[tuple[tuple[float, float], tuple[float, float]]]:
    """Yield where level or upright edges of two outlines lie on each other [mm]."""
    for (ax, ay), (bx, by) in zip(one, (*one[1:], one[0]), strict=True):
        for (cx, cy), (dx, dy) in zip(other, (*other[1:], other[0]), strict=True):
            if abs(ay - by) < ON and abs(cy - dy) < ON and abs(ay - cy) < ON:
                low, high = max(min(ax, bx), min(cx, dx)), min(max(ax, bx), max(cx, dx))
                if high - low > ON:
                    yield (low, ay), (high, ay)
            if abs(ax - bx) < ON and abs(cx - dx) < ON and abs(ax - cx) < ON:
                low, high = max(min(ay, by), min(cy, dy)), min(max(ay, by), max(cy, dy))
                if high - low > ON:
                    yield (ax, low), (ax, high)
