"""What a works file says beside its documents: one rulebook a code, and the metals and fillers that it adds.

Each change is issued at once, so that every mark is proven.
"""

from collections.abc import Mapping

from anlage.core.document import write
from anlage.core.materials import MATERIALS, Materials
from anlage.core.rulebook import RULEBOOK, Rulebook
from anlage.store import Draft, Entry, WorksFile

DAMAGED = ""  # stands for what is not what was saved
BESIDE = (RULEBOOK.format, MATERIALS.format)  # of no weld: no document that anybody opens
ADDED = Materials().header.number  # the name under which the metals and fillers lie among the rulebooks


def rulebook_entries(file: WorksFile) -> tuple[Entry, ...]:
    """Return the rulebooks of a works file; the number of each is the name of its code."""
    return tuple(entry for entry in file.entries() if entry.kind == RULEBOOK.format)


def bodies_beside(file: WorksFile) -> Mapping[str, str]:
    """Return the text of every rulebook by its code, and of what is added to the catalogue under `ADDED`.

    `DAMAGED` stands for one that is not what was saved.
    """
    names = {entry.id: entry.number for entry in rulebook_entries(file)}
    names |= {entry.id: ADDED for entry in file.entries() if entry.kind == MATERIALS.format}
    drafts = {name: file.draft(own) for own, name in names.items()}
    return {name: DAMAGED if draft.flaws else draft.body for name, draft in drafts.items()}


def put_beside(file: WorksFile, document: Rulebook | Materials, *, author: str, now: str) -> None:
    """Save a rulebook in place of the one of its code, or what is added to the catalogue, and issue it as a revision.

    Raises
    ------
    InputError : nobody does it, or the file is open for reading only
    FormatError : it was not written, and why
    """
    body, header, kind = write(document), document.header, document.format
    own = next((each.id for each in file.entries() if (each.kind, each.number) == (kind, header.number)), "")
    if own:
        file.save_draft(own, Draft(body, {}), now=now, number=header.number, title=header.title)
    else:
        own = file.add(kind, body, now=now, number=header.number, title=header.title)
    file.issue(own, body, author=author, now=now)
