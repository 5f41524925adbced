"""What a careless person leaves out, leaf by leaf: nothing is inside for want of it."""

from functools import cache

import pytest

from anlage.core.document import read_strict
from anlage.core.errors import AnlageError
from anlage.data.files import FOLDER
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import PROCEDURE, RECORD
from anlage.session.leaves.table import fields
from anlage.session.leaves.text import leaf_value, with_text
from tests.demo import PROCEDURES, RECORDS


@cache
def demo(number):
    kind = PROCEDURE if number in PROCEDURES else RECORD
    return read_strict((FOLDER / f"demo/{number}.json").read_text(encoding="utf-8"), kind.core)


def leaves(document):
    """Every leaf that a document may state."""
    for pattern in fields():
        home, star, leaf = pattern.partition("/*/")
        for own in getattr(document, home, None) or () if star else ():
            yield f"{home}/{own.id}/{leaf}"
        if not star:
            yield pattern


def left_out(document):
    """The document without one leaf, for every leaf that it states and can be without."""
    for path in leaves(document):
        try:
            if leaf_value(document, path) not in (None, "", ()):
                yield path, with_text(document, path, "", "si")
        except (AnlageError, AttributeError):  # this kind of document has no such leaf, or it cannot be empty
            continue


def judged(procedures, records):
    judge = Assessor([(f"{number}@1", document) for number, document in records.items()])
    return {number: judge.assess(each).verdict for number, each in procedures.items()}


RECORDED = {number: demo(number) for number in RECORDS}
WHOLE = judged({number: demo(number) for number in PROCEDURES}, RECORDED)


def test_something_is_inside_and_something_is_not():
    assert {"inside", "outside"} <= set(WHOLE.values())


@pytest.mark.parametrize("number", [number for number in PROCEDURES if WHOLE[number] != "inside"])
def test_a_procedure_is_not_inside_for_want_of_a_leaf(number):
    states = dict(left_out(demo(number)))
    assert len(states) > 30
    verdicts = judged(states, RECORDED)
    assert [path for path, verdict in verdicts.items() if verdict == "inside"] == []


@pytest.mark.parametrize("number", RECORDS)
def test_no_procedure_is_inside_for_want_of_a_leaf_of_a_record(number):
    own = set(demo(number).header.codes)
    others = {each: demo(each) for each in PROCEDURES if own & set(demo(each).header.codes) and WHOLE[each] != "inside"}
    states = dict(left_out(demo(number)))
    assert len(states) > 30
    found = [
        (path, each)
        for path, state in states.items()
        for each, verdict in judged(others, {**RECORDED, number: state}).items()
        if verdict == "inside"
    ]
    assert found == []


@pytest.mark.parametrize(
    ("number", "paths"),
    [
        ("OST-W-01", ["metals/one/name", "range/thickness_mm", "pwht/kind", "preheat/minimum_c", "header/impact",
                      "deposits/d1/filler", "deposits/d2/process", "technique/runs"]),
        ("OST-W-03", ["metals/one/name", "deposits/d1/filler", "pwht/kind", "header/weld"]),
    ],
)  # fmt: skip
def test_what_its_code_asks_for_is_missed(number, paths):
    states = dict(left_out(demo(number)))
    verdicts = judged({path: states[path] for path in paths}, RECORDED)
    assert "inside" not in verdicts.values(), verdicts
