"""From a procedure as a document to the sets it states, variable by variable, as the judge reads them."""

from collections.abc import Mapping

from anlage.core.codes import Stated, StatedDeposit, StatedPass
from anlage.core.codes.derive import filler_facts, metal_facts
from anlage.core.codes.facts import Demand
from anlage.core.document import Dimension, fields_of
from anlage.core.errors import UnknownNameError
from anlage.core.procedure import Deposit, Pass, Wps, pass_energy
from anlage.core.ranges import Choices, Interval, Numbers, Range, choices, numbers
from anlage.data.code_packs import a_number_table
from anlage.data.tables import catalogue
from anlage.session.judging.records import backing_of, is_known_filler, metals_of


def demand_of(wps: Wps) -> Demand:
    """Return what a procedure asks of any record; a demand that is not stated is not made."""
    header = wps.header
    return Demand(
        weld=header.weld or "groove", impact=bool(header.impact), hardness=bool(header.hardness), units=header.units
    )


def stated_of(wps: Wps) -> Stated:
    """Return the sets of a procedure; what is not stated, or not known to the catalogue, has none."""
    return Stated(_kept(_joint(wps)), tuple(_deposit(wps, each) for each in wps.deposits))


_Value = Interval | Dimension | float | str | None


def _kept(values: Mapping[str, _Value]) -> dict[str, Range]:
    return {name: _as_set(value) for name, value in values.items() if value not in (None, "")}


def _as_set(value: _Value) -> Numbers | Choices:
    if isinstance(value, Dimension):
        value = value.span
    if isinstance(value, Interval):
        return numbers([value])
    if isinstance(value, str):
        return choices(value)
    assert value is not None
    return numbers([Interval.single(value)])


def _joint(wps: Wps) -> dict[str, _Value]:
    joint, technique, pwht = wps.joint, wps.technique, wps.pwht
    metals = metals_of(wps.metals)
    groups = {name: fact for name, fact in metal_facts(*metals).items() if isinstance(fact, str)} if metals else {}
    return {
        **groups,
        "weld": wps.header.weld,
        "base_metal_thickness_mm": wps.range.thickness_mm,
        "thicker_member_mm": wps.range.thicker_member_mm or wps.range.thickness_mm,
        "diameter_mm": wps.range.diameter_mm,
        "preheat_c": wps.preheat.minimum_c,
        "interpass_c": wps.preheat.interpass_maximum_c,
        "preheat_maintenance": wps.preheat.maintenance,
        "pwht": pwht.kind,
        "pwht_temperature_c": pwht.temperature_c,
        "pwht_time_h": pwht.time_h,
        "joint_type": joint.kind,
        "backing": backing_of(joint),
        "root_opening_mm": joint.root_opening_mm,
        "retainers": joint.retainers,
        **{name: getattr(technique, name) for name in fields_of(type(technique))},
    }


PLAIN = (
    "filler_diameter_mm", "current_type", "transfer_mode", "backing_gas", "trailing_gas", "gas_flow_l_min", "tungsten",
    "operation", "consumable_insert", "penetration_flux", "closed_chamber", "pulsing", "oscillation", "electrodes",
    "electrode_spacing",
)  # fmt: skip


def _deposit(wps: Wps, deposit: Deposit) -> StatedDeposit:
    values: dict[str, _Value] = {name: getattr(deposit, name) for name in PLAIN}
    values |= {"deposit_thickness_mm": deposit.thickness_mm, "cup_size": deposit.cup_size_mm}
    values |= {"shielding_gas": _gas(deposit.shielding_gas)}
    if deposit.process == "SMAW":
        values["filler_present"] = "with"  # its electrode is its filler
    if deposit.filler and deposit.filler.casefold() == "none":
        values["filler_present"] = "without"
    elif is_known_filler(deposit.filler):
        facts = filler_facts(catalogue().filler(deposit.filler or ""), table=a_number_table())
        values |= {name: fact for name, fact in facts.items() if isinstance(fact, str)}
    passes = tuple(StatedPass(each.id, _kept(_pass(each))) for each in wps.passes if each.deposit == deposit.id)
    return StatedDeposit(deposit.process or "", _kept(values), passes)


def _gas(name: str | None) -> str | None:
    if not name or name.casefold() == "none":
        return name
    try:
        return catalogue().gas(name).id
    except UnknownNameError:
        return name


def _pass(each: Pass) -> dict[str, _Value]:
    energy = pass_energy(each)
    return {
        "heat_input_kj_mm": energy.interval if energy else None,
        "pass_thickness_mm": each.thickness_mm,
        "amps": each.current_a,
        "volts": each.voltage_v,
        "travel_speed_mm_min": each.travel_speed_mm_min,
    }
