"""Issuing, templates and what is to be done next."""

import pytest

from anlage.core.document import read_strict, with_, with_at, write
from anlage.core.errors import InputError
from anlage.core.procedure import WPS, Revision, Wps
from anlage.core.record import PQR
from anlage.formats.font import measure
from anlage.session.judging.assessment import Assessment, Assessor
from anlage.session.judging.evidence import evidence_of_document
from anlage.session.leaves.draft import Working
from anlage.session.output.wps_sheet import Stationery, sheet
from anlage.session.works.demo import demo_file
from anlage.session.works.found_documents import find_document, standing_of
from anlage.session.works.issuing import Saying, against, issue
from anlage.session.works.next_steps import next_steps
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import Shown, Standpoint, procedure_row
from anlage.session.works.templates import copied, coupon_of

NOW = "2026-11-23T12:00:00Z"
SAID = Saying("A. Author", "first", "")


@pytest.fixture
def works(tmp_path):
    found = OpenWorks(demo_file(NOW, folder=tmp_path), now=lambda: NOW, told=pytest.fail)
    yield found
    found.close()


def issued(works, working, saying):
    own = works.entries()[0].id
    assessment = Assessor(works.records()).assess(working.value)
    return issue(works, own, working, against(working, works.revisions(own), assessment, "si"), saying)


def test_what_was_said_stands_in_the_revision_and_in_no_draft(works):
    own = works.entries()[0].id
    working, _ = works.read(own)
    revision = issued(works, working, Saying("A. Author", " first ", "ignored: nothing is amiss"))
    assert read_strict(revision.body, WPS).revision == Revision(change="first", verdict="inside")
    standing = works.standing(own, working)
    assert (standing.is_issued, standing.change, standing.reason) == (True, "first", "")
    assert works.read(own)[0].value.revision == Revision()
    found = find_document(f"{works.path}#OST-W-01@1", WPS)
    assert (standing_of(found).is_issued, standing_of(found).change) == (True, "first")


def test_an_edit_after_it_ends_what_was_said(works):
    own = works.entries()[0].id
    working, _ = works.read(own)
    issued(works, working, SAID)
    other = Working(with_at(working.value, "header/title", "x"))
    assert (works.standing(own, other).change, works.standing(own, other).is_issued) == ("", False)


def test_a_second_revision_needs_a_note_and_what_is_outside_a_reason(works):
    working, _ = works.read(works.entries()[0].id)
    issued(works, working, SAID)
    with pytest.raises(InputError, match="what changed since the last revision is not said"):
        issued(works, Working(with_at(working.value, "header/title", "x")), Saying("A. Author"))
    wide = Working(with_at(working.value, "range/thickness_mm", (6, 60)))
    with pytest.raises(InputError, match="issued with 1 outside is not said; type the reason"):
        issued(works, wide, Saying("A. Author", "wider"))
    assert issued(works, wide, Saying("A. Author", "wider", "trial")).number == 2


def test_an_empty_or_unjudged_procedure_is_told_as_such():
    found = against(Working(Wps()), (), Assessment(None, "no code is stated"), "si")
    assert found.needs_reason
    assert found.words() == "no passes are stated, not judged: no code is stated"
    waiting = against(Working(Wps(), {"preheat/minimum_c": "x"}), (), Assessment(None, "why"), "si")
    assert waiting.waiting == "1 text not taken over"


@pytest.mark.parametrize("kept", [(), ("without results",)])
def test_where_no_record_counts_nothing_is_inside_and_a_reason_is_asked(works, kept):
    own = works.entries()[0].id
    working, _ = works.read(own)
    records = [(each, with_(pqr, results=())) for each, pqr in works.records() if kept]
    assessment = Assessor(records).assess(working.value)
    found = against(working, (), assessment, "si")
    assert found.bare == ("not judged: no record counts by this code",)
    with pytest.raises(InputError, match="not judged: no record counts by this code is not said"):
        issue(works, own, working, found, SAID)
    assert "no record counts yet" in next_steps(working, assessment, works.standing(own, working))[0].text
    row = procedure_row(Shown(own, working, "draft", Assessor(records), Standpoint("si")))
    assert (row.verdict, row.said) == ("unproven", "not judged: no record counts by this code")
    pages = sheet(working.value, assessment, works.standing(own, working), Stationery("a4", measure))
    texts = [item.text for page in pages for item in page.items if hasattr(item, "text")]
    assert "Not judged: no record counts by this code." in texts


def test_a_new_procedure_is_led_from_the_job_to_the_sheet(works):
    standing = works.standing(works.entries()[0].id, Working(Wps()))
    steps = next_steps(Working(Wps()), Assessment(None, ""), standing)
    places = [step.place for step in steps]
    assert [place for n, place in enumerate(places) if place not in places[:n]] == ["job", "joint", "passes", "sheet"]
    working, _ = works.read(works.entries()[0].id)
    issued(works, working, SAID)
    assessment = Assessor(works.records()).assess(working.value)
    assert next_steps(working, assessment, works.standing(works.entries()[0].id, working)) == ()


def test_a_copied_record_has_nothing_that_was_measured(works):
    (record, *_) = [value for _, value in works.records()]
    copy = copied(record)
    assert (copy.results, copy.welded, copy.welded_on, copy.preheat_least_c) == ((), (), None, None)
    assert all(each.current_a is None and each.heat_input_kj_mm is None for each in copy.deposits)
    assert copy.metals == record.metals
    assert evidence_of_document(copy).state == "open"


def test_a_coupon_of_a_procedure_is_a_record_that_proves_nothing_yet(works):
    wps = works.read(works.entries()[0].id)[0].value
    coupon = coupon_of(wps)
    assert read_strict(write(coupon), PQR) == coupon
    assert evidence_of_document(coupon).state == "open"
    wide = coupon_of(with_at(wps, "technique/position", "1G, 3G"))
    assert wide.technique.position is None, "which of them is welded is not known yet"
