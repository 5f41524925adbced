"""The Ranges place: the ladder follows every edit, and a problem is mended where its reason stands."""

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest
from PySide6.QtWidgets import QApplication

from anlage.ui.places.ranges.ladder import FOLLOWS_ROLE, LINE_ROLE, LadderModel


@pytest.fixture
def ranges(demo):
    demo.desk.open_document(demo.desk.works.entries()[1].id)
    demo.press("Alt+R")
    return demo


def rungs(person):
    return [(line.rung.id, line.rung.verdict) for line in person.place.model.lines]


PROBLEMS = [("base_metal_thickness_mm", "outside"), ("peening", "unproven")]


def test_problems_stand_at_the_top_with_reason_and_clause(ranges):
    assert rungs(ranges)[: len(PROBLEMS)] == PROBLEMS
    panel = ranges.place.panel
    assert panel.title.text() == "Base metal thickness"
    assert panel.reason.text().startswith("Outside. 4..14")
    assert "QW-403.8" in panel.origin.text()
    assert "OST-R-02" in panel.origin.text()


def test_the_filter_shows_problems_or_one_category(ranges):
    every, offered = ranges.place.model.lines, ranges.place.filter
    words = [offered.itemText(n) for n in range(offered.count())]
    assert words == ["All variables", "Problems", "Essential", "Supplementary essential", "Nonessential"]
    shown = {}
    for index, word in enumerate(words[2:], 2):
        offered.setCurrentIndex(index)
        shown[word] = ranges.place.model.lines
        assert {line.rung.category for line in shown[word]} <= {offered.itemData(index)}
    assert sum(map(len, shown.values())) == len(every)
    assert not shown["Supplementary essential"]  # impact tests are not demanded
    ranges.place.filter.setCurrentIndex(1)
    assert rungs(ranges) == PROBLEMS


def test_a_list_without_a_problem_does_not_say_that_there_is_none(ranges):
    ranges.place.filter.setCurrentIndex(ranges.place.filter.count() - 1)
    while any(line.is_problem for line in ranges.place.model.lines):
        ranges.place.filter.setCurrentIndex(ranges.place.filter.currentIndex() - 1)
    ranges.press("F7")
    assert ranges.shell.notice.text.text() == "None of these is a problem; 2 that the list leaves out are."


def test_problems_are_mended_by_keyboard_where_their_reason_stands(ranges):
    ranges.place.filter.setCurrentIndex(1)
    ranges.press("Alt+R", "Return")
    assert ranges.focus() is ranges.place.panel.field
    ranges.type("4..13")
    assert str(ranges.wps.range.thickness_mm) == "[4, 13]"
    assert rungs(ranges) == [("base_metal_thickness_mm", "inside"), ("peening", "unproven")], "it keeps its place"
    ranges.press("Alt+R", "F7", "Return")
    ranges.type("none")
    assert ranges.place.panel.reason.text().startswith("Inside.")
    ranges.press("F7")
    assert ranges.shell.notice.text.text() == "Every variable is inside."
    ranges.press("Alt+J")
    assert not ranges.shell.notice.isVisible(), "what was said in passing goes before it can be untrue"
    ranges.press("Alt+R")
    assert rungs(ranges) == [], "left and looked at again, what is mended is gone"
    assert [text for _, text in ranges.desk.strip.parts()] == ["47 inside"]
    ranges.press("Ctrl+Z", "Ctrl+Z")
    assert sorted(rungs(ranges)) == sorted(PROBLEMS)
    ranges.press("Alt+J", "Alt+R")
    assert rungs(ranges) == PROBLEMS


def test_a_mended_rung_keeps_its_place_among_all_until_the_view_is_left(ranges):
    before = [line.rung.id for line in ranges.place.model.lines]
    assert before[:2] == [own for own, _ in PROBLEMS]
    ranges.document.type_text("range/thickness_mm", "4..13")
    ranges.document.type_text("technique/peening", "none")
    ranges.settle()
    assert [line.rung.id for line in ranges.place.model.lines] == before
    assert not any(line.is_problem for line in ranges.place.model.lines)


def test_next_problem_goes_round(ranges):
    seen = []
    for _ in range(3):
        ranges.press("F7")
        seen.append(ranges.place.ladder.currentIndex().data(LINE_ROLE).rung.id)
    own = [one for one, _ in PROBLEMS]
    assert seen == [own[1], own[0], own[1]], "it began at the first"


def test_the_chosen_rung_stays_chosen_while_others_come_and_go(ranges):
    place = ranges.place
    row = place.model.row_of("preheat_c asme-ix")
    place.ladder.setCurrentIndex(place.model.index(row))
    ranges.document.type_text("technique/peening", "none")
    ranges.press("Alt+R")
    assert place.ladder.currentIndex().data(LINE_ROLE).rung.id == "preheat_c"
    assert place.panel.title.text() == "Preheat"


def test_a_rung_leads_to_where_its_leaf_has_its_home(ranges):
    place = ranges.place
    for variable, at_home in (("root_opening_mm", "joint"), ("amps.GTAW", "passes"), ("f_number.GTAW", "passes")):
        row = place.model.row_of(f"{variable} asme-ix")
        place.ladder.setCurrentIndex(place.model.index(row))
        ranges.click(place.panel.home)
        assert ranges.desk.place == at_home
        ranges.press("Alt+R")
    place.ladder.setCurrentIndex(place.model.index(place.model.row_of("base_metal_thickness_mm asme-ix")))
    ranges.click(place.panel.home)
    assert ranges.focus() is ranges.place.fields["range/thickness_mm"]


def test_the_ladder_follows_units_theme_and_the_strip_leads_to_it(ranges):
    ranges.press("Ctrl+U", "Ctrl+T")
    assert "in is stated" in ranges.place.panel.reason.text()
    ranges.press("Alt+J")
    ranges.click(ranges.desk.strip)
    assert ranges.desk.place == "ranges"


def test_the_words_of_the_strip_lead_to_what_mends_them(person):
    person.press("Alt+P")
    person.settle()
    person.click(person.desk.strip)
    assert person.focus() is person.place.fields["header/code"]
    person.document.type_text("header/code", "asme-ix")
    person.settle()
    person.click(person.desk.strip)
    assert person.desk.place == "passes"
    person.document.type_text("preheat/minimum_c", "warm")
    person.settle()
    strip = person.desk.strip
    QTest.mouseClick(strip, Qt.MouseButton.LeftButton, pos=QPoint(strip.width() - 8, strip.height() // 2))
    assert person.focus() is person.place.fields["preheat/minimum_c"]


def test_without_a_code_the_place_says_what_to_state(person):
    person.press("Alt+R")
    assert person.place.empty.text() == "Not judged: no code is stated. State it at the Job (Ctrl+J)."
    assert person.place.panel.field is None
    person.document.type_text("header/code", "asme-ix")
    QApplication.processEvents()
    assert person.place.empty.text().endswith("State it at Passes (Alt+P).")


def test_the_ladder_is_a_sound_model(ranges, qtmodeltester):
    model = LadderModel()
    model.show_sections(ranges.place.model.sections)
    qtmodeltester.check(model)


def test_the_place_bar_marks_where_the_problems_are_stated(demo):
    buttons = demo.shell.places.buttons
    QApplication.processEvents()
    assert {name: button.verdict for name, button in buttons.items() if button.verdict} == {}
    demo.document.type_text("deposits/d2/filler", "E6010")  # another F-Number: its field is at Passes
    demo.document.type_text("joint/root_opening_mm", "")
    QApplication.processEvents()
    marks = {name: button.verdict for name, button in buttons.items() if button.verdict}
    assert marks == {"joint": "unproven", "passes": "outside", "ranges": "outside"}
    assert buttons["passes"].accessibleDescription() == "something here is outside"
    demo.press("Ctrl+Z", "Ctrl+Z")
    assert not any(button.verdict for button in buttons.values())


def test_a_place_without_rungs_shows_no_empty_panel(person):
    person.press("Alt+R")
    assert person.place.panel.isHidden()


# Changes that bring it inside ----------------------------------------------------------------


@pytest.fixture
def gates(demo):
    """Someone at the ladder of the gates, of which three variables are outside."""
    demo.desk.open_document(next(e.id for e in demo.desk.works.all_entries() if e.number == "OST-W-04"))
    demo.desk.go("ranges")
    demo.settle()
    return demo


def test_the_fewest_changes_are_shown_taken_in_one_step_and_taken_back(gates):
    gates.press("Shift+F7")
    dialog = gates.place.mend_dialog
    assert dialog.list.item(0).text() == "By OST-R-03: 2 changes, 1 left open"
    assert "the job asks for more" in dialog.said.text()
    before = gates.wps
    dialog.ranges.click()
    assert dialog.list.item(0).text() == "By OST-R-03: 3 changes, then inside"
    assert "every variable is inside" in dialog.said.text()
    gates.click(dialog.take_button)
    gates.settle()
    assert gates.wps.preheat.minimum_c == 35.0
    assert [text for _, text in gates.desk.strip.parts()] == ["56 inside"]
    assert not gates.place.mend.isVisible()
    gates.desk.step_back()
    assert gates.wps is before


def test_a_line_that_is_kept_is_changed_no_more_and_told_as_left(gates):
    gates.press("Shift+F7")
    dialog = gates.place.mend_dialog
    own = [each.path for each in dialog.found[0].changes].index("preheat/minimum_c")
    dialog.comparison.table.setCurrentCell(own, 0)
    gates.click(dialog.keep_button)
    assert dialog.list.item(0).text() == "By OST-R-03: 1 change, 2 left open"
    assert "Preheat: ≥ 35\u2009°C is allowed, and it is kept as it is." in dialog.said.text()
    gates.click(dialog.take_button)
    gates.settle()
    assert gates.wps.preheat.minimum_c == 20.0
    assert [text for _, text in gates.desk.strip.parts()] == ["54 inside", "2 outside"]


def test_what_was_kept_may_change_again(gates):
    gates.press("Shift+F7")
    dialog = gates.place.mend_dialog
    gates.click(dialog.keep_button)
    assert dialog.release_button.isVisible()
    gates.click(dialog.release_button)
    assert dialog.list.item(0).text() == "By OST-R-03: 2 changes, 1 left open"
    assert not dialog.release_button.isVisible()


def test_leaving_changes_nothing_and_a_sound_procedure_says_so(gates):
    before = gates.wps
    gates.click(gates.place.mend)
    gates.place.mend_dialog.reject()
    assert gates.wps is before
    gates.desk.open_document(next(e.id for e in gates.desk.works.all_entries() if e.number == "OST-W-01"))
    gates.settle()
    gates.desk.run("mend")
    assert gates.shell.notice.text.text() == "Every variable is inside."


def titles(person):
    return [(section.title, len(section.lines)) for section in person.place.model.sections]


def test_problems_stand_apart_from_the_categories_and_each_rung_once(ranges):
    found = titles(ranges)
    assert found[0] == ("Problems", 2)
    assert [title for title, _ in found[1:]] == ["Essential variables", "Nonessential variables"]
    assert sum(count for _, count in found) == len(ranges.desk.assessment().judgement.rungs)


def test_sections_fold_by_key_and_stay_folded_while_others_are_mended(ranges):
    place = ranges.place
    row = place.model.row_of("p_number asme-ix")
    place.ladder.setCurrentIndex(place.model.index(row))
    ranges.press("Left")
    assert place.model.row_of("p_number asme-ix") == -1
    assert place.ladder.currentIndex().data() == "Essential variables, 16, folded"
    assert place.panel.title.text() == "P-Number", "what was read stays beside it"
    ranges.document.type_text("technique/peening", "none")
    ranges.settle()
    assert place.model.row_of("p_number asme-ix") == -1
    assert place.ladder.currentIndex().data() == "Essential variables, 16, folded"
    ranges.press("Right")
    assert place.model.row_of("p_number asme-ix") == row
    ranges.press("Space", "Space")
    assert place.model.row_of("p_number asme-ix") == row


def test_a_head_is_folded_by_a_click_and_f7_opens_the_problems(ranges):
    place = ranges.place
    head = place.ladder.visualRect(place.model.index(0))
    QTest.mouseClick(place.ladder.viewport(), Qt.MouseButton.LeftButton, pos=head.center())
    assert place.model.row_of("base_metal_thickness_mm asme-ix") == -1
    ranges.press("F7")
    assert place.ladder.currentIndex().data(LINE_ROLE).rung.id == "base_metal_thickness_mm"


def test_rungs_of_one_variable_stand_together(ranges):
    model = ranges.place.model
    first, second = (model.row_of(f"f_number.{process} asme-ix") for process in ("GTAW", "SMAW"))
    assert second == first + 1
    assert [model.index(row).data(FOLLOWS_ROLE) for row in (first, second)] == [False, True]
