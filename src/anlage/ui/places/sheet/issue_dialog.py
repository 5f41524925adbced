"""Issuing is asked once: what is amiss is shown, and nothing is issued by a key that was meant for something else."""

from collections.abc import Callable, Sequence

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QFormLayout, QLabel, QPushButton, QScrollArea, QWidget

from anlage.core.errors import AnlageError
from anlage.session.works.issuing import Against, Saying
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.text_line import TextLine

WIDTH_PX, MOST_LIST_PX = 560, 260


class IssueDialog(Question):
    """What speaks against issuing, who issues it, what changed, and why all the same.

    Parameters
    ----------
    number : number of the procedure
    found : what speaks against it, and the revision that it will be
    author : who issued the last one here
    issue : issues it, or refuses
    """

    def __init__(
        self, number: str, found: Against, author: str, issue: Callable[[Saying], None], parent: QWidget
    ) -> None:
        super().__init__(f"Issue {number or 'without a number'} as revision {found.revision}", parent)
        self._issue = issue
        self.setMinimumWidth(WIDTH_PX)
        self.column.setSpacing(10)
        self.listed = QLabel(_listed(found))
        self.listed.setWordWrap(True)
        self.listed.setTextFormat(Qt.TextFormat.PlainText)
        scroll = QScrollArea()
        scroll.setWidget(self.listed)
        scroll.setWidgetResizable(True)
        scroll.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        scroll.setMaximumHeight(MOST_LIST_PX)
        scroll.setMinimumHeight(min(self.listed.heightForWidth(WIDTH_PX - 64) + 4, MOST_LIST_PX))
        self.column.addWidget(scroll)
        self.author, self.change, self.reason = TextLine(author), TextLine(), TextLine()
        form = QFormLayout()
        form.setHorizontalSpacing(12)
        rows = [("Issued by", self.author, "your name", True), ("What changed", self.change, "", True),
                ("Issued all the same, because", self.reason, "printed on the sheet", found.needs_reason)]  # fmt: skip
        for label, field, hint, shown in rows:
            field.setPlaceholderText(hint)
            field.setAccessibleName(label)
            if shown:
                form.addRow(label, field)
        if not found.needs_change:
            self.change.setPlaceholderText("the first revision")
        self.column.addLayout(form)
        self.complaint = self.complaint_line(1)
        self.column.addWidget(self.complaint)
        self.issue_button, self.leave_button = QPushButton("Issue"), QPushButton("Not now")
        self.add_foot(self.leave_button, self.issue_button)
        self.leave_button.clicked.connect(self.reject)
        self.issue_button.clicked.connect(self.issue)
        wanted = (self.author, *((self.change,) if found.needs_change else ()),
                  *((self.reason,) if found.needs_reason else ()))  # fmt: skip
        empty = next((field for field in wanted if not field.text().strip()), self.leave_button)
        empty.setFocus()

    def issue(self) -> None:
        """Issue it, or say why it cannot be."""
        try:
            self._issue(Saying(self.author.text().strip(), self.change.text(), self.reason.text()))
        except AnlageError as refusal:
            self.complaint.setText(str(refusal))
            return
        self.accept()


def _listed(found: Against) -> str:
    """Return what speaks against issuing, a line each."""
    lines: list[str] = [f"{said[0].upper()}{said[1:]}." for said in (*found.bare, found.waiting) if said]
    kinds: Sequence[tuple[str, Sequence[str]]] = (
        ("Outside", found.outside), ("Unproven", found.unproven), ("Only proposed, confirmed by nobody", found.proposed)
    )  # fmt: skip
    for word, sentences in kinds:
        if sentences:
            lines += [f"{word}: {len(sentences)}", *(f"  {each}" for each in sentences)]
    return "\n".join(lines) or "Every variable is inside."
