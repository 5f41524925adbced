"""A new user's ways through the real window: a procedure from nothing and back, and from a record to the sheet."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QFileDialog

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


SETTINGS = (("95..115", "10..12", "60..80 mm/min"), ("110..130", "22..25", "90..130 mm/min"))
SCREENS = [
    {"width": 1280, "height": 800, "theme": "light", "units": "si"},
    {"width": 1024, "height": 700, "theme": "dark", "units": "us"},
]


@pytest.fixture(params=SCREENS, ids=lambda each: f"{each['width']}-{each['theme']}-{each['units']}")
def at_a_screen(request, open_person, tmp_path):
    """Someone at a new works file, at each size, theme and unit system."""
    return open_person(tmp_path / "works.anlage", **request.param)


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
    again = open_person(path, **person.kept[-1]._asdict())
    assert again.wps.header.number == number
    assert again.wps == done.value
    assert again.desk.place == "passes"


def test_by_keyboard_alone(at_a_screen, open_person, tmp_path):
    person = at_a_screen
    person.press("Ctrl+N", "Alt+J")
    assert person.wps.header.number == "WPS-002"
    # The keyboard stands at the first preparation; the second is the single-V. Then: one side, and the product.
    person.press("Right", "Tab", "Tab")
    person.type("p")  # a list takes the first letter
    person.press("Tab")
    for text in ("14 mm", "", "", "3 mm", "", "", "1.5 mm", "", "", "60"):
        person.fill(text)
    assert stated(person.wps) | {"passes": WANTED["passes"]} == WANTED
    person.press("Alt+P", "Ctrl+Return")
    for role, current, volts, speed in (("r", *SETTINGS[0]), ("f", *SETTINGS[1])):
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


def test_by_mouse(at_a_screen, open_person, tmp_path):
    person = at_a_screen
    person.desk.go("joint")
    column = person.place.column
    person.click(column.chooser.button("single-v"))
    assert person.wps.joint.kind == "single-v"
    column.fields["joint/product"].activated.emit(1)  # the list's own window opens in no place on a screen
    column.fields["joint/product"].setCurrentIndex(1)
    view = person.place.section
    # A picture's proportions are no values: the first drag states the dimension.
    assert person.wps.joint.thickness_mm is None
    person.drag(view, "joint/thickness_mm", (0.0, 2.0))
    step = 25.4 / 32 if person.shell.reader.system == "us" else 0.5
    assert person.wps.joint.thickness_mm == pytest.approx(14.0, abs=step / 2)  # 12 mm drawn, on a whole step
    person.drag(view, "joint/root_opening_mm", (1.0, 0.0))
    assert person.wps.joint.root_opening_mm.nominal == pytest.approx(5.5, abs=step / 2)  # 3.5 drawn, both sides move
    for path, text in (
        ("joint/thickness_mm", "14 mm"), ("joint/root_opening_mm", "3 mm"), ("joint/root_face_mm", "1.5 mm"),
        ("joint/groove_angle_deg", "60"),
    ):  # fmt: skip
        rect = view.placed.value_rect(path)
        QTest.mouseDClick(view, Qt.MouseButton.LeftButton, pos=rect.center().toPoint())
        person.type(text)
        person.press("Return")
    assert stated(person.wps) | {"passes": WANTED["passes"]} == WANTED
    person.click(person.shell.places.buttons["passes"])
    passes = person.place
    for role, current, volts, speed in ((1, *SETTINGS[0]), (3, *SETTINGS[1])):
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


# From a record to the sheet, by keyboard alone -----------------------------------------------

RECORD = {
    "Code": "as", "Impact results": "t", "Base metal": "A516-70", "Product": "pl", "Thickness": "16",
    "Preheat measured": "85", "Interpass measured": "230", "Heat treatment": "none", "Position": "1G",
    "Progression": "n", "Passes a side": "m", "Bead": "s",
}  # fmt: skip
PROCEDURE = {
    "Code": "as", "Base metal": "A516-70", "Thickness range": "6..22", "Preheat, least": "20", "Interpass, most": "230",
    "Impact tests": "n", "Kept after welding": "none", "Heat treatment": "none", "Position": "1G", "Progression": "n",
    "Passes a side": "m", "Bead": "s", "Cleaning": "brush", "Back gouging": "none", "Backing": "none",
    "Retainers": "none",
}  # fmt: skip


def state(person, label, text):
    """Find a field by its name, and type into it."""
    person.press("Ctrl+K")
    person.type(label)
    names = [person.desk.palette.list.item(n).text() for n in range(person.desk.palette.list.count())]
    for _ in range(names.index(label)):
        person.press("Down")
    person.press("Return")
    person.type(text)
    person.press("Tab")


def enter_record(person):
    """A record with its deposit and its tests, each field by its name or in the order of the keyboard."""
    person.press("Ctrl+N", "Ctrl+Shift+R")
    for label, text in RECORD.items():
        state(person, label, text)
    person.press("Ctrl+Shift+Return")
    # Through the card of the deposit: process, filler, size, thickness, thickest pass, current, gases, operation.
    for text in ("S", "E7018", "3.2", "16", "3.4", "DCEP", "", "none", "none", "", "m"):
        person.fill(text)
    assert "results not recorded" in person.place.state.text()
    for kind, count in (("t", "2"), ("s", "4")):
        person.press("Ctrl+Return")
        for text in (kind, count, "", "", "p"):
            person.fill(text)
    record = person.document.value
    assert [(each.kind, each.count, each.passed) for each in record.results] == [
        ("tension", 2, True), ("side bend", 4, True),
    ]  # fmt: skip
    assert person.place.state.text() == "Accepted."
    assert (record.deposits[0].process, record.deposits[0].operation) == ("SMAW", "manual")


def test_from_a_record_to_the_sheet_by_keyboard_alone(person, tmp_path, monkeypatch):
    enter_record(person)

    person.press("Alt+J", "Right", "Tab", "Tab")
    assert person.wps.header.number == "WPS-002"
    for text in ("pl", "6", "", "", "3", "", "", "1.5", "", "", "60"):
        person.fill(text)
    for label, text in PROCEDURE.items():
        state(person, label, text)
    person.press("Alt+P", "Ctrl+Shift+Return")
    for text in ("S", "E7018", "3.2", "DCEP"):
        person.fill(text)
    person.press("Alt+P", "Right", "Right")
    for text in ("110..130", "22..25", "90..130"):
        person.type(text)
        person.press("Return", "Right")

    person.press("Alt+R")
    ladder = person.place.model
    for variable, text in (("deposit_thickness_mm", "0..6"), ("operation", "m"), ("pass_thickness_mm", "3")):
        # Down the ladder to what the cards do not hold, and into the field beside it.
        wanted = next(n for n, line in enumerate(ladder.lines) if line.is_problem and line.rung.variable == variable)
        person.press("Home", *["Down"] * (wanted + 1), "Return")  # under the head of the problems
        person.type(text)
        person.press("Alt+R")
    problems = {line.rung.variable: line.reason for line in ladder.lines if line.is_problem}
    assert "one is laid" in problems["runs"], "one pass does not make a joint of several"
    person.press("Alt+P", "Ctrl+D", "Alt+R")
    assert [(line.rung.id, line.rung.verdict) for line in ladder.lines if line.is_problem] == [
        ("preheat_c", "outside"), ("peening", "unproven"),
    ]  # fmt: skip
    for text in ("80", "none"):
        person.press("F7", "Return")
        person.type(text)
        person.press("Alt+R")
    assert not any(line.is_problem for line in ladder.lines)

    person.press("Alt+S")
    person.find("issue revision")
    person.fill("A. Author")  # then what changed, for a first one nothing; then not now, and issue
    person.press("Tab", "Tab", "Space")
    assert person.place.state.text().startswith("Revision 1, issued ")
    target = tmp_path / "sheet.pdf"
    monkeypatch.setattr(QFileDialog, "getSaveFileName", lambda *_: (str(target), ""))
    person.press("Ctrl+E")
    assert target.read_bytes().startswith(b"%PDF-")
