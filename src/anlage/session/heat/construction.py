"""What a construction code asks of a joint: preheat, most between passes, heat treatment; by its pack, side by side.

A fact that nobody states leaves two readings: what is asked wherever it may lie, and what is asked for sure.
"""

from collections.abc import Mapping, Sequence
from functools import cache, lru_cache
from typing import Final, TypeGuard

from msgspec import Struct

from anlage.core.codes.asking import asked_of, asks
from anlage.core.codes.box import Allowance
from anlage.core.codes.facts import Demand
from anlage.core.codes.pack import Pack, Rule
from anlage.core.codes.verdict import Verdict, verdict_within
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Interval, Numbers, Range, is_any, loosened, union
from anlage.core.variables import spoken
from anlage.data.installed_codes import code_choices
from anlage.data.tables import variables
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.judging.metals import group_of
from anlage.session.weld.analyses import Side, sides_of

ANYWHERE: Mapping[str, Interval] = {
    "thicker_member_mm": Interval(0.1, 1e4), "smts_mpa": Interval(1.0, 1e4), "carbon_pct": Interval(0.0, 10.0),
    "chromium_pct": Interval(0.0, 100.0), "preheat_c": Interval(-50.0, 1500.0), "diameter_mm": Interval(1.0, 1e5),
}  # fmt: skip
CONSTRUCTION: Final = "construction"
REQUIRED = "required"  # the category of what a code does not merely advise
RELIED = ("H", "M")  # a P-Number that is hazy is no fact
RUNS = frozenset(("single", "multi"))
MOST_KEPT = 512  # answers; an edit of current or speed asks none of these facts


class SideFacts(Struct, frozen=True, kw_only=True):
    """One side of a joint as the codes ask; `None` is what nobody states. Lengths in mm, strength in MPa, shares in %.

    `thickness_mm` is that of the thicker part, `smts_mpa`, `carbon` and `chromium` those of the specification.
    """

    p_number: str
    group: str = ""
    thickness_mm: float | None = None
    smts_mpa: float | None = None
    carbon: float | None = None
    chromium: float | None = None
    preheat_c: float | None = None
    diameter_mm: Interval | None = None
    runs: str | None = None
    pwht: str | None = None

    def sets(self) -> dict[str, Range]:
        """Return what is stated of it, by the variables of the codes."""
        told = {
            "thicker_member_mm": self.thickness_mm, "smts_mpa": self.smts_mpa, "carbon_pct": self.carbon,
            "chromium_pct": self.chromium, "preheat_c": self.preheat_c,
        }  # fmt: skip
        found: dict[str, Range] = {name: _point(value) for name, value in told.items() if value is not None}
        if self.diameter_mm is not None:
            found["diameter_mm"] = Numbers((self.diameter_mm,))
        words = {"p_numbers": self.p_number, "runs": self.runs, "pwht": self.pwht}
        words["group_numbers"] = f"{self.p_number}-{self.group}" if self.group else None
        return found | {name: Choices(frozenset((word,))) for name, word in words.items() if word}


class Asked(Struct, frozen=True):
    """What a code asks in one variable: `sure` whatever is not stated, `possible` if all of that is for the best."""

    variable: str
    sure: Range
    possible: Range
    rules: tuple[Rule, ...]
    confidence: str
    limits: tuple[Rule, ...]  # those that limit it whatever is not stated
    lacks: tuple[str, ...]  # what nobody states and would settle it
    reason: str  # why two readings stand, where nothing lacks

    @property
    def clause(self) -> str:
        """The clauses, each once."""
        return ", ".join(dict.fromkeys(rule.clause for rule in self.rules))

    @property
    def is_binding(self) -> bool:
        """Whether the code requires it, or only advises."""
        return any(rule.category == REQUIRED for rule in self.rules)

    def verdict(self, stated: Range | None) -> Verdict:
        """Return whether what is stated is what is asked."""
        return verdict_within(stated, loosened(self.sure), loosened(self.possible))


@cache
def construction_codes() -> tuple[str, ...]:
    """Return every construction code that is installed, its newest edition."""
    return tuple(each for each in code_choices(CONSTRUCTION) if ":" not in each)


def is_of(named: str, code: str) -> bool:
    """Return whether what a document names is a code, in whatever edition."""
    return named.partition(":")[0] == code


def has_numbers(allowed: Range) -> TypeGuard[Numbers]:
    """Return whether a set is of numbers, and not empty."""
    return isinstance(allowed, Numbers) and bool(allowed.parts)


def asked_by(
    code: str, sides: Sequence[SideFacts], variable: str, *, units: System = "si", codes: Codes = SHIPPED
) -> Asked | None:
    """Return what a code asks of a joint in one variable; `None` where it asks nothing of either side.

    A side that it asks nothing of does not free the other: carbon steel is preheated, whatever it is joined to.

    Parameters
    ----------
    code : a construction code, with or without edition: `b31.3:2014`
    sides : both sides of the joint, each by itself; what all of them allow holds
    variable : preheat_c, interpass_c, pwht, pwht_temperature_c, pwht_time_h, heating_rate_k_h, cooling_rate_k_h
    units : whose column is read
    codes : with what the works says of its rules

    Raises
    ------
    UnknownNameError : no such code or edition
    FormatError : its rulebook cannot be read

    Examples
    --------
    >>> steel = SideFacts(p_number="1", thickness_mm=30, smts_mpa=485, carbon=0.35)
    >>> asked_by("b31.3", [steel], "preheat_c").sure.parts[0].low
    95.0
    """
    pack, _ = codes.edition_of(code, CONSTRUCTION)
    found = [_of_side(_Same(pack), side, variable, units) for side in sides]
    known = [each for each in found if each is not None]
    if not known:
        return None
    sure, possible = known[0].sure, known[0].possible
    for each in known[1:]:
        sure, possible = sure & each.sure, possible & each.possible
    return Asked(
        variable, sure, possible,
        tuple(dict.fromkeys(rule for each in known for rule in each.rules)),
        max((each.confidence for each in known), key="HML".index),
        tuple(dict.fromkeys(rule for each in known for rule in each.limits)),
        tuple(dict.fromkeys(lack for each in known for lack in each.lacks)),
        "; ".join(dict.fromkeys(each.reason for each in known if each.reason)),
    )  # fmt: skip


def side_asked(wps: Wps, side: Side, thickness_mm: float | None) -> SideFacts | None:
    """Return a side of a joint as the codes ask, in metal so thick; `None` where its P-Number is not known.

    Codes ask the specification, not the certificate.
    """
    diameter, od = wps.range.diameter_mm, wps.joint.od_mm
    group = group_of(wps.metals.one if side.path == "metals/one" else wps.metals.other or wps.metals.one)
    if group is None or not group.group("p_number") or group.confidence not in RELIED:
        return None
    row = side.metal
    composition = row.composition if row else {}
    return SideFacts(
        p_number=group.group("p_number"),
        group=group.group("group_number"),
        thickness_mm=thickness_mm,
        smts_mpa=row.smts_mpa if row else None,
        carbon=composition.get("C"),
        chromium=composition.get("Cr", 0.0 if row else None),
        preheat_c=wps.preheat.minimum_c,
        diameter_mm=Interval(diameter.low, diameter.high) if diameter else Interval(od, od) if od else None,
        runs=wps.technique.runs,
        pwht=wps.pwht.kind,
    )


def sides_asked(wps: Wps, thickness_mm: float | None) -> tuple[SideFacts, ...]:
    """Return both sides of a joint as `side_asked`; none where the P-Number of one is not known."""
    found = [side_asked(wps, side, thickness_mm) for side in sides_of(wps)]
    known = tuple(dict.fromkeys(each for each in found if each is not None))
    return () if None in found else known


class _Same:
    """A pack that is known again by being that very pack: it is never compared rule by rule."""

    __slots__ = ("pack",)

    def __init__(self, pack: Pack) -> None:
        self.pack = pack

    def __eq__(self, other: object) -> bool:
        return isinstance(other, _Same) and other.pack is self.pack

    def __hash__(self) -> int:
        return id(self.pack)


@lru_cache(MOST_KEPT)
def _of_side(same: _Same, side: SideFacts, variable: str, units: System) -> Asked | None:
    pack, stated, demand = same.pack, side.sets(), Demand(units=units)
    rules = [rule for rule in pack.rules if variable in rule.variables]
    easy = asked_of(pack, rules, stated, demand).get(variable)
    if easy is None:
        return None
    wherever: dict[str, Range] = {name: Numbers((span,)) for name, span in ANYWHERE.items()}
    strict = asked_of(pack, rules, {**wherever, "runs": Choices(RUNS), **stated}, demand)[variable]
    concerned = tuple(ruling.rule for ruling in easy.rulings)
    lacks = dict.fromkeys(name for rule in concerned for name in sorted(asks(rule)) if name not in stated)
    possible = _eased(easy)
    is_settled = strict.sure == possible
    return Asked(
        variable, strict.sure, possible, concerned, easy.confidence,
        tuple(ruling.rule for ruling in easy.rulings if not is_any(ruling.readings.possible)),
        () if is_settled else tuple(spoken(name) for name in lacks if name in variables()),
        "" if is_settled else strict.reason or easy.note,
    )  # fmt: skip


def _eased(found: Allowance) -> Range:
    """Return what is allowed if all that is not stated is for the best: of rows of which one holds, the mildest."""
    rows = [ruling.readings.sure for ruling in found.rulings]
    return union(rows) if is_any(found.possible) and all(map(has_numbers, rows)) else found.possible


def _point(value: float) -> Numbers:
    return Numbers((Interval(value, value),))
