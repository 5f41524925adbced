"""A code is a folder of TOML: once it lies beside the others it is chosen, judged and shown like them."""

import shutil
from pathlib import Path

import pytest
from PySide6.QtWidgets import QApplication

from anlage.core.document import with_at
from anlage.core.errors import FormatError
from anlage.data import code_packs, installed_codes
from anlage.session.leaves.table import field_of, fields
from anlage.ui.kit.fields import ChoiceField

YARD = Path(__file__).parents[2] / "fixtures" / "yard_code"


@pytest.fixture
def _yard_code(tmp_path, monkeypatch):
    shutil.copytree(YARD, tmp_path / "yard_code")
    monkeypatch.setattr(installed_codes, "CODES", tmp_path)
    for kept in (code_packs._pack, fields):
        kept.cache_clear()
    yield
    for kept in (code_packs._pack, fields):
        kept.cache_clear()


@pytest.mark.usefixtures("_yard_code")
def test_an_installed_code_is_chosen_and_judged_in_the_window(demo):
    assert field_of("header/code").choices == ("yard-code", "yard-code:1")
    demo.document.type_text("header/code", "yard-code")
    demo.press("Alt+R")
    QApplication.processEvents()
    place = demo.place
    assert [place.filter.itemText(n) for n in range(place.filter.count())][2:] == ["Leading", "Advisory"]
    judged = {line.rung.id: line.rung for line in place.model.lines}
    assert judged["base_metal_thickness_mm"].verdict == "outside"  # 6..22 mm by a coupon of 16 mm, 8..32 mm
    assert (judged["base_metal_thickness_mm"].clause, judged["position"].category) == ("4.1", "advisory")
    demo.document.type_text("range/thickness_mm", "8..22")
    QApplication.processEvents()
    judged = {line.rung.id: line.rung.verdict for line in place.model.lines}
    assert judged["base_metal_thickness_mm"] == "inside"


@pytest.mark.usefixtures("_yard_code")
def test_its_demand_narrows_what_its_rules_allow(demo):
    demo.document.type_text("header/code", "yard-code:1")
    demo.document.type_text("header/impact", "yes")
    assessment = demo.desk.assessment()
    assert any(rung.id.startswith("heat_input_kj_mm") and rung.verdict != "inside" for rung in assessment.problems())


@pytest.mark.usefixtures("_yard_code")
def test_a_folder_that_names_another_code_is_refused(tmp_path):
    (tmp_path / "yard_code").rename(tmp_path / "other_code")
    with pytest.raises(FormatError, match="its code is yard-code; write other-code, or rename the folder"):
        code_packs.code_pack("other-code")


def test_a_code_that_is_not_installed_stands_in_its_field_and_is_not_judged(demo):
    demo.document.edit(with_at(demo.wps, "header/codes", ("yard-code",)), "Code")
    demo.press("Ctrl+J")
    demo.settle()
    (field,) = (each for each in demo.shell.findChildren(ChoiceField) if each.path == "header/code")
    assert (field.currentText(), field.currentData()) == ("yard-code", "yard-code")
    assert demo.desk.assessment().judgement is None
    assert demo.desk.assessment().missing == "no yard-code"
