"""One writer a file, by whatever name it is opened; and a file that is moved, removed or replaced while it is open."""

import os
import sqlite3
import subprocess
import sys
import threading
import time
from pathlib import Path

import pytest

from anlage.core.errors import FormatError
from anlage.store import ConflictError, Draft, HeldError, Saver, create_works, open_works
from anlage.store.hold import Hold

NOW = "2026-03-02T08:00:00Z"
BODY = '{"format": "anlage-wps", "version": 3}'
HOLDER = """
import sys
from pathlib import Path
from anlage.store import open_works
works = open_works(Path(sys.argv[1]), holder="Window 1")
print(works.can_write, flush=True)
sys.stdin.readline()
"""


@pytest.fixture
def path(tmp_path):
    path = tmp_path / "ostrel.anlage"
    with create_works(path) as works:
        works.add("anlage-wps", BODY, now=NOW, number="W-1")
    return path


@pytest.fixture
def window(path):
    """Another process that has the file open for writing."""
    child = subprocess.Popen(
        [sys.executable, "-c", HOLDER, str(path)], stdin=subprocess.PIPE, stdout=subprocess.PIPE, text=True
    )
    assert child.stdout.readline().strip() == "True"
    yield child
    child.kill()
    child.wait()
    child.stdin.close()
    child.stdout.close()


def symlink(path: Path) -> Path:
    (path.parent / "link.anlage").symlink_to(path)
    return path.parent / "link.anlage"


def hard_link(path: Path) -> Path:
    folder = path.parent / "elsewhere"
    folder.mkdir()
    os.link(path, folder / "other.anlage")
    return folder / "other.anlage"


def renamed(path: Path) -> Path:
    return path.rename(path.parent / "renamed.anlage")


def without_side_file(path: Path) -> Path:
    path.with_name("ostrel.anlage.lock").unlink()
    return path


@pytest.mark.parametrize("by", [lambda path: path, symlink, hard_link, renamed, without_side_file])
@pytest.mark.usefixtures("window")
def test_a_file_has_one_writer_by_whatever_name_it_is_opened(path, by):
    with open_works(by(path)) as second:
        assert not second.can_write
        assert "writes in it" in second.why_read_only


def test_the_writer_is_named_to_whoever_comes_second(path, window):
    with open_works(path) as second:
        assert second.why_read_only == "Window 1 writes in it"
    window.kill()
    window.wait()
    with open_works(path) as third:
        assert third.can_write


def test_no_side_file_is_left_behind(path):
    with open_works(path, holder="x"):
        pass
    assert sorted(each.name for each in path.parent.iterdir()) == ["ostrel.anlage"]


@pytest.mark.parametrize("make", [lambda side: side.symlink_to(side.with_name("precious")), os.mkfifo, Path.mkdir])
def test_a_side_file_that_is_a_link_a_pipe_or_a_folder_is_left_alone(path, make):
    precious = path.with_name("precious")
    precious.write_text("keep")
    make(path.with_name("ostrel.anlage.lock"))
    with open_works(path, holder="x") as works, open_works(path) as second:
        assert (works.can_write, second.can_write, second.why_read_only) == (True, False, "x writes in it")
    assert precious.read_text() == "keep"


def test_a_pipe_is_no_works_file_and_keeps_nobody_waiting(tmp_path):
    os.mkfifo(tmp_path / "x.anlage")
    with pytest.raises(FormatError, match="it is no file but a pipe or device"):
        open_works(tmp_path / "x.anlage")


def test_opening_and_closing_a_file_again_leaves_the_lock_of_its_database(path):
    with open_works(path) as works, works._database.writing() as connection:
        connection.execute("UPDATE documents SET title = 'half done'")
        with open_works(path, read_only=True):
            pass
        hold = Hold(path)
        hold.release()
        other = "import sqlite3, sys; sqlite3.connect(sys.argv[1], timeout=0).execute('BEGIN IMMEDIATE')"
        found = subprocess.run([sys.executable, "-c", other, str(path)], capture_output=True, text=True, check=False)
        assert "database is locked" in found.stderr


# A file that changes its place -----------------------------------------------------------------


def test_a_file_that_is_renamed_while_it_is_open_is_followed(path):
    with open_works(path) as works:
        (entry,) = works.entries()
        path.rename(path.with_name("moved.anlage"))
        works.save_draft(entry.id, Draft('{"new": 1}', {}), now=NOW)
        assert works.path.name == "moved.anlage"
    with open_works(path.with_name("moved.anlage")) as again:
        assert again.draft(entry.id).body == '{"new": 1}'


@pytest.mark.parametrize("becomes", ["nothing", "another"])
def test_a_file_that_was_removed_or_replaced_is_told_and_can_be_saved_elsewhere(path, tmp_path, becomes):
    with open_works(path) as works:
        (entry,) = works.entries()
        path.unlink()
        if becomes == "another":
            create_works(path).close()
        before = path.read_bytes() if path.exists() else None
        with pytest.raises(
            FormatError, match="it is no longer there, it was removed or another file was put in its place"
        ):
            works.save_draft(entry.id, Draft("{}", {}), now=NOW)
        assert works.draft(entry.id).body == BODY, "what it held can still be read"
        (tmp_path / "copy.anlage").touch()
        works.copy_to(tmp_path / "copy.anlage")
    assert (path.read_bytes() if path.exists() else None) == before
    with open_works(tmp_path / "copy.anlage") as copy:
        assert copy.draft(entry.id).body == BODY


# What another program does to it ---------------------------------------------------------------


def test_nothing_is_saved_over_a_version_that_was_not_read(path):
    with open_works(path) as works:
        (entry,) = works.entries()
        works.save_draft(entry.id, Draft('{"mine": 1}', {}), now=NOW, number="W-1")
        intruder = sqlite3.connect(path)
        intruder.execute("UPDATE drafts SET body = ?", (b'{"theirs": 1}',))
        intruder.commit()
        intruder.close()
        with pytest.raises(ConflictError, match="W-1 was changed in it by another program; save under another name"):
            works.save_draft(entry.id, Draft('{"mine": 2}', {}), now=NOW, number="W-1")
        assert works.draft(entry.id).body == '{"theirs": 1}'
        assert works.draft(entry.id).flaws == ("it is not what was saved: its checksum is another",)
        works.save_draft(entry.id, Draft('{"mine": 3}', {}), now=NOW)  # now it was read


def test_a_reader_delays_a_save_and_nothing_else(path):
    told = []
    saver = Saver(told.append)
    with open_works(path) as works:
        (entry,) = works.entries()
        reader = sqlite3.connect(path, check_same_thread=False)
        reader.execute("BEGIN")
        reader.execute("SELECT * FROM documents").fetchall()
        with pytest.raises(HeldError, match="another program holds it"):
            works.save_draft(entry.id, Draft('{"new": 1}', {}), now=NOW)
        saver.put("a", lambda: works.save_draft(entry.id, Draft('{"new": 2}', {}), now=NOW))
        assert list(saver.flush()) == ["a"]
        began = time.monotonic()
        assert works.draft(entry.id).body == BODY
        assert time.monotonic() - began < 5
        assert told == []
        threading.Timer(0.3, reader.close).start()
        assert saver.flush(patience_s=30) == {}
        assert works.draft(entry.id).body == '{"new": 2}'
        saver.close()


# Made whole ------------------------------------------------------------------------------------


def test_a_file_that_could_not_be_filled_is_not_there(tmp_path):
    def fail(_works):
        raise RuntimeError("power cut")

    with pytest.raises(RuntimeError):
        create_works(tmp_path / "x.anlage", fill=fail)
    assert list(tmp_path.iterdir()) == []


def test_a_file_that_appears_meanwhile_is_not_written_over(tmp_path):
    path = tmp_path / "x.anlage"
    with pytest.raises(FormatError, match="it exists already"):
        create_works(path, fill=lambda _works: path.write_text("somebody else's"))
    assert path.read_text() == "somebody else's"
    assert list(tmp_path.iterdir()) == [path]
