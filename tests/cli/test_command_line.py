"""The command line as the contract has it: keys, units, JSON shapes, exit statuses, one line for bad input."""

import math
import sqlite3
import subprocess
import sys

import pytest

from anlage import __version__
from anlage.cli.main import run
from anlage.store import create_works
from tests.cli.refusals import refusal

# calc heat-input -----------------------------------------------------------------------------

STATED = ("calc", "heat-input", "process=SMAW", "volts=22..26", "amps=110..140", "speed=4..6in/min")


def test_heat_input_is_an_interval_with_its_corners_and_sources(answer):
    found = answer(*STATED)
    assert found["arc_energy_kj_mm"] == pytest.approx([22 * 110 * 60 / 152.4 / 1000, 26 * 140 * 60 / 101.6 / 1000])
    assert found["heat_input_kj_mm"] == pytest.approx([0.8 * end for end in found["arc_energy_kj_mm"]])
    assert found["efficiency"] == 0.8
    assert found["corners"]["high"] == {"volts": 26, "amps": 140, "travel_speed_mm_min": 101.6}
    assert all(set(source) == {"what", "source", "confidence"} for source in found["sources"])


def test_a_single_value_is_still_an_interval(answer):
    found = answer("calc", "heat-input", "process=135", "volts=24.6", "amps=208", "speed=285mm/min")
    assert found["arc_energy_kj_mm"] == pytest.approx([1.0772, 1.0772], abs=5e-5)


@pytest.mark.parametrize(
    ("words", "energy"),
    [
        (("energy=61200J", "length=2.4in"), 1.0039),
        (("power=4300W", "speed=5mm/s"), 0.860),
        (("volts=27", "amps=240", "length=320mm", "time=1min"), 1.215),
        (("volts=27", "amps=240", "od=12in", "from_clock=6", "to_clock=3", "time=60s"),
         27 * 240 * 60 / (math.pi * 304.8 / 4) / 1000),
    ],
)  # fmt: skip
def test_every_route_to_heat_input(answer, words, energy):
    found = answer("calc", "heat-input", "process=SMAW", *words)
    assert found["arc_energy_kj_mm"][0] == pytest.approx(energy, abs=6e-5)


def test_the_stopwatch_tells_the_travel_speed(answer):
    found = answer("calc", "heat-input", "process=GTAW", "volts=11", "amps=110", "length=100..110mm", "time=90s")
    assert found["travel_speed_mm_min"] == pytest.approx([66.6667, 73.3333], rel=1e-5)


def test_the_clock_route_tells_the_length_and_that_it_is_the_shorter_way(answer, call):
    words = ("calc", "heat-input", "process=GTAW", "volts=11", "amps=110", "od=120mm", "from_clock=2", "to_clock=11",
             "time=90s")  # fmt: skip
    assert answer(*words)["length_mm"] == pytest.approx(math.pi * 120 * 3 / 12)
    assert "the shorter way round" in call(*words)[1]


def test_a_process_without_known_efficiency_has_no_heat_input(answer):
    found = answer("calc", "heat-input", "process=142", "volts=11", "amps=110", "speed=100mm/min")
    assert (found["heat_input_kj_mm"], found["efficiency"]) == (None, None)
    assert found["warnings"][0]["code"] == "heat_input.no_efficiency"
    stated = answer("calc", "heat-input", "efficiency=0.6", "volts=11", "amps=110", "speed=100mm/min")
    assert stated["heat_input_kj_mm"][0] == pytest.approx(0.6 * 0.726)


def test_an_unusual_value_is_given_with_a_warning(answer):
    found = answer("calc", "heat-input", "process=SMAW", "volts=90", "amps=110", "speed=100mm/min")
    assert [(w["where"], w["code"]) for w in found["warnings"]] == [("volts", "heat_input.unusual")]


# calc run-out, joint, pipe -------------------------------------------------------------------


def test_run_out(answer):
    words = ("diameter=4mm", "consumed_length=410mm", "electrode_efficiency=105")
    found = answer("calc", "run-out", "bead_length=260mm", *words)
    assert found["heat_input_kj_mm"] == pytest.approx(1.0294, abs=5e-5)
    assert found["run_out_ratio"] == pytest.approx(0.6341, abs=5e-5)
    assert isinstance(answer("calc", "run-out", "bead_length=240..280mm", *words)["heat_input_kj_mm"], list)


def test_a_joint_in_plate(answer):
    found = answer("calc", "joint", "type=single-v", "thickness=10mm", "root_opening=3mm", "root_face=1mm",
                   "angle=60deg", "reinforcement=1.5mm")  # fmt: skip
    width = 3 + 18 * math.tan(math.radians(30))
    assert found["groove_area_mm2"] == pytest.approx(30 + 81 * math.tan(math.radians(30)))
    assert found["face_width_mm"] == pytest.approx(width)
    assert found["reinforcement_area_mm2"] == pytest.approx(width)  # 2/3 · width · 1.5
    assert found["weld_metal_kg_m"] == pytest.approx((found["groove_area_mm2"] + width) * 7.85e-3)
    assert "circumference_mm" not in found


def test_a_joint_over_a_range_is_a_range(answer):
    found = answer("calc", "joint", "type=v-backing", "thickness=20mm", "root_opening=5..7mm", "angle=40..50deg")
    areas = [opening * 20 + 400 * math.tan(math.radians(angle / 2)) for opening, angle in ((5, 40), (7, 50))]
    assert found["groove_area_mm2"] == pytest.approx(areas)


def test_a_joint_in_pipe_weighs_the_ring_of_its_section(answer):
    found = answer("calc", "joint", "type=square", "thickness=4mm", "root_opening=2mm", "od=100mm")
    assert found["circumference_mm"] == pytest.approx(math.pi * 100)
    ring_mm3 = math.pi * (50**2 - 46**2) * 2
    assert found["weld_metal_kg"] == pytest.approx(ring_mm3 * 7.85e-6)


def test_a_square_joint_ignores_an_angle_of_zero(answer):
    assert (
        answer("calc", "joint", "type=square", "thickness=3mm", "root_opening=1mm", "angle=0deg")["groove_area_mm2"]
        == 3
    )


def test_a_pipe(answer):
    found = answer("calc", "pipe", "nps=4", "schedule=120")
    assert (found["od_mm"], found["wall_mm"], found["bore_mm"]) == (114.3, 11.13, 92.04)


# coupon --------------------------------------------------------------------------------------


def variables(answer, *words):
    return answer("coupon", "--code", "asme-ix", *words)["variables"]


def test_a_coupon_needs_process_and_thickness_only(answer):
    found = answer("coupon", "--code", "asme-ix", "process=SMAW", "thickness=14mm")
    assert (found["code"], found["edition"], found["units"]) == ("asme-ix", "2023", "si")
    assert found["variables"]["base_metal_thickness_mm"]["allowed"] == [5, 28]
    assert found["variables"]["preheat_c"]["allowed"] is None
    assert found["variables"]["preheat_c"]["note"] == "not stated"
    assert {w["where"] for w in found["warnings"]} == {"bends", "coupon", "coupon_weld", "pwht", "pass_thickness_mm"}
    assert all({"allowed", "clause", "category", "confidence", "note"} <= set(v) for v in found["variables"].values())


def test_inches_are_judged_in_inches(answer):
    found = answer("coupon", "--code", "asme-ix:2019", "process=SMAW", "thickness=0.55in", "deposit=0.55in")
    assert (found["units"], found["edition"]) == ("us", "2019")
    assert found["variables"]["base_metal_thickness_mm"]["allowed"] == pytest.approx([4.7625, 27.94])
    assert found["variables"]["deposit_thickness_mm.SMAW"]["allowed"] == pytest.approx([0, 27.94])
    si = answer("coupon", "--code", "asme-ix", "process=SMAW", "thickness=0.55in", "units=si")
    assert si["variables"]["base_metal_thickness_mm"]["allowed"][0] == 5


def test_several_deposits_of_one_coupon(answer):
    found = variables(answer, "process=GTAW,SMAW,SMAW", "thickness=20mm", "deposit=4mm,10mm,6mm", "base=SA-106-B",
                      "filler=ER70S-2,E6010,E7018", "gas=Ar,-,-", "current=DCEN,DCEP,DCEP")  # fmt: skip
    limits = {
        name.partition(".")[2]: v["allowed"] for name, v in found.items() if name.startswith("deposit_thickness_mm")
    }
    assert limits == {"GTAW": [0, 8], "SMAW-1": [0, 20], "SMAW-2": [0, 12]}
    assert found["f_number.SMAW-1"]["allowed"] == {"one_of": ["3"]}
    assert found["a_number.GTAW"]["allowed"] == {"one_of": ["1", "2"]}
    assert found["shielding_gas.GTAW"]["allowed"] == {"one_of": ["Ar"]}
    assert found["p_number"]["allowed"] == {"one_of": ["1+1"]}


def test_impact_switches_the_supplementary_variables_on(answer):
    words = ("process=SMAW", "thickness=22mm", "interpass=230degC", "heat_input=1.2..1.4kJ/mm", "progression=down")
    off, on = variables(answer, *words), variables(answer, *words, "impact=yes")
    assert (off["base_metal_thickness_mm"]["allowed"], on["base_metal_thickness_mm"]["allowed"]) == ([5, 44], [16, 44])
    assert (off["interpass_c"]["allowed"], on["interpass_c"]["allowed"]) == ("any", [None, 285])
    heat = on["heat_input_kj_mm.SMAW"]
    assert (heat["allowed"], heat["open"], heat["basis"]) == ([0, 1.4], ["low"], "arc_energy")
    assert on["progression"]["allowed"] == {"all_but": ["uphill"]}
    assert on["interpass_c"]["category"] == "supplementary"


def test_heat_input_of_a_coupon_follows_from_volts_amps_and_speed(answer):
    found = variables(answer, "process=SMAW", "thickness=22mm", "impact=yes", "volts=27", "amps=240", "speed=320mm/min")
    assert found["heat_input_kj_mm.SMAW"]["allowed"] == pytest.approx([0, 1.215])


def test_heat_input_with_efficiency_is_not_compared(answer):
    found = answer("coupon", "--code", "asme-ix", "process=SMAW", "thickness=22mm", "impact=yes",
                   "heat_input=1.2kJ/mm", "basis=heat_input")  # fmt: skip
    assert found["variables"]["heat_input_kj_mm.SMAW"]["allowed"] is None
    assert found["warnings"][0]["code"] == "coupon.basis"


def test_a_dissimilar_joint_by_catalogue_and_by_number(answer):
    by_name = variables(answer, "process=SMAW", "thickness=20mm", "base=SA-516-70", "base2=SA-335 P22")
    by_number = variables(answer, "process=SMAW", "thickness=20mm", "p_number=1+5A", "group_number=2+1")
    assert by_name["p_number"]["allowed"] == by_number["p_number"]["allowed"] == {"one_of": ["5A+1", "5A+3", "5A+4"]}


@pytest.mark.parametrize(
    ("pwht", "base", "allowed", "thickness"),
    [
        ("none", "A516-70", {"one_of": ["none"]}, [5, 40]),
        ("600..640degC", "A516-70", {"one_of": ["below-ltt"]}, [5, 40]),
        ("above-utt", "A516-70", {"one_of": ["above-utt"]}, [5, 22]),
        ("1050..1100degC", "A240-304L", {"one_of": ["range", "solution"]}, [5, 40]),
        ("700..760degC", "A516-70", None, [5, 22]),  # reaches the transformation: class and 1.1 T both open
    ],
)
def test_heat_treatment_classes(answer, pwht, base, allowed, thickness):
    found = variables(answer, "process=SMAW", "thickness=20mm", f"base={base}", f"pwht={pwht}")
    assert found["pwht"]["allowed"] == allowed
    assert found["base_metal_thickness_mm"]["allowed"] == thickness


def test_two_readings_show_the_wider_beside_the_narrower(answer):
    found = variables(answer, "process=SMAW", "thickness=20mm", "base=A516-70", "pwht=700..760degC")
    assert found["base_metal_thickness_mm"]["possible"] == [5, 40]


def test_a_position_says_its_progression(answer):
    found = variables(answer, "process=SMAW", "thickness=20mm", "position=PF", "impact=yes")
    assert found["progression"]["allowed"] == "any"


def test_gtaw_without_filler_has_no_filler_group(answer):
    found = variables(answer, "process=GTAW", "thickness=2mm", "filler=none", "gas=Ar")
    assert found["filler_present.GTAW"]["allowed"] == {"one_of": ["without"]}
    assert "f_number.GTAW" not in found


def test_a_fillet_is_free_of_thickness_limits(answer):
    found = answer("coupon", "--code", "asme-ix", "process=SMAW", "thickness=12mm", "deposit=12mm", "weld=fillet")
    for variable in ("base_metal_thickness_mm", "deposit_thickness_mm.SMAW"):
        assert found["variables"][variable]["allowed"] == "any"
        assert "lifted for a fillet" in found["variables"][variable]["note"]
    assert found["warnings"][0]["code"] == "coupon.fillet_on_groove"


def test_a_coupon_of_wire_says_how_its_metal_crossed_the_arc(answer):
    words = ("process=GMAW", "thickness=12mm", "deposit=12mm", "filler=ER70S-6", "gas=80Ar/20CO2", "base=A36")
    found = variables(answer, *words, "transfer_mode=dip", "supplemental_filler=none", "pwht=none")
    assert found["base_metal_thickness_mm"]["allowed"] == [5, pytest.approx(13.2)]
    assert found["deposit_thickness_mm.GMAW"]["allowed"] == [0, pytest.approx(13.2)]
    assert found["transfer_mode.GMAW"]["allowed"] == {"one_of": ["short"]}
    assert found["product_form.GMAW"]["allowed"] == {"one_of": ["bare", "metal-cored"]}
    open_one = variables(answer, *words)
    assert open_one["base_metal_thickness_mm"]["allowed"] == [5, pytest.approx(13.2)]
    assert open_one["base_metal_thickness_mm"]["possible"] == [5, 24]
    assert "transfer mode" in open_one["base_metal_thickness_mm"]["note"]


def test_a_submerged_arc_coupon_says_its_flux(answer):
    words = ("process=121", "thickness=20mm", "deposit=20mm", "base=A36", "pwht=none", "flux=Flux  12", "runs=multi")
    found = variables(answer, *words, "filler=F7A2-EM12K", "flux_type=active", "recrushed_slag=no")
    assert found["flux_tensile.SAW"]["allowed"] == {"one_of": ["7"]}
    assert found["flux_type.SAW"]["allowed"] == {"one_of": ["active"]}
    assert found["flux.SAW"]["allowed"] == "any"
    alone = variables(answer, *words, "filler=EM12K")
    assert alone["flux.SAW"]["allowed"] == {"one_of": ["flux 12"]}


def test_a_self_shielded_coupon_has_no_gas(answer):
    found = variables(answer, "process=FCAW", "thickness=12mm", "filler=E71T-8", "gas=none")
    assert found["shielding_gas.FCAW"]["allowed"] == {"one_of": ["none"]}


# verify --------------------------------------------------------------------------------------


@pytest.fixture
def works_file(tmp_path):
    """A works file with one procedure issued twice."""
    path, now = tmp_path / "ostrel.anlage", "2026-03-02T08:00:00Z"
    with create_works(path) as works:
        document_id = works.add("anlage-wps", "{}", now=now, number="W-101")
        for body in ("{}", '{"a": 1}'):
            works.issue(document_id, body, author="A. Maker", now=now)
    return path


def test_verify_counts_what_is_intact(call, works_file):
    status, found, _ = call("verify", str(works_file), "--json")
    assert (status, found["documents"], found["revisions"], found["intact"]) == (0, 1, 2, True)
    assert "2, intact" in call("verify", str(works_file))[1]


def test_verify_ends_with_1_and_names_what_was_changed(call, works_file):
    intruder = sqlite3.connect(works_file)
    intruder.execute("DROP TRIGGER issued_revisions_stay_update")
    intruder.execute("UPDATE revisions SET body = x'00' WHERE number = 1")
    intruder.commit()
    intruder.close()
    status, found, _ = call("verify", str(works_file), "--json")
    assert (status, found["intact"]) == (1, False)
    said = [(each["where"], each["text"]) for each in found["warnings"]]
    assert said[0] == (works_file.name, "its trigger issued_revisions_stay_update is missing")
    assert said[1][0] == "W-101@1"


def test_verify_of_another_file_is_bad_input(call, tmp_path):
    other = tmp_path / "notes.txt"
    other.write_text("no works file")
    assert "notes.txt: it is no works file; choose a file that Anlage made" in refusal(call, "verify", str(other))


# Bad input -----------------------------------------------------------------------------------

JOINT = ("calc", "joint", "thickness=10mm", "root_opening=3mm")
ROUTE = ("calc", "heat-input", "volts=2", "amps=3", "speed=4mm/s")
COUPON = ("coupon", "--code", "asme-ix", "process=SMAW", "thickness=10mm")


@pytest.mark.parametrize(
    ("words", "line"),
    [
        (("frob",), "anlage: no frob; take one of calc, coupon, ranges, check, "),
        (("calc",), "see anlage calc --help"),
        (("calc", "heat-inptu"), "calc: no heat-inptu; take heat-input"),
        (("calc", "heat-input"), "volts: is missing; state volts, amps, speed"),
        ((*STATED, "time=3s"),
         "time: does not go with volts, amps, speed; state volts, amps, speed and nothing beside"),
        ((*STATED[:-1],), "speed: is missing; state volts, amps, speed"),
        ((*STATED[:-1], "speed=4"), "speed: 4 has no unit; write 4 mm/min or 4 in/min"),
        ((*STATED[:-1], "sped=4in/min"), "key: no sped; take speed"),
        ((*STATED[:-1], "speed=6..4in/min"), "speed: 6..4in/min holds nothing; swap the ends"),
        ((*STATED[:-1], "speed=0in/min"), "speed: 0in/min is not above 0; state a speed above 0"),
        ((*STATED[:-1], "speed=-4in/min"), "speed: -4in/min is below zero; state a speed above zero"),
        ((*STATED[:-1], "speed=1e9in/min"), "speed: 1e9in/min is above 1000000 mm/min; state a possible speed"),
        ((*ROUTE, "process=XX"), "process: no XX; take one of SMAW,"),
        ((*ROUTE[:2], "process=SMAW", "volts=nan", "amps=3", "speed=4mm/s"), "volts: nan is not a number; write 1 V"),
        ((*STATED[:-1], "od=9in", "from_clock=13", "to_clock=3", "time=9s"),
         "from_clock: 13 is no clock position; write 1 to 12, or 4:30"),
        ((*ROUTE, "efficiency=80"), "efficiency: 80 is not in 0..1"),
        ((*JOINT, "type=single-v", "root_face=11mm", "angle=60deg"),
         "root_face: 11 mm is not less than the thickness of 10 mm"),
        ((*JOINT, "type=single-v", "root_face=1mm", "angle=0deg"),
         "angle: 0° is no groove angle; state an included angle"),
        ((*JOINT, "type=single-v", "root_face=1mm", "angle=180deg"), "angle: 180° is no groove angle"),
        ((*JOINT, "type=single-v", "root_face=1mm"), "angle: is missing; add angle=…"),
        ((*JOINT, "type=v-backing", "angle=60"), "angle: 60 has no unit; write 60 °"),
        ((*JOINT, "type=single-w"), "type: no single-w; take single-v"),
        ((*JOINT, "type=square", "od=15mm"), "od: 15 mm leaves no bore in a wall of 10 mm"),
        (("calc", "pipe", "nps=4"), "schedule: is missing; add schedule=…"),
        (("calc", "pipe", "nps=4", "schedule=999"), "schedule: no 999; take one of"),
        (("calc", "pipe", "nps=4", "schedule="), "schedule: nothing is stated; write schedule=… or leave the key out"),
        (("calc", "pipe", "nps=4", "nps=5", "schedule=40"), "nps: stated twice; state it once"),
        (("calc", "pipe", "four"), "argument: four is no key=value; write thickness=10mm"),
        (("coupon", "process=SMAW"), "see anlage coupon --help"),
        (("coupon", "--code", "asme-x", "process=SMAW", "thickness=1mm"), "code: no asme-x; take asme-ix"),
        (("coupon", "--code", "asme-ix:1987", "process=SMAW", "thickness=1mm"), "code: no 1987; take "),
        (("coupon", "--code", "asme-ix", "thickness=1mm"), "process: is missing; add process=…"),
        (COUPON[:-1], "thickness: is missing; add thickness=…"),
        ((*COUPON[:-1], "thickness=5..9mm"), "thickness: 5..9mm is a range; state one value"),
        ((*COUPON, "base=SA-9999"), "base: no SA-9999; "),
        ((*COUPON, "base=A36", "p_number=1"), "p_number: stated beside base; leave p_number or base out"),
        ((*COUPON, "p_number=99"), "p_number: no 99; "),
        ((*COUPON, "p_number=1", "group_number=x"), "group_number: x is no group; write a number such as 2"),
        ((*COUPON, "group_number=1"), "p_number: is missing; add p_number=…"),
        ((*COUPON, "filler=E7081"), "filler: no E7081; take E7018 or add it to those of your works"),
        ((*COUPON, "f_number=99"), "f_number: no 99; "),
        ((*COUPON, "a_number=A-13"), "a_number: no A-13; take "),
        ((*COUPON, "filler=none"), "filler: SMAW without filler; name the electrode"),
        ((*COUPON, "deposit=11mm"), "deposit: deposits add up to 11 mm in a coupon of 10 mm"),
        ((*COUPON, "deposit=4mm,5mm"), "deposit: 2 values for 1 processes; state one value"),
        ((*COUPON, "impact=maybe"), "impact: no maybe; take one of yes, no"),
        ((*COUPON, "units=metric"), "units: no metric; take one of si, us"),
        ((*COUPON, "basis=x"), "basis: no x; take one of arc_energy, heat_input"),
        ((*COUPON, "position=7G"), "position: no 7G; "),
        ((*COUPON, "preheat=-400degC"), "preheat: -400degC is below -273.15 °C; state a possible temperature"),
    ],
)  # fmt: skip
def test_bad_input_is_one_line_that_says_how_to_mend_it(call, words, line):
    assert line in refusal(call, *words)


def test_the_table_a_person_reads(call):
    status, out, _ = call(*STATED)
    assert status == 0
    assert "0.76..1.72" in out.replace("\u2009", " ")
    assert "26 V, 140 A, 102 mm/min  (4.0 in/min)" in out.replace("\u2009", " ")
    _, out, _ = call(*COUPON, "pwht=none", "max_pass_thickness=3mm")
    assert "base_metal_thickness_mm" in out
    assert "1.5..20 mm" in out.replace("\u2009", " ")
    assert "any, but the WPS states it:" in out


@pytest.mark.parametrize(("command", "key"), [("calc", "from_clock"), ("coupon", "max_pass_thickness")])
def test_help_lists_the_keys(command, key, capsys):
    with pytest.raises(SystemExit) as end:
        run([command, "--help"])
    assert end.value.code == 0
    assert key in capsys.readouterr().out


def test_the_installed_command_prints_its_version_and_passes_its_status_on():
    done = subprocess.run([sys.executable, "-m", "anlage", "--version"], capture_output=True, text=True, check=True)
    assert done.stdout == f"anlage {__version__}\n"
    bad = subprocess.run(
        [sys.executable, "-m", "anlage", "calc", "pipe", "nps=4"], capture_output=True, text=True, check=False
    )
    assert (bad.returncode, bad.stderr.count("\n")) == (2, 1)


@pytest.mark.parametrize("words", [(), ("demo",)])
def test_a_window_without_a_screen_is_refused_before_the_window_system_aborts(capsys, monkeypatch, words):
    for name in ("DISPLAY", "WAYLAND_DISPLAY", "QT_QPA_PLATFORM"):
        monkeypatch.delenv(name, raising=False)
    assert run(words) == 2
    assert capsys.readouterr().err.startswith("anlage: there is no screen to open a window on; ")


@pytest.mark.parametrize(("key", "own", "typed"), [("f_number", "4", "3"), ("a_number", "1", "8")])
def test_a_number_typed_against_its_filler_counts_for_nothing(answer, key, own, typed):
    found = answer("coupon", "--code", "asme-ix", "process=SMAW", "thickness=14mm", "filler=E7018", f"{key}={typed}")
    assert found["variables"][f"{key}.SMAW" if f"{key}.SMAW" in found["variables"] else key]["allowed"] is None
    (told,) = [each["text"] for each in found["warnings"] if each["code"] == "coupon.clash"]
    assert f"{own}, but {typed} is stated: neither counts" in told
    agreed = answer("coupon", "--code", "asme-ix", "process=SMAW", "thickness=14mm", "filler=E7018", f"{key}={own}")
    assert not [each for each in agreed["warnings"] if each["code"] == "coupon.clash"]


def test_of_a_range_of_volts_amps_and_speed_only_the_mean_is_sure(answer):
    words = ("process=SMAW", "thickness=14mm", "impact=yes", "volts=22..26", "amps=100..120", "speed=100..150mm/min")
    found = answer("coupon", "--code", "asme-ix", *words)["variables"]
    heat = found.get("heat_input_kj_mm.SMAW") or found["heat_input_kj_mm"]
    # By hand: 24·110·60/125 = 1267.2, 26·120·60/100 = 1872 J/mm.
    assert heat["allowed"] == [0, pytest.approx(1.2672)]
    assert heat["possible"] == [0, pytest.approx(1.872)]
