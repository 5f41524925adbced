"""A new user's way by keyboard alone: a Cr-Mo pipe from nothing, its coupon, its record, the issued sheet as PDF."""

import pytest
from PySide6.QtWidgets import QFileDialog

from anlage.session.leaves.table import field_of

JOB = ("SA-335 P11", "", "g", "pi", "5..16", ">= 60.3", "6G", "u", "as", "", "", "n", "n", "n", "150", "300", "none",
       "b", "690..720", "1..2", "", "brush each bead", "", "", "m", "s", "none", "none", "none", "none",
       "none")  # fmt: skip
ROOT = ("G", "ER80S-B2", "2.4", "DCEN", "Ar", "8..14", "Ar", "5..8")
FILL = ("S", "E8018-B2", "3.2", "DCEP")
# What the coupon is found to be, by leaf; a deposit by its place.
FOUND = {
    "welded_on": "2026-10-02", "toughness_tested": "t", "preheat_least_c": "155", "interpass_most_c": "290",
    "pwht/temperature_c": "705", "pwht/time_h": "1.5",
    "deposits/0/filler_diameter_mm": "2.4", "deposits/0/thickness_mm": "4", "deposits/0/max_pass_thickness_mm": "2.2",
    "deposits/0/trailing_gas": "none", "deposits/0/operation": "m",
    "deposits/1/filler_diameter_mm": "3.2", "deposits/1/thickness_mm": "4.5",
    "deposits/1/max_pass_thickness_mm": "2.9", "deposits/1/backing_gas": "none", "deposits/1/trailing_gas": "none",
    "deposits/1/shielding_gas": "none", "deposits/1/operation": "m",
}  # fmt: skip
TESTS = (("t", "2"), ("f", "2"), ("r", "2"))
# What mends a rung, by the last part of the leaf that it leads to.
MENDS = {
    "operation": "m", "trailing_gas": "none", "thickness_mm": None, "consumable_insert": "none", "cup_size_mm": "9.5",
    "tungsten": "EWLa-1.5, 2.4 mm", "penetration_flux": "none", "closed_chamber": "none", "pulsing": "none",
    "oscillation": "none", "electrodes": "single", "electrode_spacing": "none", "backing_gas": "none",
    "shielding_gas": "none", "travel_speed_mm_min": "70..110", "current_a": "90..120", "voltage_v": "10..13",
    "transfer_mode": "none", "peening": "none", "cleaning": "brush", "retainers": "none", "backing": "none",
    "back_gouging": "none", "thermal_preparation": "machined", "waveform": "n", "bead_technique": "s",
    "filler_diameter_mm": "3.2", "gas_flow_l_min": "8..14", "backing_flow_l_min": "5..8", "time_h": "1..1.8",
}  # fmt: skip


def tab_to(person, path):
    """Walk by Tab until the field of a leaf has the keyboard."""
    for _ in range(300):
        if getattr(person.focus(), "path", "") == path:
            return
        person.press("Tab")
    raise AssertionError(f"Tab never came to {path}")


def write_coupon(person):
    """State what was welded and measured, by Tab through the form."""
    deposits = person.document.value.deposits
    for own, text in FOUND.items():
        path = own
        if own.startswith("deposits/"):
            _, place, leaf = own.split("/")
            path = f"deposits/{deposits[int(place)].id}/{leaf}"
        tab_to(person, path)
        if field_of(path).shape != "choice":
            person.press("Ctrl+A")
        person.fill(text)
    for kind, count in TESTS:
        person.press("Ctrl+Return")
        for text in (kind, count, "", "", "p"):
            person.fill(text)


def mend_all(person):
    """Go from problem to problem by F7 and type what mends each."""
    deposits = [each.id for each in person.wps.deposits]
    for _ in range(60):
        person.press("Alt+R")
        person.settle()
        problems = [line for line in person.place.model.lines if line.is_problem]
        if not problems:
            return
        person.press("F7")
        line = person.place.panel.line
        leaf = line.path.rpartition("/")[2]
        text = MENDS.get(leaf)
        if leaf == "thickness_mm":
            owner = line.path.split("/")[1]
            text = ("0..5" if owner == deposits[0] else "0..9") if line.path.startswith("deposits") else "1.5..2.2"
        assert text is not None, f"{line.path}: {line.reason}"
        person.press("Return", "Ctrl+A")
        person.type(text)
        person.press("Return")
    raise AssertionError([line.reason for line in problems])


def test_from_nothing_to_the_issued_sheet_by_keyboard_alone(newcomer, tmp_path, monkeypatch):
    person = newcomer
    person.press("Ctrl+N")
    for text in JOB:
        person.fill(text)
    assert person.wps.pwht.kind == "below-ltt"
    person.press("Alt+J", "Right", "Tab", "Tab")
    tab_to(person, "joint/thickness_mm")
    for path, text in (("joint/thickness_mm", "8.5"), ("joint/od_mm", "168.3"), ("joint/root_opening_mm", "3.2"),
                       ("joint/root_face_mm", "1.6"), ("joint/groove_angle_deg", "75")):  # fmt: skip
        tab_to(person, path)
        person.fill(text)
    for deposit in (ROOT, FILL):
        person.press("Alt+P", "Ctrl+Shift+Return")
        for text in deposit:
            person.fill(text)
    person.press("Alt+P", "Ctrl+Shift+F")
    assert len(person.wps.passes) > 3
    person.settle()
    assert person.desk.strip.parts() == [("unproven", "not judged: no record counts by this code")]
    person.press("Alt+R", "F7")
    assert person.shell.notice.text.text() == "Not judged: no record counts by this code."

    person.find("weld a coupon")
    person.settle()
    assert person.document.value.metals.one.name == "SA-335 P11"
    write_coupon(person)
    person.settle()
    assert person.place.state.text() == "Accepted."

    assert not person.shell.notice.isVisible(), "nobody is told any more that nothing is measured"
    person.press("Alt+J")
    mend_all(person)
    person.settle()
    assert {verdict for verdict, _ in person.desk.strip.parts()} == {"inside"}
    person.press("Alt+S")
    person.find("issue revision")
    person.fill("A. Author")
    person.press("Tab", "Tab", "Space")
    assert person.place.state.text().startswith("Revision 1, issued ")
    target = tmp_path / "sheet.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    person.press("Ctrl+E")
    assert target.read_bytes().startswith(b"%PDF-")
    assert b"/Author (A. Author)" in target.read_bytes()


@pytest.mark.parametrize("text", ["SA-335 P11", "A335 P11", "SA335-P11"])
def test_a_metal_is_known_by_whatever_name_the_code_has_for_it(newcomer, text):
    newcomer.fill(text)
    assert "P-No. 4, Group 1" in newcomer.place.groups.text()
