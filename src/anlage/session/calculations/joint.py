"""`calc joint`: area and weld metal of a preparation."""

from collections.abc import Mapping

from msgspec.structs import asdict

from anlage.core.errors import InputError
from anlage.core.joint import KINDS, STEEL_G_CM3, Preparation, dimensions_of, joint_metal, needed, spoken
from anlage.core.ranges import Interval, over_corners
from anlage.core.results import Source
from anlage.data.tables import catalogue
from anlage.session.keyed.answer import Answer, number_or_interval
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.words import label_of, metal_text

ANGLES = ("angle", "angle2", "upper_angle", "member_angle")
DIMENSIONS: Mapping[str, str] = {
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


KEYS = ("type", *DIMENSIONS, "filler")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc joint`."""
    arguments.need("type")
    kind = arguments.word("type", "joint")
    if kind not in KINDS:
        mend = f"take one of {', '.join(KINDS)}"
        raise InputError(f"{kind} has no section of its own", where="type", mend=mend)
    lacking = needed(kind)
    arguments.need(*(key for key, field in DIMENSIONS.items() if field in lacking))
    stated = _stated(arguments, kind, dimensions_of(kind))
    filler = catalogue().filler(arguments.text("filler")) if "filler" in arguments else None
    density = (filler.density_g_cm3 if filler else None) or STEEL_G_CM3

    def formula(**numbers: float) -> dict[str, float | None]:
        metal = joint_metal(Preparation(kind=kind, **numbers), density_g_cm3=density)  # type: ignore[arg-type]
        return asdict(metal)

    values = over_corners(formula, stated)
    for name in ("root_area_mm2", "buttering_area_mm2"):
        if values[name] == Interval.single(0.0):
            del values[name]
    if "od" not in arguments:
        values = {n: v for n, v in values.items() if n != "circumference_mm" and (n != "weld_metal_kg" or v)}
    lines = [(label_of(name), metal_text(name, value)) for name, value in values.items()]
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
    stated = {}
    for key, field in DIMENSIONS.items():
        if key not in arguments:
            continue
        span = arguments.interval(key, "angle" if key in ANGLES else "length", zero=key not in FIXED)
        if key in FIXED or field in own:
            stated[field] = span
        elif span != Interval.single(0.0):
            others = ", ".join(spoken(each) for each in own)
            raise InputError(f"does not belong to {kind}", where=key, mend=f"leave it out; it has {others}")
    return stated
