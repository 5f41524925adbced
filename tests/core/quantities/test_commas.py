"""A decimal comma is read where it can be nothing else."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.errors import InputError
from anlage.core.quantities import with_points


@pytest.mark.parametrize(
    ("text", "read"),
    [
        ("12,7", "12.7"), ("0,125", "0.125"), ("00,125", "00.125"), ("12,5..13,25 mm", "12.5..13.25 mm"),
        ("1,2 + 3,4", "1.2 + 3.4"), ("1-1/2", "1-1/2"), ("12.7", "12.7"), ("100, 200", "100, 200"), ("8..12", "8..12"),
        ("5,1234", "5.1234"), ("", ""),
    ],
)  # fmt: skip
def test_a_comma_between_digits_is_a_point(text, read):
    assert with_points(text, where="x") == read


@pytest.mark.parametrize(
    ("text", "position"),
    [("1,500", 0), ("1.234,5", 0), ("1,234.5", 0), ("8..1,500", 3), ("1,2,3", 0), ("12,000 mm", 0), ("5 + 1,250", 4)],
)
def test_what_may_be_one_number_or_another_is_refused_where_it_stands(text, position):
    with pytest.raises(InputError, match="may be one number or another") as refused:
        with_points(text, where="x")
    assert refused.value.position == position


@given(st.text("0123456789.,/- mx+", max_size=20))
def test_every_letter_keeps_its_place(text):
    try:
        read = with_points(text, where="x")
    except InputError:
        return
    assert len(read) == len(text)
    assert all(a == b or (a, b) == (",", ".") for a, b in zip(text, read, strict=True))
