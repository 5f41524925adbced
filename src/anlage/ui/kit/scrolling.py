"""A form that is higher than its window: the field that was gone to is brought into sight."""

from PySide6.QtWidgets import QApplication, QScrollArea, QWidget


def show_in(scroll: QScrollArea, widget: QWidget) -> None:
    """Scroll a form to one of its widgets, which may just have been shown: its place is laid out first."""
    form = scroll.widget()
    layout = form.layout()
    if layout is not None:
        layout.activate()
        form.resize(form.width(), max(form.height(), layout.totalMinimumSize().height()))
    QApplication.sendPostedEvents(form)
    scroll.ensureWidgetVisible(widget, 0, 3 * widget.height())
