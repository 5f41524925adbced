"""`anlage export`: a document as JSON, or its pictures and tables."""

import argparse
from pathlib import Path
from typing import Any

from anlage.cli.parsing import add_force, add_json
from anlage.core.errors import AnlageError
from anlage.core.procedure import WPS, Wps
from anlage.formats.font import measure
from anlage.session.keyed.answer import Answer
from anlage.session.kinds import KINDS
from anlage.session.output.pictures import picture_file
from anlage.session.output.saving import ENDINGS, check_ending, check_target, save
from anlage.session.output.tables import table_file
from anlage.session.works.found_documents import (
    Found,
    find_document,
    source_of,
)


def export_answer(name: str, target: str, *, picture: str = "section", force: bool = False) -> Answer:
    """Write a document as JSON, or a picture or the passes of a procedure by the ending of the file; return where.

    Raises
    ------
    FormatError : the target exists or cannot be written, or the source is not what it claims
    InputError : the picture cannot be drawn, or nothing is written with that ending
    """
    path = Path(target)
    check_target(path, sources=(source_of(name),), over=force)
    check_ending(path, (".json", *ENDINGS))
    if path.suffix.lower() in ENDINGS:
        procedure = find_document(name, WPS)
        body, sha256 = _picture_or_table(procedure.value, path, picture), procedure.sha256
    else:
        found = _find_any(name)
        body, sha256 = found.body.encode("utf-8"), found.sha256
    save(path, lambda: body, sources=(source_of(name),), over=force)
    return Answer({"file": str(path), "sha256": sha256}, [("written", str(path)), ("sha256", sha256)], ())


def _picture_or_table(wps: Wps, path: Path, picture: str) -> bytes:
    ending = path.suffix.lower()
    if ending in (".csv", ".xlsx"):
        return table_file(wps, ending, wps.header.units, {})
    return picture_file(wps, picture, ending, wps.header.units, measure)


def _find_any(name: str) -> Found[Any]:
    """Return the document of a name, whatever its kind; refused as the first kind refuses it."""
    refusals: list[AnlageError] = []
    for kind in KINDS:
        try:
            return find_document(name, kind.core)
        except AnlageError as refusal:
            refusals.append(refusal)
    raise refusals[0]


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("document", metavar="WORKS#NUMBER", help="NAME.anlage#NUMBER, or #NUMBER@REVISION")
    parser.add_argument(
        "-o", "--output", required=True, metavar="FILE",
        help="the file to make: .json, .svg .pdf .dxf for a picture, .csv .xlsx for the passes",
    )  # fmt: skip
    parser.add_argument(
        "--picture",
        default="section",
        metavar="NAME",
        help="position, section, beads, designs, symbol, stops, node, cope, fit-up/PLACE or sectors/PASS",
    )
    add_force(parser)
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Write a document, a picture or a table."""
    return export_answer(arguments.document, arguments.output, picture=arguments.picture, force=arguments.force)
