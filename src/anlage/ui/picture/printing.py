"""Pages on paper or in a file: asked for, and painted for a printer as on screen, true to the millimetre."""

from collections.abc import Sequence
from pathlib import Path

from PySide6.QtCore import QMarginsF, QPointF, QSizeF, QStandardPaths
from PySide6.QtGui import QPageLayout, QPageSize, QPainter
from PySide6.QtPrintSupport import QPrintDialog, QPrinter
from PySide6.QtWidgets import QDialog, QFileDialog, QWidget

from anlage.core.drawing import DisplayList
from anlage.ui.kit.look import Look
from anlage.ui.picture.painter import Placed, paint

MM_PER_INCH = 25.4


def ask_for_pdf(parent: QWidget, title: str, name: str) -> Path | None:
    """Let the person choose where sheets go, in the folder of documents under a name; `None` for nowhere."""
    folder = QStandardPaths.writableLocation(QStandardPaths.StandardLocation.DocumentsLocation)
    proposed = str(Path(folder) / f"{name}.pdf".replace("/", "-"))
    chosen, _ = QFileDialog.getSaveFileName(parent, title, proposed, "PDF (*.pdf)")
    path = Path(chosen)
    return None if not chosen else path if path.suffix else path.with_suffix(".pdf")


def ask_to_print(pages: Sequence[DisplayList], title: str, parent: QWidget) -> QPrintDialog:
    """Let the person choose a printer, and print pages there; return the question, which is open."""
    printer = QPrinter(QPrinter.PrinterMode.HighResolution)
    printer.setDocName(title)
    dialog = QPrintDialog(printer, parent)
    dialog.setWindowTitle(f"Print {title}")
    dialog.finished.connect(lambda result: print_pages(pages, printer) if result else None)
    QDialog.open(dialog)  # that of a printer asks for a receiver
    return dialog


def print_pages(pages: Sequence[DisplayList], printer: QPrinter) -> None:
    """Paint pages for a printer, each on a sheet of its own size."""
    for number, page in enumerate(pages):
        width, height = page.high
        size = QPageSize(QSizeF(width, height), QPageSize.Unit.Millimeter)
        printer.setPageLayout(QPageLayout(size, QPageLayout.Orientation.Portrait, QMarginsF()))
        if number == 0:
            painter = QPainter(printer)
        else:
            printer.newPage()
        scale = printer.resolution() / MM_PER_INCH
        paint(Placed(page, QPointF(0.0, height * scale), scale), painter, Look.of("light"))
    if pages:
        painter.end()
