"""The Rulebook: read by keyboard, checked, corrected with its effect shown first, taken back, and put on paper."""

import pytest

from anlage.session.kinds import PROCEDURE


@pytest.fixture
def book(demo):
    """Someone at the rules, with a procedure of the demo in front."""
    demo.press("Alt+L")
    demo.settle()
    return demo


def choose(person, rule):
    person.desk.rules.read(rule)
    person.settle()
    return person.place


def fill(person, field, text):
    person.settle()
    field.setFocus()
    field.selectAll()
    person.type(text)
    person.settle()


def check(person, rule="preheat_min", copy="shelf copy 3"):
    place = choose(person, rule)
    place.ask_to_check()
    fill(person, place.dialog.by, "A. Maker")
    fill(person, place.dialog.copy, copy)
    place.dialog.mark()
    person.settle()
    return place


def correct(person, rule="preheat_min", label="lowest, plus, metric", text="0"):
    place = choose(person, rule)
    place.ask_to_correct()
    for own, value in ((label, text), (label.replace("metric", "US"), text)):
        field = next(each for each in place.dialog.fields.values() if each.accessibleName() == own)
        fill(person, field, value)
    return place.dialog


def texts(place):
    return [line.allowed.replace("\u2009", " ") for line in place.panel.examples.lines]


def test_the_rules_are_walked_by_keys_and_searched(book):
    place = book.place
    assert book.focus() is place.list
    first = place.entry().id
    book.press("Down")
    assert place.entry().id != first
    place.search.setFocus()
    book.type("preheat decrease")
    assert [each.id for each in place.model.entries] == ["preheat_min"]
    assert place.said.text() == "1 of 115 rules; 0 checked in edition 2023."
    assert texts(place) == ["≥ 45 °C"]


def test_filters_leave_what_concerns_a_process(book):
    place = book.place
    place.process.setCurrentIndex(place.process.findData("PAW"))
    found = {each.id for each in place.model.entries}
    assert "keyhole" in found
    assert "pass_over_half" not in found
    place.which.setCurrentIndex(place.which.findData("checked"))
    assert place.model.entries == ()
    assert not place.panel.isVisible()
    assert not place.list_button.isEnabled()


def test_a_rung_leads_to_the_rule_that_gives_its_verdict(demo):
    demo.press("Alt+R")
    demo.settle()
    line = demo.place.panel.line
    demo.place.panel.rule_button.click()
    demo.settle()
    assert demo.place.entry().clause == line.rung.clause
    assert demo.place.list.hasFocus()


def test_a_rule_is_marked_checked_and_the_ladder_says_by_whom(book):
    check(book)
    assert "Checked by A. Maker on 2026-11-23 against shelf copy 3, edition 2023." in book.place.panel.marks.text()
    assert book.place.said.text().endswith("1 checked in edition 2023.")
    place = choose(book, "f_number")
    place.ask_to_check()
    assert place.dialog.copy.text() == "shelf copy 3", "the copy is remembered"
    place.dialog.reject()
    book.settle()
    book.press("Alt+R")
    book.settle()
    rung = next(line for line in book.place.model.lines if line.rung.variable == "preheat_c")
    book.place.panel.show_line(rung)
    assert "Checked by A. Maker on 2026-11-23 against shelf copy 3" in book.place.panel.origin.text()


def test_a_check_without_a_copy_is_refused_and_what_was_typed_stays(book):
    check(book, copy="")
    dialog = book.place.dialog
    assert "name the copy" in dialog.complaint.text()
    assert dialog.by.text() == "A. Maker"
    dialog.reject()
    assert book.desk.works.beside() == {}


def test_a_correction_shows_what_it_makes_of_a_coupon_before_it_is_put_in_place(book):
    dialog = correct(book)
    assert [line.allowed.replace("\u2009", " ") for line in dialog.examples.lines] == ["≥ 100 °C"]
    assert book.desk.works.beside() == {}, "nothing is changed yet"
    assert book.desk.assessment().judgement.verdict == "inside"
    fill(book, dialog.by, "A. Maker")
    dialog.put()
    assert "say what your copy of the code says" in dialog.complaint.text()
    fill(book, dialog.reason, "our copy says as preheated")
    dialog.put()
    book.settle()
    place = book.place
    assert texts(place) == ["≥ 100 °C"]
    assert [line.allowed.replace("\u2009", " ") for line in place.panel.shipped.lines] == ["≥ 45 °C"]
    assert "our copy says as preheated" in place.panel.marks.text()
    assert book.desk.assessment().judgement.verdict == "outside", "the procedure in front is judged by it at once"
    place.panel.overlay_back.click()
    book.settle()
    assert texts(place) == ["≥ 45 °C"]
    assert book.desk.assessment().judgement.verdict == "inside"


def test_a_value_that_cannot_be_is_told_while_it_is_typed(book):
    dialog = correct(book, text="many")
    assert "many is no number" in dialog.complaint.text()
    dialog.put()
    assert book.desk.works.beside() == {}
    dialog.reject()


def test_a_rule_without_a_value_of_its_own_is_not_corrected(book):
    place = choose(book, "cleaning")
    place.ask_to_correct()
    assert place.dialog is None
    assert "no value of its own" in book.shell.notice.text.text()


def test_a_checking_list_of_what_is_shown_is_written(book, tmp_path):
    place = book.place
    place.search.setText("QW-403")
    target = tmp_path / "list.pdf"
    place.save_list(target)
    assert target.read_bytes().startswith(b"%PDF")
    assert f"{len(place.model.entries)} rules are written" in book.shell.notice.text.text()


def test_the_units_of_the_reader_are_those_of_the_examples(book):
    place = choose(book, "t_base")
    book.desk.reader.use_units("us")
    book.settle()
    assert any("in" in text for text in texts(place))


def test_a_file_open_for_reading_only_takes_no_mark(book, monkeypatch):
    place = choose(book, "t_base")
    monkeypatch.setattr(type(book.desk.rules), "can_mark", lambda _self: False)
    place.refresh()
    assert not place.panel.check_button.isEnabled()
    place.ask_to_check()
    assert place.dialog is None
    assert "reading only" in book.shell.notice.text.text()


def test_the_sheet_names_what_is_corrected(book):
    dialog = correct(book)
    fill(book, dialog.reason, "our copy says as preheated")
    fill(book, dialog.by, "A. Maker")
    dialog.put()
    book.settle()
    assert book.desk.kind is PROCEDURE
    book.press("Alt+S")
    book.settle()
    said = " ".join(item.text for page in book.place.pages.pages for item in page.items if hasattr(item, "text"))
    assert "is not as shipped. A. Maker corrected it on 2026-11-23: our copy says as preheated." in said


def test_a_list_of_specimens_is_read_and_checked_and_not_corrected(book):
    place = check(book, rule="groove_middle")
    assert place.entry().checks[0].by == "A. Maker"
    assert texts(place)[0] == "2 tension and 4 side bend specimens"
    assert place.panel.now_head.text() == "What it says"
    assert not place.panel.correct_button.isVisible()
    place.ask_to_correct()
    assert "checked here and not corrected" in book.shell.notice.text.text()
    place.panel.check_back.click()
    book.settle()
    assert not place.entry().checks


def test_without_a_works_file_the_rules_are_those_that_ship(open_person):
    alone = open_person(None)
    pack, edition = alone.desk.rules.codes().edition_of("asme-ix")
    assert (pack.code, edition) == ("asme-ix", pack.editions[-1])
    assert not alone.desk.rules.can_mark()
