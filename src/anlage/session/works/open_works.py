"""The open works file: its documents as drafts, each edit on its way to the disk within a second."""

import hashlib
import os
import re
from collections import Counter
from collections.abc import Callable, Iterable, Mapping
from contextlib import suppress
from pathlib import Path
from pkgutil import resolve_name
from typing import TYPE_CHECKING, Any

from msgspec.structs import replace

from anlage.core.document import Part, kept, write
from anlage.core.errors import AnlageError, FormatError, InputError, UnknownNameError
from anlage.core.machine import Machine
from anlage.core.materials import Materials
from anlage.core.procedure import Header, clashes
from anlage.core.record import Pqr
from anlage.core.results import Notice
from anlage.core.rulebook import Rulebook
from anlage.session.kinds import PROCEDURE, RECORD, SOURCE, Kind, kind_of_format
from anlage.session.leaves.draft import Working
from anlage.session.works.beside import ADDED, BESIDE, bodies_beside, put_beside
from anlage.session.works.filed import Filed, opened, proves
from anlage.session.works.machines import as_known
from anlage.session.works.materials import materials_of, take_materials
from anlage.session.works.standing import Standing, standing_of
from anlage.store import Draft, Entry, Revision, Saver, copy_as, create_works, keep_copy, open_works

if TYPE_CHECKING:  # rules are loaded when they are first asked for
    from anlage.session.judging.editions import Codes

PATIENCE_S = 1.0  # that closing and issuing wait for another program which holds the file


class OpenWorks:
    """One works file while it is open.

    What was typed is known here at once, and in the file within a second; whoever writes in it alone need not ask it.

    Parameters
    ----------
    path : the file; made when it does not exist
    now : gives the time as ISO 8601 in UTC
    told : called on the writer thread with the drafts that are not saved, by document, and why; empty once all are
    holder : the name that a second opener is told
    say : takes a sentence about what was not done beside; may be called on the writer thread

    Raises
    ------
    FormatError : the file cannot be opened or made; it is left as it was
    """

    def __init__(
        self, path: Path, *, now: Callable[[], str], told: Callable[[Mapping[str, Exception]], None], holder: str = "",
        say: Callable[[str], None] = lambda _sentence: None,
    ) -> None:  # fmt: skip
        exists = os.path.lexists(path)
        self._file = open_works(path, holder=holder, now=now()) if exists else create_works(path, holder=holder)
        self._now, self._say = now, say
        self._saver = Saver(told)
        self._latest: dict[str, Working] = {}  # what was typed last, of every document that was typed in
        self._typed = Counter[str]()  # how often a document was typed in
        self._entries: tuple[Entry, ...] | None = None  # while nobody else can change them
        self._revisions: dict[str, tuple[Revision, ...]] = {}
        self._books: Mapping[str, str] | None = None  # while nobody else can change them
        self._codes: tuple[Mapping[str, str], Codes] | None = None
        self._is_untouched = True
        take_materials(self.beside().get(ADDED))

    @property
    def path(self) -> Path:
        """Where the file lies."""
        return self._file.path

    @property
    def can_write(self) -> bool:
        """Whether edits can be saved; False when another program writes in it."""
        return self._file.can_write

    @property
    def why_read_only(self) -> str:
        """Why edits cannot be saved; "" when they can."""
        return self._file.why_read_only

    @property
    def held_by(self) -> str:
        """Who else writes in it."""
        return self._file.held_by

    def is_at(self, path: Path) -> bool:
        """Return whether a path leads to this very file, by whatever name."""
        return self._file.is_at(path)

    def all_entries(self) -> tuple[Entry, ...]:
        """Return the documents of every kind, in the order they were made, by the numbers that they have now.

        A rulebook is none of them, nor what is added to the catalogue: they say nothing of a weld.
        """
        if self._entries is None or not self.can_write:
            self._entries = tuple(entry for entry in self._file.entries() if entry.kind not in BESIDE)
        return self._entries

    def entries(self, kind: Kind = PROCEDURE) -> tuple[Entry, ...]:
        """Return the documents of a kind, in the order they were made."""
        return tuple(entry for entry in self.all_entries() if entry.kind == kind.format)

    def kind(self, document_id: str) -> Kind:
        """Return of which kind a document is.

        Raises
        ------
        UnknownNameError : there is no such document
        """
        found = {entry.id: entry.kind for entry in self.all_entries()}
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
        if document_id in self._latest:
            return self._latest[document_id], ()
        return opened(self._file.draft(document_id), self.kind(document_id))

    def stamps(self) -> dict[str, str]:
        """Return of every document what is another text once the document changes."""
        return self._file.stamps() | {own: f"typed {count}" for own, count in self._typed.items()}

    def filed(self, entry: Entry) -> Filed:
        """Return a document as it is now, to be read elsewhere.

        Raises
        ------
        FormatError : no text is saved as its draft
        """
        latest = self._latest.get(entry.id)
        draft = self._file.draft(entry.id) if latest is None else Draft(write(latest.value), dict(latest.pending))
        return Filed(entry, draft, self._file.last_revision(entry.id) if entry.revisions else None)

    def records(self) -> tuple[tuple[str, Pqr], ...]:
        """Return the records with their ids, oldest first, without those that prove nothing as they stand.

        That is one that cannot be read whole, or in which a text waits that was not taken over.
        """
        found = []
        for entry in self.entries(RECORD):
            try:
                read = self.read(entry.id)
            except FormatError:
                continue  # it proves nothing; opening it says why
            if proves(read):
                found.append((entry.id, read[0].value))
        return tuple(found)

    def machines(self) -> tuple[Machine, ...]:
        """Return the machines, oldest first, with the readings that prove something; none that cannot be read."""
        found = []
        for entry in self.entries(SOURCE):
            with suppress(FormatError):
                found.append(as_known(self.read(entry.id)))
        return tuple(found)

    def beside(self) -> Mapping[str, str]:
        """Return what lies in the file beside its documents: the rulebooks by code, and what is added to metals."""
        if self._books is None or not self.can_write:
            self._books = bodies_beside(self._file)
        return self._books

    def codes(self) -> "Codes":
        """Return the codes with what is said of their rules here; the very same while that is the same."""
        bodies = self.beside()
        if self._codes is None or self._codes[0] != bodies:
            self._codes = (bodies, resolve_name("anlage.session.works.marked_codes:codes_of")(bodies))
        return self._codes[1]

    def materials(self) -> Materials:
        """Return what is added here to the catalogue.

        Raises
        ------
        FormatError : it cannot be read
        """
        return materials_of(self.beside().get(ADDED))

    def mark(self, book: Rulebook | Materials, *, author: str) -> None:
        """Save a rulebook in place of the one of its code, or what is added to the catalogue, at once, and issue it.

        Raises
        ------
        InputError : nobody does it, or the file is open for reading only
        FormatError : it was not written, and why
        """
        self._keep_copy()
        put_beside(self._file, book, author=author, now=self._now())
        self._books = None
        take_materials(self.beside().get(ADDED))

    def add(self, document: Part) -> str:
        """Add a document and return its id.

        Raises
        ------
        InputError : the file is open for reading only
        """
        header: Header = document.header  # type: ignore[attr-defined]
        kind: str = document.format  # type: ignore[attr-defined]  # a document, not a part of one
        self._keep_copy()
        own = self._file.add(kind, write(document), now=self._now(), number=header.number, title=header.title)
        self._entries = None
        return own

    def revisions(self, document_id: str) -> tuple[Revision, ...]:
        """Return a procedure's issued revisions, oldest first."""
        if not self.can_write:
            return self._file.revisions(document_id)
        if document_id not in self._revisions:
            self._revisions[document_id] = self._file.revisions(document_id)
        return self._revisions[document_id]

    def issue(self, document_id: str, working: Working, *, author: str, body: Any = None) -> Revision:
        """Store a procedure as its next revision, which never changes.

        Parameters
        ----------
        body : what is stored, where it is the draft with something said of the revision

        Raises
        ------
        InputError : a text waits that was not taken over, values clash, the number is missing or taken, nobody issues
            it, or the file is open for reading only
        FormatError : its draft, or the revision, could not be saved
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
        if unsaved := self.flush(PATIENCE_S).get(document_id):
            raise _unsaved(unsaved, f"{header.number} is not issued")
        self._revisions.pop(document_id, None)
        self._entries = None
        stored = write(working.value if body is None else body)
        return self._file.issue(document_id, stored, author=author, now=self._now())

    def badge(self, document_id: str, working: Working) -> str:
        """Return in the fewest words whether a procedure is what was issued last."""
        return self._standing(document_id, working, "").badge()  # shown at every edit: what it is now needs no hash

    def standing(self, document_id: str, working: Working, *, hashed: bool = True) -> Standing:
        """Return whether a procedure is what was issued last, and the hash of what it is now where it is wanted."""
        return self._standing(document_id, working, _digest(working.value) if hashed else "")

    def _standing(self, document_id: str, working: Working, digest: str) -> Standing:
        return standing_of(next(reversed(self.revisions(document_id)), None), working, digest)

    def save(self, document_id: str, working: Working) -> None:
        """Save a draft soon: 300 ms after the last edit, within a second of the first unsaved one."""
        header = working.value.header
        self._latest[document_id] = working
        self._typed[document_id] += 1
        if self._entries is not None:
            self._entries = tuple(
                replace(entry, number=header.number, title=header.title) if entry.id == document_id else entry
                for entry in self._entries
            )

        def saving() -> None:
            self._keep_copy()
            draft = Draft(write(working.value), working.pending)
            self._file.save_draft(document_id, draft, now=self._now(), number=header.number, title=header.title)

        self._saver.put(document_id, saving)

    def _keep_copy(self) -> None:
        """Keep a copy of the file as it was opened, before it is changed for the first time."""
        if not self._is_untouched or not self.can_write:
            return
        self._is_untouched = False
        try:
            keep_copy(self._file, self._now())
        except FormatError as fault:
            self._say(f"No copy was kept of {self.path.name} as it was before: {fault.what}.")

    def unsaved(self) -> Mapping[str, Exception]:
        """Return the documents whose draft could not be saved, and why."""
        return self._saver.unsaved()

    def flush(self, patience_s: float = 0.0) -> Mapping[str, Exception]:
        """Save everything that waits, now; return what is not saved for all that, and why."""
        return self._saver.flush(patience_s)

    def close(self) -> None:
        """Save what waits and close the file; what cannot be saved is dropped: ask `flush` before."""
        self._saver.close()
        self._file.close()

    def delete(self, document_id: str) -> None:
        """Put a document away; it can be brought back.

        Raises
        ------
        InputError, FormatError : it was not put away, and why
        """
        self._keep_copy()
        self._file.delete(document_id, now=self._now())
        self._entries = None

    def restore(self, document_id: str) -> None:
        """Bring a document back.

        Raises
        ------
        InputError, FormatError : it was not brought back, and why
        """
        self._file.restore(document_id)
        self._entries = None

    def save_as(self, path: Path) -> None:
        """Copy the file under another name, with all that was typed, saved or not.

        Raises
        ------
        FormatError : something of that name exists, or the copy cannot be made
        """
        unsaved = self.flush()
        copy_as(self._file, path)
        with open_works(path) as copy:
            for own in unsaved:
                working = self._latest[own]
                header, draft = working.value.header, Draft(write(working.value), working.pending)
                copy.save_draft(own, draft, now=self._now(), number=header.number, title=header.title)


def _unsaved(fault: Exception, what: str) -> FormatError:
    mend = fault.mend if isinstance(fault, AnlageError) else "save the works file under another name"
    why = fault.what if isinstance(fault, AnlageError) else str(fault)
    where = fault.where if isinstance(fault, AnlageError) else "draft"
    return FormatError(f"{what}, for its draft is not saved: {why}", where=where, mend=mend)


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
        return InputError(f"{number} is another document's", where="number", mend="choose another number")
    return None


@kept
def _digest(value: Part) -> str:
    """Return the hash of a document as it is stored."""
    return hashlib.sha256(write(value).encode()).hexdigest()
