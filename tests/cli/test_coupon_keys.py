"""Keys of `anlage coupon` that one code or another asks for: sizes of a fillet, the time of a heat treatment, gases."""

import json

import pytest

from tests.cli.test_documents import ask, refusal

COUPON = ("process=SMAW", "thickness=10mm")


def bought(capsys, code, *words):
    status, out = ask(capsys, "coupon", "--code", code, *words, "--json")
    assert status == 0
    return json.loads(out)["variables"]


def test_the_throat_of_a_fillet_in_one_run_is_three_quarters_to_one_and_a_half(capsys):
    """ISO 15614-1:2017 Table 7 (M, from memory)."""
    words = (*COUPON, "weld=fillet", "runs=single", "throat=7mm")
    assert bought(capsys, "iso-15614-1-l2", *words)["throat_mm"]["allowed"] == [5.25, 10.5]
    assert bought(capsys, "iso-15614-1-l2", *words[:-1])["throat_mm"]["allowed"] is None, "nobody says how large it is"


def test_a_stated_leg_makes_the_coupon_a_fillet(capsys):
    found = bought(capsys, "aws-d1.1", *COUPON, "weld=fillet", "runs=single", "leg=8mm")
    assert found["leg_mm"]["allowed"] == [0.0, 8.0]


def test_the_coupon_carries_at_least_four_fifths_of_the_time_at_temperature(capsys):
    """ASME IX QW-407.2 (H, from memory): of a range the shorter counts."""
    words = ("base=A516-70", "pwht=620degC", "impact=yes", "pwht_time=2..3h")
    assert bought(capsys, "asme-ix", *COUPON, *words)["pwht_time_h"]["allowed"][1] == pytest.approx(2.5)


def test_a_trailing_gas_is_one_of_the_catalogue_or_none(capsys):
    words = ("process=GTAW", "thickness=6mm", "p_number=51")
    assert bought(capsys, "asme-ix", *words, "trailing_gas=Ar")["trailing_gas.GTAW"]["allowed"] != "any"
    assert "fog" in refusal(capsys, "coupon", "--code", "asme-ix", *words, "trailing_gas=fog")


@pytest.mark.parametrize(
    ("word", "said"),
    [("throat=7..9mm", "7..9mm is a range"), ("leg=8", "8 has no unit"), ("pwht_time=2", "2 has no unit")],
)
def test_a_size_without_unit_or_end_is_refused(capsys, word, said):
    assert said in refusal(capsys, "coupon", "--code", "aws-d1.1", *COUPON, word)
