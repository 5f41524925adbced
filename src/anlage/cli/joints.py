"""The calculations of `anlage calc` about joints and what fills them: joint, deposit, electrodes, shrinkage."""

import math
from collections.abc import Mapping
from typing import Any

from anlage.cli.answer import Answer, number, number_or_interval, shown, shown_single
from anlage.cli.arguments import Arguments
from anlage.core.errors import InputError
from anlage.core.ranges import Interval, over_corners
from anlage.core.results import Notice, Source
from anlage.data.tables import catalogue, depositions

ANGLES = ("angle", "angle2", "upper_angle", "member_angle")
JOINT_KEYS: Mapping[str, str] = {
    "thickness": "thickness_mm", "thickness2": "other_thickness_mm", "root_opening": "root_opening_mm",
    "root_face": "root_face_mm", "angle": "groove_angle_deg", "depth2": "second_depth_mm",
    "angle2": "second_angle_deg", "radius": "radius_mm", "break_height": "break_height_mm",
    "upper_angle": "upper_angle_deg", "leg": "leg_mm", "leg2": "second_leg_mm", "member_angle": "member_angle_deg",
    "hole": "hole_mm", "length": "slot_length_mm", "depth": "fill_depth_mm", "width": "width_mm", "layer": "layer_mm",
    "reinforcement": "reinforcement_mm", "overlap": "cap_overlap_mm", "root_reinforcement": "root_reinforcement_mm",
    "buttering": "buttering_mm",
    "od": "od_mm", "run_od": "run_od_mm",
}  # fmt: skip
FIXED = ("thickness", "thickness2", "od", "run_od")  # of every kind, and never zero


def joint_answer(arguments: Arguments) -> Answer:
    """Answer `calc joint`."""
    from anlage.core.joint import KINDS, STEEL_G_CM3, Preparation, dimensions_of, joint_metal, needed

    arguments.need("type")
    kind = arguments.word("type", "joint")
    if kind not in KINDS:
        mend = f"take one of {', '.join(KINDS)}"
        raise InputError(f"{kind} has no section of its own", where="type", mend=mend)
    lacking = needed(kind)  # type: ignore[arg-type]
    arguments.need(*(key for key, field in JOINT_KEYS.items() if field in lacking))
    stated = _stated(arguments, kind, dimensions_of(kind))  # type: ignore[arg-type]
    filler = catalogue().filler(arguments.text("filler")) if "filler" in arguments else None
    density = (filler.density_g_cm3 if filler else None) or STEEL_G_CM3

    def formula(**numbers: float) -> dict[str, float | None]:
        metal = joint_metal(Preparation(kind=kind, **numbers), density_g_cm3=density)  # type: ignore[arg-type]
        return {name: getattr(metal, name) for name in type(metal).__slots__}

    values = over_corners(formula, stated)
    for name in ("root_area_mm2", "buttering_area_mm2"):
        if values[name] == Interval.single(0.0):
            del values[name]
    if "od" not in arguments:
        values = {n: v for n, v in values.items() if n != "circumference_mm" and (n != "weld_metal_kg" or v)}
    lines = [(label_of(name), _metal(name, value)) for name, value in values.items()]
    if "od" in arguments and values.get("weld_metal_kg"):
        lines[-1] = ("weld metal, whole ring", lines[-1][1])
    origin = filler.source if filler else "steel weld metal 7.85 g/cm³, common practice, no source"
    sources = [
        Source("areas", "geometry; the cap a parabola, 2/3 of width times height (common practice, no source)", "H"),
        Source("density", origin, "H"),
    ]
    if "od" in arguments:
        sources.append(Source("weld_metal_kg", "geometry: the ring of the section round the pipe axis (Pappus)", "H"))
    return Answer({n: number_or_interval(v) for n, v in values.items()}, lines, sources)


def _stated(arguments: Arguments, kind: str, own: tuple[str, ...]) -> dict[str, Interval]:
    """Return what is stated, by field; a zero that the kind has no use for is left out, anything else refused."""
    from anlage.core.joint import spoken

    stated = {}
    for key, field in JOINT_KEYS.items():
        if key not in arguments:
            continue
        span = arguments.interval(key, "angle" if key in ANGLES else "length", zero=key not in FIXED)
        if key in FIXED or field in own:
            stated[field] = span
        elif span != Interval.single(0.0):
            others = ", ".join(spoken(each) for each in own)
            raise InputError(f"does not belong to {kind}", where=key, mend=f"leave it out; it has {others}")
    return stated


def label_of(name: str) -> str:
    """Return how a result is called in a table: its key without the unit."""
    for ending in ("_mm2", "_mm", "_kg_m", "_kg_h", "_kg", "_min"):
        name = name.removesuffix(ending)
    return name.replace("_", " ")


def _metal(name: str, value: Interval | None) -> str:
    unit = {"_kg_m": "kg/m", "_kg_h": "kg/h"}.get(name[-5:], "kg" if name.endswith("_kg") else "")
    if not unit or value is None:
        return shown(name, value)
    return f"{'..'.join(dict.fromkeys(f'{end:.3f}' for end in (value.low, value.high)))} {unit}"


def deposit_answer(arguments: Arguments) -> Answer:
    """Answer `calc deposit`."""
    from anlage.core.beads import deposition_rate, wire_bead_area
    from anlage.core.joint import STEEL_G_CM3

    arguments.need("process", "wire_diameter", "wire_speed", "travel_speed")
    process = arguments.word("process", "process")
    row = depositions().get(process)
    fill = 1.0
    if "efficiency" in arguments:
        efficiency, source = arguments.interval("efficiency", "ratio"), Source("efficiency", "as stated", "H")
    elif row is not None:
        efficiency, fill = Interval(*row.efficiency), row.fill
        source = Source(
            "efficiency", f"{process}: {row.efficiency[0]:g} to {row.efficiency[1]:g}, from memory", row.confidence
        )
    else:
        raise InputError(f"no efficiency is known for {process}", where="efficiency", mend="add efficiency=…")
    stated = {
        "wire_diameter_mm": arguments.interval("wire_diameter", "length"),
        "wire_speed_mm_min": arguments.interval("wire_speed", "speed"),
        "travel_speed_mm_min": arguments.interval("travel_speed", "speed"),
        "efficiency": efficiency,
    }
    if efficiency.high > 1:
        raise InputError(f"{efficiency.high:g} is over 1", where="efficiency", mend="state a share of 1, such as 0.95")

    def formula(**given: float) -> dict[str, float | None]:
        area = wire_bead_area(given.pop("wire_diameter_mm"), **given, fill=fill)
        return {"bead_area_mm2": area}

    def rate(**given: float) -> dict[str, float | None]:
        found = deposition_rate(given.pop("wire_diameter_mm"), **given, density_g_cm3=STEEL_G_CM3)
        return {"deposition_kg_h": found * fill}

    travel = stated.pop("travel_speed_mm_min")
    values = {**over_corners(formula, {**stated, "travel_speed_mm_min": travel}), **over_corners(rate, stated)}
    lines = [(label_of(name), _metal(name, value)) for name, value in values.items()]
    sources = [Source("bead_area_mm2", "conservation of metal; steel 7.85 g/cm³", "H"), source]
    if fill != 1.0:
        sources.append(Source("fill", f"cored wire: {fill:g} of its section is metal, from memory", "M"))
    return Answer({n: number_or_interval(v) for n, v in values.items()}, lines, sources)


def electrodes_answer(arguments: Arguments) -> Answer:
    """Answer `calc electrodes`."""
    from anlage.core.beads import Size
    from anlage.core.consumption import electrode_count
    from anlage.core.joint import STEEL_G_CM3

    arguments.need("classification", "diameter")
    filler, diameter = catalogue().filler(arguments.text("classification"), where="classification"), 0.0
    diameter = arguments.single("diameter", "length")
    row = catalogue().filler_current(filler.classification, diameter, process="SMAW")
    if row is None or row.electrode_length_mm is None or row.stub_mm is None:
        sizes = [r.diameter_in for r in catalogue().filler_currents if r.classification == filler.classification]
        mend = (
            f"take one of {', '.join(dict.fromkeys(sizes))} in" if sizes else "name a covered electrode, such as E7018"
        )
        raise InputError(
            f"no covered electrode {filler.classification} of {diameter:g} mm is known", where="diameter", mend=mend
        )
    density = filler.density_g_cm3 or STEEL_G_CM3
    recovery = (row.electrode_efficiency_percent or 100.0) / 100
    sources = [Source("electrode", f"{row.classification} {row.diameter_in} in: {row.source}", row.confidence)]
    if "weld_metal_kg" in arguments:
        metal = arguments.interval("weld_metal_kg", "mass", bare="kg")
    else:
        if "od" not in arguments and "beads" not in arguments:
            raise InputError("is missing", where="weld_metal_kg", mend="add weld_metal_kg=… , or od=… and beads=…")
        arguments.need("od", "beads")
        size = Size.of_electrode(diameter)
        volume = math.pi * size.area_mm2 * arguments.single("beads", "ratio")
        od = arguments.interval("od", "length")
        metal = Interval(*(volume * end * density * 1e-6 for end in (od.low, od.high)))
        text = f"stringers of {size.area_mm2:.1f} mm², usual for {row.diameter_in} in (common practice, no source)"
        sources.append(Source("beads", text, "M"))

    def formula(weld_metal_kg: float) -> dict[str, float | None]:
        found = electrode_count(
            weld_metal_kg, diameter_mm=row.diameter_mm, recovery=recovery, density_g_cm3=density,
            consumed_length_mm=(row.electrode_length_mm or 0.0) - (row.stub_mm or 0.0),
        )  # fmt: skip
        rate = row.deposition_kg_h_typical
        return {"count": float(math.ceil(found - 1e-9)), "arc_time_min": weld_metal_kg / rate * 60 if rate else None}

    values = over_corners(formula, {"weld_metal_kg": metal})
    notices = []
    if values["arc_time_min"] is None:
        text = f"no deposition rate is known for {row.classification} {row.diameter_in} in: no arc time"
        notices.append(Notice("electrodes.no_rate", "classification", text))
    count = values["count"]
    assert count is not None
    whole = int(count.low) if count.is_single else [int(count.low), int(count.high)]
    lines = [
        ("electrodes", f"{whole}" if isinstance(whole, int) else f"{whole[0]}..{whole[1]}"),
        ("arc time", _minutes(values["arc_time_min"])),
        ("each", f"{row.electrode_length_mm:g} mm, stub {row.stub_mm:g} mm, recovery {recovery:g}"),
    ]
    answer: dict[str, Any] = {"count": whole, "arc_time_min": number_or_interval(values["arc_time_min"])}
    answer["weld_metal_kg"] = number_or_interval(metal)
    return Answer(answer, lines, sources, notices)


def _minutes(value: Interval | None) -> str:
    return shown("_min", value) + ("" if value is None else " min")


def shrinkage_answer(arguments: Arguments) -> Answer:
    """Answer `calc shrinkage`."""
    from anlage.core.shrinkage import fillet_turn, transverse

    arguments.need("area", "thickness")
    area, thick = arguments.interval("area", "area"), arguments.interval("thickness", "length")
    gap = (
        arguments.interval("root_opening", "length", zero=True) if "root_opening" in arguments else Interval.single(0.0)
    )
    heat = arguments.interval("heat_input", "heat_input") if "heat_input" in arguments else None
    schools: dict[str, Interval] = {}
    sources = []
    for end in ("low", "high"):
        other = "high" if end == "low" else "low"
        net = None if heat is None else 1000 * getattr(heat, end)
        found = transverse(
            getattr(area, end),
            thickness_mm=getattr(thick, other),
            root_opening_mm=getattr(gap, end),
            heat_input_j_mm=net,
        )
        for each in found:
            low = schools[each.name].low if each.name in schools else each.low_mm
            schools[each.name] = Interval(low, each.high_mm)
        sources = [Source(each.name, each.source, each.confidence) for each in found]
    lines = [(name.replace("_", " "), shown("_mm", span)) for name, span in schools.items()]
    values: dict[str, Any] = {"transverse_mm": {name: number_or_interval(span) for name, span in schools.items()}}
    if "leg" in arguments or "width" in arguments:
        arguments.need("leg", "width")
        leg, width = arguments.single("leg", "length"), arguments.single("width", "length")
        turn = fillet_turn(width, leg_mm=leg, thickness_mm=thick.low)
        values["edge_rise_mm"] = number(turn)
        lines.append(("edge rises by", shown_single(turn, "length")))
        sources.append(Source("edge_rise_mm", "Blodgett 1966, from memory", "H"))
    notice = Notice(
        "shrinkage.rough", "area", "rough, within half of the value at best: preset by it, never a tolerance"
    )
    return Answer(values, lines, sources, [notice])
