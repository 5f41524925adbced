"""`anlage diff`: two states of a procedure, variable by variable, and what each difference asks for."""

import argparse
from collections import Counter
from collections.abc import Sequence
from pathlib import Path
from typing import Any

from anlage.cli.parsing import DOCUMENT, add_codes, add_json, add_records, add_works
from anlage.core.document import with_at
from anlage.core.procedure import WPS, Wps
from anlage.core.results import Notice, Source
from anlage.session.judging.assessment import Assessor
from anlage.session.judging.change_cost import VariableChange, changes_between
from anlage.session.judging.ladder import spoken_variable
from anlage.session.keyed.answer import Answer, range_as_json
from anlage.session.leaves.set_text import set_text
from anlage.session.works.differences import differences
from anlage.session.works.found_documents import find_document, records_for
from anlage.session.works.marked_codes import codes_of_file

ASKS = {
    "requalify": "needs a record that covers it", "unproven": "unproven", "covered": "still covered",
    "editorial": "editorial",
}  # fmt: skip
NOT_STATED = "not stated"


def diff_answer(names: Sequence[str], records: Sequence[str], named: Sequence[str], works: str = "") -> Answer:
    """Return what differs between two procedures and what it costs.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims, or a name is unknown
    InputError : one of them names no code, or cannot be judged
    """
    found = [find_document(name, WPS) for name in names]
    one, other = (_by(each.value, named) for each in found)
    codes = codes_of_file(Path(works) if works else found[1].works or found[0].works)
    judge = Assessor(records_for(found[1], records) or records_for(found[0], records), codes)
    changes = changes_between(one, other, judge.assess)
    packs = [codes.edition_of(code) for code in other.header.codes]
    units = other.header.units
    leaves = differences(one, other, units)
    notices = [Notice("record.refused", "pqr", str(fault)) for fault in judge.refused.values()]
    if not any(judge.records(pack) or pack.details for pack, _ in packs):
        notices.append(Notice("record.none", "pqr", "no record was given, and every variable rests on one"))
    values = {
        "before": one.header.number,
        "after": other.header.number,
        "codes": {
            pack.code: {"edition": edition, "variables": {e.id: _values(e) for e in changes if e.code == pack.code}}
            for pack, edition in packs
        },
        "leaves": [{"leaf": each.label, "before": each.left, "after": each.right} for each in leaves],
    }
    counts = Counter[str](each.consequence for each in changes)
    head = ", ".join(f"{counts[word]} {said}" for word, said in ASKS.items() if counts[word]) or "no variable differs"
    table = [(f"{one.header.number or names[0]} to {other.header.number or names[1]}", head)]
    for each in changes:
        said = f"{_said(each.before, each, units)} to {_said(each.after, each, units)}: {ASKS[each.consequence]}"
        by = f" by {each.code}" if len(packs) > 1 else ""
        table.append((f"  {each.id}{by}", f"{said} ({each.clause})" if each.clause else said))
    table += [(f"  {each.label}", f"{each.left} to {each.right}") for each in leaves]
    sources = [Source("rules", f"{pack.source}, edition {edition}", "M") for pack, edition in packs]
    asks = counts["requalify"] + counts["unproven"]
    return Answer(values, table, sources, notices, status=1 if asks else 0)


def _by(wps: Wps, codes: Sequence[str]) -> Wps:
    return with_at(wps, "header/codes", tuple(dict.fromkeys(codes))) if codes else wps


def _values(each: VariableChange) -> dict[str, Any]:
    return {
        "name": spoken_variable(each.variable), "changed": each.changed, "category": each.category,
        "before": None if each.before is None else range_as_json(each.before),
        "after": None if each.after is None else range_as_json(each.after),
        "verdict_before": each.verdict_before or None, "verdict_after": each.verdict_after or None,
        "consequence": each.consequence, "clause": each.clause,
    }  # fmt: skip


def _said(stated: Any, each: VariableChange, units: Any) -> str:
    return NOT_STATED if stated is None else set_text(each.variable, stated, units)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("documents", metavar="WPS", nargs=2, help=f"before and after: {DOCUMENT}")
    add_records(parser)
    add_works(parser)
    add_codes(parser, needed=False)
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Say what differs and what it costs."""
    return diff_answer(arguments.documents, arguments.pqr, arguments.code, arguments.works)
