"""Facts that follow from others, as a pack says: groups of metals, numbers of a filler, a heat treatment's class."""

import re
from collections.abc import Mapping, Sequence
from typing import Annotated, Any, Literal

import msgspec
from msgspec import Struct

from anlage.core.catalogue import Filler, MetalGroup
from anlage.core.codes.a_number import ANumberRow, a_numbers
from anlage.core.codes.classes import Classes
from anlage.core.codes.facts import Fact, pair_token
from anlage.core.codes.listed_metals import NO_SIDES, Listing, Sides
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval, Numbers, graded_end

OWN_NAME = "@name"


class Pattern(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """What a name is where it is written like a pattern; the first pattern that fits counts."""

    like: str
    token: str = msgspec.field(name="is")

    def __post_init__(self) -> None:
        try:
            re.compile(self.like)
        except re.error as fault:
            raise ValueError(f"like is no pattern: {fault}") from fault


class Derivation(msgspec.Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """One fact that a pack derives from columns of the catalogue, or of its own list: of both metals, or of a filler.

    `otherwise` is what an end is that the pack's own list of metals does not have.
    """

    variable: str
    of: Literal["metals", "filler"]
    columns: Annotated[tuple[str, ...], msgspec.Meta(min_length=1)]
    form: Literal["", "pair", "ends", "names", "unlisted"] = ""  # of metals: joined, each, or their names
    listed: bool = False  # by the pack's own list of metals, not by the catalogue
    otherwise: str = ""  # of a filler `@name`: its own name
    graded: bool = False  # of a pair: each end with its yield strength [MPa]
    withhold: tuple[Literal["H", "M", "L", "unknown"], ...] = ()  # confidences that make no fact
    analysis: str = ""  # the table that works it out from a deposit analysis
    patterns: tuple[Pattern, ...] = ()


class HeatTreatment(msgspec.Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """How a pack classes a heat treatment that is stated as a temperature range."""

    fact: str
    temperature: str
    metals: str
    limits: str
    below: str
    otherwise: str
    transforming: Annotated[tuple[str, ...], msgspec.Meta(min_length=1)]
    but: tuple[str, ...] = ()


class LowerTransformation(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Approximate lower transformation temperature of some groups of metals [°C]."""

    p_numbers: frozenset[str]
    ltt_c: float
    source: str
    confidence: Literal["H", "M", "L"]


class Derivations(Struct, frozen=True):
    """Everything that a pack derives, with its tables."""

    rows: tuple[Derivation, ...] = ()
    heat_treatment: HeatTreatment | None = None
    lower_transformations: tuple[LowerTransformation, ...] = ()
    a_numbers: tuple[ANumberRow, ...] = ()
    listing: Listing = Listing()
    classes: tuple[Classes, ...] = ()
    words: Mapping[str, Mapping[str, tuple[str, ...]]] = msgspec.field(default_factory=dict)  # by variable

    def metal_facts(self, one: MetalGroup, other: MetalGroup | None = None, sides: Sides = NO_SIDES) -> dict[str, Fact]:
        """Return the facts of the base metals: pairs by both ends, and the ends themselves.

        A metal without its leading group stands for itself under its name, so that it is never taken for another; a
        pair by more columns is no fact while one of them is empty at an end. What the pack's own list says by
        thickness is every word that holds somewhere in the thicknesses of the `sides`.
        """
        facts: dict[str, Fact] = {}
        for row in self.rows:
            if row.of != "metals":
                continue
            if row.listed:
                found = self.listing.fact(row.columns[0], row.form, row.otherwise, (one, other or one), sides)
                facts |= {row.variable: found} if found else {}
                continue
            ends = [(_graded if row.graded else _end)(metal, row.columns) for metal in (one, other or one)]
            if row.form == "ends":
                facts[row.variable] = frozenset(end for end in ends if end)
            elif all(ends):
                facts[row.variable] = pair_token(*ends)
        return facts

    def filler_facts(self, filler: Filler, *, deposit: Mapping[str, float] | None = None) -> dict[str, Fact]:
        """Return the facts of a filler; what a deposit analysis works out is taken from it alone.

        What the catalogue does not know well enough, or the analysis leaves open, is no fact.
        """
        facts: dict[str, Fact] = {"filler_present": "with"}
        for row in self.rows:
            if row.of == "filler" and (found := self._of_filler(row, filler, deposit)):
                facts[row.variable] = found
        return facts

    def _of_filler(self, row: Derivation, filler: Filler, deposit: Mapping[str, float] | None) -> str:
        if row.analysis and deposit:
            found = a_numbers(deposit, self.a_numbers)
            return found[0] if len(found) == 1 else ""
        value = str(getattr(filler, row.columns[0]))
        if row.patterns:
            return next((each.token for each in row.patterns if re.match(each.like, value)), "")
        if not value and row.otherwise == OWN_NAME:
            return filler.classification
        return "" if filler.confidence_of(row.columns[0]) in row.withhold else value

    def heat_treatment_class(self, temperature_c: Interval, metals: frozenset[str]) -> str | None:
        """Return the class of a heat treatment stated as a temperature range, `None` where it stays open.

        Metals that do not transform have one class, a stated range. For the others a range that stays below the lower
        transformation temperature of both ends is classed so; a range that reaches it, or a metal whose temperature
        the table does not hold, is not classed.

        Sources
        -------
        The pack's own: for ASME BPVC IX QW-407.1 (first class list H, others M); temperatures: see the table.
        """
        rule = self.heat_treatment
        if rule is None:
            return None
        if metals and not any(leading(metal) in rule.transforming and metal not in rule.but for metal in metals):
            return rule.otherwise
        limit = self.lower_transformation(metals)
        return rule.below if limit is not None and temperature_c.high < limit else None

    def class_facts(self, facts: Mapping[str, object], units: System) -> dict[str, frozenset[str]]:
        """Return the classes of numbers that are stated or recorded."""
        found = {}
        for each in self.classes:
            own = facts.get(each.of)
            values = Numbers((Interval.single(float(own)),)) if isinstance(own, int | float) else own
            if isinstance(values, Numbers) and (tokens := each.tokens(values, units)):
                found[each.variable] = tokens
        return found

    def in_words_of_the_code(
        self, variable: str, tokens: frozenset[str], way: frozenset[str] = frozenset()
    ) -> frozenset[str]:
        """Return how a code speaks of some words of a variable; as they are where it has no words of its own.

        A word may hang on the way that is gone, `3G uphill`. Nothing where the code has none for one of them: what it
        does not speak of is not known.
        """
        own = self.words.get(variable)
        if own is None:
            return tokens
        found: set[str] = set()
        for each in tokens:
            told = own.get(each) or tuple(word for one in way for word in own.get(f"{each} {one}", ()))
            if not told:
                return frozenset()
            found |= set(told)
        return frozenset(found)

    def lower_transformation(self, metals: frozenset[str]) -> float | None:
        """Return the lowest transformation temperature of some metals [°C]; `None` where one of them is not known."""
        limits = [row.ltt_c for metal in metals for row in self.lower_transformations if metal in row.p_numbers]
        return min(limits) if limits and len(limits) == len(metals) else None


def _end(metal: MetalGroup, columns: Sequence[str]) -> str:
    """Return one end of a pair: the groups of a metal joined by a dash; "" where one behind the first is not known."""
    first, *others = columns
    parts = [metal.group(first) or metal.name, *(metal.group(column) for column in others)]
    return "-".join(parts) if all(parts) else ""


def _graded(metal: MetalGroup, columns: Sequence[str]) -> str:
    """Return one end with its grade; "" where a group of it or its yield strength is not known."""
    groups = [metal.group(column) for column in columns]
    return graded_end("-".join(groups), metal.yield_mpa) if all(groups) and metal.yield_mpa else ""


def leading(group: str) -> str:
    """Return the number that a group begins with: 10 of 10H."""
    match = re.match(r"\d+", group)
    return match[0] if match else ""


def read_lower_transformations(rows: Any) -> tuple[LowerTransformation, ...]:
    """Return the rows of a table of lower transformation temperatures.

    Raises
    ------
    msgspec.ValidationError : a row is not what it has to be
    """
    some = Annotated[tuple[LowerTransformation, ...], msgspec.Meta(min_length=1)]
    found: tuple[LowerTransformation, ...] = msgspec.convert(rows, some)
    return found
