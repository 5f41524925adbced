"""Which of many sets cover all elements at least cost, as an integer programme.

What can never be part of a best answer is left out first: of sets that cover the same the dearer ones, and those whose
elements another covers for no more.
"""

from collections.abc import Sequence

import numpy as np
from msgspec import Struct
from scipy.optimize import Bounds, LinearConstraint, milp  # type: ignore[import-untyped]
from scipy.sparse import csr_array  # type: ignore[import-untyped]

SECONDS = 10.0
CLOSE = 1e-9  # of costs: two that are one


class Cover(Struct, frozen=True, kw_only=True):
    """An answer: which sets, what they cost, the least that any answer may cost, and what no set covers."""

    chosen: tuple[int, ...]
    cost: float
    bound: float
    uncovered: tuple[int, ...]

    @property
    def is_optimal(self) -> bool:
        """Whether no other answer costs less."""
        return self.cost - self.bound <= CLOSE * max(1.0, abs(self.cost))

    @property
    def gap_percent(self) -> float:
        """By how much of its cost an answer may lie over the least [%]."""
        return 0.0 if self.is_optimal or not self.cost else 100 * (self.cost - self.bound) / self.cost


def least_cover(
    covers: Sequence[frozenset[int]], costs: Sequence[float], elements: int, *, seconds: float = SECONDS
) -> Cover:
    """Return the sets that cover all elements that any set covers, at least cost.

    Parameters
    ----------
    covers : what each set covers, elements by number
    costs : of each set, above 0
    elements : how many there are
    seconds : after so long the best found is returned, with its bound

    Returns
    -------
    Cover : the sets in their order; of equal answers any

    Examples
    --------
    >>> least_cover([frozenset((0, 1)), frozenset((1, 2)), frozenset((2,))], [1, 1, 1], 3).chosen
    (0, 1)
    """
    covered = frozenset().union(*covers) if covers else frozenset[int]()
    uncovered = tuple(each for each in range(elements) if each not in covered)
    kept = _worth(covers, costs)
    if not covered:
        return Cover(chosen=(), cost=0.0, bound=0.0, uncovered=uncovered)
    chosen, bound = _solved(covers, costs, kept, sorted(covered), seconds)
    cost = sum(costs[each] for each in chosen)
    return Cover(chosen=tuple(sorted(chosen)), cost=cost, bound=min(bound, cost), uncovered=uncovered)


def _worth(covers: Sequence[frozenset[int]], costs: Sequence[float]) -> list[int]:
    """Return the sets of which no other covers as much for no more."""
    best: dict[frozenset[int], int] = {}
    for place, each in enumerate(covers):
        if each and (each not in best or costs[place] < costs[best[each]]):
            best[each] = place
    kept: list[int] = []
    for each, place in sorted(best.items(), key=lambda pair: -len(pair[0])):
        if not any(each < covers[other] and costs[other] <= costs[place] for other in kept):
            kept.append(place)
    return sorted(kept)


def _solved(
    covers: Sequence[frozenset[int]], costs: Sequence[float], kept: Sequence[int], asked: Sequence[int], seconds: float
) -> tuple[list[int], float]:
    """Return the chosen ones among some sets, and the least that any choice costs."""
    rows = {element: row for row, element in enumerate(asked)}
    at = [(rows[element], column) for column, place in enumerate(kept) for element in covers[place]]
    matrix = csr_array((np.ones(len(at)), tuple(np.array(at).T)), shape=(len(asked), len(kept)))
    found = milp(
        np.array([costs[place] for place in kept]), integrality=np.ones(len(kept)), bounds=Bounds(0, 1),
        constraints=LinearConstraint(matrix, lb=1), options={"time_limit": seconds, "mip_rel_gap": 0},
    )  # fmt: skip
    bound = 0.0 if found.mip_dual_bound is None else float(found.mip_dual_bound)
    if found.x is None:
        return _greedy(covers, costs, kept, frozenset(asked)), bound
    chosen = [place for place, taken in zip(kept, found.x, strict=True) if taken > 0.5]
    return chosen, sum(costs[each] for each in chosen) if found.status == 0 else bound


def _greedy(
    covers: Sequence[frozenset[int]], costs: Sequence[float], kept: Sequence[int], asked: frozenset[int]
) -> list[int]:
    """Return sets that cover all, the one that covers most for its cost first."""
    left, chosen = asked, []
    while left:
        best = max(kept, key=lambda place: len(covers[place] & left) / costs[place])
        chosen.append(best)
        left -= covers[best]
    return chosen
