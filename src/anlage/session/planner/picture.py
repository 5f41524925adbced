"""The plan on the map: joints as outlines over what the coupons buy, each coupon where it would be welded."""

from collections.abc import Sequence

from anlage.core.drawing.qualified_map import Area, Spot
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.session.planner.joints import Joint
from anlage.session.planner.plan import Plan, Planned

ENDLESS_MM = 1e5


def areas_of(joints: Sequence[Joint], plan: Plan | None, shown: Sequence[Planned], chosen: str) -> tuple[Area, ...]:
    """Return the rectangles of joints and coupons; hatched is what no coupon covers.

    Parameters
    ----------
    joints : as they are to be covered
    plan : as far as there is one
    shown : its coupons, as they lie now
    chosen : the name of one of them
    """
    bare = {name.partition(" (")[0] for name, _ in plan.uncovered} if plan is not None else set[str]()
    own = [
        Area(
            f"joint/{each.name}", each.name, "wps", each.wps.range.thickness_mm, each.wps.range.diameter_mm,
            (each.wps.range.thickness_mm,) if each.name in bare and each.wps.range.thickness_mm else (),
        )
        for each in joints
    ]  # fmt: skip
    bought = [
        Area(f"coupon/{each.name}", "", "pqr", each.thickness_mm, each.diameter_mm, chosen=each.name == chosen)
        for each in shown
        if each.thickness_mm is not None
    ]
    return (*own, *bought)


def spots_of(shown: Sequence[Planned]) -> tuple[Spot, ...]:
    """Return the coupons where they would be welded."""
    return tuple(
        Spot(f"coupon/{each.name}", each.name, each.coupon.size.thickness_mm, each.coupon.size.od_mm) for each in shown
    )


def span_words(span: Interval, system: System) -> str:
    """Return a range of thicknesses [mm] in words, an end that is none left open."""
    low, high = (show(end, "length", system, unit_table()) for end in (span.low, min(span.high, ENDLESS_MM)))
    return f"{low} to {'any more' if span.high >= ENDLESS_MM else high}"
