"""The dials of one machine as curves, and what they give for a current that is wanted."""

from anlage.core.drawing import DisplayList
from anlage.core.drawing.dial_curves import DialCurve, DialPlane, DialPoint, dial_curves
from anlage.core.machine import Tap, dial_steps
from anlage.core.quantities import show, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.session.seam.dials import tap_words
from anlage.session.weld.picture_sheet import Sheet

UNNAMED = "no tap named"


def tap_lines(taps: tuple[Tap, ...], wanted_a: Interval | None, system: System) -> tuple[DialCurve, ...]:
    """Return the taps of a machine that have a reading to draw as curves, with the dial of a current that is wanted."""
    steps = {id(each.tap): each.dial for each in dial_steps(taps, wanted_a)} if wanted_a is not None else {}
    return tuple(
        DialCurve(
            _name(tap, system),
            tuple(
                DialPoint(f"readings/{own}/current_a", each.dial, each.current_a)
                for own, each in zip(tap.reading_ids, tap.points, strict=True)
            ),
            not tap.why_not, steps.get(id(tap)),
        )
        for tap in taps if tap.points
    )  # fmt: skip


def _name(tap: Tap, system: System) -> str:
    """Return a tap in the fewest words."""
    leads = show(tap.lead_m, "distance", system, unit_table()) if tap.lead_m else ""
    return ", ".join(filter(None, (tap.name, leads))) or UNNAMED


def dial_plane(taps: tuple[Tap, ...], wanted_a: Interval | None, sheet: Sheet) -> DialPlane:
    """Return the plot on which the taps of a machine have room, with their names beside it."""
    lines = tap_lines(taps, wanted_a, sheet.system)
    names_mm = max((sheet.measure(each.name, 2.6) for each in lines), default=0.0)
    size = (max(sheet.width_mm - names_mm - 16.0, 40.0), max(sheet.height_mm - 18.0, 25.0))
    return DialPlane.around(lines, wanted_a, size)


def dial_picture(
    taps: tuple[Tap, ...], wanted_a: Interval | None, plane: DialPlane, sheet: Sheet
) -> DisplayList | None:
    """Return the dials of a machine; `None` while nothing was read."""
    lines = tap_lines(taps, wanted_a, sheet.system)
    return dial_curves(lines, wanted_a, plane, sheet.measure) if lines else None


def tap_sentences(taps: tuple[Tap, ...], system: System) -> tuple[tuple[str, str], ...]:
    """Return of each tap its verdict, `inside` for one that proves a current, and what it gives or why it does not."""
    found = []
    for tap in taps:
        name = tap_words(tap, system) or "The dial"
        rest = ((tap.set_aside, "of earlier days"), (tap.unfinished, "without dial, amps, meter or day"))
        told = ", ".join(f"{count} {what}" for count, what in rest if count)
        beside = f" Readings that do not count: {told}." if told and tap.until else ""
        if tap.why_not:
            found.append(("unproven", f"{name}: {tap.why_not}.{beside}"))
            continue
        ends = [each.current_a for each in tap.points]
        span = show_interval(Interval(min(ends), max(ends)), "current", system, unit_table())
        dial = f"{tap.points[0].dial:g}..{tap.points[-1].dial:g}"
        meters = ", ".join(tap.meters)
        said = f"{name}: {span} over dial {dial}, meter {meters}, {tap.day}, in date until {tap.until}.{beside}"
        found.append(("inside", said))
    return tuple(found)
