"""A pipe by its nominal size and schedule: both numbers of the joint in one step."""

from collections.abc import Sequence

from anlage.session.leaves.pipe_names import pipe_names, true_pipe_name, with_pipe
from anlage.ui.kit.document import Document
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.offering_line import OfferingLine


@guarded
class PipeSizeField(OfferingLine):
    """Takes `4 sch 40`, states outside diameter and wall by the table, and shows the name for as long as it is true."""

    def __init__(self, document: Document) -> None:
        super().__init__()
        self.document, self._shown = document, ""
        self.setPlaceholderText("4 sch 40")
        self.setAccessibleName("Nominal pipe size and schedule")
        self.setToolTip("Nominal size and schedule: states outside diameter and wall from ASME B36.10M and B36.19M.")
        self.setReadOnly(not document.can_write)
        self.editingFinished.connect(self._on_finished)
        document.part("joint").connect(self.refresh)
        self.refresh()

    def words(self) -> Sequence[str]:
        """Return every pipe of the table."""
        return pipe_names()

    def take_word(self, word: str) -> None:
        """State the pipe that was taken from the list."""
        super().take_word(word)
        self._on_finished()

    def refresh(self) -> None:
        """Show the name of the pipe, while diameter and wall are its own."""
        name = true_pipe_name(self.document.value.joint)
        if name != self._shown:  # what was typed and names no pipe stays
            self._shown = name
            self.setText(name)
            self._mark("")

    def _on_finished(self) -> None:
        text = self.text().strip()
        if text == true_pipe_name(self.document.value.joint):
            return
        piped = with_pipe(self.document.value, text) if text else None
        self._mark("pending" if text and piped is None else "")
        if piped is not None:
            self.document.edit(piped, f"Pipe {text}")

    def _mark(self, mark: str) -> None:
        self.setProperty("mark", mark)
        self.style().unpolish(self)
        self.style().polish(self)
