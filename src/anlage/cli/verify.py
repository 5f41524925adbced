"""`anlage verify`: whether the issued revisions of a works file are still what was issued."""

import argparse
from pathlib import Path

from anlage.cli.parsing import add_json
from anlage.session.keyed.answer import Answer
from anlage.store import open_works


def verify_answer(file: str) -> Answer:
    """Return what became of every issued revision; the status is 1 when one is not what was issued.

    Raises
    ------
    FormatError : the file is no works file, or a damaged or newer one
    """
    path = Path(file)
    with open_works(path, read_only=True) as works:
        faults = works.verify()
        entries = (*works.entries(), *works.entries(deleted=True))
    revisions = sum(entry.revisions for entry in entries)
    told = "intact" if not faults else f"{len(faults)} not what was issued"
    lines = [("works file", path.name), ("documents", f"{len(entries)}"), ("issued revisions", f"{revisions}, {told}")]
    values = {"file": path.name, "documents": len(entries), "revisions": revisions, "intact": not faults}
    return Answer(values, lines, (), faults, status=1 if faults else 0)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("file", metavar="FILE", help="a works file, NAME.anlage")
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Prove the issued revisions."""
    return verify_answer(arguments.file)
