"""What became of a procedure since it was issued: what its changes ask for, and when what it rests on fails it."""

import pytest

from anlage.core.document import with_, with_at
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import PROCEDURE, RECORD
from anlage.session.leaves.draft import Working, typed
from anlage.session.rulebook.entries import rules_of
from anlage.session.rulebook.marking import Signing, corrected
from anlage.session.works.demo import demo_file
from anlage.session.works.issuing import Saying, against, issue
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import Standpoint, fallen_sentence
from anlage.session.works.register_rows import RegisterRows
from anlage.session.works.since import since_sentence

NOW = "2026-11-23T12:00:00Z"


@pytest.fixture
def works(tmp_path):
    found = OpenWorks(demo_file(NOW, folder=tmp_path), now=lambda: NOW, told=pytest.fail)
    yield found
    found.close()


def judge(works):
    return Assessor(works.records(), works.codes())


def own_of(works, number, kind=PROCEDURE):
    return next(entry.id for entry in works.entries(kind) if entry.number == number)


@pytest.fixture
def issued(works):
    """The sound procedure of the demo, issued as it is."""
    own = own_of(works, "OST-W-01")
    working, _ = works.read(own)
    found = against(working, (), judge(works).assess(working.value), "si")
    issue(works, own, working, found, Saying("A. Maker"))
    return own


def since(works, own, wps):
    return since_sentence(works.revisions(own)[-1], wps, judge(works).assess, "si")


def changed(works, own, **leaves):
    wps = works.read(own)[0].value
    for path, value in leaves.items():
        wps = with_at(wps, path.replace("__", "/"), value)
    return wps


def rows(works):
    return RegisterRows(works, lambda: None).rows(Standpoint("si", NOW[:10]), lambda: judge(works))


def test_a_revision_says_how_it_stood_when_it_was_issued(works, issued):
    assert '"verdict": "inside"' in works.revisions(issued)[-1].body
    assert works.read(issued)[0].value.revision.verdict is None, "the draft never does"


@pytest.mark.parametrize(
    ("leaves", "said"),
    [
        ({}, ""),
        ({"technique__cleaning": "grind"}, "since revision 1: 1 change, all still covered"),
        ({"range__thickness_mm": (6, 40)}, "since revision 1: 1 change, 1 needs a new record"),
        (
            {"range__thickness_mm": (6, 40), "preheat__minimum_c": 5.0, "technique__cleaning": "grind"},
            "since revision 1: 3 changes, 1 needs a new record",
        ),
        ({"technique__cleaning": None}, "since revision 1: 1 change, 1 is unproven"),
        ({"header__code": None}, "since revision 1: 1 change"),
    ],
)
def test_changes_are_counted_with_what_they_ask_for(works, issued, leaves, said):
    leaves = {("header__codes" if path == "header__code" else path): value for path, value in leaves.items()}
    leaves = {path: (() if path == "header__codes" else value) for path, value in leaves.items()}
    assert since(works, issued, changed(works, issued, **leaves)) == said


def test_what_was_never_issued_has_no_changes(works):
    own = own_of(works, "OST-W-02")
    assert since_sentence(None, works.read(own)[0].value, judge(works).assess, "si") == ""


@pytest.mark.usefixtures("issued")
def test_an_issued_procedure_falls_with_its_record_and_rises_with_it(works):
    assert fallen_sentence(rows(works)) == ""
    record = own_of(works, "OST-R-01", RECORD)
    working, _ = works.read(record)
    first = working.value.results[0]
    failed = with_(working.value, results=(with_(first, passed=False), *working.value.results[1:]))
    works.save(record, Working(failed, {}))
    said = fallen_sentence(rows(works))
    assert said.startswith(
        "1 issued procedure is no longer inside: OST-W-01. OST-W-01: revision 1 was inside when it was"
    )
    assert "is " in said
    works.save(record, working)
    assert fallen_sentence(rows(works)) == ""


@pytest.mark.usefixtures("issued")
def test_an_issued_procedure_falls_by_a_corrected_rule(works):
    rules = rules_of("asme-ix", works.codes())
    signing = Signing(by="A. Maker", on=NOW)
    works.mark(corrected(rules, "preheat_min", "low = { times = 1 }", "our copy", signing), author="A. Maker")
    (row,) = [each for each in rows(works) if each.fallen]
    assert row.number == "OST-W-01"
    assert "is outside now: Preheat, outside" in row.fallen


def test_a_draft_that_goes_on_leaves_the_revision_what_it_was(works, issued):
    works.save(issued, typed(works.read(issued)[0], "range/thickness_mm", "6..40", "si"))
    (row,) = [each for each in rows(works) if each.number == "OST-W-01"]
    assert (row.verdict, row.fallen) == ("outside", ""), "what is on the floor is still inside"


def test_what_was_issued_against_a_verdict_does_not_fall(works):
    own = own_of(works, "OST-W-02")
    working, _ = works.read(own)
    found = against(working, (), judge(works).assess(working.value), "si")
    assert found.verdict == "outside"
    issue(works, own, working, found, Saying("A. Maker", reason="a trial"))
    assert fallen_sentence(rows(works)) == ""
