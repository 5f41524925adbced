"""What is only proposed stays so until it is edited, confirmed or gone."""

import pytest

from anlage.core.document import Dimension, Proposed, with_, with_at
from anlage.core.procedure import Joint, Wps, with_deposit, with_pass, without_pass
from anlage.session.leaves.draft import Working, changed_to, typed
from anlage.session.leaves.many import copied_down
from anlage.session.leaves.marks import with_marks_of, without_marks

MARK = Proposed(reason="usual", confidence="L")
CURRENT, SPEED, GAP = "passes/p2/current_a", "passes/p3/travel_speed_mm_min", "joint/root_opening_mm"


@pytest.fixture
def draft():
    wps, home = with_deposit(Wps(joint=Joint(kind="single-v", root_opening_mm=Dimension(nominal=3.0))))
    for _ in range(2):
        wps, _ = with_pass(wps, home, current_a=(90, 110), travel_speed_mm_min=(60, 80))
    return Working(with_(wps, proposed=dict.fromkeys((CURRENT, SPEED, GAP), MARK)))


@pytest.mark.parametrize(
    ("path", "text"), [(CURRENT, "95..115"), (SPEED, "70"), (GAP, "4"), (CURRENT, ""), (SPEED, "60..81")]
)
def test_an_edit_of_a_leaf_takes_its_mark_away_and_no_other(draft, path, text):
    after = typed(draft, path, text, "si")
    assert set(after.value.proposed) == {CURRENT, SPEED, GAP} - {path}


def test_what_is_typed_and_not_taken_over_leaves_the_mark(draft):
    assert set(typed(draft, CURRENT, "much", "si").value.proposed) == {CURRENT, SPEED, GAP}


def test_the_mark_of_a_pass_that_goes_goes_with_it(draft):
    assert set(changed_to(draft, without_pass(draft.value, "p2")).value.proposed) == {SPEED, GAP}


def test_a_new_proposal_brings_its_own_mark(draft):
    other = Proposed(reason="uphill", confidence="M")
    value = with_at(with_(draft.value, proposed={**draft.value.proposed, CURRENT: other}), CURRENT, (70, 80))
    assert changed_to(draft, value).value.proposed[CURRENT] is other


def test_a_copy_of_a_proposed_pass_is_proposed(draft):
    wps, copy = with_pass(draft.value, "d1", after="p2", current_a=(90, 110))
    done = changed_to(draft, with_marks_of(wps, "p2", copy)).value
    assert done.proposed[f"passes/{copy}/current_a"] is MARK


def test_what_is_copied_down_is_somebodys(draft):
    both = Working(with_(draft.value, proposed={**draft.value.proposed, "passes/p3/current_a": MARK}))
    changed = typed(both, CURRENT, "95..115", "si")
    done = copied_down(changed, [CURRENT, "passes/p3/current_a"])
    assert set(done.value.proposed) == {SPEED, GAP}


def test_confirming_takes_marks_away_and_changes_nothing_else(draft):
    done = without_marks(draft.value, [CURRENT])
    assert set(done.proposed) == {SPEED, GAP}
    assert done.passes is draft.value.passes
    assert without_marks(done, [CURRENT]) is done
