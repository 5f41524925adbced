"""The verdict on an open procedure: its code, the records of its works file, and boxes kept from edit to edit."""

from collections.abc import Sequence
from dataclasses import dataclass

from anlage.core.codes import Judgement, Rung
from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.core.record import Pqr
from anlage.session.judging.boxes import BoxKeeper, Record
from anlage.session.judging.records import coupon_of
from anlage.session.judging.statements import demand_of, stated_of
from anlage.session.judging.what_if import edition_of


@dataclass(frozen=True, slots=True)
class Assessment:
    """How a procedure stands: the judgement, or why there is none."""

    judgement: Judgement | None
    missing: str = ""

    def problems(self) -> tuple[Rung, ...]:
        """Return the rungs that are not inside, outside first."""
        rungs = self.judgement.rungs if self.judgement else ()
        found = [rung for rung in rungs if rung.verdict != "inside"]
        return tuple(sorted(found, key=lambda rung: rung.verdict != "outside"))


class Assessor:
    """Judges procedures against the records of one works file.

    Parameters
    ----------
    records : the records with their ids, oldest first
    """

    def __init__(self, records: Sequence[tuple[str, Pqr]]) -> None:
        self._keepers: dict[str, BoxKeeper] = {}
        self.records: list[Record] = []
        self.refused: list[AnlageError] = []  # records whose values contradict each other
        for own, pqr in reversed(records):  # the newest first: of equals it is taken
            try:
                self.records.append(
                    Record(f"{pqr.header.number}#{own}", coupon_of(pqr), accepted=pqr.state == "accepted")
                )
            except AnlageError as fault:
                self.refused.append(fault)

    def assess(self, wps: Wps) -> Assessment:
        """Return how a procedure stands by the code it names."""
        if wps.header.code is None:
            return Assessment(None, "no code is stated")
        if any(deposit.process is None for deposit in wps.deposits) or not wps.deposits:
            return Assessment(None, "no deposit with a process is stated")
        try:
            pack, _ = edition_of(wps.header.code)
        except AnlageError as fault:
            return Assessment(None, fault.what)
        outside = sorted({str(each.process) for each in wps.deposits} - pack.processes)
        if outside:
            return Assessment(None, f"the code pack has no rules for {', '.join(outside)}")
        keeper = self._keepers.setdefault(pack.code, BoxKeeper(pack))
        return Assessment(keeper.judge(stated_of(wps), self.records, demand_of(wps)))
