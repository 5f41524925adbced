"""The Job place: a sentence whose words are fields, the position chosen in its picture, and what is to be done next."""

import pytest
from PySide6.QtCore import Qt
from PySide6.QtTest import QTest

from anlage.core.drawing.position import CELL_MM
from anlage.session.judging.groups import filler_words, metal_words
from anlage.session.leaves.table import fields
from anlage.ui.desk.finding import entries
from anlage.ui.frame.palette import matching
from anlage.ui.places.job.statement import OF_FEW


def point_at(person, target):
    """Click the small drawing of a position."""
    view = person.place.view
    (frame,) = [item for item in view.placed.picture.items if item.role == "layer" and item.target == target]
    x, y = frame.points[0]
    at = view.placed.on_screen((x + CELL_MM[0] / 2, y + 3)).toPoint()
    QTest.mouseClick(view, Qt.MouseButton.LeftButton, pos=at)
    person.settle()


def steps(person):
    person.settle()
    return [button.text() for button in person.place.steps]


def test_a_new_procedure_starts_here_at_its_base_metal_and_says_what_is_missing(newcomer):
    assert newcomer.desk.place == "job"
    assert newcomer.focus() is newcomer.place.fields["metals/one/name"]
    assert steps(newcomer)[:3] == ["State the base metal", "State the thicknesses", "State the code"]


def test_the_sentence_is_typed_word_by_word_by_keyboard(newcomer):
    newcomer.fill("SA-335 P11")
    assert newcomer.wps.metals.one.name == "SA-335 P11"
    assert newcomer.place.groups.text() == "SA-335 P11: P-No. 4, Group 1, ISO/TR 15608 group 5.1"
    newcomer.fill("SA-335 P22")
    assert "SA-335 P22: P-No. 5A" in newcomer.place.groups.text()
    newcomer.fill("g")
    newcomer.fill("pi")
    newcomer.fill("4..16 mm")
    newcomer.fill(">= 60,3")
    newcomer.fill("6G")
    newcomer.fill("up")
    wps = newcomer.wps
    assert (wps.joint.product, wps.technique.position, wps.technique.progression) == ("pipe", "6G", "uphill")
    assert (wps.range.thickness_mm.high, wps.range.diameter_mm.low) == (16.0, 60.3)
    assert newcomer.place.fields["range/diameter_mm"].text() == "≥ 60.3"


def test_a_position_is_chosen_in_the_picture_and_tells_plate_from_pipe(newcomer):
    point_at(newcomer, "pipe/5G")
    assert (newcomer.wps.technique.position, newcomer.wps.joint.product) == ("5G", "pipe")
    newcomer.press("Ctrl+Z")
    assert (newcomer.wps.technique.position, newcomer.wps.joint.product) == (None, None)


def test_the_picture_shows_what_is_stated_in_whatever_words(demo):
    demo.press("Alt+B")
    demo.document.type_text("technique/position", "PF")
    demo.settle()
    picture = demo.place.view.placed.picture
    assert {item.target for item in picture.items if item.role == "chosen" and item.target} == {"plate/3G"}
    demo.document.type_text("header/weld", "fillet")
    demo.settle()
    targets = {target for target in demo.place.view.placed.picture.targets() if "/" in target}
    assert targets == {"plate/1F", "plate/2F", "plate/3F", "plate/4F"}


def test_each_step_leads_to_what_it_asks_for(demo):
    demo.press("Alt+B")
    assert steps(demo) == ["Look at the sheet and issue it"]
    demo.document.type_text("preheat/minimum_c", "")
    assert steps(demo)[0] == "State the least preheat"
    demo.click(demo.place.steps[0])
    assert demo.focus() is demo.place.fields["preheat/minimum_c"]
    own = demo.wps.passes[0].id
    demo.document.type_text(f"passes/{own}/current_a", "")
    wanted = next(button for button in demo.place.steps if "of pass 1" in button.text())
    demo.click(wanted)
    assert demo.desk.place == "passes"


def test_a_text_that_waits_is_the_first_thing_to_do(demo):
    demo.press("Alt+B")
    demo.document.type_text("preheat/minimum_c", "warm")
    assert steps(demo)[0] == "1 text not taken over: preheat, least"


@pytest.mark.parametrize(
    ("sought", "found"),
    [
        ("pwht", "Heat treatment"), ("stress relief", "Heat treatment"), ("charpy", "Impact tests"),
        ("pqr", "Go to Proof"), ("pqr", "New record"), ("delete", "Put the document away"), ("wps", "New procedure"),
        ("material", "Base metal"), ("template", "Duplicate the document"), ("print", "Go to Sheet"),
        ("nace", "Sour service"), ("fill down", "Copy the value down"),
    ],
)  # fmt: skip
def test_the_palette_finds_everything_by_its_usual_words(demo, sought, found):
    demo.press("Alt+B")
    assert found in [entry.text for entry in matching(entries(demo.desk), sought)]


def test_every_leaf_of_the_job_file_is_found_and_gone_to(demo):
    for path in ("pwht/temperature_c", "range/diameter_mm", "seam/weave_limit_mm", "joint/retainers"):
        demo.desk.go_to(path)
        assert demo.focus().accessibleName() == fields()[path].label
        assert demo.focus().isVisible()


def test_what_metals_and_fillers_are_to_the_codes_stands_beside_them(demo):
    demo.press("Alt+P")
    card = next(iter(demo.place.deposits.cards.values()))
    assert card.numbers.text() == f"ISO 4063 141, {filler_words('ER70S-2')}"
    card.fields["filler"].setFocus(Qt.FocusReason.TabFocusReason)
    demo.type("E7O18")
    assert card.numbers.text() == "not in the catalogue: nothing is known of it"
    assert metal_words(demo.wps.metals.one).startswith("P-No. 1, Group 2")


# Words that are offered ----------------------------------------------------------------------


@pytest.fixture
def metal(newcomer):
    return newcomer.place.fields["metals/one/name"]


def test_typing_as_the_code_writes_is_never_interrupted(newcomer, metal):
    for n, letter in enumerate("SA-335 P11", 1):
        newcomer.type(letter)
        assert metal.text() == "SA-335 P11"[:n]
        assert newcomer.focus() is metal
    assert metal.is_offering
    newcomer.press("Return")
    assert (metal.text(), newcomer.wps.metals.one.name) == ("SA-335 P11", "SA-335 P11")
    newcomer.press("Tab")
    assert not metal.is_offering


def test_down_and_enter_take_a_word(newcomer, metal):
    newcomer.type("335")
    offered = [metal.offer.item(n).text() for n in range(metal.offer.count())]
    assert "A335-P11" in offered
    newcomer.press(*["Down"] * (offered.index("A335-P11") + 1), "Return")
    assert (metal.text(), newcomer.wps.metals.one.name) == ("A335-P11", "A335-P11")
    assert not metal.is_offering


def test_escape_puts_the_words_away_and_leaves_what_was_typed(newcomer, metal):
    newcomer.type("A51")
    newcomer.press("Down", "Escape")
    assert (metal.text(), metal.is_offering) == ("A51", False)
    newcomer.press("Escape")
    assert metal.text() == "", "as everywhere, Escape takes back what was typed"


def test_a_word_is_taken_by_a_click_and_the_list_opens_by_down(newcomer, metal):
    newcomer.press("Down")
    assert metal.offer.count() > 20
    item = metal.offer.item(3)
    newcomer.click(metal.offer.viewport(), metal.offer.visualItemRect(item).center())
    assert metal.text() == newcomer.wps.metals.one.name != ""


def test_the_name_of_a_pipe_stays_while_it_is_true(person):
    person.document.type_text("joint/product", "pipe")
    person.document.type_text("joint/kind", "single-v")
    person.settle()
    size = person.place.column.rows["od_mm"][-1]
    size.setFocus()
    person.type("10 sch 60")
    person.press("Return")
    joint = person.wps.joint
    assert (joint.pipe_size, joint.od_mm) == ("10 sch 60", 273.0)
    person.document.type_text("joint/thickness_mm", "13")
    assert size.text() == ""
    person.press("Ctrl+Z")
    assert size.text() == "10 sch 60"
    size.setText("10 sch 999")
    size.editingFinished.emit()
    person.document.type_text("joint/root_opening_mm", "3")
    assert (size.text(), size.property("mark")) == ("10 sch 999", "pending"), "nothing typed is lost"


def test_what_few_codes_ask_for_is_shown_with_a_code_that_does(demo):
    demo.desk.go("job")
    fields = demo.place.fields

    def shown():
        demo.settle()
        return {path for path in OF_FEW if fields[path].isVisibleTo(demo.place)}

    assert shown() == set(), "ASME IX has a use for none of them"
    demo.document.type_text("header/code", "api-1104")
    assert shown() == {"technique/root_to_second_min", "technique/second_to_rest_min", "technique/clamp"}
    demo.document.type_text("technique/root_to_second_min", "5")
    demo.document.type_text("header/code", "aws-d1.1")
    assert {"header/loading", "header/strength", "technique/root_to_second_min"} <= shown(), "what is stated is shown"
    demo.document.type_text("technique/root_to_second_min", "")
    assert shown() == {"header/loading", "header/strength"}
    demo.desk.go_to("technique/clamp")
    assert fields["technique/clamp"].isVisibleTo(demo.place), "what is asked for by its name is shown"


def test_a_field_below_the_window_is_scrolled_into_sight_when_it_is_gone_to(demo):
    demo.shell.resize(1024, 560)
    demo.desk.go("job")
    demo.settle()
    demo.desk.go_to("technique/clamp")
    demo.settle()
    field, room = demo.place.fields["technique/clamp"], demo.place.scroll.viewport()
    top = field.mapTo(room, field.rect().topLeft()).y()
    assert 0 <= top <= room.height() - field.height()
