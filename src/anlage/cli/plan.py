"""`anlage plan`: the fewest coupons, or the cheapest, that cover a list of joints under a code."""

import argparse
import math
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any

from msgspec import Struct

from anlage.cli.parsing import DOCUMENT, add_codes, add_json, add_records, add_works
from anlage.cli.what_it_buys import by_each_code
from anlage.core.errors import InputError
from anlage.core.procedure import WPS
from anlage.core.record import PQR, Pqr
from anlage.core.results import Notice, Source
from anlage.formats.rows import ENDINGS, rows_of_file
from anlage.session.keyed.answer import Answer, number
from anlage.session.planner.costs import costs_of
from anlage.session.planner.joints import Joint, joints_of, joints_of_procedures
from anlage.session.planner.plan import DIAMETER, THICKNESS, Plan, Planned, Planning, planned, that_count
from anlage.session.works.found_documents import find_document, procedures_of, records_of, source_of
from anlage.session.works.marked_codes import codes_of_file

WORKS = ".anlage"


class Asked(Struct, frozen=True):
    """What a plan is made of: files of joints, costs, records, and the works file whose rules and metals count."""

    names: Sequence[str]
    cost: str = ""
    records: Sequence[str] = ()
    works: str = ""


def plan_answer(asked: Asked, code: str) -> Answer:
    """Return the coupons that cover the joints of tables, procedures or all procedures of works files, by one code.

    Raises
    ------
    FormatError, UnknownNameError : a file is not what it claims, or a name is unknown
    InputError : a row of a table cannot be read, or nothing is to be covered
    """
    codes = codes_of_file(_works_of(asked))
    pack, edition = codes.edition_of(code)
    joints = _joints(asked.names)
    costs = costs_of(rows_of_file(Path(asked.cost))) if asked.cost else {}
    found = planned(joints, Planning(pack=pack, costs=costs, records=that_count(_records(asked), pack)))
    assert found is not None, "nobody cancels it here"
    notices = [Notice.of("plan.assumed", "joints", each) for each in found.said]
    sources = [Source("rules", f"{pack.source}, edition {edition}", "M")]
    lines = list(_lines(found, len(joints)))
    return Answer(_values(found, edition), lines, sources, notices, status=1 if found.uncovered else 0)


def _works_of(asked: Asked) -> Path | None:
    named = asked.works or next((source for name in asked.names if (source := _works(name))), "")
    return Path(named) if named else None


def _works(name: str) -> str:
    """Return the works file that an argument is, or names a document of; "" for none."""
    source = str(source_of(name))
    return source if source.casefold().endswith(WORKS) else ""


def _joints(names: Sequence[str]) -> list[Joint]:
    """Return the joints of all files.

    Raises
    ------
    InputError : there is none
    """
    joints: list[Joint] = []
    for name in names:
        if name.casefold().endswith(ENDINGS):
            joints += joints_of(rows_of_file(Path(name)))
        elif "#" not in name and _works(name):
            joints += joints_of_procedures(procedures_of(Path(name)))
        else:
            joints += joints_of_procedures([find_document(name, WPS).value])
    if not joints:
        raise InputError("there is no joint to cover", where=names[0], mend="state thickness and process")
    return joints


def _records(asked: Asked) -> list[Pqr]:
    """Return the records of works files, and those that are named."""
    found = [record for name in asked.names if (source := _works(name)) for _, record in records_of(Path(source))]
    return [*found, *(find_document(name, PQR).value for name in asked.records)]


def _codes(arguments: argparse.Namespace) -> list[str]:
    """Return the codes that are named, or else those of the procedures.

    Raises
    ------
    InputError : none is known
    """
    if arguments.code:
        return list(arguments.code)
    named = [code for joint in _joints(arguments.joints) for code in joint.wps.header.codes]
    if not named:
        raise InputError("no code is named", where="--code", mend="name one, as asme-ix")
    return list(dict.fromkeys(named))


def _values(found: Plan, edition: str) -> dict[str, Any]:
    gap = {"optimal": True} if found.cover.is_optimal else {"gap_percent": number(found.cover.gap_percent)}
    return {
        "code": found.pack.code,
        "edition": edition,
        "coupons": [_coupon(each) for each in found.coupons],
        "already": [{"joint": joint, "record": record} for joint, record in found.already],
        "uncovered": [{"joint": joint, "reason": why} for joint, why in found.uncovered],
        "cost": number(sum(each.cost for each in found.coupons)),
        **gap,
        "candidates": found.tried,
        "seconds": number(found.seconds),
    }


def _coupon(each: Planned) -> dict[str, Any]:
    pqr = each.coupon.pqr
    return {
        "name": each.name, "coupon": each.coupon.words(), "like": each.coupon.like,
        "thickness_mm": number(pqr.joint.thickness_mm or 0.0), "od_mm": pqr.joint.od_mm,
        "position": pqr.technique.position, "processes": [one.process for one in pqr.deposits],
        "fillers": [one.filler for one in pqr.deposits],
        "tests": {one.kind: one.count for one in pqr.results},
        "buys": {
            name: {"low": number(span.low), "high": None if math.isinf(span.high) else number(span.high)}
            for name, span in ((THICKNESS, each.thickness_mm), (DIAMETER, each.diameter_mm)) if span is not None
        },
        "covers": list(each.covers), "needed_for": list(each.needed_for), "cost": number(each.cost),
    }  # fmt: skip


def _lines(found: Plan, joints: int) -> Iterator[tuple[str, str]]:
    proof = "no fewer or cheaper ones do" if found.cover.is_optimal else (
        f"the least may be {found.cover.gap_percent:.0f} % cheaper"
    )  # fmt: skip
    yield f"joints: {joints}, by {found.pack.name}", f"coupons: {len(found.coupons)} of {found.tried} possible; {proof}"
    for each in found.coupons:
        yield f"  {each.name}", each.coupon.words()
        yield "", f"covers {', '.join(each.covers)}"
        if set(each.needed_for) != set(each.covers):
            yield "", f"needed for {', '.join(each.needed_for) or 'nothing alone'}"
    for joint, record in found.already:
        yield f"  {joint}", f"is covered by {record}"
    for joint, why in found.uncovered:
        yield f"  {joint}", f"not covered: {why}"


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument(
        "joints", metavar="FILE", nargs="+",
        help=f"a table of joints (CSV, XLSX), works files with all their procedures, or {DOCUMENT}",
    )  # fmt: skip
    add_codes(parser, needed=False)
    parser.add_argument("--cost", metavar="FILE.csv", default="", help="your costs: what, unit, cost; else the fewest")
    add_records(parser)
    add_works(parser)
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Plan the coupons."""
    asked = Asked(arguments.joints, arguments.cost, arguments.pqr, arguments.works)
    return by_each_code(_codes(arguments), lambda code: plan_answer(asked, code))
