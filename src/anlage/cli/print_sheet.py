"""`anlage print`: the sheet of a procedure as PDF."""

import argparse
import hashlib
from collections.abc import Sequence
from pathlib import Path
from typing import NamedTuple

from anlage.cli.parsing import DOCUMENT, add_force, add_json, add_records, add_works
from anlage.core.errors import InputError
from anlage.core.machine import Calibrated
from anlage.core.procedure import WPS
from anlage.formats.font import measure
from anlage.formats.pdf import pdf
from anlage.session.judging.assessment import Assessor
from anlage.session.keyed.answer import Answer
from anlage.session.machine.clock import made_at
from anlage.session.machine.settings import MOST_MONTHS, Settings, is_months
from anlage.session.output.printed import Desired, printed
from anlage.session.output.saving import check_ending, check_target, save
from anlage.session.output.wps_sheet import Stationery
from anlage.session.works.found_documents import (
    find_document,
    machines_of,
    records_for,
    source_of,
    standing_of,
)
from anlage.session.works.marked_codes import codes_of_file


class Wanted(NamedTuple):
    """What a sheet is printed on, and from which works file its machines are, taken to be calibrated for how long."""

    paper: str = "a4"
    works: str = ""
    months: int = Settings().calibration_months


def print_answer(name: str, target: str, records: Sequence[str], wanted: Wanted, *, force: bool = False) -> Answer:
    """Write the sheet of a procedure as PDF, and return where; only an issued revision is called issued.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims or cannot be written, or a name is unknown
    """
    found, path = find_document(name, WPS), Path(target)
    sources = (found.source, *map(source_of, records), *([Path(wanted.works)] if wanted.works else ()))
    check_target(path, sources=sources, over=force)
    check_ending(path, (".pdf",))
    now, works = made_at(), Path(wanted.works) if wanted.works else found.works
    codes = codes_of_file(works)
    judge = Assessor(records_for(found, records), codes)
    machines = Calibrated(machines=machines_of(works), today=now[:10], months=wanted.months)
    desired = Desired(Stationery(wanted.paper, measure), "", now, machines, codes)
    made = printed(found.value, judge.assess(found.value), standing_of(found), desired)
    pages = made.pages
    data = pdf(pages, title=made.title, author=made.author, made_at=made.made_at)
    save(path, lambda: data, sources=sources, over=force)
    values = {"file": str(path), "pages": len(pages), "sha256": hashlib.sha256(data).hexdigest()}
    return Answer(values, [("written", str(path)), ("pages", f"{len(pages)}")], ())


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("procedure", metavar="WPS", help=DOCUMENT)
    parser.add_argument("-o", "--output", required=True, metavar="FILE.pdf", help="the file to write")
    add_records(parser)
    add_works(parser, "whose machines and rulebook count; else its own")
    parser.add_argument(
        "--calibration-months", metavar="N", type=int, default=Wanted().months,
        help=f"how long a calibration holds, {Wanted().months} unless stated",
    )  # fmt: skip
    parser.add_argument("--paper", choices=("a4", "letter"), default="a4")
    add_force(parser)
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Write the sheet of a procedure."""
    if not is_months(arguments.calibration_months):
        what = f"{arguments.calibration_months} is no number of months"
        raise InputError(what, where="calibration-months", mend=f"write 1 to {MOST_MONTHS}")
    wanted = Wanted(arguments.paper, arguments.works, arguments.calibration_months)
    return print_answer(arguments.procedure, arguments.output, arguments.pqr, wanted, force=arguments.force)
