"""The open works file, settings, the demo, and what is written when something goes wrong."""

import json
import subprocess
import sys

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.errors import FormatError, InputError
from anlage.core.procedure import WPS, clashes, pass_energy
from anlage.core.record import PQR
from anlage.session.judging.evidence import Evidence, evidence_of_document
from anlage.session.kinds import PROCEDURE
from anlage.session.leaves.draft import Working, typed
from anlage.session.machine.crash import Run, ended_badly, untold_crash, write_crash
from anlage.session.machine.settings import Settings, read_settings, settings_file, write_settings
from anlage.session.works.demo import demo_file
from anlage.session.works.open_works import OpenWorks, new_document, next_number, number_clash
from anlage.store import open_works
from tests.demo import NUMBERS, PROCEDURES, RECORDS

NOW = "2026-11-23T12:00:00Z"


@pytest.fixture
def works(tmp_path):
    found = OpenWorks(tmp_path / "w.anlage", now=lambda: NOW, told=pytest.fail, holder="Office")
    yield found
    found.close()


def test_what_was_typed_comes_back_with_what_did_not_parse(works):
    own = works.add(new_document(PROCEDURE, ()))
    working, notices = works.read(own)
    draft = typed(typed(working, "joint/thickness_mm", "14", "si"), "joint/od_mm", "4 1/", "si")
    works.save(own, draft)
    works.flush()
    again, notices = works.read(own)
    assert (again.value, again.pending, notices) == (draft.value, {"joint/od_mm": "4 1/"}, ())


def test_the_list_follows_number_and_title(works):
    own = works.add(new_document(PROCEDURE, ()))
    working, _ = works.read(own)
    works.save(own, Working(with_at(working.value, "header/title", "Gate leaf")))
    works.flush()
    assert [(entry.number, entry.title) for entry in works.entries()] == [("WPS-001", "Gate leaf")]


def test_a_second_opener_reads_and_is_told_who_writes(works):
    second = OpenWorks(works.path, now=lambda: NOW, told=pytest.fail)
    assert (second.can_write, second.held_by) == (False, "Office")
    second.close()


def test_a_file_that_cannot_be_opened_is_refused(tmp_path):
    (tmp_path / "x.anlage").write_text("no")
    with pytest.raises(FormatError, match=r"^x\.anlage: it is no works file; "):
        OpenWorks(tmp_path / "x.anlage", now=lambda: NOW, told=pytest.fail)


@pytest.mark.parametrize(
    ("taken", "following"),
    [
        ((), "WPS-001"),
        (("A-9", "A-10"), "A-11"),
        (("W-02", "W-03", "W-02"), "W-04"),
        (("2026-W7",), "2026-W8"),
        (("x",), "WPS-001"),
    ],
)
def test_the_next_number_counts_on_in_the_style_of_the_last(taken, following):
    assert next_number(taken, first="WPS-001") == following


def test_a_number_of_another_procedure_is_told(works):
    first, second = works.add(new_document(PROCEDURE, ())), works.add(new_document(PROCEDURE, works.entries()))
    assert number_clash("WPS-001", first, works.entries()) is None
    assert "another document's" in str(number_clash("WPS-001", second, works.entries()))


# Settings ------------------------------------------------------------------------------------


def test_settings_come_back_as_they_were_kept(tmp_path, monkeypatch):
    monkeypatch.setenv("XDG_CONFIG_HOME", str(tmp_path))
    kept = Settings(author='Ada "A"', units="us", theme="dark", place="passes", calibration_months=6).with_recent(
        tmp_path / "ä.anlage"
    )
    write_settings(settings_file(), kept)
    assert read_settings(tmp_path / "anlage/settings.toml") == kept


@pytest.mark.parametrize(
    "text",
    [
        "",
        "x",
        "units = 3",
        "units = 'metric'\nwidth = 'wide'",
        "recent = 'x'",
        "width = true\nheight = -5",
        "calibration_months = 0",
        "calibration_months = 1e3",
        "calibration_months = true",
        "\x00",
        "a=" + "[" * 5000,
        "a=" + "{a=" * 5000,
        "width=" + "9" * 5000,
        "width=1e400",
        'author="\\u0000"',
        'recent=["\\u001b"]',
        "rates={labour_per_h=" + "1" * 400 + "}",
    ],
    ids=lambda text: text[:12],
)
def test_settings_that_cannot_be_are_as_if_never_set(tmp_path, text):
    (tmp_path / "s.toml").write_text(text)
    assert read_settings(tmp_path / "s.toml") == Settings()
    assert read_settings(tmp_path / "missing.toml") == Settings()


def test_the_newest_file_leads_the_recent_ones_and_comes_once(tmp_path):
    settings = Settings()
    for name in "abca":
        settings = settings.with_recent(tmp_path / name)
    assert [name[-1] for name in settings.recent] == ["a", "c", "b"]


def test_a_crash_is_logged_and_told_once(tmp_path):
    fault = ValueError("torch")
    write_crash(tmp_path / "logs", fault, fault.__traceback__, now=NOW)
    log = untold_crash(tmp_path / "logs")
    assert "ValueError: torch" in log.read_text()
    assert untold_crash(tmp_path / "logs") is None
    assert untold_crash(tmp_path / "nowhere") is None


# The demo ------------------------------------------------------------------------------------


def test_the_demo_holds_sound_procedures_and_accepted_records(tmp_path):
    with open_works(demo_file(NOW, folder=tmp_path)) as works:
        bodies = [(entry.kind, works.draft(entry.id).body) for entry in works.entries()]
    procedures = [read_strict(body, WPS) for kind, body in bodies if kind == WPS.format]
    records = [read_strict(body, PQR) for kind, body in bodies if kind == PQR.format]
    assert (len(procedures), len(records)) == (len(PROCEDURES), len(RECORDS))
    for wps in procedures:
        assert not clashes(wps.joint)
        assert all(pass_energy(each) for each in wps.passes)
    assert all(evidence_of_document(record) == Evidence("accepted") for record in records)


def test_the_demo_keeps_to_coupons_of_its_own(tmp_path):
    with open_works(demo_file(NOW, folder=tmp_path)) as works:
        joints = [json.loads(works.draft(entry.id).body).get("joint") for entry in works.entries()]
    taken_od = {60.3, 88.9, 168.3, 219.1, 323.8, 323.9}  # NPS 2, 3, 6, 8, 12
    assert not {joint["od_mm"] for joint in joints if joint} & taken_od
    assert not {joint["thickness_mm"] for joint in joints if joint} & {9.525, 9.53, 12.7}


def test_a_changed_demo_is_kept_until_it_is_reset_and_then_set_aside(tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    with open_works(path) as works:
        works.delete(works.entries()[0].id, now=NOW)
    with open_works(demo_file(NOW, folder=tmp_path)) as works:
        assert len(works.entries()) == len(NUMBERS) - 1
    with open_works(demo_file(NOW, folder=tmp_path, reset=True)) as works:
        assert len(works.entries()) == len(NUMBERS)
    demo_file(NOW, folder=tmp_path, reset=True)
    kept = [tmp_path / f"ostrel-demo {number}.anlage" for number in (1, 2)]
    for each, count in zip(kept, (len(NUMBERS) - 1, len(NUMBERS)), strict=True):
        with open_works(each) as works:
            assert (len(works.entries()), works.verify()) == (count, ())
    assert sorted(each.name for each in tmp_path.iterdir()) == [kept[0].name, kept[1].name, path.name]


def test_a_demo_that_is_open_is_not_made_anew_under_whoever_has_it(tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    with open_works(path, holder="Window 1") as works:
        own = works.entries()[0].id
        with pytest.raises(InputError, match="it cannot be made anew, Window 1 writes in it; close it first"):
            demo_file(NOW, folder=tmp_path, reset=True)
        works.delete(own, now=NOW)
    assert [each.name for each in tmp_path.iterdir()] == [path.name]


def test_a_damaged_demo_is_kept_as_it_is_and_made_anew(tmp_path):
    path = demo_file(NOW, folder=tmp_path)
    path.write_bytes(path.read_bytes()[:5000])
    with open_works(demo_file(NOW, folder=tmp_path, reset=True)) as works:
        assert len(works.entries()) == len(NUMBERS)
    assert len((tmp_path / "ostrel-demo 1.anlage").read_bytes()) == 5000


def test_two_faults_of_one_second_have_two_logs(tmp_path):
    fault = ValueError("torch")
    first, second = (write_crash(tmp_path, fault, None, now=NOW) for _ in range(2))
    assert first != second
    assert untold_crash(tmp_path) is not None
    assert write_crash(tmp_path, fault, None, now=NOW) not in (first, second)


DYING = """
import ctypes, sys
from pathlib import Path
from anlage.session.machine.crash import Run
run = Run(Path(sys.argv[1]))
print("begun", flush=True)
if sys.argv[2] == "segfault":
    ctypes.string_at(0)
if sys.argv[2] == "kill":
    sys.stdin.read()
run.end()
"""


@pytest.mark.parametrize(
    ("how", "said"), [("segfault", "The last run died"), ("kill", "was ended from outside"), ("end", "")]
)
def test_the_next_start_knows_how_the_last_run_ended(tmp_path, how, said):
    with subprocess.Popen(
        [sys.executable, "-c", DYING, str(tmp_path), how], stdin=subprocess.PIPE, stdout=subprocess.PIPE
    ) as child:
        assert child.stdout.readline() == b"begun\n"
        assert ended_badly(tmp_path) == "" or how != "kill", "of a process that is there nothing is said"
        if how == "kill":
            child.kill()
        child.communicate()
    told = ended_badly(tmp_path)
    assert told.startswith(said) if said == "" else said in told
    if how == "segfault":
        assert "Segmentation fault" in next(tmp_path.glob("running-*.told")).read_text(encoding="utf-8")
    assert ended_badly(tmp_path) == "", "told once"


def test_a_log_that_cannot_be_written_keeps_nobody_from_working(tmp_path):
    (tmp_path / "file").write_text("x")
    run = Run(tmp_path / "file" / "logs")
    run.end()
    assert ended_badly(tmp_path / "file" / "logs") == ""
