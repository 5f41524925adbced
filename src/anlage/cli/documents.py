"""Commands over documents: `check`, `ranges`, `schema`, `export`, `import`."""

import hashlib
import json
from collections.abc import Iterator, Sequence
from dataclasses import replace
from pathlib import Path
from typing import Any

from anlage.cli.answer import Answer, number, open_ends, range_as_json
from anlage.cli.arguments import Arguments
from anlage.cli.coupon import what_if_answer
from anlage.core.codes import Rung
from anlage.core.document import read_strict, with_at
from anlage.core.errors import AnlageError, FormatError, InputError
from anlage.core.procedure import WPS, Wps
from anlage.core.record import PQR, Pqr
from anlage.core.results import Notice, Source
from anlage.formats.font import measure
from anlage.session import exports
from anlage.session.found_documents import (
    Found,
    find_document,
    kind_named,
    records_of,
    standing_of,
    text_of_file,
)
from anlage.session.judging import Judge
from anlage.session.ladder import Line, lines
from anlage.session.record_ranges import ranges_of_record
from anlage.session.statements import demand_of
from anlage.session.what_if import edition_of
from anlage.store import open_works

DEMANDS = ("units", "weld", "impact")


def check_answer(name: str, records: Sequence[str], words: Sequence[str]) -> Answer:
    """Return the verdict on a procedure by its code, from the records named, or from those of its works file.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims, or a name is unknown
    InputError : the procedure names no code, or nothing in it can be judged
    """
    found = find_document(name, WPS)
    wps = _with_demands(found.value, Arguments(words, known=DEMANDS))
    judge = Judge([(each, find_document(each, PQR).value) for each in records] or _own_records(found))
    proof = judge.proof(wps)
    if proof.judgement is None:
        raise InputError(proof.missing, where=wps.header.number or name, mend="state it in the procedure")
    pack, edition = edition_of(str(wps.header.code))
    verdict, units = proof.judgement.verdict, wps.header.units
    notices = [Notice("record.refused", "pqr", str(fault)) for fault in judge.refused]
    if not judge.records:
        notices.append(Notice("record.none", "pqr", "no record was given, and every variable rests on one"))
    ladder = lines(wps, proof, units)
    values = {
        "document": {"number": wps.header.number, "revision": found.revision, "sha256": found.sha256},
        "verdict": verdict,
        "codes": {
            pack.code: {
                "edition": edition,
                "units": units,
                "verdict": verdict,
                "counts": proof.judgement.counts(),
                "variables": {rung.id: _rung(rung, line) for rung, line in _with_lines(proof.judgement.rungs, ladder)},
            }
        },
    }
    confidence = max((rung.confidence for rung in proof.judgement.rungs), key="HML".index, default="L")
    sources = [Source("rules", f"{pack.source}, edition {edition}", confidence)]
    return Answer(values, list(_table(wps, ladder, verdict)), sources, notices, status=0 if verdict == "inside" else 1)


def _with_demands(wps: Wps, words: Arguments) -> Wps:
    for key in DEMANDS:
        if key in words:
            value: Any = words.answer(key) if key == "impact" else words.text(key).casefold()
            wps = with_at(wps, f"header/{key}", value)
    return wps


def _with_lines(rungs: Sequence[Rung], ladder: Sequence[Line]) -> Iterator[tuple[Rung, Line]]:
    by_id = {line.rung.id: line for line in ladder}
    return ((rung, by_id[rung.id]) for rung in rungs)


def _rung(rung: Rung, line: Line) -> dict[str, Any]:
    answer = {
        "verdict": rung.verdict,
        "stated": None if rung.stated is None else range_as_json(rung.stated),
        "allowed": range_as_json(rung.sure),
        "possible": range_as_json(rung.possible),
        "gap": None if rung.gap is None else number(rung.gap),
        "category": rung.category,
        "because": rung.because,
        "clause": rung.clause,
        "confidence": rung.confidence,
        "checked": False,  # nobody has compared a rule with an owned copy yet: there is no way to say so
        "records": list(rung.records),
        "reason": f"{line.reason} {line.mend}".strip(),
    }
    return answer | ({"open": ends} if (ends := open_ends(rung.sure)) else {})


def _table(wps: Wps, ladder: Sequence[Line], verdict: str) -> Iterator[tuple[str, str]]:
    yield wps.header.number or "procedure", verdict
    for line in ladder:
        if line.is_problem:
            yield f"  {line.rung.id}", f"{line.rung.verdict}: {line.reason} {line.mend} ({line.rung.clause})"
    inside = sum(not line.is_problem for line in ladder)
    yield "inside", f"{inside} of {len(ladder)} variables"


def ranges_answer(name: str, code: str, words: Sequence[str]) -> Answer:
    """Return the allowed sets of every variable that a record gives by a code.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims, or a name is unknown
    InputError : the record contradicts itself
    """
    found = find_document(name, PQR)
    arguments = Arguments(words, known=DEMANDS)
    asked = demand_of(_with_demands(Wps(header=found.value.header), arguments))
    ranges = ranges_of_record(code, found.value, asked)
    notices = []
    if found.value.state != "accepted":
        text = f"the record is {found.value.state}: it qualifies nothing yet"
        notices.append(Notice("record.not_accepted", "state", text))
    answer = what_if_answer(ranges, notices)
    return replace(answer, values={"record": found.value.header.number, **answer.values})


def print_answer(name: str, target: str, records: Sequence[str], paper: str) -> Answer:
    """Write the sheet of a procedure as PDF, and return where; only an issued revision is called issued.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims or cannot be written, or a name is unknown
    """
    from anlage.formats.font import measure
    from anlage.formats.pdf import pdf
    from anlage.session.sheet import sheet

    found = find_document(name, WPS)
    judge = Judge([(each, find_document(each, PQR).value) for each in records] or _own_records(found))
    pages = sheet(found.value, judge.proof(found.value), standing_of(found), paper=paper, measure=measure)
    data, path = pdf(pages, title=found.value.header.number), Path(target)
    try:
        path.write_bytes(data)
    except OSError as fault:
        raise FormatError("it cannot be written", where=path.name, mend="choose a folder you can write") from fault
    values = {"file": str(path), "pages": len(pages), "sha256": hashlib.sha256(data).hexdigest()}
    return Answer(values, [("written", str(path)), ("pages", f"{len(pages)}")], ())


def _own_records(found: Found[Wps]) -> tuple[tuple[str, Pqr], ...]:
    return records_of(found.works) if found.works else ()


def schema_answer(word: str) -> Answer:
    """Return the JSON Schema of a kind of document; it is printed as it is, with or without `--json`.

    Raises
    ------
    UnknownNameError : there is no such kind
    """
    schema = kind_named(word).schema()
    return Answer(schema, [("", line) for line in json.dumps(schema, indent=2, ensure_ascii=False).splitlines()], ())


def export_answer(name: str, target: str, *, picture: str = "section") -> Answer:
    """Write a document as JSON, or a picture or the passes of a procedure by the ending of the file; return where.

    Raises
    ------
    FormatError : the target exists or cannot be written, or the source is not what it claims
    InputError : the picture cannot be drawn, or nothing is written with that ending
    """
    path = Path(target)
    if path.suffix.lower() in exports.ENDINGS:
        procedure = find_document(name, WPS)
        body, sha256 = _picture_or_table(procedure.value, path, picture), procedure.sha256
    else:
        found = _find_any(name)
        body, sha256 = found.body.encode("utf-8"), found.sha256
    try:
        with path.open("xb") as file:
            file.write(body)
    except FileExistsError as fault:
        raise FormatError("it exists already", where=path.name, mend="choose another name") from fault
    except OSError as fault:
        raise FormatError("it cannot be written", where=path.name, mend="choose a folder you can write") from fault
    return Answer({"file": str(path), "sha256": sha256}, [("written", str(path)), ("sha256", sha256)], ())


def _picture_or_table(wps: Wps, path: Path, picture: str) -> bytes:
    ending = path.suffix.lower()
    if ending in (".csv", ".xlsx"):
        return exports.table_file(wps, ending, wps.header.units, {})
    return exports.picture_file(wps, picture, ending, wps.header.units, measure)


def _find_any(name: str) -> Found[Any]:
    """Return the procedure of a name, or else the record."""
    try:
        return find_document(name, WPS)
    except AnlageError as no_procedure:
        try:
            return find_document(name, PQR)
        except AnlageError:
            raise no_procedure from None


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
    with open_works(path) as target:
        if any(entry.number == header.number and entry.kind == kind for entry in target.entries()):
            raise InputError(f"{header.number} is in it already", where=path.name, mend="give it another number")
        target.add(kind, body, now=now, number=header.number, title=header.title)
    return Answer({"works": str(path), "number": header.number}, [("added", header.number), ("to", str(path))], ())


def _read_any(body: str, where: str) -> tuple[Any, str]:
    """Return the document that a text holds, read strictly as the kind that it says it is, and its format."""
    kind = PQR if f'"{PQR.format}"' in body[:400] else WPS
    return read_strict(body, kind, where=where), kind.format  # type: ignore[arg-type]  # one kind or the other
