"""What a joint as drawn says to the codes: what is behind its root, how its edges are cut, its dimensions as drawn."""

from collections.abc import Callable
from typing import Any

from anlage.core.document import Dimension
from anlage.core.joint.kinds import MAKES
from anlage.core.procedure import Joint, Wps
from anlage.core.ranges import Interval
from anlage.session.judging.metals import metals_of

NONE = ("none", "no", "-")
OTHER_BACKING = ("copper", "ceramic", "flux", "glass", "tape")
DIMENSIONS = ("root_opening_mm", "root_face_mm", "groove_angle_deg", "radius_mm", "second_angle_deg")


def root_side(document: Any, _element: object = None) -> str | None:
    """Return what a groove is welded against, `None` where nobody says.

    A bar that fuses in is `steel`, what comes off again `other`. Welded from the other side too, a root is `gouged` to
    sound metal first, or it is not (`both`); with nothing behind it, and nothing done from there, it is `open`.
    """
    joint, gouging = document.joint, (document.technique.back_gouging or "").strip().casefold()
    if joint.kind is None or MAKES[joint.kind].form in ("fillet", "plug", "slot", "cladding"):
        return None
    said = (joint.backing or "").casefold()
    if MAKES[joint.kind].backing or (said and said not in (*NONE, "weld metal", "open", "open root")):
        if joint.backing_form == "ceramic" or any(word in said for word in OTHER_BACKING):
            return "other"
        return "steel" if joint.backing_form == "bar" or said else None
    if gouging and gouging not in NONE:
        return "gouged"
    if not gouging:
        return None
    return "both" if MAKES[joint.kind].sides == 2 or _second_side(document) else "open"


def _second_side(document: Any) -> bool:
    return any(each.side == "second" or each.role == "back" for each in getattr(document, "passes", ()))


def groove_form(document: Any, _element: object = None) -> str | None:
    """Return how the edges are cut: square, v, bevel, u, j, fillet; `None` while no preparation is chosen."""
    kind = document.joint.kind
    return MAKES[kind].form if kind else None


def joint_family(document: Any, _element: object = None) -> str | None:
    """Return how the members lie to each other: butt, tee, corner, lap, flare."""
    kind = document.joint.kind
    return MAKES[kind].family if kind else None


def sides_welded(document: Any, _element: object = None) -> str | None:
    """Return whether a preparation is cut on one side or both; `None` while none is chosen."""
    kind = document.joint.kind
    return ("one", "two")[MAKES[kind].sides - 1] if kind else None


def nominal(name: str) -> Callable[[Any, object], float | None]:
    """Return what reads a dimension as it is drawn, without what it may be off."""

    def read(document: Any, _element: object = None) -> float | None:
        found: Dimension | None = getattr(document.joint, name)
        if found is None and name == "root_face_mm" and document.joint.kind and MAKES[document.joint.kind].backing:
            return 0.0  # on backing the edge is sharp unless it is drawn otherwise
        return found.nominal if found else None

    return read


def shallower_share(wps: Wps, _element: object = None) -> float | None:
    """Return how deep the shallower side of a double preparation is, in per cent of the thinner member."""
    joint = wps.joint
    if joint.kind is None or MAKES[joint.kind].sides != 2 or joint.thickness_mm is None:
        return None
    thin = min(filter(None, (joint.thickness_mm, joint.other_thickness_mm)))
    face = joint.root_face_mm.nominal if joint.root_face_mm else 0.0
    second = joint.second_depth_mm.nominal if joint.second_depth_mm else (joint.thickness_mm - face) / 2
    return 100 * min(second, joint.thickness_mm - face - second) / thin


def groove_depth(document: Any, _element: object = None) -> float | None:
    """Return how deep a groove of partial penetration is, all its sides together [mm]."""
    joint: Joint = document.joint
    if joint.kind is None or joint.thickness_mm is None or document.header.weld != "partial":
        return None
    return joint.thickness_mm - (joint.root_face_mm.nominal if joint.root_face_mm else 0.0)


def thickest(wps: Wps, _element: object = None) -> Interval | None:
    """Return how thick the thickest part may be at the point of welding: stated, and as drawn."""
    stated = [wps.range.thickness_mm, wps.range.thicker_member_mm]
    drawn = [wps.joint.thickness_mm, wps.joint.other_thickness_mm]
    if wps.range.thickness_mm is None:
        return None
    spans = [*filter(None, stated), *(Interval.single(each) for each in drawn if each)]
    return Interval(max(min(s.low for s in spans), 0.0), max(s.high for s in spans))


CLASSES = {"butt": "butt", "tee": "T-butt", "corner": "corner", "flare": "butt"}


def joint_class(document: Any, _element: object = None) -> str | None:
    """Return what kind of joint it is: butt, T-butt, fillet, branch or corner; `None` where it is none of them."""
    kind = document.joint.kind
    if kind is None:
        return None
    make = MAKES[kind]
    if make.form in ("fillet", "socket", "slip-on"):
        return "fillet"
    return "branch" if make.form.startswith("branch") else CLASSES.get(make.family)


def throat(document: Any, _element: object = None) -> Interval | float | None:
    """Return the throat of a fillet with legs alike over what its leg may be [mm]; of a record as measured."""
    leg: Dimension | None = document.joint.leg_mm
    if leg is None or document.joint.second_leg_mm is not None:
        return None
    share = 0.5**0.5
    span: Interval = leg.span
    return span.low * share if span.is_single else Interval(span.low * share, span.high * share)


def highest_yield(document: Any, _element: object = None) -> float | None:
    """Return the higher specified yield strength of both metals [MPa]; `None` where one is not known."""
    found = [each.yield_mpa for each in metals_of(document.metals)]
    known = [each for each in found if each is not None]
    return max(known) if known and len(known) == len(found) else None
