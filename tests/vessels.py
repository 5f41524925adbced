"""Vessel procedures and records by ISO 15614-1 from few words, as whole documents: what a test does not say is sound.

`seam` is a butt of S355 by metal active gas, in several runs; `seam_record` the record that it rests on.
"""

from anlage.core.document import Dimension
from tests import frames

MAG = {"filler": "ER70S-6", "filler_diameter_mm": 1.2, "shielding_gas": "Ar-18CO2", "gas_flow_l_min": (14, 18),
       "current_type": "DCEP", "transfer_mode": "spray", "operation": "semiautomatic", "electrodes": "single",
       "output": None, "maker_current_a": None, "thickness_mm": (8, 24)}  # fmt: skip
PASS = {"current_a": (240, 260), "voltage_v": (27, 29), "travel_speed_mm_min": (360, 400)}
READ = {"current_a": 250.0, "voltage_v": 28.0, "travel_speed_mm_min": 380.0}
DRAWN = {
    "joint/kind": "double-v", "joint/root_opening_mm": Dimension(nominal=2.0),
    "joint/root_face_mm": Dimension(nominal=2.0), "joint/groove_angle_deg": Dimension(nominal=60.0),
    "technique/back_gouging": "ground to sound metal", "technique/position": "1G", "technique/progression": "none",
    "technique/runs": "multi",
}  # fmt: skip
SEAM = {
    "header/number": "S-1", "header/codes": ("iso-15614-1-l2",), "header/weld": "groove", "header/impact": False,
    "header/hardness": False, "header/sour_service": False, "metals/one/name": "P355GH", "joint/product": "plate",
    "joint/thickness_mm": 14.0, "range/thickness_mm": (8.0, 24.0), "technique/cleaning": "ground and brushed",
    "preheat/minimum_c": 100.0, "preheat/interpass_maximum_c": 200.0, "pwht/kind": "none", **DRAWN,
}  # fmt: skip
RECORD = {
    "header/number": "SR-1", "header/codes": ("iso-15614-1-l2",), "header/weld": "groove", "metals/one/name": "P355GH",
    "joint/product": "plate", "joint/thickness_mm": 14.0, "preheat_least_c": 100.0, "interpass_most_c": 220.0,
    "pwht/kind": "none", **DRAWN,
}  # fmt: skip
PASSED = (("visual", 1), ("ultrasonic", 1), ("magnetic particle", 1), ("tension", 2), ("side bend", 4),
          ("root bend", 2), ("face bend", 2), ("macro", 1), ("hardness", 1))  # fmt: skip
WITH_IMPACT = (*PASSED, ("impact", 2))


def seam(process="GMAW", deposit=None, settings=None, roles=("root", "fill", "cap", "back", "cap"), **leaves):
    """A vessel seam; `leaves` by path with two underscores for a slash; `None` is not stated."""
    own = {**MAG, **(deposit or {})} if process == "GMAW" else {**frames.SETTINGS[process], **(deposit or {})}
    return frames.frame(process, roles, own, {**PASS, **(settings or {})}, base=SEAM, **leaves)


def seam_record(process="GMAW", deposit=None, results=PASSED, **leaves):
    """A record of a vessel seam, all its tests passed."""
    own = {**MAG, **READ, "thickness_mm": 14.0, **(deposit or {})} if process == "GMAW" else {**READ, **(deposit or {})}
    return frames.record(process, own, results, base=RECORD, **leaves)
