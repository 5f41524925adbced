"""Several sheets in one go: which procedures, as issued or as they are, to a printer or into one file."""

from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtWidgets import (
    QCheckBox,
    QListWidget,
    QListWidgetItem,
    QPushButton,
)

from anlage.core.errors import AnlageError
from anlage.session.kinds import PROCEDURE
from anlage.session.output.batch import sheets_of
from anlage.session.output.printed import Desired, Printed, together, write_pdf
from anlage.session.output.wps_sheet import Stationery
from anlage.ui.kit.dialog import Question
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.look import measure

if TYPE_CHECKING:
    from PySide6.QtPrintSupport import QPrintDialog

    from anlage.ui.desk.desk import WindowDesk

TITLE = "Sheets of several procedures"


class BatchDialog(Question):
    """The procedures of the works file, each to be ticked."""

    def __init__(self, desk: "WindowDesk") -> None:
        super().__init__(TITLE, desk.shell)
        self.desk = desk
        self.setMinimumSize(460, 420)
        self.list, self.issued = QListWidget(), QCheckBox("As issued last, not as they are now")
        self.complaint = self.complaint_line(2)
        self.list.setAccessibleName("Procedures")
        works = desk.works
        for entry in works.entries(PROCEDURE) if works else ():
            item = QListWidgetItem(f"{entry.number}   {entry.title}".strip())
            item.setData(Qt.ItemDataRole.UserRole, entry.id)
            item.setCheckState(Qt.CheckState.Checked)
            self.list.addItem(item)
        self.print_button, self.pdf_button, close = (
            QPushButton("Print…"), QPushButton("Save as one PDF…"), QPushButton("Close"),
        )  # fmt: skip
        for widget in (self.list, self.issued, self.complaint):
            self.column.addWidget(widget)
        self.add_foot(close, self.print_button, self.pdf_button)
        close.clicked.connect(self.accept)
        self.print_button.clicked.connect(self.ask_to_print)
        self.pdf_button.clicked.connect(self.ask_for_pdf)
        self.print_dialog: QPrintDialog | None = None
        self.list.setFocus()

    def chosen(self) -> list[str]:
        """Return the ids of the procedures that are ticked."""
        items = [self.list.item(n) for n in range(self.list.count())]
        return [item.data(Qt.ItemDataRole.UserRole) for item in items if item.checkState() == Qt.CheckState.Checked]

    def made(self) -> Printed | None:
        """Return the sheets that are ticked as one; `None` where there is none. What could not be made is told."""
        assert self.desk.works is not None, "a works file is open"
        settings = self.desk.settings
        on = Stationery(settings.paper, measure, settings.letterhead)
        by = self.desk.machines(), self.desk.rules.codes()
        desired = Desired(on, settings.signature, self.desk.clocks.now(), *by, runs_section=False)
        sheets, refused = sheets_of(self.desk.works, self.chosen(), desired, issued=self.issued.isChecked())
        self.complaint.setText("; ".join(refused) or ("" if sheets else "Tick a procedure first."))
        return together(sheets, desired) if sheets else None

    def ask_to_print(self) -> None:
        """Let the person choose a printer."""
        if (made := self.made()) is not None:
            self.print_dialog = loaded("anlage.ui.picture.printing:ask_to_print")(made.pages, made.title, self)

    def ask_for_pdf(self) -> None:
        """Let the person choose a file, and write all sheets into it."""
        made = self.made()
        if made is None:
            return
        path = loaded("anlage.ui.picture.printing:ask_for_pdf")(self, TITLE, "sheets")
        if path is None:
            return
        try:
            write_pdf(path, made)
        except AnlageError as fault:
            self.complaint.setText(str(fault))
            return
        self.desk.mention(f"{len(made.pages)} pages are written to {path}.")
        if not self.complaint.text():
            self.accept()


def ask(desk: "WindowDesk") -> BatchDialog | None:
    """Ask which sheets are wanted."""
    if desk.works is None:
        desk.say("Open a works file first.")
        return None
    dialog = BatchDialog(desk)
    dialog.open()
    return dialog
