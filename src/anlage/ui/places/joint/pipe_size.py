"""A pipe by its nominal size and schedule: both numbers of the joint in one step."""

from PySide6.QtCore import Qt
from PySide6.QtGui import QFocusEvent
from PySide6.QtWidgets import QCompleter

from anlage.core.document import with_at
from anlage.session.leaves.pipe_names import pipe_named, pipe_names
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.text_line import TextLine


@guarded
class PipeSizeField(TextLine):
    """Takes `4 sch 40`, and states outside diameter and wall by the table of pipe sizes."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document = document
        self.setPlaceholderText("4 sch 40")
        self.setAccessibleName("Nominal pipe size and schedule")
        self.setToolTip("Nominal size and schedule: states outside diameter and wall from ASME B36.10M and B36.19M.")
        self.setReadOnly(not document.can_write)
        self.editingFinished.connect(self._on_finished)

    def focusInEvent(self, event: QFocusEvent) -> None:
        if self.completer() is None:
            completer = QCompleter(list(pipe_names()), self)
            completer.setFilterMode(Qt.MatchFlag.MatchContains)
            self.setCompleter(completer)
        super().focusInEvent(event)

    def _on_finished(self) -> None:
        pipe = pipe_named(self.text())
        self.setProperty("mark", "" if pipe or not self.text().strip() else "pending")
        self.style().unpolish(self)
        self.style().polish(self)
        if pipe:
            wps = with_at(self.document.value, "joint/od_mm", pipe.od_mm)
            self.document.edit(with_at(wps, "joint/thickness_mm", pipe.wall_mm), f"Pipe {self.text().strip()}")
