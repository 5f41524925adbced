"""Whatever a picture can be asked, every presenter answers: a drag from anywhere to anywhere kills nothing."""

import inspect
import pkgutil
from importlib import import_module

import pytest
from PySide6.QtCore import QPoint, Qt
from PySide6.QtTest import QTest

import anlage.ui
from anlage.core.document import Dimension, with_at
from anlage.core.drawing.section import grip
from anlage.core.joint import KINDS, shape_of
from anlage.core.procedure import Joint, drawable
from anlage.ui.picture.presenter import Presenter
from anlage.ui.picture.view import PictureView

ASKED = [name for name in vars(Presenter) if not name.startswith("_")]


def presenters():
    found = []
    for module in pkgutil.walk_packages(anlage.ui.__path__, "anlage.ui."):
        for kind in vars(import_module(module.name)).values():
            own = inspect.isclass(kind) and kind.__module__ == module.name and kind is not Presenter
            if own and hasattr(kind, "picture") and hasattr(kind, "is_stale"):
                found.append(kind)
    return [kind for kind in found if not kind.__subclasses__()]  # what others build on is shown by none


@pytest.mark.parametrize("kind", presenters(), ids=lambda kind: kind.__name__)
def test_a_presenter_answers_whatever_its_view_may_ask(kind):
    assert [name for name in ASKED if not callable(getattr(kind, name, None))] == []


@pytest.mark.parametrize("place", ["register", "joint", "passes"])
def test_a_drag_from_anywhere_to_anywhere_is_survived(demo, place, capsys):
    demo.desk.go(place)
    demo.settle()
    for view in demo.place.findChildren(PictureView):
        if not view.isVisible():
            continue
        wide, high = view.width(), view.height()
        points = [QPoint(wide * x // 6, high * y // 6) for x in range(1, 6) for y in (1, 3, 5)]
        for start, end in zip(points, points[7:] + points[:7], strict=True):
            QTest.mousePress(view, Qt.MouseButton.LeftButton, pos=start)
            QTest.mouseMove(view, end)
            QTest.mouseRelease(view, Qt.MouseButton.LeftButton, pos=end)
            demo.settle()
    assert "Traceback" not in capsys.readouterr().err


def closed(kind):
    """A preparation with its root closed, `None` where it has none that could be."""
    sketch = drawable(Joint(kind=kind, root_opening_mm=Dimension.stated(nominal=0.0)))
    fields = {each.field for each in shape_of(sketch.preparation).dimensions} if sketch else set()
    return sketch.preparation if "root_opening_mm" in fields else None


@pytest.mark.parametrize("kind", [kind for kind in KINDS if closed(kind) is not None])
def test_a_closed_root_is_opened_by_its_handle(kind):
    there, aside, above = (grip(closed(kind), "root_opening_mm", at) for at in ((0, 0), (1, 0), (0, 1)))
    assert max(abs(aside - there), abs(above - there)) >= 1.0


def test_a_closed_root_is_dragged_open_in_the_window(demo):
    closed_root = with_at(demo.wps, "joint/root_opening_mm", Dimension.stated(nominal=0.0))
    demo.document.edit(closed_root, "Root opening")
    demo.settle()
    view = demo.place.section
    demo.drag(view, "joint/root_opening_mm", (1.0, 0.0))
    assert demo.wps.joint.root_opening_mm.nominal > 0
