"""Other preparations of the same plate beside the one that is stated: their metal over thickness, time and money."""

from collections.abc import Mapping, Sequence
from types import MappingProxyType

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.consumption import Takes
from anlage.core.document import Dimension, kept, with_
from anlage.core.errors import InputError
from anlage.core.joint import MAKES, Family, Kind, Preparation, dimensions_of, faults, joint_metal, taken_over
from anlage.core.procedure import Joint, Wps, sketch_of
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.joint_tables import standard_details
from anlage.data.tables import unit_table
from anlage.session.leaves.table import field_of
from anlage.session.proposal.fill import filled
from anlage.session.takes.takes import UNKNOWN, minutes, weld_takes
from anlage.session.weld.bead_sizes import plan_of

COMPARED: Mapping[Family, tuple[Kind, ...]] = MappingProxyType({
    "butt": ("single-v", "double-v", "single-u", "double-u", "v-backing"),
    "tee": ("tee-bevel", "tee-double-bevel", "tee-j", "tee-double-j"),
    "corner": ("corner-v", "corner-bevel", "corner-j"),
})  # fmt: skip
STEPS = 24  # of a curve


class Design(Struct, frozen=True):
    """A way to prepare the plate: its name, its joint, its area [mm²] and what that is over thickness [mm, mm²]."""

    name: str
    joint: Joint
    area_mm2: float | None
    curve: tuple[tuple[float, float], ...]
    kept: bool = False


@kept
def designs(wps: Wps, system: System, beside: tuple[Joint, ...] = ()) -> tuple[Design, ...]:
    """Return the joint as stated, those kept beside it, and other grooves of its family at its own root and angles.

    A U takes the root radius that is stated, or 6 mm with 20° where none is, as the standard details draw it; backing
    brings a gap of 6 mm and 45°; other grooves of a T or a corner take angle and radius of their first standard
    detail: for comparison alone. A fillet is compared with what is kept. Nothing before the joint is stated in full.
    """
    sketch = sketch_of(wps.joint)
    if sketch is None or sketch.incomplete or faults(sketch.preparation):
        return ()
    p = sketch.preparation
    others = COMPARED.get(p.make.family, ()) if p.make.form != "fillet" else ()
    kinds = [kind for kind in others if kind != p.kind]
    joints = [wps.joint, *beside, *(_as(wps.joint, p, kind) for kind in kinds)]
    return tuple(_design(each, system, is_kept=0 < n <= len(beside)) for n, each in enumerate(joints))


def _design(joint: Joint, system: System, *, is_kept: bool) -> Design:
    sketch = sketch_of(joint)
    assert sketch is not None, "a design has a kind"
    p = sketch.preparation
    return Design(_named(p, system, is_kept=is_kept), joint, _area(p), _curve(p), is_kept)


def _named(p: Preparation, system: System, *, is_kept: bool) -> str:
    name = field_of("joint/kind").say(p.kind)
    own = ", ".join(
        show(getattr(p, leaf), kind, system, unit_table())
        for leaf, kind in (("groove_angle_deg", "angle"), ("root_opening_mm", "length"))
        if leaf in dimensions_of(p.kind)
    )
    return f"{name}, {own}, kept" if is_kept else name


def _as(joint: Joint, p: Preparation, kind: Kind) -> Joint:
    """Return the same plate with another preparation."""
    make = MAKES[kind]
    changed: dict[str, float] = {}
    if make.family != "butt" and make.form != p.make.form:
        detail = next(each for each in standard_details().values() if kind in each.kinds)
        drawn = taken_over(detail, p.thickness_mm)
        changed |= {name: drawn[name][0] for name in ("groove_angle_deg", "radius_mm") if name in drawn}
    elif make.form == "u" and not p.radius_mm:
        changed |= {"radius_mm": 6.0, "groove_angle_deg": 20.0}
    elif make.form == "v" and p.make.form in ("u", "j", "bevel", "square"):
        changed |= {"groove_angle_deg": 60.0}
    if make.backing and not p.make.backing:
        changed |= {"root_opening_mm": 6.0, "root_face_mm": 0.0, "groove_angle_deg": 45.0}
    stated = {name: Dimension.stated(nominal=value) for name, value in changed.items()}
    alike = dict.fromkeys(("second_depth_mm", "second_angle_deg", "detail", "root_style"))
    return with_(joint, kind=kind, **{**alike, **stated})


def _area(p: Preparation) -> float | None:
    return None if faults(p) else joint_metal(p).whole_area_mm2


def _curve(p: Preparation) -> tuple[tuple[float, float], ...]:
    thick = p.thickness_mm
    points = []
    for n in range(STEPS + 1):
        other = thick * (0.4 + 1.6 * n / STEPS)
        alike = {"thickness_mm": other, "second_depth_mm": None, "other_thickness_mm": None, "od_mm": None}
        area = _area(replace(p, **alike))
        if area is not None:
            points.append((other, area))
    return tuple(points)


# Side by side --------------------------------------------------------------------------------

HEADS = ("Weld metal", "Beads", "Filler to buy", "Arc time", "Elapsed", "Energy", "Money")


class Compared(Struct, frozen=True):
    """One row: the design, `None` for the passes as they are; what it takes as texts; which of them are the least."""

    name: str
    design: Design | None
    texts: tuple[str, ...]
    least: tuple[bool, ...]


def compared(
    wps: Wps, rates: Mapping[str, float], system: System, beside: Sequence[Joint] = ()
) -> tuple[Compared, ...]:
    """Return what each design takes in metal, time and money over the same seam, filled by the same deposits.

    The first row is the passes as they are stated; in all others the joint is filled anew, at the speeds that fill it,
    so that like is compared with like.
    """
    found = designs(wps, system, tuple(beside))
    if not found or not wps.deposits:
        return ()
    rows: list[tuple[str, Design | None, int, Takes | None]] = []
    if wps.passes:
        rows.append(("As stated, your passes", None, len(wps.passes), weld_takes(wps, rates)))
    plan = plan_of(wps).loosened()
    free = with_(wps, passes=tuple(with_(each, travel_speed_mm_min=None) for each in wps.passes))
    for each in found:
        try:
            other = filled(with_(free, joint=each.joint), plan)
        except InputError:
            rows.append((each.name, each, 0, None))
            continue
        rows.append((each.name, each, len(other.passes), weld_takes(other, rates)))
    numbers = [_numbers(count, takes) for _, _, count, takes in rows]
    times = tuple(zip(*(minutes(column) for column in list(zip(*numbers, strict=True))[3:5]), strict=True))
    least = [min((n for n in column if n is not None), default=None) for column in zip(*numbers, strict=True)]
    return tuple(
        Compared(
            name, design, _texts(own, time, system),
            tuple(a is not None and b is not None and a <= b * (1 + 1e-9) for a, b in zip(own, least, strict=True)),
        )
        for (name, design, _, _), own, time in zip(rows, numbers, times, strict=True)
    )  # fmt: skip


def _numbers(count: int, found: Takes | None) -> tuple[float | None, ...]:
    """Return the numbers of a row, in the order of `HEADS`."""
    if found is None:
        return (None,) * len(HEADS)
    bought = sum(each.mass_kg for each in found.fillers)
    return (found.metal_kg, count, bought, found.arc_min, found.elapsed_min, found.energy_kwh, found.whole_cost)


def _texts(numbers: tuple[float | None, ...], times: tuple[str, str], system: System) -> tuple[str, ...]:
    metal, count, bought, _, _, energy, money = numbers

    def mass(kg: float | None) -> str:
        return UNKNOWN if kg is None else show(kg, "mass", system, unit_table())

    return (
        mass(metal), UNKNOWN if not count else f"{count:.0f}", mass(bought), *times,
        UNKNOWN if energy is None else f"{energy:.2f} kWh", UNKNOWN if money is None else f"{money:.2f}",
    )  # fmt: skip
