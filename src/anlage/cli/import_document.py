"""`anlage import`: a JSON document added to a works file, or a table of metals or fillers to its catalogue."""

import argparse
import os
from pathlib import Path

from anlage.cli.parsing import add_json
from anlage.core.errors import AnlageError, InputError
from anlage.session.keyed.answer import Answer
from anlage.session.machine.clock import utc_now
from anlage.session.works.beside import ADDED, bodies_beside, put_beside
from anlage.session.works.found_documents import text_of_file
from anlage.session.works.imported import read_any
from anlage.session.works.materials import materials_of, names_of, with_table
from anlage.store import WorksFile, create_works, open_works

TABLE = ".csv"


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
    with _works(path, now) as target:
        if any(entry.number == header.number and entry.kind == kind for entry in target.entries()):
            raise InputError(f"{header.number} is in it already", where=path.name, mend="give it another number")
        target.add(kind, body, now=now, number=header.number, title=header.title)
    return Answer({"works": str(path), "number": header.number}, [("added", header.number), ("to", str(path))], ())


def table_answer(file: str, works: str, author: str, *, now: str) -> Answer:
    """Add the metals or fillers of a table, CSV, to those of a works file, and return their names.

    Raises
    ------
    FormatError : a row or the works file is not what it claims, or a row is called as another; nothing is changed
    InputError : the works file is open elsewhere, or nobody does it
    """
    text, path = text_of_file(Path(file)), Path(works)
    if not author:
        raise InputError("nobody brings the table in", where="by", mend="say --by NAME")
    with _works(path, now) as target:
        before = materials_of(bodies_beside(target).get(ADDED))
        try:
            after = with_table(before, text)
        except AnlageError as fault:
            raise type(fault)(fault.what, where=f"{Path(file).name}: {fault.where}", mend=fault.mend) from fault
        put_beside(target, after, author=author, now=now)
    added = [name for name in names_of(after) if name not in names_of(before)]
    return Answer({"works": str(path), "added": added}, [("added", ", ".join(added)), ("to", str(path))], ())


def _works(path: Path, now: str) -> WorksFile:
    return open_works(path, now=now) if os.path.lexists(path) else create_works(path)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("file", metavar="FILE", help="a document as JSON, or a table of metals or fillers as CSV")
    parser.add_argument("--into", required=True, metavar="WORKS", help="a works file, NAME.anlage")
    parser.add_argument("--by", metavar="NAME", default="", help="who brings a table in")
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Add a document, or a table, to a works file."""
    now = utc_now()
    if Path(arguments.file).suffix.casefold() == TABLE:
        return table_answer(arguments.file, arguments.into, arguments.by, now=now)
    return import_answer(arguments.file, arguments.into, now=now)
