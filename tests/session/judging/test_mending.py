"""The fewest changes that bring a procedure inside: against each record, judged again, compared with brute force."""

from itertools import combinations

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anlage.core.document import at, read_strict, with_at
from anlage.core.procedure import WPS
from anlage.core.record import PQR
from anlage.data.files import FOLDER, text_of
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.mending import mendings
from tests.demo import RECORDS

JUDGE = Assessor([(number, read_strict(text_of(f"demo/{number}.json"), PQR)) for number in RECORDS])


def procedure(number):
    return read_strict((FOLDER / f"demo/OST-W-{number}.json").read_text(encoding="utf-8"), WPS)


SOUND = procedure("01")
GTAW, SMAW = (each.id for each in SOUND.deposits)
AMISS = {  # leaf: what makes the sound procedure fail, each by itself
    "preheat/minimum_c": 10.0, f"deposits/{GTAW}/shielding_gas": "He", f"deposits/{GTAW}/thickness_mm": (0, 40),
    f"deposits/{SMAW}/thickness_mm": (0, 60), "pwht/kind": "below-ltt", "range/thickness_mm": (6, 60),
}  # fmt: skip


def spoiled(paths):
    wps = SOUND
    for path in paths:
        wps = with_at(wps, path, AMISS[path])
    return wps


def is_inside(wps):
    return JUDGE.assess(wps).judgement.verdict == "inside"


def fewest_by_force(wps, paths):
    """The least number of leaves that make it sound again, tried one by one."""
    for count in range(len(paths) + 1):
        for some in combinations(paths, count):
            tried = wps
            for path in some:
                tried = with_at(tried, path, at(SOUND, path))
            if is_inside(tried):
                return count
    raise AssertionError("the sound procedure is sound")


@given(st.lists(st.sampled_from(sorted(AMISS)), min_size=1, max_size=6, unique=True))
@settings(deadline=None, max_examples=25)
def test_no_fewer_leaves_bring_it_inside(paths):
    wps = spoiled(paths)
    best = mendings(wps, JUDGE.assess, "si", locked=("metals",))[0]
    assert best.is_whole
    assert is_inside(best.wps)
    assert len(best.changes) == fewest_by_force(wps, paths)


@given(st.lists(st.sampled_from(sorted(AMISS)), min_size=1, max_size=6, unique=True))
@settings(deadline=None, max_examples=15)
def test_what_is_locked_stays_and_what_it_leaves_is_told(paths):
    wps = spoiled(paths)
    for each in mendings(wps, JUDGE.assess, "si"):
        assert each.wps.range == wps.range
        assert each.wps.metals == wps.metals
        assert each.is_whole is is_inside(each.wps)
        if "range/thickness_mm" in paths:
            assert any("the job asks for more" in sentence for sentence in each.left)


def test_the_three_problems_of_the_gates_are_told_with_their_nearest_values():
    (found,) = mendings(procedure("04"), JUDGE.assess, "si")
    assert found.records == ("OST-R-03",)
    assert [(each.label, each.left, each.right) for each in found.changes] == [
        ("Preheat, least", "20 °C", "35 °C"), ("Gas of the FCAW deposit", "Ar-25CO2", "Ar-20CO2"),
    ]  # fmt: skip
    assert [each.replace("\u2009", " ") for each in found.left] == [
        "Base metal thickness: 5..36 mm is allowed, and the job asks for more: weld a test that covers it."
    ]
    whole, *_ = mendings(procedure("04"), JUDGE.assess, "si", locked=())
    assert whole.is_whole
    assert whole.changes[0].right == "6..36 mm"


def test_a_record_of_another_process_is_not_gone_by():
    assert {name for each in mendings(procedure("04"), JUDGE.assess, "si") for name in each.records} == {"OST-R-03"}


def test_what_is_inside_already_needs_nothing_and_without_code_nothing_is_known():
    assert mendings(SOUND, JUDGE.assess, "si") == ()
    assert mendings(with_at(SOUND, "header/codes", ()), JUDGE.assess, "si") == ()


@pytest.mark.parametrize("system", ["si", "us"])
def test_changes_are_said_in_the_units_of_the_reader(system):
    (first, *_) = mendings(spoiled(["preheat/minimum_c"]), JUDGE.assess, system)
    assert first.changes[0].right.endswith({"si": "°C", "us": "°F"}[system])
