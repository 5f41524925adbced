"""Reads the joints that a code lets be welded without a record, with what may be drawn and what may be fitted up."""

from collections.abc import Iterator, Mapping
from typing import Any

import msgspec

from anlage.core.codes.kind_reader import KindReader
from anlage.core.codes.kinds import Band, End, Only, RuleKind
from anlage.core.codes.limits import Limit
from anlage.core.codes.pack import SHAPE, Detail, Rule
from anlage.core.codes.reader import BOUNDS
from anlage.core.codes.wording import Wording
from anlage.core.codes.written import Pair, WrittenDetail, WrittenSpread, WrittenTolerance
from anlage.core.errors import closest

DRAWN = "drawn_{}"  # the variable that is the nominal of a dimension, beside that of all that it may be
DRAWN_THICKNESS = "drawn_thickness_mm"
NO_TOLERANCE = WrittenTolerance()


class DetailReader(KindReader):
    """Reads the details of one file."""

    def detail(self, table: Any) -> Detail:
        """Return one joint that needs no record: a rule for each variable that it limits."""
        self.typed(table, WrittenDetail, "[[detail]]")
        row = msgspec.convert(table, WrittenDetail)
        kinds = {name: self.allowed(name, entry) for name, entry in row.allows.items()}
        kinds |= dict(self._dimensions(row))
        kinds = dict(sorted(kinds.items(), key=lambda each: each[0] not in SHAPE))  # what it is for is asked first
        line, wording = self.line(), Wording(table, self.head.sets)
        rules = tuple(
            Rule(
                id=row.id, variables=(self.variable(name, name),), clause=row.clause, title=row.title,
                category=self.head.categories[0].id, scope="deposit", kind=kind, note=row.note,
                confidence=row.confidence, source=self.head.pack.source, file=self.text.name, line=line,
                route="prequalified", basis="wps", wording=wording,
            )
            for name, kind in kinds.items()
        )  # fmt: skip
        when = self.conditions(row.when, "when")
        return Detail(id=row.id, title=row.title, rules=rules, when=when, note=row.note)

    def allowed(self, name: str, entry: Any) -> RuleKind:
        """Return what a detail allows of a variable: tokens, or numbers within bounds."""
        self.variable(name, name)
        if not self.names.kind(name):
            return Only(self.token_set(name, entry, name))
        if not isinstance(entry, dict) or not entry:
            raise self.fault(f"{name} is {entry}", "write {from = …, to = …}", name)
        self.only(entry, BOUNDS, name)
        bounds = self.bounds(name, entry)
        low, high = bounds.above or bounds.start, bounds.below or bounds.to
        return Band(
            End(number=low, open=bounds.above is not None) if low else None,
            End(number=high, open=bounds.below is not None) if high else None,
        )

    def _dimensions(self, row: WrittenDetail) -> Iterator[tuple[str, RuleKind]]:
        """Yield for each dimension what may be drawn of it, and what may be fitted up of what is drawn."""
        tolerances = self._tolerances(row.tolerance)
        for name, entry in row.drawn.items():
            drawn = self.variable(DRAWN.format(name), name)
            own = tolerances.get(name, NO_TOLERANCE)
            less, more = self._spread(own.drawn, name)
            yield drawn, self._drawn(entry, name, less, more)
            if not own.free:
                less, more = self._spread(own.fitted, name)
                yield name, Band(End(of=drawn, plus=Limit(-less.si, -less.us)), End(of=drawn, plus=more))

    def _drawn(self, entry: Any, name: str, less: Limit, more: Limit) -> Band:
        """Return what may be drawn of a dimension; one that is `times` the thickness follows it."""
        if isinstance(entry, Mapping) and {"times", "least_times"} & set(entry):
            self.only(entry, {"times", "least_times"}, name)
            of, times = self.variable(DRAWN_THICKNESS, name), self.factor(next(iter(entry.values())), name)
            high = None if "least_times" in entry else End(of=of, times=times, plus=more)
            return Band(End(of=of, times=times, plus=Limit(-less.si, -less.us)), high)
        low, most = self._span(entry, name)
        return Band(
            End(number=Limit(max(low.si - less.si, 0.0), max(low.us - less.us, 0.0))),
            End(number=Limit(most.si + more.si, most.us + more.us)) if most else None,
        )

    def _tolerances(self, name: str) -> Mapping[str, WrittenTolerance]:
        if name and name not in self.head.tolerances:
            close = closest(name, self.head.tolerances)
            mend = f"write {close[0]}" if close else "state it in [tolerance]"
            raise self.fault(f"no tolerance {name}", mend, "tolerance")
        return self.head.tolerances[name] if name else {}

    def _span(self, entry: Any, name: str) -> tuple[Limit, Limit | None]:
        """Return from where to where a figure draws a dimension; without an end where it names none."""
        if isinstance(entry, Mapping) and not {"si", "us"} & set(entry):
            self.only(entry, {"from", "to"}, name)
            low = self.limit(entry.get("from", 0.0), name, name)
            return low, self.limit(entry["to"], name, name) if "to" in entry else None
        own = self.limit(entry, name, name)
        return own, own

    def _spread(self, spread: WrittenSpread, name: str) -> tuple[Limit, Limit]:
        less, more = (self._own(each, name) for each in (spread.less, spread.more))
        return less, more

    def _own(self, pair: Pair, name: str) -> Limit:
        return self.limit(pair, name, "tolerance", difference=True)
