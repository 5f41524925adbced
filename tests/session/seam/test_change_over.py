"""What is done between passes that are not welded alike."""

import pytest

from anlage.core.document import with_at
from anlage.core.procedure import Wps, with_deposit, with_pass
from anlage.session.seam.change_over import change_overs

TIG = {"process": "GTAW", "filler": "ER70S-2", "filler_diameter_mm": [2.4, 2.4], "current_type": "DCEN",
       "shielding_gas": "Ar", "gas_flow_l_min": [8, 12]}  # fmt: skip
STICK = {"process": "SMAW", "filler": "E7018", "filler_diameter_mm": [3.2, 3.2], "current_type": "DCEP"}
WIRE = {"process": "GMAW", "filler": "ER70S-6", "filler_diameter_mm": [1.2, 1.2], "current_type": "DCEP",
        "shielding_gas": "Ar-12CO2"}  # fmt: skip


def welded(*deposits, order=None):
    """A procedure of one pass a deposit, or of the passes whose deposits `order` names by place."""
    wps, homes = Wps(), []
    for each in deposits:
        wps, home = with_deposit(wps, **each)
        homes.append(home)
    for place in order or range(len(homes)):
        wps, _ = with_pass(wps, homes[place])
    return wps


def steps(*deposits, **said):
    found = change_overs(welded(*deposits, **said), "si")
    return [(each.number, [step.replace("\N{NO-BREAK SPACE}", " ") for step in each.steps]) for each in found]


def test_from_torch_to_stick_the_gas_is_shut_the_torch_made_safe_and_the_leads_are_swapped():
    assert steps(TIG, STICK) == [(2, [
        "shut off Ar and bleed its hose",
        "take off the torch with its switch or pedal: on the same source it stays live",
        "change from GTAW to SMAW", "swap the leads, DCEN to DCEP", "take E7018 3.2 mm",
    ])]  # fmt: skip


def test_from_stick_to_torch_the_electrode_comes_out_and_the_gas_is_opened():
    assert steps(STICK, TIG) == [(2, [
        "take the electrode out of the holder and hang it clear of the work", "change from SMAW to GTAW",
        "swap the leads, DCEP to DCEN", "open Ar at 8..12 l/min and let it run before the arc", "take ER70S-2 2.4 mm",
    ])]  # fmt: skip


def test_another_gas_and_another_size_of_one_process():
    other = {**WIRE, "shielding_gas": "CO2"}
    assert steps(WIRE, other) == [(2, ["change the gas from Ar-12CO2 to CO2 and flush the hose"])]
    assert steps(STICK, {**STICK, "filler_diameter_mm": [4.0, 4.0]}) == [(2, ["take E7018 4 mm"])]
    assert steps(STICK, {**STICK, "current_type": "AC"}) == [(2, ["set the source from DCEP to AC"])]


def test_every_change_is_told_where_it_falls_and_none_where_nothing_changes():
    assert [number for number, _ in steps(TIG, STICK, order=(0, 0, 1, 1, 0))] == [3, 5]
    assert steps(TIG) == steps(STICK, STICK) == steps(STICK, order=(0, 0, 0)) == []


@pytest.mark.parametrize("left_out", ["one", "other"])
def test_what_is_not_stated_is_not_taken_as_unchanged(left_out):
    pair = {"one": dict(WIRE), "other": {**WIRE, "shielding_gas": "CO2"}}
    del pair[left_out]["current_type"], pair[left_out]["shielding_gas"]
    assert steps(*pair.values()) == [(2, [
        "a current is not stated: whether the leads are swapped is not known",
        "a shielding gas is not stated: whether it changes is not known",
    ])]  # fmt: skip
    core = {**WIRE, "process": "FCAW", "filler": "E71T-8", "shielding_gas": "none"}
    assert "shut off Ar-12CO2 and bleed its hose" in steps(WIRE, core)[0][1]


def test_sizes_follow_the_units_of_whoever_reads():
    wps = welded(STICK, {**STICK, "filler_diameter_mm": [2.4, 2.4]})
    assert change_overs(wps, "us")[0].text.replace("\N{NO-BREAK SPACE}", " ") == "Before pass 2: take E7018 3/32 in."
    assert change_overs(with_at(wps, "header/number", "X"), "us") == change_overs(wps, "us")


@pytest.mark.parametrize(
    ("one", "other", "step"),
    [
        ("M-1", "M-2", "go over from machine M-1 to M-2: leads, clamp and remote too"),
        ("M-1", None, "one machine is not stated: whether it is the same is not known"),
        (" ", "M-2", "one machine is not stated: whether it is the same is not known"),
        ("M-1", "m 1 ".replace(" ", "-", 1), ""),
        (None, None, ""),
    ],
)
def test_another_machine_is_gone_over_to(one, other, step):
    ((_, found),) = steps({**TIG, "machine": one}, {**STICK, "machine": other})
    assert [each for each in found if "machine" in each] == ([step] if step else [])
