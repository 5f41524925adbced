"""The Heat place: lines dragged and stepped, what governs taken, waits worked out, a purge planned."""

import time

import pytest

from anlage.core.drawing import Text
from anlage.ui.places.heat.leaves import LEAVES


@pytest.fixture
def heat(demo):
    """Someone at the Heat place of the first procedure."""
    demo.press("Alt+H")
    return demo


def pane(person, view):
    person.place.views.show_view(view)
    person.settle()
    return person.place.views.view(view)


def wait_for(person, done, seconds=20.0):
    end = time.monotonic() + seconds
    while not done() and time.monotonic() < end:
        person.settle()
        time.sleep(0.02)
    assert done()


def test_every_leaf_of_it_is_found_in_its_view(heat):
    for path in LEAVES:
        heat.desk.go_to(path)
        heat.settle()
        assert heat.focus() is heat.place.views.front().fields[path], path


def test_the_least_preheat_is_stepped_dragged_and_typed_in_the_picture(heat):
    view = pane(heat, "preheat").picture
    view.setFocus()
    heat.settle()
    before = heat.wps.preheat.minimum_c
    where = heat.handle(view, "preheat/minimum_c")
    view.presenter.step("preheat/minimum_c", 2)
    heat.settle()
    assert heat.wps.preheat.minimum_c == before + 10
    view.presenter.take("preheat/minimum_c", (where.x(), where.y()))
    axis = view.presenter._axis
    view.presenter.drag((axis.at(123.0), 0.0), fine=False)
    assert heat.wps.preheat.minimum_c == 125
    view.presenter.drag((axis.at(123.4), 0.0), fine=True)
    assert heat.wps.preheat.minimum_c == 123
    view.presenter.release()
    heat.press("Ctrl+Z")
    assert heat.wps.preheat.minimum_c == before + 10
    assert "Preheat" in view.presenter.describe("preheat/minimum_c")
    assert view.presenter.svg().startswith("<?xml") or view.presenter.svg().startswith("<svg")


def test_what_governs_is_taken_with_its_reason(heat):
    shown = pane(heat, "preheat")
    for path, text in (("preheat/minimum_c", "60"), ("preheat/reason", "")):
        heat.document.type_text(path, text)
    heat.settle()
    assert shown.verdict.mark.verdict == "unproven"
    heat.press("Ctrl+Shift+G")
    heat.settle()
    assert heat.wps.preheat.minimum_c == 110
    assert heat.wps.preheat.reason == "AWS D1.1 hydrogen control: group D, medium restraint; in 22 mm"
    assert shown.verdict.mark.verdict == "inside"
    assert "Crayons never inside the groove" in shown.crayons.text()
    items = shown.places.placed.picture.items
    assert any("must melt" in item.text for item in items if isinstance(item, Text))
    heat.document.type_text("preheat/hydrogen", "")
    heat.settle()
    assert (shown.verdict.mark.verdict, "which nothing shows" in shown.verdict.text.text()) == ("unproven", True)


def test_the_curves_are_there_where_a_school_speaks(heat):
    shown = pane(heat, "preheat")
    assert not shown.curves.isHidden()
    assert all(view.placed is not None for view in shown.over.values())
    heat.document.type_text("metals/one/certificate", "")
    heat.document.type_text("metals/one/name", "A240-316L")
    heat.settle()
    assert shown.curves.isHidden()


def test_hydrogen_and_certificate_change_what_is_asked_as_they_are_typed(heat):
    shown = pane(heat, "preheat")
    before = shown.verdict.text.text()
    heat.desk.go_to("preheat/hydrogen")
    heat.fill("H4")
    assert heat.wps.preheat.hydrogen == "H4"
    assert shown.verdict.text.text() != before
    heat.desk.go_to("preheat/hydrogen")
    heat.fill("lots")
    assert "preheat/hydrogen" in heat.document.working.pending
    assert heat.wps.preheat.hydrogen == "H4"


def test_the_sequence_says_what_is_missing_then_how_long_to_wait(heat):
    entries = {entry.number: entry.id for entry in heat.desk.works.all_entries()}
    heat.desk.open_document(entries["OST-W-02"])
    heat.document.type_text("piece/half_width_mm", "")
    heat.press("Alt+H")
    shown = pane(heat, "sequence")
    assert "how wide the piece is" in shown.total.text()
    heat.desk.go_to("piece/half_width_mm")
    heat.fill("150")
    wait_for(heat, lambda: shown.waits is not None and not shown.is_running)
    assert shown.headline.text().startswith("Wait up to")
    assert "First arc to last" in shown.total.text()
    assert [label.text() for label in shown._cells[5:7]] == ["1", "none"]
    assert shown.picture.placed is not None
    heat.document.type_text("piece/half_width_mm", "")
    heat.settle()
    assert shown.waits is None
    assert shown.headline.text() == "Not run yet."


def test_an_edit_meanwhile_gives_the_answer_of_the_newer_one(heat):
    entries = {entry.number: entry.id for entry in heat.desk.works.all_entries()}
    heat.desk.open_document(entries["OST-W-02"])
    heat.document.type_text("piece/half_width_mm", "")
    heat.press("Alt+H")
    shown = pane(heat, "sequence")
    heat.document.type_text("piece/half_width_mm", "150")
    wait_for(heat, lambda: shown.waits is not None and not shown.is_running)
    first = shown.waits
    heat.document.type_text("preheat/interpass_maximum_c", "150")
    assert shown.is_running
    assert not shown._cells[4].isEnabled()
    wait_for(heat, lambda: not shown.is_running)
    assert shown.waits is not first
    assert shown.waits.passes[1].wait_s.high > first.passes[1].wait_s.high


def test_a_purge_is_planned_while_it_is_typed(heat):
    entries = {entry.number: entry.id for entry in heat.desk.works.all_entries()}
    heat.desk.open_document(entries["OST-W-02"])
    heat.press("Alt+H")
    shown = pane(heat, "purge")
    assert shown.missing.isVisible()
    for path, text in (("purge/length_mm", "400"), ("purge/flow_l_min", "10"), ("purge/target_ppm", "50")):
        heat.desk.go_to(path)
        heat.fill(text)
    assert not shown.missing.isVisible()
    assert [cells[1].text() for cells in shown._cells[:2]] == ["5.16 l", "4.4 to 8.7 min"]
    assert "nobody enters a pit" in shown.cautions.text()
    assert shown.picture.placed is not None


def test_what_is_asked_after_the_last_pass_is_taken_dragged_and_stepped(heat):
    entries = {entry.number: entry.id for entry in heat.desk.works.all_entries()}
    heat.desk.open_document(entries["OST-W-05"])
    heat.press("Alt+H")
    shown = pane(heat, "after")
    for path, text in (("header/construction_code", "b31.3"), ("range/thickness_mm", "5..40")):
        heat.document.type_text(path, text)
    heat.settle()
    assert not shown.take.isHidden()
    shown.take.click()
    heat.settle()
    taken = heat.wps.pwht
    assert (taken.kind, taken.temperature_c.low, taken.time_h.low) == ("below-ltt", 675, 1.75)
    said = [line for line in shown.lines if not line.isHidden()]
    assert {line.mark.verdict for line in said if not line.text.text().startswith("How fast")} == {"inside"}
    presenter, view = shown.picture.presenter, shown.picture
    view.setFocus()
    heat.settle()
    where = heat.handle(view, "pwht/time_h")
    presenter.take("pwht/time_h", (where.x(), where.y()))
    end = presenter._end_of_hold()
    presenter.drag(presenter._axes.at((end + 1.0, 700.0)), fine=False)
    assert heat.wps.pwht.time_h.low == 2.75
    presenter.release()
    presenter.take("pwht/temperature_c", (0.0, 0.0))
    middle = (taken.temperature_c.low + taken.temperature_c.high) / 2
    presenter.drag(presenter._axes.at((0.0, middle + 51.0)), fine=True)
    presenter.release()
    assert heat.wps.pwht.temperature_c.low == 726
    assert heat.wps.pwht.temperature_c.high - 726 == taken.temperature_c.high - 675
    assert "outside" in {line.mark.verdict for line in shown.lines if not line.isHidden()}
    presenter.step("pwht/temperature_c", -10)
    assert heat.wps.pwht.temperature_c.low == 680
    heat.press("Ctrl+Z", "Ctrl+Z")
    assert heat.wps.pwht.temperature_c == taken.temperature_c
    assert presenter.describe("pwht/time_h").startswith("Heat treatment for")
    assert "<svg" in presenter.svg()


def test_moment_and_probe_are_dragged_stepped_and_leave_the_document_alone(heat):
    entries = {entry.number: entry.id for entry in heat.desk.works.all_entries()}
    heat.desk.open_document(entries["OST-W-02"])
    heat.press("Alt+H")
    shown = pane(heat, "sequence")
    wait_for(heat, lambda: shown.waits is not None and not shown.is_running)
    before, look = heat.wps, shown.look
    curve, section = shown.picture.presenter, shown.section.presenter
    heat.handle(shown.picture, "moment")
    end = look.at.time_s
    curve.take("moment", (0.0, 0.0))
    curve.drag((0.0, 0.0), fine=False)
    curve.release()
    assert look.at.time_s == 0.0
    curve.step("moment", 50)
    assert look.at.time_s == pytest.approx(end / 2)
    x, y = look.at.probe_mm
    section.step("probe", 3)
    assert look.at.probe_mm == pytest.approx((x + 3, y))
    heat.handle(shown.section, "probe")
    section.take("probe", look.at.probe_mm)
    section.drag((1e4, 2.0), fine=False)
    section.release()
    assert look.at.probe_mm[0] < 100
    assert section.describe("probe").startswith("Probe")
    assert curve.describe("moment").startswith("Moment")
    assert heat.wps is before
    heat.document.type_text("piece/half_width_mm", "")
    heat.settle()
    assert shown.section.isHidden()
    assert look.at is None
