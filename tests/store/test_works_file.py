"""The works file: drafts, issued revisions, one writer, and files that are refused as they are."""

import hashlib
import json
import sqlite3

import pytest

from anlage.core.errors import FormatError, InputError, UnknownNameError
from anlage.store import Draft, create_works, open_works

NOW = "2026-03-02T08:00:00Z"
BODY = json.dumps({"format": "anlage-wps", "version": 1})


@pytest.fixture
def path(tmp_path):
    return tmp_path / "ostrel.anlage"


@pytest.fixture
def works(path):
    with create_works(path, holder="Writer at desk 1") as made:
        yield made


@pytest.fixture
def wps_id(works):
    return works.add("anlage-wps", BODY, now=NOW, number="W-101", title="Penstock shell")


def test_a_draft_comes_back_with_the_texts_that_do_not_parse(works, wps_id, path):
    draft = Draft('{"title": "½ in – °"}', {"joint/root_opening_mm": "3/8 in -"})
    works.save_draft(wps_id, draft, now=NOW, number="W-102")
    works.close()
    with open_works(path) as again:
        assert again.draft(wps_id) == draft
        assert [(entry.number, entry.revisions) for entry in again.entries()] == [("W-102", 0)]


def test_a_revision_has_number_author_time_and_the_hash_of_its_bytes(works, wps_id):
    first = works.issue(wps_id, BODY, author="A. Maker", now=NOW)
    second = works.issue(wps_id, BODY + " ", author="A. Maker", now=NOW)
    assert (first.number, second.number) == (1, 2)
    assert first.sha256 == hashlib.sha256(BODY.encode()).hexdigest()
    assert works.revisions(wps_id) == (first, second)
    assert works.entries()[0].revisions == 2
    assert works.verify() == ()


def test_nobody_issues_without_a_name(works, wps_id):
    with pytest.raises(InputError, match="author: nobody issues it; state your name in the settings"):
        works.issue(wps_id, BODY, author="  ", now=NOW)


@pytest.mark.parametrize("change", ["UPDATE revisions SET body = x'00'", "DELETE FROM revisions"])
def test_the_database_itself_refuses_to_change_what_was_issued(works, wps_id, path, change):
    works.issue(wps_id, BODY, author="A. Maker", now=NOW)
    works.close()
    intruder = sqlite3.connect(path)
    with pytest.raises(sqlite3.IntegrityError, match="an issued revision never changes"):
        intruder.execute(change)
    intruder.close()


@pytest.mark.parametrize(
    ("tampering", "codes"),
    [
        ("UPDATE revisions SET body = x'7b7d' WHERE number = 2", ["works.revision_changed"]),
        ("DELETE FROM revisions WHERE number = 1", ["works.revision_missing", "works.revision_missing"]),
        ("DELETE FROM revisions WHERE number = 3", ["works.revision_missing"]),
        ("DELETE FROM revisions WHERE number = 3; DELETE FROM links WHERE number = 3", ["works.link_missing"]),
        ("UPDATE revisions SET author = 'B. Other' WHERE number = 2", ["works.link_broken"]),
        ("UPDATE revisions SET issued_at = '2025-01-01T00:00:00Z' WHERE number = 1", ["works.link_broken"]),
        (
            "UPDATE revisions SET body = x'7b7d', sha256 = "
            "'44136fa355b3678a1146ad16f7e8649e94fb4fc21fe77e8310c060f61caaff8a' WHERE number = 2",
            ["works.link_broken"],
        ),
        (
            "UPDATE revisions SET number = 9 WHERE number = 1; UPDATE revisions SET number = 1 WHERE number = 2; "
            "UPDATE revisions SET number = 2 WHERE number = 9",
            ["works.link_broken", "works.link_broken"],
        ),
        (
            "INSERT INTO revisions SELECT document_id, 4, body, sha256, author, issued_at FROM revisions "
            "WHERE number = 1",
            ["works.link_missing"],
        ),
        ("DELETE FROM links WHERE number = 2", ["works.link_missing", "works.link_broken", "works.link_missing"]),
    ],
)
def test_verify_finds_what_was_changed_behind_the_triggers(works, wps_id, path, tampering, codes):
    for blanks in range(3):
        works.issue(wps_id, BODY + " " * blanks, author="A. Maker", now=NOW)
    works.close()
    intruder = sqlite3.connect(path)
    kept = intruder.execute("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'").fetchall()
    for name, _ in kept:
        intruder.execute(f"DROP TRIGGER {name}")
    intruder.executescript(tampering)
    for _, sql in kept:
        intruder.execute(sql)
    intruder.commit()
    intruder.close()
    with open_works(path) as again:
        found = again.verify()
    assert sorted(notice.code for notice in found) == sorted(codes)
    assert all(notice.where.startswith("W-101@") or notice.where == "chain" for notice in found)


def test_a_deleted_document_is_kept_and_comes_back(works, wps_id):
    works.delete(wps_id, now=NOW)
    assert works.entries() == ()
    assert [entry.id for entry in works.entries(deleted=True)] == [wps_id]
    works.restore(wps_id)
    assert [entry.id for entry in works.entries()] == [wps_id]


def test_an_unknown_document_is_refused(works):
    with pytest.raises(UnknownNameError, match="no nothing"):
        works.draft("nothing")
    with pytest.raises(UnknownNameError, match="no nothing"):
        works.save_draft("nothing", Draft(BODY, {}), now=NOW)


# One writer ----------------------------------------------------------------------------------


def test_a_second_opener_reads_follows_and_is_told_who_writes(works, wps_id, path):
    with open_works(path, holder="Reader") as second:
        assert (second.can_write, second.held_by) == (False, "Writer at desk 1")
        works.save_draft(wps_id, Draft('{"new": 1}', {}), now=NOW)
        assert second.draft(wps_id).body == '{"new": 1}'
        with pytest.raises(InputError, match="open for reading only, Writer at desk 1 writes in it; save under"):
            second.save_draft(wps_id, Draft("{}", {}), now=NOW)


def test_the_next_opener_writes_when_the_first_has_closed(works, path):
    works.close()
    with open_works(path) as second:
        assert second.can_write


@pytest.mark.parametrize("read_only", [True, False])
def test_what_a_killed_writer_left_half_done_is_undone(works, wps_id, path, tmp_path, read_only):
    works.issue(wps_id, BODY, author="A. Maker", now=NOW)
    works.close()
    writer = sqlite3.connect(path)
    writer.execute("PRAGMA cache_size = 1")  # pages go to the file before the commit
    writer.execute("UPDATE documents SET title = 'half done'")
    for n in range(200):
        writer.execute("INSERT INTO documents VALUES (?, 'x', '', ?, 'now', NULL)", (str(n), "x" * 2000))
    killed = tmp_path / "killed.anlage"
    killed.write_bytes(path.read_bytes())
    (tmp_path / "killed.anlage-journal").write_bytes((tmp_path / "ostrel.anlage-journal").read_bytes())
    writer.close()
    assert killed.read_bytes() != path.read_bytes()
    with open_works(killed, read_only=read_only) as again:
        assert [entry.title for entry in again.entries()] == ["Penstock shell"]
        assert again.verify() == ()


def test_half_a_surrogate_pair_that_was_typed_is_not_lost(works, wps_id):
    works.save_draft(wps_id, Draft(BODY, {"header/title": "\ud83d"}), now=NOW)
    assert works.draft(wps_id).pending == {"header/title": "\ud83d"}


def test_a_file_in_a_folder_that_cannot_be_locked_opens_for_reading(works, path, tmp_path, monkeypatch):
    works.close()
    monkeypatch.setattr("anlage.store.opening.os.access", lambda path, _: path != tmp_path)
    with open_works(path) as second:
        assert (second.can_write, second.entries()) == (False, ())
        assert second.why_read_only == "its folder may not be written"


# Files that are refused ----------------------------------------------------------------------


def header(application=0x414E4C47, layout=2):
    """A file that starts like a works file and is nothing behind it."""
    head = bytearray(b"SQLite format 3\x00".ljust(100, b"\x00"))
    head[60:64], head[68:72] = layout.to_bytes(4, "big"), application.to_bytes(4, "big")
    return bytes(head)


@pytest.mark.parametrize(
    ("content", "message"),
    [
        (b"", "ostrel.anlage: it is no works file; choose a file that Anlage made"),
        (b"hello" * 100, "it is no works file"),
        (header(application=1), "it is no works file"),
        (header(layout=3), "ostrel.anlage: its layout 3 is of a newer Anlage; open it with a newer Anlage"),
        (header(), "ostrel.anlage: it is damaged; take a copy from the backup"),
        (header() + b"\xff" * 5000, "it is damaged"),
    ],
    ids=range(6),
)
def test_a_file_that_is_no_works_file_gives_one_line_and_stays_as_it_was(path, content, message):
    path.write_bytes(content)
    with pytest.raises(FormatError) as refusal:
        open_works(path)
    assert message in str(refusal.value)
    assert path.read_bytes() == content


def test_a_truncated_works_file_is_damaged(works, wps_id, path):
    for _ in range(40):
        works.issue(wps_id, BODY * 200, author="A. Maker", now=NOW)
    works.close()
    whole = path.read_bytes()
    path.write_bytes(whole[: len(whole) // 2])
    with pytest.raises(FormatError, match="it is damaged"):
        open_works(path)
    assert path.read_bytes() == whole[: len(whole) // 2]


def test_a_foreign_database_with_our_mark_is_refused(path):
    foreign = sqlite3.connect(path)
    foreign.execute("CREATE TABLE documents (id)")
    foreign.execute(f"PRAGMA application_id = {0x414E4C47}")
    foreign.execute("PRAGMA user_version = 2")
    foreign.commit()
    foreign.close()
    with pytest.raises(FormatError, match="its table documents is not of a works file"):
        open_works(path)


@pytest.mark.parametrize(
    ("planting", "told"),
    [
        ("DROP TRIGGER issued_revisions_stay_update", "its trigger issued_revisions_stay_update is missing"),
        ("CREATE TRIGGER t AFTER INSERT ON drafts BEGIN DELETE FROM drafts; END", "its trigger t is not"),
        ("CREATE VIEW v AS WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i FROM n) SELECT i FROM n", "view v is"),
        ("ALTER TABLE documents ADD COLUMN x GENERATED ALWAYS AS (zeroblob(999999999)) VIRTUAL", "table documents is"),
        ("CREATE INDEX x ON drafts (abs(-9223372036854775807))", "its index x is not of a works file"),
        ("DROP TRIGGER links_stay_delete; CREATE TRIGGER links_stay_delete BEFORE DELETE ON links BEGIN SELECT 1; END",
         "its trigger links_stay_delete is not of a works file"),
    ],
    ids=range(6),
)  # fmt: skip
@pytest.mark.parametrize("read_only", [True, False])
def test_what_was_planted_in_a_works_file_or_taken_out_refuses_it(works, path, planting, told, read_only):
    works.close()
    intruder = sqlite3.connect(path)
    intruder.executescript(planting)
    intruder.close()
    before = path.read_bytes()
    with pytest.raises(FormatError, match=told):
        open_works(path, read_only=read_only)
    assert path.read_bytes() == before


def test_a_missing_file_a_folder_and_an_existing_name_are_told_apart(tmp_path, path):
    path.touch()
    with pytest.raises(FormatError, match="there is no such file; check the name and folder"):
        open_works(tmp_path / "none.anlage")
    with pytest.raises(FormatError, match="it is a folder"):
        open_works(tmp_path)
    with pytest.raises(FormatError, match="it exists already; choose another name, or open it"):
        create_works(path)
    with pytest.raises(FormatError, match="it cannot be made there"):
        create_works(tmp_path / "no-folder" / "x.anlage")


def test_a_refused_file_can_be_opened_once_it_is_mended(works, path):
    works.close()
    whole = path.read_bytes()
    path.write_bytes(whole[:2000])
    with pytest.raises(FormatError):
        open_works(path)
    path.write_bytes(whole)
    with open_works(path) as again:
        assert again.can_write
