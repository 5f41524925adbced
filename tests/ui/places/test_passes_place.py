"""The Passes place: table, stack and operating window show one thing and change one thing."""

import pytest
from PySide6.QtCore import QEvent, QItemSelection, QItemSelectionModel, QModelIndex, QObject, QPoint, QPointF, QRect, Qt
from PySide6.QtGui import QWheelEvent
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication, QLabel

from anlage.core.document import with_at
from anlage.core.drawing.bead_map import middle
from anlage.core.procedure import without_whole_passes
from anlage.core.ranges import Interval
from anlage.formats.font import measure
from anlage.session.leaves.many import as_tsv
from anlage.session.weld.beads import bead_layout, bead_of
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.pictures import weld_extent
from anlage.session.works.demo import demo_file
from anlage.ui.kit.place import Clocks
from anlage.ui.places.passes.model import BAR, COLUMNS, ENERGY, MARK, PassModel

ROLE, DEPOSIT, CURRENT, VOLTAGE, SPEED = 0, 1, 2, 3, 4

NOW = "2026-11-23T12:00:00Z"


@pytest.fixture
def passes(demo):
    demo.press("Alt+P")
    return demo


def at(person, row, column):
    return person.place.table.own_model.index(row, column)


def go(person, row, column):
    person.place.table.setFocus()
    person.place.table.setCurrentIndex(at(person, row, column))


def test_the_table_is_a_sound_model(passes, qtmodeltester):
    qtmodeltester.check(PassModel(passes.document))
    assert passes.place.table.own_model.rowCount(at(passes, 0, 0)) == 0


def test_rows_come_go_and_move_without_losing_what_is_chosen(passes, qtmodeltester):
    tester = PassModel(passes.document)
    qtmodeltester.check(tester)
    go(passes, 2, CURRENT)
    passes.press("Ctrl+D")
    assert passes.place.selection.row == 3
    assert str(passes.wps.passes[3].current_a) == str(passes.wps.passes[2].current_a)
    passes.press("Alt+Up", "Alt+Up")
    assert passes.place.selection.row == passes.place.table.currentIndex().row() == 1
    passes.press("Ctrl+Delete")
    assert len(passes.wps.passes) == tester.rowCount() == 11
    assert passes.place.selection.row == 1
    passes.press("Ctrl+Z", "Ctrl+Z", "Ctrl+Z", "Ctrl+Z")
    assert not passes.document.undo_stack.canUndo()
    passes.press("Ctrl+Shift+Z", "Ctrl+Shift+Z", "Ctrl+Shift+Z", "Ctrl+Shift+Z")
    assert tester.rowCount() == 11


def test_typing_on_a_cell_states_the_range_at_every_key(passes):
    go(passes, 0, CURRENT)
    passes.type("90..110")
    assert str(passes.wps.passes[0].current_a) == "[90, 110]"  # not yet left
    passes.press("Return")
    assert at(passes, 0, CURRENT).data() == "90..110"
    assert at(passes, 0, ENERGY).data().replace("\u2009", " ") == "0.68..1.32 kJ/mm"  # 900·0.06/80, 1320·0.06/60
    passes.press("Ctrl+Z")
    assert str(passes.wps.passes[0].current_a) == "[95, 115]"


def test_half_typed_text_is_marked_in_its_cell_and_the_range_stays(passes):
    go(passes, 0, CURRENT)
    passes.type("about 90")
    passes.press("Return")
    assert at(passes, 0, CURRENT).data() == "about 90"
    assert at(passes, 0, CURRENT).data(MARK) == "pending"
    assert "is not a number" in at(passes, 0, CURRENT).data(Qt.ItemDataRole.ToolTipRole)
    assert str(passes.wps.passes[0].current_a) == "[95, 115]"


def test_arrow_keys_step_the_end_under_the_cursor(passes):
    go(passes, 0, VOLTAGE)
    passes.press("F2", "Home", "Up", "End", "Up", "Up", "Return")
    assert str(passes.wps.passes[0].voltage_v) == "[10.5, 13]"


def test_a_pass_moves_to_another_deposit_by_its_name(passes):
    go(passes, 2, DEPOSIT)
    passes.press("F2")
    editor = passes.focus()
    assert [editor.itemText(n) for n in range(editor.count())] == ["GTAW ER70S-2", "SMAW E7018"]
    editor.activated.emit(0)
    assert passes.wps.passes[2].deposit == "d1"


def test_the_chosen_row_bead_and_box_are_one(passes):
    go(passes, 4, ROLE)
    chosen = passes.wps.passes[4].id
    outlines = [i.target for i in passes.place.bead_view.placed.picture.items if i.role == "chosen"]
    assert outlines == [f"passes/{chosen}"]
    assert {t.rpartition("/")[0].rpartition("/")[0] for t in passes.place.window_view.placed.handles()} == {
        f"passes/{chosen}"
    }
    assert passes.place.hero.name.text() == "Arc energy of pass 5"
    assert "coldest at" in passes.place.hero.corners.text()


def test_a_click_on_a_layer_chooses_its_pass(passes):
    view = passes.place.bead_view
    (layer,) = [
        i for i in view.placed.picture.items if i.role == "layer" and i.target == f"passes/{passes.wps.passes[5].id}"
    ]
    xs, ys = zip(*layer.points, strict=True)
    middle = view.placed.on_screen((0.8 * max(xs), (min(ys) + max(ys)) / 2))
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=middle.toPoint())
    assert passes.place.selection.row == passes.place.table.currentIndex().row() == 5


def test_the_sides_of_a_box_are_dragged_as_speed_and_its_ends_as_current(passes):
    go(passes, 0, ROLE)
    view, target = passes.place.window_view, f"passes/{passes.wps.passes[0].id}"
    plane = passes.place.window_view.presenter._plane
    passes.drag(view, f"{target}/travel_speed_mm_min/high", (plane.at(20, 0)[0], 0.0))
    assert str(passes.wps.passes[0].travel_speed_mm_min) == "[60, 100]"
    plane = passes.place.window_view.presenter._plane
    passes.drag(view, f"{target}/current_a/high", (0.0, plane.at(0, 12 * 30)[1]))
    assert str(passes.wps.passes[0].current_a) == "[95, 145]"  # the upper end holds the upper voltage
    passes.drag(view, f"{target}/current_a/low", (0.0, plane.at(0, 10 * 80)[1]))
    assert str(passes.wps.passes[0].current_a) == "[175, 175]"  # pushed along, never crossed


def test_a_box_is_stepped_by_arrow_keys(passes):
    go(passes, 0, ROLE)
    view = passes.place.window_view
    view.setFocus(Qt.FocusReason.TabFocusReason)
    assert view.held.endswith("travel_speed_mm_min/low")
    passes.press("Left", "Left")
    assert str(passes.wps.passes[0].travel_speed_mm_min) == "[50, 80]"
    assert "50..80 mm/min" in view.accessibleDescription()


def test_the_upper_edge_of_the_chosen_bead_is_its_area(passes):
    go(passes, 4, ROLE)
    chosen = passes.wps.passes[4]
    target = f"passes/{chosen.id}/bead_area_mm2"
    before = bead_of(passes.wps, chosen.id)
    passes.drag(passes.place.bead_view, target, (0.0, 1.0))
    after = passes.wps.passes[4].bead_area_mm2
    assert after.low == after.high == pytest.approx(before.area_mm2 + before.width_mm, abs=0.51)  # whole mm²
    passes.drag(passes.place.bead_view, target, (0.0, -90.0))
    assert passes.wps.passes[4].bead_area_mm2.low > 0
    passes.press("Ctrl+Z", "Ctrl+Z")
    assert passes.wps.passes[4].bead_area_mm2 is None


def test_a_bead_dropped_on_another_takes_its_place_in_the_order(passes):
    passes.press("Ctrl+Shift+F", "Return")
    view, ids = passes.place.bead_view, [each.id for each in passes.wps.passes]
    start, end = (view.placed.on_screen(middle(bead_of(passes.wps, key).outline)) for key in (ids[-1], ids[-3]))
    QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=start.toPoint())
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=end.toPoint())
    assert [each.id for each in passes.wps.passes] == [*ids[:-3], ids[-1], *ids[-3:-1]]
    assert passes.place.table.own_model.at(at(passes, len(ids) - 3, 0)).id == ids[-1]
    passes.press("Ctrl+Z")
    assert [each.id for each in passes.wps.passes] == ids


def test_filling_the_joint_writes_passes_that_fill_it_as_one_step(passes):
    before, steps = passes.wps, passes.document.undo_stack.count()
    passes.press("Ctrl+Shift+F")
    assert passes.wps is before, "it is shown before it is taken"
    passes.press("Return")
    assert passes.document.undo_stack.count() == steps + 1
    assert [each.role for each in passes.wps.passes][:2] == ["root", "hot"]
    assert passes.wps.passes[-1].role == "cap"
    found = bead_layout(passes.wps)
    assert found.laid_mm2 == pytest.approx(sum(each.room_mm2 for each in found.fillings), rel=0.03)
    assert {each.deposit for each in passes.wps.passes} == {each.id for each in before.deposits}
    passes.press("Ctrl+Z")
    assert passes.wps is before


def test_what_a_fill_changes_is_shown_old_and_new_and_escape_leaves_all(passes):
    before = passes.wps
    passes.document.type_text("passes/p3/current_a", "100..110")
    typed = passes.wps
    passes.press("Ctrl+Shift+F")
    dialog = passes.place.fill_dialog
    rows = [[dialog.comparison.table.item(row, column).text() for column in range(3)]
            for row in range(dialog.comparison.table.rowCount())]  # fmt: skip
    assert any(left != right for _, left, right in rows)
    assert f"Now: {len(before.passes)} passes" in [each.text() for each in dialog.findChildren(QLabel)]
    assert "What was typed is kept" in dialog.said.text()
    passes.press("Escape")
    assert passes.wps is typed


def test_settings_that_are_proposed_are_grey_say_why_and_are_confirmed(passes):
    bare = with_at(without_whole_passes(passes.wps), "technique/position", "3G")
    passes.document.edit(with_at(bare, "technique/progression", "uphill"), "Stand it up")
    passes.press("Ctrl+Shift+F")
    model, cell = passes.place.table.own_model, at(passes, 1, CURRENT)
    assert cell.data(MARK) == "proposed"
    assert "usual for GTAW dcen ER70S-2 2.4 mm as hot vertical up: common practice" in cell.data(
        Qt.ItemDataRole.ToolTipRole
    )
    assert "only proposed (grey)" in passes.place.fill.text()
    passes.place.selection.choose(passes.wps.passes[1].id)
    assert "× the current of the root" in passes.place.hero.corners.toolTip()
    passes.document.type_text(model.path(cell), "95..130")
    assert at(passes, 1, CURRENT).data(MARK) == ""
    passes.press("Ctrl+Shift+Y")
    assert passes.wps.proposed == {}
    assert "only proposed" not in passes.place.fill.text()
    passes.press("Ctrl+Z")
    assert len(passes.wps.proposed) > 10


def test_a_joint_that_is_not_stated_is_not_filled_and_says_why(person):
    person.press("Alt+P", "Ctrl+Shift+F")
    assert person.wps.passes == ()
    assert "not stated in full" in person.shell.notice.text.text()


def test_bars_show_where_a_range_lies_among_all_passes(passes):
    assert at(passes, 0, CURRENT).data(BAR)[0] == 0.0
    assert at(passes, 10, CURRENT).data(BAR)[1] == 1.0
    assert at(passes, 0, ROLE).data(BAR) is None


def test_a_first_pass_brings_the_first_deposit(person):
    person.press("Ctrl+Return")
    assert person.desk.place == "passes"
    assert (len(person.wps.deposits), len(person.wps.passes)) == (1, 1)
    person.press("Ctrl+Shift+Return")
    assert (len(person.wps.deposits), len(person.wps.passes)) == (2, 2)
    assert person.focus() is person.place.deposits.cards[person.wps.deposits[1].id].fields["process"]
    person.find("remove the deposit")
    assert (len(person.wps.deposits), len(person.wps.passes)) == (1, 1)
    person.press("Ctrl+Z")
    assert len(person.wps.deposits) == 2


def test_what_a_deposit_states_is_shown_in_every_row_of_it(passes):
    field = passes.place.deposits.cards["d2"].fields["filler"]
    field.setFocus()
    passes.fill("E7016")
    assert at(passes, 3, DEPOSIT).data() == at(passes, 6, DEPOSIT).data() == "SMAW E7016"


def test_without_a_drawable_joint_the_stack_says_where_to_go(person):
    person.press("Alt+P")
    assert person.place.bead_view.placed is None
    assert "state it at Joint" in person.place.bead_view.presenter.empty_text()
    assert person.place.hero.number.text() == "–"


def test_column_heads_carry_units_and_follow_them(passes):
    model = passes.place.table.own_model
    heads = [model.headerData(n, Qt.Orientation.Horizontal) for n in range(len(COLUMNS))]
    assert heads[SPEED] == "Speed, mm/min"
    passes.press("Ctrl+U")
    assert model.headerData(SPEED, Qt.Orientation.Horizontal) == "Speed, in/min"
    assert at(passes, 0, SPEED).data() == "2.4..3.1"
    assert model.data(QModelIndex()) is None


# Stopwatch -----------------------------------------------------------------------------------


class Clock:
    """Seconds that a test lets go by."""

    now = 0.0

    def __call__(self):
        return self.now


@pytest.fixture
def watch(passes):
    clock = Clock()
    passes.desk.clocks = Clocks(lambda: NOW, clock)
    go(passes, 3, SPEED)
    passes.press("F8")
    found = passes.place.stopwatch
    assert not found.isHidden()

    def run(seconds):
        found.button.setFocus()
        passes.press("Space")
        clock.now += seconds
        passes.press("Space")

    found.run = run
    return found


def test_runs_between_two_marks_are_stated_as_a_range_of_speed(passes, watch):
    passes.fill("150")
    watch.run(90)  # 100 mm/min
    watch.run(75)  # 120 mm/min
    assert "100..120" in watch.state.text()
    watch.state.setFocus()
    passes.press("Space")
    assert str(passes.wps.passes[3].travel_speed_mm_min) == "[57, 69]", (
        "what is stated is changed after a question only"
    )
    assert watch.said.text().replace("\u2009", " ") == "57..69 mm/min is stated. Replace it by 100..120 mm/min?"
    passes.press("Space")
    assert str(passes.wps.passes[3].travel_speed_mm_min) == "[100, 120]"
    assert watch.isHidden()
    assert passes.document.undo_stack.undoText() == "Travel speed of pass 4, by stopwatch"


def test_a_time_waits_for_its_way(passes, watch):
    watch.run(90)
    assert watch.runs == []
    assert "state" in watch.said.text() or "write" in watch.said.text()
    watch.way.setFocus()
    passes.fill("6 in")
    assert [round(run.speed_mm_min, 1) for run in watch.runs] == [101.6]


def test_on_a_pipe_the_way_is_told_by_the_clock(open_person, tmp_path):
    person = open_person(demo_file("2026-11-23T12:00:00Z", folder=tmp_path))
    person.desk.open_document(person.desk.works.entries()[1].id)
    person.press("Alt+P")
    clock = Clock()
    person.desk.clocks = Clocks(lambda: NOW, clock)
    person.press("F8")
    person.fill("6 to 3")
    watch = person.place.stopwatch
    watch.button.setFocus()
    person.press("Space")
    clock.now += 111.0
    person.press("Space")
    # A quarter of π · 141.3 mm is 110.98 mm.
    assert watch.runs[0].speed_mm_min == pytest.approx(60, abs=0.05)
    watch.way.setFocus()
    person.press("Escape")
    assert watch.isHidden()


def test_the_strip_of_deposits_is_as_high_as_its_cards_and_no_complaint_moves_it(person, qtbot):
    person.press("Ctrl+Return")
    strip = person.place.deposits
    (card,) = strip.cards.values()
    qtbot.waitUntil(lambda: strip.height() >= card.sizeHint().height())
    before = strip.height()
    card.fields["gas_flow_l_min"].setFocus()
    person.type("much")
    person.settle()
    assert strip.height() == before
    assert card.complaint.isVisible()


def turn_wheel(view, position, clicks):
    inverted = False  # Qt takes it by its place alone
    event = QWheelEvent(position, view.mapToGlobal(position), QPoint(), QPoint(0, 120 * clicks),
                        Qt.MouseButton.NoButton, Qt.KeyboardModifier.NoModifier, Qt.ScrollPhase.NoScrollPhase,
                        inverted)  # fmt: skip
    QApplication.sendEvent(view, event)


def test_the_wheel_goes_nearer_to_what_lies_under_it_and_home_comes_back(demo):
    demo.press("Alt+P")
    view = demo.place.bead_view
    at_first = view.placed
    ((low, high), _) = weld_extent(demo.wps, Sheet(100.0, 80.0, "si", measure))
    assert view.rect().contains(at_first.on_screen(low).toPoint())
    assert view.rect().contains(at_first.on_screen(high).toPoint())
    bead = at_first.on_screen(middle(bead_of(demo.wps, demo.wps.passes[4].id).outline))
    work = at_first.in_work(bead)
    turn_wheel(view, bead, 4)
    near = view.placed
    assert near.picture.scale == pytest.approx(at_first.picture.scale * 1.25**4, rel=0.02)
    assert near.in_work(bead) == pytest.approx(work, abs=0.6)
    there = near.on_screen(work).toPoint()
    demo.click(view, there)
    assert demo.place.selection.row == 4

    before = view.placed.origin
    QTest.mousePress(view, Qt.MouseButton.MiddleButton, pos=there)
    QTest.mouseMove(view, there + QPoint(30, -20))
    QTest.mouseRelease(view, Qt.MouseButton.MiddleButton, pos=there + QPoint(30, -20))
    moved = view.placed.origin - before
    assert (moved.x(), moved.y()) == pytest.approx((30, -20), abs=1.0)

    view.setFocus()
    demo.press("End")
    whole = view.placed
    assert whole.picture.scale < at_first.picture.scale
    assert all(view.rect().contains(whole.on_screen(corner).toPoint()) for corner in (whole.picture.low,
                                                                                      whole.picture.high))  # fmt: skip
    demo.press("Home")
    assert (view.placed.origin, view.placed.picture.scale) == (at_first.origin, at_first.picture.scale)
    QTest.keyClicks(view, "+")
    assert view.placed.picture.scale == pytest.approx(at_first.picture.scale * 1.25, rel=0.02)
    QTest.keyClicks(view, "-----")
    assert view.placed.picture.scale == pytest.approx(whole.picture.scale)


def test_a_bead_of_the_lower_side_grows_downwards(demo):
    demo.press("Alt+J")
    demo.click(demo.place.column.chooser.way("double-v"))
    demo.press("Alt+P", "Ctrl+Shift+F", "Return")
    row = next(n for n, each in enumerate(demo.wps.passes) if each.side == "second")
    demo.place.selection.choose(demo.wps.passes[row].id)
    target = f"passes/{demo.wps.passes[row].id}/bead_area_mm2"
    before = bead_of(demo.wps, demo.wps.passes[row].id).area_mm2
    demo.drag(demo.place.bead_view, target, (0.0, -1.0))
    assert demo.wps.passes[row].bead_area_mm2.low > before + 1


def test_a_wide_view_leaves_no_trace_in_a_small_window(open_person, tmp_path):
    person = open_person(demo_file("2026-11-23T12:00:00Z", folder=tmp_path), width=1024, height=700)
    person.press("Alt+P")
    before = person.place.window_view.width()
    for view in ("sectors", "tacks", "fit-up", "beads"):
        person.place.views.show_view(view)
        QApplication.processEvents()
    assert person.place.window_view.width() == before
    figures = person.place.hero.corners
    assert all(figures.fontMetrics().horizontalAdvance(line) <= figures.width() for line in figures.text().split("\n"))
    assert "(EN 1011-1:2009 Table 1)" in figures.toolTip()


def test_the_beads_of_another_preparation_are_looked_at_anew(demo):
    demo.press("Alt+P")
    view = demo.place.bead_view
    turn_wheel(view, QPointF(view.rect().center()), 3)
    assert view.lens.zoom is not None
    demo.press("Alt+J")
    demo.click(demo.place.column.chooser.way("double-v"))
    demo.press("Alt+P")
    assert view.lens.zoom is None


class _Painted(QObject):
    """What of a widget is painted, as rectangles."""

    def __init__(self, widget):
        super().__init__()
        self.regions = []
        widget.installEventFilter(self)

    def eventFilter(self, _widget, event):  # noqa: N802 - Qt
        if event.type() == QEvent.Type.Paint:
            self.regions += [QRect(each) for each in event.region()]
        return False


def test_only_the_row_that_changed_is_painted_and_both_rows_when_another_pass_is_chosen(demo):
    demo.press("Alt+P")
    demo.settle()
    table, first = demo.place.table, demo.wps.passes[0]
    painted = _Painted(table.viewport())
    demo.document.type_text(f"passes/{first.id}/current_a", "96..113")
    demo.settle()
    row = table.visualRect(table.own_model.index(0, 0))
    assert painted.regions
    assert all(each.top() <= row.bottom() for each in painted.regions)
    painted.regions.clear()
    table.setCurrentIndex(table.own_model.index(2, 3))
    demo.settle()
    rows = [table.visualRect(table.own_model.index(n, 0)).center().y() for n in (0, 2)]
    for y in rows:
        assert any(each.top() <= y <= each.bottom() and each.width() > 900 for each in painted.regions)


# Several rows --------------------------------------------------------------------------------


def select(person, first, last):
    """Select cells of the table, from one (row, column) to another."""
    table = person.place.table
    table.setFocus()
    table.setCurrentIndex(table.own_model.index(*first))
    table.selectionModel().select(
        QItemSelection(table.own_model.index(*first), table.own_model.index(*last)),
        QItemSelectionModel.SelectionFlag.ClearAndSelect,
    )


def currents(person):
    return [each.current_a and (each.current_a.low, each.current_a.high) for each in person.wps.passes]


def test_what_is_typed_goes_into_every_selected_row_as_one_step(passes):
    before = currents(passes)
    select(passes, (3, 2), (6, 2))
    passes.type("130..140")
    assert currents(passes)[3] == (130, 140)
    passes.press("Return")
    assert currents(passes) == [*before[:3], *[(130, 140)] * 4, *before[7:]]
    passes.press("Ctrl+Z")
    assert currents(passes) == before


def test_a_text_that_is_none_waits_in_every_selected_row(passes):
    before = currents(passes)
    select(passes, (3, 2), (4, 2))
    passes.type("hot")
    passes.press("Return")
    assert currents(passes) == before
    assert list(passes.document.working.pending.values()) == ["hot", "hot"]


def test_a_choice_goes_into_every_selected_row(passes):
    select(passes, (3, 0), (5, 0))
    passes.press("F2")
    passes.type("h")
    passes.press("Return")
    assert [each.role for each in passes.wps.passes][3:7] == ["hot", "hot", "hot", "fill"]


def test_a_value_is_copied_down_exactly_and_undone_in_one(passes):
    own = passes.wps.passes[3].id
    passes.document.type_text(f"passes/{own}/travel_speed_mm_min", "60.123..70")
    before = passes.document.working
    select(passes, (3, 4), (6, 4))
    passes.press("Alt+Shift+Down")
    speeds = [each.travel_speed_mm_min for each in passes.wps.passes]
    assert all(each == Interval(60.123, 70) for each in speeds[3:7])
    assert speeds[7] != speeds[3]
    passes.press("Ctrl+Z")
    assert passes.document.working is before
    select(passes, (9, 4), (9, 4))
    passes.press("Alt+Shift+Down")
    assert passes.wps.passes[10].travel_speed_mm_min == passes.wps.passes[9].travel_speed_mm_min


def test_passes_go_to_the_clipboard_and_come_back_with_more_rows(passes):
    count = len(passes.wps.passes)
    select(passes, (0, 0), (1, 4))
    passes.press("Ctrl+C")
    assert QApplication.clipboard().text() == (
        "root\tGTAW ER70S-2\t95..115\t10..12\t60..80\nhot\tGTAW ER70S-2\t120..145\t11..13\t70..95\n"
    )
    QApplication.clipboard().setText("root\tGTAW ER70S-2\t90\t10\tslow\nhot\tGTAW ER70S-2\t100..110\t11\t70\n")
    select(passes, (count - 1, 0), (count - 1, 0))
    passes.press("Ctrl+V")
    last, new = passes.wps.passes[-2:]
    assert (len(passes.wps.passes), last.role, new.role) == (count + 1, "root", "hot")
    assert (last.deposit, new.current_a) == ("d1", Interval(100, 110))
    assert list(passes.document.working.pending.values()) == ["slow"]
    passes.press("Ctrl+Z")
    assert len(passes.wps.passes) == count
    assert not passes.document.working.pending


def test_a_pasted_note_stays_as_it_is_and_nobody_pastes_a_whole_sheet_by_mistake(passes):
    note, bead = len(COLUMNS) - 1, next(n for n, each in enumerate(COLUMNS) if each.leaf == "bead_area_mm2")
    for text in ("(only 6G)", "'as agreed'", "=see 4"):
        select(passes, (0, note), (0, note))
        QApplication.clipboard().setText(as_tsv([[text]]))
        passes.press("Ctrl+V")
        assert passes.wps.passes[0].note == text
    before = passes.document.working
    select(passes, (4, bead), (4, bead))
    QApplication.clipboard().setText("(24.6)")
    passes.press("Ctrl+V")
    assert passes.wps.passes[4].bead_area_mm2 is None, "what was worked out is not stated by pasting it"
    QApplication.clipboard().setText("root\n" * 100_000)
    select(passes, (0, 0), (0, 0))
    passes.press("Ctrl+V")
    assert passes.document.working.value == before.value
    assert "100000 lines are on the clipboard" in passes.shell.notice.text.text()


def test_a_deposit_is_added_beside_the_deposits(passes):
    passes.click(passes.place.add_button)
    own = passes.wps.deposits[-1].id
    assert passes.focus() is passes.place.deposits.cards[own].fields["process"]


# Cards of deposits by process ----------------------------------------------------------------


def test_a_card_shows_what_its_process_asks_for_and_keeps_the_keyboard(demo):
    demo.press("Alt+P")
    own = demo.wps.deposits[1].id
    card = demo.place.deposits.cards[own]
    assert "shielding_gas" in card.fields
    card.fields["process"].setFocus()
    demo.document.type_text(f"deposits/{own}/process", "SAW")
    demo.settle()
    card = demo.place.deposits.cards[own]
    assert {"flux", "flux_type", "electrodes", "recrushed_slag", "contact_tube_mm"} <= card.fields.keys()
    assert "shielding_gas" not in card.fields
    assert demo.focus() is card.fields["process"]
    demo.desk.go_to(f"deposits/{own}/flux")
    demo.fill("Flux 12")
    assert demo.wps.deposits[1].flux == "Flux 12"
    demo.document.type_text(f"deposits/{own}/process", "GMAW")
    demo.settle()
    card = demo.place.deposits.cards[own]
    field = card.fields["transfer_mode"]
    field.activated.emit(field.findData("short"))
    assert demo.wps.deposits[1].transfer_mode == "short"
    assert demo.wps.deposits[1].flux == "Flux 12", "what was typed is not lost with its field"
