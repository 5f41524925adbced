"""Works files and documents of the first version open unchanged: what was issued then is still what was issued."""

import hashlib
import shutil
from pathlib import Path

import pytest
from msgspec.structs import replace

from anlage.core.document import read_mending, read_strict, with_at
from anlage.core.procedure import WPS
from anlage.core.procedure.wps import VERSION
from anlage.core.record import PQR
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import PROCEDURE, RECORD
from anlage.session.leaves.draft import Working
from anlage.session.works.found_documents import find_document, standing_of
from anlage.session.works.open_works import OpenWorks
from anlage.store import open_works

FIXTURES = Path(__file__).parents[2] / "fixtures"
NOW = "2026-12-01T12:00:00Z"
# SHA-256 over the bytes of the demo's documents as issued by the first version.
ISSUED = {
    "OST-W-01": "142c661c3b3967a31dca09152eb87f57b5b01d83826e90d06243630a0a0b009a",
    "OST-R-01": "1280a8bb822ff54fd200e67830e87b752f9f307857b2f8890831b15451de12e9",
}


@pytest.fixture
def path(tmp_path):
    return Path(shutil.copy(FIXTURES / "first-version.anlage", tmp_path / "works.anlage"))


@pytest.fixture
def works(path):
    found = OpenWorks(path, now=lambda: NOW, told=pytest.fail)
    yield found
    found.close()


@pytest.mark.parametrize(("number", "kind"), [("OST-W-01", PROCEDURE), ("OST-R-01", RECORD)])
def test_issued_bytes_and_hashes_are_never_rewritten(works, path, number, kind):
    (own,) = [entry.id for entry in works.entries(kind) if entry.number == number]
    working, notices = works.read(own)
    works.save(own, Working(with_at(working.value, "header/title", "Another title")))
    works.flush()
    works.save(own, working)
    works.flush()
    (revision,) = works.revisions(own)
    assert notices == ()
    assert revision.sha256 == ISSUED[number] == hashlib.sha256(revision.body.encode()).hexdigest()
    with open_works(path, read_only=True) as file:
        assert file.verify() == ()


def test_an_issued_procedure_of_the_first_version_is_still_the_issued_one(works):
    own = works.entries()[0].id
    working, _ = works.read(own)
    standing = works.standing(own, working)
    assert (standing.is_issued, standing.revision, standing.sha256) == (True, 1, ISSUED["OST-W-01"])
    other = Working(with_at(working.value, "joint/thickness_mm", 19.0))
    assert not works.standing(own, other).is_issued


def test_saved_anew_in_the_present_version_it_is_still_the_issued_one(works, path):
    own = works.entries()[0].id
    working, _ = works.read(own)
    works.save(own, Working(with_at(working.value, "header/title", "x")))
    works.flush()
    works.save(own, working)
    works.flush()
    found = find_document(f"{path}#OST-W-01", WPS)
    assert f'"version": {VERSION}' in found.body
    assert standing_of(found).is_issued


def test_records_that_were_accepted_by_choice_wait_for_their_results(works):
    found = Assessor(works.records()).assess(works.read(works.entries()[0].id)[0].value)
    assert found.judgement.verdict == "unproven"
    assert found.set_aside == (
        ("OST-R-02", "open: 1 face bend and 1 root bend of QW-451.1 not recorded as passed"),
        ("OST-R-01", "open: 3 side bends of QW-451.1 not recorded as passed"),
    )


def test_with_their_specimens_counted_the_verdicts_are_those_of_then(works):
    records = [
        (own, replace(pqr, results=tuple(replace(each, count=4) for each in pqr.results)))
        for own, pqr in works.records()
    ]  # fmt: skip
    assessor = Assessor(records)
    verdicts = [assessor.assess(works.read(entry.id)[0].value).judgement for entry in works.entries()]
    assert [found.counts() for found in verdicts] == [
        {"inside": 47, "outside": 0, "unproven": 0},
        {"inside": 45, "outside": 1, "unproven": 1},
        {"inside": 34, "outside": 0, "unproven": 2},  # tubes thinner than the diameters stated, one pass for several
    ]


PROCEDURES = ("first", "third", "fourth", "fifth", "sixth", "seventh", "eighth", "ninth")
PAST = [*((version, "procedure", WPS) for version in PROCEDURES),
        *((version, "record", PQR) for version in PROCEDURES[:6])]  # fmt: skip


@pytest.mark.parametrize(("version", "name", "kind"), PAST)
def test_a_file_of_a_past_version_reads_by_both_doors(version, name, kind):
    text = (FIXTURES / f"{version}-version-{name}.json").read_text(encoding="utf-8")
    found = read_strict(text, kind)
    assert read_mending(text, kind) == (found, ())
    assert found.header.code in ("asme-ix", "iso-15614-1-l2")
