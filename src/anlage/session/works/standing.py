"""Whether a procedure is a revision as issued, or a draft."""

from functools import lru_cache
from typing import Any

from msgspec import Struct

from anlage.core.document import read_strict, with_
from anlage.core.errors import FormatError
from anlage.core.procedure import Revision as Said
from anlage.core.procedure import Wps
from anlage.session.kinds import kind_named, kind_of
from anlage.session.leaves.draft import Working
from anlage.store import Revision


class Standing(Struct, frozen=True):
    """Which state of a procedure is printed: a revision as issued, or a draft; `sha256` is that of what is printed.

    `link` is that of the last issued revision in the chain of its works file; `change` says what changed with it and
    `reason` why it was issued although something was amiss; `waiting` how many texts stand in fields
    that were not taken over: what is printed is what was stated before them.
    """

    sha256: str
    revision: int | None = None  # the last issued one
    is_issued: bool = False  # what is printed is that revision
    author: str = ""
    issued_at: str = ""
    link: str = ""
    waiting: int = 0
    change: str = ""
    reason: str = ""

    def words(self) -> str:
        """Return the state in words; only what was issued is called so."""
        if self.is_issued:
            return f"revision {self.revision}, issued {self.issued_at[:10]} by {self.author}"
        words = f"draft after revision {self.revision}, not issued" if self.revision else "draft, not issued"
        return f"{words}; {waiting_texts(self.waiting)}" if self.waiting else words

    def badge(self) -> str:
        """Return the state in the fewest words."""
        if self.is_issued:
            return f"revision {self.revision}"
        return f"draft after {self.revision}" if self.revision else "draft"


def standing_of(last: Revision | None, working: Working, digest: str = "") -> Standing:
    """Return how a draft stands against the revision that was issued last; `digest` is the hash of what it is now."""
    waiting = len(working.pending)
    return against_revision(last, working.value, digest, waiting) if last else Standing(digest, waiting=waiting)


def against_revision(own: Revision, value: Any, digest: str, waiting: int = 0) -> Standing:
    """Return how a value stands against a revision; `digest` is the hash of the value itself."""
    is_issued = not waiting and is_same(own.body, value)
    said = said_of(own.body, kind_of(value).id) if is_issued else Said()
    return Standing(
        own.sha256 if is_issued else digest, own.number, is_issued, own.author, own.issued_at, own.link, waiting,
        said.change or "", said.reason or "",
    )  # fmt: skip


def waiting_texts(count: int) -> str:
    """Return that texts stand in fields which are not taken over, and so not judged.

    Examples
    --------
    >>> waiting_texts(1), waiting_texts(2)
    ('1 text not taken over', '2 texts not taken over')
    """
    return f"{count} text{'' if count == 1 else 's'} not taken over"


def is_same(body: str, value: Any) -> bool:
    """Return whether an issued text is a value, whatever version of its format it was written in.

    What was said of the revision does not count: a draft never has it.
    """
    issued = issued_value(body, kind_of(value).id)
    return issued is not None and bool(as_draft(issued) == as_draft(value))


def as_draft(value: Any) -> Any:
    """Return an issued document as a draft that goes on from it: without what was said of that revision."""
    return with_(value, revision=Said()) if isinstance(value, Wps) else value


def said_of(body: str, kind: str) -> Said:
    """Return what was said when a text was issued: what changed, and why it was although something was amiss."""
    issued = issued_value(body, kind)
    return issued.revision if isinstance(issued, Wps) else Said()


@lru_cache(maxsize=16)
def issued_value(body: str, kind: str) -> Any:
    """Return the document that an issued text holds; `None` when it cannot be read any more."""
    try:
        return read_strict(body, kind_named(kind).core)
    except FormatError:
        return None
