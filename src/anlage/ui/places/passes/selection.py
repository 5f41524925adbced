"""Which pass is chosen: shared by the table and both pictures."""

from PySide6.QtCore import QObject, Signal

from anlage.core.procedure import Pass
from anlage.ui.kit.document import Document


class Selection(QObject):
    """The chosen pass of the open procedure; it follows the passes when they go.

    Signals
    -------
    changed() : another pass is chosen, or none
    """

    changed = Signal()

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        passes = document.value.passes
        self.pass_id = passes[0].id if passes else ""

    def follow(self) -> None:
        """Follow the passes from now on; called when the table does, so that a row is there before it is chosen."""
        self.document.changed.connect(self._on_document_changed)

    @property
    def chosen(self) -> Pass | None:
        """The chosen pass."""
        return next((each for each in self.document.value.passes if each.id == self.pass_id), None)

    @property
    def row(self) -> int:
        """Its place in the order, -1 for none."""
        return next((n for n, each in enumerate(self.document.value.passes) if each.id == self.pass_id), -1)

    def choose(self, pass_id: str) -> None:
        """Choose a pass by its id."""
        if pass_id != self.pass_id:
            self.pass_id = pass_id
            self.changed.emit()

    def _on_document_changed(self, before: object, _after: object) -> None:
        """Keep a pass chosen: one that has come, or the neighbour of one that is gone."""
        old, new = (tuple(each.id for each in working.value.passes) for working in (before, self.document.working))  # type: ignore[attr-defined]
        if old == new:
            return
        come = [each for each in new if each not in old]
        if come:
            self.choose(come[0])
        elif self.pass_id not in new:
            place = old.index(self.pass_id) if self.pass_id in old else 0
            self.choose(new[min(place, len(new) - 1)] if new else "")
