"""`anlage check`: a procedure judged by its code and its records."""

import argparse
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any

from anlage.cli.demands import KEYS, with_demands
from anlage.cli.parsing import DEMANDS, DOCUMENT, add_records, add_words, add_works
from anlage.core.codes import Rung
from anlage.core.errors import InputError
from anlage.core.procedure import WPS, Wps
from anlage.core.results import Notice, Source
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.ladder import Line, lines
from anlage.session.judging.marks import is_checked, overlay_sentences
from anlage.session.keyed.answer import Answer, number, open_ends, range_as_json
from anlage.session.keyed.arguments import Arguments
from anlage.session.leaves.marks import proposed_sentences
from anlage.session.works.found_documents import find_document, records_for
from anlage.session.works.marked_codes import codes_of_file


def check_answer(name: str, records: Sequence[str], words: Sequence[str], works: str = "") -> Answer:
    """Return the verdict on a procedure by its code, from the records named, or from those of its works file.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims, or a name is unknown
    InputError : the procedure names no code, or nothing in it can be judged
    """
    found = find_document(name, WPS)
    wps = with_demands(found.value, Arguments(words, known=KEYS))
    codes = codes_of_file(Path(works) if works else found.works)
    judge = Assessor(records_for(found, records), codes)
    proof = judge.assess(wps)
    if proof.judgement is None:
        raise InputError(proof.missing, where=wps.header.number or name, mend="state it in the procedure")
    pack, edition = codes.edition_of(str(wps.header.code))
    verdict, units = proof.judgement.verdict, wps.header.units
    notices = [Notice("record.refused", "pqr", str(fault)) for fault in judge.refused.values()]
    if not judge.records(pack):
        notices.append(Notice("record.none", "pqr", "no record was given, and every variable rests on one"))
    for record, why in proof.set_aside:
        notices.append(Notice("record.not_accepted", "pqr", f"{record} supports nothing, it is {why}"))
    notices += [Notice("record.overridden", "pqr", remark) for remark in proof.remarks]
    if wps.proposed:
        told = f"{len(wps.proposed)} leaves are only proposed: {' '.join(proposed_sentences(wps))}"
        notices.append(Notice.of("document.proposed", "proposed", told))
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
        "checked": is_checked(rung),
        **({"overlay": list(overlays)} if (overlays := overlay_sentences(rung.rules)) else {}),
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


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("procedure", metavar="WPS", help=DOCUMENT)
    add_records(parser)
    add_works(parser)
    add_words(parser, DEMANDS)


def answer(arguments: argparse.Namespace) -> Answer:
    """Judge a procedure."""
    words = [word for word in arguments.pqr if "=" in word]  # after --pqr a key=value is no file
    records = [word for word in arguments.pqr if "=" not in word]
    return check_answer(arguments.procedure, records, [*arguments.words, *words], arguments.works)
