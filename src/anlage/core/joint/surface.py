"""Flares between rounded members, plug and slot welds, cladding."""

import math

from anlage.core.joint.butt import UPRIGHT_MM
from anlage.core.joint.edges import ARC_STEPS, area_keeping
from anlage.core.joint.preparation import Point, Preparation
from anlage.core.joint.shape import Groove, Measured, Member, Outline, Shape
from anlage.core.joint.tee import other_mm


def flare(p: Preparation) -> Shape:
    """Return a rounded member against a flat one, or two rounded ones, filled flush."""
    r, wall, flat = p.radius_mm, p.thickness_mm, other_mm(p)
    reach = r + wall
    out = area_keeping(math.pi / 2, ARC_STEPS)

    def arc(radius: float, keep: float) -> list[Point]:
        """Return the bend from where it touches the other member up to the level top."""
        turns = [math.pi / 2 * n / ARC_STEPS for n in range(ARC_STEPS + 1)]
        scale = [1.0, *[keep] * (ARC_STEPS - 1), 1.0]
        return [(-r + radius * s * math.cos(t), radius * s * math.sin(t)) for t, s in zip(turns, scale, strict=True)]

    outer, inner = arc(r, out), arc(max(r - wall, 0.0), 1.0)
    curved = (((0.0, -reach), *outer, (-r - reach, r)), ((-r - reach, r - wall), *reversed(inner), (-wall, -reach)))
    if p.make.form == "v":
        right = tuple(tuple((-x, y) for x, y in reversed(line)) for line in curved)
        outline: Outline = tuple(dict.fromkeys((*((-x, y) for x, y in outer), *reversed(outer))))
        mouth = ((-r, r), (r, r))
    else:
        right = (((0.0, r + wall), (0.0, -reach)), ((flat, -reach), (flat, r + wall)))
        outline, mouth = ((0.0, 0.0), (0.0, r), *reversed(outer[1:])), ((-r, r), (0.0, r))
    members = (Member("metals/one", curved), Member("metals/other", right))
    groove = Groove(outline=outline, mouth=mouth, cap_mm=p.reinforcement_mm)
    crown = r + max(p.reinforcement_mm, UPRIGHT_MM)
    left = -r - reach
    found = (
        Measured(field="radius_mm", start=(left, 0.0), end=(left, r), away=3.0),
        Measured(field="thickness_mm", start=(left, r), end=(left, r - wall), away=-1),
        Measured(field="reinforcement_mm", start=(-r, r), end=(-r, crown), clear_mm=0.4 * r, away=0),
    )
    return Shape(members, (groove,), found)


def plug(p: Preparation) -> Shape:
    """Return a plug or slot weld across its hole."""
    thick, base, half = p.thickness_mm, other_mm(p), p.hole_mm / 2
    high = thick if p.fill_depth_mm is None else p.fill_depth_mm
    reach = half + 1.5 * thick
    right = Member("metals/one", (((reach, 0.0), (half, 0.0), (half, thick), (reach, thick))[::-1],))
    left = Member("metals/one", (((-reach, 0.0), (-half, 0.0), (-half, thick), (-reach, thick)),))
    lower = Member("metals/other", (((-reach, -base), (reach, -base)), ((reach, 0.0), (-reach, 0.0))))
    outline = ((-half, 0.0), (half, 0.0), (half, high), (-half, high))
    groove = Groove(outline=outline, mouth=((-half, high), (half, high)))
    found = [
        Measured(field="hole_mm", start=(-half, thick), end=(half, thick), away=1, gain=2.0),
        Measured(field="thickness_mm", start=(reach, 0.0), end=(reach, thick), away=-1),
        Measured(field="other_thickness_mm", start=(-reach, 0.0), end=(-reach, -base), away=-1),
        Measured(field="fill_depth_mm", start=(-half, 0.0), end=(-half, high), clear_mm=0.5 * thick, away=0),
    ]
    return Shape((left, right, lower), (groove,), tuple(found), width="piece")


def cladding(p: Preparation) -> Shape:
    """Return a layer of weld metal on a plate."""
    thick, half, high = p.thickness_mm, p.width_mm / 2, p.thickness_mm + p.layer_mm
    reach = half + 0.6 * thick
    plate = Member("metals/one", (((-reach, 0.0), (reach, 0.0)), ((reach, thick), (-reach, thick))))
    outline = ((-half, thick), (half, thick), (half, high), (-half, high))
    groove = Groove(outline=outline, mouth=((-half, high), (half, high)), surfacing=True)
    found = (
        Measured(field="width_mm", start=(-half, high), end=(half, high), away=1, gain=2.0),
        Measured(field="layer_mm", start=(-reach, thick), end=(-reach, high), away=1),
        Measured(field="thickness_mm", start=(reach, 0.0), end=(reach, thick), away=-1),
    )
    return Shape((plate,), (groove,), found)
