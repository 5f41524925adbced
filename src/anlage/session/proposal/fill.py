"""A list of passes that fills a joint: beads, settings and travel speeds, proposed and to be proved."""

from typing import Any

from anlage.core.beads import Proposed, bead_area_of_rate, fill
from anlage.core.catalogue import FillerCurrent
from anlage.core.errors import InputError
from anlage.core.joint import faults
from anlage.core.procedure import (
    Deposit,
    Pass,
    Wps,
    moved_pass,
    sketch_of,
    with_deposit,
    with_passes,
    without_whole_passes,
)
from anlage.core.ranges import Interval
from anlage.session.weld.bead_areas import density_of, is_hand_fed, rate_of, usual_settings
from anlage.session.weld.bead_sizes import size_of
from anlage.session.weld.beads import first_cap, joint_shape

SPREAD = 0.1  # a proposed speed or current goes so far to both sides of the one that fills the joint; own choice


def filled(wps: Wps) -> Wps:
    """Return the procedure with its passes written anew so that they fill the joint.

    Settings come from a pass of the same deposit and role that is there already, else from the catalogue's usual
    ones; travel speeds are those that lay the wanted bead. Where nothing says how much a pass deposits (a rod fed by
    hand), the bead's area is stated instead, and its speed is left open. Passes on a part of the way stay, before the
    cap.

    Raises
    ------
    InputError : the joint is not stated in full, its values clash, or it takes too many beads
    """
    sketch, shape = sketch_of(wps.joint), joint_shape(wps)
    if sketch is not None and (wrong := faults(sketch.preparation)):
        raise wrong[0]
    if sketch is None or shape is None or sketch.incomplete:
        mend = "state the preparation at Joint first"
        raise InputError("the joint is not stated in full", where="fill", mend=mend)
    start = wps if wps.deposits else with_deposit(wps)[0]
    beads = fill(shape, [size_of(start, each, is_last=each is start.deposits[-1]) for each in start.deposits])
    kept: dict[tuple[str | None, str | None], Pass] = {
        (each.deposit, each.role): each for each in reversed(start.passes)
    }
    any_of = {each.deposit: each for each in reversed(start.passes)}
    laid, parts = [], [each.id for each in start.passes if each.reach is not None]
    has_sides = len({each.side for each in shape.grooves} - {0}) > 1
    for bead in beads:
        home = start.deposits[bead.deposit]
        model = kept.get((home.id, bead.role)) or any_of.get(home.id) or Pass(id="p0", deposit=home.id)
        laid.append((home.id, _stated(home, model, bead, has_sides=has_sides)))
    done = with_passes(without_whole_passes(start), laid)
    for part in parts:  # they came to stand first
        done = moved_pass(done, part, first_cap(done) - 1)
    return done


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
        if usual.at_wire_speed_m_min and not is_hand_fed(deposit):
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
