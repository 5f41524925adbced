"""Structural procedures and records from few words, as whole documents: what a test does not say is sound.

`frame` is a groove on steel backing that needs no test, flux cored wire laid flat; `tested` a record of a plate.
"""

from anlage.core.document import Dimension, with_at
from anlage.core.procedure import Metal, Metals, Wps, with_deposit, with_pass
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, with_recorded_deposit, with_row
from anlage.data.code_packs import code_pack
from anlage.session.judging.assessment import Assessor

SETTINGS = {
    "FCAW": {
        "filler": "E71T-1M", "filler_diameter_mm": 1.2, "shielding_gas": "Ar-25CO2", "gas_flow_l_min": (16, 20),
        "output": "constant-voltage", "electrodes": "single", "current_type": "DCEP", "operation": "semiautomatic",
        "maker_current_a": (150, 300),
    },
    "GMAW": {
        "filler": "ER70S-6", "filler_diameter_mm": 1.2, "shielding_gas": "Ar-18CO2", "gas_flow_l_min": (16, 20),
        "output": "constant-voltage", "electrodes": "single", "current_type": "DCEP", "transfer_mode": "spray",
        "operation": "semiautomatic", "maker_current_a": (150, 320),
    },
    "SMAW": {
        "filler": "E7018", "filler_diameter_mm": 4.0, "current_type": "DCEP", "operation": "manual",
        "maker_current_a": (130, 220),
    },
    "SAW": {
        "filler": "F7A2-EM12K", "filler_diameter_mm": 4.0, "current_type": "DCEP", "operation": "machine",
        "output": "constant-voltage", "electrodes": "single", "flux": "flux 12", "flux_type": "neutral",
        "recrushed_slag": "no", "supplemental_filler": "none", "travel_angle_deg": (0, 0), "work_angle_deg": (0, 0),
    },
    "GTAW": {
        "filler": "ER70S-2", "filler_diameter_mm": 2.4, "shielding_gas": "Ar", "gas_flow_l_min": (10, 14),
        "current_type": "DCEN", "operation": "manual", "hot_wire": "no",
    },
}  # fmt: skip
PASS = {
    "FCAW": {
        "current_a": (210, 240), "voltage_v": (25, 27), "travel_speed_mm_min": (280, 360),
        "wire_speed_mm_min": (7300, 7700),
    },
    "GMAW": {
        "current_a": (230, 260), "voltage_v": (26, 28), "travel_speed_mm_min": (300, 380),
        "wire_speed_mm_min": (7600, 8000),
    },
    "SMAW": {"current_a": (140, 180), "voltage_v": (22, 26), "travel_speed_mm_min": (120, 180)},
    "SAW": {"current_a": (500, 560), "voltage_v": (30, 32), "travel_speed_mm_min": (420, 500)},
    "GTAW": {"current_a": (110, 140), "voltage_v": (11, 13), "travel_speed_mm_min": (80, 120)},
}  # fmt: skip
BEADS = ("root", "fill", "fill", "fill", "fill+", "fill", "fill+", "cap", "cap+")  # a plus lies beside the one before
FRAME = {
    "header/number": "F-1", "header/codes": ("aws-d1.1",), "header/weld": "groove", "header/impact": False,
    "header/hardness": False, "header/sour_service": False,
    "header/loading": "static", "header/strength": "matching", "metals/one/name": "A36",
    "joint/product": "plate", "joint/kind": "v-backing", "joint/thickness_mm": 16.0,
    "joint/root_opening_mm": Dimension(nominal=6.0), "joint/root_face_mm": Dimension(nominal=0.0),
    "joint/groove_angle_deg": Dimension(nominal=45.0), "joint/backing_form": "bar", "range/thickness_mm": (6.0, 20.0),
    "technique/position": "1G", "technique/progression": "none", "technique/runs": "multi",
    "preheat/minimum_c": 20.0, "preheat/interpass_maximum_c": 250.0, "pwht/kind": "none",
}  # fmt: skip


def span(value):
    """A stated range from a number or two."""
    return Interval(*value) if isinstance(value, tuple) else Interval(value, value)


def _value(name, value):
    is_span = (isinstance(value, tuple) and not isinstance(value[0], str)) or name == "filler_diameter_mm"
    return span(value) if is_span else value


def frame(process="FCAW", roles=BEADS, deposit=None, settings=None, base=None, **leaves):
    """A structural procedure: `leaves` by path with two underscores for a slash; `None` is not stated."""
    return also(frame_without_deposit(base or FRAME, **leaves), process, roles, deposit, settings)


def frame_without_deposit(base, **leaves):
    """A procedure in which nothing is laid yet."""
    wps = Wps(metals=Metals(other=Metal())) if "metals__other__name" in leaves else Wps()
    for path, value in {**base, **{name.replace("__", "/"): each for name, each in leaves.items()}}.items():
        wps = with_at(wps, path, _value(path, value))
    return wps


def also(wps, process, roles, deposit=None, settings=None):
    """The procedure with one more deposit, its passes all alike."""
    own = {**SETTINGS[process], **(deposit or {})}
    kept = {name: _value(name, value) for name, value in own.items() if value is not None}
    wps, home = with_deposit(wps, process=process, **kept)
    laid = {name: _value(name, value) for name, value in {**PASS[process], **(settings or {})}.items() if value}
    for role in roles:
        wps, _ = with_pass(wps, home, role=role.rstrip("+"), layer="beside" if role.endswith("+") else "new", **laid)
    return wps


RECORD = {
    "header/number": "R-1", "header/codes": ("aws-d1.1",), "header/weld": "groove", "metals/one/name": "A36",
    "joint/product": "plate", "joint/kind": "v-backing", "joint/thickness_mm": 16.0,
    "joint/root_opening_mm": Dimension(nominal=6.0), "joint/root_face_mm": Dimension(nominal=0.0),
    "joint/groove_angle_deg": Dimension(nominal=45.0), "joint/backing_form": "bar", "technique/position": "1G",
    "technique/progression": "none", "technique/runs": "multi", "preheat_least_c": 25.0, "interpass_most_c": 180.0,
    "pwht/kind": "none",
}  # fmt: skip
PASSED = (("visual", 1), ("ultrasonic", 1), ("tension", 2), ("side bend", 4), ("face bend", 2), ("root bend", 2))
MEASURED = {"current_a": 225.0, "voltage_v": 26.0, "travel_speed_mm_min": 320.0, "gas_flow_l_min": 18.0}


def record(process="FCAW", deposit=None, results=PASSED, base=None, **leaves):
    """A record of a structural coupon, all its tests passed."""
    pqr = Pqr(metals=Metals(other=Metal())) if "metals__other__name" in leaves else Pqr()
    for path, value in {**(base or RECORD), **{name.replace("__", "/"): each for name, each in leaves.items()}}.items():
        pqr = with_at(pqr, path, _value(path, value))
    own = {name: each for name, each in SETTINGS[process].items() if name != "maker_current_a"} | {
        name: sum(PASS[process][name]) / 2 for name in PASS[process] if name != "wire_speed_mm_min"
    }
    for name, value in {**own, "thickness_mm": pqr.joint.thickness_mm, **(deposit or {})}.items():
        own[name] = value
    kept = {name: _recorded(name, value) for name, value in own.items() if value is not None}
    pqr, _ = with_recorded_deposit(pqr, process=process, **kept)
    for kind, count in results:
        pqr, _ = with_row(pqr, "results", kind=kind, count=count, passed=True)
    return pqr


def _recorded(name, value):
    middle = (value[0] + value[1]) / 2 if isinstance(value, tuple) else value
    return {"mean": middle} if name in ("current_a", "voltage_v", "travel_speed_mm_min") and not isinstance(
        value, dict
    ) else middle  # fmt: skip


def judged(wps, *records):
    """How a procedure stands by its code against some records."""
    found = Assessor([(str(n), each) for n, each in enumerate(records)]).assess(wps)
    assert found.judgement is not None, found.missing
    return found.judgement


def amiss(wps, *records):
    """The rungs that are not inside, each with its verdict."""
    rungs = judged(wps, *records).rungs
    return {rung.variable: rung.verdict for rung in rungs if rung.verdict != "inside"}


def pack():
    """The pack of the code."""
    return code_pack("aws-d1.1")


def assert_caught(variable, clause, wrong, records):
    """Fail unless one rung of a procedure is outside at a variable, by a clause."""
    caught = [each for each in judged(wrong, *records).rungs if each.variable == variable]
    assert [each.verdict for each in caught] == ["outside"], amiss(wrong, *records)
    assert clause in caught[0].clause
