"""Checking, correcting, taking back; and marks as a file that brings them into another works."""

import pytest
import rtoml

from anlage.core.errors import AnlageError, InputError, UnknownNameError
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.rulebook.entries import rules_of
from anlage.session.rulebook.marking import (
    Signing,
    as_toml,
    book_of,
    checked,
    corrected,
    rules_with,
    taken_back,
    with_marks,
    written_now,
)
from anlage.session.rulebook.values import keys_with, values_of

SIGNING = Signing(by="A. Maker", on="2026-03-02T08:00:00Z", copy="shelf copy 3")
RULES = rules_of("asme-ix", SHIPPED)
KEYS = 'low = { take = "least", plus = { si = -30, us = -54 } }'


def marked(book):
    return rules_of("asme-ix", Codes({"asme-ix": book}))


def value(table, label):
    (own,) = [each for each in values_of(table) if each.label == label]
    return own


@pytest.mark.parametrize(
    ("signing", "told"),
    [
        (Signing(by=" ", on=SIGNING.on, copy="3"), "state who compared it"),
        (Signing(by="A", on=SIGNING.on, copy=""), "name the copy"),
    ],
)
def test_a_check_without_name_or_copy_is_refused(signing, told):
    with pytest.raises(InputError, match=told):
        checked(RULES, "t_base", signing)


def test_a_rule_that_is_not_there_is_not_checked():
    with pytest.raises(UnknownNameError, match="t_bass"):
        checked(RULES, "t_bass", SIGNING)


@pytest.mark.parametrize(
    ("keys", "reason", "told"),
    [
        (KEYS, " ", "say what your copy of the code says"),
        ('low = { take = "least", plus = { si = -55, us = -100 } }', "so", "it says what the rule says already"),
        ("low = { iss = 1 }", "so", "has no key iss"),
        ("", "so", "it changes nothing"),
    ],
)
def test_a_correction_that_says_nothing_new_or_nothing_sensible_is_refused(keys, reason, told):
    with pytest.raises(AnlageError, match=told):
        corrected(RULES, "preheat_min", keys, reason, SIGNING)


def test_marks_are_taken_back_one_by_one_and_only_those_that_are_there():
    book = corrected(marked(checked(RULES, "t_base", SIGNING)), "preheat_min", KEYS, "our copy", SIGNING)
    left = taken_back(marked(book), "preheat_min", overlay=True)
    assert (len(left.overlays), len(left.checks)) == (0, 1)
    assert taken_back(marked(left), "t_base", overlay=False).checks == ()
    with pytest.raises(InputError, match="t_base is not overlaid"):
        taken_back(marked(book), "t_base", overlay=True)
    with pytest.raises(InputError, match="preheat_min is not checked in edition 2023"):
        taken_back(marked(book), "preheat_min", overlay=False)


def test_marks_go_out_as_toml_and_come_into_another_works_as_they_were():
    book = corrected(marked(checked(RULES, "t_base", SIGNING)), "preheat_min", KEYS, "our copy", SIGNING)
    again = with_marks(SHIPPED, "asme-ix", as_toml(book), Signing(by="B", on="2026-04-01T00:00:00Z"))
    assert again.checks == book.checks
    (one,), (other,) = again.overlays, book.overlays
    assert (one.rule, one.by, one.on, one.over, one.reason) == (
        other.rule,
        other.by,
        other.on,
        other.over,
        other.reason,
    )
    assert rules_of("asme-ix", Codes({"asme-ix": again})).examples(
        marked(again).entry("preheat_min", "si"), "si"
    ) == marked(book).examples(marked(book).entry("preheat_min", "si"), "si")


def test_a_file_that_names_nobody_is_signed_by_who_brings_it_in():
    text = f'[[overlay]]\nrule = "preheat_min"\nreason = "so"\n[overlay.keys]\n{KEYS}'
    (own,) = with_marks(SHIPPED, "asme-ix", text, SIGNING).overlays
    assert (own.by, own.on) == (SIGNING.by, SIGNING.on)


@pytest.mark.parametrize(
    ("text", "told"),
    [
        ('code = "other"', "it marks other"),
        ("overlay = 3", "overlay is no list of tables"),
        ('[[overly]]\nrule = "t_base"', "it has no use for overly"),
        ('[[overlay]]\nrule = "t_base"\nreason = "so"', "has no keys"),
        ('[[overlay]]\nrule = "t_bass"\nreason = "so"\n[overlay.keys]\nlow = 3', "t_bass"),
        ('[[overlay]]\nrule = "t_base"\n[overlay.keys]\nlow = 3', "say what your copy"),
        ('[[check]]\nrule = "t_base"', "a mark of t_base"),
        ("rule = [", "no TOML"),
    ],
)
def test_a_file_at_fault_is_refused_whole(text, told):
    with pytest.raises(AnlageError, match=told):
        with_marks(SHIPPED, "asme-ix", text, SIGNING)


def test_a_new_rulebook_has_the_name_of_its_code():
    book = book_of(SHIPPED, "asme-ix")
    assert (book.header.number, book.header.title) == ("asme-ix", "Rulebook of ASME IX")


def test_a_value_of_a_rule_is_changed_by_itself():
    now, shipped = written_now(RULES, "t_base")
    own = value(now, "row 3, highest, times")
    assert (own.text, value(now, "where, kind of weld").text) == ("2", "groove")
    keys = keys_with(shipped, now, {own.place: "2,5"})
    assert list(rtoml.loads(keys)) == ["rows"]
    made, _ = rules_with(RULES, "t_base", keys)
    assert [row.band.high.times.si for row in made[0].kind.rows[:3]] == [2, 2, 2.5]
    assert keys_with(shipped, now, {own.place: "2"}) == ""


@pytest.mark.parametrize(
    ("rule", "label", "text", "told"),
    [
        ("t_base", "row 1, highest, times", "twice", "twice is no number"),
        ("t_base", "row 1, highest, times", "", "nothing is no number"),
        ("t_base", "row 1, highest, times", "inf", "inf is no number"),
        ("t_base", "where, kind of weld", " , ", "nothing is stated"),
    ],
)
def test_a_text_that_a_value_cannot_be_is_refused_at_it(rule, label, text, told):
    now, shipped = written_now(RULES, rule)
    with pytest.raises(InputError, match=told) as refusal:
        keys_with(shipped, now, {value(now, label).place: text})
    assert label in str(refusal.value)


def test_a_correction_is_corrected_from_where_it_stands():
    book = corrected(RULES, "preheat_min", KEYS, "our copy", SIGNING)
    now, shipped = written_now(marked(book), "preheat_min")
    own = value(now, "lowest, plus, metric")
    assert own.text == "-30"
    assert keys_with(shipped, now, {own.place: "-55", value(now, "lowest, plus, US").place: "-100"}) == ""
    assert "-40" in keys_with(shipped, now, {own.place: "-40"})
