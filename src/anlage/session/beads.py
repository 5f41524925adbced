"""The beads of a procedure: laid in its joint, told where metal is missing, and proposed where there are none."""

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from anlage.core.beads import UNDER_SURFACE_MM, Bead, Laid, Layout, Proposed, Size, bead_area_of_rate, fill, layout
from anlage.core.catalogue import FillerCurrent
from anlage.core.document import kept, with_
from anlage.core.errors import InputError
from anlage.core.joint import Preparation, Shape, faults, shape_of
from anlage.core.procedure import (
    Deposit,
    Pass,
    Wps,
    moved_pass,
    sketch_of,
    with_deposit,
    with_pass,
    without_pass,
)
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import catalogue, unit_table
from anlage.session.bead_areas import bead_area, density_of, rate_of, usual_settings

SPREAD = 0.1  # a proposed speed or current goes so far to both sides of the one that fills the joint; own choice
SIDES = ("in the buttering", "on the first side", "on the second side")
OVER_MM = 0.3  # a fill layer may stand over the surface by this before it is told of


@kept
def laid_of(wps: Wps) -> tuple[Laid, ...]:
    """Return every pass that goes all the way as a bead: its area as far as it is known, its side, its place."""
    homes = {each.id: each for each in wps.deposits}
    found = []
    for each in wps.passes:
        if each.reach is not None:  # laid where the fill runs low, not in the section that is drawn
            continue
        area, thick = bead_area(homes[each.deposit], each), each.thickness_mm
        second = each.side == "second" or (each.side is None and each.role == "back")
        found.append(
            Laid(
                key=each.id,
                area_mm2=area.middle if area else None,
                thickness_mm=(thick.low + thick.high) / 2 if thick else None,
                side=0 if each.role == "buttering" else 2 if second else 1,
                role=each.role,
                layer=each.layer,
                weave=(each.bead or wps.technique.bead_technique) == "weave",
            )
        )
    return tuple(found)


def joint_shape(wps: Wps, mismatch_mm: float = 0.0) -> Shape | None:
    """Return the shape of the joint, one member higher by a mismatch; `None` when no kind is chosen or values clash."""
    sketch = sketch_of(wps.joint)
    if sketch is None or faults(sketch.preparation):
        return None
    p = sketch.preparation
    return shape_of(replace(p, mismatch_mm=mismatch_mm) if mismatch_mm and p.make.family == "butt" else p)


@kept
def bead_layout(wps: Wps, mismatch_mm: float = 0.0) -> Layout | None:
    """Return where the beads of a procedure lie; `None` when its joint cannot be drawn."""
    shape = joint_shape(wps, mismatch_mm)
    return None if shape is None else _laid_out(shape, laid_of(wps))


@lru_cache(maxsize=8)
def _laid_out(shape: Shape, laid: tuple[Laid, ...]) -> Layout:
    return layout(shape, laid)


def bead_of(wps: Wps, pass_id: str) -> Bead | None:
    """Return the bead of a pass where it lies."""
    found = bead_layout(wps)
    return next((bead for bead in found.beads if bead.key == pass_id), None) if found else None


@dataclass(frozen=True, slots=True)
class FillNotice:
    """What a layout comes to, in a sentence; `good` when nothing is missing or in excess."""

    text: str
    good: bool


def fill_notices(wps: Wps, system: System) -> tuple[FillNotice, ...]:
    """Return how the passes fill the joint: the share first, then every layer that lacks metal or has too much."""
    sketch, found = sketch_of(wps.joint), bead_layout(wps)
    if not wps.passes:
        return (FillNotice("No pass yet. Fill the joint (Ctrl+Shift+F) writes a list to start from.", good=True),)
    if found is None or sketch is None:
        return ()
    if sketch.incomplete:
        return (FillNotice("The joint is not stated in full: the beads lie in a picture of it.", good=True),)
    if not found.fillings:
        return (FillNotice("The edges touch: there is no room for filler metal.", good=True),)
    shared = sum(bead.shared for bead in found.beads)
    if shared:
        text = f"The bead area is not known for {shared} of {len(found.beads)} passes: dashed, they share what is left."
        return (FillNotice(text, good=False),)
    room = sum(each.room_mm2 for each in found.fillings)
    head = (
        f"The passes lay {_area(found.laid_mm2, system)}, {100 * found.laid_mm2 / room:.0f} % of {_area(room, system)}."
    )
    notices = [FillNotice(head, good=abs(found.laid_mm2 / room - 1) <= 0.03)]
    return (
        *notices,
        *_side_notices(wps, found, system),
        *_layer_notices(found, system),
        *_fill_notices(found, system),
        *_weave_notices(wps, found, system),
    )


def _side_notices(wps: Wps, found: Layout, system: System) -> Iterator[FillNotice]:
    """Yield what is missing on a side, and a cap outside what is stated."""
    stated = wps.joint.reinforcement_mm
    for each in found.fillings:
        where = f" {SIDES[each.side]}" if len(found.fillings) > 1 else ""
        if each.missing_mm2 > 0.005 * each.room_mm2 and each.reach_mm < -OVER_MM:
            depth = show(-each.reach_mm, "length", system, unit_table())
            last = max((layer.number for layer in found.layers if layer.side == each.side), default=0)
            what = f"layer {last} ends" if last else "no layer is laid,"
            text = f"{_area(each.missing_mm2, system)} is missing{where}: {what} {depth} low."
            yield FillNotice(text, good=False)
        elif (
            each.side
            and stated is not None
            and not stated.span.low - OVER_MM <= each.reach_mm <= stated.span.high + OVER_MM
        ):
            stands = show(max(each.reach_mm, 0.0), "length", system, unit_table())
            limits = show_interval(stated.span, "length", system, unit_table())
            yield FillNotice(f"The cap{where} stands {stands} high, {limits} is stated.", good=False)


def _layer_notices(found: Layout, system: System) -> Iterator[FillNotice]:
    """Yield every layer under the cap that stands over the surface."""
    last = {layer.side: layer.number for layer in found.layers}
    for layer in found.layers:
        under_cap = layer.number < last[layer.side] and layer.role not in ("cap", "back")
        if layer.capping and under_cap and layer.reach_mm > OVER_MM:
            high = show(layer.reach_mm, "length", system, unit_table())
            text = f"Layer {layer.number} stands {high} over the surface: the cap has no edge to follow."
            yield FillNotice(text, good=False)


def _fill_notices(found: Layout, system: System) -> Iterator[FillNotice]:
    """Yield where the cap has to fill too: the layer under it ends too low for an edge to follow."""
    for filling in found.fillings:
        own = [layer for layer in found.layers if layer.side == filling.side]
        if len(own) < 2 or not own[-1].capping or own[-2].capping or own[-2].reach_mm > -UNDER_SURFACE_MM - OVER_MM:
            continue
        where = f" {SIDES[filling.side]}" if len(found.fillings) > 1 else ""
        low, usual = (show(h, "length", system, unit_table()) for h in (-own[-2].reach_mm, UNDER_SURFACE_MM))
        text = f"The fill{where} ends {low} under the surface, usual is {usual} or just flush: the cap has to fill."
        yield FillNotice(text, good=False)


def _weave_notices(wps: Wps, found: Layout, system: System) -> Iterator[FillNotice]:
    """Yield every woven bead that is wider than the contract lets it be, the widest of them told in diameters too."""
    limit = wps.seam.weave_limit_mm
    woven = {bead.key for bead in laid_of(wps) if bead.weave}
    over = [bead for bead in found.beads if limit is not None and bead.key in woven and bead.width_mm > limit + OVER_MM]
    if limit is None or not over:
        return
    numbers = {each.id: n for n, each in enumerate(wps.passes, 1)}
    widest = max(over, key=lambda bead: bead.width_mm)
    home = next(each.deposit for each in wps.passes if each.id == widest.key)
    size = next(each.filler_diameter_mm for each in wps.deposits if each.id == home)
    wide, most = (show(value, "length", system, unit_table()) for value in (widest.width_mm, limit))
    diameters = f", {widest.width_mm / size.low:.1f} electrode diameters" if size and size.low > 0 else ""
    who = ", ".join(str(numbers[bead.key]) for bead in over)
    text = f"Weave of pass {who} is up to {wide} wide{diameters}; the limit is {most}."
    yield FillNotice(text, good=False)


def _area(value: float, system: System) -> str:
    return show(value, "area", system, unit_table())


# Fill the joint ------------------------------------------------------------------------------


def filled(wps: Wps) -> Wps:
    """Return the procedure with its passes written anew so that they fill the joint.

    Settings come from a pass of the same deposit and role that is there already, else from the catalogue's usual
    ones; travel speeds are those that lay the wanted bead. Where nothing says how much a pass deposits (a rod fed by
    hand), the bead's area is stated instead, and its speed is left open. Passes on a part of the way stay, before the
    cap.

    Raises
    ------
    InputError : the joint is not stated in full, or its values clash
    """
    sketch, shape = sketch_of(wps.joint), joint_shape(wps)
    if sketch is not None and (wrong := faults(sketch.preparation)):
        raise wrong[0]
    if sketch is None or shape is None or sketch.incomplete:
        mend = "state the preparation at Joint first"
        raise InputError("the joint is not stated in full", where="fill", mend=mend)
    start = wps if wps.deposits else with_deposit(wps)[0]
    beads = fill(shape, [_size(start, each, is_last=each is start.deposits[-1]) for each in start.deposits])
    kept = {(each.deposit, each.role): each for each in reversed(start.passes)}
    any_of = {each.deposit: each for each in reversed(start.passes)}
    done, parts = start, [each.id for each in start.passes if each.reach is not None]
    for each in start.passes:
        if each.reach is None:
            done = without_pass(done, each.id)
    for bead in beads:
        home = start.deposits[bead.deposit]
        model = kept.get((home.id, bead.role)) or any_of.get(home.id) or Pass(id="p0", deposit=home.id)
        stated = _stated(home, model, bead, has_sides=len({each.side for each in shape.grooves} - {0}) > 1)
        done, _ = with_pass(done, home.id, **stated)
    for part in parts:  # they came to stand first
        done = moved_pass(done, part, first_cap(done) - 1)
    return done


def first_cap(wps: Wps) -> int:
    """Return the place in the order of the first cap pass, behind the last pass where there is none."""
    return next((n for n, each in enumerate(wps.passes) if each.role == "cap"), len(wps.passes))


def bead_counts(wps: Wps, joints: Sequence[Preparation]) -> tuple[int | None, ...]:
    """Return how many beads fill each joint at the sizes of a procedure's deposits; `None` without any deposit."""
    if not wps.deposits:
        return (None,) * len(joints)
    sizes = tuple(_size(wps, each, is_last=each is wps.deposits[-1]) for each in wps.deposits)
    return tuple(_count(each, sizes) for each in joints)


@lru_cache(maxsize=16)
def _count(joint: Preparation, sizes: tuple[Size, ...]) -> int:
    return len(fill(shape_of(joint), sizes))


def _size(wps: Wps, deposit: Deposit, *, is_last: bool) -> Size:
    """Return how the beads of a deposit come out: by what its passes deposit already, else by its electrode."""
    reach = None if is_last or deposit.thickness_mm is None else deposit.thickness_mm.high
    others: dict[str, Any] = {"reach_mm": reach, "weave": wps.technique.bead_technique == "weave"}
    others["weave_limit_mm"] = wps.seam.weave_limit_mm
    diameter = deposit.filler_diameter_mm
    own = [area.middle for each in wps.passes if each.deposit == deposit.id and (area := bead_area(deposit, each))]
    if own and deposit.process not in ("SMAW", "GTAW"):
        return Size.of_area(sum(own) / len(own), **others)
    if deposit.process in ("GMAW", "FCAW", "MCAW", "SAW"):
        area = _usual_wire_area(deposit)
        if area is not None:
            return Size.of_area(area, **others)
    return Size.of_electrode((diameter.low + diameter.high) / 2 if diameter else 3.2, **others)


def _usual_wire_area(deposit: Deposit) -> float | None:
    """Return the bead that usual wire and travel speeds lay [mm²]; those of another filler where its own are not known.

    The usual travel speed is the middle of the trade's window as a ratio: the upper end is that of machines.
    """
    usual = usual_settings(deposit) or _like(deposit)
    limits = [row for row in catalogue().process_limits if row.process == deposit.process]
    if usual is None or usual.at_wire_speed_m_min is None or not limits:
        return None
    mode = deposit.transfer_mode or usual.mode
    window = next((row for row in limits if mode and row.id.endswith(f"-{mode}")), limits[0])
    speed = math.sqrt(window.travel_min_mm_min * window.travel_max_mm_min)
    feed = Interval.single(usual.at_wire_speed_m_min * 1000)
    each = Pass(id="p0", deposit=deposit.id, wire_speed_mm_min=feed, travel_speed_mm_min=Interval.single(speed))
    if deposit.filler_diameter_mm is None:
        deposit = with_(deposit, filler_diameter_mm=Interval.single(usual.diameter_mm))
    found = bead_area(deposit, each)
    return found.middle if found else None


def _like(deposit: Deposit) -> FillerCurrent | None:
    """Return the usual settings of a filler of the same process, of the size that is nearest."""
    rows = [row for row in catalogue().filler_currents if row.process == deposit.process and row.at_wire_speed_m_min]
    size = deposit.filler_diameter_mm
    return min(rows, key=lambda row: abs(row.diameter_mm - size.low) if size else 0.0, default=None)


def _usual_current(usual: FillerCurrent) -> Interval:
    """Return a current about the one that the usual deposit is known at; the whole window where that is not known."""
    if usual.at_amps is None:
        return Interval(usual.amps_min, usual.amps_max)
    low, high = (round(usual.at_amps * share) for share in (1 - SPREAD, 1 + SPREAD))
    return Interval(max(low, usual.amps_min), min(high, usual.amps_max))


_COPIED = ("current_a", "voltage_v", "wire_speed_mm_min", "note")


def _stated(deposit: Deposit, model: Pass, bead: Proposed, *, has_sides: bool) -> dict[str, Any]:
    """Return what a proposed pass states."""
    usual = usual_settings(deposit)
    stated: dict[str, Any] = {name: getattr(model, name) for name in _COPIED}
    if usual is not None:
        stated["current_a"] = stated["current_a"] or _usual_current(usual)
        if usual.volts_min is not None and usual.volts_max is not None:
            stated["voltage_v"] = stated["voltage_v"] or Interval(usual.volts_min, usual.volts_max)
        if usual.at_wire_speed_m_min and deposit.process not in ("SMAW", "GTAW"):
            stated["wire_speed_mm_min"] = stated["wire_speed_mm_min"] or Interval.single(
                usual.at_wire_speed_m_min * 1000
            )
    stated |= {
        "role": bead.role,
        "layer": "new" if bead.starts_layer else "beside",
        "bead": "weave" if bead.weave else "stringer",
        "side": (None, "first", "second")[bead.side] if has_sides else None,
        "thickness_mm": Interval.single(round(bead.height_mm, 1)),
    }
    rate = rate_of(deposit, Pass(id="p0", deposit=deposit.id, **{n: stated[n] for n in _COPIED}))
    if rate is None:
        area = Interval.single(round(bead.area_mm2, 2))
        return stated | {"bead_area_mm2": area, "travel_speed_mm_min": model.travel_speed_mm_min}
    speed = bead_area_of_rate(rate.middle, travel_speed_mm_min=1.0, density_g_cm3=density_of(deposit)) / bead.area_mm2
    wide = max(round(speed * SPREAD), 1)
    return stated | {"travel_speed_mm_min": Interval(round(speed) - wide, round(speed) + wide)}
