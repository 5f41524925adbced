"""`anlage recover`: what can be read of a damaged works file, saved into a new one."""

import argparse
from pathlib import Path

from anlage.cli.parsing import add_json
from anlage.session.keyed.answer import Answer
from anlage.session.machine.clock import utc_now
from anlage.store.rescue import recover


def recover_answer(file: str, target: str, *, now: str) -> Answer:
    """Save what can be read; every document that is lost, or not as it was, is named.

    Raises
    ------
    FormatError : nothing can be read, or the new file cannot be made
    """
    found = recover(Path(file), Path(target), now=now)
    lines = [("written", target), ("documents", f"{found.documents}"), ("issued revisions", f"{found.revisions}")]
    values = {"file": target, "documents": found.documents, "revisions": found.revisions, "whole": not found.notices}
    return Answer(values, lines, (), found.notices)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("file", metavar="FILE", help="the damaged works file, which stays as it is")
    parser.add_argument("-o", "--output", required=True, metavar="NEW.anlage", help="the new works file")
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Save what can be read of a works file."""
    return recover_answer(arguments.file, arguments.output, now=utc_now())
