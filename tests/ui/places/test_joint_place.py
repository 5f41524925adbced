"""The Joint place: what is typed and dragged, what is marked, what is never lost."""

import time

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from anlage.core.drawing import Text


def fields(person):
    return person.place.column.fields


def joint(person):
    return person.wps.joint


def type_into(person, path, text):
    fields(person)[path].setFocus()
    person.fill(text)


@pytest.fixture
def drawn(person):
    """Someone at a single-V of 14 mm."""
    person.click(person.place.column.chooser.button("single-v"))
    for path, text in (
        ("thickness_mm", "14"),
        ("root_opening_mm", "3"),
        ("root_face_mm", "1.5"),
        ("groove_angle_deg", "60"),
    ):
        type_into(person, f"joint/{path}", text)
    return person


def test_the_joint_of_a_new_procedure_says_what_to_do_first(person):
    assert person.place.section.placed is None
    assert "Choose a preparation" in person.place.section.presenter.empty_text()
    assert person.focus() is person.place.column.chooser.buttons[0]


def test_a_chosen_preparation_is_drawn_before_anything_is_stated_and_states_nothing(person):
    person.click(person.place.column.chooser.button("single-v"))
    texts = [i for i in person.place.section.placed.picture.items if isinstance(i, Text)]
    assert {item.role for item in texts} == {"unstated"}
    assert {item.text for item in texts} >= {"thickness", "root opening", "root face", "groove angle"}
    assert joint(person).thickness_mm is None
    assert [figure[2].text() for figure in person.place.figures.labels] == ["–"] * 4


def test_figures_follow_every_key(drawn):
    assert drawn.place.figures.labels[0][2].text().startswith("132.2")  # worked by hand: 14·3 + 12.5²·tan 30°
    drawn.press("Shift+Tab", "Shift+Tab")
    fields(drawn)["joint/root_opening_mm"].setFocus()
    drawn.press("Up")
    assert drawn.place.figures.labels[0][2].text().startswith("139.2")


def test_handles_are_walked_by_tab_and_stepped_by_arrow_keys(drawn):
    view = drawn.place.section
    view.setFocus(Qt.FocusReason.TabFocusReason)
    assert view.held == "joint/root_opening_mm"
    drawn.press("Right", "Right", "Down")
    assert joint(drawn).root_opening_mm.nominal == 3.5
    assert "3.5" in view.accessibleDescription()
    drawn.press("Ctrl+Z")  # one visit of the handle is one step
    assert joint(drawn).root_opening_mm.nominal == 3
    drawn.press("Tab")
    assert view.held == "joint/thickness_mm"
    drawn.press("PageUp")
    assert joint(drawn).thickness_mm == 16.5
    for _ in range(len(view.placed.handles())):
        drawn.press("Tab")
    assert drawn.focus() is not view


def test_a_digit_on_a_handle_types_the_value_where_it_stands(drawn):
    view = drawn.place.section
    view.setFocus(Qt.FocusReason.TabFocusReason)
    drawn.press("Tab")
    drawn.type("18")
    drawn.press("Return")
    assert joint(drawn).thickness_mm == 18
    assert drawn.focus() is view
    drawn.press("Return")
    drawn.type("99")
    drawn.press("Escape")
    assert joint(drawn).thickness_mm == 18


@pytest.mark.parametrize(
    ("target", "work", "read", "after"),
    [
        ("joint/thickness_mm", (0.0, 3.2), lambda j: j.thickness_mm, 17.0),
        ("joint/root_face_mm", (0.0, 0.6), lambda j: j.root_face_mm.nominal, 2.0),
        ("joint/root_opening_mm", (0.55, 0.0), lambda j: j.root_opening_mm.nominal, 4.0),
        ("joint/reinforcement_mm", (0.0, 1.9), lambda j: j.reinforcement_mm.nominal, 2.0),
    ],
)
def test_a_drag_moves_a_dimension_by_whole_steps_and_is_one_undo_step(drawn, target, work, read, after):
    before, steps = drawn.wps, drawn.document.undo_stack.count()
    drawn.drag(drawn.place.section, target, work)
    assert read(joint(drawn)) == pytest.approx(after)
    assert drawn.document.undo_stack.count() == steps + 1
    drawn.press("Ctrl+Z")
    assert drawn.wps is before


def test_a_fine_drag_leaves_the_steps(drawn):
    drawn.drag(drawn.place.section, "joint/thickness_mm", (0.0, 3.2), fine=True)
    assert joint(drawn).thickness_mm == pytest.approx(17.2, abs=0.01)


def test_the_angle_follows_the_pointer(drawn):
    drawn.drag(drawn.place.section, "joint/groove_angle_deg", (2.0, -1.0))
    assert joint(drawn).groove_angle_deg.nominal > 60
    assert joint(drawn).groove_angle_deg.nominal % 2.5 == pytest.approx(0)


def test_a_drag_stops_where_the_joint_ends(drawn):
    drawn.drag(drawn.place.section, "joint/root_face_mm", (0.0, 40.0))
    assert joint(drawn).root_face_mm.nominal < 14
    drawn.drag(drawn.place.section, "joint/root_opening_mm", (-40.0, 0.0))
    assert joint(drawn).root_opening_mm.nominal == 0


def test_values_that_clash_are_kept_marked_at_both_and_dim_the_last_good_picture(drawn):
    type_into(drawn, "joint/root_face_mm", "2")
    good = drawn.place.section.placed.picture
    fields(drawn)["joint/root_face_mm"].setFocus()
    drawn.press("End")
    drawn.type("0")
    assert joint(drawn).root_face_mm.nominal == 20
    for path in ("joint/root_face_mm", "joint/thickness_mm"):
        assert fields(drawn)[path].property("mark") == "clash"
        assert "is not less than the thickness" in fields(drawn)[path].toolTip()
    assert drawn.place.section.presenter.is_stale()
    assert drawn.place.section.placed.picture is good
    assert drawn.place.figures.labels[0][2].text() == "–"
    drawn.press("Tab")
    type_into(drawn, "joint/root_face_mm", "2")
    assert fields(drawn)["joint/thickness_mm"].property("mark") == ""


def test_text_that_does_not_parse_stays_in_its_field_and_survives_closing(drawn, open_person, tmp_path):
    type_into(drawn, "joint/thickness_mm", "14 furlongs")
    assert fields(drawn)["joint/thickness_mm"].text() == "14 furlongs"
    assert fields(drawn)["joint/thickness_mm"].property("mark") == "pending"
    drawn.press("Alt+P", "Alt+J")
    assert fields(drawn)["joint/thickness_mm"].text() == "14 furlongs"
    assert joint(drawn).thickness_mm == 14
    drawn.shell.close()
    again = open_person(tmp_path / "works.anlage")
    assert fields(again)["joint/thickness_mm"].text() == "14 furlongs"
    assert fields(again)["joint/thickness_mm"].property("mark") == "pending"


def test_escape_takes_back_what_was_typed_in_this_visit(drawn):
    fields(drawn)["joint/thickness_mm"].setFocus()
    drawn.type("999")
    drawn.press("Escape")
    assert joint(drawn).thickness_mm == 14


def test_units_can_be_switched_at_any_moment(drawn):
    drawn.desk.run("units")
    assert fields(drawn)["joint/thickness_mm"].text() == "0.551"
    type_into(drawn, "joint/thickness_mm", "9/16")
    assert joint(drawn).thickness_mm == pytest.approx(14.2875)
    drawn.desk.run("units")
    assert fields(drawn)["joint/thickness_mm"].text() == "14.29"
    assert joint(drawn).thickness_mm == pytest.approx(14.2875)


def test_a_pipe_is_stated_by_its_nominal_size_in_one_step(drawn):
    place = drawn.place.column
    place.fields["joint/product"].activated.emit(2)
    assert all(not widget.isHidden() for widget in place.rows["od_mm"])
    steps = drawn.document.undo_stack.count()
    size = place.rows["od_mm"][-1]
    size.setFocus()
    drawn.fill("5 sch 40")
    assert (joint(drawn).od_mm, joint(drawn).thickness_mm) == (141.3, 6.55)
    assert drawn.document.undo_stack.count() == steps + 1


def test_a_square_joint_shows_no_angle_and_keeps_the_one_that_was_typed(drawn):
    drawn.click(drawn.place.column.chooser.button("square"))
    assert all(widget.isHidden() for widget in drawn.place.column.rows["groove_angle_deg"])
    assert drawn.place.figures.labels[0][2].text().startswith("42")
    drawn.click(drawn.place.column.chooser.button("single-v"))
    assert joint(drawn).groove_angle_deg.nominal == 60


def test_tolerances_draw_ghosts_and_give_both_ends(demo):
    roles = [item.role for item in demo.place.section.placed.picture.items]
    assert roles.count("ghost") == 2
    tight, wide = (cell.text() for cell in demo.place.column.fit.cells[0][1:])
    assert float(tight.split("\u2009")[0]) < 211.2 < float(wide.split("\u2009")[0])


def test_a_picture_goes_to_the_clipboard_as_svg(demo, qapp):
    demo.place.section.copy_svg()
    assert qapp.clipboard().text().startswith("<svg")


def test_a_drawing_that_is_near_follows_the_keyboard_and_another_kind_is_seen_whole(drawn):
    view = drawn.place.section
    whole = view.placed.picture.scale
    view.setFocus()
    QTest.keyClicks(view, "++++++")
    assert view.placed.picture.scale > 3 * whole
    seen = []
    for _ in view.placed.handles():
        drawn.press("Tab")
        at = view.placed.handle_position(view.held)
        seen.append(view.rect().contains(at.toPoint()))
    assert all(seen)
    drawn.click(drawn.place.column.chooser.button("square"))
    assert view.lens.zoom is None


def test_the_waits_of_the_section_count_in_the_elapsed_time(demo):
    entries = {entry.number: entry.id for entry in demo.desk.works.all_entries()}
    demo.desk.open_document(entries["OST-W-02"])
    demo.desk.keep(rates={})
    demo.document.type_text("piece/half_width_mm", "141")
    demo.press("Alt+J")
    demo.place.views.show_view("takes")
    shown = demo.place.views.view("takes")
    shown.refresh()
    before = shown.text()
    end = time.monotonic() + 30
    while shown.runs.is_due and time.monotonic() < end:
        demo.settle()
        time.sleep(0.02)
    demo.settle()
    after = shown.text()
    assert before != after
    elapsed = [next(line for line in text.splitlines() if line.startswith("Elapsed")) for text in (before, after)]
    minutes = [float(line.split(": ")[1].split()[0]) for line in elapsed]
    assert minutes[1] > minutes[0]


def test_how_the_finished_weld_may_look_stands_under_the_dimensions(demo):
    demo.document.type_text("header/construction_code", "")
    demo.press("Alt+J")
    labels = demo.place.column.finish

    def shown():
        demo.settle()
        return [label.text().replace("\u2009", " ") for label in labels if label.isVisibleTo(demo.place)]

    demo.document.type_text("joint/reinforcement_mm", "1.6")
    assert shown() == ["Cap, root, undercut and offset: contract: not stated."]
    demo.document.type_text("header/construction_code", "iso-5817-c")
    told = shown()
    assert told[0].startswith("Cap ≤ ")
    assert any("undercut" in each.lower() and "at inspection (501)" in each for each in told)
    assert labels[0].property("tone") == "muted"
    demo.document.type_text("joint/reinforcement_mm", "6")
    assert "outside" in shown()[0]
    assert labels[0].property("tone") == "outside"
    assert labels[-1].property("tone") == "muted"
