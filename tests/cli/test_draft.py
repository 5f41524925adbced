"""`anlage draft`: a whole procedure from a few words."""

import json

import pytest

from anlage.core.document import read_strict
from anlage.core.procedure import WPS
from tests.cli.refusals import refusal

PIPE = ("base=A106-B", "nps=5", "schedule=40", "position=6G", "process=GTAW,SMAW", "code=asme-ix")


def test_a_pipe_by_two_processes_is_drafted_and_written(answer, tmp_path):
    target = tmp_path / "draft.json"
    found = answer("draft", *PIPE, "-o", str(target))
    assert found["proposed"]["joint/groove_angle_deg"] == {
        "value": "75", "reason": "the usual open root: 37.5° a side, 3.2 mm gap, hardly any land", "confidence": "M",
    }  # fmt: skip
    wps = read_strict(target.read_text(encoding="utf-8"), WPS)
    assert [each.process for each in wps.deposits] == ["GTAW", "SMAW"]
    assert (wps.joint.od_mm, wps.joint.thickness_mm, wps.header.code) == (141.3, 6.55, "asme-ix")
    assert set(wps.proposed) == set(found["proposed"])
    assert len(wps.passes) == found["passes"] > 3


def test_what_is_drafted_is_checked_with_what_is_only_proposed(call, tmp_path):
    target = tmp_path / "draft.json"
    call("draft", *PIPE, "-o", str(target))
    status, found, _ = call("check", str(target), "--json")
    assert status == 1
    told = [each["text"] for each in found["warnings"] if each["code"] == "document.proposed"]
    assert "leaves are only proposed" in told[0]


def test_the_table_names_every_leaf_with_its_reason(call):
    status, out, err = call("draft", "base=A36", "product=plate", "thickness=20mm", "position=3G")
    assert (status, err) == (0, "")
    assert "Filler of the SMAW deposit" in out
    assert "low hydrogen; strength of the plate (M)" in out


@pytest.mark.parametrize(
    ("words", "said"),
    [
        (("product=plate", "thickness=3mm"), "base: is missing; add base=…"),
        (("base=A36", "thickness=3mm"), "plate or pipe is not stated; state it"),
        (("base=A36", "product=plate", "thickness=3"), "thickness: 3 has no unit"),
        (("base=A36", "nps=5"), "schedule: is missing"),
        (("base=A36", "nps=5", "schedule=40", "thickness=3mm"), "the pipe has its own; leave it out"),
        (("base=A36", "product=plate", "thickness=3mm", "process=GLUE"), "process: no GLUE"),
        (("base=A36", "product=plate", "thickness=3mm", "position=9X"), "position: no 9X"),
    ],
)
def test_what_cannot_be_drafted_is_refused_in_one_line(call, words, said):
    assert said in refusal(call, "draft", *words)


def test_a_file_that_is_there_is_not_written_over(call, tmp_path):
    target = tmp_path / "draft.json"
    target.write_text("{}", encoding="utf-8")
    assert "it exists already" in refusal(call, "draft", *PIPE, "-o", str(target))
    assert json.loads(target.read_text(encoding="utf-8")) == {}
    status, _, _ = call("draft", *PIPE, "-o", str(target), "--force")
    assert status == 0
    assert target.stat().st_size > 100
