"""Passes that one procedure holds: where a code limits how far settings lie apart, what is proposed lies within."""

import pytest

from anlage.core.document import with_, with_at
from anlage.core.procedure import Wps
from anlage.core.ranges import Interval
from anlage.session.draft.whole import whole_draft
from anlage.session.draft.widths import fill_within
from anlage.session.judging.assessment import Assessor
from anlage.session.proposal.draft import drafted
from anlage.session.proposal.fill import proposed_fill
from anlage.session.weld.beads import bead_layout

ASSESS = Assessor(()).assess
# Highest over lowest of a range that fits about one value (AWS D1.1:2020 Table 5.2, from memory, M).
SPEED, SUBMERGED, CURRENT, VOLTS = 1.25 / 0.75, 1.15 / 0.85, 1.10 / 0.90, 1.07 / 0.93


def stated(process, position, thickness, code="aws-d1.1"):
    wps = Wps()
    for path, value in (("metals/one/name", "A572-50"), ("joint/product", "plate"), ("header/codes", (code,)),
                        ("joint/thickness_mm", thickness), ("technique/position", position)):  # fmt: skip
        wps = with_at(wps, path, value)
    return wps, (process,)


def width(wps, leaf):
    spans = [getattr(each, leaf) for each in wps.passes]
    return max(each.high for each in spans) / min(each.low for each in spans)


def outside(wps):
    return {rung.id for rung in ASSESS(wps).judgement.rungs if rung.verdict == "outside"}


CASES = [
    *((process, place, thick) for process in ("FCAW", "GMAW") for place in ("1G", "3G", "4G") for thick in (25, 50)),
    ("SAW", "1G", 12), ("SAW", "1G", 50),
]  # fmt: skip


@pytest.mark.parametrize(("process", "position", "thickness"), CASES)
def test_a_draft_is_never_outside_its_own_code(process, position, thickness):
    found = whole_draft(*stated(process, position, thickness)).wps
    assert outside(found) == set()
    assert width(found, "travel_speed_mm_min") <= (SUBMERGED if process == "SAW" else SPEED)
    assert width(found, "current_a") <= CURRENT
    assert width(found, "voltage_v") <= VOLTS


@pytest.mark.parametrize(("process", "position", "thickness"), CASES[::4])
def test_what_is_kept_together_still_fills_the_joint(process, position, thickness):
    """Each bead lays what it has room for, within what rounding leaves; the joint comes out full."""
    found = whole_draft(*stated(process, position, thickness)).wps
    usual = drafted(*stated(process, position, thickness)).wps
    assert bead_layout(found).laid_mm2 == pytest.approx(bead_layout(usual).laid_mm2, rel=0.02)


def test_usual_settings_lie_too_far_apart():
    """Without it the same draft is outside: the tests above can fail."""
    assert "travel_span.FCAW" in outside(drafted(*stated("FCAW", "1G", 25)).wps)
    assert {"travel_span.FCAW", "melting_span.FCAW"} <= outside(drafted(*stated("FCAW", "3G", 25)).wps)


def test_the_reason_says_what_keeps_them_together():
    found = whole_draft(*stated("FCAW", "1G", 25)).wps
    mark = found.proposed[f"passes/{found.passes[3].id}/travel_speed_mm_min"]
    assert "one procedure holds 1.22 × in current, 1.15 × in voltage, 1.67 × in travel speed" in mark.reason


def test_a_code_without_such_limits_leaves_the_usual_settings():
    wps = drafted(*stated("FCAW", "1G", 25, code="asme-ix")).wps
    assert fill_within(wps, ASSESS).wps == proposed_fill(wps).wps


def test_what_somebody_stated_stays():
    """One speed typed for the root: it stays, and so do the limits of the others as far as they can."""
    start = drafted(*stated("FCAW", "1G", 25)).wps
    path = f"passes/{start.passes[0].id}/travel_speed_mm_min"
    typed = with_at(start, path, Interval(300, 350))
    typed = with_(typed, proposed={key: mark for key, mark in typed.proposed.items() if key != path})
    found = fill_within(typed, ASSESS).wps
    assert found.passes[0].travel_speed_mm_min == Interval(300, 350)
    assert path not in found.proposed


def test_short_circuit_is_not_proposed_where_it_is_not_prequalified():
    """AWS D1.1:2020 5.5.4: short-circuiting transfer is not prequalified (H)."""
    assert whole_draft(*stated("GMAW", "3G", 25)).wps.deposits[0].transfer_mode == "pulsed"
    assert whole_draft(*stated("GMAW", "3G", 25, code="asme-ix")).wps.deposits[0].transfer_mode == "short"
