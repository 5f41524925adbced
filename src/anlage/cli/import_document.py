"""`anlage import`: a JSON document added to a works file."""

import argparse
import os
from pathlib import Path
from typing import Any

from anlage.cli.parsing import add_json
from anlage.core.document import read_strict
from anlage.core.errors import InputError
from anlage.session.keyed.answer import Answer
from anlage.session.kinds import KINDS
from anlage.session.machine.clock import utc_now
from anlage.session.works.found_documents import (
    text_of_file,
    within_reason,
)
from anlage.store import create_works, open_works


def import_answer(file: str, works: str, *, now: str) -> Answer:
    """Add a JSON document to a works file, made when it does not exist, and return its number.

    Raises
    ------
    FormatError : the JSON or the works file is not what it claims; nothing is changed
    InputError : the works file is open elsewhere, or has a document of that number
    """
    body, path = text_of_file(Path(file)), Path(works)
    document, kind = _read_any(body, Path(file).name)
    header = document.header
    with open_works(path, now=now) if os.path.lexists(path) else create_works(path) as target:
        if any(entry.number == header.number and entry.kind == kind for entry in target.entries()):
            raise InputError(f"{header.number} is in it already", where=path.name, mend="give it another number")
        target.add(kind, body, now=now, number=header.number, title=header.title)
    return Answer({"works": str(path), "number": header.number}, [("added", header.number), ("to", str(path))], ())


def _read_any(body: str, where: str) -> tuple[Any, str]:
    """Return the document that a text holds, read strictly as the kind that it says it is, and its format."""
    kind = next((each for each in KINDS if f'"{each.format}"' in body[:400]), KINDS[0])
    return within_reason(read_strict(body, kind.core, where=where)), kind.format


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("file", metavar="FILE", help="a procedure or record as JSON")
    parser.add_argument("--into", required=True, metavar="WORKS", help="a works file, NAME.anlage")
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Add a document to a works file."""
    return import_answer(arguments.file, arguments.into, now=utc_now())
