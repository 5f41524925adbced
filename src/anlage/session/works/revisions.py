"""Earlier revisions: read again as they were issued."""

from typing import Any

from anlage.core.document import read_strict
from anlage.session.kinds import kind_named
from anlage.session.works.standing import Standing, against_revision, as_draft
from anlage.store import Revision


def read_revision(revision: Revision, kind: str) -> Any:
    """Return the document that a revision holds, as a draft that goes on from it would.

    Raises
    ------
    FormatError : it is no document of this kind any more
    """
    return as_draft(read_strict(revision.body, kind_named(kind).core, where=f"revision {revision.number}"))


def standing_of_revision(revision: Revision, value: Any) -> Standing:
    """Return the standing of a revision read again: it is issued, as what it was."""
    return against_revision(revision, value, revision.sha256)


def words_of(revision: Revision) -> str:
    """Return how a revision is called in a list."""
    return f"revision {revision.number}, {revision.issued_at[:10]}, {revision.author}"
