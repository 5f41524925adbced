"""Overlays and checks on the rules of a pack: what holds, what lapses, and what leaves a rule unknown."""

import pytest
from msgspec.structs import replace

from anlage.core.codes import Coupon, Demand, cover_box, marked, overlaid, read_pack, with_checks
from anlage.core.errors import FormatError, UnknownNameError
from anlage.core.ranges import ANY, NONE, between, choices
from anlage.core.rulebook import Check, Overlay, Rulebook
from tests.core.codes.test_code_rules import HEAD, NAMES, pack, rule

BAND = rule("band", 'low = { is = 2 }\nnote = "as it ships"', variable="y_mm", identity="band")
FILES = {"pack.toml": HEAD, "rules.toml": BAND + rule("same")}
SHIPPED = read_pack(FILES, names=NAMES)
ON = "2026-03-02T08:00:00Z"


def said(rule_id):
    return next(each.said for each in SHIPPED.rules if each.id == rule_id)


def overlay(keys, rule_id="band", over=None):
    own = over or said(rule_id)
    return Overlay(rule=rule_id, keys=keys, reason="our copy says so", by="A. Maker", on=ON, over=own)


def made(own):
    return overlaid(SHIPPED, own, lambda instead: read_pack(FILES, names=NAMES, instead=instead))


def with_overlays(*overlays):
    return marked(SHIPPED, Rulebook(overlays=overlays), made)


def allowed(code, variable="y_mm"):
    record = Coupon(name="R", joint={}, deposits=({"process": "SMAW", "x": "v", "y_mm": 9.0},))
    return cover_box(code, record, Demand()).deposits[0][variable]


def test_an_overlay_stands_in_place_of_the_words_it_names_and_is_named():
    other = with_overlays(overlay("low = { is = 3 }"))
    assert allowed(SHIPPED).sure == between(2, None)
    assert allowed(other).sure == between(3, None)
    (own,) = [each for each in other.rules if each.id == "band"]
    assert (own.note, own.overlay.reason) == ("as it ships", "our copy says so")
    assert allowed(other, "x") == allowed(SHIPPED, "x"), "the other rules are as they were"


def test_of_another_kind_no_parameter_of_the_old_one_is_kept():
    other = with_overlays(overlay('kind = "unknown"\nnote = "our copy is silent"'))
    assert (allowed(other).sure, allowed(other).possible) == (NONE, ANY)


@pytest.mark.parametrize(
    ("keys", "told"),
    [
        ("low = {", "no TOML"),
        ("", "it changes nothing"),
        ("low = { iss = 3 }", "has no key iss"),
        ('low = { is = "three" }', "three is no limit"),
        ('variable = "x"', "variable would make another rule of it"),
        ('confidence = "H"', "confidence would make another rule of it"),
        ("rows = []", "has no key rows"),
        ('when = { y_mm = ["three"] }', "y_mm is a number, and when.y_mm are words"),
        ("when = { word = { above = 3 } }", "word are words, and when.word are bounds"),
    ],
)
def test_an_overlay_at_fault_is_refused_with_the_rule_it_is_of(keys, told):
    with pytest.raises(FormatError, match=told) as refusal:
        made(overlay(keys) if keys else replace(overlay("-"), keys=" "))
    assert "overlay of band" in str(refusal.value)


def test_an_overlay_of_no_rule_is_refused_and_leaves_the_pack_as_it_ships():
    lost = overlay("low = { is = 3 }", rule_id="gone", over="0" * 16)
    with pytest.raises(UnknownNameError, match="gone"):
        made(lost)
    assert with_overlays(lost) is SHIPPED


@pytest.mark.parametrize(
    ("own", "why"),
    [
        (overlay("low = { is = 3 }", over="0" * 16), "put over other words of this rule"),
        (overlay("low = { iss = 3 }"), "its overlay cannot be read"),
    ],
)
def test_an_overlay_that_holds_no_more_leaves_its_rule_unproven_never_as_it_ships(own, why):
    found = allowed(with_overlays(own))
    assert (found.sure, found.possible) == (NONE, ANY)
    assert why in found.reason


def test_a_check_holds_for_the_words_as_corrected_not_as_they_ship():
    hazy = pack(rule("same", confidence="L"))
    files = {"pack.toml": HEAD, "rules.toml": rule("same", confidence="L")}
    (own,) = hazy.rules
    put = Overlay(rule="r", keys='kind = "only"\ntokens = ["v"]', reason="so", by="A", on=ON, over=own.said)
    other = marked(
        hazy, Rulebook(overlays=(put,)),
        lambda each: overlaid(hazy, each, lambda instead: read_pack(files, names=NAMES, instead=instead)),
    )  # fmt: skip

    def by(said):
        check = Check(rule="r", edition="1", by="A. Maker", on=ON, copy="no. 7", said=said)
        return allowed(with_checks(other, (check,), "1"), "x").sure

    assert by(own.said) == NONE, "it was checked before it was corrected"
    assert by(other.rules[0].said) == choices("v")
