"""The verdict on an open procedure: its code, the records of its works file, and boxes kept from edit to edit."""

from collections.abc import Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes import Judgement, Pack, Rung
from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.core.record import Pqr
from anlage.session.judging.boxes import BoxKeeper, Record
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.judging.evidence import evidence_of
from anlage.session.judging.records import coupon_of
from anlage.session.judging.statements import stated_of


class Assessment(Struct, frozen=True):
    """How a procedure stands: the judgement, or why there is none, and the pack that it was asked of.

    `missing` also says why a judgement proves nothing: without a record that counts there may be no rung at all, and
    nothing that is not there is inside.
    """

    judgement: Judgement | None
    missing: str = ""
    mend: str = ""  # the leaf that answers what is missing, or the place, where there is no leaf yet
    pack: Pack | None = None
    set_aside: tuple[tuple[str, str], ...] = ()  # records that support nothing, each with why
    counting: tuple[str, ...] = ()  # the records that count, newest first

    @property
    def remarks(self) -> tuple[str, ...]:
        """What was said against the results of records that something rests on, each once."""
        rungs = self.judgement.rungs if self.judgement else ()
        return tuple(dict.fromkeys(remark for rung in rungs for remark in rung.remarks))

    def problems(self) -> tuple[Rung, ...]:
        """Return the rungs that are not inside, outside first."""
        rungs = self.judgement.rungs if self.judgement else ()
        found = [rung for rung in rungs if rung.verdict != "inside"]
        return tuple(sorted(found, key=lambda rung: rung.verdict != "outside"))


class Assessor:
    """Judges procedures against the records of one works file, by the pack of the code that each names.

    Parameters
    ----------
    records : the records with their ids, oldest first
    codes : the codes as the works has them
    """

    def __init__(self, records: Sequence[tuple[str, Pqr]], codes: Codes = SHIPPED) -> None:
        self.codes = codes
        self._pqrs = tuple(reversed(records))  # the newest first: of equals it is taken
        self._by_pack: dict[tuple[str, str], tuple[BoxKeeper, tuple[Record, ...]]] = {}
        self.refused: dict[str, AnlageError] = {}  # by id, records whose values contradict each other

    def assess(self, wps: Wps, by: str = "") -> Assessment:
        """Return how a procedure stands by the code it names; by one of the records alone, where it is named."""
        if wps.header.code is None:
            return Assessment(None, "no code is stated", "header/code")
        if len(wps.header.codes) > 1:  # inside by the first would say nothing of the others
            said = f"{len(wps.header.codes)} codes are named, and one can be judged by"
            return Assessment(None, said, "header/code")
        without = next((each.id for each in wps.deposits if each.process is None), "")
        if without or not wps.deposits:
            mend = f"deposits/{without}/process" if without else "passes"
            return Assessment(None, "no deposit with a process is stated", mend)
        try:
            pack, _ = self.codes.edition_of(wps.header.code)
        except AnlageError as fault:
            return Assessment(None, fault.what, "header/code")
        keeper, records = self._ready(pack)
        stated = stated_of(wps, pack)
        aside = tuple((each.coupon.name, each.standing) for each in records if not each.accepted)
        counting = tuple(each.coupon.name for each in records if each.accepted)
        if by:
            records = tuple(each for each in records if each.coupon.name == by)
        judgement = keeper.judge(stated, records, stated.demand)
        counts = any(each.accepted for each in records) or all(judgement.supports) or bool(pack.details)
        missing, mend = ("", "") if counts else ("no record counts by this code", "ranges")
        return Assessment(judgement, missing, mend, pack, aside, counting)

    def records(self, pack: Pack) -> tuple[Record, ...]:
        """Return the records as a pack sees them, newest first, without those that contradict themselves."""
        return self._ready(pack)[1]

    def _ready(self, pack: Pack) -> tuple[BoxKeeper, tuple[Record, ...]]:
        key = (pack.code, pack.edition)
        if key not in self._by_pack:
            found = []
            for own, pqr in self._pqrs:
                try:
                    coupon = coupon_of(pqr, pack)
                except AnlageError as fault:
                    self.refused[own] = fault
                    continue
                evidence = evidence_of(pqr, pack, coupon)
                revision, accepted = f"{pqr.header.number}#{own}", evidence.state == "accepted"
                coupon = replace(coupon, remark=evidence.remark)
                found.append(Record(revision, coupon, accepted, "" if accepted else evidence.words()))
            self._by_pack[key] = (BoxKeeper(pack), tuple(found))
        return self._by_pack[key]
