"""What the section shows and what dragging its dimensions does to the open document."""

from collections.abc import Callable

from PySide6.QtCore import QObject

from anlage.core.drawing import DisplayList, Point
from anlage.core.drawing.cap_limit import CapLimit
from anlage.core.drawing.section import grip
from anlage.core.joint import Preparation, drawn_default
from anlage.core.procedure import drawable
from anlage.data.look import role_styles
from anlage.session.leaves.draft import moved
from anlage.session.leaves.steps import on_step
from anlage.session.leaves.table import field_of
from anlage.session.weld.picture_sheet import Sheet
from anlage.session.weld.pictures import section_at, section_picture
from anlage.ui.kit.document import Document
from anlage.ui.kit.look import measure


class JointPresenter(QObject):
    """The section of the open procedure."""

    def __init__(self, document: Document, limit: Callable[[], CapLimit | None]) -> None:
        super().__init__()
        self.document, self._limit = document, limit
        self._drag: tuple[str, Preparation, float, float] | None = None  # leaf, joint, its number and grip at the start
        self._scale: float | None = None
        self._visit: tuple[str, object] = ("", object())

    def picture(self, width_mm: float, height_mm: float) -> DisplayList | None:
        sketch = drawable(self.document.value.joint)
        if sketch is None:
            return None
        sheet = Sheet(width_mm, height_mm, self.document.system, measure)
        if self._drag is not None and self._scale is not None:
            return section_at(sketch, sheet, self._scale, self._limit())
        picture = section_picture(sketch, sheet, self._limit())
        self._scale = picture.scale
        return picture

    def heat(self) -> tuple[float, float] | None:
        return None

    def is_stale(self) -> bool:
        return self.document.value.joint.kind is not None and drawable(self.document.value.joint) is None

    def empty_text(self) -> str:
        if self.document.value.joint.kind is None:
            return "Choose a preparation on the right: it is drawn here to scale, and every dimension can be dragged."
        return "These dimensions cannot stand together; the fields on the right say why."

    def take(self, target: str, at: Point) -> None:
        sketch = drawable(self.document.value.joint)
        if sketch is not None:
            number = _number(sketch.preparation, _name(target))
            self._drag = (target, sketch.preparation, number, grip(sketch.preparation, _name(target), at))
            self._visit = (target, object())

    def drag(self, at: Point, *, fine: bool) -> None:
        if self._drag is None:
            return
        target, joint, number, held = self._drag
        wanted = max(number + grip(joint, _name(target), at) - held, 0.0)
        if not fine:
            wanted = on_step(wanted, target, self.document.system)
        self._move(target, wanted)

    def release(self) -> None:
        self._drag = None

    def step(self, target: str, steps: int) -> None:
        sketch = drawable(self.document.value.joint)
        if sketch is None:
            return
        if self._visit[0] != target:
            self._visit = (target, object())
        number = _number(sketch.preparation, _name(target))
        self._move(target, on_step(number, target, self.document.system, steps))

    def _move(self, target: str, number: float) -> None:
        """State a number, unless the joint could not be drawn with it: a drag stops where the joint ends."""
        if drawable(moved(self.document.working, target, number).value.joint) is not None:
            self.document.move(target, number, self._visit[1])

    def choose(self, target: str) -> None:
        """Areas of the section are not chosen."""

    def dropped(self, source: str, target: str) -> None:
        """Areas of the section stay where they are."""

    def describe(self, target: str) -> str:
        if not target:
            return ""
        field, text = field_of(target), self.document.text(target)
        said = f"{text} {field.unit(self.document.system)}".strip() if text else "not stated"
        return f"{field.label}: {said}. {field.tip} Arrow keys step it, Enter or a double click types it."

    def svg(self) -> str:
        from anlage.formats.svg import svg  # when asked for: a start needs no file format

        picture = self.picture(160.0, 110.0)
        return svg(picture, role_styles("light"), ground="#FFFFFF") if picture else ""


def _name(target: str) -> str:
    return target.rpartition("/")[2]


def _number(joint: Preparation, name: str) -> float:
    """Return what a dimension is drawn with; what is not stated is drawn by its rule: the second leg as the first."""
    stated = getattr(joint, name)
    return drawn_default(joint, name) if stated is None else stated
