"""The rules of a code in words: whom each concerns, what it makes of a coupon, and which checks count."""

import pytest

from anlage.core.document import with_
from anlage.core.errors import FormatError
from anlage.core.rulebook import Check
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.rulebook.entries import rules_of
from anlage.session.rulebook.filters import CHECKED, CORRECTED, DOUBTFUL, STALE, UNCHECKED, Filter
from anlage.session.rulebook.marking import Signing, checked, corrected, new_rulebook

SIGNING = Signing(by="A. Maker", on="2026-03-02T08:00:00Z", copy="shelf copy 3")
RULES = rules_of("asme-ix", SHIPPED)


def entry(rule, rules=RULES, system="si"):
    return rules.entry(rule, system)


def said(rule, rules=RULES, system="si", **options):
    lines = rules.examples(entry(rule, rules, system), system, **options)
    return [f"{each.coupon}: {each.allowed}".replace("\u2009", " ") for each in lines]


def marked(book):
    return rules_of("asme-ix", Codes({"asme-ix": book}))


def test_a_rule_says_clause_variable_and_whom_it_concerns():
    own = entry("t_base")
    assert (own.clause, own.title, own.limits) == ("QW-403.8, QW-451.1", "Base-metal thickness", "base metal thickness")
    assert own.concerns == "where kind of weld asked: groove weld; not where way of the bends is longitudinal"
    assert entry("preheat_min").concerns == ""


def test_the_examples_say_the_span_of_their_row_in_the_units_of_the_reader():
    assert said("t_base")[2] == (
        "Base metal thickness 20 mm (10..38 mm); kind of weld asked: groove weld; way of the bends transverse: 5..40 mm"
    )
    assert "(3/8..1 1/2 in)" in said("t_base", system="us")[2].replace("1-1/2", "1 1/2")
    assert said("preheat_min") == ["Preheat 100 °C: ≥ 45 °C"]
    assert said("cleaning")[0] == "Any coupon: any, but the procedure states it"


@pytest.mark.parametrize(
    ("rule", "process", "concerned"),
    [("keyhole", "PAW", True), ("keyhole", "SMAW", False), ("t_base", "SMAW", True), ("pass_over_half", "GTAW", False)],
)
def test_a_rule_is_for_the_processes_that_its_conditions_leave(rule, process, concerned):
    assert entry(rule).is_for(process) is concerned
    assert Filter(process=process).takes(entry(rule)) is concerned


ORDER = ["essential", "supplementary essential", "nonessential", "how records combine", "specimens"]


def test_rules_stand_as_their_clauses_are_looked_up_the_strongest_category_first():
    clauses = [each.clause for each in RULES.entries("si")]
    assert clauses.index("QW-403.9") < clauses.index("QW-403.10") < clauses.index("QW-404.4")
    categories = [each.category for each in RULES.entries("si")]
    assert categories == sorted(categories, key=ORDER.index)


def test_a_check_counts_in_its_edition_for_these_words_alone():
    book = checked(RULES, "t_base", SIGNING)
    assert [each.by for each in entry("t_base", marked(book)).checks] == ["A. Maker"]
    other = rules_of("asme-ix:2019", Codes({"asme-ix": book}))
    assert entry("t_base", other).checks == ()
    assert [why for _, why in entry("t_base", other).stale] == ["it was edition 2023"]
    old = with_(book, checks=(with_(book.checks[0], said="0" * 16),))
    assert [why for _, why in entry("t_base", marked(old)).stale] == ["the rule says something else since"]
    assert entry("t_base", marked(old)).checks == ()


def test_a_corrected_rule_shows_both_and_a_check_from_before_lapses():
    book = corrected(marked(checked(RULES, "preheat_min", SIGNING)), "preheat_min", OVERLAY, "our copy", SIGNING)
    rules = marked(book)
    assert said("preheat_min", rules) == ["Preheat 100 °C: ≥ 70 °C"]
    assert said("preheat_min", rules, as_shipped=True) == ["Preheat 100 °C: ≥ 45 °C"]
    own = entry("preheat_min", rules)
    assert (own.checks, own.overlay.reason, len(own.stale)) == ((), "our copy", 1)


def test_filters_find_what_became_of_a_rule():
    book = corrected(marked(checked(RULES, "t_base", SIGNING)), "preheat_min", OVERLAY, "our copy", SIGNING)
    rules = marked(book)

    def found(which="", words=""):
        return {each.id for each in rules.entries("si") if Filter(words, which=which).takes(each)}

    assert found(CHECKED) == {"t_base"}
    assert found(CORRECTED) == {"preheat_min"}
    assert found(UNCHECKED) == found() - {"t_base"}
    assert found(STALE) == set()
    assert found(DOUBTFUL) == {each.id for each in rules.entries("si") if each.confidence != "H"}
    assert found(words="403.8 longitudinal") == {"t_base_longitudinal"}


def test_a_mark_on_a_rule_that_the_code_has_no_more_is_told():
    lost = Check(rule="gone", edition="2023", by="A", on=SIGNING.on, copy="3", said="0" * 16)
    assert marked(with_(new_rulebook("asme-ix"), checks=(lost,))).lost() == ("gone",)


def test_of_a_rulebook_that_cannot_be_read_no_rule_is_said():
    with pytest.raises(FormatError, match="the rulebook of asme-ix cannot be read"):
        rules_of("asme-ix", Codes({"asme-ix": None}))


OVERLAY = "low = { times = 1, plus = { si = -30, us = -54 } }"
