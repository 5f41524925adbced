"""The Heat place: how hot before, between and after each pass? Preheat, sequence and purge, a view each."""

from collections.abc import Callable
from functools import partial
from typing import cast

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QVBoxLayout, QWidget

from anlage.ui.kit.document import Document
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.place import Desk, Place
from anlage.ui.kit.tabs import View, Views
from anlage.ui.places.heat.beside import Beside
from anlage.ui.places.heat.leaves import VIEW_OF
from anlage.ui.places.heat.preheat_view import PreheatPane

VIEWS = (
    ("preheat", "Preheat", "preheat_view:PreheatPane"), ("cooling", "Cooling", "cooling_view:CoolingPane"),
    ("sequence", "Sequence", "sequence_view:SequencePane"), ("after", "After", "after_view:AfterPane"),
    ("purge", "Purge", "purge_view:PurgePane"),
)  # fmt: skip
ALONE = ("purge",)  # the views that ask neither codes nor machines


class HeatPlace(Place):
    """Views behind tabs: each made when it is first shown."""

    def __init__(self, document: Document, desk: Desk) -> None:
        super().__init__()
        self.document, self.desk = document, desk
        offered = [View(name, word, self._maker(name, make)) for name, word, make in VIEWS]
        self.views = Views(document, offered)
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 10, 16, 12)
        column.addWidget(self.views)
        document.changed.connect(self.refresh)
        document.reader.units_changed.connect(self.refresh)

    def _maker(self, view: str, make: str) -> Callable[[Document], QWidget]:
        pane: Callable[..., QWidget] = loaded(f"anlage.ui.places.heat.{make}")
        beside = Beside(self.desk.rules.codes, self.desk.machines)
        return pane if view in ALONE else partial(pane, beside=beside)

    def refresh(self) -> None:
        """Show in the view in front what is true now."""
        self.views.refresh()

    def begin(self) -> None:
        """Put the keyboard on what is chosen here: the picture of the preheat."""
        self.views.show_view("preheat")
        cast("PreheatPane", self.views.view("preheat")).picture.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf, in its view; return whether it is here."""
        view = VIEW_OF.get(path)
        if view is None:
            return False
        self.views.show_view(view)
        pane: QWidget = self.views.view(view)
        cast("PreheatPane", pane).fields[path].setFocus(Qt.FocusReason.ShortcutFocusReason)
        return True

    def take_governing(self) -> None:
        """Take the preheat that governs."""
        self.views.show_view("preheat")
        cast("PreheatPane", self.views.view("preheat")).take_governing()
