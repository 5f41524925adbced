"""A code that compares heat input, with the efficiency of the process in it; invented for these tests."""

import pytest

from anlage.core.codes import Demand, cover_box, judge, read_pack
from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS
from anlage.core.record import PQR
from anlage.data.code_packs import pack_names
from anlage.data.files import text_of
from anlage.session.judging.records import coupon_of
from anlage.session.judging.statements import stated_of

CODE = """
[pack]
code = "heat-code"
name = "Heat code"
title = "Invented: no more heat input than on the coupon"
editions = ["1"]
processes = ["SMAW", "GTAW"]
source = "invented for a test"
basis = "{basis}"

[[category]]
id = "binding"
word = "binding"

[[rule]]
id = "process"
variable = "process"
clause = "2"
title = "Process"
category = "binding"
scope = "deposit"
kind = "same"
confidence = "H"

[[rule]]
id = "heat"
variable = "heat_input_kj_mm"
clause = "1"
title = "Heat input"
category = "binding"
scope = "pass"
kind = "band"
confidence = "H"
high = {{ times = 1, take = "most" }}
"""
K = {"GTAW": 0.6, "SMAW": 0.8}  # EN 1011-1:2009 Table 1, from memory


def pack(basis):
    return read_pack({"pack.toml": CODE.format(basis=basis)}, names=pack_names())


def procedure(**changed):
    found = read_strict(text_of("demo/OST-W-01.json"), WPS)
    for path, value in changed.items():
        found = with_at(found, path.replace("__", "/"), value)
    return found


def record():
    return read_strict(text_of("demo/OST-R-01.json"), PQR)


def heats(basis, wps):
    return {
        deposit.process: [each.sets.get("heat_input_kj_mm") for each in deposit.passes]
        for deposit in stated_of(wps, pack(basis)).deposits
    }


def test_the_stated_energy_is_scaled_by_the_efficiency_of_each_process():
    arc, heat = heats("arc_energy", procedure()), heats("heat_input", procedure())
    assert {process: len(found) for process, found in arc.items()} == {p: len(found) for p, found in heat.items()}
    for process, found in arc.items():
        for own, other in zip(found, heat[process], strict=True):
            (a,), (b,) = own.parts, other.parts
            assert (b.low, b.high) == pytest.approx((a.low * K[process], a.high * K[process]))


def test_of_a_weld_whose_efficiency_nobody_knows_no_heat_input_is_stated():
    fused = procedure(deposits__d1__filler="none")
    assert set(heats("heat_input", fused)["GTAW"]) == {None}
    assert None not in heats("arc_energy", fused)["GTAW"]


def verdicts(basis):
    code, demand = pack(basis), Demand()
    boxes = [cover_box(code, coupon_of(record(), code), demand)]
    return {rung.id: rung.verdict for rung in judge(code, stated_of(procedure(), code), boxes).rungs}


def test_a_record_and_a_procedure_are_compared_in_one_basis():
    """Both ends carry the same efficiency, so that no verdict hangs on which basis the code compares."""
    assert verdicts("heat_input") == verdicts("arc_energy")


@pytest.mark.parametrize(("told", "counts"), [("heat_input", True), ("arc_energy", False)])
def test_what_was_recorded_as_heat_input_counts_where_that_is_compared(told, counts):
    bare = record()
    own = bare.deposits[0].id
    for name in ("voltage_v", "current_a", "travel_speed_mm_min"):
        bare = with_at(bare, f"deposits/{own}/{name}", None)
    bare = with_at(with_at(bare, "welded", ()), f"deposits/{own}/heat_input_kj_mm", {"mean": 1.2})
    bare = with_at(bare, f"deposits/{own}/heat_input_basis", told)
    facts = coupon_of(bare, pack("heat_input")).deposits[0]
    as_energy = coupon_of(bare, pack("arc_energy")).deposits[0]
    if told == "arc_energy":
        assert facts["heat_input_kj_mm"].mean == pytest.approx(1.2 * K["GTAW"])
    else:
        assert ("heat_input_kj_mm" in facts) is counts
    assert ("heat_input_kj_mm" in as_energy) is (told == "arc_energy")
