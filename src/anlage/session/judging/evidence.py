"""What a record has shown: whether its results are those that its code asks for, all passed, or what is missing.

A record proves what its evidence shows. Nobody chooses that it is accepted; a verdict against its results needs a name
and a reason, and is told wherever something rests on it.
"""

from typing import Literal

from msgspec import Struct

from anlage.core.codes import Coupon, Pack
from anlage.core.codes.facts import Facts
from anlage.core.codes.specimens import lacking
from anlage.core.errors import AnlageError
from anlage.core.record import Pqr
from anlage.session.judging.clashes.clash import is_day
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.judging.pieces import as_read_by
from anlage.session.judging.records import coupon_of
from anlage.session.judging.results import kind_of_test, passed_of

OF_ANOTHER_CODE = "open: made to "
State = Literal["open", "accepted", "rejected"]


class Evidence(Struct, frozen=True):
    """How a record stands: the state, why it is not accepted, and the remark of whoever overrode its results."""

    state: State
    reason: str = ""
    remark: str = ""

    def words(self) -> str:
        """Return the state with its reason."""
        return f"{self.state}: {self.reason}" if self.reason else self.state


def evidence_of(pqr: Pqr, pack: Pack, coupon: Coupon) -> Evidence:
    """Return how a record stands by a code.

    Parameters
    ----------
    pqr : the record
    pack : the code that something is to rest on
    coupon : the record as the code sees it
    """
    return _by_code(pqr, pack) or _overridden(pqr) or _by_results(as_read_by(pqr, pack), pack, coupon)


def evidence_of_document(pqr: Pqr, codes: Codes = SHIPPED) -> Evidence:
    """Return how a record stands by the codes that it names itself, as the works has them: accepted only by all."""
    found = evidence_by_code(pqr, codes)
    if not found:
        return Evidence("open", "code not stated")
    first = found[0][1]
    if all(each == first for _, each in found):
        return first
    states = {each.state for _, each in found}
    state: State = next(each for each in ("rejected", "open", "accepted") if each in states)
    told = (f"{each.state} by {name}{each.reason and f', {each.reason}'}" for name, each in found)
    return Evidence(state, "; ".join(told), first.remark)


def evidence_by_code(pqr: Pqr, codes: Codes = SHIPPED) -> tuple[tuple[str, Evidence], ...]:
    """Return how a record stands by each code that it names, with the name of the code."""
    return tuple(_by_one(pqr, code, codes) for code in pqr.header.codes)


def _by_one(pqr: Pqr, code: str, codes: Codes) -> tuple[str, Evidence]:
    try:
        pack, _ = codes.edition_of(code)
    except AnlageError as fault:
        return code, Evidence("open", fault.what)
    try:
        return pack.name, evidence_of(pqr, pack, coupon_of(pqr, pack))
    except AnlageError as fault:
        return pack.name, Evidence("open", fault.what)


def _by_code(pqr: Pqr, pack: Pack) -> Evidence | None:
    """Return why a record does not count under a code whatever its results, `None` where it does."""
    made_to = {code.partition(":")[0] for code in pqr.header.codes}
    if not made_to:
        return Evidence("open", "code not stated")
    if made_to.isdisjoint(pack.accepts_records_of):
        return Evidence("open", f"made to {', '.join(sorted(made_to))}, not to {pack.code}")
    if pqr.welded_on and not is_day(pqr.welded_on):
        return Evidence("open", f"welded on {pqr.welded_on}, which is no day of the calendar")
    return None


def _overridden(pqr: Pqr) -> Evidence | None:
    own = pqr.override
    if own.verdict == "rejected":
        by = f" by {own.by}" if own.by else ""
        return Evidence("rejected", f"rejected{by}{f': {own.reason}' if own.reason else ''}")
    if own.verdict == "accepted" and own.by and own.reason:
        return Evidence("accepted", "", f"accepted by {own.by} against its results: {own.reason}")
    return None


def _by_results(pqr: Pqr, pack: Pack, coupon: Coupon) -> Evidence:
    failed = [each for each in pqr.results if each.passed is False]
    if failed:
        first = failed[0]
        return Evidence("rejected", f"{' '.join(filter(None, (kind_of_test(first.kind), first.specimen)))} failed")
    if not pqr.results:
        return Evidence("open", "results not recorded")
    units = pqr.header.units
    missing = lacking(pack.specimens, Facts(coupon.joint, {}, coupon.clashes), units, passed_of(pqr))
    if missing:
        half = "; an override needs a name and a reason" if pqr.override.verdict else ""
        return Evidence("open", f"{'; '.join(missing)}{half}")
    return Evidence("accepted")
