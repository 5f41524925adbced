"""A new user's way with a structural joint: what keeps it from needing no test, mended beside the rungs that say so."""

import pytest

from anlage.session.judging.mending import mendings

MENDED = {"filler": "E81T1-Ni1C", "root_opening_mm": "6"}  # by the last part of the leaf that a rung leads to


@pytest.fixture
def splice(demo):
    demo.desk.open_document(next(each.id for each in demo.desk.works.all_entries() if each.number == "OST-W-09"))
    demo.press("Alt+R")
    demo.settle()
    return demo


def problems(person):
    return [line for line in person.place.model.lines if line.is_problem]


def test_the_joint_that_it_comes_nearest_to_says_what_keeps_it_from_needing_no_test(splice):
    told = {line.rung.variable: line for line in problems(splice)}
    assert told.keys() == {"drawn_root_opening_mm", "filler_group"}
    opening = told["drawn_root_opening_mm"]
    assert (opening.stated, opening.allowed, opening.path) == ("9\u2009mm", "6..8\u2009mm", "joint/root_opening_mm")
    assert "B-U2a-GF (iii) allows 6..8" in opening.reason
    assert "Figure 5.1" in opening.rung.clause


def test_it_is_mended_beside_the_rungs_by_keyboard_alone(splice):
    for _ in range(2):
        splice.press("F7")
        leaf = splice.place.panel.line.path.rpartition("/")[2]
        splice.press("Return", "Ctrl+A")
        splice.type(MENDED[leaf])
        splice.press("Return")
        splice.press("Alt+R")
        splice.settle()
    assert not problems(splice)
    assert "needs no test: its joint is B-U2a-GF (iii)" in splice.place.supports.text()
    assert splice.wps.deposits[0].filler == "E81T1-Ni1C"


def test_what_brings_it_inside_knows_the_root_opening(splice):
    (found, *_) = mendings(splice.wps, splice.desk.assess, "si")
    assert [(each.path, each.right) for each in found.changes] == [("joint/root_opening_mm", "8 mm")]
    assert found.left == ("Matching group, FCAW: outside, III is allowed.",)
