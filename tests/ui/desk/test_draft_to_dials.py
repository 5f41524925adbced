"""A new user's way: a new procedure drafted for a fixed pipe, stood otherwise, filled anew, set on a machine's dial."""

from PySide6.QtCore import Qt

from anlage.ui.places.passes.model import MARK

CURRENT = 2


def calibrate(person):
    """Make a machine with two readings of a tap, key by key."""
    person.press("Ctrl+Shift+M")
    for dial, amps in (("2", "60"), ("9", "160")):
        person.press("Ctrl+Return")
        own = person.document.value.readings[-1].id
        for leaf, text in (("tap", "B"), ("dial", dial), ("current_a", amps), ("meter", "K-2"), ("day", "2026-11-02")):
            person.place.fields[f"readings/{own}/{leaf}"].setFocus()
            person.fill(text)
    assert "machine, 1 of 1 taps in date" in person.desk.shell.band.state.text()


def test_from_a_draft_to_the_dial(person):
    person.press("Alt+B")
    for path, text in (("metals/one/name", "A106-B"), ("joint/product", "pipe"), ("technique/position", "5G"),
                       ("header/code", "asme-ix")):  # fmt: skip
        person.document.type_text(path, text)
    person.settle()

    person.press("Ctrl+Shift+J")
    dialog = person.place.draft_dialog
    assert not dialog.take_button.isEnabled()
    assert "The thickness is not stated" in dialog.said.text()
    dialog.size_line.setFocus()
    person.type("5 sch 40")
    dialog.ways.setCurrentText("GTAW, then SMAW")
    rows = [dialog.comparison.table.item(row, 0).text() for row in range(dialog.comparison.table.rowCount())]
    assert {"Groove angle", "Root opening", "Filler of the GTAW deposit", "Filler of the SMAW deposit"} <= set(rows)
    before = person.wps
    person.click(dialog.take_button)
    assert person.wps is not before
    assert [each.filler for each in person.wps.deposits] == ["ER70S-2", "E7018"]
    assert not person.place.draft_button.isVisible()

    uphill = {each.id: each for each in person.wps.passes}
    root = person.wps.passes[0]
    tops = {each.reach: each.current_a for each in person.wps.sectors if each.of == root.id}
    assert tops["9 to 12, 12 to 3"].high == tops["3 to 9"].high - 10

    person.press("Alt+P")
    assert person.place.table.own_model.index(0, CURRENT).data(MARK) == "proposed"
    person.document.type_text("technique/position", "1G")
    person.settle()
    assert "proposed for another position, process or filler; fill the joint anew" in person.place.fill.text()
    person.press("Ctrl+Shift+F")
    dialog = person.place.fill_dialog
    changed = [dialog.comparison.table.item(row, 0).text() for row in range(dialog.comparison.table.rowCount())]
    assert any(each.endswith("travel speed") for each in changed)
    assert "1G" in dialog.said.text()
    person.click(dialog.take_button)
    flat = person.wps.passes
    assert [each.travel_speed_mm_min for each in flat] != [each.travel_speed_mm_min for each in uphill.values()]
    assert not person.wps.sectors
    assert person.wps.technique.progression is None
    assert "another position" not in person.place.fill.text()

    number = person.document.document_id
    calibrate(person)
    person.desk.open_document(number)
    person.desk.go("passes")
    person.place.views.show_view("sectors")
    view = person.place.views.front()
    person.place.selection.choose(flat[0].id)
    person.settle()
    assert view.dials.text().startswith("M-1 tap B dial ")
    person.place.table.setFocus(Qt.FocusReason.OtherFocusReason)
    person.press("Ctrl+Shift+Y")
    assert not [path for path in person.wps.proposed if path.startswith("passes/")]
