"""Documents on the command line: judged, printed as ranges, taken in and out; bad ones in one line, nothing changed."""

import json
import sqlite3
from contextlib import closing
from pathlib import Path

import pytest

from anlage.cli.main import run
from anlage.core.document import read_strict
from anlage.core.drawing import DisplayList
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER
from anlage.formats.font import measure
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import KINDS
from anlage.session.machine.clock import utc_now
from anlage.session.works.demo import demo_file
from anlage.session.works.found_documents import records_of
from anlage.store import Draft, open_works
from anlage.ui.desk.app import application
from anlage.ui.kit.look import measure as measure_on_screen

NOW = "2026-11-23T12:00:00Z"
PAGES = (DisplayList((), 1.0, (0.0, 0.0), (210.0, 297.0)),)
DEMO = FOLDER / "demo"
SOUND, FAULTY, PLATE, PIPE = (str(DEMO / f"OST-{name}.json") for name in ("W-01", "W-02", "R-01", "R-02"))


@pytest.fixture
def works(tmp_path):
    return demo_file(NOW, folder=tmp_path)


def ask(capsys, *words):
    status = run(words)
    out, err = capsys.readouterr()
    assert err == ""
    return status, out


def refusal(capsys, *words):
    assert run(words) == 2
    out, err = capsys.readouterr()
    assert (out, err.count("\n")) == ("", 1)
    return err.strip()


def test_a_sound_procedure_is_inside_and_a_faulty_one_says_what_to_change(capsys, works):
    assert ask(capsys, "check", f"{works}#OST-W-01")[0] == 0
    status, out = ask(capsys, "check", f"{works}#OST-W-02")
    assert status == 1
    assert "State at most 13.1\u2009mm, or weld a test that covers it. (QW-403.8, QW-451.1)" in out
    assert "45 of 47 variables" in out


def test_check_agrees_with_the_ladder_of_the_window(capsys, works):
    judge = Assessor(records_of(works))
    for number in ("OST-W-01", "OST-W-02"):
        _, out = ask(capsys, "check", f"{works}#{number}", "--json")
        said = json.loads(out)["codes"]["asme-ix"]
        wps = read_strict((DEMO / f"{number}.json").read_text(), WPS)
        judgement = judge.assess(wps).judgement
        assert said["counts"] == judgement.counts()
        assert {name: each["verdict"] for name, each in said["variables"].items()} == {
            rung.id: rung.verdict for rung in judgement.rungs
        }


def test_a_check_tells_a_preheat_below_the_construction_code(capsys):
    _, out = ask(capsys, "check", str(DEMO / "OST-W-05.json"))
    assert "! Preheat: outside. ASME B31.1 asks 200 °C, 50 K more than is chosen." in out.splitlines()
    assert "()" not in out
    _, out = ask(capsys, "check", str(DEMO / "OST-W-05.json"), "--json")
    told = [each for each in json.loads(out)["warnings"] if each["code"].startswith("heat.")]
    assert {each["code"] for each in told} == {"heat.outside", "heat.unproven"}
    assert {each["where"] for each in told} == {"heat"}


def test_the_json_of_check_has_the_keys_of_the_contract(capsys):
    status, out = ask(capsys, "check", FAULTY, "--pqr", PLATE, PIPE, "--json")
    answer = json.loads(out)
    assert (status, answer["verdict"], answer["document"]["number"]) == (1, "outside", "OST-W-02")
    code = answer["codes"]["asme-ix"]
    assert (code["edition"], code["units"]) == ("2023", "si")
    rung = code["variables"]["base_metal_thickness_mm"]
    assert set(rung) == {
        "verdict", "stated", "allowed", "possible", "gap", "category", "because", "clause", "confidence", "checked",
        "records", "reason",
    }  # fmt: skip
    assert (rung["stated"], rung["allowed"], rung["gap"]) == ([4, 14], [1.5, 13.1], pytest.approx(-0.9))
    assert answer["sources"]


def test_a_file_without_records_rests_on_nothing(capsys):
    status, out = ask(capsys, "check", SOUND)
    assert status == 1
    assert "no record was given" in out


def test_a_demand_on_the_command_line_is_judged(capsys, works):
    status, out = ask(capsys, "check", f"{works}#OST-W-01", "impact=yes")
    assert status == 1
    assert "no impact results" in out
    assert ask(capsys, "check", SOUND, "--pqr", PLATE, "units=us")[0] == 0


def test_ranges_of_a_record_are_those_worked_out_by_hand(capsys):
    _, out = ask(capsys, "ranges", PLATE, "--code", "asme-ix", "--json")
    answer = json.loads(out)
    assert (answer["record"], answer["edition"]) == ("OST-R-01", "2023")
    variables = answer["variables"]
    assert variables["base_metal_thickness_mm"]["allowed"] == [5, 32]  # QW-451.1: 10 to 19 mm gives 5 mm to 2T
    assert variables["deposit_thickness_mm.GTAW"]["allowed"] == [0, 11]  # 2t
    assert variables["preheat_c"]["allowed"] == [30, None]  # 55 °C under the recorded 85 °C


def test_a_record_that_is_not_accepted_says_so(capsys, tmp_path):
    open_one = tmp_path / "open.json"
    open_one.write_text((DEMO / "OST-R-01.json").read_text().replace('"count": 4', '"count": 3'))
    _, out = ask(capsys, "ranges", str(open_one), "--code", "asme-ix:2019")
    assert "the record is open: 1 side bend of QW-451.1 not recorded as passed; it qualifies nothing yet" in out


def test_a_schema_is_json_and_a_document_keeps_to_it(capsys):
    for kind in KINDS:
        schema = json.loads(ask(capsys, "schema", kind.id)[1])
        document = DEMO / f"OST-{kind.letter}-01.json"
        assert set(json.loads(document.read_text())) <= set(schema["properties"])
        assert schema["$id"].startswith(kind.format)


def test_a_document_goes_out_and_into_another_works_file(capsys, works, tmp_path):
    target = tmp_path / "out.json"
    assert ask(capsys, "export", f"{works}#OST-R-01", "-o", str(target))[0] == 0
    assert target.read_text() == (DEMO / "OST-R-01.json").read_text()
    other = tmp_path / "other"
    other.mkdir()
    second = demo_file(NOW, folder=other)
    with open_works(second) as file:
        (own,) = [entry for entry in file.entries() if entry.number == "OST-R-01"]
        file.delete(own.id, now=NOW)
    assert ask(capsys, "import", str(target), "--into", str(second))[0] == 0
    with open_works(second) as file:
        assert [entry.number for entry in file.entries()][-1] == "OST-R-01"


def test_an_issued_revision_is_found_by_its_number(capsys, works):
    with open_works(works) as file:
        (own,) = [entry for entry in file.entries() if entry.number == "OST-W-01"]
        revision = file.issue(own.id, file.draft(own.id).body, author="Office", now=NOW)
    _, out = ask(capsys, "check", f"{works}#OST-W-01@1", "--json")
    assert json.loads(out)["document"] == {"number": "OST-W-01", "revision": 1, "sha256": revision.sha256}


def test_a_sheet_is_printed_and_says_issued_only_when_it_is(capsys, works, tmp_path, monkeypatch):
    told = []
    monkeypatch.setattr(
        "anlage.session.output.printed.sheet", lambda _wps, _proof, standing, *_on: told.append(standing) or PAGES
    )
    with open_works(works) as file:
        (own,) = [entry for entry in file.entries() if entry.number == "OST-W-01"]
        file.issue(own.id, file.draft(own.id).body, author="Office", now=NOW)
    for name in (f"{works}#OST-W-01@1", f"{works}#OST-W-02", SOUND):
        assert ask(capsys, "print", name, "-o", str(tmp_path / "x.pdf"), "--force")[0] == 0
    assert [standing.is_issued for standing in told] == [True, False, False]


def test_the_printed_sheet_is_a_pdf_alike_each_time(capsys, tmp_path, monkeypatch):
    monkeypatch.setenv("SOURCE_DATE_EPOCH", "1790000000")
    outs = [tmp_path / "a.pdf", tmp_path / "b.pdf"]
    for out in outs:
        assert ask(capsys, "print", SOUND, "--pqr", PLATE, "-o", str(out), "--paper", "letter")[0] == 0
    assert outs[0].read_bytes() == outs[1].read_bytes()
    assert outs[0].read_bytes().startswith(b"%PDF-")
    assert b"D:20260921" in outs[0].read_bytes(), "the date that was given"
    assert refusal(capsys, "print", SOUND, "-o", str(tmp_path / "no/x.pdf")).startswith("x.pdf: it cannot be written (")


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (("--works", "WORKS"), "OST-M-01 tap 60–120 with 15 m of leads dial 5.5..6.5"),
        (("--works", "WORKS", "--calibration-months", "1"), "out of date since 2026-11-05, unproven as amps"),
        ((), "OST-M-01 is no machine of the works: its dial is unproven as amps."),
    ],
)
def test_the_machines_of_a_works_file_are_on_the_sheet(capsys, works, tmp_path, monkeypatch, words, said):
    monkeypatch.setenv("SOURCE_DATE_EPOCH", "1795500000")  # 2026-11-24
    seen = []
    monkeypatch.setattr("anlage.cli.print_sheet.pdf", lambda found, **_: seen.extend(found) or b"%PDF-")
    wps = json.loads(Path(SOUND).read_text())
    wps["deposits"][0]["machine"] = "OST-M-01"
    own = tmp_path / "own.json"
    own.write_text(json.dumps(wps))
    words = [str(works) if word == "WORKS" else word for word in words]
    assert ask(capsys, "print", str(own), "-o", str(tmp_path / "x.pdf"), *words)[0] == 0
    texts = " ".join(item.text for page in seen for item in page.items if hasattr(item, "text"))
    assert said in texts.replace("\u2009", " ")


@pytest.mark.parametrize("months", ["0", "121", "-3"])
def test_a_number_of_months_that_is_none_is_refused(capsys, tmp_path, months):
    refused = refusal(capsys, "print", SOUND, "-o", str(tmp_path / "x.pdf"), f"--calibration-months={months}")
    assert refused == f"calibration-months: {months} is no number of months; write 1 to 120"


def test_text_is_measured_alike_with_and_without_a_window(qapp):  # noqa: ARG001 - fonts need the application
    application(["anlage"])
    for text in ("12.5 mm", "Welding procedure specification", "0.71..1.38\u2009kJ/mm"):
        assert measure(text, 2.3) == pytest.approx(measure_on_screen(text, 2.3), rel=0.01)


@pytest.mark.parametrize(
    ("words", "line"),
    [
        (("check", "missing.json"), "missing.json: it cannot be read; check the name and folder"),
        (("check", PLATE), "OST-R-01.json: the format is anlage-pqr; take a file of format anlage-wps"),
        (("check", SOUND, "--pqr", SOUND), "OST-W-01.json: the format is anlage-wps; take a file of format anlage-pqr"),
        (("check", SOUND, "units=metric"), "header/units: 'metric' cannot be; "),
        (("ranges", PLATE, "--code", "asme-xx"), "code: no asme-xx; "),
        (("schema", "wpq"), "schema: no wpq; "),
    ],
)
def test_bad_input_is_one_line(capsys, words, line):
    assert refusal(capsys, *words).startswith(line)


@pytest.mark.parametrize(
    ("content", "line"),
    [
        (b"{", "x.json: line 1: no JSON; "),
        (b"\xff\xfe\x00", "x.json: it is no text; "),
        (b'{"format": "anlage-wps", "version": 99}', "x.json: "),
        (b'{"format": "anlage-wps", "version": 1, "colour": 3}', "x.json: "),
    ],
)
def test_a_broken_document_changes_nothing(capsys, works, tmp_path, content, line):
    (tmp_path / "x.json").write_bytes(content)
    before = works.read_bytes()
    assert refusal(capsys, "check", str(tmp_path / "x.json")).startswith(line)
    assert refusal(capsys, "import", str(tmp_path / "x.json"), "--into", str(works)).startswith(line)
    assert works.read_bytes() == before


def test_a_huge_document_is_refused_before_it_is_read(capsys, works, tmp_path):
    huge = tmp_path / "huge.json"
    with huge.open("wb") as file:
        file.truncate(10_000_000_000)  # a hole: it takes no room, and reading it would
    before = works.read_bytes()
    for words in (("check", str(huge)), ("import", str(huge), "--into", str(works))):
        assert refusal(capsys, *words) == "huge.json: 10000000000 bytes are no document; take another file"
    assert works.read_bytes() == before


def test_names_that_are_not_there_are_told(capsys, works, tmp_path):
    name = works.name
    assert refusal(capsys, "check", f"{works}#OST-W-99").startswith(f"{name}: no OST-W-99; take ")
    assert refusal(capsys, "check", f"{works}#OST-W-01@7").startswith("OST-W-01: no revision 7; ")
    assert refusal(capsys, "import", SOUND, "--into", str(works)).startswith(f"{name}: OST-W-01 is in it already; ")
    (tmp_path / "there.json").touch()
    assert refusal(capsys, "export", f"{works}#OST-W-01", "-o", str(tmp_path / "there.json")) == (
        "there.json: it exists already; choose another name, or say --force"
    )


def test_the_clock_is_iso_8601_in_utc():
    assert utc_now().endswith("Z")
    assert len(utc_now()) == 20


@pytest.mark.parametrize("number", ["OST-W-01", "OST-R-01"])
@pytest.mark.parametrize("way", ["a text waits", "a flipped bit"])
def test_a_draft_that_is_not_what_its_person_typed_is_not_judged(capsys, works, number, way):
    """What a window would mark is never green on the command line, in the procedure or in what it rests on."""
    with open_works(works) as file:
        (entry,) = [each for each in file.entries() if each.number == number]
        if way == "a text waits":
            draft = Draft(file.draft(entry.id).body, {"joint/thickness_mm": "25x"})
            file.save_draft(entry.id, draft, now=NOW, number=number, title=entry.title)
    if way == "a flipped bit":
        with closing(sqlite3.connect(works)) as connection, connection:
            (body,) = connection.execute("SELECT body FROM drafts WHERE document_id = ?", (entry.id,)).fetchone()
            other = body.replace(b"12", b"13", 1)
            connection.execute("UPDATE drafts SET body = ? WHERE document_id = ?", (other, entry.id))
    said = refusal(capsys, "check", f"{works}#OST-W-01")
    assert said.startswith(f"{number}: ")
    assert ("25x was not taken over" if way == "a text waits" else "its checksum is another") in said
