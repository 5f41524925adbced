"""A JSON document on its way into a works file."""

from pathlib import Path
from typing import Any

from anlage.core.document import read_strict
from anlage.core.errors import InputError
from anlage.session.kinds import KINDS, kind_of
from anlage.session.works.found_documents import text_of_file, within_reason
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.standing import as_draft


def read_any(body: str, where: str) -> tuple[Any, str]:
    """Return the document that a text holds, read strictly as the kind that it says it is, and its format.

    Raises
    ------
    FormatError : it is none, or a value in it cannot be
    """
    kind = next((each for each in KINDS if f'"{each.format}"' in body[:400]), KINDS[0])
    return within_reason(read_strict(body, kind.core, where=where)), kind.format


def take_in(works: OpenWorks, path: Path) -> str:
    """Add the document of a JSON file to the open works file, and return its id.

    Raises
    ------
    FormatError : the file cannot be read, or is no document
    InputError : the works file has a document of that number, or cannot be written
    """
    value, kind = read_any(text_of_file(path), path.name)
    number = value.header.number
    if any(entry.number == number and entry.kind == kind for entry in works.all_entries()):
        raise InputError(f"{number} is in the works file already", where=path.name, mend="give it another number")
    if not works.can_write:
        raise InputError("the works file is open for reading only", where=path.name, mend="open one you can write")
    assert kind == kind_of(value).format, "it was read as what it says it is"
    return works.add(as_draft(value))
