"""The rulebooks of a works file: one document a code, each change issued at once, so that every mark is proven."""

from collections.abc import Mapping

from anlage.core.document import write
from anlage.core.rulebook import RULEBOOK, Rulebook
from anlage.store import Draft, Entry, WorksFile

DAMAGED = ""  # stands for a rulebook that is not what was saved


def rulebook_entries(file: WorksFile) -> tuple[Entry, ...]:
    """Return the rulebooks of a works file; the number of each is the name of its code."""
    return tuple(entry for entry in file.entries() if entry.kind == RULEBOOK.format)


def rulebook_bodies(file: WorksFile) -> Mapping[str, str]:
    """Return the text of every rulebook by its code; `DAMAGED` for one that is not what was saved."""
    drafts = [(entry.number, file.draft(entry.id)) for entry in rulebook_entries(file)]
    return {code: DAMAGED if draft.flaws else draft.body for code, draft in drafts}


def put_rulebook(file: WorksFile, book: Rulebook, *, author: str, now: str) -> None:
    """Save a rulebook in a works file, in place of the one of its code, and issue it as a revision.

    Raises
    ------
    InputError : nobody does it, or the file is open for reading only
    FormatError : it was not written, and why
    """
    body, header = write(book), book.header
    own = next((entry.id for entry in rulebook_entries(file) if entry.number == header.number), "")
    if own:
        file.save_draft(own, Draft(body, {}), now=now, number=header.number, title=header.title)
    else:
        own = file.add(RULEBOOK.format, body, now=now, number=header.number, title=header.title)
    file.issue(own, body, author=author, now=now)
