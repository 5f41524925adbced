"""What a metal of the catalogue is made of: the specification's most, or a typical analysis, and which it is."""

from collections.abc import Mapping, Sequence
from typing import Literal

from msgspec import Struct

from anlage.core.catalogue import BaseMetal, Filler
from anlage.core.catalogue.rows import Row, read_rows
from anlage.core.metal.composition import Composition

Basis = Literal["certificate", "typical", "specification"]
FERROUS = ("carbon-manganese", "fine-grain", "quenched-tempered", "low-alloy-CrMo", "9Cr", "nickel-steel")
STAINLESS = ("austenitic", "duplex", "ferritic-martensitic")


class TypicalAnalysis(Row, frozen=True, kw_only=True):
    """What a stainless metal usually is [% by mass], near the lean end of what its specification allows."""

    material: str
    names: tuple[str, ...]
    composition: Mapping[str, float]


class Analysis(Struct, frozen=True):
    """A composition [% by mass], what it rests on, and how sure that is."""

    name: str
    composition: Composition
    basis: Basis
    source: str
    confidence: str


def read_typical(text: str) -> tuple[TypicalAnalysis, ...]:
    """Return the typical analyses written in `text` (CSV)."""
    return read_rows(text, TypicalAnalysis, where="typical_analyses.csv")


def typical_of(metal: BaseMetal, typical: Sequence[TypicalAnalysis]) -> Analysis | None:
    """Return the typical analysis of a metal by its grade, number or name; `None` where the table has none."""
    own = {metal.id, metal.grade, metal.uns_or_en}
    row = next((row for row in typical if own & set(row.names)), None)
    return None if row is None else Analysis(metal.id, row.composition, "typical", row.source, row.confidence)


def specified_of(metal: BaseMetal) -> Analysis:
    """Return the most that the specification of a metal allows of each element that it limits."""
    return Analysis(metal.id, metal.composition, "specification", metal.source, metal.confidence)


def deposit_of(filler: Filler) -> Analysis:
    """Return the typical analysis of a filler: of its deposit, or of its wire."""
    source = f"typical {filler.comp_basis}, {filler.source}"
    return Analysis(filler.classification, filler.composition, "typical", source, filler.confidence_of("composition"))
