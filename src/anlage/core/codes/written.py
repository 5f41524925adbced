"""The tables of a pack as they are written: their keys and types; what they name is checked by whoever reads them."""

from typing import Annotated, Any, Literal

import msgspec
from msgspec import UNSET, Meta, Struct, UnsetType

from anlage.core.codes.pack import Assumption, Basis, Governs, Heat, Route, Scope, Stage
from anlage.core.quantities.units import System

Confidence = Literal["H", "M", "L"]
Relied = Literal["H", "M"]  # what carries a deposit has to be known
Words = Annotated[str, Meta(min_length=1)]
Some = Annotated[tuple[Words, ...], Meta(min_length=1)]


Wanted = Annotated[dict[str, Annotated[int, Meta(ge=1)]], Meta(min_length=1)]  # specimens, counted by kind


class WrittenHead(Struct, frozen=True, forbid_unknown_fields=True):
    """The table `[pack]`."""

    code: Words
    name: Words
    title: Words
    source: Words
    editions: Some
    processes: Some
    scopes: Annotated[tuple[Scope, ...], Meta(min_length=1)] = ("joint", "deposit", "pass", "member")
    assumed: dict[str, Assumption] = {}
    accepts_records_of: tuple[Words, ...] = ()
    untested: dict[str, Literal["nothing"]] = {}
    basis: Heat = "arc_energy"
    deposit_by: tuple[Words, ...] = ()
    governs: Governs = "qualification"
    optional: tuple[Words, ...] = ()
    papers: tuple[Words, ...] = ()
    names: dict[str, Words] = {}  # how the code speaks of a variable
    units: System = "si"  # in whose column it is judged where nobody says
    metals: str = ""  # the table of those that the code lists itself


class WrittenUnion(Struct, frozen=True, forbid_unknown_fields=True, tag_field="kind", tag="union"):
    """A table `[[combination]]`: records that cover a deposit together over some variables."""

    id: Words
    title: Words
    clause: Words
    confidence: Relied
    variables: Annotated[tuple[Words, ...], Meta(min_length=1, max_length=3)]
    within: dict[str, str] = {}


class WrittenPairs(Struct, frozen=True, forbid_unknown_fields=True, tag_field="kind", tag="pairs"):
    """A table `[[combination]]`: records on like pairs of metals that cover the mixed pair together."""

    id: Words
    title: Words
    clause: Words
    confidence: Relied
    variables: Some
    across: bool = False


class WrittenBorrow(Struct, frozen=True, forbid_unknown_fields=True, tag_field="kind", tag="borrow"):
    """A table `[[combination]]`: passes of some roles, laid in base metal as thick as another record allows."""

    id: Words
    title: Words
    roles: Some
    processes: Some
    thickness_from: float | dict[str, float]
    lifts: Some
    variables: Some
    deposit: Words
    times: Annotated[float, Meta(gt=0)]
    clause: Words
    confidence: Relied


class WrittenSpecimens(Struct, frozen=True, forbid_unknown_fields=True):
    """A table `[[specimens]]`: the sets of specimens, counted by kind, of which one suffices; or what is added."""

    id: Words
    clause: Words
    confidence: Confidence
    when: dict[str, Any]
    title: Words = "Specimens that such a coupon needs"
    any: Annotated[tuple[Wanted, ...], Meta(min_length=1)] | UnsetType = UNSET
    add: Wanted | UnsetType = UNSET
    instead: tuple[Words, ...] = ()


Pair = float | dict[str, float]  # a number, or one a unit column


class WrittenSpread(Struct, frozen=True, forbid_unknown_fields=True):
    """By how much a dimension may be less and more."""

    less: Pair = 0.0
    more: Pair = 0.0


class WrittenTolerance(Struct, frozen=True, forbid_unknown_fields=True):
    """How far a drawing may depart from a detail, and a joint as it is fitted up from its drawing.

    `free` is a dimension that is fitted up as it comes: it is gouged away.
    """

    drawn: WrittenSpread = WrittenSpread()
    fitted: WrittenSpread = WrittenSpread()
    free: bool = False


class WrittenDetail(Struct, frozen=True, forbid_unknown_fields=True):
    """A table `[[detail]]`: what a joint without a record allows, tokens or bounds by variable.

    `drawn` are its dimensions as the figure draws them, one number or from one to another; `tolerance` names how far
    they may be off. Of several rows that differ by their thickness alone each has an id of its own.
    """

    id: Words
    clause: Words
    title: Words
    confidence: Confidence
    allows: Annotated[dict[str, Any], Meta(min_length=1)]
    drawn: dict[str, Any] = {}
    tolerance: str = ""
    when: dict[str, Any] = {}
    note: str = ""


class WrittenRule(Struct, frozen=True):
    """What a rule may have, whatever its kind, and of which type each is; which keys a kind has, the loader says."""

    id: Words | UnsetType = UNSET
    variable: Words | Some | UnsetType = UNSET
    title: Words | UnsetType = UNSET
    on: Words | UnsetType = UNSET
    source: Words | UnsetType = UNSET
    because: str | UnsetType = UNSET
    note: str | UnsetType = UNSET
    when: dict[str, Any] | UnsetType = UNSET
    unless: dict[str, Any] | list[dict[str, Any]] | UnsetType = UNSET
    of: Words | UnsetType = UNSET
    ranks: Some | UnsetType = UNSET
    function: Words | UnsetType = UNSET
    groups: list[list[str] | str] | UnsetType = UNSET
    map: dict[str, Any] | UnsetType = UNSET
    rows: list[dict[str, Any]] | UnsetType = UNSET
    low: dict[str, Any] | UnsetType = UNSET
    high: dict[str, Any] | UnsetType = UNSET
    also: dict[str, Any] | list[str] | str | UnsetType = UNSET
    tokens: dict[str, Any] | list[str] | str | UnsetType = UNSET
    members: Annotated[dict[str, Some], Meta(min_length=1)] | UnsetType = UNSET
    letters: Annotated[dict[str, Some], Meta(min_length=1)] | UnsetType = UNSET
    alone: Some | UnsetType = UNSET
    doubt: bool | UnsetType = UNSET
    or_same: bool | UnsetType = UNSET
    route: Route | UnsetType = UNSET
    basis: Basis | UnsetType = UNSET
    editions: Some | UnsetType = UNSET
    stage: Stage | UnsetType = UNSET
    relative: dict[str, float] | UnsetType = UNSET
    absolute: dict[str, dict[str, Any]] | UnsetType = UNSET


class WrittenEnd(Struct, frozen=True):
    """What an end of a band may have, and of which type each is."""

    times: float | dict[str, float] = 1.0
    of: str = ""
    take: Literal["least", "mean", "most"] = "mean"
    open: bool = False


def fault_of(table: Any, kind: type) -> tuple[str, str]:
    """Return what is wrong with the type of a table or of a key in it, and that key; twice "" where nothing is."""
    try:
        msgspec.convert(table, kind)
    except msgspec.ValidationError as fault:
        what, _, place = str(fault).partition(" - at `$")
        return what, place.strip("`.").partition(".")[0].partition("[")[0]
    return "", ""
