"""At every size and scale that is promised no control is out of reach, and no text is cut but on purpose."""

import pytest
from PySide6.QtCore import QPoint, QRect, Qt
from PySide6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QApplication,
    QComboBox,
    QLabel,
    QLineEdit,
    QScrollArea,
    QStackedWidget,
    QToolButton,
    QWidget,
)

from anlage.session.works.demo import demo_file
from anlage.ui.kit.tabs import Views
from anlage.ui.places import place_specs

NOW = "2026-11-23T12:00:00Z"
# As a window sees them: a screen of 1920 x 1080 at 200 % is 960 x 540 with its title and a bar, 1280 x 800 with text at
# 150 % is 853 x 533.
SIZES = {"1024x700": (1024, 700), "1280x800 at 150 %": (853, 495), "1920x1080 at 200 %": (960, 508)}
ELIDED = ("heat input", "hottest at", "coldest at")  # sentences that end in dots where there is no room


@pytest.fixture(params=SIZES.values(), ids=SIZES)
def small(request, open_person, tmp_path):
    width, height = request.param
    person = open_person(demo_file(NOW, folder=tmp_path), width=width, height=height)
    person.settle()
    assert (person.shell.width(), person.shell.height()) == (width, height)
    return person


def shown_in(widget: QWidget) -> tuple[QWidget, QRect]:
    """What a scroll area would scroll to show a widget, or the window, and how much of it can be shown at all."""
    parent = widget.parentWidget()
    while parent is not None and not parent.isWindow():
        view = parent.parentWidget()
        area = view.parentWidget() if view is not None else None
        if isinstance(area, QScrollArea) and parent is area.widget():
            never = Qt.ScrollBarPolicy.ScrollBarAlwaysOff
            whole = parent.rect()
            width = view.width() if area.horizontalScrollBarPolicy() == never else whole.width()
            height = view.height() if area.verticalScrollBarPolicy() == never else whole.height()
            return parent, QRect(0, 0, width, height)
        parent = view
    return widget.window(), widget.window().rect()


def out_of_reach(person) -> list[str]:
    """What lies outside of whatever could be scrolled to show it."""
    found, controls = [], QAbstractButton | QLineEdit | QComboBox | QAbstractScrollArea
    for widget in person.place.findChildren(QWidget):
        if not widget.isVisible() or not isinstance(widget, controls) or _scrolled_by_hand(widget):
            continue
        home, reach = shown_in(widget)
        rect = QRect(widget.mapTo(home, QPoint(0, 0)), widget.size())
        if not reach.adjusted(-1, -1, 1, 1).contains(rect):
            found.append(f"{type(widget).__name__} {widget.accessibleName()} {rect.getRect()} in {reach.getRect()}")
    return found


def _scrolled_by_hand(widget: QWidget) -> bool:
    """Whether it lies in a list or table, which scrolls its own cells."""
    parent = widget.parentWidget()
    while parent is not None:
        if isinstance(parent, QAbstractScrollArea) and not isinstance(parent, QScrollArea):
            return True
        parent = parent.parentWidget()
    return False


def cut(person) -> list[str]:
    """Texts that do not fit their widgets."""
    found = []
    for widget in person.shell.findChildren(QLabel):
        if widget.isVisible() and not widget.wordWrap() and not widget.text().startswith(ELIDED):
            found += [
                line for line in widget.text().split("\n")
                if widget.width() < widget.fontMetrics().horizontalAdvance(line) - 1
            ]  # fmt: skip
    for button in person.shell.findChildren(QAbstractButton):
        bare = isinstance(button, QToolButton) and button.text() == ""
        if button.isVisible() and button.text() and not bare and button.width() > 45:
            needed = button.fontMetrics().horizontalAdvance(button.text())
            found += [button.text()] if button.width() < needed else []
    return found


def test_every_place_and_view_can_be_reached_and_read(small):
    for number in range(2):
        small.desk.open_document(small.desk.works.entries()[number].id)
        for spec in place_specs():
            small.desk.go(spec.id)
            small.settle()
            views = small.place.findChild(Views)
            for name in list(views._offered) if views is not None else [""]:
                if name:
                    views.show_view(name)
                    small.settle()
                assert out_of_reach(small) == [], f"{spec.id} {name}"
                assert cut(small) == [], f"{spec.id} {name}"
            if views is not None:
                views.show_view(next(iter(views._offered)))
            bar = small.shell.places
            assert all(bar.rect().contains(button.geometry()) for button in bar.buttons.values())


def test_what_has_the_keyboard_is_scrolled_into_view(small):
    small.press("Alt+P")
    small.place.table.setFocus()
    small.settle()
    corner = small.place.table.mapTo(small.shell.scroll.viewport(), QPoint(0, 0))
    assert small.shell.scroll.viewport().rect().contains(corner)


def test_a_notice_moves_nothing(small):
    small.press("Alt+J")
    before = small.place.mapTo(small.shell, QPoint(0, 0)), small.place.size()
    small.desk.say("Saved something in a folder with a rather long name, which was chosen some time ago by somebody.")
    small.settle()
    assert (small.place.mapTo(small.shell, QPoint(0, 0)), small.place.size()) == before
    assert small.shell.notice.isVisible()
    assert small.shell.rect().contains(small.shell.notice.geometry())


def test_words_under_icons_go_where_there_is_no_room_for_them(open_person, tmp_path):
    person = open_person(demo_file(NOW, folder=tmp_path), width=1024, height=430)
    QApplication.processEvents()
    bar = person.shell.places
    assert all(bar.rect().contains(button.geometry()) for button in bar.buttons.values())
    assert {button.accessibleName() for button in bar.buttons.values()} >= {"Job", "Register"}
    assert isinstance(person.shell.stack, QStackedWidget)
