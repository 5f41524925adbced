"""T and corner joints with a groove, branches on a run, the corner V: the groove of a butt joint, turned or kept."""

import math

from msgspec.structs import replace

from anlage.core.joint.butt import BESIDE, UPRIGHT_MM, edges_of, grooves_of
from anlage.core.joint.kinds import dimensions_of
from anlage.core.joint.preparation import Point, Preparation
from anlage.core.joint.shape import Dimensioned, Groove, Measured, Member, Outline, Shape, Turned

STANDING = 1.6  # height shown of a standing member, in its thicknesses


def other_mm(p: Preparation) -> float:
    """Return the thickness of the member that is not prepared [mm]."""
    return p.thickness_mm if p.other_thickness_mm is None else p.other_thickness_mm


def tee(p: Preparation) -> Shape:
    """Return a standing, prepared member on a lying one; at a corner the lying one ends flush with its outer face."""
    thick, base, half = p.thickness_mm, other_mm(p), p.root_opening_mm / 2

    def turned(points: Outline) -> Outline:
        """Turn the section of a butt joint by a quarter: its upper surface becomes the right face."""
        return tuple((y - thick, half - x) for x, y in points)

    plain = tuple(_turned(groove, turned) for groove in grooves_of(replace(p, reinforcement_mm=0.0)))
    top = max(groove.mouth[0][1] for groove in plain) + STANDING * thick
    left, _ = edges_of(p)
    face = [(-half - s, y) for s, y in reversed(left)]
    standing = Member("metals/one", (turned(((half - top, thick), *face, (half - top, 0.0))),))
    fillets = tuple(_reinforcing(p, groove) for groove in plain) if p.leg_mm else ()
    is_corner = p.make.family == "corner"
    reach = max(BESIDE * thick, 1.5 * p.leg_mm)
    lying = _lying(-thick - reach, 0.0 if is_corner else reach, base, ends_right=is_corner)
    grooves = (*plain, *fillets)
    if not fillets:
        grooves = tuple(replace(groove, cap_mm=p.reinforcement_mm) for groove in plain)
    bar: Outline = ()
    if p.make.backing:
        high = max(0.45 * thick, half * 2)
        bar = ((-thick - high, 0.0), (-thick, 0.0), (-thick, half * 2 + thick), (-thick - high, half * 2 + thick))
    return Shape((standing, lying), grooves, _tee_dimensions(p, plain, top, reach), bar)


def _turned(groove: Groove, turned: object) -> Groove:
    assert callable(turned)
    return replace(groove, outline=turned(groove.outline), mouth=turned(groove.mouth), root=None, root_cap_mm=0.0)


def _lying(low: float, high: float, thick: float, *, ends_right: bool) -> Member:
    if ends_right:
        return Member("metals/other", (((low, -thick), (high, -thick), (high, 0.0), (low, 0.0)),))
    return Member("metals/other", (((low, -thick), (high, -thick)), ((high, 0.0), (low, 0.0))))


def _reinforcing(p: Preparation, groove: Groove) -> Groove:
    """Return the fillet that is laid over a finished groove, wide enough to cover it."""
    leg = p.leg_mm
    if groove.side == 1:
        high = max(leg, groove.mouth[0][1])
        outline: Outline = ((0.0, 0.0), (leg, 0.0), (0.0, high))
        mouth = ((0.0, high), (leg, 0.0))
    else:
        x, high = -p.thickness_mm, max(leg, groove.mouth[1][1])
        outline = ((x, 0.0), (x, high), (x - leg, 0.0))
        mouth = ((x - leg, 0.0), (x, high))
    return Groove(outline=outline, mouth=mouth, side=groove.side, cap_mm=p.reinforcement_mm, reinforcing=True)


def _tee_dimensions(p: Preparation, grooves: tuple[Groove, ...], top: float, reach: float) -> tuple[Dimensioned, ...]:
    thick, base, gap = p.thickness_mm, other_mm(p), p.root_opening_mm
    second = p.depths_mm[1]
    land = -thick + second
    right = 0.0 if p.make.family == "corner" else reach
    mouth_y = max(y for _, y in grooves[0].mouth)
    angle = p.groove_angle_deg
    apex = (-(mouth_y - gap) / math.tan(math.radians(angle)), gap)
    found: list[Dimensioned] = [
        Measured(field="root_opening_mm", start=(-thick, 0.0), end=(-thick, max(gap, UPRIGHT_MM)), away=1),
        Measured(field="thickness_mm", start=(0.0, top), end=(-thick, top), away=-1),
        Measured(
            field="root_face_mm", start=(land, gap), end=(max(land + p.root_face_mm, land + UPRIGHT_MM), gap),
            clear_mm=0.5 * thick, away=0,
        ),
        Turned(
            field="groove_angle_deg", apex=apex, from_deg=0.0, to_deg=angle,
            radius_mm=-apex[0] + max(p.reinforcement_mm, p.leg_mm), reach=((0.0, mouth_y),),
        ),
    ]  # fmt: skip
    if p.make.family != "corner" or p.other_thickness_mm is not None:
        found.append(Measured(field="other_thickness_mm", start=(right, 0.0), end=(right, -base), away=1))
    if p.leg_mm:
        found.append(Measured(field="leg_mm", start=(0.0, 0.0), end=(p.leg_mm, 0.0), clear_mm=base, away=-1))
    elif "reinforcement_mm" in dimensions_of(p.kind):
        middle = sum(y for _, y in grooves[0].mouth) / 2
        crown = (max(p.reinforcement_mm, UPRIGHT_MM), middle)
        found.append(Measured(field="reinforcement_mm", start=(0.0, middle), end=crown, away=0))
    if p.make.form == "j":
        turn = math.radians(90 - angle) / 2
        centre = (land + p.root_face_mm + p.radius_mm, gap)
        on_arc = (centre[0] - p.radius_mm * math.cos(turn), gap + p.radius_mm * math.sin(turn))
        found.append(Measured(field="radius_mm", start=centre, end=on_arc, away=0))
    if len(grooves) == 2:
        found.append(
            Measured(field="second_depth_mm", start=(-thick, gap), end=(max(land, -thick + UPRIGHT_MM), gap),
                     clear_mm=0.9 * thick, away=0)
        )  # fmt: skip
    return tuple(found)


def standing_right(p: Preparation) -> Shape:
    """Return a corner V, its right member hanging down; or a branch set into a hole, standing through it."""
    grooves = grooves_of(p)
    left, right = edges_of(p)
    half, top = p.root_opening_mm / 2, p.prepared_mm
    through = p.make.form == "branch-set-in"
    wide = p.thickness_mm if through else other_mm(p)
    far = half + max(s for s, _ in left) + BESIDE * top
    face = tuple((-half - s, y) for s, y in reversed(left))
    lying = Member("metals/one", (((-far, top), *face, (-far, 0.0)),))
    low, high = -BESIDE * top, top + BESIDE * top
    if through:
        standing = Member("metals/other", (((half, high), (half, low)), ((half + wide, low), (half + wide, high))))
    else:
        upright = tuple((half + s, y) for s, y in right)
        outer = half + max(wide, right[-1][0])
        up: tuple[Point, ...] = ((half, low), *upright, (outer, top), (outer, low))
        standing = Member("metals/other", (tuple(reversed(tuple(dict.fromkeys(up)))),))
    made = Shape((lying, standing), grooves, (), axis_y_mm=None)
    if through and p.leg_mm:
        leg = p.leg_mm
        corner = (half, top)
        across = max(leg, half - grooves[0].mouth[0][0])
        fillet: Outline = (corner, (half, top + leg), (half - across, top))
        covering = Groove(
            outline=fillet, mouth=((half - across, top), (half, top + leg)), cap_mm=p.reinforcement_mm, reinforcing=True
        )
        made = replace(made, grooves=(*grooves, covering))
    return replace(made, dimensions=_upright_dimensions(p, made, far, wide))


def _upright_dimensions(p: Preparation, made: Shape, far: float, wide: float) -> tuple[Dimensioned, ...]:
    half, top = p.root_opening_mm / 2, p.prepared_mm
    through = p.make.form == "branch-set-in"
    plate, other = ("other_thickness_mm", "thickness_mm") if through else ("thickness_mm", "other_thickness_mm")
    groove = made.grooves[0]
    bottom = -BESIDE * top
    angle = p.groove_angle_deg
    one_sided = groove.mouth[1][0] == half
    out = -groove.mouth[0][0] - (half if one_sided else 0.0)
    apex_y = top - out / math.tan(math.radians(angle if one_sided else angle / 2))
    found: list[Dimensioned] = [
        Measured(field="root_opening_mm", start=(-half, 0.0), end=(half, 0.0), away=-1, gain=2.0),
        Measured(field=plate, start=(-far, 0.0), end=(-far, top), away=3.0),
        Measured(field="root_face_mm", start=(-far, 0.0), end=(-far, max(p.root_face_mm, UPRIGHT_MM)), away=1),
        Measured(field=other, start=(half, bottom), end=(half + wide, bottom), away=-1),
        Turned(
            field="groove_angle_deg", apex=(-half if one_sided else 0.0, apex_y),
            from_deg=90.0 if one_sided else 90 - angle / 2, to_deg=90 + (angle if one_sided else angle / 2),
            radius_mm=top + p.reinforcement_mm + p.leg_mm - apex_y, gain=1.0 if one_sided else 2.0,
            reach=(groove.mouth[0],) if one_sided else (groove.mouth[1], groove.mouth[0]),
        ),
    ]  # fmt: skip
    if not through:
        middle = ((groove.mouth[0][0] + groove.mouth[1][0]) / 2, top)
        crown = (middle[0], top + max(p.reinforcement_mm, UPRIGHT_MM))
        found.append(Measured(field="reinforcement_mm", start=middle, end=crown, away=0))
    if through and p.leg_mm:
        found.append(Measured(field="leg_mm", start=(half, top), end=(half, top + p.leg_mm), clear_mm=wide, away=-1))
    return tuple(found)
