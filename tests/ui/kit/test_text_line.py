"""Editing keys in a field edit its text, whatever commands of the window share them."""

import pytest

from tests.demo import PROCEDURES


@pytest.fixture
def field(demo):
    """The thickness of a plate, entered, with a text of two words."""
    demo.press("Alt+J")
    found = demo.place.column.fields["joint/thickness_mm"]
    found.setFocus()
    demo.type("1 in + 3 mm")
    return found


@pytest.mark.parametrize(
    ("keys", "left"),
    [
        (("Ctrl+Backspace",), "1 in + 3 "), (("Home", "Ctrl+Delete"), "in + 3 mm"), (("Ctrl+U",), ""),
        (("Ctrl+Left", "Ctrl+U"), "mm"), (("Ctrl+Shift+Backspace",), ""), (("Backspace",), "1 in + 3 m"),
    ],
)  # fmt: skip
def test_an_editing_key_edits_and_does_nothing_else(demo, field, keys, left):
    demo.press(*keys)
    assert field.text() == left
    assert demo.wps.header.number == "OST-W-01"
    assert demo.shell.reader.system == "si"
    assert len(demo.desk.works.entries()) == len(PROCEDURES)


def test_elsewhere_the_same_keys_are_commands(demo):
    demo.press("Alt+G", "Ctrl+U")
    assert demo.shell.reader.system == "us"
    demo.press("Ctrl+Backspace")
    assert len(demo.desk.works.entries()) == len(PROCEDURES) - 1


@pytest.mark.usefixtures("field")
def test_the_palette_opens_from_a_field(demo):
    demo.press("Ctrl+K")
    assert demo.desk.palette is not None


def typed_key_by_key(demo, path, *texts):
    """What the document and the field hold after texts, each typed key by key over what stood there."""
    field = demo.place.column.fields[path]
    field.setFocus()
    for text in texts:
        field.selectAll()
        demo.type(text)
    return demo.wps.joint.thickness_mm, field.text(), field.property("mark")


@pytest.mark.parametrize(
    ("text", "value"),
    [
        ("25x", 18.0), ("120-ish", 18.0), ("23..26", 18.0), ("1,500", 18.0), ("1.234,5", 18.0), ("1,234.5", 18.0),
        ("12,7,", 18.0), ("..", 18.0), ("-5", 18.0), ("12,7", 12.7), ("12,", 18.0), ("0,125 in", 3.175), ("16", 16.0),
    ],
)  # fmt: skip
def test_what_is_no_value_leaves_what_stood_there_when_the_field_was_entered(demo, text, value):
    demo.press("Alt+J")
    assert demo.wps.joint.thickness_mm == 18.0
    found, shown, mark = typed_key_by_key(demo, "joint/thickness_mm", text)
    assert (found, shown) == (pytest.approx(value), text)
    assert (mark == "pending") is (value == 18.0)
    demo.press("Tab")
    assert demo.wps.joint.thickness_mm == pytest.approx(value)
    assert demo.document.working.pending == ({"joint/thickness_mm": text} if value == 18.0 else {})
    demo.press("Ctrl+Z")
    assert demo.wps.joint.thickness_mm == 18.0
    assert demo.document.working.pending == {}


def test_the_second_visit_of_a_field_goes_back_to_what_the_first_left(demo):
    demo.press("Alt+J")
    typed_key_by_key(demo, "joint/thickness_mm", "20")
    demo.press("Tab")
    assert typed_key_by_key(demo, "joint/thickness_mm", "25x")[0] == 20.0
    demo.press("Escape")
    assert (demo.wps.joint.thickness_mm, demo.document.working.pending) == (20.0, {})


def test_a_tolerance_goes_back_with_its_dimension_untouched(demo):
    demo.press("Alt+J")
    before = demo.wps.joint.root_opening_mm
    field = demo.place.column.fields["joint/root_opening_mm/plus"]
    field.setFocus()
    demo.type("2,5x")
    assert demo.wps.joint.root_opening_mm == before
    demo.press("Backspace")
    assert demo.wps.joint.root_opening_mm.plus == 2.5
