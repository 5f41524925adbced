"""`anlage calc` on metals and heat: keys of the contract, ranges, what is missing, what lies out of range, refusals."""

import pytest

from tests.cli.refusals import refusal

STEEL = ("C=0.17", "Si=0.35", "Mn=1.42", "Cr=0.12", "Mo=0.03", "V=0.04", "Ni=0.15", "Cu=0.18", "Nb=0.02", "B=0")


def codes(found):
    return [warning["code"] for warning in found["warnings"]]


def test_carbon_equivalents_of_numbers_and_of_ranges(answer):
    found = answer("calc", "carbon-equivalent", *STEEL)
    assert {name: round(found[name], 4) for name in ("ce_iiw", "ce_aws", "cet", "pcm", "cen", "pls")} == {
        "ce_iiw": 0.4667, "ce_aws": 0.525, "cet": 0.3337, "pcm": 0.2762, "cen": 0.4641, "pls": 0.2959
    }  # fmt: skip
    assert codes(found) == ["validity.outside"]  # 0.02 % more manganese than Pcm was made for
    span = answer("calc", "carbon-equivalent", "c=0.15..0.20", "MN=1.2..1.5")
    assert span["ce_iiw"] == pytest.approx([0.35, 0.45])
    assert "Nb" in next(w["text"] for w in span["warnings"] if w["code"] == "composition.counted_as_none")


def test_a_result_without_its_element_is_none_and_says_which(answer):
    found = answer("calc", "carbon-equivalent", "C=0.2")
    assert found["ce_iiw"] is found["cen"] is None
    missing = next(warning for warning in found["warnings"] if warning["code"] == "composition.missing")
    assert missing["where"] == "Mn"
    assert "pcm" in missing["text"]
    assert "carbon_equivalent.chromium" in codes(answer("calc", "carbon-equivalent", "C=0.1", "Mn=0.5", "Cr=9"))


@pytest.mark.parametrize(
    ("words", "line"),
    [(("carbon-equivalent", "Mn=1.4"), "C: is missing"),
     (("carbon-equivalent", "C=0.17", "Mn=1,4"), "Mn: 1,4 has a comma; write 1.4"),
     (("carbon-equivalent", "C=-0.1", "Mn=1"), "C: -0.1 is below zero"),
     (("carbon-equivalent", "C=0.2", "Mn=1", "Fe=60", "Ni=60"), "composition: adds up to 121.2 %"),
     (("carbon-equivalent", "C=0.2", "Xx=1"), "key: no Xx"),
     (("hardness", "C=0.2", "Mn=1"), "t85: is missing"),
     (("cooling", "heat_input=1kJ/mm", "thickness=10mm", "preheat=600degC"), "preheat: 600 °C is no preheat"),
     (("cooling", "heat_input=1kJ/mm", "thickness=10mm", "preheat=20degC", "joint=lap"), "joint: no lap"),
     (("preheat", "C=0.2", "Mn=1", "thickness=20mm", "hydrogen=8"), "heat_input: is missing"),
     (("preheat", "C=0.2", "Mn=1", "thickness=20mm", "hydrogen=few", "heat_input=1kJ/mm"), "hydrogen: "),
     (("preheat", "C=0.2", "Mn=1", "thickness=20mm", "hydrogen=5", "heat_input=1kJ/mm", "restraint=some"),
      "restraint: no some; take low, medium or high"),
     (("tempering", "temperature=620degC,600degC", "time=2h"), "time: 1 times for 2 temperatures"),
     (("tempering", "temperature=620degC", "time=1..2h"), "time: 1..2h is a range"),
     (("purge", "flow=10L/min", "target=50"), "bore: is missing; state bore and length, or volume"),
     (("purge", "volume=3l", "bore=100mm", "flow=10L/min", "target=50"), "volume: does not go with bore"),
     (("purge", "volume=3l", "flow=10L/min", "target=50", "gas_oxygen=60"), "target: 50 ppm is never reached"),
     (("dilution", "base_a=A36", "filler=ER309L", "dilution=1.5"), "dilution: 1.5 is over 1"),
     (("dilution", "base_a=A240-316", "filler=ER309L", "dilution=0.3"), "base_a: no typical analysis of A240-316"),
     (("dilution", "base_a=nothing", "filler=ER309L", "dilution=0.3"), "base_a: no nothing"),
     (("ferrite", "C=0.02", "Cr=19", "Ni=10", "lines=/no/such.csv"), "/no/such.csv: cannot be read")],
)  # fmt: skip
def test_what_is_refused(call, words, line):
    assert line in refusal(call, "calc", *words)


def test_preheat_shows_every_school_and_says_which_left_its_range(answer):
    words = ("calc", "preheat", *STEEL, "thickness=32mm", "hydrogen=8", "heat_input=1.4kJ/mm")
    found = answer(*words)
    schools = found["schools"]
    assert {name: school["preheat_c"] and round(school["preheat_c"]) for name, school in schools.items()} == {
        "en1011_2_cet": 129, "ito_bessyo": 183, "seferian": 139, "aws_d1_1_hydrogen_control": 110,
        "en1011_2_combined": None,
    }  # fmt: skip
    assert [name for name, school in schools.items() if school["valid"]] == [
        "en1011_2_cet", "seferian", "aws_d1_1_hydrogen_control"
    ]  # fmt: skip
    assert "heat input 1.4 is outside 1.7..3" in schools["ito_bessyo"]["note"]
    assert (found["highest"], round(found["highest_c"]), round(found["highest_valid_c"])) == ("ito_bessyo", 183, 139)
    held = answer(*words, "restraint=medium")["schools"]["ito_bessyo"]
    assert (round(held["preheat_c"]), round(held["p_w"], 3), held["k_kgf_mm2"]) == (152, 0.378, 1280)
    weld = answer(*words, "weld_cet=0.33")["schools"]["en1011_2_cet"]
    assert weld["preheat_c"] > schools["en1011_2_cet"]["preheat_c"]


def test_the_annex_is_read_in_the_column_of_the_thickness(answer):
    words = ("calc", "preheat", *STEEL, "hydrogen=H8", "heat_input=1.4kJ/mm", "restraint=high")
    metric = answer(*words, "thickness=32mm")["schools"]["aws_d1_1_hydrogen_control"]["preheat_c"]
    inches = answer(*words, "thickness=1.26in")["schools"]["aws_d1_1_hydrogen_control"]["preheat_c"]
    assert (metric, inches) == (140, pytest.approx((280 - 32) / 1.8))


def test_hydrogen_that_nobody_knows_counts_as_the_highest(answer):
    words = ("calc", "preheat", *STEEL, "thickness=32mm", "heat_input=1.4kJ/mm")
    unknown, known = (answer(*words, f"hydrogen={text}") for text in ("unknown", "H5"))
    assert "preheat.hydrogen_unknown" in codes(unknown)
    assert "preheat.hydrogen_class" in codes(known)
    for name in ("en1011_2_cet", "aws_d1_1_hydrogen_control"):
        assert unknown["schools"][name]["preheat_c"] > known["schools"][name]["preheat_c"]


def test_cooling_over_ranges_and_beside_the_transition(answer):
    single = answer("calc", "cooling", "heat_input=1.6kJ/mm", "thickness=18mm", "preheat=120degC")
    assert (round(single["t85_s"], 2), single["regime"], round(single["t85_2d3d_s"], 2)) == (14.24, "2D", 12.55)
    thick = answer("calc", "cooling", "heat_input=1.6kJ/mm", "thickness=30mm", "preheat=120degC")
    assert (thick["regime"], "t85_2d3d_s" in thick) == ("3D", False)
    tee = answer("calc", "cooling", "heat_input=1.2kJ/mm", "thickness=40mm", "preheat=120degC", "joint=tee")
    assert tee["t85_s"][0] == tee["t85_s"][1]
    span = answer("calc", "cooling", "heat_input=1..2kJ/mm", "thickness=15..25mm", "preheat=20..150degC")
    ends = [
        answer("calc", "cooling", f"heat_input={q}kJ/mm", f"thickness={d}mm", f"preheat={t}degC")["t85_s"]
        for q, d, t in ((1, 25, 20), (2, 15, 150))
    ]
    assert span["t85_s"] == pytest.approx(ends)
    assert span["regime"] == ["3D", "2D"]


def test_hardness_names_what_was_held(answer):
    found = answer("calc", "hardness", *STEEL, "t85=0.5s")
    assert (round(found["yurioka_hv"], 1), found["held"]) == (443.0, ["yurioka_hv", "duren_hv"])
    assert set(found["yurioka"]) == {"ce_i", "ce_ii", "ce_iii", "hm_hv", "hb_hv", "tau_m_s", "tau_b_s"}
    span = answer("calc", "hardness", *STEEL, "t85=8..20s")
    assert span["yurioka_hv"] == pytest.approx([285.6, 360.9], abs=0.1)
    assert span["held"] == []


def test_ferrite_assumes_nitrogen_of_an_austenitic_deposit_alone(answer):
    austenitic = answer("calc", "ferrite", "C=0.02", "Cr=19.8", "Ni=10", "Mn=1.8", "Si=0.4")
    assert austenitic["wrc_nieq"] == pytest.approx(10 + 0.7 + 1.2)
    assert "ferrite.assumed_nitrogen" in codes(austenitic)
    low, high = austenitic["fn_wrc"]
    assert high - low >= 7
    duplex = answer("calc", "ferrite", "C=0.02", "Cr=22.8", "Ni=8.6", "Mo=3.0", "Mn=1.6", "Si=0.5")
    assert duplex["wrc_nieq"] is duplex["fn_wrc"] is None
    assert "ferrite.no_nitrogen" in codes(duplex)
    assert duplex["solidification_mode"] == "F"


def test_ferrite_is_read_off_an_engineers_own_lines(answer, tmp_path):
    own = tmp_path / "own.csv"
    own.write_text("fn,cr_eq,ni_eq\n0,18,12\n0,22,16\n10,18,10\n10,22,14\n")
    found = answer("calc", "ferrite", "C=0.02", "Cr=20", "Ni=11.7", "N=0.03", f"lines={own}")
    assert found["fn_wrc"] == pytest.approx(5.0)
    assert "own.csv" in found["sources"][-1]["source"]


def test_dilution_between_metals_of_the_catalogue(answer):
    found = answer("calc", "dilution", "base_a=A516-70", "base_b=A240-316L", "filler=E309LMo-16", "dilution=0.2..0.4",
                   "share_a=0.5")  # fmt: skip
    assert found["composition"]["Cr"][0] < found["composition"]["Cr"][1]
    assert {"composition.counted_as_none", "dilution.specification"} <= set(codes(found))
    none = answer("calc", "dilution", "base_a=A516-70", "filler=E309LMo-16", "dilution=0")
    wire = answer("calc", "dilution", "base_a=A240-316L", "filler=E309LMo-16", "dilution=0")
    assert none["composition"] == wire["composition"]


def test_transformation_tempering_strength_and_purge(answer):
    found = answer("calc", "transformation", *STEEL)
    assert round(found["ac3_andrews_c"], 1) == 844.8
    assert found["ms_eichelman_hull_c"] is None
    hard = answer("calc", "transformation", "C=0.06", "Cr=15", "Ni=7", "Mn=1.5", "Si=0.4", "N=0.03")
    assert "transformation.martensite" in codes(hard)
    two = answer("calc", "tempering", "temperature=620degC,600degC", "time=2h,180min")
    assert (round(two["equivalent_time_h"], 2), two["reference_c"], codes(two)) == (3.04, 620, ["tempering.in_turn"])
    strong = answer("calc", "weld-strength", "C=0.07", "Mn=1.35", "Ni=1.0")
    assert (round(strong["yield_mpa"], 1), codes(strong)[0]) == (480.8, "weld_strength.alloyed")
    purge = answer("calc", "purge", "bore=102.26mm", "length=450mm", "flow=10L/min", "target=50", "gas_oxygen=5ppm")
    assert round(purge["mixing_min"], 2) == 3.12
    assert purge["rule_of_thumb_leaves_ppm"] > 9000
    assert answer("calc", "purge", "volume=20l", "flow=10L/min", "target=0.1%")["target_ppm"] == 1000
