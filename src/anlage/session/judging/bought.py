"""What a record buys while it is entered: every variable that its codes limit, in words and as sets."""

from collections.abc import Iterator

from msgspec import Struct

from anlage.core.codes import Demand
from anlage.core.errors import AnlageError
from anlage.core.quantities.units import System
from anlage.core.ranges import Range, is_any, is_none
from anlage.core.record import Pqr
from anlage.session.judging.editions import Codes
from anlage.session.judging.evidence import evidence_of_document
from anlage.session.judging.ladder import spoken_variable
from anlage.session.judging.record_ranges import ranges_of_record
from anlage.session.judging.results import toughness_tested
from anlage.session.leaves.set_text import set_text


class BoughtLine(Struct, frozen=True):
    """One variable: its name, what is allowed in words and as sets, and whether a fact is missing for it.

    `code` is the name of the code that allows it, where the record is made to several.
    """

    title: str
    text: str
    sure: Range
    possible: Range
    is_unproven: bool
    code: str = ""


def bought_by(pqr: Pqr, system: System, codes: Codes) -> tuple[BoughtLine, ...]:
    """Return every essential and supplementary variable that the record's codes limit, code by code; none without."""
    if not any(each.process for each in pqr.deposits):
        return ()
    return tuple(line for code in pqr.header.codes for line in _by_one(pqr, code, system, codes))


def _by_one(pqr: Pqr, code: str, system: System, codes: Codes) -> Iterator[BoughtLine]:
    demand = Demand(weld=pqr.header.weld, impact=toughness_tested(pqr) or False, units=pqr.header.units)
    try:
        ranges = ranges_of_record(code, pqr, demand, codes)
    except AnlageError:
        return
    whose = ranges.pack.name if len(pqr.header.codes) > 1 else ""
    for each in ranges.variables:
        if each.allowance is None or ranges.pack.category(each.category).stated:
            continue
        sure, possible = each.allowance.sure, each.allowance.possible
        unproven = is_none(sure) and not is_none(possible)
        text = "not recorded" if unproven and each.allowance.missing else set_text(each.variable, sure, system)
        if sure != possible and not unproven and not is_any(possible):
            text = f"{text}, perhaps {set_text(each.variable, possible, system)}"
        if each.variable == "a_number" and not unproven and any(one.deposit_analysis_percent for one in pqr.deposits):
            text = f"{text}, by deposit analysis"
        title, label = spoken_variable(each.variable), each.id.removeprefix(each.variable).removeprefix(".")
        yield BoughtLine(f"{title}, {label}" if label else title, text, sure, possible, unproven, whose)


def why_nothing(pqr: Pqr, codes: Codes) -> str:
    """Return why a record proves nothing yet; "" when it does."""
    if pqr.header.code is None:
        return "State the code: without it nothing is worked out."
    if not any(each.process for each in pqr.deposits):
        return "Add a deposit and state its process."
    for code in pqr.header.codes:
        try:
            ranges_of_record(code, pqr, Demand(), codes)
        except AnlageError as fault:
            return str(fault)
    evidence = evidence_of_document(pqr, codes)
    if evidence.state != "accepted":
        here, once = ("under a code", "that accepts it") if len(pqr.header.codes) > 1 else ("here", "it is accepted")
        return f"The record is {evidence.words()}. What stands {here} it proves once {once}."
    return f"{evidence.remark[0].upper()}{evidence.remark[1:]}." if evidence.remark else ""
