"""Lists of specimens and ways to combine records, read, checked and printed like every other rule."""

from collections import Counter

import pytest

from anlage.core.codes import read_pack, with_checks
from anlage.core.codes.facts import Facts
from anlage.core.codes.specimens import lacking
from anlage.core.errors import AnlageError, FormatError, InputError
from anlage.core.rulebook import Check
from anlage.data.code_packs import code_pack, pack_names
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.rulebook.entries import rules_of
from anlage.session.rulebook.filters import Filter
from anlage.session.rulebook.marking import Signing, checked, corrected, written_now
from tests.core.codes.test_second_code import CODE

RULES = rules_of("asme-ix", SHIPPED)
WHO = Signing(by="A. Clerk", on="2026-11-23T08:00:00Z", copy="shelf 3")
LISTS = """
[[specimens]]
id = "thin"
title = "Specimens of thin plate"
clause = "Table 9"
confidence = "L"
when = { base_metal_thickness_mm = { below = 10 } }
any = [{ tension = 2, "root bend" = 2 }, { "side bend" = 4 }]

[[specimens]]
id = "tough"
clause = "9.2"
confidence = "H"
when = { impact = ["yes"] }
add = { impact = 3 }

[[specimens]]
id = "thin_special"
clause = "9.3"
confidence = "M"
when = { base_metal_thickness_mm = { below = 3 } }
any = [{ macro = 1 }]
instead = ["thin"]

[[combination]]
kind = "pairs"
id = "mixed"
title = "mixed metals"
variables = ["preheat_c"]
across = true
clause = "9.9"
confidence = "M"
"""


def entry(rule, rules=RULES):
    return rules.entry(rule, "si")


def said(rule, rules=RULES, system="si"):
    return [f"{each.coupon}: {each.allowed}" for each in rules.examples(entry(rule, rules), system)]


def pack():
    return read_pack({"pack.toml": CODE + LISTS}, names=pack_names())


def test_the_lists_of_specimens_of_a_code_stand_among_its_rules():
    assert entry("groove_thin").category == "specimens"
    assert "10" in entry("groove_thin").concerns
    assert said("groove_middle") == [
        "Such a coupon needs, all passed: 2 tension and 4 side bend specimens",
        "Or in their place: 2 tension, 2 face bend and 2 root bend specimens",
        "Or in their place: 2 tension, 2 longitudinal face bend and 2 longitudinal root bend specimens",
    ]
    assert entry("fillet_pipe").head == "Specimens."
    assert entry("t_base").head == "Essential variable. It limits base metal thickness."
    assert Filter(words="qw-451").takes(entry("groove_thin"))


def test_how_records_combine_is_said_in_words():
    assert said("records_together") == [
        "Several records, each of which allows all else: "
        "together they cover base metal thickness, deposit thickness and P-Number",
        "In a groove: no deposit thickness is over the base metal thickness",
    ]
    assert said("records_of_each_metal")[1] == "A and B: of one number, before its dash"
    root = said("root_of_another_record")
    assert root[0].startswith("A record 13\u2009mm thick or more, for root passes alone (FCAW, GMAW, GTAW")
    assert "in place of its own by QW-" in root[0]
    assert root[1] == "What is laid so: deposit thickness up to 2 times what its own record has"
    assert "1/2" in said("root_of_another_record", system="us")[0]


def test_every_clause_of_a_second_code_is_said(monkeypatch):
    code = pack()
    monkeypatch.setattr(Codes, "edition_of", lambda *_, **_how: (code, "2"))
    monkeypatch.setattr("anlage.session.rulebook.entries.code_pack", lambda _: code)
    rules = rules_of("frame-code", SHIPPED)
    assert said("tough", rules) == ["Such a coupon needs, besides what others ask, all passed: 3 impact specimens"]
    assert said("thin_special", rules) == ["Such a coupon needs, instead of Table 9, all passed: 1 macro specimen"]
    assert said("mixed", rules)[1] == "A and B: of any numbers"
    assert entry("V-1", rules).category == "binding"  # a joint without a record is read, too
    assert entry("V-1", rules).head.startswith("Binding variable. It limits ")
    joint = Check(rule="V-1", edition="2", by="A. Clerk", on=WHO.on, copy="shelf 3", said=entry("V-1", rules).rule.said)
    assert all(each.checks for each in with_checks(code, (joint,), "2").details[0].rules)


def test_a_clause_is_checked_and_the_check_counts_while_it_says_the_same():
    book = checked(RULES, "groove_thin", WHO)
    own = with_checks(code_pack("asme-ix"), book.checks, RULES.edition)
    by_id = {rule.id: rule for rule in own.every}
    assert by_id["groove_thin"].checks == book.checks
    assert [each.id for each in own.specimens if each.is_checked] == ["groove_thin"]
    assert not by_id["groove_thick"].checks


def test_a_list_of_low_confidence_proves_nothing_until_it_is_checked():
    code, facts, passed = pack(), Facts({"base_metal_thickness_mm": 8.0, "impact": "no"}, {}), Counter({"side bend": 4})
    assert lacking(code.specimens, facts, "si", passed) == (
        "the specimens of Table 9 are of low confidence, and nobody has checked them yet",
    )
    thin = next(rule for rule in code.clauses if rule.id == "thin")
    check = Check(rule="thin", edition="2", by="A. Clerk", on=WHO.on, copy="shelf 3", said=thin.said)
    assert lacking(with_checks(code, (check,), "2").specimens, facts, "si", passed) == ()
    assert lacking(with_checks(code, (check,), "1").specimens, facts, "si", passed)  # of another edition


def test_a_clause_is_not_corrected():
    with pytest.raises(InputError, match="groove_thin limits no variable"):
        corrected(RULES, "groove_thin", "any = [{ tension = 1 }]", "so our copy says", WHO)
    assert written_now(RULES, "groove_thin") == ({}, {})
    with pytest.raises(AnlageError, match="groove_thinn"):
        checked(RULES, "groove_thinn", WHO)


@pytest.mark.parametrize(
    ("old", "new", "what"),
    [
        ('id = "tough"', 'id = "thin"', "the id thin comes twice"),
        ('id = "tough"', 'id = "preheat"', "the id preheat comes twice"),
        ('title = "mixed metals"\n', "", "missing required field `title`"),
    ],
)
def test_an_id_that_is_taken_or_a_missing_title_is_refused(old, new, what):
    with pytest.raises(FormatError, match=what):
        read_pack({"pack.toml": CODE + LISTS.replace(old, new)}, names=pack_names())
