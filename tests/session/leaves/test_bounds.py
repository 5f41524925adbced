"""What no field can be at all is refused where it is typed, waits where it was saved, and is refused from outside."""

import json

import pytest

from anlage.cli.main import run
from anlage.core.document import Dimension, read_strict, with_at, write
from anlage.core.errors import InputError
from anlage.core.procedure import WPS
from anlage.core.ranges import Interval
from anlage.core.record import PQR
from anlage.data.files import FOLDER
from anlage.session.leaves.bounds import beyond, bounds
from anlage.session.leaves.draft import Working, complaint, moved, typed, within_bounds
from anlage.session.leaves.table import fields
from anlage.session.leaves.text import with_end, with_middle
from anlage.session.works.open_works import OpenWorks
from anlage.store import Draft, create_works, open_works

NOW = "2026-11-23T12:00:00Z"
DEMO = FOLDER / "demo"
W01 = read_strict((DEMO / "OST-W-01.json").read_text(), WPS)
RECORDS = [read_strict(path.read_text(), PQR) for path in sorted(DEMO.glob("OST-R-*.json"))]
PROCEDURES = [read_strict(path.read_text(), WPS) for path in sorted(DEMO.glob("OST-W-*.json"))]


def test_every_number_field_has_a_least_a_most_and_a_reason():
    numbers = {path for path, field in fields().items() if field.shape not in ("text", "choice")}
    assert numbers <= set(bounds())
    for path in numbers:
        bound = bounds()[path]
        assert bound.least < bound.most, path
        assert len(bound.why.split()) >= 4, path


@pytest.mark.parametrize("document", [*PROCEDURES, *RECORDS], ids=lambda each: each.header.number)
def test_the_demo_is_within_all_bounds(document):
    assert beyond(document) == {}


@pytest.mark.parametrize(
    ("path", "text", "told"),
    [
        ("joint/thickness_mm", "1001", "no dimension of a weld preparation is larger; state at most 1000 mm"),
        ("joint/root_opening_mm", "1e6", "no dimension of a weld preparation is larger"),
        ("joint/root_opening_mm/plus", "2000", "no dimension of a weld preparation is larger"),
        ("joint/seam_length_mm", "3000 m", "the seam of no tank or hull is longer than two kilometres"),
        ("deposits/d1/filler_diameter_mm", "0.1", "state at least 0.2 mm"),
        ("deposits/d1/filler_diameter_mm", "2.4..200", "no rod thicker than 20 mm"),
        ("passes/p10/travel_speed_mm_min", "0.5..100", "state at least 1 mm/min"),
        ("passes/p10/current_a", "9000", "no arc is driven with more"),
    ],
)  # fmt: skip
def test_what_is_beyond_measure_is_refused_with_the_reason_and_waits(path, text, told):
    after = typed(Working(W01), path, text, "si")
    assert after.value == W01
    assert after.pending == {path: text}
    said = str(complaint(W01, path, text, "si")).replace("\u2009", " ")
    assert told in said


def test_a_drag_stops_at_the_bounds():
    assert moved(Working(W01), "joint/thickness_mm", 5000.0).value == W01
    with pytest.raises(InputError, match="beyond measure"):
        with_end(W01, "passes/p10/current_a/high", 1e6)
    with pytest.raises(InputError, match="beyond measure"):
        with_middle(W01, "passes/p10/current_a", 1e6)


def test_a_draft_beyond_the_bounds_opens_with_the_number_waiting_in_its_field(tmp_path):
    wild = with_at(W01, "joint/root_opening_mm", Dimension(nominal=1e7, minus=1.0, plus=2.0))
    wild = with_at(wild, "passes/p10/current_a", Interval(100.0, 1e9))
    with create_works(tmp_path / "w.anlage") as works:
        own = works.add("anlage-wps", write(wild), now=NOW, number="OST-W-01")
    opened = OpenWorks(tmp_path / "w.anlage", now=lambda: NOW, told=pytest.fail)
    working, notices = opened.read(own)
    assert working.value.joint.root_opening_mm is None
    assert working.value.passes[0].current_a is None
    assert dict(working.pending) == {
        "joint/root_opening_mm": "10000000 mm", "joint/root_opening_mm/minus": "1 mm",
        "joint/root_opening_mm/plus": "2 mm", "passes/p10/current_a": "100..1000000000 A",
    }  # fmt: skip
    assert len(notices) == 4
    opened.save(own, working)
    opened.close()
    with open_works(tmp_path / "w.anlage") as works:
        assert works.draft(own).pending == dict(working.pending), "and nothing of it is lost"


def test_a_record_beyond_the_bounds_supports_nothing(tmp_path):
    wild = with_at(RECORDS[0], "joint/thickness_mm", 5000.0)
    with create_works(tmp_path / "w.anlage") as works:
        works.add("anlage-pqr", write(wild), now=NOW)
    opened = OpenWorks(tmp_path / "w.anlage", now=lambda: NOW, told=pytest.fail)
    assert opened.records() == ()
    opened.close()


def test_a_document_from_outside_is_refused_as_typing_would_be_and_an_issued_one_is_what_it_is(tmp_path, capsys):
    wild = with_at(W01, "joint/seam_length_mm", 1e10)
    file, works = tmp_path / "wild.json", tmp_path / "w.anlage"
    file.write_text(write(wild))
    for words in (("check", str(file)), ("import", str(file), "--into", str(works)),
                  ("export", str(file), "-o", str(tmp_path / "x.svg"))):  # fmt: skip
        assert run(list(words)) == 2
        assert "the seam of no tank or hull is longer" in capsys.readouterr().err
    assert not works.exists()
    with create_works(works) as made:
        own = made.add("anlage-wps", write(wild), now=NOW, number="OST-W-01")
        made.issue(own, write(wild), author="Office", now=NOW)
        made.save_draft(own, Draft(write(wild), {}), now=NOW, number="OST-W-01")
    assert run(["check", f"{works}#OST-W-01"]) == 2
    capsys.readouterr()
    assert run(["export", f"{works}#OST-W-01@1", "-o", str(tmp_path / "issued.json")]) == 0
    assert json.loads((tmp_path / "issued.json").read_text())["joint"]["seam_length_mm"] == 1e10


def test_what_waits_leaves_a_document_within_its_bounds():
    for wild in (
        with_at(RECORDS[0], "joint/thickness_mm", 1e8),
        with_at(W01, "joint/root_face_mm", Dimension(nominal=5.0, minus=0.0, plus=9e9)),
    ):
        value, waiting = within_bounds(wild)
        assert waiting
        assert beyond(value) == {}
