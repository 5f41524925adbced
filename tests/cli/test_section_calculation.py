"""`anlage calc section FILE`: the contract's own example, what comes back, and what is refused."""

import json

import pytest

from tests.cli.refusals import refusal

EXAMPLE = {
    "format": "anlage-section", "version": 1, "ambient_c": 20,
    "metals": {"test": {"conductivity_w_mm_k": 0.040, "heat_capacity_j_mm3_k": 0.0047}},
    "areas": [{"metal": "test", "outline_mm": [[0, 0], [75, 0], [75, 12], [0, 12]], "initial_c": 20}],
    "grid": {"fine_mm": 1, "core_mm": [[0, 20], [0, 12]], "growth": 1.15}, "losses": "none",
    "sources": [{"id": "q", "heat_j_mm": 450, "outline_mm": [[0, 0], [4, 0], [4, 4], [0, 4]], "start_s": 0,
                 "duration_s": 0}],
    "probes": {"a": [20, 0], "b": [0, 12], "c": [75, 6]}, "times_s": [20, 40, 200], "end_s": 400,
}  # fmt: skip


@pytest.fixture
def file(tmp_path):
    def written(text=None, **changes):
        path = tmp_path / "case.json"
        path.write_text(json.dumps({**EXAMPLE, **changes}) if text is None else text)
        return str(path)

    return written


def test_the_example_of_the_contract(answer, file):
    found = answer("calc", "section", file())
    assert found["probes"]["a"]["time_s"] == [20, 40, 200]
    assert found["probes"]["a"]["temperature_c"][0] == pytest.approx(212.0, rel=0.005)
    assert found["probes"]["b"]["temperature_c"][1] == pytest.approx(263.02, rel=0.005)
    assert found["probes"]["a"]["read_at_mm"] == pytest.approx([20, 0.5])
    ledger = found["ledger"]
    assert ledger["supplied_j_mm"] == 450
    assert abs(ledger["residual_j_mm"]) < 1e-9 * 450
    assert found["mean_c"] == pytest.approx(126.383, abs=0.001)
    assert found["elapsed_s"] == 400
    assert {"cells", "steps", "rejected", "run_s", "seam_factor", "wait_total_s", "metal_area_mm2"} <= set(found)


def test_waits_peaks_cooling_and_what_is_molten(answer, file):
    hot = {"id": "hot", "heat_j_mm": 900, "outline_mm": [[0, 8], [5, 8], [5, 12], [0, 12]], "start_s": 0}
    late = {**hot, "id": "late", "gap_s": 30, "wait_for": {"probe": "a", "below_c": 150}}
    del late["start_s"]
    told = file(metals={"test": {"catalogue": "S355J2"}}, sources=[hot, late], losses={"emissivity": 0.8}, end_s="all",
                 probes={"a": [20, 12], "in": [1, 11]}, times_s=None)  # fmt: skip
    found = answer("calc", "section", told)
    first, second = found["sources"]
    assert second["before_c"]["a"] == pytest.approx(150, abs=0.2)
    assert second["start_s"] == pytest.approx(30 + second["wait_s"])
    assert found["wait_total_s"] == second["wait_s"] > 0
    assert first["peak_c"]["in"] > 1450
    assert 0 < first["raw_800_500_s"]["in"] < 60
    assert "a" not in first["raw_800_500_s"]
    assert "section.molten" in [warning["code"] for warning in found["warnings"]]
    assert found["elapsed_s"] == pytest.approx(second["start_s"] + 3 + 60)


def test_a_pass_that_waits_in_vain_has_no_number(answer, file):
    source = {**EXAMPLE["sources"][0], "id": "late", "gap_s": 10, "wait_for": {"probe": "a", "below_c": 20}}
    del source["start_s"]
    found = answer("calc", "section", file(sources=[EXAMPLE["sources"][0], source]))
    assert found["sources"][1]["start_s"] is None
    assert "section.never" in [warning["code"] for warning in found["warnings"]]


def area(**changes):
    return {"areas": [{**EXAMPLE["areas"][0], **changes}]}


def source(**changes):
    return {"sources": [{**EXAMPLE["sources"][0], **changes}]}


@pytest.mark.parametrize(
    ("changes", "words"),
    [({"colour": "red"}, "unknown field `colour`"), ({"version": 2}, "version"), ({"areas": []}, "holds no metal"),
     (area(metal="gold"), "no metal gold"), (area(outline_mm=[[0, 0], [75, 12], [75, 0], [0, 12]]), "crosses itself"),
     (area(outline_mm=[[0, 0], [75, 0], [40, 0]]), "has no area"),
     ({"areas": [*EXAMPLE["areas"], {"metal": "test", "outline_mm": [[70, 2], [90, 2], [90, 9], [70, 9]]}]}, "overlap"),
     (source(outline_mm=[[90, 0], [95, 0], [95, 4], [90, 4]]), "no metal under it"),
     (source(metal="test"), "overlap"), (source(start_s=None), "does not say when it starts"),
     (source(heat_j_mm=-1), "is below 0"), (source(wait_for={"probe": "z", "below_c": 100}), "no probe z"),
     ({"probes": {"a": [200, 5]}}, "lies on no metal"), ({"times_s": [40, 20]}, "do not rise"),
     ({"end_s": -1}, "is no end"), ({"grid": {"fine_mm": 0}}, "makes no grid"),
     ({"grid": {"y_mm": [0, 10], "z_mm": [0, 12]}}, "do not hold"), ({"ambient_c": -300}, "does not exist"),
     ({"losses": {"emissivity": 1.5}}, "no emissivity"), ({"losses": {"coefficient_w_m2_k": -1}}, "is below 0"),
     ({"losses": {"coefficient_w_m2_k": 1, "emissivity": 0.8}}, "stated twice"),
     ({"losses": {"end_faces": True}}, "plate_length_mm"),
     ({"seam": {"length_mm": 100, "station_mm": 200}}, "not on a seam"),
     ({"seam": {}}, "seam.length_mm"), ({"pipe": {"od_mm": 20}}, "makes no pipe"),
     ({"metals": {"test": {"catalogue": "unobtainium"}}}, "no unobtainium"), ({"metals": {"test": {}}}, "is no metal"),
     ({"metals": {"test": {"conductivity_w_mm_k": 0, "heat_capacity_j_mm3_k": 1}}}, "is not above 0"),
     ({"tolerance": {"absolute_k": 0}}, "is not above 0")],
)  # fmt: skip
def test_what_is_refused(call, file, changes, words):
    assert words in refusal(call, "calc", "section", file(**changes))


def test_files_that_are_none(call, file, tmp_path):
    assert "is no JSON" in refusal(call, "calc", "section", file("{"))
    assert "cannot be read" in refusal(call, "calc", "section", str(tmp_path / "none.json"))
    assert "file: is missing" in refusal(call, "calc", "section")
    assert "file: stated twice" in refusal(call, "calc", "section", file(), file())


def test_another_start_before_the_first_ends_is_refused(call, file):
    second = {**EXAMPLE["sources"][0], "id": "second", "start_s": 1}
    line = refusal(call, "calc", "section", file(sources=[{**EXAMPLE["sources"][0], "duration_s": 5}, second]))
    assert "starts before the one before it ends" in line
