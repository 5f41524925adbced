"""Several test pieces of one record: which of them a test was cut from, and what that shows of heat, place and make."""

from collections.abc import Iterable, Sequence

from anlage.core.codes import Measured, Pack
from anlage.core.codes.asking import asks
from anlage.core.codes.facts import Fact
from anlage.core.document import with_
from anlage.core.record import Piece, Pqr, RecordedDeposit
from anlage.session.judging.coupons import HEAT, IMPACT, OF_KIND, make_words
from anlage.session.judging.heat_basis import heat_in_basis
from anlage.session.judging.results import kind_of_test, mark_of

APART = "pieces_apart"
FIRST = ""  # the mark of the first piece, which the record itself describes


def as_read_by(pqr: Pqr, pack: Pack) -> Pqr:
    """Return a record as a code reads it: one that knows of one piece alone learns nothing from tests of others.

    What failed is no less failed.
    """
    if not pqr.pieces or is_told_apart(pack):
        return pqr
    return with_(pqr, results=tuple(each for each in pqr.results if not (each.passed and mark_of(each.piece))))


def is_told_apart(pack: Pack) -> bool:
    """Return whether a code tells the test pieces of a record apart."""
    return any(APART in asks(rule) for rule in pack.rules)


def tested_pieces(pqr: Pqr, kind: str) -> tuple[str, ...]:
    """Return the marks of the pieces that passed tests of a kind were cut from, the first as ""."""
    found = (mark_of(each.piece) for each in pqr.results if each.passed and kind_of_test(each.kind) == kind)
    return tuple(dict.fromkeys(found))


def of_the_joint(pqr: Pqr, deposits: Sequence[dict[str, Fact]], pack: Pack) -> dict[str, Fact]:
    """Return where the tests of a record of several pieces were welded, and whether hot and cold are told apart.

    They are where impact was tested on the hottest of all pieces and hardness on the coldest, in every deposit: then
    no position between is hotter or colder.

    Parameters
    ----------
    deposits : the facts of each deposit, as the code sees its heat
    """
    found: dict[str, Fact] = {APART: "yes" if _are_apart(pqr, deposits, pack) else "no"}
    marked = _marked(pqr)
    for kind, names in OF_KIND.items():
        own = [marked.get(mark) for mark in tested_pieces(pqr, kind)]
        places = {each.position or pqr.technique.position for each in own if each is not None}
        if own and None not in own and None not in places:
            found[names.position] = frozenset(str(each) for each in places)
    return found


def of_a_deposit(pqr: Pqr, deposit: RecordedDeposit, facts: dict[str, Fact], pack: Pack) -> dict[str, Fact]:
    """Return what tests of several pieces show of a deposit: the heat of each kind of test, and which makes it is of.

    A piece whose heat nobody recorded shows none: the others alone count.
    """
    found: dict[str, Fact] = {}
    for kind, names in OF_KIND.items():
        heats = _heats(pqr, deposit, facts, pack, tested_pieces(pqr, kind))
        known = [each for each in heats if each is not None]
        if known:
            found[names.heat] = _hull(known)
    own = _marked(pqr)
    shown = [own.get(mark) for mark in tested_pieces(pqr, IMPACT)]
    makes = {make_words(_make(deposit, each)) for each in shown if each is not None}
    if makes and None not in makes:
        found["shown_makes"] = frozenset(str(each) for each in makes)
    return found


def _marked(pqr: Pqr) -> dict[str, Piece]:
    """Return all pieces by mark; the first states nothing that the record does not."""
    return {FIRST: Piece(id="t0"), **{mark_of(each.mark): each for each in pqr.pieces if mark_of(each.mark)}}


def _make(deposit: RecordedDeposit, piece: Piece) -> str | None:
    return piece.filler_make if piece.filler_make and _is_of(piece, deposit) else deposit.filler_make


def _is_of(piece: Piece, deposit: RecordedDeposit) -> bool:
    return piece.process in (None, deposit.process)


def _heats(
    pqr: Pqr, deposit: RecordedDeposit, facts: dict[str, Fact], pack: Pack, marks: Iterable[str]
) -> list[Measured | None]:
    """Return the heat of a deposit in each of some pieces, in the basis of a code; `None` where it is not known."""
    own, found = _marked(pqr), list[Measured | None]()
    for mark in marks:
        piece = own.get(mark)
        if mark == FIRST:
            heat = facts.get(HEAT)
            found.append(heat if isinstance(heat, Measured) else None)
        elif piece is None or piece.heat_input_kj_mm is None or not _is_of(piece, deposit):
            found.append(None)
        else:
            value = heat_in_basis(piece.heat_input_kj_mm, deposit, pack)
            found.append(None if value is None else Measured(value, value, value))
    return found


def _hull(heats: Sequence[Measured]) -> Measured:
    surely = max(each.most if each.sure is None else each.sure for each in heats)
    most = max(each.most for each in heats)
    return Measured(
        min(each.least for each in heats), sum(each.mean for each in heats) / len(heats), most,
        None if surely == most else surely,
    )  # fmt: skip


def _are_apart(pqr: Pqr, deposits: Sequence[dict[str, Fact]], pack: Pack) -> bool:
    hot, cold = (tested_pieces(pqr, kind) for kind in OF_KIND)
    everything = tuple(_marked(pqr))
    if not hot or not cold or not deposits:
        return False
    for deposit, facts in zip(pqr.deposits, deposits, strict=True):
        heats = dict(zip(everything, _heats(pqr, deposit, facts, pack, everything), strict=True))
        known = {mark: each.mean for mark, each in heats.items() if each is not None}
        if len(known) < len(everything) or not {*hot, *cold} <= known.keys():
            return False
        most, least = max(known.values()), min(known.values())
        if any(known[mark] != most for mark in hot) or any(known[mark] != least for mark in cold) or most == least:
            return False
    return True
