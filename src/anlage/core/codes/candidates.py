"""What could carry a deposit of a WPS: the deposits of the records, and which of them are worth a closer look.

A works file has many records that allow the same of most variables. What is equal is compared once; a record that
fails by one variable is not asked about the others, unless nothing better is found.
"""

from collections.abc import Iterator, Mapping, Sequence

from msgspec import Struct

from anlage.core.codes.box import Allowance, CoverBox
from anlage.core.ranges import Range, is_any

NOTHING: frozenset[str] = frozenset()
KEPT = 4  # sets of one variable whose comparison is kept: of the deposits of one procedure
FEW = 24  # allowances of one variable that are compared before it is known which records come into question


class Candidate(Struct, frozen=True):
    """One deposit of one record, compared with one deposit of a WPS."""

    box: CoverBox
    index: int
    allowances: Mapping[str, Allowance]
    outside: tuple[str, ...]
    unproven: tuple[str, ...]
    order: int  # newest first

    @classmethod
    def of(
        cls, box: CoverBox, index: int, sets: Mapping[str, Range], order: int, beside: frozenset[str] = frozenset()
    ) -> "Candidate":
        """Return the comparison of a record's deposit with the sets that a deposit of a WPS states.

        `beside` are variables that do not concern the WPS.
        """
        addressed, limited = box.split[index]
        outside, unproven = [], sorted(addressed.difference(sets) - beside)
        for variable, allowance in limited:
            if variable in beside:
                continue
            verdict = allowance.verdict(sets.get(variable))
            if verdict == "outside":
                outside.append(variable)
            elif verdict == "unproven":
                unproven.append(variable)
        own = box.deposits[index]
        if not beside.isdisjoint(own):
            own = {variable: allowance for variable, allowance in own.items() if variable not in beside}
        return cls(box, index, own, tuple(outside), tuple(unproven), order)

    @property
    def record(self) -> str:
        """The record's name."""
        return self.box.record

    @property
    def covers(self) -> bool:
        """Whether the record alone contains the deposit."""
        return not self.outside and not self.unproven and bool(self.allowances)

    @property
    def rank(self) -> tuple[int, int, int]:
        """Fewest outside first, then fewest unproven, then newest."""
        return len(self.outside), len(self.unproven), self.order

    def inside_but_for(self, variables: Sequence[str]) -> bool:
        """Whether all else than `variables` is inside."""
        return set(self.outside + self.unproven) <= set(variables) and bool(self.allowances)


class _Limits(Struct):
    """What the records allow of one variable: who only needs it stated, and every limit with those who set it.

    Records are bits of a number: the n-th newest deposit of a record is 1 << n.
    """

    stated: int
    limits: list[tuple[Allowance, int]]
    known: list[tuple[Range | None, int, int]]  # sets that were compared last, with who fails by them: newest first


class _Tally:
    """Counts for all places at once how often each was among some: the n-th number holds the n-th digit of each."""

    def __init__(self) -> None:
        self._digits: list[int] = []

    def add(self, places: int) -> None:
        """Count some places once more."""
        for n, digit in enumerate(self._digits):
            if not places:
                return
            self._digits[n], places = digit ^ places, digit & places
        if places:
            self._digits.append(places)

    def of(self, place: int) -> int:
        """Return how often a place was counted."""
        return sum((digit >> place & 1) << n for n, digit in enumerate(self._digits))


class Boxes:
    """The boxes of candidate records under one demand, newest first, searched without comparing each in everything.

    Parameters
    ----------
    boxes : under the same demand, newest first
    """

    def __init__(self, boxes: Sequence[CoverBox]) -> None:
        self.boxes = tuple(boxes)
        self._places = [
            (box, index, order) for order, box in enumerate(boxes) for index in range(len(box.deposits))
        ]  # fmt: skip
        found: dict[str, dict[tuple[Range, Range] | None, list[int]]] = {}
        own: dict[tuple[str, Range, Range], Allowance] = {}
        for place, (box, index, _) in enumerate(self._places):
            for variable, allowance in box.deposits[index].items():
                limit = None if is_any(allowance.sure) else (allowance.sure, allowance.possible)
                found.setdefault(variable, {}).setdefault(limit, []).append(place)
                if limit is not None:
                    own.setdefault((variable, *limit), allowance)
        self._limits = {
            variable: _Limits(
                sum(1 << place for place in by_limit.pop(None, ())),
                [(own[variable, *limit], sum(1 << place for place in places))
                 for limit, places in by_limit.items() if limit is not None],
                [],
            )
            for variable, by_limit in sorted(found.items(), key=lambda each: len(each[1]))
        }  # fmt: skip

    @property
    def variables(self) -> frozenset[str]:
        """Every variable that some record allows something of."""
        return frozenset(self._limits)

    def first(self, sets: Mapping[str, Range], beside: frozenset[str]) -> Candidate | None:
        """Return the newest candidate that contains a deposit of a WPS; `None` where none does."""
        return next(self._inside(sets, beside, NOTHING), None)

    def places_inside(
        self, sets: Mapping[str, Range], beside: frozenset[str], spare: frozenset[str]
    ) -> Iterator[tuple[int, int]]:
        """Yield the places, box and deposit, that contain a deposit of a WPS but for some variables at most."""
        for place in _places(self._left(sets, beside, spare)):
            _, index, order = self._places[place]
            yield order, index

    def near(self, sets: Mapping[str, Range], beside: frozenset[str], spare: frozenset[str]) -> list[Candidate]:
        """Return the candidates that contain a deposit of a WPS but for some variables at most, by rank.

        Parameters
        ----------
        sets : what the deposit states
        beside : variables that do not concern the WPS
        spare : variables in which a candidate may fail
        """
        return sorted(self._inside(sets, beside, spare), key=lambda each: each.rank)

    def _inside(self, sets: Mapping[str, Range], beside: frozenset[str], spare: frozenset[str]) -> Iterator[Candidate]:
        for place in _places(self._left(sets, beside, spare)):
            candidate = self._candidate(place, sets, beside)
            if candidate.allowances:
                yield candidate

    def _left(self, sets: Mapping[str, Range], beside: frozenset[str], spare: frozenset[str]) -> int:
        left = self._of_process(sets)
        for variable, limits in self._limits.items():
            if variable not in spare and variable not in beside:
                outside, unproven = _failing(limits, variable, sets, left)
                left &= ~(outside | unproven)
        return left

    def best(self, sets: Mapping[str, Range], beside: frozenset[str]) -> Candidate | None:
        """Return the candidate of the first rank: `None` where there is none."""
        every = self._of_process(sets)
        if not every:
            return None
        outside, unproven = _Tally(), _Tally()

        def count(asked: int, *, few: bool) -> None:
            for variable, limits in self._limits.items():
                if variable not in beside and few is (len(limits.limits) <= FEW):
                    beyond, open_ones = _failing(limits, variable, sets, asked)
                    outside.add(beyond)
                    unproven.add(open_ones)

        def rank(place: int) -> tuple[int, int, int]:
            return outside.of(place), unproven.of(place), place

        count(every, few=True)
        bound = self._candidate(min(_places(every), key=rank), sets, beside).rank  # none that is behind it is best
        left = [place for place in _places(every) if rank(place)[:2] <= bound[:2]]
        count(sum(1 << place for place in left), few=False)
        return self._candidate(min(left, key=rank), sets, beside)

    def _of_process(self, sets: Mapping[str, Range]) -> int:
        """Return who could carry it: whose process is allowed, else all."""
        every = (1 << len(self._places)) - 1
        process = self._limits.get("process")
        return every if process is None else (every & ~_failing(process, "process", sets, every)[0]) or every

    def _candidate(self, place: int, sets: Mapping[str, Range], beside: frozenset[str]) -> Candidate:
        box, index, order = self._places[place]
        return Candidate.of(box, index, sets, order, beside)


def _failing(limits: _Limits, variable: str, sets: Mapping[str, Range], asked: int) -> tuple[int, int]:
    """Return who of those asked fails by a variable: outside, and unproven."""
    own = sets.get(variable)
    if len(limits.limits) > FEW:
        outside, unproven = _compared(limits, own, asked)
        return outside & asked, unproven & asked
    for stated, outside, unproven in limits.known:  # an edit changes few variables: the others were compared before
        if stated is own or stated == own:
            return outside & asked, unproven & asked
    outside, unproven = _compared(limits, own, -1)
    limits.known[:] = [(own, outside, unproven), *limits.known[: KEPT - 1]]
    return outside & asked, unproven & asked


def _compared(limits: _Limits, own: Range | None, asked: int) -> tuple[int, int]:
    outside, unproven = 0, limits.stated if own is None else 0
    for allowance, places in limits.limits:
        if places & asked:
            verdict = allowance.verdict(own)
            if verdict == "outside":
                outside |= places
            elif verdict == "unproven":
                unproven |= places
    return outside, unproven


def _places(found: int) -> Iterator[int]:
    """Yield the places of the bits that are set, the first first."""
    while found:
        last = found & -found
        yield last.bit_length() - 1
        found ^= last
