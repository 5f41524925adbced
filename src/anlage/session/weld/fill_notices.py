"""How the passes fill a joint, told in sentences: what is missing or in excess, layer by layer."""

from collections.abc import Iterator

from msgspec import Struct

from anlage.core.beads import MOST_BEADS, UNDER_SURFACE_MM, Layout
from anlage.core.joint import Sketch
from anlage.core.procedure import (
    Wps,
    sketch_of,
)
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.data.tables import unit_table
from anlage.session.weld.beads import bead_layout, has_too_many, laid_of

SIDES = ("in the buttering", "on the first side", "on the second side")
OVER_MM = 0.3  # a fill layer may stand over the surface by this before it is told of


class FillNotice(Struct, frozen=True):
    """What a layout comes to, in a sentence; `good` when nothing is missing or in excess."""

    text: str
    good: bool


def fill_notices(wps: Wps, system: System) -> tuple[FillNotice, ...]:
    """Return how the passes fill the joint: the share first, then every layer that lacks metal or has too much."""
    sketch, found = sketch_of(wps.joint), bead_layout(wps)
    if (plain := _plainly(wps, sketch, found)) is not None:
        return (plain,)
    if found is None or sketch is None:
        return ()
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


def _plainly(wps: Wps, sketch: Sketch | None, found: Layout | None) -> FillNotice | None:
    """Return why nothing can be said of layers; `None` where something can, or there is no joint to speak of."""
    if not wps.passes:
        return FillNotice("No pass yet. Fill the joint (Ctrl+Shift+F) writes a list to start from.", good=True)
    if has_too_many(wps):
        return FillNotice(f"Over {MOST_BEADS} beads: they are not drawn.", good=False)
    if sketch is not None and found is not None and sketch.incomplete:
        return FillNotice("The joint is not stated in full: the beads lie in a picture of it.", good=True)
    if found is not None and not found.fillings:
        return FillNotice("The edges touch: there is no room for filler metal.", good=True)
    return None


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
