"""A procedure by several codes at once: as good as by the one it stands worst by, side by side, nothing made up."""

import pytest

from anlage.core.document import with_at
from anlage.core.errors import UnknownNameError
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.change_cost import changes_between
from anlage.session.judging.heat_limits import heat_limits
from anlage.session.judging.ladder import lines, problem_sentences, support_sentences
from anlage.session.leaves.text import shown, with_text
from tests.vessels import WITH_IMPACT, seam, seam_record

ISO, ASME = "iso-15614-1-l2", "asme-ix"


def by(codes, value):
    return with_at(value, "header/codes", codes)


def judge(*codes, **leaves):
    record = by((ISO, ASME), seam_record(results=WITH_IMPACT))
    return Assessor([("1", record)]).assess(by(codes, seam(**leaves)))


def test_it_stands_as_by_the_worst_whichever_leads():
    alone = {code: judge(code).verdict for code in (ISO, ASME)}
    assert alone == {ISO: "inside", ASME: "unproven"}
    for codes in ((ISO, ASME), (ASME, ISO)):
        proof = judge(*codes)
        assert proof.verdict == proof.judgement.verdict == "unproven"
        assert [(each.code, each.verdict) for each in proof.parts] == [(code, alone[code]) for code in codes]
    assert judge(ISO, ASME, preheat__minimum_c=60.0).verdict == "outside"


def test_nothing_is_inside_that_one_of_them_does_not_hold():
    """Every rung of each code is there, as that code alone has it."""
    together = judge(ISO, ASME)
    for code in (ISO, ASME):
        own = {rung.id: rung.verdict for rung in judge(code).judgement.rungs}
        assert {rung.id: rung.verdict for rung in together.judgement.rungs if rung.code == code} == own
    counts = together.judgement.counts()
    assert sum(counts.values()) == len(together.judgement.rungs)
    assert counts["unproven"] == judge(ASME).judgement.counts()["unproven"]


def test_a_code_that_is_not_installed_is_never_inside():
    proof = judge(ISO, "yard-code")
    assert proof.verdict == "unproven"
    assert proof.judgement.verdict == "unproven"
    assert proof.missing.startswith("yard-code: ")
    assert any(rung.verdict == "inside" for rung in proof.judgement.rungs), "what the other says is still told"


def test_a_deposit_rests_on_records_only_where_each_code_has_one_for_it():
    iso_alone = Assessor([("1", seam_record())]).assess(by((ISO, ASME), seam()))
    assert [bool(each.judgement.supports[0]) for each in iso_alone.parts] == [True, False]
    assert iso_alone.judgement.supports == ((),)
    assert iso_alone.verdict != "inside"
    assert not iso_alone.set_aside, "it counts for one of them"
    said = support_sentences(by((ISO, ASME), seam()), iso_alone)
    assert said[0] == "ISO 15614-1 level 2: GMAW rests on SR-1"
    assert said[1].startswith("ASME IX: no record covers GMAW as stated")


def ladder(*codes, **leaves):
    return lines(by(codes, seam(**leaves)), judge(*codes, **leaves), "si")


def test_side_by_side_it_is_said_which_is_stricter_with_both_clauses():
    rows = {(line.rung.id, line.rung.code): line for line in ladder(ISO, ASME)}
    strict, wide = rows["preheat_c", ISO], rows["preheat_c", ASME]
    assert (strict.by, strict.beside) == ("ISO 15614-1 level 2", "Stricter than ASME IX (QW-406.1).")
    assert wide.beside == "Wider than ISO 15614-1 level 2 (8.4.8)."
    assert rows["pwht", ASME].beside.startswith("As strict as ISO 15614-1 level 2")
    assert rows["interpass_c", ISO].beside == "No other code has a rule for it."
    assert ("interpass_c", ASME) not in rows, "a rung that a code does not know is absent, not empty"


def test_rungs_of_a_variable_stand_one_under_the_other_at_the_place_of_the_worst():
    found = ladder(ISO, ASME, preheat__minimum_c=60.0)
    assert [(line.rung.code, line.rung.verdict) for line in found[:2]] == [(ISO, "outside"), (ASME, "inside")]
    assert [line.rung.id for line in found[:2]] == ["preheat_c", "preheat_c"]


def test_heat_of_another_measure_is_not_compared():
    leaves = {"header__impact": True, "header__hardness": True}
    rows = {(line.rung.id, line.rung.code): line for line in ladder(ISO, ASME, **leaves)}
    assert rows["heat_input_kj_mm.GMAW", ISO].beside.startswith("In another measure than ASME IX")
    wps = by((ISO, ASME), seam(**leaves))
    most = sorted(each.arc_energy_kj_mm for each in heat_limits(wps, judge(ISO, ASME, **leaves), "si"))
    energy = 250 * 28 * 60 / 380 / 1000
    labels = [each.label for each in heat_limits(wps, judge(ISO, ASME, **leaves), "si")]
    assert sorted(label.partition(", ")[2] for label in labels) == ["ASME IX", "ISO 15614-1 level 2"]
    assert most == pytest.approx([energy, 1.25 * energy])  # ASME as recorded; ISO 1.25 times, k taken out again


def test_problems_name_their_code():
    said = problem_sentences(
        by((ISO, ASME), seam(preheat__minimum_c=60.0)), judge(ISO, ASME, preheat__minimum_c=60.0), "si"
    )
    assert said[0].endswith("(ISO 15614-1 level 2 8.4.8)")
    assert any("(ASME IX QW-" in each for each in said)


def test_what_a_change_costs_is_told_by_each_code():
    one, other = by((ISO, ASME), seam()), by((ISO, ASME), seam(preheat__minimum_c=60.0))
    record = by((ISO, ASME), seam_record(results=WITH_IMPACT))
    found = changes_between(one, other, Assessor([("1", record)]).assess)
    told = {each.code: each.consequence for each in found if each.variable == "preheat_c"}
    assert told == {ISO: "requalify", ASME: "covered"}


def test_the_codes_are_typed_one_by_one():
    wps = seam()
    assert shown(wps, "header/second_code", "si") == ""
    wps = with_text(wps, "header/second_code", ASME, "si")
    wps = with_text(wps, "header/third_code", "api-1104", "si")
    assert wps.header.codes == (ISO, ASME, "api-1104")
    assert [shown(wps, f"header/{leaf}", "si") for leaf in ("code", "second_code", "third_code")] == list(
        wps.header.codes
    )
    assert with_text(wps, "header/second_code", "", "si").header.codes == (ISO, "api-1104")
    assert with_text(wps, "header/second_code", ISO, "si").header.codes == (ISO, "api-1104"), "no code twice"
    with pytest.raises(UnknownNameError):
        with_text(wps, "header/second_code", "no code at all", "si")
