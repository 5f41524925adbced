"""Butt joints, and the corner V that is cut like one: two edges facing each other over a root opening."""

import math
from collections.abc import Iterator

from anlage.core.joint.edges import between, prepared_edge, setback_at, square_edge
from anlage.core.joint.preparation import Point, Preparation
from anlage.core.joint.shape import Dimensioned, Groove, Measured, Member, Outline, Shape, Turned

BESIDE = 1.0  # plate shown beside the groove, in thicknesses
BACKING_OF_THICKNESS = 0.45  # of the drawn bar where its thickness is not stated; a picture, not a size
UPRIGHT_MM = 1e-6  # a length of zero keeps its direction


def edges_of(p: Preparation) -> tuple[Outline, Outline]:
    """Return the left and the right edge as (setback, height); of a bevel or J only the left one is cut."""
    cut = prepared_edge(p)
    return cut, square_edge(p.prepared_mm) if is_one_sided(p) else cut


def is_one_sided(p: Preparation) -> bool:
    """Return whether only one of the two edges is cut."""
    return p.make.form in ("bevel", "j", "branch-set-on", "branch-set-in")


def grooves_of(p: Preparation) -> tuple[Groove, ...]:
    """Return what is filled from each side, first side first; where root faces touch nothing is between them."""
    left, right = edges_of(p)
    top, half, step = p.prepared_mm, p.root_opening_mm / 2, p.mismatch_mm
    second = p.depths_mm[1]
    land = second + p.root_face_mm  # height of the upper end of the root face

    def outline(low: float, high: float) -> Outline:
        up = [(half + s, y + step) for s, y in between(right, low, high)]
        down = [(-half - s, y) for s, y in reversed(between(left, low, high))]
        return tuple(dict.fromkeys((*up, *down)))

    def mouth(height: float) -> tuple[Point, Point]:
        return (-half - setback_at(left, height), height), (half + setback_at(right, height), height + step)

    def lean(height: float) -> float:
        (ax, ay), (bx, by) = mouth(height)
        return (by - ay) / (bx - ax) if step and bx > ax else 0.0

    overlap = 0.0 if step else p.cap_overlap_mm  # on a step it would lie in the higher member
    closed = half == 0 and p.make.form != "square"
    first = Groove(
        outline=outline(land if closed else second, top),
        mouth=mouth(top),
        cap_mm=p.reinforcement_mm,
        overlap_mm=overlap,
        root_cap_mm=p.root_reinforcement_mm if p.make.is_open and not closed else 0.0,
        root=((half, step), (-half, 0.0)) if p.make.is_open and half > 0 else None,
        lean=lean(top),
    )
    if p.make.sides == 1:
        return (first,)
    b, a = mouth(0.0)
    return (
        first,
        Groove(
            outline=outline(0.0, second),
            mouth=(a, b),
            side=2,
            cap_mm=p.reinforcement_mm,
            overlap_mm=overlap,
            lean=lean(0.0),
        ),
    )


def butt(p: Preparation) -> Shape:
    """Return a butt joint: both members level, a thicker one brought down to the thinner."""
    grooves = grooves_of(p)
    left, right = edges_of(p)
    half, top = p.root_opening_mm / 2, p.prepared_mm
    reach = max(half + max(s for s, _ in (*left, *right)), 0.0) + BESIDE * top
    other = p.thickness_mm if p.other_thickness_mm is None else p.other_thickness_mm
    far = max(reach, *(half + _run(p, t, edge)[2] + 0.4 * top for t, edge in ((p.thickness_mm, left), (other, right))))
    back = left
    if p.buttering_mm:
        grooves, back = (_buttering(p, left), *grooves), _cut_back(p, left)
        far += _back_mm(p)
    members = (
        _mirrored(Member("metals/one", (_level_member(p, back, p.thickness_mm, far),))),
        _raised(Member("metals/other", (_level_member(p, right, other, far),)), p.mismatch_mm),
    )
    axis = None if p.od_mm is None else _outside(p, p.thickness_mm) - p.od_mm / 2
    found = _dimensions(p, grooves[1:] if p.buttering_mm else grooves, far)
    if p.buttering_mm:
        found = (*found, _buttering_dimension(p, left))
    if p.counterbore_mm:
        found = (*found, *_counterbore_dimension(p, left, right))
    return Shape(members, grooves, found, _backing(p), axis)


def _back_mm(p: Preparation) -> float:
    """Return how far a buttered face is cut back along the surface [mm]; square to the face it is the buttering."""
    return p.buttering_mm / math.cos(math.radians(p.wall_angles_deg[0]))


def _cut_back(p: Preparation, edge: Outline) -> Outline:
    """Return an edge cut back for its buttering, which lies on the bevel and not on the root face."""
    land, back = p.root_face_mm, _back_mm(p)
    below = ((0.0, 0.0), (0.0, land)) if land > 0 else ()
    return (*below, (back, land), *((s + back, y) for s, y in edge if y > land))


def _buttering(p: Preparation, edge: Outline) -> Groove:
    """Return the layer on the left bevel; it is laid on side 0, before the joint is put together."""
    half, back = p.root_opening_mm / 2, _back_mm(p)
    low, high = (-half, p.root_face_mm), (-half - edge[-1][0], p.prepared_mm)
    outline = (low, high, (high[0] - back, high[1]), (low[0] - back, low[1]))
    return Groove(outline=outline, mouth=(high, low), side=0)


def _buttering_dimension(p: Preparation, edge: Outline) -> Measured:
    half, angle = p.root_opening_mm / 2, math.radians(p.wall_angles_deg[0])
    middle = ((-2 * half - edge[-1][0]) / 2, (p.root_face_mm + p.prepared_mm) / 2)
    thick = p.buttering_mm
    end = (middle[0] - thick * math.cos(angle), middle[1] - thick * math.sin(angle))
    return Measured(field="buttering_mm", start=middle, end=end, away=0)


def _counterbore_dimension(p: Preparation, left: Outline, right: Outline) -> Iterator[Measured]:
    """Yield the length of the counterbore, under the member that is thicker on the root's side."""
    half, other = p.root_opening_mm / 2, p.thickness_mm if p.other_thickness_mm is None else p.other_thickness_mm
    for edge, thickness, hand in ((left, p.thickness_mm, -1.0), (right, other, 1.0)):
        under = _surplus(p, thickness)[1]
        if under > 0:
            start, end = ((hand * (half + edge[0][0] + along), 0.0) for along in (0.0, p.counterbore_mm))
            yield Measured(field="counterbore_mm", start=start, end=end, away=hand * -1.0, clear_mm=under)


def _surplus(p: Preparation, thickness: float) -> tuple[float, float]:
    """Return how far a member stands over and under the prepared edge [mm]."""
    more = thickness - p.prepared_mm
    share = {"root": 1.0, "face": 0.0}.get(p.flush, 0.5)
    return more * share, more * (1 - share)


def _outside(p: Preparation, thickness: float) -> float:
    return p.prepared_mm + _surplus(p, thickness)[0]


def _run(p: Preparation, thickness: float, edge: Outline) -> tuple[float, float, float]:
    """Return where the transition starts on both surfaces and where it has ended, from the root opening's side [mm]."""
    over, under = _surplus(p, thickness)
    rise = 0.0 if p.taper is None else p.taper
    starts = (edge[-1][0] + p.cap_overlap_mm, edge[0][0] + p.counterbore_mm)
    return *starts, max(starts[0] + over * rise, starts[1] + under * rise)


def _level_member(p: Preparation, edge: Outline, thickness: float, far: float) -> Outline:
    """Return the right member: its edge upwards, then its upper surface out, and its lower surface back."""
    half, top = p.root_opening_mm / 2, p.prepared_mm
    over, under = _surplus(p, thickness)
    above, below, _ = _run(p, thickness, edge)
    rise = 0.0 if p.taper is None else p.taper
    upper = [(half + above, top), (half + above + over * rise, top + over)] if over else []
    lower = [(half + below + under * rise, -under), (half + below, 0.0)] if under else []
    face = [(half + s, y) for s, y in edge]
    return tuple(dict.fromkeys(((far, -under), *lower, *face, *upper, (far, top + over))))


def _raised(member: Member, by: float) -> Member:
    return Member(member.target, tuple(tuple((x, y + by) for x, y in line) for line in member.lines))


def _mirrored(member: Member) -> Member:
    return Member(member.target, tuple(tuple((-x, y) for x, y in reversed(line)) for line in member.lines))


def backing_mm(p: Preparation) -> float:
    """Return the thickness that the backing is drawn with [mm]."""
    return p.backing_mm or BACKING_OF_THICKNESS * p.prepared_mm


def _backing(p: Preparation) -> Outline:
    if not p.make.backing:
        return ()
    reach, depth = p.root_opening_mm / 2 + p.prepared_mm, backing_mm(p)
    if not p.ceramic:
        return ((-reach, -depth), (reach, -depth), (reach, 0.0), (-reach, 0.0))
    half, recess = p.root_opening_mm / 2 + 0.15 * p.prepared_mm, min(0.12 * p.prepared_mm, 0.4 * depth)
    hollow = [(half * math.cos(math.pi * n / 8), -recess * math.sin(math.pi * n / 8)) for n in range(9)]
    return ((-reach, 0.0), (-0.8 * reach, -depth), (0.8 * reach, -depth), (reach, 0.0), *hollow)


def _dimensions(p: Preparation, grooves: tuple[Groove, ...], far: float) -> tuple[Dimensioned, ...]:
    half, top = p.root_opening_mm / 2, p.prepared_mm
    wide = grooves[0].mouth[1][0]
    first, second = p.depths_mm
    make = p.make
    below = backing_mm(p) if make.backing else 0.0
    if p.other_thickness_mm is not None:
        below = max(below, _surplus(p, p.thickness_mm)[1], _surplus(p, p.other_thickness_mm)[1])
    lower_cap = p.reinforcement_mm if make.sides == 2 else p.root_reinforcement_mm
    mid = second if make.sides == 2 else 0.0
    found: list[Dimensioned] = [
        Measured(
            field="root_opening_mm", start=(-half, mid), end=(half, mid), gain=2.0,
            away=-2.7 if make.sides == 2 and make.form != "square" else -1,  # clear of the second side's angle
            clear_mm=max(below, lower_cap) + mid,
        ),
        *_thicknesses(p, far),
    ]  # fmt: skip
    left = grooves[0].mouth[0][0]
    if make.form != "square":
        found.append(
            Measured(field="root_face_mm", start=(-far, second), end=(-far, max(top - first, second + UPRIGHT_MM)))
        )
    crown = top + max(p.reinforcement_mm, UPRIGHT_MM)
    found.append(Measured(field="reinforcement_mm", start=(left, top), end=(left, crown), clear_mm=0.4 * top, away=0))
    if p.root_reinforcement_mm and grooves[0].root:
        depth = -p.root_reinforcement_mm
        found.append(
            Measured(
                field="root_reinforcement_mm", start=(half, 0.0), end=(half, depth), clear_mm=0.4 * top, away=0,
            )
        )  # fmt: skip
    if make.form != "square":
        found += _angles(p, grooves, wide)
    return tuple(found)


def _thicknesses(p: Preparation, far: float) -> list[Dimensioned]:
    """Yield the thickness at the right, of unequal members each at its own side."""
    over, under = _surplus(p, p.thickness_mm)
    if p.other_thickness_mm is None:
        return [Measured(field="thickness_mm", start=(far, 0.0), end=(far, p.thickness_mm), away=-1)]
    far_over, far_under = _surplus(p, p.other_thickness_mm)
    low, high = (far, -far_under), (far, p.prepared_mm + far_over)
    return [
        Measured(field="thickness_mm", start=(-far, -under), end=(-far, p.prepared_mm + over), away=3.2),
        Measured(field="other_thickness_mm", start=low, end=high, away=-1),
    ]


def _angles(p: Preparation, grooves: tuple[Groove, ...], wide: float) -> list[Dimensioned]:
    """Return the groove angle over the first mouth, that of the second side under it, and what belongs to the form."""
    one_sided = p.make.form in ("bevel", "j")
    top, first = p.prepared_mm, p.depths_mm[0]
    half, angle = p.root_opening_mm / 2, p.groove_angle_deg
    tangent = math.tan(math.radians(angle if one_sided else angle / 2))
    found: list[Dimensioned] = []
    apex_y = _apex(p, top, tangent, wide_left=-grooves[0].mouth[0][0])
    apex = (-half if one_sided else 0.0, apex_y)
    corners = (grooves[0].mouth[1], grooves[0].mouth[0]) if not one_sided else (grooves[0].mouth[0],)
    found.append(
        Turned(
            field="groove_angle_deg",
            apex=apex,
            from_deg=90.0 if one_sided else 90 - angle / 2,
            to_deg=90 + (angle if one_sided else angle / 2),
            radius_mm=top + p.reinforcement_mm - apex_y,
            at_start=not one_sided,
            gain=1.0 if one_sided else 2.0,
            reach=corners,
        )
    )
    if p.make.sides == 2:
        found += _second_side(p, grooves[1], one_sided=one_sided)
    if p.make.form in ("u", "j"):
        centre_y = top - first + p.radius_mm
        turn = math.radians(90 - (angle if one_sided else angle / 2)) / 2
        on_arc = (-half - p.radius_mm * math.sin(turn), centre_y - p.radius_mm * math.cos(turn))
        found.append(Measured(field="radius_mm", start=(-half, centre_y), end=on_arc, away=0))
    if p.make.form == "compound-v":
        corner_y = top - first + p.break_height_mm
        corner_x = half + p.break_height_mm * tangent
        line = (corner_x, top - first), (corner_x, corner_y)
        found.append(Measured(field="break_height_mm", start=line[0], end=line[1], clear_mm=0.25 * top, away=-0.2))
        upper = p.upper_angle_deg / 2
        apex = (corner_x, corner_y)
        reach = (wide - corner_x) / max(math.sin(math.radians(upper)), 1e-9)
        found.append(
            Turned(
                field="upper_angle_deg", apex=apex, from_deg=90 - upper, to_deg=90.0, radius_mm=0.75 * reach,
                at_start=True, gain=2.0,
            )
        )  # fmt: skip
    return found


def _apex(p: Preparation, top: float, tangent: float, *, wide_left: float) -> float:
    """Return the height at which the straight upper walls would meet the upright through the root's middle or edge."""
    if p.make.form == "compound-v":  # the lower walls carry the groove angle
        return top - p.depths_mm[0] - p.root_opening_mm / 2 / tangent
    out = wide_left - (p.root_opening_mm / 2 if p.make.form in ("bevel", "j") else 0.0)
    return top - out / tangent


def _second_side(p: Preparation, groove: Groove, *, one_sided: bool) -> list[Dimensioned]:
    second = p.depths_mm[1]
    angle = p.groove_angle_deg if p.second_angle_deg is None else p.second_angle_deg
    tangent = math.tan(math.radians(angle if one_sided else angle / 2))
    out = -groove.mouth[1][0] - (p.root_opening_mm / 2 if one_sided else 0.0)
    apex = (-p.root_opening_mm / 2 if one_sided else 0.0, out / tangent)
    half = p.root_opening_mm / 2
    return [
        Measured(
            field="second_depth_mm", start=(half, 0.0), end=(half, max(second, UPRIGHT_MM)), away=-0.4,
            clear_mm=groove.mouth[0][0] - half,
        ),
        Turned(
            field="second_angle_deg",
            apex=apex,
            from_deg=270 - (angle if one_sided else angle / 2),
            to_deg=270.0 if one_sided else 270 + angle / 2,
            radius_mm=apex[1] + p.reinforcement_mm,
            at_start=one_sided,
            gain=1.0 if one_sided else 2.0,
            reach=(groove.mouth[1],) if one_sided else (groove.mouth[1], groove.mouth[0]),
        ),
    ]  # fmt: skip
