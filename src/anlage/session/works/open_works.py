"""The open works file: its documents as drafts, each edit on its way to the disk within a second."""

import hashlib
import re
from collections.abc import Callable, Iterable
from pathlib import Path
from types import MappingProxyType
from typing import Any

from anlage.core.document import Part, read_mending, write
from anlage.core.errors import FormatError, InputError, UnknownNameError
from anlage.core.procedure import Header, clashes
from anlage.core.record import PQR, Pqr
from anlage.core.results import Notice
from anlage.session.kinds import PROCEDURE, RECORD, Kind, kind_of_format
from anlage.session.leaves.draft import Working
from anlage.session.leaves.presence import has_leaf
from anlage.session.works.standing import Standing, is_same
from anlage.store import Draft, Entry, Revision, Saver, WorksFile, create_works, open_works


class OpenWorks:
    """One works file while it is open.

    Parameters
    ----------
    path : the file; made when it does not exist
    now : gives the time as ISO 8601 in UTC
    failed : called with the fault, on the writer thread, when a draft could not be saved
    holder : the name that a second opener is told

    Raises
    ------
    FormatError : the file cannot be opened or made; it is left as it was
    """

    def __init__(
        self, path: Path, *, now: Callable[[], str], failed: Callable[[Exception], None], holder: str = ""
    ) -> None:
        self._file: WorksFile = open_works(path, holder=holder) if path.exists() else create_works(path, holder=holder)
        self._now = now
        self._saver = Saver(failed)

    @property
    def path(self) -> Path:
        """Where the file lies."""
        return self._file.path

    @property
    def can_write(self) -> bool:
        """Whether edits can be saved; False when another program writes in it."""
        return self._file.can_write

    @property
    def held_by(self) -> str:
        """Who else writes in it."""
        return self._file.held_by

    def entries(self, kind: Kind = PROCEDURE) -> tuple[Entry, ...]:
        """Return the documents of a kind, in the order they were made."""
        return tuple(entry for entry in self._file.entries() if entry.kind == kind.format)

    def kind(self, document_id: str) -> Kind:
        """Return of which kind a document is.

        Raises
        ------
        UnknownNameError : there is no such document
        """
        found = {entry.id: entry.kind for entry in self._file.entries()}
        if document_id not in found:
            raise UnknownNameError(document_id, found, where=self.path.name)
        return kind_of_format(found[document_id])

    def read(self, document_id: str) -> tuple[Working, tuple[Notice, ...]]:
        """Return the draft of a procedure or record, and what had to be mended in it.

        Raises
        ------
        UnknownNameError : there is no such document
        FormatError : what is saved is no procedure, or one of a newer version
        """
        draft = self._file.draft(document_id)
        value, notices = read_mending(draft.body, self.kind(document_id).core)
        told = tuple(Notice("document.damaged", "draft", flaw) for flaw in draft.flaws)
        pending = {path: text for path, text in draft.pending.items() if has_leaf(value, path)}
        return Working(value, MappingProxyType(pending)), (*notices, *told)

    def records(self) -> tuple[tuple[str, Pqr], ...]:
        """Return the records with their ids, oldest first; one that cannot be read whole is left out."""
        found = []
        for entry in self.entries(RECORD):
            try:
                draft = self._file.draft(entry.id)
                pqr, notices = read_mending(draft.body, PQR)
            except FormatError:
                continue  # it proves nothing; opening it says why
            if not notices and not draft.flaws:  # what was left out of it may be what failed
                found.append((entry.id, pqr))
        return tuple(found)

    def add(self, document: Part) -> str:
        """Add a document and return its id.

        Raises
        ------
        InputError : the file is open for reading only
        """
        header: Header = document.header  # type: ignore[attr-defined]
        kind: str = document.format  # type: ignore[attr-defined]  # a document, not a part of one
        return self._file.add(kind, write(document), now=self._now(), number=header.number, title=header.title)

    def revisions(self, document_id: str) -> tuple[Revision, ...]:
        """Return a procedure's issued revisions, oldest first."""
        return self._file.revisions(document_id)

    def issue(self, document_id: str, working: Working, *, author: str) -> Revision:
        """Store a procedure as its next revision, which never changes.

        Raises
        ------
        InputError : a text waits that was not taken over, values clash, the number is missing or taken, nobody issues
            it, or the file is open for reading only
        """
        header = working.value.header
        if working.pending:
            what = f"{len(working.pending)} text was not taken over" if len(working.pending) == 1 else "texts wait"
            raise InputError(what, where=next(iter(working.pending)), mend="finish or empty it first")
        for path, fault in clashes(working.value.joint).items():
            raise InputError(fault.what, where=path, mend=fault.mend)
        if not header.number:
            raise InputError("it has no number", where="number", mend="state one in the job")
        if clash := number_clash(header.number, document_id, self.entries()):
            raise clash
        self.save(document_id, working)
        self.flush()
        return self._file.issue(document_id, write(working.value), author=author, now=self._now())

    def badge(self, document_id: str, working: Working) -> str:
        """Return in the fewest words whether a procedure is what was issued last."""
        return self._standing(document_id, working, "").badge()  # shown at every edit: what it is now needs no hash

    def standing(self, document_id: str, working: Working) -> Standing:
        """Return whether a procedure is what was issued last, and the hash of what it is now."""
        return self._standing(document_id, working, hashlib.sha256(write(working.value).encode()).hexdigest())

    def _standing(self, document_id: str, working: Working, digest: str) -> Standing:
        last = next(reversed(self.revisions(document_id)), None)
        if last is None:
            return Standing(digest)
        is_issued = not working.pending and is_same(last.body, working.value)
        return Standing(last.sha256 if is_issued else digest, last.number, is_issued, last.author, last.issued_at)

    def save(self, document_id: str, working: Working) -> None:
        """Save a draft soon: 300 ms after the last edit, within a second of the first unsaved one."""
        header = working.value.header

        def saving() -> None:
            draft = Draft(write(working.value), working.pending)
            self._file.save_draft(document_id, draft, now=self._now(), number=header.number, title=header.title)

        self._saver.put(document_id, saving)

    def flush(self) -> None:
        """Save everything that waits, now."""
        self._saver.flush()

    def close(self) -> None:
        """Save what waits and close the file."""
        self._saver.close()
        self._file.close()

    def delete(self, document_id: str) -> None:
        """Put a document away; it can be brought back."""
        self._saver.flush()
        self._file.delete(document_id, now=self._now())

    def restore(self, document_id: str) -> None:
        """Bring a document back."""
        self._file.restore(document_id)


def new_document(kind: Kind, entries: Iterable[Entry]) -> Any:
    """Return a new document of a kind under the next free number."""
    return kind.new(next_number((entry.number for entry in entries), first=kind.first_number))


def next_number(taken: Iterable[str], *, first: str) -> str:
    """Return the next free number after the last one taken, counted up in its own style.

    Examples
    --------
    >>> next_number(["GATE-7", "GATE-09"], first="WPS-001"), next_number([], first="WPS-001")
    ('GATE-10', 'WPS-001')
    """
    names = [name for name in taken if re.search(r"\d", name)]
    if not names:
        return first
    candidate = names[-1]
    while candidate in names:
        *_, last = re.finditer(r"\d+", candidate)
        counted = f"{int(last[0]) + 1:0{len(last[0])}d}"
        candidate = f"{candidate[: last.start()]}{counted}{candidate[last.end() :]}"
    return candidate


def number_clash(number: str, own_id: str, entries: Iterable[Entry]) -> InputError | None:
    """Return why a number cannot be used: another document of the file has it; `None` when it is free."""
    if any(entry.number == number and entry.id != own_id for entry in entries):
        return InputError(f"{number} is another procedure's", where="number", mend="choose another number")
    return None
