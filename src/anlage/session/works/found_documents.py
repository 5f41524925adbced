"""Documents named on a command line: a JSON file, or `WORKS.anlage#NUMBER[@REVISION]`."""

import hashlib
from collections.abc import Sequence
from pathlib import Path
from typing import Generic, TypeVar

from msgspec import Struct

from anlage.core.document import DocumentKind, Part, read_strict
from anlage.core.errors import FormatError, UnknownNameError, shortened
from anlage.core.machine import Machine
from anlage.core.procedure import WPS, Wps
from anlage.core.record import PQR, Pqr
from anlage.session.kinds import SOURCE
from anlage.session.leaves.bounds import beyond
from anlage.session.works.filed import opened
from anlage.session.works.machines import as_known
from anlage.session.works.standing import Standing, against_revision
from anlage.store import Draft, WorksFile, open_works

AnyPart = TypeVar("AnyPart", bound=Part)
LARGEST_BYTES = 64_000_000  # no document is larger


class Found(Struct, Generic[AnyPart], frozen=True):
    """A document with where it comes from: its JSON text, revision (`None` for a draft or a file), the works file.

    `source` is the file that it was read from.
    """

    value: AnyPart
    body: str
    source: Path
    revision: int | None = None
    works: Path | None = None

    @property
    def sha256(self) -> str:
        """SHA-256 over the bytes of its JSON."""
        return hashlib.sha256(self.body.encode()).hexdigest()


def find_document(name: str, kind: DocumentKind[AnyPart]) -> Found[AnyPart]:
    """Return the document that an argument names.

    Raises
    ------
    FormatError : the file is not what it claims; nothing is changed
    UnknownNameError : the works file has no such document or revision
    """
    place, hash_sign, number = name.partition("#")
    if not hash_sign:
        body = text_of_file(Path(place))
        return Found(within_reason(read_strict(body, kind, where=Path(place).name)), body, Path(place))
    path, (number, _, revision) = Path(place), number.partition("@")
    with open_works(path, read_only=True) as works:
        own = _named(works, number, kind.format)
        if not revision:
            body, issued = _sound(works.draft(own), number).body, None
        else:
            bodies = {str(each.number): each.body for each in works.revisions(own)}
            if revision not in bodies:
                raise UnknownNameError(f"revision {revision}", bodies, where=number)
            body, issued = bodies[revision], int(revision)
    value = read_strict(body, kind, where=name)
    return Found(value if issued else within_reason(value), body, path, issued, path)


def _sound(draft: Draft, number: str) -> Draft:
    """Return a draft, unless it is not what its person typed last, or not what was saved.

    Raises
    ------
    FormatError : a text waits in it that was not taken over, or it is damaged
    """
    if draft.flaws:
        raise FormatError(draft.flaws[0], where=number, mend="open it in the window, or name a revision")
    if draft.pending:
        where = f"{number}: {next(iter(draft.pending))}"
        mend = "finish or empty it in the window, or name a revision"
        raise FormatError(f"{shortened(next(iter(draft.pending.values())))} was not taken over", where=where, mend=mend)
    return draft


def within_reason(value: AnyPart) -> AnyPart:
    """Return a document from outside, unless it states what typing would refuse; what was issued is what it is.

    Raises
    ------
    InputError : a number is beyond what its leaf can be
    """
    for fault in beyond(value).values():  # type: ignore[arg-type]
        raise fault
    return value


def source_of(name: str) -> Path:
    """Return the file that an argument names a document of."""
    return Path(name.partition("#")[0])


def standing_of(found: Found[Part]) -> Standing:
    """Return whether a found document is a revision as issued; a JSON file never is, for nothing proves it."""
    if found.works is None:
        return Standing(found.sha256)
    header = found.value.header  # type: ignore[attr-defined]  # every kind of document has one
    with open_works(found.works, read_only=True) as works:
        issued = works.revisions(_named(works, header.number, found.value.format))  # type: ignore[attr-defined]
    if not issued:
        return Standing(found.sha256)
    own = next((each for each in issued if each.number == found.revision), issued[-1])
    return against_revision(own, found.value, found.sha256)


def _named(works: WorksFile, number: str, kind: str) -> str:
    entries = {entry.number: entry.id for entry in works.entries() if entry.kind == kind}
    if number not in entries:
        raise UnknownNameError(number or "number", entries, where=works.path.name)
    return entries[number]


def text_of_file(path: Path) -> str:
    """Return the text of a file.

    Raises
    ------
    FormatError : it cannot be read, is too large, or is no text
    """
    try:
        if path.stat().st_size > LARGEST_BYTES:
            what = f"{path.stat().st_size} bytes are no document"
            raise FormatError(what, where=path.name, mend="take another file")
        return path.read_text(encoding="utf-8")
    except UnicodeDecodeError as fault:
        raise FormatError("it is no text", where=path.name, mend="take a JSON file that Anlage wrote") from fault
    except OSError as fault:
        raise FormatError("it cannot be read", where=path.name, mend="check the name and folder") from fault


def records_of(path: Path) -> tuple[tuple[str, Pqr], ...]:
    """Return the records of a works file with their ids, oldest first.

    Raises
    ------
    FormatError : the works file or one of its records is not what it claims, or a text waits in a record
    """
    with open_works(path, read_only=True) as works:
        entries = [entry for entry in works.entries() if entry.kind == PQR.format]
        drafts = [(entry, _sound(works.draft(entry.id), entry.number)) for entry in entries]
    return tuple((entry.id, read_strict(draft.body, PQR, where=entry.number)) for entry, draft in drafts)


def procedures_of(path: Path) -> tuple[Wps, ...]:
    """Return the procedures of a works file as they are now, oldest first.

    Raises
    ------
    FormatError : the works file or one of its procedures is not what it claims, or a text waits in one
    """
    with open_works(path, read_only=True) as works:
        entries = [entry for entry in works.entries() if entry.kind == WPS.format]
        drafts = [(entry, _sound(works.draft(entry.id), entry.number)) for entry in entries]
    return tuple(within_reason(read_strict(draft.body, WPS, where=entry.number)) for entry, draft in drafts)


def machines_of(path: Path | None) -> tuple[Machine, ...]:
    """Return the machines of a works file, oldest first, with the readings that prove something; none without a file.

    Raises
    ------
    FormatError : the works file or one of its machines is not what it claims
    """
    if path is None:
        return ()
    with open_works(path, read_only=True) as works:
        entries = [entry for entry in works.entries() if entry.kind == SOURCE.format]
        return tuple(as_known(opened(works.draft(entry.id), SOURCE)) for entry in entries)


def records_for(found: Found[Wps], names: Sequence[str]) -> tuple[tuple[str, Pqr], ...]:
    """Return the records that are named, with their names, or else those of the works file of a procedure.

    Raises
    ------
    FormatError : a file is not what it claims
    UnknownNameError : the works file has no such record
    """
    named = tuple((each, find_document(each, PQR).value) for each in names)
    return named or (records_of(found.works) if found.works else ())
