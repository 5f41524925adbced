"""Real values for tests of codes: a coupon and a WPS from few words, everything else recorded and stated alike."""

from anlage.core.codes import Coupon, Demand, Stated, StatedDeposit, StatedPass, cover_box, judge, pair_token
from anlage.core.ranges import Interval, Numbers, Range, between, choices, numbers

# Facts that a complete record has; a test states only what it is about.
JOINT = {
    "p_number": "1+1", "p_numbers": frozenset(("1",)), "group_number": "1-1+1-1", "pwht": "none", "preheat_c": 100.0,
    "interpass_c": 200.0, "progression": "uphill", "bead_technique": "stringer", "runs": "multi",
    "coupon_weld": "groove", "heat_input_measure": "energy", "bends": "transverse", "vertical_up_bead": "stringer",
}  # fmt: skip
SMAW = {
    "process": "SMAW", "f_number": "4", "a_number": "1", "filler_classification": "E7018", "filler_present": "with",
    "product_form": "flux-coated solid", "filler_diameter_mm": 3.2, "current_type": "DCEP", "pass_thickness_mm": 3.0,
    "heat_input_kj_mm": 1.5, "operation": "manual",
}  # fmt: skip
GTAW = {
    "process": "GTAW", "f_number": "6", "a_number": "1", "filler_classification": "ER70S-2", "filler_present": "with",
    "product_form": "bare", "filler_diameter_mm": 2.4, "current_type": "DCEN", "pass_thickness_mm": 2.5,
    "heat_input_kj_mm": 1.5, "shielding_gas": "Ar", "operation": "manual", "trailing_gas": "none", "waveform": "no",
    "backing_gas": "none", "closed_chamber": "no",
}  # fmt: skip
WIRE = {
    "f_number": "6", "a_number": "1", "filler_present": "with", "filler_diameter_mm": 1.2, "current_type": "DCEP",
    "pass_thickness_mm": 4.0, "heat_input_kj_mm": 1.5, "operation": "semiautomatic", "trailing_gas": "none",
    "waveform": "no", "backing_gas": "none", "supplemental_filler": "none",
}  # fmt: skip
GMAW = WIRE | {
    "process": "GMAW", "filler_classification": "ER70S-6", "product_form": "bare", "shielding_gas": "Ar-10CO2",
    "transfer_mode": "spray",
}  # fmt: skip
MCAW = GMAW | {"process": "MCAW", "filler_classification": "E70C-6M", "product_form": "metal-cored"}
FCAW = WIRE | {
    "process": "FCAW", "filler_classification": "E71T-1M", "product_form": "flux-cored", "shielding_gas": "Ar-20CO2",
}  # fmt: skip
SAW = WIRE | {
    "process": "SAW", "filler_classification": "F7A2-EM12K", "product_form": "bare", "filler_diameter_mm": 3.2,
    "flux": "flux 12", "flux_type": "neutral", "flux_wire": "combination", "flux_tensile": "7", "recrushed_slag": "no",
    "operation": "machine", "electrodes": "single",
}  # fmt: skip
PAW = GTAW | {"process": "PAW", "keyhole": "melt-in", "orifice_gas": "Ar"}
BASE = {"SMAW": SMAW, "GTAW": GTAW, "GMAW": GMAW, "MCAW": MCAW, "FCAW": FCAW, "SAW": SAW, "PAW": PAW}
PASS_FACTS = ("heat_input_kj_mm", "pass_thickness_mm")
NONESSENTIAL = (
    "joint_type", "backing", "root_opening_mm", "retainers", "consumable_insert", "penetration_flux", "position",
    "preheat_maintenance", "trailing_gas", "gas_flow_l_min", "backing_gas", "pulsing", "amps", "tungsten", "cup_size",
    "cleaning", "back_gouging", "operation", "peening", "oscillation", "electrode_spacing", "volts", "contact_tube_mm",
    "orifice_flow_l_min",
)  # fmt: skip


def metals(one, other=None, groups=("1", "1")):
    """The facts of two P-Numbers with their groups."""
    other = other or one
    ends = (f"{one}-{groups[0]}", f"{other}-{groups[1]}")
    return {"p_number": pair_token(one, other), "p_numbers": frozenset((one, other)), "group_number": pair_token(*ends)}


def deposit(process="SMAW", t=None, **facts):
    """The recorded facts of one deposit; one that is `None` is not recorded."""
    thickness = {} if t is None else {"deposit_thickness_mm": float(t)}
    found = {**BASE[process], **thickness, **facts}
    return {name: value for name, value in found.items() if value is not None}


def coupon(thickness_mm, *deposits, name="PQR", tested=True, **facts):
    """A record of one coupon; without deposits one of SMAW through the whole thickness."""
    deposits = deposits or (deposit(t=thickness_mm),)
    joint = {**JOINT, "base_metal_thickness_mm": float(thickness_mm), **facts}
    return Coupon(name=name, joint=joint, deposits=tuple(deposits), toughness_tested=tested)


def as_set(value) -> Range:
    """A stated set from a number, (low, high), token or list of tokens."""
    if isinstance(value, Numbers) or hasattr(value, "tokens"):
        return value
    if isinstance(value, tuple):
        return between(*value)
    if isinstance(value, int | float):
        return numbers([Interval.single(value)])
    return choices(*([value] if isinstance(value, str) else sorted(value)))


def wps(like, thickness, *laid, passes=1, weld="groove", **joint):
    """A WPS that states what the record `like` holds, but for the given sets; `laid` has a mapping a deposit.

    `joint` overrides sets of the joint; each entry of `laid` overrides those of the deposit with the same index.
    """
    laid = laid or tuple({} for _ in like.deposits)
    facts = {name: value for name, value in like.joint.items() if name not in ("p_numbers", "coupon_weld")}
    stated = dict.fromkeys(NONESSENTIAL, "any") | facts | {"weld": weld} | joint
    stated |= {"base_metal_thickness_mm": thickness}
    stated.setdefault("thicker_member_mm", thickness)
    return Stated(
        {name: as_set(value) for name, value in stated.items()},
        tuple(map(_laid, like.deposits, laid, [passes] * len(laid))),
    )


def _laid(recorded, changed, passes):
    facts = {**recorded, **changed}
    process, roles = facts.pop("process"), frozenset({"root"} if facts.pop("root_only", False) else ())
    each = {name: as_set(facts.pop(name)) for name in PASS_FACTS if name in facts}
    sets = {name: as_set(value) for name, value in facts.items()}
    return StatedDeposit(process, sets, tuple(StatedPass(f"pass-{n}", each) for n in range(1, passes + 1)), roles)


def judged(pack, stated, *coupons, impact=False, weld="groove", units="si"):
    """The judgement on a WPS by some records, newest first."""
    demand = Demand(weld=weld, impact=impact, units=units)
    return judge(pack, stated, [cover_box(pack, each, demand) for each in coupons])


def verdict(pack, stated, *coupons, **demand):
    """The overall verdict."""
    return judged(pack, stated, *coupons, **demand).verdict


def failing(judgement):
    """The ids of the rungs that are not inside."""
    return sorted(rung.id for rung in judgement.rungs if rung.verdict != "inside")


def allowed(pack, record, variable, *, deposit_index=0, impact=False, weld="groove", units="si"):
    """The set a record allows for sure."""
    box = cover_box(pack, record, Demand(weld=weld, impact=impact, units=units))
    return box.deposits[deposit_index][variable].sure
