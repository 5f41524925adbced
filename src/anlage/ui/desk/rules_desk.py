"""The rules of the codes as the open works file has them, and what follows when somebody marks one."""

from typing import TYPE_CHECKING

from PySide6.QtCore import QObject, Signal

from anlage.core.errors import InputError
from anlage.core.materials import Materials
from anlage.core.rulebook import Rulebook
from anlage.session.kinds import SOURCE
from anlage.ui.desk.documents_desk import DocumentsDesk
from anlage.ui.desk.works_desk import WorksDesk
from anlage.ui.kit.loading import loaded

if TYPE_CHECKING:
    from anlage.session.judging.editions import Codes


class RulesDesk(QObject):
    """Reads and marks the rules.

    Signals
    -------
    marked() : the rules say something else now, or somebody checked one
    asked(path) : a rule is to be read, `rules/t_base` or `rules/asme-ix t_base`
    """

    marked = Signal()
    asked = Signal(str)

    def __init__(self, works: WorksDesk, documents: DocumentsDesk, parent: QObject) -> None:
        super().__init__(parent)
        self._works, self._documents = works, documents

    def codes(self) -> "Codes":
        """Return the codes as the works file has them; as they ship while none is open."""
        works = self._works.works
        found: Codes = works.codes() if works is not None else loaded("anlage.session.judging.editions:Codes")()
        return found

    def codes_in_front(self) -> tuple[str, ...]:
        """Return the codes that the document in front names, the leading one first."""
        document, kind = self._documents.document, self._documents.kind
        return tuple(document.value.header.codes) if document is not None and kind is not SOURCE else ()

    def can_mark(self) -> bool:
        """Return whether a mark can be saved."""
        return self._works.works is not None and self._works.works.can_write

    def mark(self, book: Rulebook | Materials, author: str) -> None:
        """Save a rulebook, or what is added to the catalogue, and judge by it from now on.

        Raises
        ------
        InputError : nobody does it, or the works file is open for reading only
        FormatError : it was not written, and why
        """
        works = self._works.works
        if works is None:
            raise InputError("no works file is open", where="rulebook", mend="open one first")
        works.mark(book, author=author)
        self._works.forget_records()
        self.marked.emit()

    def materials(self) -> Materials:
        """Return what the works file adds to the catalogue.

        Raises
        ------
        FormatError : it cannot be read
        """
        return self._works.works.materials() if self._works.works is not None else Materials()

    def add(self, materials: Materials, author: str) -> None:
        """Save what the works file adds to the catalogue, and work with it from now on.

        Raises
        ------
        InputError : nobody does it, or the works file is open for reading only
        FormatError : it was not written, and why
        """
        self.mark(materials, author)
        self._documents.look_again()

    def read(self, rule: str, code: str = "") -> None:
        """Show a rule at the place where rules are read; of the code that is shown there, where none is named."""
        self.asked.emit(f"rules/{code} {rule}" if code else f"rules/{rule}")
