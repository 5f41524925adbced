"""Documents made from others: what is planned goes along, what was found or said of one weld does not."""

from typing import Any

from anlage.core.document import with_
from anlage.core.machine import Machine
from anlage.core.procedure import Wps
from anlage.core.record import Override, Pqr, with_recorded_deposit, with_row
from anlage.data.tables import vocabulary
from anlage.session.works.standing import as_draft

CARRIED = ("process", "filler", "current_type", "transfer_mode", "shielding_gas", "backing_gas", "trailing_gas",
           "operation", "closed_chamber", "electrodes", "waveform", "flux", "flux_type", "recrushed_slag",
           "supplemental_filler", "filler_make", "orifice_gas", "keyhole", "output", "hot_wire", "progression",
           "oscillation")  # fmt: skip
# What is read of a deposit, and when: none of it goes along.
READ = ("current_a", "voltage_v", "travel_speed_mm_min", "heat_input_kj_mm", "wire_speed_mm_min", "gas_flow_l_min",
        "travel_angle_deg", "work_angle_deg", "spacing_along_mm", "spacing_across_mm",
        "parallel_angle_deg")  # fmt: skip
TIMED = {"root_to_second_min": None, "second_to_rest_min": None}
FOUND = {
    "preheat_least_c": None, "interpass_most_c": None, "welded": (), "results": (), "pieces": (),
    "toughness_tested": None, "override": Override(), "welded_on": None, "welder": None, "laboratory": None,
}  # fmt: skip


def copied(value: Any) -> Any:
    """Return a document to go on from; of a record or machine without what was read, which is of that one alone."""
    if isinstance(value, Wps):
        return as_draft(value)
    if isinstance(value, Machine):
        return with_(value, readings=())
    deposits = tuple(with_(each, **dict.fromkeys(READ)) for each in value.deposits)
    return with_(value, deposits=deposits, technique=with_(value.technique, **TIMED), **FOUND)


def coupon_of(wps: Wps) -> Pqr:
    """Return a record of a coupon to be welded by a procedure, before anything is welded or measured.

    Metals, joint, technique, deposits and passes go along. What is measured is not: how thick a deposit is, how long
    it was between beads, what was read of a pass. Where several positions or sizes are stated, which one is welded is
    not known yet.
    """
    position = wps.technique.position
    technique = with_(wps.technique, **TIMED)
    technique = technique if is_one_position(position) else with_(technique, position=None)
    pqr = Pqr(
        header=wps.header, metals=wps.metals, joint=wps.joint, technique=technique,
        pwht=with_(wps.pwht, temperature_c=None, time_h=None),
    )  # fmt: skip
    homes: dict[str, str] = {}
    for each in wps.deposits:
        size = each.filler_diameter_mm.low if each.filler_diameter_mm and each.filler_diameter_mm.is_single else None
        planned = {name: getattr(each, name) for name in CARRIED}
        pqr, homes[each.id] = with_recorded_deposit(pqr, **planned, filler_diameter_mm=size)
    for one in wps.passes:
        pqr, _ = with_row(pqr, "welded", deposit=homes[one.deposit])
    return pqr


def is_one_position(position: str | None) -> bool:
    """Return whether a text names one position, as a coupon is welded in.

    Examples
    --------
    >>> is_one_position("6G"), is_one_position("1G, 3G"), is_one_position("all")
    (True, False, False)
    """
    return bool(position) and position in vocabulary().tokens["position"] and position != "all"
