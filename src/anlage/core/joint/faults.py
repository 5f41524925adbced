"""What is impossible in a preparation, alone or together: the reason, the fields that take part, the nearest value."""

import math
from collections.abc import Iterator

from anlage.core.errors import InputError
from anlage.core.joint.kinds import dimensions_of
from anlage.core.joint.node import LEAST_DEG
from anlage.core.joint.preparation import Preparation

SPOKEN = {
    "groove_angle_deg": "angle", "second_depth_mm": "depth2", "second_angle_deg": "angle2", "second_leg_mm": "leg2",
    "other_thickness_mm": "thickness2", "fill_depth_mm": "depth", "slot_length_mm": "length",
    "cap_overlap_mm": "overlap",
}  # fmt: skip
"""Names of the command line where they are not the field's own name without its unit."""
LENGTHS = (
    "thickness_mm", "other_thickness_mm", "root_opening_mm", "root_face_mm", "second_depth_mm", "radius_mm",
    "break_height_mm", "leg_mm", "second_leg_mm", "reinforcement_mm", "cap_overlap_mm", "root_reinforcement_mm",
    "hole_mm", "slot_length_mm", "fill_depth_mm", "width_mm", "layer_mm", "buttering_mm", "counterbore_mm",
)  # fmt: skip
ABOVE_ZERO = frozenset({
    "thickness_mm", "other_thickness_mm", "second_depth_mm", "radius_mm", "break_height_mm", "leg_mm", "second_leg_mm",
    "hole_mm", "slot_length_mm", "fill_depth_mm", "width_mm", "layer_mm",
})  # fmt: skip
ALWAYS = frozenset({"thickness_mm", "other_thickness_mm", "counterbore_mm"})
KEEP = 0.99  # a nearest value stays this far inside what is still possible


class JointFaultError(InputError):
    """A refusal that names every field that takes part in it."""

    def __init__(self, what: str, *, fields: tuple[str, ...], mend: str) -> None:
        super().__init__(what, where=spoken(fields[0]), mend=mend)
        self.fields = fields


def spoken(field: str) -> str:
    """Return how a field is called on the command line.

    Examples
    --------
    >>> spoken("root_face_mm"), spoken("groove_angle_deg")
    ('root_face', 'angle')
    """
    return SPOKEN.get(field) or field.rpartition("_")[0]


def faults(preparation: Preparation) -> tuple[JointFaultError, ...]:
    """Return everything that is impossible in a preparation, in the order of its fields.

    Examples
    --------
    >>> thick = Preparation(kind="single-v", thickness_mm=6, root_opening_mm=2, root_face_mm=8, groove_angle_deg=60)
    >>> print(faults(thick)[0])
    root_face: 8 mm is not less than the thickness of 6 mm; state a thinner root face, 5.94 mm at most
    """
    p = preparation
    own = frozenset(dimensions_of(p.kind))
    found = list(_number_faults(p, own))
    if not found:
        found += _depth_faults(p)
    found += _angle_faults(p, own)
    if not found:
        found += (*_radius_faults(p), *_leg_faults(p))
    return (*found, *_pipe_faults(p))


def _number_faults(p: Preparation, own: frozenset[str]) -> Iterator[JointFaultError]:
    for field in LENGTHS:
        value = getattr(p, field)
        if value is None or field not in own | ALWAYS:
            continue
        optional = field == "leg_mm" and p.make.form not in ("fillet", "socket", "slip-on")
        above = field in ABOVE_ZERO and not optional
        if not ((value > 0 if above else value >= 0) and value < math.inf):
            bound = "above 0" if above else "0 or more"
            yield JointFaultError(f"{value:g} mm is not {bound}", fields=(field,), mend=f"state a length {bound}")


def _depth_faults(p: Preparation) -> Iterator[JointFaultError]:
    if p.make.form in ("square", "fillet", "socket", "slip-on", "plug", "slot", "cladding") or p.make.family == "flare":
        yield from _hole_faults(p)
        return
    thick = p.prepared_mm
    if p.root_face_mm >= thick:
        what = f"{p.root_face_mm:g} mm is not less than the thickness of {thick:g} mm"
        mend = f"state a thinner root face, {_most(KEEP * thick)} mm at most"
        yield JointFaultError(what, fields=("root_face_mm", "thickness_mm"), mend=mend)
    elif p.make.sides == 2 and p.depths_mm[0] <= 0:
        what = (
            f"{p.second_depth_mm:g} mm and a root face of {p.root_face_mm:g} mm leave nothing of {thick:g} mm "
            "for the first side"
        )
        mend = f"state a second depth of {_most(KEEP * (thick - p.root_face_mm))} mm at most"
        yield JointFaultError(what, fields=("second_depth_mm", "root_face_mm", "thickness_mm"), mend=mend)
    elif p.make.form == "compound-v":
        depth = min(d for d in p.depths_mm if d > 0)
        if p.break_height_mm >= depth:
            what = f"{p.break_height_mm:g} mm is not less than the groove's depth of {depth:g} mm"
            mend = f"state a break height of {_most(KEEP * depth)} mm at most"
            yield JointFaultError(what, fields=("break_height_mm", "thickness_mm", "root_face_mm"), mend=mend)


def _hole_faults(p: Preparation) -> Iterator[JointFaultError]:
    if p.make.form == "slot" and p.slot_length_mm < p.hole_mm:
        what = f"{p.slot_length_mm:g} mm is shorter than the slot is wide, {p.hole_mm:g} mm"
        mend = f"state a length of {p.hole_mm:g} mm or more"
        yield JointFaultError(what, fields=("slot_length_mm", "hole_mm"), mend=mend)
    if p.fill_depth_mm is not None and p.make.form in ("plug", "slot") and p.fill_depth_mm > p.thickness_mm:
        what = f"{p.fill_depth_mm:g} mm is deeper than the plate of {p.thickness_mm:g} mm"
        mend = f"state {p.thickness_mm:g} mm at most"
        yield JointFaultError(what, fields=("fill_depth_mm", "thickness_mm"), mend=mend)
    if p.make.family == "flare" and p.radius_mm < p.thickness_mm:
        what = f"{p.radius_mm:g} mm outside is tighter than the wall of {p.thickness_mm:g} mm can be bent"
        mend = f"state an outside bend radius of {p.thickness_mm:g} mm or more"
        yield JointFaultError(what, fields=("radius_mm", "thickness_mm"), mend=mend)


def _angle_faults(p: Preparation, own: frozenset[str]) -> Iterator[JointFaultError]:
    one_sided = p.make.form not in ("v", "u", "compound-v")
    most = 90.0 if one_sided else 180.0
    word = "a bevel angle" if one_sided else "an included angle"
    for field in ("groove_angle_deg", "second_angle_deg", "upper_angle_deg", "member_angle_deg"):
        value = getattr(p, field)
        if field not in own or value is None:
            continue
        is_member = field == "member_angle_deg"
        limit, name = (180.0, "an angle between the members") if is_member else (most, word)
        if not 0 < value < limit:
            mend = f"state {name} above 0 and below {limit:g} deg, such as {_such_as(field, limit)}"
            kind = "angle between members" if is_member else "bevel angle" if one_sided else "groove angle"
            yield JointFaultError(f"{value:g}° is no {kind}", fields=(field,), mend=mend)


def _such_as(field: str, limit: float) -> str:
    if field == "member_angle_deg":
        return "90deg"
    return "60deg" if limit == 180 else "45deg"


def _radius_faults(p: Preparation) -> Iterator[JointFaultError]:
    if p.make.form not in ("u", "j") or p.make.family == "flare":
        return
    for depth, angle in zip(p.depths_mm, p.wall_angles_deg, strict=True):
        level = 1 - math.sin(math.radians(angle))
        if depth > 0 and p.radius_mm * level > depth:
            what = f"{p.radius_mm:g} mm needs {p.radius_mm * level:.3g} mm of depth and the groove has {depth:.3g} mm"
            mend = f"state a radius of {_most(KEEP * depth / level)} mm at most"
            fields = ("radius_mm", "thickness_mm", "root_face_mm")
            yield JointFaultError(what, fields=fields, mend=mend)
            return


def _leg_faults(p: Preparation) -> Iterator[JointFaultError]:
    if p.make.form not in ("fillet", "socket", "slip-on"):
        return
    plate = p.thickness_mm if p.other_thickness_mm is None else p.other_thickness_mm
    for field in ("leg_mm", "second_leg_mm"):
        leg = getattr(p, field)
        against = "other_thickness_mm" if p.make.form == "socket" else "thickness_mm"
        most = plate if p.make.form == "socket" else p.thickness_mm
        if leg is not None and leg > most:
            what = f"{leg:g} mm is larger than the plate of {most:g} mm"
            yield JointFaultError(what, fields=(field, against), mend=f"state a leg of {most:g} mm at most")
    if p.root_opening_mm >= p.leg_mm and p.make.form == "fillet":
        what = f"{p.root_opening_mm:g} mm leaves nothing of a leg of {p.leg_mm:g} mm"
        mend = f"state a gap of {_most(KEEP * p.leg_mm)} mm at most, or a larger leg"
        yield JointFaultError(what, fields=("root_opening_mm", "leg_mm"), mend=mend)


def _pipe_faults(p: Preparation) -> Iterator[JointFaultError]:
    if p.od_mm is not None and not p.od_mm > 2 * p.thickness_mm:
        what = f"{p.od_mm:g} mm leaves no bore in a wall of {p.thickness_mm:g} mm"
        mend = f"state the outside diameter of the pipe, more than {2 * p.thickness_mm:g} mm"
        yield JointFaultError(what, fields=("od_mm", "thickness_mm"), mend=mend)
    if p.run_od_mm is not None and p.od_mm is not None and p.od_mm > p.run_od_mm:
        what = f"a branch of {p.od_mm:g} mm is larger than its run of {p.run_od_mm:g} mm"
        yield JointFaultError(what, fields=("od_mm", "run_od_mm"), mend=f"state a branch of {p.run_od_mm:g} mm at most")
    if p.kind == "tube-node" and not LEAST_DEG <= p.member_angle_deg <= 180.0 - LEAST_DEG:
        what = f"{p.member_angle_deg:g}° to the run leaves no room to weld"
        mend = f"state {LEAST_DEG:g}deg to {180.0 - LEAST_DEG:g}deg"
        yield JointFaultError(what, fields=("member_angle_deg",), mend=mend)


def _most(value: float) -> str:
    return f"{value:.3g}"
