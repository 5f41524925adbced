"""What a command writes is whole or not there, goes over nothing unasked, and never over a works file or its source."""

import json
import os
import shutil
import signal
import subprocess
import sys
import time
from pathlib import Path

import pytest

from anlage.cli.main import run
from anlage.data.files import FOLDER
from anlage.session.machine.whole import write_whole
from anlage.session.works.demo import demo_file
from anlage.store import is_works_file, open_works
from tests.demo import NUMBERS

NOW = "2026-11-23T12:00:00Z"
SOUND, PLATE, PIPE = (str(FOLDER / "demo" / f"OST-{name}.json") for name in ("W-01", "R-01", "R-02"))
ANLAGE = [sys.executable, "-m", "anlage"]
GIVEN = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}


@pytest.fixture
def works(tmp_path):
    return demo_file(NOW, folder=tmp_path)


def refusal(capsys, *words):
    assert run(list(map(str, words))) == 2
    out, err = capsys.readouterr()
    assert (out, err.count("\n")) == ("", 1)
    return err.strip()


# Targets ---------------------------------------------------------------------------------------


@pytest.mark.parametrize("force", [(), ("--force",)])
@pytest.mark.parametrize("command", ["print", "export"])
def test_no_target_is_a_works_file_nor_the_source(capsys, works, tmp_path, command, force):
    other = demo_file(NOW, folder=tmp_path / "other")
    link = tmp_path / "link.pdf"
    link.symlink_to(works)
    json_file = tmp_path / "own.pdf"
    shutil.copy(SOUND, json_file)
    before = works.read_bytes(), other.read_bytes()
    for source, target, told in (
        (f"{works}#OST-W-01", works, "it is what this is made from"),
        (f"{works}#OST-W-01", link, "it is what this is made from"),
        (f"{works}#OST-W-01", other, "it is a works file, which is never written over"),
        (json_file, json_file, "it is what this is made from"),
    ):
        assert told in refusal(capsys, command, source, "-o", target, *force)
    assert (works.read_bytes(), other.read_bytes()) == before
    assert json_file.read_text() == Path(SOUND).read_text()


@pytest.mark.parametrize(("command", "name"), [("print", "x.pdf"), ("export", "x.json"), ("export", "x.svg")])
def test_a_file_that_is_there_is_written_over_when_that_is_said(capsys, tmp_path, command, name):
    target = tmp_path / name
    target.write_text("keep")
    told = refusal(capsys, command, SOUND, "-o", target)
    assert told == f"{name}: it exists already; choose another name, or say --force"
    assert target.read_text() == "keep"
    assert run([command, SOUND, "-o", str(target), "--force"]) == 0
    assert target.read_bytes()[:4] != b"keep"
    assert sorted(each.name for each in tmp_path.iterdir()) == [name], "nothing is left beside"


def test_a_file_is_whole_or_as_it_was_whatever_call_of_the_system_fails(tmp_path, monkeypatch):
    target = tmp_path / "x.pdf"
    target.write_bytes(b"before")
    for name in ("fsync", "replace"):
        with monkeypatch.context() as failing:
            owner = os if name == "fsync" else Path
            failing.setattr(owner, name, lambda *_: (_ for _ in ()).throw(OSError(28, "No space left on device")))
            with pytest.raises(OSError, match="No space left"):
                write_whole(target, b"after")
        assert target.read_bytes() == b"before"
        assert list(tmp_path.iterdir()) == [target]
    write_whole(target, b"after")
    assert target.read_bytes() == b"after"


def test_a_link_goes_on_pointing_where_it_points_and_rights_stay(tmp_path):
    real, link = tmp_path / "real.pdf", tmp_path / "link.pdf"
    real.write_bytes(b"before")
    real.chmod(0o640)
    link.symlink_to(real)
    write_whole(link, b"after")
    assert link.is_symlink()
    assert (real.read_bytes(), real.stat().st_mode & 0o777) == (b"after", 0o640)


def test_a_device_is_written_to_and_stays_a_device(tmp_path):
    pipe = tmp_path / "pipe"
    os.mkfifo(pipe)
    reader = subprocess.Popen(["cat", str(pipe)], stdout=subprocess.PIPE)  # noqa: S607
    write_whole(pipe, b"through")
    assert reader.communicate()[0] == b"through"
    assert pipe.is_fifo()
    with pytest.raises(IsADirectoryError):
        write_whole(tmp_path, b"")


# Words and options -----------------------------------------------------------------------------


def test_repeated_records_add_up(capsys):
    answers = []
    for words in (("--pqr", PLATE, "--pqr", PIPE), ("--pqr", PLATE, PIPE), ("--pqr", PIPE, "--pqr", PLATE)):
        run(["check", SOUND, *words, "--json"])
        answers.append(json.loads(capsys.readouterr().out)["codes"])
    assert answers[0] == answers[1]
    assert answers[0]["asme-ix"]["verdict"] == answers[2]["asme-ix"]["verdict"]
    run(["check", SOUND, "--pqr", PIPE, "--json"])
    assert json.loads(capsys.readouterr().out)["codes"] != answers[0]


def test_words_and_options_come_in_any_order(capsys):
    said = []
    for words in (
        ("--json", "coupon", "process=SMAW", "--code", "asme-ix", "thickness=10mm"),
        ("coupon", "--json", "thickness=10mm", "process=SMAW", "--code", "asme-ix"),
        ("coupon", "process=SMAW", "thickness=10mm", "--code=asme-ix", "--json"),
    ):
        if words[0] == "--json":
            continue  # before the command stand help and version alone
        assert run(list(words)) == 0
        said.append(capsys.readouterr().out)
    assert len(set(said)) == 1


# Verify, recover, import -----------------------------------------------------------------------


@pytest.fixture
def issued(works):
    with open_works(works) as file:
        own = file.entries()[0].id
        file.issue(own, file.draft(own).body, author="Office", now=NOW)
        (link,) = file.links()
    return works, link.sha256


def test_a_link_that_was_printed_stands_until_something_before_it_is_another(capsys, issued):
    works, link = issued
    for said in (link, link[:12], f"{link[:32]} {link[32:]}".upper()):
        assert run(["verify", str(works), "--expect", said]) == 0
        assert "stands: OST-W-01@1" in capsys.readouterr().out
    assert run(["verify", str(works), "--expect", "0" * 64]) == 1
    assert "is not in the chain" in capsys.readouterr().out
    for said in ("abc", "no hash at all", link[:11]):
        assert "--expect: it is no hash" in refusal(capsys, "verify", works, "--expect", said)


def test_a_reprint_of_a_revision_is_the_same_bytes_however_much_was_issued_since(capsys, issued, tmp_path):
    works, _ = issued
    first, second = tmp_path / "first.pdf", tmp_path / "second.pdf"
    assert run(["print", f"{works}#OST-W-01@1", "-o", str(first)]) == 0
    with open_works(works) as file:
        for entry in file.entries()[:2]:
            file.issue(entry.id, file.draft(entry.id).body, author="Office", now=NOW)
    assert run(["print", f"{works}#OST-W-01@1", "-o", str(second)]) == 0
    capsys.readouterr()
    assert first.read_bytes() == second.read_bytes()


def test_recover_says_what_it_saved_and_what_not(capsys, works, tmp_path):
    new = tmp_path / "new.anlage"
    whole = bytearray(works.read_bytes())
    whole[4096:8192] = bytes(4096)
    works.write_bytes(whole)
    assert "try anlage recover" in refusal(capsys, "verify", works)
    assert run(["recover", str(works), "-o", str(new), "--json"]) == 0
    found = json.loads(capsys.readouterr().out)
    assert found["documents"] <= len(NUMBERS)
    assert found["whole"] is (not found["warnings"])
    assert run(["verify", str(new)]) == 0
    capsys.readouterr()
    assert "it exists already" in refusal(capsys, "recover", works, "-o", new)


def test_a_document_is_imported_into_a_new_file_which_is_made(capsys, tmp_path):
    new = tmp_path / "new.anlage"
    assert run(["import", SOUND, "--into", str(new)]) == 0
    assert run(["import", PLATE, "--into", str(new)]) == 0
    capsys.readouterr()
    with open_works(new, read_only=True) as file:
        assert [entry.number for entry in file.entries()] == ["OST-W-01", "OST-R-01"]
    assert is_works_file(new)


def test_verify_tells_a_draft_of_which_a_bit_flipped(capsys, works):
    whole = works.read_bytes()
    works.write_bytes(whole.replace(b"Penstock shell, longitudinal", b"Penstock shelm, longitudinal"))
    assert run(["verify", str(works)]) == 1
    said = capsys.readouterr().out
    assert "the draft of OST-W-01: it is not what was saved: its checksum is another" in said


# Processes -------------------------------------------------------------------------------------


def test_a_pipe_that_nobody_reads_any_more_ends_in_silence():
    ours, theirs = os.pipe()
    os.close(ours)
    words = [*ANLAGE, "coupon", "--code", "asme-ix", "process=SMAW", "thickness=10mm", "--json"]
    found = subprocess.run(words, stdout=theirs, stderr=subprocess.PIPE, check=False)
    os.close(theirs)
    assert (found.returncode, found.stderr) == (0, b"")


def test_a_terminal_that_knows_ascii_alone_is_spoken_to_in_ascii():
    plain = {**GIVEN, "LC_ALL": "C", "PYTHONUTF8": "0", "PYTHONCOERCECLOCALE": "0", "PYTHONIOENCODING": "ascii"}
    words = [*ANLAGE, "calc", "heat-input", "process=GTAW", "volts=12", "amps=100", "speed=100mm/min"]
    found = subprocess.run(words, capture_output=True, env=plain, check=False)
    assert (found.returncode, found.stderr) == (0, b"")
    assert b"arc energy    0.72 kJ/mm" in found.stdout


WINDOW = """
import sys
from pathlib import Path
from anlage.ui.desk import app
began = app.open_window
def opened(*given):
    window = began(*given)
    def typed():
        window.ready().document.type_text("header/title", "typed last")
        print("typed", flush=True)
    window.shell.painted.connect(typed)
    return window
app.open_window = opened
sys.exit(app.run(lambda _settings: Path(sys.argv[1])))
"""


@pytest.mark.parametrize("number", [signal.SIGTERM, signal.SIGINT, signal.SIGHUP])
def test_a_window_that_is_asked_to_end_saves_first(works, tmp_path, number):
    given = {**GIVEN, **{f"XDG_{name}_HOME": str(tmp_path / name) for name in ("CONFIG", "STATE", "DATA")}}
    child = subprocess.Popen([sys.executable, "-c", WINDOW, str(works)], stdout=subprocess.PIPE, stderr=subprocess.PIPE,
                             text=True, env=given)  # fmt: skip
    assert child.stdout.readline().strip() == "typed"
    child.send_signal(number)
    began = time.monotonic()
    _, told = child.communicate(timeout=60)
    assert child.returncode == 0
    assert "Traceback" not in told
    assert time.monotonic() - began < 60
    with open_works(works, read_only=True) as file:
        assert file.entries()[0].title == "typed last"
    assert list((tmp_path / "STATE").rglob("running-*")) == [], "it ended in order"


@pytest.mark.parametrize(
    ("command", "ending", "told"),
    [
        ("export", "doc", "nothing is written as .doc; take .json, .svg, .pdf, .dxf, .csv, .xlsx"),
        ("export", "", "nothing is written as no ending; take .json"),
        ("print", "txt", "nothing is written as .txt; take .pdf"),
    ],
)
def test_an_ending_that_nothing_is_written_with_is_refused(capsys, works, tmp_path, command, ending, told):
    target = tmp_path / (f"x.{ending}" if ending else "x")
    assert told in refusal(capsys, command, f"{works}#OST-W-01", "-o", str(target))
    assert not target.exists()
