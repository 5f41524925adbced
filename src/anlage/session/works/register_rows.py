"""The rows of the Register: the list at once, what is known of each document, and the rest as it is judged.

A verdict is kept as long as nothing that it hangs on is another: the document, the records, the units of the reader.
"""

from collections.abc import Callable, Mapping, Sequence
from hashlib import sha256
from threading import Event, Lock, Thread

from msgspec import Struct

from anlage.core.errors import AnlageError
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import KINDS, PROCEDURE, RECORD, SOURCE
from anlage.session.works.clerk_process import ClerkProcess
from anlage.session.works.filed import Filed
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import RegisterRow, Standpoint, row_of, unread_row, waiting_row
from anlage.store import Entry

FEW = 24  # documents that are judged at once, while the window waits
FEW_RECORDS = 60  # records that are read at once for them
GONE = "not judged: the process that judges has ended; change a document, or open the works file again"
BATCH = 25  # documents that are judged before their rows are shown

Key = tuple[str, str, str]  # the units, the stamp of the document, and that of all records or the day


class _Asked(Struct, frozen=True):
    """What is to be judged: which of all documents, what their rows hang on, and who reads them."""

    entries: Sequence[Entry]
    missing: Sequence[Entry]
    keys: Mapping[str, Key]
    seen: Standpoint

    @property
    def rows(self) -> frozenset[tuple[str, Key]]:
        """Every row that is asked for, as it hangs on what is so now."""
        return frozenset((entry.id, self.keys[entry.id]) for entry in self.missing)


class RegisterRows:
    """Keeps the rows of one works file.

    Parameters
    ----------
    works : the file
    judged : called on another thread when more is known; `rows` then says what
    clerk : makes who judges when there are many
    """

    def __init__(
        self, works: OpenWorks, judged: Callable[[], None], clerk: Callable[[], ClerkProcess] = ClerkProcess
    ) -> None:
        self._works, self._judged, self._make = works, judged, clerk
        self._clerk: ClerkProcess | None = None
        self._known: dict[str, str] = {}  # by document, its stamp as the clerk knows it
        self._kept: dict[str, tuple[Key, RegisterRow]] = {}
        self._lock, self._stop, self._thread = Lock(), Event(), Thread()
        self._asked: frozenset[tuple[str, Key]] = frozenset()  # what is being judged
        self._failed: frozenset[tuple[str, Key]] = frozenset()  # what was being judged when the clerk went away

    def rows(self, seen: Standpoint, assessor: Callable[[], Assessor]) -> tuple[RegisterRow, ...]:
        """Return every document, kind by kind; what is not known of it yet is on its way, where it takes long.

        Parameters
        ----------
        assessor : gives who judges here, when it is little
        """
        entries = [entry for kind in KINDS for entry in self._works.entries(kind)]
        keys = self._keys(entries, seen)
        with self._lock:
            kept = {own: row for own, (key, row) in self._kept.items() if keys.get(own) == key}
        missing = [entry for entry in entries if entry.id not in kept]
        if missing and len(missing) <= FEW and len(self._works.entries(RECORD)) <= FEW_RECORDS:
            for entry in missing:
                kept[entry.id] = self._row(entry, assessor(), seen)
            self._keep([(keys[entry.id], kept[entry.id]) for entry in missing])
        elif missing:
            self._ask(_Asked(entries, missing, keys, seen))
        said = GONE if self._failed else "being judged…"
        return tuple(kept.get(entry.id) or waiting_row(entry, said) for entry in entries)

    def close(self) -> None:
        """Stop judging."""
        self._stop.set()
        if self._clerk is not None:
            self._clerk.close()
        self._asked = frozenset()

    def _keys(self, entries: Sequence[Entry], seen: Standpoint) -> dict[str, Key]:
        """Return of every document what its row hangs on."""
        stamps = self._works.stamps()
        of_records = "\n".join(stamps.get(entry.id, "") for entry in entries if entry.kind == RECORD.format)
        of_rules = repr(sorted(self._works.beside().items()))
        rules, proven = (sha256(text.encode()).hexdigest() for text in (of_rules, of_records + of_rules))
        of_kind = {PROCEDURE.format: proven, RECORD.format: rules, SOURCE.format: f"{seen.today}, {seen.months}"}
        return {
            entry.id: (seen.system, stamps.get(entry.id, ""), of_kind.get(entry.kind, "")) for entry in entries
        }  # fmt: skip

    def _row(self, entry: Entry, assessor: Assessor, seen: Standpoint) -> RegisterRow:
        last = next(reversed(self._works.revisions(entry.id)), None)
        try:
            read = self._works.read(entry.id)
        except AnlageError as fault:
            return row_of(entry, fault, last, assessor, seen)
        return row_of(entry, read, last, assessor, seen)

    def _keep(self, found: Sequence[tuple[Key, RegisterRow]]) -> None:
        with self._lock:
            self._kept |= {row.id: (key, row) for key, row in found}

    # Many ------------------------------------------------------------------------------------

    def _ask(self, asked: _Asked) -> None:
        """Have documents judged on a thread, unless they are being judged as they are."""
        rows = asked.rows
        if rows <= self._failed or (self._thread.is_alive() and rows <= self._asked):
            return
        self._stop.set()
        before, self._stop, self._asked, self._failed = self._thread, Event(), rows, frozenset()
        self._thread = Thread(target=self._judge, args=(before, self._stop, asked), name="register", daemon=True)
        self._thread.start()

    def _judge(self, before: Thread, stop: Event, asked: _Asked) -> None:
        if before.is_alive():
            before.join()
        try:
            self._clerk = clerk = self._clerk or self._make()
            taken = self._send(clerk, asked)
            left = [entry.id for entry in asked.missing if entry.id in taken]
            for start in range(0, len(left), BATCH):
                if stop.is_set():
                    return
                found = clerk.rows(left[start : start + BATCH], asked.seen)
                self._keep([(asked.keys[row.id], row) for row in found])
                self._judged()
        except Exception as fault:
            self._clerk, self._known = None, {}  # another one is made when something else is asked
            if not stop.is_set():
                self._failed = asked.rows
                self._judged()
            if not isinstance(fault, OSError | EOFError):  # the process is gone, or was ended
                raise

    def _send(self, clerk: ClerkProcess, asked: _Asked) -> set[str]:
        """Tell the clerk of every document that is another than it knows; return those that can be read."""
        sent: list[Filed] = []
        for entry in asked.entries:
            stamp = asked.keys[entry.id][1]
            if self._known.get(entry.id) == stamp:
                continue
            self._known[entry.id] = stamp
            try:
                sent.append(self._works.filed(entry))
            except AnlageError as fault:
                del self._known[entry.id]
                self._keep([(asked.keys[entry.id], unread_row(entry, fault))])
        clerk.take(sent, [entry.id for entry in asked.entries], self._works.beside())
        return set(self._known)
