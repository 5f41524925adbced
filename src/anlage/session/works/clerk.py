"""Who judges the documents of a works file for the Register, here or in a process of its own."""

from collections.abc import Iterable, Mapping, Sequence

from anlage.core.errors import AnlageError
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import RECORD, kind_of_format
from anlage.session.works.filed import Filed, Opened, opened, proves
from anlage.session.works.marked_codes import codes_of
from anlage.session.works.register import RegisterRow, Standpoint, row_of
from anlage.store import Entry, Revision

Known = tuple[Entry, Opened | AnlageError, Revision | None]


class Clerk:
    """Knows the documents of one works file, and judges them by its records."""

    def __init__(self) -> None:
        self._documents: dict[str, Known] = {}
        self._books: Mapping[str, str] = {}
        self._assessor: Assessor | None = None

    def take(self, filed: Iterable[Filed], order: Sequence[str], books: Mapping[str, str]) -> None:
        """Take documents that are new or others than before, and let go of those that are not in an order any more.

        Parameters
        ----------
        order : the ids of all documents, oldest first
        books : the rulebooks as they lie in the works file, by code
        """
        taken = {each.entry.id: (each.entry, _opened(each), each.last) for each in filed}
        known = self._documents | taken
        before = self._documents
        self._documents = {own: known[own] for own in order if own in known}
        if [*_records(before)] != [*_records(self._documents)] or books != self._books:
            self._assessor = None  # they prove something else
        self._books = books

    def rows(self, ids: Iterable[str], seen: Standpoint) -> tuple[RegisterRow, ...]:
        """Return documents that it knows as rows."""
        if self._assessor is None:
            records = [
                (own, read[0].value) for own, read in _records(self._documents)
                if not isinstance(read, AnlageError) and proves(read)
            ]  # fmt: skip
            self._assessor = Assessor(records, codes_of(self._books))
        found = ((*self._documents[own], self._assessor, seen) for own in ids)
        return tuple(row_of(*each) for each in found)


def _opened(filed: Filed) -> Opened | AnlageError:
    try:
        return opened(filed.draft, kind_of_format(filed.entry.kind))
    except AnlageError as fault:
        return fault


def _records(documents: Mapping[str, Known]) -> Iterable[tuple[str, Opened | AnlageError]]:
    return ((own, read) for own, (entry, read, _) in documents.items() if entry.kind == RECORD.format)
