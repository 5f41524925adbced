"""`anlage ranges`: what a record allows, variable by variable."""

import argparse
from collections.abc import Sequence
from pathlib import Path

from msgspec.structs import replace

from anlage.cli.demands import KEYS, with_demands
from anlage.cli.parsing import DEMANDS, DOCUMENT, add_codes, add_words, add_works
from anlage.cli.what_it_buys import by_each_code, what_if_answer
from anlage.core.procedure import Wps
from anlage.core.record import PQR
from anlage.core.results import Notice
from anlage.session.judging.evidence import evidence_of
from anlage.session.judging.record_ranges import ranges_of_record
from anlage.session.judging.records import coupon_of
from anlage.session.judging.statements import demand_of
from anlage.session.keyed.answer import Answer
from anlage.session.keyed.arguments import Arguments
from anlage.session.works.found_documents import find_document
from anlage.session.works.marked_codes import codes_of_file


def ranges_answer(name: str, code: str, words: Sequence[str], works: str = "") -> Answer:
    """Return the allowed sets of every variable that a record gives by a code.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims, or a name is unknown
    InputError : the record contradicts itself
    """
    found = find_document(name, PQR)
    arguments = Arguments(words, known=KEYS)
    codes = codes_of_file(Path(works) if works else found.works)
    pack, _ = codes.edition_of(code)
    asked = demand_of(with_demands(Wps(header=found.value.header), arguments), pack)
    ranges = ranges_of_record(code, found.value, asked, codes)
    notices = []
    evidence = evidence_of(found.value, pack, coupon_of(found.value, pack))
    if evidence.state != "accepted":
        text = f"the record is {evidence.words()}; it qualifies nothing yet"
        notices.append(Notice("record.not_accepted", "results", text))
    if evidence.remark:
        notices.append(Notice("record.overridden", "override", f"the record was {evidence.remark}"))
    answer = what_if_answer(ranges, notices)
    return replace(answer, values={"record": found.value.header.number, **answer.values})


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("record", metavar="PQR", help=DOCUMENT)
    add_codes(parser, needed=True)
    add_works(parser)
    add_words(parser, DEMANDS)


def answer(arguments: argparse.Namespace) -> Answer:
    """Say what a record allows."""
    return by_each_code(
        arguments.code, lambda code: ranges_answer(arguments.record, code, arguments.words, arguments.works)
    )
