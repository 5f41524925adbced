"""The verdict on an open procedure: its codes, the records of its works file, and boxes kept from edit to edit.

A procedure of several codes stands as by the one it stands worst by: whatever asks for its verdict, its counts or its
problems hears of all of them, and nothing is inside that one of them does not hold.
"""

from collections.abc import Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.codes import Judgement, Pack, Rung, Verdict, worst
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
    parts: tuple["Assessment", ...] = ()  # how it stands by each code, where several are named
    code: str = ""  # as the procedure names it

    @property
    def by_code(self) -> tuple["Assessment", ...]:
        """How it stands by each code, the leading one first."""
        return self.parts or (self,)

    @property
    def verdict(self) -> Verdict:
        """Whether it is inside: never where something is missing for it to be judged."""
        if self.judgement is None:
            return "unproven"
        return worst((self.judgement.verdict, "unproven")) if self.missing else self.judgement.verdict

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
        """Return how a procedure stands by all codes it names; by one of the records alone, where it is named."""
        if wps.header.code is None:
            return Assessment(None, "no code is stated", "header/code")
        found = [self.by_one(wps, code, by) for code in wps.header.codes]
        return found[0] if len(found) == 1 else _together(found)

    def by_one(self, wps: Wps, code: str, by: str = "") -> Assessment:
        """Return how a procedure stands by one code, whichever it names."""
        without = next((each.id for each in wps.deposits if each.process is None), "")
        if without or not wps.deposits:
            mend = f"deposits/{without}/process" if without else "passes"
            return Assessment(None, "no deposit with a process is stated", mend, code=code)
        try:
            pack, _ = self.codes.edition_of(code)
        except AnlageError as fault:
            return Assessment(None, fault.what, "header/code", code=code)
        keeper, records = self._ready(pack)
        stated = stated_of(wps, pack)
        aside = tuple((each.coupon.name, each.standing) for each in records if not each.accepted)
        counting = tuple(each.coupon.name for each in records if each.accepted)
        if by:
            records = tuple(each for each in records if each.coupon.name == by)
        judgement = keeper.judge(stated, records, stated.demand)
        counts = any(each.accepted for each in records) or all(judgement.supports) or bool(pack.details)
        missing, mend = ("", "") if counts else ("no record counts by this code", "ranges")
        return Assessment(judgement, missing, mend, pack, aside, counting, code=code)

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


def _together(parts: Sequence[Assessment]) -> Assessment:
    """Return how a procedure stands by several codes at once: as by the worst of them."""
    missing = next((each for each in parts if each.missing), None)
    judged = [each.judgement for each in parts if each.judgement is not None]
    judgement = None
    if judged:
        supports = tuple(
            tuple(dict.fromkeys(record for records in of_deposit for record in records)) if all(of_deposit) else ()
            for of_deposit in zip(*(each.supports for each in judged), strict=True)
        )
        verdict = worst(each.judgement.verdict if each.judgement is not None else "unproven" for each in parts)
        judgement = Judgement(verdict, tuple(rung for each in judged for rung in each.rungs), supports)
    counting = tuple(dict.fromkeys(record for each in parts for record in each.counting))
    aside = dict.fromkeys(told for each in parts for told in each.set_aside if told[0] not in counting)
    return Assessment(
        judgement, _missing_words(parts), missing.mend if missing else "", parts[0].pack, tuple(aside), counting,
        tuple(parts), parts[0].code,
    )  # fmt: skip


def _missing_words(parts: Sequence[Assessment]) -> str:
    """Return what is missing, each once, with the code where it is not missing by all."""
    words = dict.fromkeys(each.missing for each in parts if each.missing)
    if len(words) == 1 and all(each.missing for each in parts):
        return next(iter(words))
    return "; ".join(f"{code_words(each)}: {each.missing}" for each in parts if each.missing)


def code_words(proof: Assessment) -> str:
    """Return the name of the code that an assessment is by."""
    return proof.pack.name if proof.pack is not None else proof.code
