"""Documents are frozen values: edits share what they do not touch, and files open or say why not."""

import json
import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from anlage.core.document import (
    Dimension,
    DocumentKind,
    at,
    fields_of,
    kept,
    read_mending,
    read_strict,
    with_,
    with_at,
    write,
)
from anlage.core.document.kept import KEPT
from anlage.core.errors import FormatError, InputError, UnknownNameError
from anlage.core.letters import without_odd
from anlage.core.procedure import WPS, HoldPoint, Joint, Preheat, Wps, moved_pass, with_deposit, with_pass, without_pass
from anlage.core.ranges import Interval
from anlage.core.record import PQR, Pqr, Recorded


@pytest.fixture
def wps():
    """A small procedure: a GTAW root and two SMAW passes, a hold point before the second pass."""
    made, root = with_deposit(Wps(), process="GTAW", filler="ER70S-2", thickness_mm=[0, 4])
    made, fill = with_deposit(made, process="SMAW", filler="E7018")
    made, _ = with_pass(made, root, role="root", current_a=[90, 110], voltage_v=[10, 12])
    made, second = with_pass(made, fill, role="fill", current_a=[100, 125], travel_speed_mm_min=[90, 150])
    made, _ = with_pass(made, fill, role="cap")
    return with_(made, hold_points=(HoldPoint(id="h9", before=second, what="root seen from inside"),), ids=9)


def test_a_new_procedure_is_a_valid_value_with_nothing_stated():
    assert Wps().joint.thickness_mm is None
    assert read_strict(write(Wps()), WPS) == Wps()
    assert read_strict(write(Pqr()), PQR) == Pqr()


def test_an_edit_shares_everything_off_its_path(wps):
    edited = with_at(wps, "passes/p4/current_a", [105, 120])
    assert at(edited, "passes/p4/current_a") == Interval(105, 120)
    assert edited.passes[0] is wps.passes[0]
    assert edited.deposits is wps.deposits
    assert edited.joint is wps.joint
    assert at(wps, "passes/p4/current_a") == Interval(100, 125)


def test_an_edit_without_effect_returns_the_very_value(wps):
    assert with_at(wps, "passes/p4/current_a", [100, 125]) is wps
    assert with_(wps, ids=9) is wps


def test_a_quantity_can_be_stated_and_unstated(wps):
    stated = with_at(wps, "joint/root_opening_mm", Dimension(nominal=3, minus=1, plus=1))
    assert at(stated, "joint/root_opening_mm").span == Interval(2, 4)
    assert with_at(stated, "joint/root_opening_mm", None).joint == wps.joint


@pytest.mark.parametrize(
    ("path", "change", "message"),
    [
        ("passes/p4/current_a", [0, 125], "passes/p4/current_a: 0 is not above 0; state values above 0"),
        ("passes/p4/current_a", [125, 100], "passes/p4/current_a: 125 to 100 holds nothing; swap the ends"),
        ("passes/p4/current_a", [100, float("inf")], "the range has no end above; state both ends"),
        ("passes/p4/current_a", Interval(0, 100, low_open=True), "the range has no end below; state both ends"),
        ("passes/p4/current_a", "100", "passes/p4/current_a: '100' is no range; write two numbers, [low, high]"),
        ("passes/p4/current_a", [True, 3], "is no range"),
        ("joint/thickness_mm", -3, "joint/thickness_mm: -3 cannot be; state a number above 0"),
        ("joint/thickness_mm", float("nan"), "joint/thickness_mm: nan cannot be; state a number above 0"),
        ("joint/kind", "single-w", "joint/kind: 'single-w' cannot be; take one of square, double-square"),
        ("preheat/minimum_c", -300, "preheat/minimum_c: -300 cannot be; state a number above -273.15"),
    ],
)
def test_what_is_impossible_by_itself_is_refused_at_its_path(wps, path, change, message):
    with pytest.raises(InputError) as refusal:
        with_at(wps, path, change)
    assert message in str(refusal.value)


def test_a_dimension_cannot_fall_below_zero():
    with pytest.raises(InputError, match=r"minus: minus 4 takes 3 below zero; state a smaller minus"):
        Dimension.stated(nominal=3, minus=4)


def test_an_edit_of_one_field_minds_the_others_of_its_part(wps):
    stated = with_at(wps, "joint/root_opening_mm", Dimension(nominal=3, minus=1))
    with pytest.raises(InputError, match="joint/root_opening_mm/minus: minus 9 takes 3 below zero"):
        with_at(stated, "joint/root_opening_mm/minus", 9)


def test_values_impossible_together_are_accepted(wps):
    edited = with_at(with_at(wps, "joint/thickness_mm", 5), "joint/root_face_mm", Dimension(nominal=8))
    assert edited.joint.root_face_mm.nominal > edited.joint.thickness_mm


@pytest.mark.parametrize("path", ["joint/depth", "passes/p99/current_a", "preheat/minimum_c/x", "nowhere"])
def test_a_path_that_leads_nowhere_is_refused(wps, path):
    with pytest.raises(UnknownNameError):
        at(wps, path)
    with pytest.raises((UnknownNameError, InputError)):
        with_at(wps, path, 1)


def test_a_document_is_no_dictionary_key(wps):
    with pytest.raises(TypeError, match="no dictionary keys"):
        hash(wps)


# Passes --------------------------------------------------------------------------------------


def test_an_id_is_never_used_again(wps):
    shorter = without_pass(wps, "p5")
    longer, new = with_pass(shorter, "d2")
    assert new == "p10"
    assert [each.id for each in longer.passes] == ["p3", "p4", "p10"]


def test_a_pass_goes_in_after_another_and_moves(wps):
    longer, new = with_pass(wps, "d2", after="p3")
    assert [each.id for each in longer.passes] == ["p3", new, "p4", "p5"]
    assert [each.id for each in moved_pass(longer, "p5", 0).passes] == ["p5", "p3", new, "p4"]


def test_a_hold_point_moves_on_when_its_pass_is_taken_out(wps):
    assert without_pass(wps, "p4").hold_points[0].before == "p5"
    assert without_pass(without_pass(wps, "p5"), "p4").hold_points[0].before is None


def test_a_pass_of_no_deposit_is_refused(wps):
    with pytest.raises(InputError, match="d7 is no deposit; add the deposit first"):
        with_pass(wps, "d7")
    with pytest.raises(InputError, match="p77 is no pass"):
        without_pass(wps, "p77")


# Files ---------------------------------------------------------------------------------------


def test_a_document_reads_back_as_itself_with_its_keys_in_order(wps):
    text = write(wps)
    assert read_strict(text, WPS) == wps
    assert read_mending(text, WPS) == (wps, ())
    assert list(json.loads(text))[:3] == ["format", "version", "header"]
    assert json.loads(text)["passes"][0]["current_a"] == [90, 110]


spans = st.tuples(st.floats(0.001, 1e4), st.floats(0, 1e4)).map(lambda ends: [ends[0], sum(ends)])


passes_stated = st.fixed_dictionaries(
    {}, optional={"current_a": spans, "voltage_v": spans, "note": st.text(max_size=9).map(without_odd)}
)


@given(st.lists(passes_stated, max_size=6))
def test_any_procedure_survives_writing_and_reading(passes):
    made, deposit = with_deposit(Wps(), process="SMAW")
    for stated in passes:
        made, _ = with_pass(made, deposit, **stated)
    assert read_strict(write(made), WPS) == made


def changed(wps, **values):
    return json.dumps(json.loads(write(wps)) | values)


@pytest.mark.parametrize(
    ("text", "message"),
    [
        ("", "x.json: line 1: no JSON; take a file that Anlage wrote"),
        ("{", "x.json: line 1: no JSON"),
        ("[" * 100_000, "x.json: no JSON"),
        ("3", "x.json: the format is none; take a file of format anlage-wps"),
        ('{"format": "other"}', "x.json: the format is other; take a file of format anlage-wps"),
        ('{"format": "anlage-wps"}', "x.json: None is no version; write the version as a number"),
        ('{"format": "anlage-wps", "version": 99}', f"x.json: version 99 is newer than {WPS.version}, the newest"),
        ('{"format": "anlage-wps", "version": 1, "ids": NaN}', "x.json: NaN is no number of JSON; write null"),
        ('{"format": "anlage-wps", "version": 1, "ids": 1, "ids": 2}', "x.json: the key ids comes twice; keep one"),
        ('{"format": "anlage-wps", "version": ' + "9" * 5000 + "}", "x.json: no JSON"),
        ("{" + ",".join(f'"k{n}": 1' for n in range(200_000)) + ',"k0": 2}', "x.json: the key k0 comes twice"),
        (" " * 20_000_001, "x.json: 20000001 characters are no anlage-wps; take another file"),
    ],
    ids=range(12),
)
def test_a_text_that_is_no_document_gives_one_line_by_either_door(text, message):
    for door in (read_strict, read_mending):
        with pytest.raises(FormatError) as refusal:
            door(text, WPS, where="x.json")
        assert str(refusal.value).startswith(message)
        assert "\n" not in str(refusal.value)


@pytest.mark.parametrize(
    ("values", "message"),
    [
        ({"colour": 1}, "colour: 1 cannot be"),
        ({"ids": "many"}, "ids: 'many' cannot be"),
        ({"ids": 3}, "3 ids are given and 9 is in use; write 9"),
        ({"preheat": {"minimum_c": -500}}, "preheat/minimum_c: -500.0 cannot be"),
        ({"passes": [{"id": "p3", "deposit": "d8"}]}, "pass p3 belongs to d8, which is no deposit"),
        ({"passes": [{"id": "d1", "deposit": "d1"}]}, "the id d1 comes twice"),
    ],
)
def test_the_strict_door_refuses_what_cannot_be(wps, values, message):
    with pytest.raises(FormatError, match=re.escape(message.replace("-500.0", "-500"))):
        read_strict(changed(wps, **values), WPS)


def test_the_mending_door_opens_what_it_can_and_lists_what_it_left_out(wps):
    preheat = {"minimum_c": -500, "interpass_maximum_c": 250, "mood": "warm"}
    text = changed(wps, colour="red", preheat=preheat, technique="none", hold_points=[{"what": "no id"}])
    mended, notices = read_mending(text, WPS)
    assert mended.preheat == Preheat(interpass_maximum_c=250)
    assert mended.passes == wps.passes
    assert mended.technique == Wps().technique
    assert {notice.where for notice in notices} >= {"colour", "preheat/minimum_c", "preheat/mood", "technique"}
    assert "was -500 and was left out" in next(n.text for n in notices if n.where == "preheat/minimum_c")


def test_the_mending_door_keeps_ids_and_deposits_whole(wps):
    raw = json.loads(write(wps))
    raw["deposits"] = [raw["deposits"][1], "scribble", raw["deposits"][1]]  # the root's deposit is gone
    mended, notices = read_mending(json.dumps(raw | {"ids": 2}), WPS)
    assert [each.id for each in mended.deposits] == ["d2"]
    assert [each.id for each in mended.passes] == ["p4", "p5"]
    assert mended.ids == 9
    assert {notice.where for notice in notices} == {"deposits/1", "deposits/2", "passes/p3", "ids"}


leaves = st.none() | st.booleans() | st.floats(allow_nan=False, allow_infinity=False) | st.text(max_size=4)
scribbles = st.recursive(
    leaves, lambda inner: st.lists(inner, max_size=3) | st.dictionaries(st.text(max_size=4), inner, max_size=3)
)


@given(scribbles, st.sampled_from(sorted(fields_of(Wps))))
def test_the_mending_door_opens_whatever_stands_in_a_field(scribble, name):
    if name not in ("format", "version"):
        mended, _ = read_mending(json.dumps({"format": "anlage-wps", "version": 1, name: scribble}), WPS)
        assert read_strict(write(mended), WPS) == mended


def test_the_mending_door_is_not_held_up_by_a_hundred_thousand_flaws():
    passes = [{"id": f"p{n}", "deposit": "gone", "colour": 1} for n in range(100_000)]
    text = json.dumps({"format": "anlage-wps", "version": 1, "passes": passes})
    mended, notices = read_mending(text, WPS)
    assert (mended.passes, len(notices)) == ((), 100_001)


def test_a_record_with_an_id_twice_is_refused():
    twice = [{"id": "r1"}, {"id": "r1"}]
    with pytest.raises(FormatError, match="the id r1 comes twice"):
        read_strict(json.dumps({"format": "anlage-pqr", "version": 1, "results": twice, "ids": 1}), PQR)


def test_a_past_version_is_brought_up_step_by_step():
    def renamed(raw):
        return {("header" if key == "head" else key): value for key, value in raw.items()}

    newest, last = WPS.version, WPS.version - 1
    kind = DocumentKind(Wps, "anlage-wps", newest, {last: renamed})
    old = json.dumps({"format": "anlage-wps", "version": last, "head": {"number": "W"}})
    with pytest.raises(FormatError, match="no such key is known; leave it out"):
        read_strict(old.replace(f'"version": {last}', f'"version": {newest}'), kind)
    assert read_mending(old, kind)[0].header.number == "W"


@pytest.mark.parametrize(("code", "codes"), [(None, ()), ("asme-ix:2019", ("asme-ix:2019",))])
@pytest.mark.parametrize("kind", [WPS, PQR])
def test_the_one_code_of_a_first_version_is_the_leading_one_of_several(kind, code, codes):
    old = json.dumps({"format": kind.format, "version": 1, "header": {"number": "W-7", "code": code}})
    found = read_strict(old, kind)
    assert (found.header.codes, found.header.code, found.header.construction_code) == (codes, code, None)
    assert read_mending(old, kind) == (found, ())
    assert json.loads(write(found))["version"] == kind.version


@pytest.mark.parametrize(("state", "verdict"), [("accepted", None), ("open", None), ("rejected", "rejected")])
def test_what_was_chosen_to_be_accepted_is_accepted_no_more(state, verdict):
    old = json.dumps({"format": "anlage-pqr", "version": 2, "header": {"number": "R"}, "state": state})
    found = read_strict(old, PQR)
    assert (found.override.verdict, found.override.by, found.results) == (verdict, None, ())
    assert read_mending(old, PQR) == (found, ())


def test_recorded_values_stand_in_order():
    with pytest.raises(InputError, match="3, 2, 4 are not in order; write least, mean and most"):
        Recorded.stated(least=3, mean=2, most=4)
    with pytest.raises(InputError, match="3, 2 are not in order"):
        Recorded.stated(least=3, most=2)


@pytest.mark.parametrize(
    ("known", "span"),
    [({"mean": 2}, Interval(2, 2)), ({"least": 1, "mean": 2}, Interval(1, 2)), ({"least": 1, "most": 3}, None)],
)
def test_an_end_that_was_not_written_down_is_taken_at_the_mean_and_a_mean_is_not_made_up(known, span):
    assert Recorded.stated(**known).span == span


def test_the_schema_names_format_version_and_every_key():
    for kind in (WPS, PQR):
        schema = kind.schema()
        assert schema["$id"] == f"{kind.format}-{kind.version}"
        assert set(schema["properties"]) == set(fields_of(kind.model))
        assert schema["additionalProperties"] is False
    span = WPS.schema()["$defs"]["Pass"]["properties"]["current_a"]["anyOf"][0]
    assert (span["type"], span["minItems"], span["maxItems"]) == ("array", 2, 2)


# What is kept ----------------------------------------------------------------------------------


def test_an_answer_is_kept_for_the_very_value_and_the_same_question():
    asked = []

    @kept
    def width(joint, factor=1.0, *, system="si"):
        asked.append((joint, factor, system))
        return len(asked)

    one, twin = Joint(thickness_mm=8.0), Joint(thickness_mm=8.0)
    assert (width(one), width(one), width(one, 2.0), width(one, 2.0, system="us"), width(one)) == (1, 1, 2, 3, 1)
    assert width(twin) == 4  # alike is not the same


def test_only_the_last_few_answers_are_kept():
    count = []

    @kept
    def number(joint):
        count.append(joint)
        return len(count)

    joints = [Joint(thickness_mm=float(n + 1)) for n in range(KEPT + 1)]
    first = [number(each) for each in joints]
    assert [number(each) for each in joints[1:]] == first[1:]
    assert number(joints[0]) == KEPT + 2
