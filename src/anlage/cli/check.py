"""`anlage check`: a procedure judged by its code and its records."""

import argparse
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any

from msgspec import Struct

from anlage.cli.demands import KEYS, with_demands
from anlage.cli.parsing import DEMANDS, DOCUMENT, add_codes, add_records, add_words, add_works
from anlage.core.codes import Judgement, Pack, Rung, worst
from anlage.core.errors import InputError
from anlage.core.machine import Calibrated
from anlage.core.procedure import WPS, Wps
from anlage.core.quantities.units import System
from anlage.core.results import Notice, Source
from anlage.session.heat.amiss import heat_amiss
from anlage.session.judging.assessment import Assessment, Assessor
from anlage.session.judging.ladder import Line, lines
from anlage.session.judging.marks import is_checked, overlay_sentences
from anlage.session.keyed.answer import Answer, number, open_ends, range_as_json
from anlage.session.keyed.arguments import Arguments
from anlage.session.leaves.marks import proposed_sentences
from anlage.session.works.found_documents import find_document, machines_of, records_for
from anlage.session.works.marked_codes import codes_of_file


class Judged(Struct, frozen=True):
    """A procedure judged by one code: how the code is called in the answer, its edition and source, and the ladder."""

    name: str
    edition: str
    source: str
    judgement: Judgement
    ladder: tuple[Line, ...]

    @property
    def confidence(self) -> str:
        """The lowest confidence among the rules."""
        return max((rung.confidence for rung in self.judgement.rungs), key="HML".index, default="L")


class Asked(Struct, frozen=True):
    """What a procedure is judged by: records, words, the works file whose rulebook counts, codes besides its own."""

    records: Sequence[str] = ()
    words: Sequence[str] = ()
    works: str = ""
    codes: Sequence[str] = ()


def check_answer(name: str, asked: Asked) -> Answer:
    """Return the verdict on a procedure by its code, or by each of several, from records named or of its works file.

    What of its heat is not shown to hold, by the construction code of the job and by the schools, is a notice.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims, or a name is unknown
    InputError : the procedure names no code, or nothing in it can be judged
    """
    found = find_document(name, WPS)
    wps = with_demands(found.value, Arguments(asked.words, known=KEYS))
    works = Path(asked.works) if asked.works else found.works
    codes = codes_of_file(works)
    judge = Assessor(records_for(found, asked.records), codes)
    judged, notices = [], []
    named = tuple(dict.fromkeys(asked.codes or wps.header.codes))
    for proof in [judge.by_one(wps, code) for code in named] or [judge.assess(wps)]:
        if proof.judgement is None:
            raise InputError(proof.missing, where=wps.header.number or name, mend="state it in the procedure")
        pack, edition = codes.edition_of(proof.code)
        own = proof.code.strip().lower() if len(named) > 1 else pack.code
        judged.append(Judged(own, edition, pack.source, proof.judgement, lines(wps, proof, wps.header.units)))
        notices += _notices(judge, pack, proof)
    verdict = worst(each.judgement.verdict for each in judged)
    if wps.proposed:
        told = f"{len(wps.proposed)} leaves are only proposed: {' '.join(proposed_sentences(wps))}"
        notices.append(Notice.of("document.proposed", "proposed", told))
    heat = heat_amiss(wps, codes, Calibrated(machines=machines_of(works)), wps.header.units)
    notices += [Notice.of(f"heat.{own}", "heat", f"{word}: {own}. {why}") for own, word, why in heat]
    values = {
        "document": {"number": wps.header.number, "revision": found.revision, "sha256": found.sha256},
        "verdict": verdict,
        "codes": {each.name: _by_code(each, wps.header.units) for each in judged},
    }
    sources = [Source("rules", f"{each.source}, edition {each.edition}", each.confidence) for each in judged]
    table = [line for each in judged for line in _table(wps, each, several=len(judged) > 1)]
    return Answer(values, table, sources, list(dict.fromkeys(notices)), status=0 if verdict == "inside" else 1)


def _notices(judge: Assessor, pack: Pack, proof: Assessment) -> list[Notice]:
    notices = [Notice("record.refused", "pqr", str(fault)) for fault in judge.refused.values()]
    if not judge.records(pack) and not pack.details:
        notices.append(Notice("record.none", "pqr", "no record was given, and every variable rests on one"))
    for record, why in proof.set_aside:
        notices.append(Notice("record.not_accepted", "pqr", f"{record} supports nothing, it is {why}"))
    return [*notices, *(Notice("record.overridden", "pqr", remark) for remark in proof.remarks)]


def _by_code(judged: Judged, units: System) -> dict[str, Any]:
    return {
        "edition": judged.edition,
        "units": units,
        "verdict": judged.judgement.verdict,
        "counts": judged.judgement.counts(),
        "variables": {rung.id: _rung(rung, line) for rung, line in _with_lines(judged.judgement.rungs, judged.ladder)},
    }


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


def _table(wps: Wps, judged: Judged, *, several: bool) -> Iterator[tuple[str, str]]:
    ladder, by = judged.ladder, f" by {judged.name}" if several else ""
    yield f"{wps.header.number or 'procedure'}{by}", judged.judgement.verdict
    for line in ladder:
        if line.is_problem:
            clause = f" ({line.rung.clause})" if line.rung.clause else ""  # a demand that nobody stated has none
            yield f"  {line.rung.id}", f"{line.rung.verdict}: {line.reason} {line.mend}{clause}"
    inside = sum(not line.is_problem for line in ladder)
    yield "inside", f"{inside} of {len(ladder)} variables"


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("procedure", metavar="WPS", help=DOCUMENT)
    add_records(parser)
    add_works(parser)
    add_codes(parser, needed=False)
    add_words(parser, DEMANDS)


def answer(arguments: argparse.Namespace) -> Answer:
    """Judge a procedure."""
    words = [word for word in arguments.pqr if "=" in word]  # after --pqr a key=value is no file
    records = [word for word in arguments.pqr if "=" not in word]
    asked = Asked(records, [*arguments.words, *words], arguments.works, arguments.code)
    return check_answer(arguments.procedure, asked)
