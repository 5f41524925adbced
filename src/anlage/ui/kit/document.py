"""The open document: the one mutable place of a window, and how each part of the window sees it.

Glossary
--------
part of a document : one of its fields, `joint`, or one element of a list, `passes/p3`
view of a document : the document as a place or a view of one sees it, told of changes while it is shown
"""

from collections.abc import Callable, Mapping
from copy import copy
from typing import Any

from PySide6.QtCore import QObject, Signal, SignalInstance
from PySide6.QtGui import QUndoCommand, QUndoStack

from anlage.core.document import Part, with_
from anlage.core.errors import AnlageError
from anlage.core.quantities.units import System
from anlage.session.leaves.draft import Working, changed_to, complaints, moved, text_in, typed
from anlage.session.leaves.names import named
from anlage.session.leaves.table import LISTS, PARTS
from anlage.ui.kit.guard import guarded
from anlage.ui.kit.reader import Reader


class _Part(QObject):
    """One part of a document, for whoever looks at it alone."""

    changed = Signal()


class Document(QObject):
    """Holds one draft, a frozen value with its waiting texts, and its undo stack.

    Signals
    -------
    changed(before, after) : the draft is another one now; both are `Working`
    clashed(parts) : other leaves contradict each other now, in these parts
    """

    changed = Signal(object, object)
    clashed = Signal(object)

    def __init__(self, working: Working, reader: Reader, *, document_id: str = "", can_write: bool = True) -> None:
        super().__init__()
        self._working = working
        self.reader, self.document_id, self.can_write = reader, document_id, can_write
        self.undo_stack = QUndoStack(self)
        self.number_fault: Callable[[str], AnlageError | None] = lambda _number: None
        self._known: tuple[tuple[Working, System], dict[str, AnlageError]] | None = None
        self._parts: dict[str, _Part] = {}
        self._clashes: Mapping[str, AnlageError] = {}
        self.clashed.connect(self._on_clashed)

    @property
    def working(self) -> Working:
        """The draft: its last good value, and the texts that wait."""
        return self._working

    @property
    def value(self) -> Any:
        """The last good value: a procedure, a record."""
        return self.working.value

    @property
    def system(self) -> System:
        """The units that texts are read and shown in."""
        return self.reader.system

    def view(self) -> "DocumentView":
        """Return the document as a new part of the window sees it."""
        return DocumentView(self)

    def part(self, path: str) -> SignalInstance:
        """Return the signal that the part changed in which a leaf lies: its value, or a text that waits there."""
        key = part_of(path)
        if key not in self._parts:
            self._parts[key] = _Part(self)
        return self._parts[key].changed

    def text(self, path: str) -> str:
        """Return what stands in the field of a leaf."""
        return text_in(self.working, path, self.system)

    def proposed(self, path: str) -> str:
        """Return why a leaf is only proposed, and how sure it is; "" where somebody stated it."""
        parent, _, part = path.rpartition("/")
        mark = self.value.proposed.get(parent if part in PARTS else path)  # a tolerance stands with its dimension
        return f"Proposed ({mark.confidence}): {mark.reason}" if mark else ""

    def complaints(self) -> Mapping[str, AnlageError]:
        """Return what is wrong, by leaf."""
        key = (self.working, self.system)
        if self._known is None or any(a is not b for a, b in zip(self._known[0], key, strict=True)):
            taken = self.number_fault(self.value.header.number)
            own = complaints(*key) | ({"header/number": taken} if taken else {})
            self._known = (key, {**self._clashes, **own})
        return self._known[1]

    def tell_clashes(self, clashes: Mapping[str, AnlageError]) -> None:
        """Take over what the document says twice and not alike, by leaf, as whoever judges it found."""
        said, now = ({path: str(fault) for path, fault in each.items()} for each in (self._clashes, clashes))
        if said != now:
            self._clashes, self._known = clashes, None
            self.clashed.emit({part_of(path) for path in said.keys() | now.keys() if said.get(path) != now.get(path)})

    def _on_clashed(self, parts: set[str]) -> None:
        for key, part in tuple(self._parts.items()):
            if key in parts:
                part.changed.emit()

    def type_text(self, path: str, text: str, visit: object | None = None, entered: Working | None = None) -> None:
        """Take over what was typed into the field of a leaf; all typing of one `visit` is one undo step.

        Parameters
        ----------
        entered : the draft when the field was entered, for what stands there when the text is none
        """
        self._push(typed(self.working, path, text, self.system, entered), named(self.value, path), visit)

    def move(self, path: str, number: float, visit: object | None = None) -> None:
        """Take over the number that a handle was dragged or stepped to."""
        self._push(moved(self.working, path, number), named(self.value, path), visit)

    def edit(self, value: Any, text: str, visit: object | None = None) -> None:
        """Make `value` the open one as one undo step; steps of one `visit`, an object per focus or drag, become one."""
        self._push(changed_to(self.working, value), text, visit)

    def follow(self, working: Working) -> None:
        """Show what another program wrote; no step of this window."""
        if working != self.working:
            self.undo_stack.clear()
            self._show(working)

    def look_again(self) -> None:
        """Tell all who look at it that its metals and fillers mean something else now, though no word has changed."""
        stated = {name: getattr(self.value, name) for name in self.value.__struct_fields__}
        anew = {
            name: tuple(map(copy, part)) if isinstance(part, tuple) else copy(part)
            for name, part in stated.items() if isinstance(part, tuple | Part)
        }  # fmt: skip
        self._show(Working(with_(self.value, **anew), self.working.pending))

    def take(self, working: Working, text: str, visit: object | None = None) -> None:
        """Take another draft over as one undo step, with its texts that wait; `visit` as `edit`."""
        self._push(working, text, visit)

    def _push(self, after: Working, text: str, visit: object | None) -> None:
        if after is not self.working and self.can_write:
            self.undo_stack.push(_Edit(self._show, self.working, after, text, visit))

    def _show(self, working: Working) -> None:
        before, self._working = self._working, working
        self._tell(before, working)

    def _tell(self, before: Working, after: Working) -> None:
        """Tell those who look at one part that it changed, then those who look at all."""
        waiting = _differing(before.pending, after.pending)
        if before.value.proposed is not after.value.proposed:
            waiting |= _differing(before.value.proposed, after.value.proposed)
        for key, part in tuple(self._parts.items()):
            if key in waiting or _value_of(before.value, key) is not _value_of(after.value, key):
                part.changed.emit()
        self.changed.emit(before, after)


class DocumentView(Document):
    """A document as one part of the window sees it.

    It is told of changes while it is shown; what it missed meanwhile it is told at once when it is shown again. What
    is typed or moved through it goes to the document itself.
    """

    def __init__(self, source: Document) -> None:
        super().__init__(source.working, source.reader, document_id=source.document_id, can_write=source.can_write)
        self._source, self._seen, self._is_shown = source, source.working, True
        self.undo_stack = source.undo_stack
        source.changed.connect(self._on_source_changed)
        source.clashed.connect(self._on_clashed)

    @property
    def working(self) -> Working:
        """The draft of the document itself, also while this view of it is not shown."""
        return self._source.working

    def complaints(self) -> Mapping[str, AnlageError]:
        """Return what is wrong, by leaf."""
        return self._source.complaints()

    def set_shown(self, *, shown: bool) -> None:
        """Say whether this part of the window is seen: then it is told of what it missed."""
        self._is_shown = shown
        self._catch_up()

    def _on_source_changed(self, _before: Working, _after: Working) -> None:
        self._catch_up()

    def _catch_up(self) -> None:
        if self._is_shown and self._seen is not self.working:
            before, self._seen = self._seen, self.working
            self._tell(before, self._seen)

    def _push(self, after: Working, text: str, visit: object | None) -> None:
        self._source._push(after, text, visit)  # noqa: SLF001 - a view is its document to whoever edits


def part_of(path: str) -> str:
    """Return the part of a document in which a leaf lies.

    Examples
    --------
    >>> part_of("joint/root_face_mm/plus"), part_of("passes/p3/current_a"), part_of("deposits")
    ('joint', 'passes/p3', 'deposits')
    """
    head, _, rest = path.partition("/")
    element = rest.partition("/")[0]
    return f"{head}/{element}" if head in LISTS and element else head


def _value_of(value: Any, part: str) -> Any:
    head, _, element = part.partition("/")
    found = getattr(value, head, None)
    return next((each for each in found or () if each.id == element), None) if element else found


def _differing(before: Mapping[str, object], after: Mapping[str, object]) -> set[str]:
    """Return the parts in which other texts wait now, or other leaves are only proposed."""
    if before == after:
        return set()
    return {part_of(path) for path in before.keys() | after.keys() if before.get(path) != after.get(path)}


@guarded
class _Edit(QUndoCommand):
    def __init__(
        self, show: Callable[[Working], None], before: Working, after: Working, text: str, visit: object | None
    ) -> None:
        super().__init__(text)
        self._show, self.before, self.after, self.visit = show, before, after, visit

    def redo(self) -> None:
        self._show(self.after)

    def undo(self) -> None:
        self._show(self.before)

    def id(self) -> int:
        return -1 if self.visit is None else 1

    def mergeWith(self, other: QUndoCommand) -> bool:
        if not isinstance(other, _Edit) or self.visit is None or other.visit is not self.visit:
            return False
        self.after = other.after
        self.setObsolete(self.after.value is self.before.value and self.after.pending == self.before.pending)
        return True
