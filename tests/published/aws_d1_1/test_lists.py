"""The lists of AWS D1.1 against each other: what the program knows in two places is the same in both.

Source: AWS D1.1/D1.1M, 2015 and 2020, from memory: Table 5.3 (3.1) for metals, Figures 5.1 and 5.2 (3.3, 3.2).
"""

import pytest

from anlage.core.codes.kinds import Band, Only
from anlage.core.ranges import Interval
from anlage.data.joint_tables import standard_details
from anlage.data.tables import catalogue
from tests.frames import pack

METALS = {metal.id: metal for metal in catalogue().base_metals}


def listed():
    return [(name, row) for row in pack().derive.listing.rows for name in sorted(row.metals)]


def test_every_metal_of_the_list_is_in_the_catalogue_and_in_the_same_group_there():
    for name, row in listed():
        assert name in METALS, name
        own = METALS[name].d1_1_group
        if own and len(pack().derive.listing.of(catalogue().metal_group(name), None, "si")) == 1:
            assert own == row.says["group"], name
    named = {name for name, _ in listed()}
    assert {name for name, metal in METALS.items() if metal.d1_1_group} <= named


def test_no_metal_stands_in_two_rows_at_one_thickness():
    for name, _ in listed():
        metal = catalogue().metal_group(name)
        for at in (5.0, 20.0, 20.1, 40.0, 99.0):
            assert len(pack().derive.listing.of(metal, Interval.single(at), "si")) <= 1, (name, at)


@pytest.mark.parametrize("name", [name for name in standard_details() if name.startswith("D1.1")])
def test_a_standard_detail_that_is_offered_is_the_one_that_is_judged(name):
    (detail,) = [each for each in pack().details if each.id == name.removeprefix("D1.1 ")]
    own, allowed = standard_details()[name], {rule.variables[0]: rule.kind for rule in detail.rules}
    kinds = allowed["joint_type"]
    assert isinstance(kinds, Only)
    assert set(own.kinds) <= kinds.values.tokens
    assert set(own.process) <= allowed["process"].values.tokens
    for dimension, (low, high) in own.allowed.items():
        band = allowed.get(f"drawn_{dimension}")
        assert isinstance(band, Band), dimension
        assert band.low is not None
        assert band.low.number.si == pytest.approx(low), dimension
        if band.high is not None:  # without an end where the figure names none
            assert band.high.number.si == pytest.approx(high), dimension
    gouged = allowed.get("root_side")
    assert gouged is None or ("gouged" in gouged.values.tokens) is own.back_gouged
