"""What a record declares against what was welded: a range that does not hold its own coupon proves nothing."""

from collections.abc import Iterator

from anlage.core.document import Dimension
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, Recorded
from anlage.session.judging.clashes.clash import Clash, Said, holds
from anlage.session.leaves.table import field_of

# What is declared, what was welded, the variable: of a deposit, then of the joint.
OF_DEPOSIT = (
    ("current_range_a", "current_a", "amps"), ("voltage_range_v", "voltage_v", "volts"),
    ("travel_range_mm_min", "travel_speed_mm_min", "travel_speed_mm_min"),
    ("flow_range_l_min", "gas_flow_l_min", "gas_flow_l_min"),
)  # fmt: skip
OF_JOINT = (
    ("thickness_mm", "thickness_mm", "base_metal_thickness_mm"), ("diameter_mm", "od_mm", "diameter_mm"),
    ("root_opening_mm", "root_opening_mm", "root_opening_mm"), ("root_face_mm", "root_face_mm", "root_face_mm"),
    ("groove_angle_deg", "groove_angle_deg", "groove_angle_deg"),
)  # fmt: skip


def declared_around(said: Said) -> Iterator[Clash]:
    """Yield every declared range that does not hold what was recorded."""
    pqr: Pqr = said.document
    for name, welded, variable in OF_JOINT:
        leaves = (f"declared/{name}", f"joint/{welded}")
        yield from _beyond(getattr(pqr.declared, name), getattr(pqr.joint, welded), leaves, variable)
    for each in pqr.deposits:
        for name, welded, variable in OF_DEPOSIT:
            leaves = (f"deposits/{each.id}/{name}", f"deposits/{each.id}/{welded}")
            yield from _beyond(getattr(each, name), getattr(each, welded), leaves, variable, each.id)


def _beyond(
    declared: Interval | None, welded: object, leaves: tuple[str, str], variable: str, deposit: str = ""
) -> Iterator[Clash]:
    value = welded.mean if isinstance(welded, Recorded) else welded.nominal if isinstance(welded, Dimension) else welded
    if declared is None or (isinstance(value, float | int) and holds(declared, float(value))):
        return
    what = field_of(leaves[0]).label.lower()
    told = isinstance(value, float | int)
    text = f"the {what} does not hold what was welded" if told else f"nothing is recorded that the {what} would hold"
    yield Clash(leaves, frozenset((f"declared.{variable}",)), text, deposit)
