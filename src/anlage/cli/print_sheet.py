"""`anlage print`: the sheet of a procedure as PDF."""

import argparse
import hashlib
from collections.abc import Sequence
from pathlib import Path

from anlage.cli.parsing import DOCUMENT, add_force, add_json, add_records
from anlage.core.procedure import WPS
from anlage.formats.font import measure
from anlage.formats.pdf import pdf
from anlage.session.judging.assessment import Assessor
from anlage.session.keyed.answer import Answer
from anlage.session.machine.clock import made_at
from anlage.session.output.printed import Desired, printed
from anlage.session.output.saving import check_ending, check_target, save
from anlage.session.output.wps_sheet import Stationery
from anlage.session.works.found_documents import (
    find_document,
    records_for,
    source_of,
    standing_of,
)


def print_answer(name: str, target: str, records: Sequence[str], paper: str, *, force: bool = False) -> Answer:
    """Write the sheet of a procedure as PDF, and return where; only an issued revision is called issued.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims or cannot be written, or a name is unknown
    """
    found, path = find_document(name, WPS), Path(target)
    check_target(path, sources=(found.source, *map(source_of, records)), over=force)
    check_ending(path, (".pdf",))
    judge = Assessor(records_for(found, records))
    desired = Desired(Stationery(paper, measure), "", made_at())
    made = printed(found.value, judge.assess(found.value), standing_of(found), desired)
    pages = made.pages
    data = pdf(pages, title=made.title, author=made.author, made_at=made.made_at)
    save(path, lambda: data, sources=(found.source, *map(source_of, records)), over=force)
    values = {"file": str(path), "pages": len(pages), "sha256": hashlib.sha256(data).hexdigest()}
    return Answer(values, [("written", str(path)), ("pages", f"{len(pages)}")], ())


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("procedure", metavar="WPS", help=DOCUMENT)
    parser.add_argument("-o", "--output", required=True, metavar="FILE.pdf", help="the file to write")
    add_records(parser)
    parser.add_argument("--paper", choices=("a4", "letter"), default="a4")
    add_force(parser)
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Write the sheet of a procedure."""
    return print_answer(arguments.procedure, arguments.output, arguments.pqr, arguments.paper, force=arguments.force)
