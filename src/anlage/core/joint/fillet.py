"""Fillet welds: on a T, a corner or a lap, equal or unequal, skewed, on one side or both; socket and slip-on."""

import math

from anlage.core.joint.butt import UPRIGHT_MM
from anlage.core.joint.kinds import dimensions_of
from anlage.core.joint.preparation import Point, Preparation
from anlage.core.joint.shape import Dimensioned, Groove, Measured, Member, Outline, Shape, Turned
from anlage.core.joint.tee import STANDING, other_mm


def legs(p: Preparation) -> tuple[float, float]:
    """Return the leg along the lower member and along the other one [mm]."""
    return p.leg_mm, p.leg_mm if p.second_leg_mm is None else p.second_leg_mm


def throat_mm(p: Preparation) -> float:
    """Return the theoretical throat of a fillet [mm]: the distance of its root from its flat face.

    A gap under the standing member is taken off both legs, as the fit-up rule of D1.1 asks over 1/16 in.

    Validity
    --------
    Welds that fuse to the root; gap below both legs, else 0.

    Sources
    -------
    AWS A3.0 (theoretical throat, from memory): geometry. The gap: AWS D1.1 5.21/7.21, from memory, H.

    Examples
    --------
    >>> throat_mm(Preparation(kind="fillet", thickness_mm=10, leg_mm=8))
    5.657
    """
    one, two = (max(leg - p.root_opening_mm, 0.0) for leg in legs(p))
    angle = math.radians(p.member_angle_deg)
    face = math.sqrt(one**2 + two**2 - 2 * one * two * math.cos(angle))
    return one * two * math.sin(angle) / face if face else 0.0


def fillet_tee(p: Preparation) -> Shape:
    """Return a standing member, square or skewed, with a fillet on one side or both."""
    one, two = legs(p)
    thick, base, gap = p.thickness_mm, other_mm(p), p.root_opening_mm
    angle = math.radians(p.member_angle_deg)
    along = (math.cos(angle), math.sin(angle))
    foot = -thick / along[1]  # of the left face on the lying member
    high = two + STANDING * thick

    lifted = gap * along[0] / along[1]  # a gap lifts the member along its own face

    def on_member(x: float, far: float) -> Point:
        return (x + along[0] * far, along[1] * far)

    grooves = [
        Groove(
            outline=((0.0, 0.0), (one, 0.0), on_member(0.0, two)), mouth=(on_member(0.0, two), (one, 0.0)),
            cap_mm=p.reinforcement_mm,
        )
    ]  # fmt: skip
    if p.make.sides == 2:
        toe = on_member(foot, two)
        grooves.append(
            Groove(
                outline=((foot, 0.0), toe, (foot - one, 0.0)), mouth=((foot - one, 0.0), toe), side=2,
                cap_mm=p.reinforcement_mm,
            )
        )  # fmt: skip
    up = high / along[1]
    standing = Member(
        "metals/one", ((on_member(foot, up), (foot + lifted, gap), (lifted, gap), on_member(0.0, up)),)
    )  # fmt: skip
    reach = one + 0.8 * thick
    low = foot if p.make.family == "corner" else foot - reach
    if p.make.family == "corner":
        lying = Member("metals/other", (((reach, 0.0), (low, 0.0), (low, -base), (reach, -base)),))
    else:
        lying = Member("metals/other", (((low, -base), (reach, -base)), ((reach, 0.0), (low, 0.0))))
    ends = (on_member(foot, up), on_member(0.0, up))
    found = [
        *_fillet_dimensions(p, grooves[0], reach),
        Measured(field="thickness_mm", start=ends[1], end=ends[0], away=-1, gain=along[1]),
    ]
    if "member_angle_deg" in dimensions_of(p.kind):
        found.append(
            Turned(
                field="member_angle_deg", apex=(0.0, 0.0), from_deg=0.0, to_deg=p.member_angle_deg,
                radius_mm=max(one, two) + 0.35 * thick, gain=2.0,
            )
        )  # fmt: skip
    return Shape((standing, lying), tuple(grooves), tuple(found))


def _fillet_dimensions(p: Preparation, groove: Groove, reach: float) -> list[Dimensioned]:
    one, two = legs(p)
    base, gap = other_mm(p), p.root_opening_mm
    toe = groove.mouth[0]
    middle = ((groove.mouth[0][0] + groove.mouth[1][0]) / 2, (groove.mouth[0][1] + groove.mouth[1][1]) / 2)
    rise = max(p.reinforcement_mm, UPRIGHT_MM)
    crown = (middle[0] + groove.up[0] * rise, middle[1] + groove.up[1] * rise)
    found: list[Dimensioned] = [
        Measured(field="leg_mm", start=(0.0, 0.0), end=(one, 0.0), clear_mm=base, away=-1),
        Measured(
            field="second_leg_mm", start=(min(0.0, toe[0]), 0.0), end=(min(0.0, toe[0]), max(toe[1], UPRIGHT_MM)),
            clear_mm=p.thickness_mm, away=1,
        ),
        Measured(field="reinforcement_mm", start=middle, end=crown, away=0),
    ]  # fmt: skip
    if p.other_thickness_mm is not None or p.make.family != "corner":
        found.append(Measured(field="other_thickness_mm", start=(reach, 0.0), end=(reach, -base), away=1))
    if gap:
        found.append(Measured(field="root_opening_mm", start=(0.0, 0.0), end=(0.0, gap), away=0, clear_mm=0.5 * two))
    return found


def lap(p: Preparation) -> Shape:
    """Return an upper member on a lower one with a fillet at its end, and at the other end below where there are two.

    A socket is the upper member of a lap round a pipe; a slip-on flange has a second fillet at the pipe's end.
    """
    round_pipe = p.make.family == "pipe"
    one, two = legs(p)
    upper, lower = (other_mm(p), p.thickness_mm) if round_pipe else (p.thickness_mm, other_mm(p))
    gap = 0.0 if round_pipe else p.root_opening_mm
    over = 2.6 * max(upper, lower)
    reach = one + 1.2 * max(upper, lower)
    grooves = [
        Groove(outline=((0.0, 0.0), (one, 0.0), (0.0, two)), mouth=((0.0, two), (one, 0.0)), cap_mm=p.reinforcement_mm)
    ]
    both = p.make.sides == 2 or p.make.form == "slip-on"
    far = -over - one - 1.2 * max(upper, lower)
    top_line: Outline = ((far, gap), (0.0, gap), (0.0, gap + upper), (far, gap + upper))
    low_line: Outline = ((reach, 0.0), (far, 0.0), (far, -lower), (reach, -lower))
    lines: tuple[Outline, ...] = (((far, -lower), (reach, -lower)), ((reach, 0.0), (far, 0.0)))
    if both or round_pipe:
        low_line = ((reach, 0.0), (-over, 0.0), (-over, -lower), (reach, -lower))
        lines = (low_line,)
    if both:
        drop = min(two, lower)
        grooves.append(
            Groove(
                outline=((-over, 0.0), (-over - one, 0.0), (-over, -drop)), mouth=((-over, -drop), (-over - one, 0.0)),
                side=2, cap_mm=p.reinforcement_mm,
            )
        )  # fmt: skip
    if p.make.form == "slip-on":
        top_line = ((-over - 1.6 * one, 0.0), (0.0, 0.0), (0.0, 1.6 * upper), (-over - 1.6 * one, 1.6 * upper))
    if p.make.form == "socket":  # its shoulder stands off the pipe's end by the gap
        shoulder = -over - p.root_opening_mm
        top_line = ((far, -lower), (shoulder, -lower), (shoulder, 0.0), (0.0, 0.0), (0.0, upper), (far, upper))
    members = (Member("metals/one", (top_line,)), Member("metals/other", lines))
    if round_pipe:
        members = (Member("metals/other", (top_line,)), Member("metals/one", lines))
    axis = None if p.od_mm is None else -p.od_mm / 2
    return Shape(members, tuple(grooves), _lap_dimensions(p, grooves[0], reach, far, upper, lower), axis_y_mm=axis)


def _lap_dimensions(  # noqa: PLR0913, PLR0917 - the lap's own measures, named where they are worked out
    p: Preparation, groove: Groove, reach: float, far: float, upper: float, lower: float
) -> tuple[Dimensioned, ...]:
    one, two = legs(p)
    middle = ((groove.mouth[0][0] + groove.mouth[1][0]) / 2, (groove.mouth[0][1] + groove.mouth[1][1]) / 2)
    rise = max(p.reinforcement_mm, UPRIGHT_MM)
    crown = (middle[0] + groove.up[0] * rise, middle[1] + groove.up[1] * rise)
    names = ("other_thickness_mm", "thickness_mm")
    if p.make.family != "pipe":
        names = ("thickness_mm", "other_thickness_mm")
    found: list[Dimensioned] = [
        Measured(field="leg_mm", start=(0.0, 0.0), end=(one, 0.0), clear_mm=lower, away=-1),
        Measured(field=names[0], start=(far, 0.0), end=(far, upper), away=1),
        Measured(field=names[1], start=(reach, 0.0), end=(reach, -lower), away=1),
        Measured(field="reinforcement_mm", start=middle, end=crown, away=0),
    ]
    if p.make.form == "fillet":
        found.append(Measured(field="second_leg_mm", start=(0.0, 0.0), end=(0.0, two), clear_mm=0.6 * upper, away=0))
    if p.make.form == "socket" and p.root_opening_mm:
        end = -2.6 * max(upper, lower)
        found.append(
            Measured(field="root_opening_mm", start=(end, -lower), end=(end - p.root_opening_mm, -lower), away=1)
        )
    return tuple(found)
