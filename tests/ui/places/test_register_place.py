"""The Register through the real window: map, list, search and what can be done with a document."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from anlage.core.document import with_at
from anlage.core.errors import FormatError
from anlage.session.works.demo import demo_file
from anlage.session.works.register_rows import FEW
from anlage.ui.desk.places_desk import MOST_DOCUMENTS
from anlage.ui.kit.list_row import ITEM_ROLE
from tests.demo import MACHINES, NUMBERS, PROCEDURES, RECORDS, following
from tests.ui.conftest import NOW

OTHERS = (*RECORDS, *MACHINES)


@pytest.fixture
def register(demo):
    demo.press("Alt+G")
    return demo


def listed(person):
    place = person.place
    return [place.list.item(n).data(ITEM_ROLE).number for n in range(place.list.count())]


def test_it_lists_all_and_finds_by_words(register):
    assert listed(register) == NUMBERS
    register.place.search.setFocus()
    register.type("outside")
    assert listed(register) == [f"OST-W-{number:02d}" for number in (2, 4, 5, 6, 7, 8, 9, 10, 11)]
    register.type(" feeder")
    assert listed(register) == ["OST-W-02"]
    assert [row.number for row in register.place.presenter.rows] == ["OST-W-02"]


def test_a_procedure_is_opened_from_the_list_by_keyboard(register):
    register.press("Down", "Return")
    assert register.wps.header.number == "OST-W-02"
    assert register.desk.place == "job"


def test_the_highlighted_row_is_the_document_in_front(register):
    register.press("Down")
    assert register.wps.header.number == "OST-W-02"
    assert register.shell.band.number.text() == "OST-W-02"
    register.settle()
    assert [text for _, text in register.desk.strip.parts()] == ["45 inside", "1 outside", "1 unproven"]
    assert register.place.rests.text() == "Held against OST-R-02, which does not cover it."
    register.press(*["Down"] * (len(PROCEDURES) - 1))
    assert register.document.value.header.number == "OST-R-01"
    assert register.place.rests.text() == "OST-W-01 rests on it."
    register.press("Home")
    assert register.place.rests.text() == "Rests on OST-R-01."
    register.place.search.setFocus()
    register.type("outside")
    assert register.wps.header.number == "OST-W-02"


def test_a_document_that_cannot_be_read_is_not_another_one(register, monkeypatch):
    works = register.desk.works
    own = works.entries()[1].id
    monkeypatch.setattr(works, "read", lambda _own: (_ for _ in ()).throw(FormatError("no JSON", where="x", mend="y")))
    register.press("Down")
    assert (register.document, register.desk.in_front()) == (None, "")
    assert not register.desk.actions["delete"].isEnabled()
    register.press("Ctrl+Backspace")
    assert own in [entry.id for entry in works.entries()]


def test_a_click_on_the_map_chooses_and_a_second_opens(register):
    view = register.place.map
    (outline,) = [
        i for i in view.placed.picture.items if i.role == "wps_outline" and i.target == register.place.rows[1].id
    ]
    xs, ys = zip(*outline.points, strict=True)
    grid = [(min(xs) + (max(xs) - min(xs)) * n / 20, min(ys) + (max(ys) - min(ys)) * k / 20)
            for n in range(1, 20) for k in range(1, 20)]  # fmt: skip
    own = [at for at in map(view.placed.on_screen, grid) if view.placed.area_at(at) == outline.target]
    middle = own[len(own) // 2].toPoint()
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=middle)
    assert register.place.presenter.chosen_id == register.place.rows[1].id
    assert register.place.list.currentRow() == 1
    QTest.mouseDClick(view, Qt.MouseButton.LeftButton, pos=middle)
    assert register.wps.header.number == "OST-W-02"


def test_it_follows_edits_and_units(register):
    register.desk.document.type_text("header/title", "Bend")
    register.press("Alt+J", "Alt+G")
    assert register.place.rows[0].title == "Bend"
    register.press("Ctrl+U")
    assert "in;" in register.place.rows[len(PROCEDURES)].said


def test_the_chosen_procedure_is_duplicated_put_away_and_brought_back(register):
    register.press("Down")
    register.click(register.place.buttons["Duplicate"])
    assert listed(register) == [*PROCEDURES, following(PROCEDURES), *OTHERS]
    register.place.choose(register.place.rows[1].id)
    register.click(register.place.buttons["Put away"])
    assert listed(register) == [*PROCEDURES[:1], *PROCEDURES[2:], following(PROCEDURES), *OTHERS]
    register.press("Ctrl+Shift+Backspace")
    assert "OST-W-02" in listed(register)


def test_a_record_is_no_procedure_and_opens_at_proof(register):
    register.place.list.setCurrentRow(len(PROCEDURES) + 1)
    register.press("Return")
    assert register.desk.place == "proof"
    assert register.document.value.header.number == "OST-R-02"


def test_a_new_procedure_starts_at_its_job(register):
    register.click(register.place.buttons["New"])
    assert (register.wps.header.number, register.desk.place) == (following(PROCEDURES), "job")


def test_of_many_documents_the_list_is_there_at_once_and_fills(register, qtbot):
    works, place = register.desk.works, register.place
    for n in range(FEW + 1):
        works.add(with_at(register.wps, "header/number", f"OST-W-{n + 20}"))
    register.desk.refresh_place()
    assert len(listed(register)) == len(NUMBERS) + FEW + 1
    assert {row.said for row in place.rows if row.number > "OST-W-20"} == {"being judged…"}
    qtbot.waitUntil(lambda: all(row.verdict for row in place.rows), timeout=60_000)
    assert {row.said for row in place.rows if row.number > "OST-W-20"} == {place.rows[0].said}


def test_the_places_of_few_documents_are_kept(register):
    works, desk = register.desk.works, register.desk
    opened = [works.add(with_at(register.wps, "header/number", f"OST-W-{n + 20}")) for n in range(9)]
    desk.open(opened[0])
    desk.document.type_text("header/title", "First")
    register.press("Alt+P")
    for each in opened:
        desk.open_document(each)
    kept = {document for _, document in desk._places._made if document}
    assert kept == set(opened[-MOST_DOCUMENTS:])
    desk.open_document(opened[0])
    assert desk.document.value.header.title == "First"
    register.press("Ctrl+Z")
    assert desk.document.value.header.title != "First"


def test_a_running_stopwatch_keeps_its_place(register):
    works, desk = register.desk.works, register.desk
    desk.open(works.entries()[0].id)
    register.press("Alt+P", "F8")
    watch = register.place.stopwatch
    watch.toggle()
    for n in range(9):
        desk.open_document(works.add(with_at(register.wps, "header/number", f"OST-W-{n + 20}")))
    desk.open_document(works.entries()[0].id)
    assert register.place.stopwatch is watch
    assert watch.has_times


def test_where_there_are_many_records_the_window_does_not_wait_for_them(open_person, tmp_path, qtbot, monkeypatch):
    monkeypatch.setattr("anlage.ui.desk.works_desk.FEW_RECORDS", 1)
    person = open_person(demo_file(NOW, folder=tmp_path))
    assert person.desk.strip is None
    qtbot.waitUntil(lambda: person.desk.strip is not None, timeout=60_000)
    assert person.desk.strip.proof.judgement.verdict == "inside"
    assert person.shell.band.state.text() == "draft"
