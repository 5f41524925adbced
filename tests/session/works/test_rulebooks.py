"""The rulebook of a works file: saved at once, chained, read by others, and judged by."""

import pytest

from anlage.core.errors import InputError
from anlage.core.rulebook import RULEBOOK
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.editions import SHIPPED
from anlage.session.judging.marks import is_checked, overlay_sentences
from anlage.session.kinds import PROCEDURE
from anlage.session.rulebook.entries import rules_of
from anlage.session.rulebook.marking import Signing, checked, corrected
from anlage.session.works.demo import demo_file
from anlage.session.works.marked_codes import codes_of_file
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import Standpoint
from anlage.session.works.register_rows import RegisterRows
from anlage.store import open_works
from tests.demo import NUMBERS

NOW = "2026-11-23T12:00:00Z"
SIGNING = Signing(by="A. Maker", on=NOW, copy="shelf copy 3")
STRICT = "low = { times = 1 }"  # as high as the coupon: the demo's preheat is below that


@pytest.fixture
def works(tmp_path):
    found = OpenWorks(demo_file(NOW, folder=tmp_path), now=lambda: NOW, told=pytest.fail)
    yield found
    found.close()


def rules(works):
    return rules_of("asme-ix", works.codes())


def correct(works):
    book = corrected(rules(works), "preheat_min", STRICT, "our copy says so", SIGNING)
    works.mark(book, author="A. Maker")


def proof(works, number="OST-W-01"):
    own = next(entry.id for entry in works.entries(PROCEDURE) if entry.number == number)
    return Assessor(works.records(), works.codes()).assess(works.read(own)[0].value)


def rung(works, variable):
    return next(each for each in proof(works).judgement.rungs if each.variable == variable)


def test_nobody_marked_anything_and_the_codes_are_as_they_ship(works):
    assert works.codes() is SHIPPED


def test_a_check_is_in_the_file_at_once_as_a_revision_and_the_rung_says_so(works):
    works.mark(checked(rules(works), "preheat_min", SIGNING), author="A. Maker")
    assert is_checked(rung(works, "preheat_c"))
    assert not is_checked(rung(works, "f_number"))
    with open_works(works.path, read_only=True) as file:
        (own,) = [entry for entry in file.entries() if entry.kind == RULEBOOK.format]
        assert (own.number, own.revisions) == ("asme-ix", 1)
        assert file.verify() == ()


def test_the_verdict_follows_a_correction_and_names_it(works):
    before = rung(works, "preheat_c")
    correct(works)
    after = rung(works, "preheat_c")
    assert (before.verdict, after.verdict) == ("inside", "outside")
    assert overlay_sentences(after.rules) == ("A. Maker corrected it on 2026-11-23: our copy says so",)
    assert overlay_sentences(before.rules) == ()


def test_each_mark_is_a_revision_of_one_rulebook(works):
    correct(works)
    works.mark(checked(rules(works), "t_base", SIGNING), author="A. Maker")
    with open_works(works.path, read_only=True) as file:
        (own,) = [entry for entry in file.entries() if entry.kind == RULEBOOK.format]
        assert [each.author for each in file.revisions(own.id)] == ["A. Maker", "A. Maker"]


def test_a_mark_by_nobody_is_refused(works):
    with pytest.raises(InputError, match="nobody issues it"):
        works.mark(checked(rules(works), "t_base", SIGNING), author=" ")


def test_a_rulebook_is_no_document_of_the_register(works):
    correct(works)
    assert [entry.number for entry in works.all_entries()] == NUMBERS


def test_the_register_is_judged_anew_by_a_correction(works):
    rows = RegisterRows(works, lambda: None)

    def verdicts():
        found = rows.rows(Standpoint("si", NOW[:10]), lambda: Assessor(works.records(), works.codes()))
        return {row.number: row.verdict for row in found}

    before = verdicts()
    correct(works)
    assert (before["OST-W-01"], verdicts()["OST-W-01"]) == ("inside", "outside")


def test_a_second_reader_sees_what_the_writer_marked(works):
    reader = OpenWorks(works.path, now=lambda: NOW, told=pytest.fail)
    try:
        assert not reader.can_write
        stamps = reader.stamps()
        correct(works)
        assert rules(reader).entry("preheat_min", "si").overlay is not None
        assert reader.stamps() != stamps, "whoever follows notices"
        with pytest.raises(InputError, match="reading only"):
            reader.mark(checked(rules(reader), "t_base", SIGNING), author="A. Maker")
    finally:
        reader.close()


def test_the_command_line_reads_the_same(works):
    correct(works)
    assert codes_of_file(works.path).book("asme-ix") == works.codes().book("asme-ix")
    assert codes_of_file(None) is SHIPPED


@pytest.mark.parametrize("spoilt", ["not JSON", "", '{"format": "anlage-rulebook", "version": 99}'])
def test_by_a_rulebook_that_cannot_be_read_nothing_is_judged(works, spoilt):
    with open_works_of(works) as file:
        file.add(RULEBOOK.format, spoilt, now=NOW, number="asme-ix")
    found = proof(OpenWorks(works.path, now=lambda: NOW, told=pytest.fail))
    assert found.judgement is None
    assert "the rulebook of asme-ix cannot be read" in found.missing


def open_works_of(works):
    works.close()
    return open_works(works.path)
