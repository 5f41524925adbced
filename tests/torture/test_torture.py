"""A small part of what is done to break the application, with what once broke it; `make torture` does more."""

from pathlib import Path

import pytest

from anlage.session.kinds import kind_named
from tests.torture import documents, kills, monkey, sweep, works_files

CORPUS = sorted((Path(__file__).parent / "corpus").glob("*.json"))


@pytest.fixture(autouse=True)
def _own_folders(tmp_path, monkeypatch):
    for name in ("CONFIG", "STATE", "DATA"):
        monkeypatch.setenv(f"XDG_{name}_HOME", str(tmp_path / name.lower()))


def faults(found):
    return {what: count for what, count in found.items() if what.startswith("FAULT")}


@pytest.mark.parametrize("path", CORPUS, ids=lambda path: path.stem)
def test_what_once_broke_it_is_refused_or_mended(path):
    text = path.read_bytes().decode(errors="surrogatepass")
    assert documents.check(kind_named(path.stem.split("-")[0]), text) in ("refused", "mended", "sound")


@pytest.mark.parametrize("seed", range(4))
def test_documents_from_outside_are_refused_or_mended(seed):
    found = documents.fuzz(seed, 250)
    assert faults(found) == {}
    assert min(found["refused"], found["mended"]) > 10


@pytest.mark.parametrize("seed", range(2))
def test_works_files_from_outside_are_refused_or_told_and_never_changed(tmp_path, seed):
    found = works_files.fuzz(seed, 40, tmp_path)
    assert faults(found) == {}
    assert found["refused"] > 5


def test_a_kill_before_any_call_that_writes_leaves_the_old_or_the_new():
    assert faults(kills.run_all(4)) == {}


@pytest.mark.parametrize("seed", range(3))
@pytest.mark.usefixtures("qtbot")
def test_whatever_somebody_does_at_the_window_nothing_is_unforeseen(seed):
    assert faults(monkey.play(seed, 150)) == {}


@pytest.mark.usefixtures("qtbot")
def test_no_text_in_a_number_field_makes_more_work_than_anybody_waits_for(tmp_path):
    # One text of every field of each document, in the next document the next text; one view.
    part = (0, sweep.TEXTS)
    found, _, _ = sweep.run_all(tmp_path, part=part, most_calls=sweep.MOST_CALLS, each=1)
    assert faults(found) == {}
    assert found["views after a text"] > 200
