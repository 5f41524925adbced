"""Every kind of field, with what people type: key by key, pasted, left half, undone, in the other units, edited."""

from dataclasses import dataclass

import pytest
from PySide6.QtGui import QGuiApplication
from PySide6.QtWidgets import QApplication

from anlage.core.ranges import Interval
from anlage.session.leaves.table import fields
from anlage.session.leaves.text import leaf_value
from anlage.ui.kit.fields import ChoiceField, LeafField

INF = float("inf")


@dataclass(frozen=True)
class Kind:
    """One kind of field: a leaf of it, what is typed whole, half and in inches, and what the leaf is then."""

    name: str
    path: str
    whole: str
    value: object
    half: str
    us: str = ""
    us_value: object = None
    place: str = ""


KINDS = [
    Kind("number", "joint/thickness_mm", "12,7", 12.7, "12,", "1/2", 12.7),
    Kind("fraction", "joint/thickness_mm", "1-1/2 in", 38.1, "1-1/", "3/8 - 1/16", 7.9375),
    Kind("dimension", "joint/root_opening_mm", "3.2", 3.2, "3.2 m..", "1/8", 3.175),
    Kind("tolerance", "joint/root_opening_mm/plus", "0,5", 0.5, "0,5 m..", "1/32", 0.79375),
    Kind("angle", "joint/groove_angle_deg", "65", 65.0, "65 d", "65", 65.0),
    Kind("range", "passes/PASS/current_a", "101..119", Interval(101, 119), "101..", "90..110", Interval(90, 110)),
    Kind("open range", "range/diameter_mm", ">= 60,3", Interval(60.3, INF), ">=", "2-7/8..", Interval(73.025, INF)),
    Kind("up to", "range/thickness_mm", "<= 20", Interval(0, 20, low_open=True), "<= ", "max 1/2",
         Interval(0, 12.7, low_open=True)),
    Kind("temperature", "preheat/minimum_c", "95", 95.0, "95 °", "200", pytest.approx(93.333, abs=0.01)),
    Kind("filler size", "deposits/DEPOSIT/filler_diameter_mm", "3/32 in", Interval(2.38125, 2.38125), "3/", "1/8",
         Interval(3.175, 3.175)),
    Kind("metal", "metals/one/name", "SA-335 P11", "SA-335 P11", ""),
    Kind("filler", "deposits/DEPOSIT/filler", "ER80S-B2", "ER80S-B2", ""),
    Kind("text", "technique/cleaning", "brush, grind", "brush, grind", ""),
    Kind("position", "technique/position", "6G", "6G", ""),
    Kind("recorded", "deposits/DEPOSIT/current_a/mean", "110,5", 110.5, "110,", "111", 111.0, "proof"),
    Kind("count", "results/RESULT/count", "3", 3, "3.", "", None, "proof"),
    Kind("day", "welded_on", "2026-05-01", "2026-05-01", "2026-", "", None, "proof"),
]  # fmt: skip
QUANTITIES = [kind for kind in KINDS if kind.us]
HALVES = [kind for kind in KINDS if kind.half]


def names(kinds):
    return {"argvalues": kinds, "ids": [kind.name for kind in kinds]}


def at(person, kind) -> tuple[LeafField, str]:
    """The field of a kind, with the keyboard in it and all that stood there selected; and the leaf's path."""
    if kind.place == "proof":
        person.press("Alt+O")
        if person.place.guard.isVisible():
            person.click(person.place.guard.button)
    value = person.document.value
    path = kind.path.replace("DEPOSIT", value.deposits[0].id)
    path = path.replace("PASS", value.passes[0].id) if hasattr(value, "passes") else path
    path = path.replace("RESULT", value.results[0].id) if hasattr(value, "results") else path
    if path.startswith("passes/"):
        person.desk.go("passes")
        person.place.go_to(path)
        person.press("F2")
    else:
        person.desk.go_to(path)
    person.settle()
    field = person.focus()
    assert isinstance(field, LeafField)
    assert field.path == path
    field.selectAll()
    return field, path


def stated(person, path):
    found = leaf_value(person.document.value, path)
    return getattr(found, "nominal", found)


def same(found, wanted) -> bool:
    """Whether a leaf is what was typed: to the last digit that arithmetic leaves."""
    if not isinstance(wanted, Interval):
        return found == (pytest.approx(wanted) if isinstance(wanted, float) else wanted)
    ends = (found.low_open, found.high_open) == (wanted.low_open, wanted.high_open)
    return ends and (found.low, found.high) == pytest.approx((wanted.low, wanted.high))


@pytest.mark.parametrize("kind", **names(KINDS))
def test_typed_key_by_key_it_is_taken_over_and_undone_in_one_step(demo, kind):
    field, path = at(demo, kind)
    before, steps = stated(demo, path), demo.document.undo_stack.index()
    demo.type(kind.whole)
    assert field.text() == kind.whole, "not rewritten under the hand"
    assert same(stated(demo, path), kind.value)
    assert demo.document.undo_stack.index() <= steps + 1
    demo.press("Ctrl+Z")
    assert stated(demo, path) == before
    demo.press("Ctrl+Shift+Z")
    assert same(stated(demo, path), kind.value)


@pytest.mark.parametrize("kind", **names(KINDS))
def test_pasted_it_is_taken_over_whole(demo, kind):
    _, path = at(demo, kind)
    QGuiApplication.clipboard().setText(f"  {kind.whole} ")
    demo.press("Ctrl+V")
    assert same(stated(demo, path), kind.value)


@pytest.mark.parametrize("kind", **names(HALVES))
def test_left_half_it_stays_as_it_was_typed_and_the_value_is_what_it_was(demo, kind):
    field, path = at(demo, kind)
    before = stated(demo, path)
    demo.type(kind.half)
    assert stated(demo, path) == before
    demo.press("Return" if path.startswith("passes/") else "Tab")
    demo.settle()
    assert demo.document.working.pending == {path: kind.half}
    assert demo.document.text(path) == kind.half
    assert stated(demo, path) == before
    if not path.startswith("passes/"):  # a cell has its mark in the table
        assert field.property("mark") == "pending"
    assert any("not taken over" in text for _, text in demo.desk.strip.parts()) or kind.place == "proof"
    again, _ = at(demo, kind)
    assert again.text() == kind.half
    demo.type(kind.whole)
    assert same(stated(demo, path), kind.value)
    assert not demo.document.working.pending


@pytest.mark.parametrize("kind", **names(QUANTITIES))
def test_in_the_other_units_a_bare_number_is_what_stands_beside_the_field(demo, kind):
    demo.shell.reader.switch_units()
    _, path = at(demo, kind)
    demo.type(kind.us)
    assert same(stated(demo, path), kind.us_value)


@pytest.mark.parametrize("kind", **names(KINDS))
def test_the_editing_keys_edit_the_text_and_nothing_else(demo, kind):
    field, path = at(demo, kind)
    documents = len(demo.desk.works.all_entries())
    passes = len(getattr(demo.document.value, "passes", ()))
    demo.type(kind.whole)
    demo.press("Home", "Delete")
    assert field.text() == kind.whole[1:]
    demo.press("End", "Backspace")
    assert field.text() == kind.whole[1:-1]
    demo.press("Ctrl+A", "Delete")
    assert field.text() == ""
    demo.type(kind.whole)
    demo.press("Ctrl+U")
    assert field.text() == ""
    demo.type(f"{kind.whole} x")
    demo.press("Ctrl+Backspace")
    assert field.text().strip() == kind.whole
    demo.press("Home", "Ctrl+Delete", "Ctrl+Shift+Backspace")
    assert demo.focus() is field
    assert (len(demo.desk.works.all_entries()), demo.shell.reader.system) == (documents, "si")
    assert len(getattr(demo.document.value, "passes", ())) == passes
    assert field.path == path


@pytest.mark.parametrize(
    "path",
    ["header/impact", "header/second_code", "header/construction_code", "technique/progression", "joint/product"],
)
def test_a_list_takes_a_letter_and_is_undone(demo, path):
    demo.desk.go_to(path)
    demo.settle()
    field = demo.focus()
    assert isinstance(field, ChoiceField)
    before = demo.document.text(path)
    wanted = next(choice for choice in fields()[path].choices if choice != before)
    for key in ("Home", *["Down"] * field.count()):
        demo.press(key)
        if demo.document.text(path) == wanted:
            break
    assert demo.document.text(path) == wanted
    QApplication.processEvents()
    while demo.document.text(path) != before:
        demo.press("Ctrl+Z")
    assert demo.document.text(path) == before


def test_nonsense_of_any_kind_is_kept_told_and_never_a_value(demo):
    for kind in HALVES:
        if kind.place:
            continue
        _, path = at(demo, kind)
        before = stated(demo, path)
        for text in ("much", "--", "1/0", "12 parsecs", "1,500", "1.234,5", "5..", "9" * 30):
            at(demo, kind)
            demo.type(text)
            if path in demo.document.working.pending:
                assert stated(demo, path) == before, (kind.name, text)
                assert demo.document.complaints()[path]
            demo.press("Escape")
            if stated(demo, path) != before:
                demo.press("Ctrl+Z")
