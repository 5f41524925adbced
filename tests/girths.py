"""Pipeline procedures and records from few words, as whole documents: what a test does not say is sound.

`girth` is a girth weld of X52 by cellulosic electrodes going down; `girth_record` the record that it rests on.
"""

from anlage.core.document import Dimension
from tests import frames

SETTINGS = {"filler": "E6010", "filler_diameter_mm": 4.0, "current_type": "DCEP", "operation": "manual"}
PASS = {"current_a": (120, 150), "voltage_v": (24, 30), "travel_speed_mm_min": (250, 380)}
IN = 25.4
GIRTH = {
    "header/number": "G-1", "header/codes": ("api-1104",), "header/units": "us", "header/weld": "groove",
    "header/impact": False, "header/hardness": False, "header/sour_service": False, "metals/one/name": "X52-PSL2",
    "joint/product": "pipe", "joint/kind": "single-v", "joint/thickness_mm": 0.406 * IN, "joint/od_mm": 16 * IN,
    "joint/root_opening_mm": Dimension(nominal=1.6), "joint/root_face_mm": Dimension(nominal=1.6),
    "joint/groove_angle_deg": Dimension(nominal=60.0), "range/thickness_mm": (0.25 * IN, 0.5 * IN),
    "range/diameter_mm": (12.75 * IN, 24 * IN), "technique/position": "5G", "technique/progression": "downhill",
    "technique/root_to_second_min": 5.0, "technique/second_to_rest_min": 20.0, "technique/clamp": "internal",
    "technique/cleaning": "power brush", "preheat/minimum_c": 20.0, "pwht/kind": "none",
}  # fmt: skip
RECORD = {
    "header/number": "GR-1", "header/codes": ("api-1104",), "header/units": "us", "header/weld": "groove",
    "metals/one/name": "X52-PSL2", "joint/product": "pipe", "joint/kind": "single-v",
    "joint/thickness_mm": 0.406 * IN, "joint/od_mm": 16 * IN, "technique/position": "5G",
    "technique/progression": "downhill", "technique/root_to_second_min": 6.0, "preheat_least_c": 10.0,
    "pwht/kind": "none",
}  # fmt: skip
PASSED = (("tension", 4), ("nick break", 4), ("root bend", 4), ("face bend", 4), ("side bend", 8))
RANGES = {"travel_range_mm_min": (200, 400)}
READ = {name: sum(ends) / 2 for name, ends in PASS.items()}


def girth(process="SMAW", deposit=None, settings=None, roles=("root", "hot", "fill", "cap"), **leaves):
    """A girth weld; `leaves` by path with two underscores for a slash; `None` is not stated."""
    own = {**({} if process != "SMAW" else SETTINGS), **(deposit or {})}
    return frames.frame(process, roles, own, {**PASS, **(settings or {})}, base=GIRTH, **leaves)


def girth_record(process="SMAW", deposit=None, results=PASSED, **leaves):
    """A record of a girth weld, all its tests passed."""
    own = {**({} if process != "SMAW" else SETTINGS), **RANGES, **READ, **(deposit or {})}
    own |= {name: frames.span(value) for name, value in own.items() if "_range_" in name and value}
    return frames.record(process, own, results, base=RECORD, **leaves)
