"""What a coupon costs, by the person's own figures: of the coupon itself, its metal, its welding and its tests."""

import math
from collections.abc import Mapping, Sequence
from typing import Final

from anlage.core.errors import InputError
from anlage.core.record import Pqr

OF_TESTS: Final = {
    "bend": ("face bend", "root bend", "side bend", "longitudinal face bend", "longitudinal root bend"),
    "tension": ("tension",), "impact_set": ("impact",), "rt": ("radiographic",),
}  # fmt: skip
UNITS: Final = {"coupon": "each", "kg": "kg", "h": "h", **dict.fromkeys(OF_TESTS, "each")}
PLATE_MM: Final = (150.0, 350.0)  # of each half of a coupon: width and length; own choice
DENSITY_KG_MM3: Final = 7.85e-6
LAID_KG_H: Final = 1.5  # weld metal in an hour of arc; own choice, for comparing coupons alone
OPENING_MM, HALF_ANGLE_DEG = 3.0, 30.0  # of the groove that is reckoned with
TIE: Final = 1e-6  # of coupons that cost the same the lighter one


def costs_of(rows: Sequence[Mapping[str, str]]) -> Mapping[str, float]:
    """Return the figures of a table with the columns what, unit and cost.

    Raises
    ------
    InputError : a row is of nothing that is reckoned with, in another unit, or no number
    """
    found: dict[str, float] = {}
    for number, row in enumerate(rows, 1):
        what, unit, text = (row.get(name, "").strip() for name in ("what", "unit", "cost"))
        where = f"row {number}"
        if what not in UNITS:
            raise InputError(f"{what or 'nothing'} is no cost of a coupon", where=where, mend=f"take {' '.join(UNITS)}")
        if unit not in ("", UNITS[what]):
            raise InputError(f"{what} is not reckoned by {unit}", where=where, mend=f"write {UNITS[what]}")
        try:
            found[what] = float(text.replace(",", "."))
        except ValueError:
            raise InputError(f"{text or 'nothing'} is no number", where=where, mend="write the cost of one") from None
        if not 0 <= found[what] < math.inf:
            raise InputError(f"{text} is no cost", where=where, mend="write 0 or more")
    return found


def _metal_mm3(pqr: Pqr) -> float:
    thick, od = pqr.joint.thickness_mm or 0.0, pqr.joint.od_mm
    across = PLATE_MM[1] if od is None else math.pi * max(od - thick, 0.0)
    return 2 * PLATE_MM[0] * across * thick


def cost_of(pqr: Pqr, costs: Mapping[str, float]) -> float:
    """Return what a coupon costs; without any figures each costs one, the lighter a little less.

    Validity
    --------
    For comparing coupons: halves of 150 by 350 mm, or two rings of 150 mm, a V of 60 degrees, 1.5 kg of
    weld metal in an hour; own choice.
    """
    thick = pqr.joint.thickness_mm or 0.0
    metal_kg = _metal_mm3(pqr) * DENSITY_KG_MM3
    if not costs:
        return 1.0 + TIE * metal_kg + TIE * sum(each.count for each in pqr.results)
    groove = OPENING_MM * thick + math.tan(math.radians(HALF_ANGLE_DEG)) * thick**2
    length = math.pi * pqr.joint.od_mm if pqr.joint.od_mm else PLATE_MM[1]
    hours = groove * length * DENSITY_KG_MM3 / LAID_KG_H
    tests = sum(
        costs.get(what, 0.0) * sum(each.count for each in pqr.results if each.kind in kinds)
        for what, kinds in OF_TESTS.items()
    )
    own = costs.get("coupon", 0.0) + costs.get("kg", 0.0) * metal_kg + costs.get("h", 0.0) * hours + tests
    return own + TIE * metal_kg + TIE
