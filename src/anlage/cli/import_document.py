"""`anlage import`: a JSON document added to a works file."""

import argparse
import os
from pathlib import Path

from anlage.cli.parsing import add_json
from anlage.core.errors import InputError
from anlage.session.keyed.answer import Answer
from anlage.session.machine.clock import utc_now
from anlage.session.works.found_documents import text_of_file
from anlage.session.works.imported import read_any
from anlage.store import create_works, open_works


def import_answer(file: str, works: str, *, now: str) -> Answer:
    """Add a JSON document to a works file, made when it does not exist, and return its number.

    Raises
    ------
    FormatError : the JSON or the works file is not what it claims; nothing is changed
    InputError : the works file is open elsewhere, or has a document of that number
    """
    body, path = text_of_file(Path(file)), Path(works)
    document, kind = read_any(body, Path(file).name)
    header = document.header
    with open_works(path, now=now) if os.path.lexists(path) else create_works(path) as target:
        if any(entry.number == header.number and entry.kind == kind for entry in target.entries()):
            raise InputError(f"{header.number} is in it already", where=path.name, mend="give it another number")
        target.add(kind, body, now=now, number=header.number, title=header.title)
    return Answer({"works": str(path), "number": header.number}, [("added", header.number), ("to", str(path))], ())


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("file", metavar="FILE", help="a procedure or record as JSON")
    parser.add_argument("--into", required=True, metavar="WORKS", help="a works file, NAME.anlage")
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Add a document to a works file."""
    return import_answer(arguments.file, arguments.into, now=utc_now())
