"""What is painted where something changed is the same, pixel for pixel, as the picture painted whole."""

import pytest
from msgspec.structs import replace

from anlage.ui.picture import canvas as module
from anlage.ui.picture.canvas import Canvas, changed


@pytest.fixture
def passes(demo):
    demo.press("Alt+P")
    demo.settle()
    return demo


@pytest.fixture
def whole(monkeypatch):
    """How often a picture was painted whole."""
    sizes = []
    real = module.paint

    def paint(placed, *rest, **how):
        sizes.append(len(placed.picture.items))
        real(placed, *rest, **how)

    monkeypatch.setattr(module, "paint", paint)
    return sizes


def afresh(view):
    return Canvas().painted(view.placed, view.manner()).toImage()


def kept(view):
    return view._canvas.painted(view.placed, view.manner()).toImage()


def views(person):
    return person.place.bead_view, person.place.window_view


@pytest.mark.parametrize(
    "edits",
    [
        {"current_a": "95..117"},
        {"current_a": "95..117", "travel_speed_mm_min": "60..90"},
        {"travel_speed_mm_min": "20"},  # the hottest of all: every colour moves
        {"bead_area_mm2": "14"},
        {"current_a": "9", "voltage_v": ""},
        {"role": "hot"},
    ],
)
@pytest.mark.parametrize("row", [0, 3])
def test_a_picture_is_the_same_whether_painted_whole_or_where_it_changed(passes, edits, row):
    owner = passes.wps.passes[row].id
    for leaf, text in edits.items():
        passes.document.type_text(f"passes/{owner}/{leaf}", text)
        passes.settle()
        for view in views(passes):
            assert kept(view) == afresh(view)


def test_one_digit_paints_few_items_anew(passes, whole):
    whole.clear()
    passes.document.type_text(f"passes/{passes.wps.passes[0].id}/current_a", "95..117")
    passes.settle()
    all_items = [len(view.placed.picture.items) for view in views(passes)]
    assert len(whole) == 2, "each picture is painted once"
    assert sum(whole) < sum(all_items) / 3


@pytest.mark.parametrize("how", ["theme", "held", "nearer", "size"])
def test_what_is_shown_otherwise_is_painted_whole(passes, whole, how):
    _, view = views(passes)
    whole.clear()
    if how == "theme":
        passes.desk.reader.use_theme("dark")
    elif how == "held":
        view.setFocus()
        passes.press("Tab")
    elif how == "nearer":
        view.go_nearer(1.0)
    else:
        view.resize(view.width() - 40, view.height())
    passes.settle()
    assert len(view.placed.picture.items) in whole
    assert kept(view) == afresh(view)


def test_an_order_that_changed_is_a_change(passes):
    placed = views(passes)[0].placed
    turned = replace(placed, picture=replace(placed.picture, items=placed.picture.items[::-1]))
    assert changed(placed, placed) == []
    assert changed(placed, turned) is None
    swapped = (placed.picture.items[1], placed.picture.items[0], *placed.picture.items[2:])
    assert changed(placed, replace(placed, picture=replace(placed.picture, items=swapped))) == [0, 1]
