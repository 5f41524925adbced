"""The rulebook as a value: one check a rule and edition, one overlay a rule, and the way back."""

import pytest

from anlage.core.document import read_strict, write
from anlage.core.errors import FormatError, InputError
from anlage.core.rulebook import (
    RULEBOOK,
    Check,
    Overlay,
    Rulebook,
    with_check,
    with_overlay,
    without_check,
    without_overlay,
)

ON = "2026-03-02T08:00:00Z"


def check(edition="2023", by="A. Maker", rule="r"):
    return Check(rule=rule, edition=edition, by=by, on=ON, copy="no. 7", said="0123")


def overlay(keys="low = { is = 3 }", rule="r"):
    return Overlay(rule=rule, keys=keys, reason="our copy says so", by="A. Maker", on=ON, over="0123")


def test_a_check_takes_the_place_of_one_of_the_same_rule_and_edition():
    book = with_check(with_check(Rulebook(), check()), check("2021"))
    anew = with_check(book, check(by="B. Reader"))
    assert [(each.edition, each.by) for each in anew.checks] == [("2021", "A. Maker"), ("2023", "B. Reader")]


def test_an_overlay_takes_the_place_of_the_one_before():
    book = with_overlay(with_overlay(Rulebook(), overlay()), overlay("low = { is = 4 }"))
    assert [each.keys for each in book.overlays] == ["low = { is = 4 }"]
    assert book.overlay_of("r").keys == "low = { is = 4 }"
    assert book.overlay_of("other") is None


def test_what_is_not_marked_is_not_taken_back():
    book = with_overlay(with_check(Rulebook(), check()), overlay())
    assert without_check(book, "r", "2021") is book
    assert without_overlay(book, "other") is book
    assert without_check(without_overlay(book, "r"), "r", "2023") == Rulebook()


def test_two_marks_of_one_kind_on_one_rule_are_refused():
    with pytest.raises(InputError, match="r in 2023 is marked twice"):
        Rulebook(checks=(check(), check(by="B. Reader")))
    with pytest.raises(InputError, match="r is marked twice"):
        Rulebook(overlays=(overlay(), overlay()))


def test_it_is_written_and_read_as_it_was():
    book = with_overlay(with_check(Rulebook(), check()), overlay())
    assert read_strict(write(book), RULEBOOK) == book


@pytest.mark.parametrize("name", ["by", "copy", "said", "edition"])
def test_a_check_that_leaves_something_unsaid_is_refused(name):
    text = write(with_check(Rulebook(), check())).replace(f'"{name}": "{getattr(check(), name)}"', f'"{name}": ""')
    with pytest.raises(FormatError, match=name):
        read_strict(text, RULEBOOK)
