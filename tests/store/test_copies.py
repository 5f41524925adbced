"""Copies under another name, dated copies, and saving what can be read of a damaged file."""

import json
import random
import shutil
import sqlite3
from pathlib import Path

import pytest

from anlage.core.errors import AnlageError, FormatError
from anlage.store import Draft, copies_of, copy_as, create_works, keep_copy, open_works
from anlage.store.rescue import recover

NOW = "2026-03-02T08:00:00Z"
FIXTURES = Path(__file__).parents[1] / "fixtures"


def body(n):
    return json.dumps({"format": "anlage-wps", "version": 3, "header": {"number": f"W-{n}", "title": "x" * 3000}})


@pytest.fixture
def path(tmp_path):
    """A works file of forty documents, every third of them issued."""
    path = tmp_path / "ostrel.anlage"

    def fill(works):
        for n in range(40):
            own = works.add("anlage-wps", body(n), now=NOW, number=f"W-{n}", title="x")
            if n % 3 == 0:
                works.issue(own, body(n), author="A. Maker", now=NOW)

    create_works(path, fill=fill).close()
    return path


# Copies --------------------------------------------------------------------------------------


def test_a_copy_holds_everything_and_verifies(path, tmp_path):
    with open_works(path) as works:
        copy_as(works, tmp_path / "copy.anlage")
        with open_works(tmp_path / "copy.anlage") as copy:
            assert copy.entries() == works.entries()
            assert copy.links() == works.links()
            assert copy.verify() == ()
    assert sorted(each.name for each in tmp_path.iterdir()) == ["copy.anlage", "ostrel.anlage"]


def test_a_copy_is_made_over_nothing(path, tmp_path):
    (tmp_path / "copy.anlage").write_text("keep")
    with open_works(path) as works:
        with pytest.raises(FormatError, match="it exists already"):
            copy_as(works, tmp_path / "copy.anlage")
        with pytest.raises(FormatError, match="it cannot be made there"):
            copy_as(works, tmp_path / "no folder" / "copy.anlage")
    assert (tmp_path / "copy.anlage").read_text() == "keep"


def test_five_dated_copies_are_kept_and_the_oldest_goes(path):
    other = path.with_name("ostrel copies") / "my own.anlage"
    for day in range(1, 9):
        with open_works(path) as works:
            keep_copy(works, f"2026-03-0{day}T08:15:00Z")
            other.touch()
    found = [each.name for each in copies_of(path)]
    assert found == [f"ostrel 2026-03-0{day} 081500.anlage" for day in range(4, 9)]
    assert other.exists(), "what somebody else laid there stays"


def test_a_dated_copy_opens_as_it_was_and_has_no_copies_of_its_own(path):
    with open_works(path) as works:
        before = works.entries()
        kept = keep_copy(works, NOW)
        works.delete(before[0].id, now=NOW)
    with open_works(kept) as copy:
        assert copy.entries() == before
        assert copy.verify() == ()
        assert keep_copy(copy, NOW) is None


def test_two_copies_of_one_second_have_two_names(path):
    with open_works(path) as works:
        assert keep_copy(works, NOW) != keep_copy(works, NOW)
    assert len(copies_of(path)) == 2


# An older layout -------------------------------------------------------------------------------


@pytest.fixture
def old(tmp_path):
    return Path(shutil.copy(FIXTURES / "first-version.anlage", tmp_path / "old.anlage"))


def rows(path, query):
    with sqlite3.connect(path) as connection:
        found = connection.execute(query).fetchall()
    connection.close()
    return found


def test_an_older_file_gets_a_chain_marked_with_the_date_and_its_revisions_stay_untouched(old):
    before = rows(old, "SELECT * FROM revisions ORDER BY rowid")
    with open_works(old, now=NOW) as works:
        assert works.can_write
        links = works.links()
        assert len(links) == len(before) > 0
        assert all(link.is_late and link.linked_at == NOW for link in links)
        own = works.entries()[0].id
        added = works.issue(own, "{}", author="A. Maker", now=NOW)
        assert works.verify() == ()
        assert not works.links()[-1].is_late
        assert added.link == works.links()[-1].sha256
    assert rows(old, "SELECT * FROM revisions ORDER BY rowid")[: len(before)] == before


def test_an_older_file_that_is_only_read_stays_as_it_is(old):
    before = old.read_bytes()
    with open_works(old, read_only=True) as works:
        assert works.verify() == ()
        assert works.links() == ()
        assert [works.draft(entry.id).flaws for entry in works.entries()] == [()] * len(works.entries())
        assert all(each.link == "" for entry in works.entries() for each in works.revisions(entry.id))
    assert old.read_bytes() == before


def test_an_older_file_without_the_date_is_opened_for_reading(old):
    with open_works(old) as works:
        assert (works.can_write, works.why_read_only) == (False, "it is of an older Anlage")


# Checksums -------------------------------------------------------------------------------------


@pytest.mark.parametrize("change", ["body = substr(body, 1, 9) || 'X' || substr(body, 11)", 'pending = \'{"a": "b"}\''])
def test_a_draft_that_was_changed_behind_the_back_of_anlage_is_told(path, change):
    connection = sqlite3.connect(path)
    connection.execute(f"UPDATE drafts SET {change} WHERE rowid = 3")  # noqa: S608
    connection.commit()
    connection.close()
    with open_works(path) as works:
        flaws = [works.draft(entry.id).flaws for entry in works.entries()]
    assert [number for number, each in enumerate(flaws) if each] == [2]
    assert flaws[2] == ("it is not what was saved: its checksum is another",)


# Saving what can be read -----------------------------------------------------------------------


def test_a_sound_file_is_recovered_whole(path, tmp_path):
    found = recover(path, tmp_path / "new.anlage", now=NOW)
    assert (found.documents, found.revisions, found.notices) == (40, 14, ())
    with open_works(path) as works, open_works(tmp_path / "new.anlage") as new:
        assert new.entries() == works.entries()
        assert new.links() == works.links()
        assert [new.draft(entry.id) for entry in new.entries()] == [works.draft(entry.id) for entry in works.entries()]


@pytest.mark.parametrize("seed", range(12))
def test_what_can_be_read_of_a_damaged_file_is_saved_and_the_rest_is_told(path, tmp_path, seed):
    chance = random.Random(seed)
    whole = bytearray(path.read_bytes())
    pages = len(whole) // 4096
    for page in chance.sample(range(2, pages), 3):
        whole[page * 4096 : (page + 1) * 4096] = chance.randbytes(4096)
    path.write_bytes(whole)
    damaged = path.read_bytes()
    try:
        found = recover(path, tmp_path / "new.anlage", now=NOW)
    except AnlageError as fault:
        assert "nothing in it can be read" in str(fault)  # noqa: PT017
        found = None
    assert path.read_bytes() == damaged
    if found is not None:
        assert found.documents == 40 or found.notices
        with open_works(tmp_path / "new.anlage") as new:
            assert new.can_write
            assert len(new.entries()) == found.documents
            for entry in new.entries():
                assert new.draft(entry.id).flaws == ()
    assert not [each for each in tmp_path.iterdir() if each.name.startswith(".")], "nothing is left behind"


def test_most_of_a_file_with_three_lost_pages_is_saved(path, tmp_path):
    whole = bytearray(path.read_bytes())
    pages = len(whole) // 4096
    for page in range(pages // 2, pages // 2 + 3):
        whole[page * 4096 : (page + 1) * 4096] = bytes(4096)
    path.write_bytes(whole)
    with pytest.raises(FormatError, match="anlage recover"):
        open_works(path)
    found = recover(path, tmp_path / "new.anlage", now=NOW)
    assert found.documents >= 30
    assert found.notices


def test_a_file_into_which_something_was_planted_is_recovered_without_it(path, tmp_path):
    connection = sqlite3.connect(path)
    connection.executescript("""
        CREATE VIEW v AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i FROM n) SELECT i FROM n;
        DROP TRIGGER issued_revisions_stay_delete;
        DELETE FROM documents WHERE rowid = 5; DELETE FROM drafts WHERE rowid = 7;
    """)
    connection.close()
    found = recover(path, tmp_path / "new.anlage", now=NOW)
    assert found.documents == 40
    said = [each.text for each in found.notices]
    assert "the entry of W-4 is made anew" in said
    assert "the draft of W-6 is lost; in its place stands what was issued last" in said
    with open_works(tmp_path / "new.anlage") as new:
        assert new.verify() == ()


def test_what_is_no_works_file_is_not_recovered(tmp_path):
    (tmp_path / "x.anlage").write_text("no" * 5000)
    with pytest.raises(FormatError, match="nothing in it can be read"):
        recover(tmp_path / "x.anlage", tmp_path / "new.anlage", now=NOW)
    with pytest.raises(FormatError, match="there is no such file"):
        recover(tmp_path / "none.anlage", tmp_path / "new.anlage", now=NOW)
    (tmp_path / "there.anlage").touch()
    with pytest.raises(FormatError, match="it exists already"):
        recover(tmp_path / "x.anlage", tmp_path / "there.anlage", now=NOW)


def test_a_saved_draft_is_what_is_recovered(path, tmp_path):
    with open_works(path) as works:
        own = works.entries()[1].id
        works.save_draft(own, Draft('{"a": "ü"}', {"x": "12,7"}), now=NOW, number="W-1")
    recover(path, tmp_path / "new.anlage", now=NOW)
    with open_works(tmp_path / "new.anlage") as new:
        assert new.draft(own) == Draft('{"a": "ü"}', {"x": "12,7"})
