"""A new user's path through the real window: new procedure, joint, passes, undo, redo, close and open again."""

from dataclasses import asdict

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from anlage.core.procedure import Wps


def stated(wps: Wps) -> dict:
    """What a procedure says, without its number and the count of its ids."""
    joint = wps.joint
    return {
        "kind": joint.kind, "product": joint.product, "thickness": joint.thickness_mm,
        "opening": joint.root_opening_mm and joint.root_opening_mm.nominal,
        "face": joint.root_face_mm and joint.root_face_mm.nominal,
        "angle": joint.groove_angle_deg and joint.groove_angle_deg.nominal,
        "passes": [(each.role, str(each.current_a), str(each.voltage_v), str(each.travel_speed_mm_min))
                   for each in wps.passes],
    }  # fmt: skip


ROOT = ("root", "[95, 115]", "[10, 12]", "[60, 80]")
FILL = ("fill", "[110, 130]", "[22, 25]", "[90, 130]")
WANTED = {
    "kind": "single-v", "product": "plate", "thickness": 14.0, "opening": 3.0, "face": 1.5, "angle": 60.0,
    "passes": [ROOT, FILL],
}  # fmt: skip


def undo_all(person) -> int:
    steps = 0
    while person.document.undo_stack.canUndo():
        person.press("Ctrl+Z")
        steps += 1
        assert steps < 200
    return steps


def redo_all(person) -> None:
    while person.document.undo_stack.canRedo():
        person.press("Ctrl+Shift+Z")


def check_undo_redo_and_reopening(person, open_person, path):
    done = person.document.working
    first = person.document.undo_stack.command(0)
    steps = undo_all(person)
    assert steps == person.document.undo_stack.count()
    assert person.document.working is first.before
    assert stated(person.wps)["kind"] is None
    assert not person.wps.passes
    redo_all(person)
    assert person.document.working is done
    number = person.wps.header.number
    person.shell.close()
    again = open_person(path, **asdict(person.kept[-1]))
    assert again.wps.header.number == number
    assert again.wps == done.value
    assert again.bench.place == "passes"


def test_by_keyboard_alone(person, open_person, tmp_path):
    person.press("Ctrl+N")
    assert person.wps.header.number == "WPS-002"
    # The keyboard stands at the first preparation; the third is the single-V.
    person.press("Right", "Right", "Tab")
    person.type("p")  # a list takes the first letter
    person.press("Tab")
    for text in ("14", "3", "", "", "1.5", "", "", "60"):
        person.fill(text)
    assert stated(person.wps) | {"passes": WANTED["passes"]} == WANTED
    person.press("Alt+P", "Ctrl+Return")
    for role, current, volts, speed in (("r", "95..115", "10..12", "60..80"), ("f", "110..130", "22..25", "90..130")):
        person.press("F2")
        person.type(role)
        person.press("Return", "Right", "Right")
        for text in (current, volts, speed):
            person.type(text)
            person.press("Return", "Right")
        if role == "r":
            person.press("Ctrl+Return")
    assert stated(person.wps) == WANTED
    check_undo_redo_and_reopening(person, open_person, tmp_path / "works.anlage")


def test_by_mouse(person, open_person, tmp_path):
    column = person.place.column
    person.click(column.chooser.buttons[2])
    assert person.wps.joint.kind == "single-v"
    column.fields["joint/product"].activated.emit(1)  # the list's own window opens in no place on a screen
    column.fields["joint/product"].setCurrentIndex(1)
    view = person.place.section
    # A picture's proportions are no values: the first drag states the dimension.
    assert person.wps.joint.thickness_mm is None
    person.drag(view, "joint/thickness_mm", (0.0, 2.0))
    assert person.wps.joint.thickness_mm == 14.0
    person.drag(view, "joint/root_opening_mm", (1.0, 0.0))
    assert person.wps.joint.root_opening_mm.nominal == pytest.approx(5.5)  # 3.5 drawn, both sides move
    for path, text in (("joint/root_opening_mm", "3"), ("joint/root_face_mm", "1.5"), ("joint/groove_angle_deg", "60")):
        rect = view.placed.value_rect(path)
        QTest.mouseDClick(view, Qt.MouseButton.LeftButton, pos=rect.center().toPoint())
        person.type(text)
        person.press("Return")
    assert stated(person.wps) | {"passes": WANTED["passes"]} == WANTED
    person.click(person.shell.places.buttons["passes"])
    passes = person.place
    for role, current, volts, speed in ((1, "95..115", "10..12", "60..80"), (3, "110..130", "22..25", "90..130")):
        person.click(passes.tools["add"])
        row = passes.selection.row
        index = passes.table.own_model.index(row, 0)
        assert passes.table.own_model.setData(index, ("", "root", "hot", "fill")[role])
        for place, text in ((2, current), (3, volts), (4, speed)):
            rect = passes.table.visualRect(passes.table.own_model.index(row, place))
            QTest.mouseClick(passes.table.viewport(), Qt.MouseButton.LeftButton, pos=rect.center())
            QTest.mouseDClick(passes.table.viewport(), Qt.MouseButton.LeftButton, pos=rect.center())
            person.type(text)
            person.press("Return")
    assert stated(person.wps) == WANTED
    check_undo_redo_and_reopening(person, open_person, tmp_path / "works.anlage")
