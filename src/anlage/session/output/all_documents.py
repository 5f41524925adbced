"""Every document of a works file as JSON, each in a file of its own."""

import re
from pathlib import Path

from anlage.core.document import write
from anlage.core.errors import AnlageError, FormatError
from anlage.session.output.saving import save
from anlage.session.works.open_works import OpenWorks


def write_all(works: OpenWorks, folder: Path) -> tuple[str, ...]:
    """Write every document as it is now into a folder, under its number; nothing there is written over.

    Returns what could not be written and why, a sentence each.

    Raises
    ------
    FormatError : the folder cannot be written
    """
    refused = []
    for entry in works.all_entries():
        try:
            working, _ = works.read(entry.id)
        except AnlageError as fault:
            refused.append(f"{entry.number or entry.id} {fault.what}")
            continue
        body = write(working.value).encode()
        save(_free(folder, entry.number or entry.id), lambda body=body: body, over=False)  # type: ignore[misc]
    return tuple(refused)


def _free(folder: Path, number: str) -> Path:
    stem = re.sub(r"[^\w. -]", "-", number).strip(". ")[:100] or "document"
    names = (folder / f"{stem}{f' {count}' if count else ''}.json" for count in range(10_000))
    found = next((each for each in names if not each.exists()), None)
    if found is None:
        raise FormatError("it is full of files of that name", where=folder.name, mend="choose another folder")
    return found
