"""The places: made when they are first shown, told of changes while they are shown."""

from pkgutil import resolve_name

from PySide6.QtCore import QObject
from PySide6.QtWidgets import QStackedWidget

from anlage.ui.kit.document import Document, DocumentView
from anlage.ui.kit.place import Desk, Place, PlaceSpec

MOST_DOCUMENTS = 4  # whose places are kept while others are in front


class PlacesDesk(QObject):
    """Holds the places, those of the works file and those of every open document."""

    def __init__(self, specs: tuple[PlaceSpec, ...], stack: QStackedWidget, desk: Desk, parent: QObject) -> None:
        super().__init__(parent)
        self.specs = {spec.id: spec for spec in specs}
        self._stack, self._desk = stack, desk
        self._made: dict[tuple[str, str], tuple[Place, DocumentView | None]] = {}
        self._front: Place | None = None

    def show(self, place_id: str, document: Document | None) -> Place:
        """Bring a place to the front, of a document or of the works file, which needs none, and return it."""
        spec = self.specs[place_id]
        key = (place_id, document.document_id if spec.kinds and document is not None else "")
        if key not in self._made:
            self._made[key] = self._make(spec, document)
            self._stack.addWidget(self._made[key][0])
        place, _ = self._made[key] = self._made.pop(key)  # shown last
        for other, seen in self._made.values():
            if seen is not None:
                seen.set_shown(shown=other is place)
        self._stack.setCurrentWidget(place)
        self._front = place
        self._let_go()
        return place

    def _let_go(self) -> None:
        """Let go of the places of documents that were not shown for long: each holds megabytes."""
        shown = list(dict.fromkeys(document for _, document in reversed(self._made) if document))
        for key, (place, _) in tuple(self._made.items()):
            if key[1] in shown[MOST_DOCUMENTS:] and place.may_go():
                self._remove(key)

    def refresh_register(self) -> None:
        """Show anew the place of the works file, where one is in front."""
        if self._front is not None and any(
            place is self._front and seen is None for place, seen in self._made.values()
        ):
            self._front.refresh()

    def _make(self, spec: PlaceSpec, document: Document | None) -> tuple[Place, DocumentView | None]:
        make = resolve_name(spec.make)
        if not spec.kinds:
            return make(self._desk), None
        assert document is not None, "a place of a document has one"
        seen = document.view()
        return make(seen, self._desk), seen

    @property
    def front(self) -> Place | None:
        """The place in front."""
        return self._front

    def forget(self) -> None:
        """Let go of every place of a document: the works file is closed."""
        self._front = None
        for key, (_, seen) in tuple(self._made.items()):
            if seen is not None:
                self._remove(key)

    def _remove(self, key: tuple[str, str]) -> None:
        place, _ = self._made.pop(key)
        self._stack.removeWidget(place)
        place.deleteLater()
