"""What is typed into a field becomes a value, or is kept as it was typed; arrow keys go by whole steps."""

import math

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.document import Dimension, at, read_strict, with_at, write
from anlage.core.errors import AnlageError
from anlage.core.machine import Machine, MachineReading
from anlage.core.procedure import (
    WPS,
    Deposit,
    Joint,
    NodeMember,
    Pass,
    Reading,
    Sector,
    Station,
    Tack,
    Wps,
    with_deposit,
    with_pass,
)
from anlage.core.procedure.wps import LISTS
from anlage.core.ranges import Interval
from anlage.core.record import Piece, Pqr, Recorded, RecordedDeposit, Result, WeldedPass
from anlage.session.kinds import KINDS, SOURCE
from anlage.session.leaves.draft import Working, changed_to, complaints, moved, text_in, typed
from anlage.session.leaves.names import named
from anlage.session.leaves.presence import has_leaf
from anlage.session.leaves.steps import on_step, stepped
from anlage.session.leaves.suggestions import suggestions
from anlage.session.leaves.table import field_of, fields
from anlage.session.leaves.text import leaf_of, shown, with_end, with_middle, with_text


@pytest.fixture
def wps():
    found, home = with_deposit(Wps(), process="GTAW", filler="ER70S-2")
    found, _ = with_pass(found, home, current_a=[95, 115])
    return found


@pytest.mark.parametrize(
    ("path", "text", "system", "stated", "back"),
    [
        ("joint/thickness_mm", "12.5", "si", 12.5, "12.5"),
        ("joint/thickness_mm", "3/8", "us", 9.525, "3/8"),
        ("joint/thickness_mm", "3/8 in - 1/16 in", "si", 7.9375, "7.94"),
        ("joint/od_mm", "4 1/2 in", "si", 114.3, "114.3"),
        ("preheat/minimum_c", "212 °F", "si", 100.0, "100"),
        ("preheat/minimum_c", "212", "us", 100.0, "212"),
        ("header/title", "Gate leaf", "si", "Gate leaf", "Gate leaf"),
        ("header/impact", "yes", "si", True, "yes"),
        ("technique/position", "PF", "si", "3G", "3G"),
        ("technique/progression", "not vertical", "si", "none", "none"),
        ("metals/other/name", "A36", "si", "A36", "A36"),
    ],
)
def test_a_text_becomes_the_value_it_says(path, text, system, stated, back):
    value = with_text(Wps(), path, text, system)
    found = value
    for step in path.split("/"):
        found = getattr(found, step)
    assert found == (pytest.approx(stated) if isinstance(stated, float) else stated)
    assert shown(value, path, system) == back


def test_a_range_of_a_pass_is_typed_and_shown_in_both_systems(wps):
    path = "passes/p2/travel_speed_mm_min"
    stated = with_text(wps, path, "4..6 ipm", "si")
    assert shown(stated, path, "si") == "102..152"
    assert shown(stated, path, "us") == "4.0..6.0"


def test_a_process_is_understood_in_iso_words(wps):
    assert with_text(wps, "deposits/d1/process", "111", "si").deposits[0].process == "SMAW"


def test_a_tolerance_belongs_to_a_dimension_that_is_stated():
    with pytest.raises(AnlageError, match=r"^minus: root opening itself is not stated; state the root opening first$"):
        with_text(Wps(), "joint/root_opening_mm/minus", "1", "si")
    stated = with_text(with_text(Wps(), "joint/root_opening_mm", "3", "si"), "joint/root_opening_mm/minus", "1", "si")
    assert stated.joint.root_opening_mm == Dimension(nominal=3, minus=1)
    assert with_text(stated, "joint/root_opening_mm", "4", "si").joint.root_opening_mm == Dimension(nominal=4, minus=1)


@pytest.mark.parametrize(
    ("path", "text", "line"),
    [
        ("joint/thickness_mm", "3..4", "thickness: 3..4 is a range; state one value"),
        ("joint/root_opening_mm", "3..4", "root opening: 3..4 is a range; state one value, its tolerance beside it"),
        ("joint/thickness_mm", "-3", "thickness: -3 is below zero; state a length above zero"),
        ("technique/position", "7G", "position: no 7G; "),
        ("joint/product", "beam", "product: no beam; take one of plate, pipe"),
        ("header/units", "", "code limits in: nothing is stated; choose one"),
    ],
)
def test_what_a_leaf_cannot_be_is_refused_in_the_words_of_its_field(path, text, line):
    with pytest.raises(AnlageError) as refused:
        with_text(Wps(), path, text, "si")
    assert str(refused.value).startswith(line)


@pytest.mark.parametrize("path", ["joint/thickness_mm", "joint/root_opening_mm", "metals/one/name", "header/code"])
def test_an_empty_field_makes_a_leaf_not_stated(path):
    text = {"header/code": "asme-ix", "metals/one/name": "A36"}.get(path, "3")
    assert with_text(with_text(Wps(), path, text, "si"), path, " ", "si") == Wps()


def test_the_other_metal_goes_with_its_name():
    assert with_text(with_text(Wps(), "metals/other/name", "A36", "si"), "metals/other/name", "", "si") == Wps()


def test_every_field_lies_in_the_document():
    wps = Wps(
        deposits=(Deposit(id="d1"),), passes=(Pass(id="p1", deposit="d1"),), members=(NodeMember(id="m1"),),
        tacks=(Tack(id="t1"),), stations=(Station(id="s1"),), sectors=(Sector(id="c1", of="p1"),),
        readings=(Reading(id="r1"),), ids=1,
    )  # fmt: skip
    pqr = Pqr(
        deposits=(RecordedDeposit(id="d1"),), results=(Result(id="r1"),), welded=(WeldedPass(id="w1"),),
        pieces=(Piece(id="t1"),), ids=1,
    )  # fmt: skip
    machine = Machine(readings=(MachineReading(id="r1"),), ids=1)
    lists = {"results": "r1", "welded": "w1", "pieces": "t1"}
    for pattern in fields():
        names = lists | {name: getattr(wps, name)[0].id for name in LISTS if getattr(wps, name, None)}
        kind = pattern.partition("/")[0]
        path = pattern.replace("*", names.get(kind, "*"))
        owners = [each for each in (wps, pqr, machine) if has_leaf(each, path)]
        assert owners, path
        assert all(isinstance(shown(each, path, "si"), str) for each in owners)
        assert field_of(path).path == pattern


def test_every_number_can_be_stepped_and_says_its_unit():
    for field in fields().values():
        assert bool(field.kind) == (set(field.step) == {"si", "us"}), field.path
        assert field.kind in ("", "ratio", "count") or field.unit("si"), field.path


# Stepping ------------------------------------------------------------------------------------


@pytest.mark.parametrize(
    ("text", "cursor", "path", "system", "steps", "after"),
    [
        ("3", 1, "joint/root_opening_mm", "si", 1, "3.5"),
        ("3.2", 1, "joint/root_opening_mm", "si", 1, "3.5"),
        ("3.2", 1, "joint/root_opening_mm", "si", -1, "3"),
        ("1/8", 1, "joint/root_opening_mm", "us", 1, "5/32"),
        ("0", 1, "joint/root_opening_mm", "si", -1, "0"),
        ("100..120", 0, "passes/p1/current_a", "si", 1, "105..120"),
        ("100..120", 8, "passes/p1/current_a", "si", -5, "95"),
        ("23.2..25", 0, "passes/p1/voltage_v", "si", 1, "23.5..25"),
        ("about 100", 3, "passes/p1/current_a", "si", 1, None),
        ("x", 0, "header/title", "si", 1, None),
    ],
)
def test_an_arrow_key_goes_to_the_next_whole_step_of_the_trade(text, cursor, path, system, steps, after):
    assert stepped(text, cursor, path, system, steps) == after


@given(st.floats(0, 500), st.sampled_from(["si", "us"]), st.integers(1, 5))
def test_a_step_up_and_the_same_down_is_the_whole_step_below(number, system, steps):
    path = "joint/thickness_mm"
    up = on_step(number, path, system, steps)
    assert up > number
    down = on_step(up, path, system, -steps)
    assert down <= number + 1e-6
    assert up == pytest.approx(on_step(up, path, system))


def test_one_end_of_a_range_pushes_the_other_and_never_crosses_it(wps):
    target = "passes/p2/current_a/low"
    assert str(with_end(wps, target, 120).passes[0].current_a) == "[120, 120]"
    assert str(with_end(wps, "passes/p2/current_a/high", 90).passes[0].current_a) == "[90, 90]"
    assert leaf_of(target) == "passes/p2/current_a"


def test_a_range_moves_about_its_middle_and_starts_single(wps):
    assert str(with_middle(wps, "passes/p2/current_a", 200).passes[0].current_a) == "[190, 210]"
    assert str(with_middle(wps, "passes/p2/thickness_mm", 3).passes[0].thickness_mm) == "[3, 3]"


# Drafts --------------------------------------------------------------------------------------


def test_half_typed_text_is_kept_where_it_was_typed_and_the_last_good_value_stays():
    good = typed(Working(Wps()), "joint/thickness_mm", "14", "si")
    half = typed(good, "joint/thickness_mm", "14 mn", "si")
    assert half.value is good.value
    assert text_in(half, "joint/thickness_mm", "si") == "14 mn"
    (fault,) = complaints(half, "si").values()
    assert "character" in str(fault)
    assert typed(half, "joint/thickness_mm", "14", "si").pending == {}


def test_typing_the_same_again_is_the_very_same_draft():
    good = typed(Working(Wps()), "joint/thickness_mm", "14", "si")
    assert typed(good, "joint/thickness_mm", "14.0 mm", "si") is good
    half = typed(good, "joint/thickness_mm", "x", "si")
    assert typed(half, "joint/thickness_mm", "x", "si") is half


def test_values_that_clash_are_taken_over_and_marked_at_both():
    draft = Working(Wps())
    for path, text in (("kind", "single-v"), ("thickness_mm", "6"), ("root_face_mm", "8")):
        draft = typed(draft, f"joint/{path}", text, "si")
    assert draft.value.joint.root_face_mm.nominal == 8
    assert set(complaints(draft, "si")) == {"joint/root_face_mm", "joint/thickness_mm"}


def test_pending_text_goes_with_the_pass_it_was_typed_for(wps):
    draft = typed(Working(wps), "passes/p2/current_a", "about 100", "si")
    gone = changed_to(draft, with_at(wps, "passes", ()))
    assert not gone.pending
    assert text_in(gone, "passes/p2/current_a", "si") == ""


def test_a_handle_dragged_to_the_impossible_changes_nothing():
    draft = Working(with_at(Wps(), "joint/root_opening_mm", Dimension(nominal=3, minus=2)))
    assert moved(draft, "joint/root_opening_mm", 1.0) is draft
    assert moved(draft, "joint/root_opening_mm", 4.0).value.joint.root_opening_mm.nominal == 4


@given(
    st.text(max_size=30),
    st.sampled_from(sorted(path for path in fields() if "*" not in path and has_leaf(Wps(), path))),
)
def test_whatever_is_typed_is_either_a_value_or_kept(text, path):
    draft = typed(Working(Wps()), path, text, "si")
    assert draft.pending.get(path, text) == text
    assert bool(draft.pending) == (path in complaints(draft, "si"))


def test_steps_are_named_as_the_trade_says():
    wps, home = with_deposit(Wps(joint=Joint()), process="SMAW")
    wps, _ = with_pass(wps, home)
    assert named(wps, "passes/p2/voltage_v") == "Voltage of pass 1"
    assert named(wps, "deposits/d1/filler") == "Filler of the SMAW deposit"


def test_fields_offer_the_names_of_the_catalogue():
    assert "E7018" in suggestions(field_of("deposits/d1/filler"))
    assert "6G" in suggestions(field_of("technique/position"))
    assert suggestions(field_of("header/title")) == ()


# Records -------------------------------------------------------------------------------------


@pytest.fixture
def pqr():
    return Pqr(deposits=(RecordedDeposit(id="d1"),), ids=1)


def test_a_record_takes_one_number_where_a_procedure_states_a_range(pqr):
    stated = with_text(pqr, "deposits/d1/thickness_mm", "5.5", "si")
    assert stated.deposits[0].thickness_mm == 5.5
    assert shown(stated, "deposits/d1/thickness_mm", "si") == "5.5"
    with pytest.raises(AnlageError, match="is a range"):
        with_text(pqr, "deposits/d1/thickness_mm", "5..6", "si")


def test_a_recorded_quantity_is_typed_number_by_number(pqr):
    for part, text in (("most", "140"), ("least", "98"), ("mean", "112")):
        pqr = with_text(pqr, f"deposits/d1/current_a/{part}", text, "si")
    assert pqr.deposits[0].current_a == Recorded(least=98, mean=112, most=140)
    assert shown(pqr, "deposits/d1/current_a/most", "si") == "140"
    with pytest.raises(AnlageError, match="not in order"):
        with_text(pqr, "deposits/d1/current_a/least", "120", "si")
    without = with_text(pqr, "deposits/d1/current_a/mean", "", "si")
    assert without.deposits[0].current_a == Recorded(least=98, most=140)
    for part in ("least", "most"):
        without = with_text(without, f"deposits/d1/current_a/{part}", "", "si")
    assert without.deposits[0].current_a is None


def test_what_waited_for_a_number_in_order_is_taken_over_with_it(pqr):
    draft = Working(pqr)
    for part, text in (("least", "98"), ("mean", "90"), ("most", "95")):
        draft = typed(draft, f"deposits/d1/current_a/{part}", text, "si")
    assert set(draft.pending) == {"deposits/d1/current_a/mean", "deposits/d1/current_a/most"}
    draft = typed(draft, "deposits/d1/current_a/least", "80", "si")
    assert (draft.value.deposits[0].current_a, dict(draft.pending)) == (Recorded(least=80, mean=90, most=95), {})


def test_a_tolerance_that_waited_for_its_dimension_is_taken_over_with_it():
    draft = typed(Working(Wps(joint=Joint(kind="single-v"))), "joint/root_opening_mm/plus", "1", "si")
    assert set(draft.pending) == {"joint/root_opening_mm/plus"}
    draft = typed(draft, "joint/root_opening_mm", "3", "si")
    assert (draft.value.joint.root_opening_mm.plus, dict(draft.pending)) == (1, {})


# Ranges without an end -----------------------------------------------------------------------


@pytest.mark.parametrize(
    ("path", "text", "system", "stated", "said"),
    [
        ("range/diameter_mm", ">= 60,3", "si", Interval(60.3, math.inf), "≥ 60.3"),
        ("range/diameter_mm", "60.3..", "si", Interval(60.3, math.inf), "≥ 60.3"),
        ("range/diameter_mm", "2-7/8 in and over", "si", Interval(73.025, math.inf), "≥ 73.02"),
        ("range/thickness_mm", "<= 3/4", "us", Interval(0, 19.05, low_open=True), "≤ 3/4"),
        ("range/thickness_mm", "max 20", "si", Interval(0, 20, low_open=True), "≤ 20"),
        ("range/thickness_mm", "..20", "si", Interval(0, 20, low_open=True), "≤ 20"),
        ("range/thicker_member_mm", "5..20", "si", Interval(5, 20), "5..20"),
    ],
)
def test_a_range_may_be_stated_without_an_end(path, text, system, stated, said):
    wps = with_text(Wps(), path, text, system)
    assert [at(wps, path).low, at(wps, path).high] == pytest.approx([stated.low, stated.high])
    assert at(wps, path).low_open == stated.low_open
    assert shown(wps, path, system) == said
    assert shown(with_text(wps, path, said, system), path, system) == said
    assert read_strict(write(wps), WPS) == wps


@pytest.mark.parametrize(
    ("path", "text", "why"),
    [
        ("range/diameter_mm", "> 60", "leaves its own end out; write >= with"),
        ("range/diameter_mm", ">= 20..60", "states more than one end"),
        ("range/thickness_mm", "<= 0", "holds nothing"),
        ("range/thickness_mm", "<= 90000", "beyond measure"),
        ("passes/p1/current_a", ">= 80", "state both ends"),
        ("passes/p1/current_a", "80..", "state both ends"),
        ("joint/thickness_mm", "<= 12", "state one value"),
        ("preheat/minimum_c", "<= 95", "the least alone is typed here, write 95"),
        ("preheat/interpass_maximum_c", ">= 250", "the most alone is typed here"),
    ],
)
def test_an_end_that_a_leaf_cannot_do_without_is_asked_for(path, text, why):
    wps, home = with_deposit(Wps())
    wps, own = with_pass(wps, home)
    with pytest.raises(AnlageError, match=why):
        with_text(wps, path.replace("p1", own), text, "si")


@pytest.mark.parametrize(
    ("path", "text"), [("preheat/minimum_c", ">= 95"), ("preheat/interpass_maximum_c", "<= 250 °C")]
)
def test_the_sign_of_a_limit_says_nothing_new(path, text):
    assert at(with_text(Wps(), path, text, "si"), path) in (95, 250)


def test_the_end_that_there_is_is_stepped():
    assert stepped("≥ 60.3", 0, "range/diameter_mm", "si", 1) == "≥ 61"
    assert stepped("≤ 20", 0, "range/thickness_mm", "si", -1) == "≤ 19.5"


@pytest.mark.parametrize(
    ("path", "text"),
    [("preheat_least_c", "85"), ("override/verdict", "accepted"), ("toughness_tested", "no"),
     ("welded_on", "2026-04-14"),
     ("joint/thickness_mm", "16")],
)  # fmt: skip
def test_leaves_of_a_record_are_typed_like_those_of_a_procedure(pqr, path, text):
    assert shown(with_text(pqr, path, text, "si"), path, "si") == text


def test_a_day_that_is_none_is_refused(pqr):
    with pytest.raises(AnlageError, match=r"last Tuesday.* cannot be; write the day as 2026-04-14"):
        with_text(pqr, "welded_on", "last Tuesday", "si")


@pytest.mark.parametrize("kind", [kind for kind in KINDS if kind is not SOURCE], ids=lambda kind: kind.id)
@pytest.mark.parametrize("path", ["header/code", "header/number", "header/units"])
def test_what_a_document_states_stands_in_its_field(kind, path):
    stated = {"header/code": "asme-ix:2021", "header/number": "N-1", "header/units": "us"}[path]
    typed = with_text(kind.core.model(), path, stated, "si")
    assert text_in(Working(typed), path, "si") == stated


@pytest.mark.parametrize(
    ("codes", "text", "expected"),
    [
        ((), "asme-ix", ("asme-ix",)), (("asme-ix",), "asme-ix:2019", ("asme-ix:2019",)), (("asme-ix",), "", ()),
        (("yard", "asme-ix"), "asme-ix", ("asme-ix",)), (("yard", "asme-ix"), "", ("asme-ix",)),
        (("yard", "other"), "asme-ix", ("asme-ix", "other")),
    ],
)  # fmt: skip
def test_the_field_of_the_code_is_that_of_the_leading_one(codes, text, expected):
    wps = with_at(Wps(), "header/codes", codes)
    assert with_text(wps, "header/code", text, "si").header.codes == expected
