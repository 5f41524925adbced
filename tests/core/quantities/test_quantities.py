"""Quantities as people type them: fractions, arithmetic, ranges, units; refusals that say where and how to mend."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.errors import AnlageError, FormatError, InputError
from anlage.core.quantities import inch_text, parse, read, read_units, show, show_interval
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table


@pytest.mark.parametrize(
    ("text", "kind", "value"),
    [
        ("3/8 in - 1/16 in", "length", 7.9375),
        ("3/8 - 1/16 in", "length", 7.9375),
        ("1-1/2 in", "length", 38.1),
        ("1 5/8 in", "length", 41.275),
        ('1½"', "length", 38.1),
        ("5 ft 3 in", "length", 1600.2),
        (".5 in", "length", 12.7),
        ("2 × 3.2 mm + 1 mm", "length", 7.4),
        ("25 mm / 2", "length", 12.5),
        ("25mm/2", "length", 12.5),
        ("1e1 mm", "length", 10.0),
        ("7 thou", "length", 0.1778),
        ("10 IPM", "speed", 254.0),
        ("5 mm/s", "speed", 300.0),
        ("20 cfh", "flow", 9.438948864),
        ("250 °F", "temperature", 121.1111111),
        ("-20 °C", "temperature", -20.0),
        ("250 °F - 20 °F", "temperature", 110.0),
        ("100 °F", "temperature_difference", 55.5555556),
        ("2 min 30 s", "time", 150.0),
    ],
)
def test_trade_spellings_are_read(text, kind, value, units):
    assert parse(text, kind, units).low == pytest.approx(value, rel=1e-9)


@pytest.mark.parametrize("text", ["23..26 V", "23 V..26 V", "23 to 26 V", "23…26 volts", "23 .. 26 V"])
def test_a_range_takes_its_unit_at_the_end_or_at_both(text, units):
    assert parse(text, "voltage", units) == Interval(23, 26)


@pytest.mark.parametrize(
    ("text", "kind", "message", "position"),
    [
        ("250", "speed", "speed: 250 has no unit; write 250 mm/min or 250 in/min", 0),
        ("2,5 mm", "length", "length: 2,5 has a comma; write 2.5", 0),
        ("250 mph", "speed", "speed: mph at character 4 is no unit of speed; take m/h", 3),
        ("5 mm + 3", "length", "length: 3 has no unit; write 3 mm or 3 in", 7),
        ("6..4 mm", "length", "length: 6..4 mm holds nothing; swap the ends", 0),
        ("3/0 in", "length", "a fraction over zero", 0),
        ("4 mm / 0", "length", "nothing divides by zero", 7),
        ("-5 mm", "length", "below zero; state a length above zero", 1),
        ("-5 h", "hours", "below zero; state hours above zero", 1),
        ("-300 °C", "temperature", "below -273.15", 1),
        ("23-26 V", "voltage", "write 23..26 for a range", 2),
        ("2 °C × 3", "temperature", "a temperature cannot be multiplied", 7),
        ("3 mm × 4 mm", "length", "only a plain number multiplies", 7),
        ("nan mm", "length", "nan mm is not a number", 0),
        ("5. mm", "length", "a dot stands alone", 1),
        ("5 mm +", "length", "stops short", 6),
        ("1e999 mm", "length", "above 10000000 mm; state a possible length", 0),
        ("", "length", "nothing is stated; write a number with 1 mm or 1 in", 0),
    ],
)
def test_a_refusal_says_what_where_and_how_to_mend(text, kind, message, position, units):
    with pytest.raises(InputError) as refusal:
        parse(text, kind, units, where=kind)
    assert message in str(refusal.value)
    assert refusal.value.position == position


def line_or_number(text, units):
    try:
        return parse(text, "length", units).high
    except InputError as refusal:
        return str(refusal)


@pytest.mark.parametrize(
    "text", ["9" * 100_000, "1/" * 90, "(" * 150, "1 + " * 49 + "1 mm", "٣ mm", "\0", "1e-400 mm mm", "x" * 199]
)
def test_hostile_text_answers_at_once_with_a_number_or_one_line(text, units):
    answer = line_or_number(text, units)
    finite = isinstance(answer, float) and math.isfinite(answer)
    assert finite or ("\n" not in answer and len(answer) < 400)


@given(st.text(alphabet="0123456789 ./-+×x,eE°CFmminµ\"'", max_size=60))
def test_any_text_is_a_finite_quantity_or_a_refusal(text):
    for kind in ("length", "temperature"):
        try:
            found = parse(text, kind, unit_table())
        except AnlageError:
            continue
        assert math.isfinite(found.low)
        assert found.low <= found.high


def test_a_bare_number_takes_the_unit_of_its_field_only(units):
    assert parse("3/8", "length", units, bare="in").low == pytest.approx(9.525)
    assert parse("3 mm", "length", units, bare="in").low == 3
    with pytest.raises(InputError, match="has no unit"):
        parse("3/8", "length", units)


def test_the_units_named_are_told(units):
    assert read("1 in + 2 mm", "length", units).units == ("in", "mm")


@given(st.integers(1, 400), st.sampled_from((2, 4, 8, 16, 32)))
def test_a_fraction_shown_reads_back_as_itself(numerator, denominator):
    length_mm = numerator / denominator * 25.4
    assert parse(inch_text(length_mm) + " in", "length", unit_table()).low == pytest.approx(length_mm)


@pytest.mark.parametrize(
    ("length_mm", "wall", "text"),
    [(2.38, False, "3/32"), (38.1, False, "1-1/2"), (25.4, False, "1"), (13.3, False, "0.524"), (0.0, False, "0"),
     (11.906, True, "15/32"), (0.396875, False, "0.016"), (0.396875, True, "1/64"), (-4.7625, False, "-3/16")],
)  # fmt: skip
def test_a_fraction_is_shown_only_where_it_is_one(length_mm, wall, text):
    assert inch_text(length_mm, wall=wall) == text


@pytest.mark.parametrize(
    ("value", "kind", "system", "text"),
    [(121.1111, "temperature", "us", "250 °F"), (121.1111, "temperature", "si", "121 °C"),
     (13.49, "length", "si", "13.49 mm"),
     (1.234, "heat_input", "si", "1.23 kJ/mm"), (1.234, "heat_input", "us", "31.3 kJ/in"), (60, "angle", "si", "60°"),
     (9.4389, "flow", "us", "20 ft³/h"), (254, "speed", "us", "10.0 in/min")],
)  # fmt: skip
def test_values_are_rounded_as_the_trade_does(value, kind, system, text, units):
    assert show(value, kind, system, units).replace("\u2009", " ") == text


def test_intervals_are_shown_with_one_unit_and_absent_ends_as_bounds(units):
    assert show_interval(Interval(85, math.inf), "temperature", "si", units) == "≥ 85\u2009°C"
    assert show_interval(Interval(0, 44, low_open=True), "length", "si", units) == "≤ 44\u2009mm"
    assert show_interval(Interval(23, 26), "voltage", "si", units) == "23..26\u2009V"


def test_two_units_of_one_spelling_are_refused():
    table = '[length]\nbase="mm"\nleast=0\nmost=9\nshow={si=["mm",1]}\nunits=[{name="mm",factor=1,spellings=["x"]},'
    with pytest.raises(FormatError, match=r"units.toml: two units of length are spelled x; keep"):
        read_units(table + '{name="in",factor=25.4,spellings=["X"]}]')
