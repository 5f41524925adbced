"""The same pipe under two codes: a second code named at the Job, both side by side at Ranges, on strip and sheet."""

from PySide6.QtCore import Qt

from anlage.core.drawing import Text
from anlage.ui.places.ranges.ladder import FOLLOWS_ROLE, LINE_ROLE


def strip(person):
    return [text for _, text in person.desk.strip.parts()]


def test_a_procedure_is_held_against_a_second_code(demo):
    before = demo.desk.assessment()
    demo.press("Ctrl+J")
    field = demo.place.fields["header/second_code"]
    assert not demo.place.fields["header/third_code"].isVisibleTo(demo.place)
    field.activated.emit(field.findData("iso-15614-1-l2"))
    demo.settle()
    assert demo.wps.header.codes == ("asme-ix", "iso-15614-1-l2")
    assert demo.place.fields["header/third_code"].isVisibleTo(demo.place)
    proof = demo.desk.assessment()
    assert proof.parts[0].judgement.counts() == before.judgement.counts()
    assert proof.verdict != "inside"
    assert [text.partition(":")[0] for text in strip(demo)[-2:]] == ["ASME IX", "ISO 15614-1 level 2"]

    demo.press("Alt+R")
    model = demo.place.model
    rows = [model.index(row) for row in range(model.rowCount())]
    lines = [index.data(LINE_ROLE) for index in rows]
    first = next(n for n, line in enumerate(lines) if line and line.rung.id == "base_metal_thickness_mm")
    assert [line.by for line in lines[first : first + 2]] == ["ASME IX", "ISO 15614-1 level 2"]
    assert [index.data(FOLLOWS_ROLE) for index in rows[first : first + 2]] == [False, True]
    heads = [index.data(Qt.ItemDataRole.DisplayRole) for index, line in zip(rows, lines, strict=True) if line is None]
    assert heads[-1].startswith("Inside by every code that has a rule for it")
    demo.place.ladder.setCurrentIndex(rows[first + 1])
    assert "ISO 15614-1 level 2" in demo.place.panel.origin.text()
    demo.click(demo.place.panel.rule_button)
    demo.settle()
    assert demo.desk.place == "rulebook"
    assert demo.place.code.currentData().startswith("iso-15614-1-l2")
    assert demo.place.chosen == lines[first + 1].rung.rules[0].id

    demo.press("Ctrl+J")
    demo.press("Ctrl+Z")
    demo.settle()
    assert demo.desk.assessment().judgement.counts() == before.judgement.counts()


def test_the_sheet_names_both_codes_and_what_each_does_not_hold(demo):
    demo.document.type_text("header/second_code", "iso-15614-1-l2")
    demo.settle()
    demo.press("Alt+S")
    pages = demo.place.pages.pages
    text = " ".join(item.text for page in pages for item in page.items if isinstance(item, Text))
    assert "ASME IX, newest and ISO 15614-1 level 2, newest" in text
    assert "ISO 15614-1 level 2: no record covers" in text
    assert "(ISO 15614-1 level 2 8.3" in text
