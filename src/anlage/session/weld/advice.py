"""What a joint's designer should know: how the root fits its style, the spacer, the backing, the standard detail."""

import math

from msgspec import Struct

from anlage.core.document import Dimension, with_at
from anlage.core.joint import (
    EASE,
    MAKES,
    REFIT,
    Detail,
    Preparation,
    Root,
    RootStyle,
    deviations,
    faults,
    misfits,
    misfits_when_tacked,
    spacers,
    styles_that_go,
    taken_over,
    throat_mm,
)
from anlage.core.procedure import Joint, Wps, sketch_of
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.data.joint_tables import joint_limits, root_styles, standard_details
from anlage.data.tables import catalogue, unit_table
from anlage.session.leaves.table import field_of


class Advice(Struct, frozen=True):
    """One sentence; `good` when nothing is to be done, `origin` says where it comes from."""

    text: str
    good: bool
    origin: str


def styles_for(joint: Joint) -> tuple[RootStyle, ...]:
    """Return the root styles that a joint can have: on backing or open."""
    if joint.kind is None:
        return ()
    make = MAKES[joint.kind]
    if not (make.backing or make.is_open):
        return ()
    return tuple(
        style
        for style in root_styles().styles.values()
        if style.backing == make.backing and (joint.product != "plate" or not style.by_clock)
    )


def details_for(joint: Joint) -> tuple[Detail, ...]:
    """Return the standard details of a joint's kind."""
    return tuple(each for each in standard_details().values() if joint.kind in each.kinds)


def advice(wps: Wps, system: System) -> tuple[Advice, ...]:
    """Return what is to be said of a joint as stated."""
    sketch = sketch_of(wps.joint)
    if sketch is None or faults(sketch.preparation):
        return ()
    p, found = sketch.preparation, []
    if not sketch.incomplete:
        found += [*_detail(wps, p, system), *_fillet(p, system)]
    return (*_root(wps, p, sketch.unstated, system), *_backing(wps, system), *found)


def _say(value: float, kind: str, system: System) -> str:
    return show(value, kind, system, unit_table())


def _window(window: tuple[float, float], kind: str, system: System) -> str:
    low, high = (_say(end, kind, system) if math.isfinite(end) else "no limit" for end in window)
    if low == high:
        return low
    return f"{low} or more" if math.isinf(window[1]) else f"{low} to {high}"


def _root(wps: Wps, p: Preparation, unstated: frozenset[str], system: System) -> list[Advice]:
    style = next((each for each in styles_for(wps.joint) if each.id == wps.joint.root_style), None)
    found: list[Advice] = []
    open_gap = p.make.is_open and "root_opening_mm" not in unstated and p.root_opening_mm > 0
    if style is not None:
        found += _misfits(wps, p, unstated, style, system)
    if open_gap:
        text = (
            f"Spacer for the tacks: {_spacer(p.root_opening_mm, system)}; tacks close the gap, by how much is not sure."
        )
        found.append(Advice(text, good=True, origin=root_styles().spacer_source))
    return found


def _spacer(gap_mm: float, system: System) -> str:
    """Return the rods that hold a gap open by both names, that of the reader first; a bar where no rod is so thick."""
    rods = spacers(gap_mm, catalogue().filler_sizes, root_styles())
    if not rods:
        return f"a bar of {_window((gap_mm, gap_mm + root_styles().spacer_over_mm), 'length', system)}"
    names = [(f"{each.mm:g} mm", f"{each.inch} in")[:: 1 if system == "si" else -1] for each in rods]
    return " or ".join(f"{one} ({other})" for one, other in names)


def root_advice(wps: Wps, system: System) -> tuple[Advice, ...]:
    """Return the spacer that the root opening asks for; none for a closed root or one that is not stated."""
    sketch = sketch_of(wps.joint)
    if sketch is None or sketch.incomplete:
        return ()
    return tuple(each for each in _root(wps, sketch.preparation, sketch.unstated, system) if each.good)


class AsFitted(Struct, frozen=True):
    """What does not go with the root style where the joint is tacked: a sentence, the measure, how far off [mm]."""

    text: str
    measure: str
    off_mm: float


def as_fitted(wps: Wps, system: System) -> tuple[AsFitted, ...]:
    """Return what at a tacked root does not go with its style, and what can still be done there; none without a style.

    Parameters
    ----------
    wps : the procedure with gap and land as they were measured
    """
    sketch = sketch_of(wps.joint)
    style = next((each for each in styles_for(wps.joint) if each.id == wps.joint.root_style), None)
    if sketch is None or style is None:
        return ()
    root = _root_of(wps, sketch.preparation, sketch.unstated)
    whole = [each for each in styles_for(wps.joint) if not each.by_clock]  # one place is welded one way
    others = [each for each in styles_that_go(root, whole) if each.id != style.id]
    offered = " or ".join(_offered(each, root, system) for each in others)
    found = []
    for each in misfits_when_tacked(root, style):
        name = field_of(f"joint/{each.field}").label
        value, window = _say(each.value, "length", system), _window(each.window, "length", system)
        mend = _allowed(each.mend, wps)
        mend = f"weld it there as {offered}, else {mend.replace(', else ', ', or ')}" if offered else mend
        found.append(AsFitted(f"{name} {value}: {style.name} goes with {window}; {mend}.", name, each.off))
    return tuple(found)


def _offered(style: RootStyle, root: Root, system: System) -> str:
    """Return a style by its name, with the filler it takes where that is another one."""
    if style.filler_mm is None or root.filler_mm is None:
        return style.name
    if style.filler_mm[0] - 0.1 <= root.filler_mm <= style.filler_mm[1] + 0.1:
        return style.name
    return f"{style.name} with filler of {_window(style.filler_mm, 'length', system)}"


def _allowed(mend: str, wps: Wps) -> str:
    """Return what can be done once it is tacked, without what the house does not allow there."""
    removal, way = wps.seam.metal_removal, f" {EASE}"
    if way not in mend or removal is None:
        return mend
    return mend.replace(way, " with a thin disc") if removal == "yes" else REFIT


def _root_of(wps: Wps, p: Preparation, unstated: frozenset[str]) -> Root:
    deposit = wps.deposits[0] if wps.deposits else None
    size = deposit.filler_diameter_mm if deposit else None
    one_side = p.wall_angles_deg[0] if p.make.form != "square" else None
    return Root(
        land_mm=None if "root_face_mm" in unstated else p.root_face_mm,
        gap_mm=None if "root_opening_mm" in unstated else p.root_opening_mm,
        bevel_deg=None if "groove_angle_deg" in unstated else one_side,
        filler_mm=(size.low + size.high) / 2 if size else None,
        process=deposit.process if deposit else None,
    )


def _misfits(wps: Wps, p: Preparation, unstated: frozenset[str], style: RootStyle, system: System) -> list[Advice]:
    root = _root_of(wps, p, unstated)
    found = []
    if root.process is not None and root.process not in style.process:
        text = f"{style.name} is welded with {' or '.join(style.process)}, the first deposit is {root.process}."
        found.append(Advice(text, good=False, origin=style.source))
    for each in misfits(root, style):
        path = f"joint/{each.field}" if each.field != "filler_diameter_mm" else "deposits/*/filler_diameter_mm"
        kind = "angle" if each.field.endswith("_deg") else "length"
        value, window = _say(each.value, kind, system), _window(each.window, kind, system)
        text = f"{field_of(path).label} {value}: {style.name} goes with {window}; {each.mend}."
        found.append(Advice(text, good=False, origin=style.source))
    if not found:
        found.append(
            Advice(
                f"What is stated of land, gap, bevel and filler goes with {style.name}: {style.note}.",
                good=True,
                origin=style.source,
            )
        )
    return found


def _backing(wps: Wps, system: System) -> list[Advice]:
    joint = wps.joint
    if joint.kind is None or not MAKES[joint.kind].backing or joint.backing_form == "ceramic":
        return []
    least = [mm for each in wps.deposits if (mm := root_styles().backing_mm.get(each.process or "")) is not None]
    if joint.backing_mm is None or not least or joint.backing_mm >= max(least) - 1e-6:
        return []
    own, wanted = (_say(mm, "length", system) for mm in (joint.backing_mm, max(least)))
    text = f"Backing of {own} is thin: {wanted} is recommended."
    return [Advice(text, good=False, origin=root_styles().backing_source)]


def _detail(wps: Wps, p: Preparation, system: System) -> list[Advice]:
    detail = standard_details().get(wps.joint.detail) if wps.joint.detail else None  # the table loads when asked for
    if detail is None:
        return []
    origin = f"{detail.source}, confidence {detail.confidence}"
    if p.kind not in detail.kinds:
        return [Advice(f"{detail.id} is another preparation.", good=False, origin=origin)]
    found = []
    for each in deviations(p, detail):
        path = f"joint/{each.field}"
        kind = field_of(path).kind
        value, window = _say(each.value, kind, system), _window(each.allowed, kind, system)
        found.append(Advice(f"{field_of(path).label} {value}: {detail.id} allows {window}.", good=False, origin=origin))
    others = {each.process for each in wps.deposits if each.process} - set(detail.process)
    if others:
        text = f"{detail.id} is for {', '.join(detail.process)}, not for {', '.join(sorted(others))}."
        found.append(Advice(text, good=False, origin=origin))
    if not found:
        gouge = ", back gouged" if detail.back_gouged else ""
        note = f", {detail.note}" if detail.note else ""
        text = f"As {detail.id} draws it (positions {detail.positions}{gouge}{note}), by the summary from memory."
        found.append(Advice(text, good=True, origin=origin))
    return found


def _fillet(p: Preparation, system: System) -> list[Advice]:
    found, limits = [], joint_limits()
    over = limits["plug_over_thickness_mm"]
    if p.make.form in ("plug", "slot") and p.hole_mm < p.thickness_mm + over.value:
        text = f"The hole is narrow: {_say(p.thickness_mm + over.value, 'length', system)} or more is asked for."
        found.append(Advice(text, good=False, origin=over.origin))
    if p.make.form == "fillet":
        throat = _say(throat_mm(p), "length", system)
        found.append(Advice(f"Theoretical throat {throat}.", good=True, origin="geometry"))
        low, high = limits["fillet_least_deg"], limits["fillet_most_deg"]
        if p.make.family == "tee" and not low.value <= p.member_angle_deg <= high.value:
            span = f"{low.value:g}° to {high.value:g}°"
            text = f"Members at {p.member_angle_deg:g}°: outside {span} a fillet is no prequalified fillet."
            found.append(Advice(text, good=False, origin=low.origin))
    return found


def with_detail(wps: Wps, detail_id: str) -> Wps:
    """Return the procedure with the dimensions of its joint as a standard detail draws them, tolerances with them.

    Raises
    ------
    InputError : a value cannot be of its field
    """
    detail, thick = standard_details()[detail_id], wps.joint.thickness_mm
    wps = with_at(wps, "joint/detail", detail_id)
    for field, (nominal, minus, plus) in taken_over(detail, thick or 0.0).items():
        if field == "root_opening_mm" and detail.of_thickness is not None and thick is None:
            continue
        wps = with_at(wps, f"joint/{field}", Dimension.stated(nominal=nominal, minus=minus, plus=plus))
    return wps
