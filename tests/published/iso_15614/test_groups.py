"""The groups of ISO/TR 15608:2017 (H, from memory) against the yields and compositions of the grades that ship."""

import pytest

from anlage.data.own_materials import iso15608_groups
from anlage.data.tables import shipped_catalogue

STEELS = [row for row in shipped_catalogue().base_metals if row.iso15608_group in iso15608_groups()]


@pytest.mark.parametrize(
    ("yield_mpa", "groups"),
    [
        (275, {"1.1", "1.4"}),
        (276, {"1.2", "1.4"}),
        (360, {"1.2", "1.4"}),
        (361, {"1.3", "1.4", "2.1", "3.1"}),
        (460, {"1.3", "1.4", "2.1", "3.1"}),
        (461, {"2.2", "3.1"}),
        (690, {"2.2", "3.1"}),
        (691, {"2.2", "3.2"}),
    ],
)
def test_a_yield_is_of_the_groups_whose_bounds_it_lies_within(yield_mpa, groups):
    graded = ("1.1", "1.2", "1.3", "1.4", "2.1", "2.2", "3.1", "3.2")
    assert {each for each in graded if iso15608_groups()[each].holds(yield_mpa)} == groups


@pytest.mark.parametrize("metal", STEELS, ids=lambda row: row.id)
def test_the_yield_of_a_grade_that_ships_is_one_of_its_group(metal):
    assert metal.smys_mpa is None or iso15608_groups()[metal.iso15608_group].holds(metal.smys_mpa)


def test_every_group_of_a_grade_that_ships_is_one():
    groups = {row.iso15608_group for row in shipped_catalogue().base_metals} - {""}
    assert groups <= set(iso15608_groups())
