"""What a refusal says of a name that is in no table, and when it looks for one that is."""

import gc
import weakref

import pytest

from anlage.core import errors
from anlage.core.errors import LISTED, UnknownNameError
from anlage.data.tables import vocabulary

MANY = [f"grade {n}" for n in range(LISTED + 1)]


@pytest.mark.parametrize(
    ("name", "known", "said"),
    [
        ("GTWA", ["GTAW", "SMAW"], "process: no GTWA; take GTAW"),
        ("plasma", ["GTAW", "SMAW"], "process: no plasma; take one of GTAW, SMAW"),
        ("plasma", MANY, "process: no plasma; check the spelling"),
        ("plas\nma", (name for name in MANY), "process: no plas ma; check the spelling"),
    ],
)
def test_a_name_that_is_in_no_table_is_refused_in_one_line(name, known, said):
    assert str(UnknownNameError(name, known, where="process")) == said


def test_what_else_can_be_done_is_said_behind_the_names():
    refusal = UnknownNameError("x", ["GTAW"], where="process", otherwise=" or leave it out")
    assert refusal.mend == "take one of GTAW or leave it out"


def test_close_names_are_looked_for_when_somebody_reads_them(monkeypatch):
    asked = []
    monkeypatch.setattr(errors, "closest", lambda name, _known: asked.append(name) or ("GTAW",))
    refusal = UnknownNameError("GTWA", ["GTAW"], where="process")
    assert not asked
    assert (str(refusal), refusal.close) == ("process: no GTWA; take GTAW", ("GTAW",))
    assert asked == ["GTWA"]


class Painter:
    """Something that must be gone as soon as nobody uses it."""


def test_a_refusal_that_was_caught_keeps_nothing_alive():
    said = []

    def tried():
        painter = Painter()
        try:
            vocabulary().token("process", "GTWA")
        except UnknownNameError as refusal:
            said.append(str(refusal))
        return weakref.ref(painter)

    gc.disable()
    try:
        assert tried()() is None
        assert said == ["process: no GTWA; take GTAW"]
    finally:
        gc.enable()
