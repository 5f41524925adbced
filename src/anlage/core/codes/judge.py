"""The verdict on every variable of a WPS from the boxes of its candidate records.

Each deposit rests on one record that contains it, or on several that cover it together where the pack lets them;
ranges of different records are never mixed variable by variable.
"""

from collections.abc import Sequence

from msgspec import Struct

from anlage.core.codes.box import CoverBox
from anlage.core.codes.candidates import Boxes
from anlage.core.codes.case import case_of
from anlage.core.codes.pack import Pack
from anlage.core.codes.rungs import Rung, clash_rungs, demand_rungs, rungs_of, unruled_rungs, unsupported_rungs
from anlage.core.codes.stated import Stated
from anlage.core.codes.supports import supports_of, with_own_rules
from anlage.core.codes.verdict import Verdict, worst


class Judgement(Struct, frozen=True):
    """The overall verdict, one rung a variable, and the records each deposit rests on."""

    verdict: Verdict
    rungs: tuple[Rung, ...]
    supports: tuple[tuple[str, ...], ...]  # records by deposit; () where none covers it

    def counts(self) -> dict[Verdict, int]:
        """Return how many rungs carry each verdict."""
        verdicts: tuple[Verdict, ...] = ("inside", "outside", "unproven")
        return {verdict: sum(rung.verdict == verdict for rung in self.rungs) for verdict in verdicts}

    def records(self) -> tuple[str, ...]:
        """Return the records that it rests on, or is judged by, in the order of their names."""
        return tuple(sorted({record for rung in self.rungs for record in rung.records}))


def judge(pack: Pack, stated: Stated, boxes: Sequence[CoverBox] | Boxes) -> Judgement:
    """Return the verdict on everything a WPS states.

    Parameters
    ----------
    pack : the code
    stated : the sets of the WPS
    boxes : the boxes of the candidate records under the WPS's demand, newest first

    Returns
    -------
    Judgement : outside beats unproven beats inside; without any record, or any variable, unproven
    """
    case = case_of(pack, stated, boxes if isinstance(boxes, Boxes) else Boxes(boxes))
    supports, sums = supports_of(case)
    judged = [with_own_rules(case, index, support) for index, support in enumerate(supports)]
    rungs = [*demand_rungs(case, stated.demand), *unruled_rungs(case), *rungs_of(case, judged, sums)]
    rungs += unsupported_rungs(case, supports)
    rungs += clash_rungs(case, rungs)
    overall = worst(rung.verdict for rung in rungs)
    covered = (() if n in sums or not s.covered else s.records for n, s in enumerate(supports))
    return Judgement(overall, tuple(rungs), tuple(covered))
