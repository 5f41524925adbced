"""The open document: the one mutable place of a window."""

from collections.abc import Callable

from PySide6.QtCore import QObject, Signal
from PySide6.QtGui import QUndoCommand, QUndoStack

from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.session.leaves.draft import Working, changed_to, complaints, moved, text_in, typed
from anlage.session.leaves.names import named
from anlage.ui.reader import Reader


class Document(QObject):
    """Holds one draft, a frozen value with its waiting texts, and its undo stack.

    Signals
    -------
    changed(before, after) : the draft is another one now; both are `Working`
    """

    changed = Signal(object, object)

    def __init__(self, working: Working, reader: Reader, *, document_id: str = "", can_write: bool = True) -> None:
        super().__init__()
        self.working = working  # read by anyone, set only in _show
        self.reader, self.document_id, self.can_write = reader, document_id, can_write
        self.undo_stack = QUndoStack(self)
        self.number_fault: Callable[[str], AnlageError | None] = lambda _number: None
        self._known: tuple[tuple[Working, System], dict[str, AnlageError]] | None = None

    @property
    def wps(self) -> Wps:
        """The last good value."""
        return self.working.value

    @property
    def system(self) -> System:
        """The units that texts are read and shown in."""
        return self.reader.system

    def text(self, path: str) -> str:
        """Return what stands in the field of a leaf."""
        return text_in(self.working, path, self.system)

    def complaints(self) -> dict[str, AnlageError]:
        """Return what is wrong, by leaf."""
        key = (self.working, self.system)
        if self._known is None or any(a is not b for a, b in zip(self._known[0], key, strict=True)):
            taken = self.number_fault(self.wps.header.number)
            self._known = (key, complaints(*key) | ({"header/number": taken} if taken else {}))
        return self._known[1]

    def type_text(self, path: str, text: str, visit: object | None = None) -> None:
        """Take over what was typed into the field of a leaf; all typing of one `visit` is one undo step."""
        self._push(typed(self.working, path, text, self.system), named(self.wps, path), visit)

    def move(self, path: str, number: float, visit: object | None = None) -> None:
        """Take over the number that a handle was dragged or stepped to."""
        self._push(moved(self.working, path, number), named(self.wps, path), visit)

    def edit(self, wps: Wps, text: str, visit: object | None = None) -> None:
        """Make `wps` the open value as one undo step; steps of one `visit`, an object per focus or drag, become one."""
        self._push(changed_to(self.working, wps), text, visit)

    def _push(self, after: Working, text: str, visit: object | None) -> None:
        if after is not self.working and self.can_write:
            self.undo_stack.push(_Edit(self._show, self.working, after, text, visit))

    def _show(self, working: Working) -> None:
        before, self.working = self.working, working
        self.changed.emit(before, working)


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
