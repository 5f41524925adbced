"""What is wrong is said at its field, and nothing on the page moves for it."""

import pytest
from PySide6.QtCore import QEvent, QPoint
from PySide6.QtWidgets import QApplication, QWidget

from anlage.ui.kit.complaint import Complaint


def said(person):
    """The complaints that are seen."""
    return [each for each in person.shell.findChildren(Complaint) if each.isVisible()]


def places(person):
    """Where everything on the page lies, but the steps to do next."""
    shown = [each for each in person.place.findChildren(QWidget) if each.isVisible()]
    steps = getattr(person.place, "steps", [])
    return {
        id(each): (each.mapTo(person.shell, QPoint(0, 0)), each.size())
        for each in shown if not isinstance(each, Complaint) and each not in steps
    }  # fmt: skip


@pytest.mark.parametrize(
    ("place", "path"),
    [("joint", "joint/thickness_mm"), ("job", "seam/weave_limit_mm"), ("job", "range/thicker_member_mm")],
)
def test_a_text_that_is_none_is_said_under_its_field_and_moves_nothing(demo, place, path):
    demo.desk.go(place)
    demo.desk.go_to(path)
    demo.settle()
    before = places(demo)
    demo.type("much")
    demo.settle()
    (complaint,) = said(demo)
    assert complaint.text().startswith("much is not a number; write")
    assert places(demo) == before
    field = demo.focus()
    assert complaint.geometry().top() > field.mapTo(demo.shell, QPoint(0, 0)).y()
    demo.press("Tab")
    demo.settle()
    assert said(demo) == []
    assert field.property("mark") == "pending"
    field.setFocus()
    assert len(said(demo)) == 1
    demo.press("Escape", "Escape")
    demo.type("18" if place == "joint" else "80")
    demo.settle()
    assert said(demo) == []


def test_where_the_window_ends_it_stands_over_the_field(open_person, tmp_path):
    person = open_person(tmp_path / "w.anlage", width=900, height=460)
    person.desk.go("job")
    person.desk.go_to("joint/backing")
    person.desk.go_to("seam/weave_limit_mm")
    person.type("wide")
    person.settle()
    (complaint,) = said(person)
    assert person.shell.rect().contains(complaint.geometry())
    assert not complaint.geometry().intersects(
        person.focus().rect().translated(person.focus().mapTo(person.shell, QPoint(0, 0)))
    )


def test_it_goes_with_its_place(demo):
    demo.desk.go("joint")
    demo.desk.go_to("joint/thickness_mm")
    demo.type("much")
    demo.settle()
    assert len(said(demo)) == 1
    demo.desk.go("register")
    demo.settle()
    assert said(demo) == []


def test_it_goes_with_the_field_that_it_belongs_to(demo):
    demo.press("Alt+R")
    demo.settle()
    demo.press("Return")
    demo.type("much")
    demo.settle()
    assert len(said(demo)) == 1
    demo.desk._places.forget()
    QApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
    demo.settle()
    assert said(demo) == []
