"""Stainless and aerospace procedures and records from few words: AWS D1.6 and AWS D17.1; what is not said is sound.

`stainless` is a butt of 304L to 316L by metal active gas; `aerospace` one of titanium sheet by gas tungsten arc.
"""

from anlage.core.document import Dimension
from tests import frames

SPRAY = {"filler": "ER316L", "filler_diameter_mm": 1.2, "shielding_gas": "Ar-2O2", "gas_flow_l_min": (14, 18),
         "current_type": "DCEP", "transfer_mode": "spray", "operation": "semiautomatic", "electrodes": "single",
         "output": None, "maker_current_a": None}  # fmt: skip
SPRAYED = {"current_a": (200, 220), "voltage_v": (25, 27), "travel_speed_mm_min": (360, 400)}
RAYED = {"current_a": 210.0, "voltage_v": 26.0, "travel_speed_mm_min": 380.0}
TUNGSTEN = {"filler": "ERTi-2", "filler_diameter_mm": 1.6, "shielding_gas": "Ar", "gas_flow_l_min": (8, 12),
            "current_type": "DCEN", "operation": "manual", "hot_wire": None}  # fmt: skip
TOUCHED = {"current_a": (70, 80), "voltage_v": (10, 12), "travel_speed_mm_min": (90, 110)}
READ = {"current_a": 75.0, "voltage_v": 11.0, "travel_speed_mm_min": 100.0}
OPEN = {"header/weld": "groove", "header/impact": False, "header/hardness": False, "header/sour_service": False}
DRAWN = {"joint/kind": "single-v", "joint/root_opening_mm": Dimension(nominal=2.0),
         "joint/root_face_mm": Dimension(nominal=1.0), "joint/groove_angle_deg": Dimension(nominal=60.0),
         "technique/back_gouging": "none", "joint/product": "plate", "pwht/kind": "none"}  # fmt: skip
STAINLESS = {
    "header/codes": ("aws-d1.6",),
    "metals/one/name": "A240-304L",
    "metals/other/name": "A240-316L",
    "joint/thickness_mm": 9.0,
    "technique/position": "1G",
    "technique/progression": "none",
    **DRAWN,
}
TITANIUM = {"header/codes": ("aws-d17.1",), "metals/one/name": "B265-GR2", "joint/thickness_mm": 2.3,
            "technique/position": "3G", "technique/progression": "uphill", "technique/runs": "single",
            **DRAWN}  # fmt: skip


def stainless(deposit=None, settings=None, **leaves):
    """A stainless structural procedure; `leaves` by path with two underscores for a slash."""
    base = {"header/number": "N-1", **OPEN, **STAINLESS, "range/thickness_mm": (9.0, 9.0), "preheat/minimum_c": 10.0,
            "preheat/interpass_maximum_c": 150.0}  # fmt: skip
    leaves = {"metals__other__name": "A240-316L", **leaves}
    own = {**SPRAY, "thickness_mm": (9, 9), **(deposit or {})}
    laid = {**SPRAYED, "wire_speed_mm_min": None, **(settings or {})}
    return frames.frame("GMAW", ("root", "fill", "cap"), own, laid, base=base, **leaves)


GROOVE = (("visual", 1), ("tension", 2), ("face bend", 2), ("root bend", 2), ("side bend", 4))


def stainless_record(deposit=None, results=GROOVE, **leaves):
    """A record of a stainless coupon, all its tests passed."""
    base = {"header/number": "NR-1", "header/weld": "groove", **STAINLESS, "preheat_least_c": 18.0,
            "interpass_most_c": 140.0}  # fmt: skip
    leaves = {"metals__other__name": "A240-316L", **leaves}
    own = {**SPRAY, **RAYED, "thickness_mm": 9.0, **(deposit or {})}
    return frames.record("GMAW", own, results, base=base, **leaves)


def aerospace(deposit=None, settings=None, process="GTAW", **leaves):
    """An aerospace procedure of titanium sheet."""
    base = {"header/number": "T-1", **OPEN, **TITANIUM, "header/weld_class": "A", "range/thickness_mm": (2.0, 4.0),
            "preheat/minimum_c": 10.0, "preheat/interpass_maximum_c": 60.0}  # fmt: skip
    own = {**TUNGSTEN, "thickness_mm": (2, 4), **(deposit or {})}
    return frames.frame(process, ("root",), own, {**TOUCHED, **(settings or {})}, base=base, **leaves)


EXAMINED = (("visual", 1), ("dye penetrant", 1), ("radiographic", 1))


def aerospace_record(deposit=None, results=EXAMINED, process="GTAW", **leaves):
    """A record of an aerospace test weld, found sound."""
    base = {"header/number": "TR-1", "header/weld": "groove", **TITANIUM}
    own = {**TUNGSTEN, **READ, "thickness_mm": 2.3, **(deposit or {})}
    return frames.record(process, own, results, base=base, **leaves)
