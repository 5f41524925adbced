"""The documents that are open: the one in front and those behind it; made, copied, put away and brought back."""

from functools import partial
from typing import Any

from PySide6.QtCore import QObject, Signal

from anlage.core.document import Part, with_at
from anlage.core.errors import AnlageError
from anlage.session.kinds import KINDS, RECORD, SOURCE, Kind, kind_named, kind_of
from anlage.session.leaves.draft import Working
from anlage.session.works.open_works import OpenWorks, new_document, next_number, number_clash
from anlage.ui.desk.works_desk import WorksDesk
from anlage.ui.kit.document import Document
from anlage.ui.kit.loading import loaded
from anlage.ui.kit.reader import Reader


class DocumentsDesk(QObject):
    """Holds the open documents.

    Signals
    -------
    told(text) : something must not be missed
    edited(document) : the draft of a document is another one
    stepped() : another step can be undone or done again
    """

    told = Signal(str)
    edited = Signal(object)
    stepped = Signal()

    def __init__(self, works: WorksDesk, reader: Reader, parent: QObject) -> None:
        super().__init__(parent)
        self._works, self._reader = works, reader
        self._open: dict[str, Document] = {}
        self.document: Document | None = None  # the one in front
        self._last: dict[str, str] = {}  # by kind, the document of it that was in front last
        self._put_away = ""  # to bring back

    @property
    def works(self) -> OpenWorks:
        """The works file that they lie in."""
        assert self._works.works is not None, "a works file is open"
        return self._works.works

    @property
    def kind(self) -> Kind | None:
        """The kind of the document in front."""
        return kind_of(self.document.value) if self.document else None

    @property
    def can_write(self) -> bool:
        """Whether documents can be added and changed."""
        return self._works.works is not None and self._works.works.can_write

    def bring(self, document_id: str) -> bool:
        """Bring a document to the front, opened when it was not; return whether it is there."""
        if document_id not in self._open and not self._read(document_id):
            return False
        self.document = self._open[document_id]
        self._last[kind_of(self.document.value).id] = document_id
        return True

    def _read(self, document_id: str) -> bool:
        try:
            working, notices = self.works.read(document_id)
        except AnlageError as refusal:
            self.told.emit(str(refusal))
            return False
        document = Document(working, self._reader, document_id=document_id, can_write=self.works.can_write)
        kind = kind_of(working.value)
        document.number_fault = lambda number: number_clash(number, document_id, self.works.entries(kind))
        document.changed.connect(partial(self._on_changed, document))
        document.undo_stack.indexChanged.connect(self.stepped)
        self._open[document_id] = document
        if notices:
            self.told.emit(f"{len(notices)} mended in {working.value.header.number}: {notices[0].text}")
        return True

    def _on_changed(self, document: Document, _before: Working, after: Working) -> None:
        self.works.save(document.document_id, after)
        kind = kind_of(after.value)
        if kind is RECORD:
            self._works.forget_records()
        elif kind is SOURCE:
            self._works.forget_machines()
        self.edited.emit(document)

    def follow(self, ids: set[str]) -> None:
        """Show of the open documents what another program wrote; one that is gone stays as it was seen last."""
        for own in ids & self._open.keys():
            if self.knows(own):
                try:
                    self._open[own].follow(self.works.read(own)[0])
                except AnlageError as fault:
                    self.told.emit(str(fault))

    def look_again(self) -> None:
        """Show every open document as the catalogue has its metals and fillers now."""
        for document in self._open.values():
            document.look_again()

    def last_of(self, kinds: tuple[str, ...]) -> str:
        """Return the document of some kinds that was in front last, else the first one there is; "" for none."""
        for kind in kinds:
            ids = [entry.id for entry in self.works.entries(kind_named(kind))]
            if self._last.get(kind) in ids:
                return self._last[kind]
            if ids:
                return ids[0]
        return ""

    def first(self) -> str:
        """Return the first document of the works file, procedures first; "" where it has none."""
        return self.last_of(tuple(kind.id for kind in KINDS[:1]))

    def knows(self, document_id: str) -> bool:
        """Return whether the works file has a document."""
        return any(entry.id == document_id for kind in KINDS for entry in self.works.entries(kind))

    def add(self, kind: Kind) -> str:
        """Add a document of a kind under the next free number; "" where nothing can be added, and why is told."""
        if not self.can_write:
            self.told.emit("Open a works file that can be written first.")
            return ""
        return self.works.add(new_document(kind, self.works.entries(kind)))

    def copy(self, document: Document) -> str:
        """Add a copy of a document under the next free number, and return its id; "" where nothing can be added."""
        return self._add_as_next(loaded("anlage.session.works.templates:copied")(document.value))

    def coupon(self, document: Document) -> str:
        """Add a record of a coupon to be welded by a procedure, and return its id; "" where nothing can be added."""
        return self._add_as_next(loaded("anlage.session.works.templates:coupon_of")(document.value))

    def take(self, value: Part) -> str:
        """Add a document under the number that it has, and return its id."""
        self._works.forget_records()
        return self.works.add(value)

    def _add_as_next(self, value: Any) -> str:
        if not self.can_write:
            self.told.emit("Open a works file that can be written first.")
            return ""
        kind = kind_of(value)
        number = next_number((entry.number for entry in self.works.entries(kind)), first=kind.first_number)
        return self.works.add(with_at(value, "header/number", number))

    def _value(self, document_id: str) -> Any:
        own = self._open.get(document_id)
        return own.value if own else self.works.read(document_id)[0].value

    def put_away(self, document_id: str) -> str:
        """Put a document away; return its number, "" where nothing can be."""
        if not self.can_write:
            return ""
        number: str = self._value(document_id).header.number
        self.works.delete(document_id)
        self._put_away = document_id
        self._works.forget_records()
        return number

    def bring_back(self) -> str:
        """Bring back the document that was put away last, and return its id; "" for none."""
        back, self._put_away = self._put_away, ""
        if back:
            self.works.restore(back)
            self._works.forget_records()
        return back

    def forget(self) -> None:
        """Let go of every document: the works file is closed."""
        self.document = None
        self._open.clear()
        self._last.clear()
