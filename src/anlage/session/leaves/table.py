"""The table of all leaves that are typed: what each is called, of which kind it is, what it may be.

Glossary
--------
pattern : a path with `*` for the id of an element, `passes/*/current_a`
shape : number, span (a range), dimension (nominal with minus and plus), text, choice
bare unit : the unit shown beside a field; a number without unit is read in it
"""

from collections.abc import Mapping
from functools import cache
from typing import Any, Literal

import rtoml
from msgspec import Struct, field

from anlage.core.errors import UnknownNameError
from anlage.core.quantities.units import System
from anlage.data.files import text_of
from anlage.data.installed_codes import code_choices
from anlage.data.tables import unit_table

LEAVES = ("job", "joint", "deposits", "passes", "seam", "machine", "record", "heat")  # the files of the table, by part
PARTS = ("minus", "plus", "least", "mean", "most")
RECORDED = ("least", "mean", "most")
ENDS = ("low", "high")
LISTS = (
    "deposits", "passes", "members", "tacks", "stations", "sectors", "readings", "results", "welded", "pieces",
)  # fmt: skip


class Field(Struct, frozen=True, kw_only=True):
    """What a leaf is called, of which kind it is, what it may be, and what one press of an arrow key adds."""

    path: str
    label: str
    shape: str
    tip: str
    kind: str = ""
    step: Mapping[System, float] = field(default_factory=dict)
    choices: tuple[str, ...] = ()
    says: Mapping[str, str] = field(default_factory=dict)
    required: bool = False
    record_shape: str = ""  # of the same leaf in a record, where it differs: one number for a range
    open_ends: bool = False  # a range may be without end
    limit: Literal["", "least", "most"] = ""  # which end of what it limits a single number is
    sizes: bool = False  # a size of the trade under two names, as fillers have
    flag: bool = False  # the choices yes and no are kept as true and false
    vocabulary: str = ""
    catalogue: str = ""
    words: str = ""  # others that people look for it by
    reads: str = ""  # what a text must say: a certificate, hydrogen, or the tolerance of a kind of quantity
    installed: str = ""  # what the choices are taken from, where they are not fixed

    def unit(self, system: System) -> str:
        """Return the unit that stands beside the field, "" for texts."""
        return unit_table()[self.kind].shown_in[system][0].name if self.kind else ""

    def say(self, choice: str) -> str:
        """Return how a choice is written for people."""
        return self.says.get(choice, choice)


@cache
def fields() -> Mapping[str, Field]:
    """Return every field by its pattern."""
    rows = [row for part in LEAVES for row in rtoml.loads(text_of(f"leaves/{part}.toml"))["leaf"]]
    return {row["path"]: _field(row) for row in rows}


def _field(row: dict[str, Any]) -> Field:
    says = code_choices(row["installed"]) if "installed" in row else row.get("says", {})
    choices = tuple(says) if "installed" in row else tuple(row.get("choices", ()))
    return Field(**row | {"choices": choices, "says": says})


def field_of(path: str) -> Field:
    """Return the field of a leaf.

    Raises
    ------
    UnknownNameError : nobody types that leaf

    Examples
    --------
    >>> field_of("passes/p3/current_a").label, field_of("joint/root_face_mm/plus").label
    ('Current', 'Root face')
    """
    steps = path.split("/")
    if steps[-1] in PARTS:
        steps.pop()
    listed = steps[0] in LISTS
    pattern = "/".join("*" if place == 1 and listed else s for place, s in enumerate(steps))
    if pattern not in fields():
        raise UnknownNameError(path, fields(), where="field")
    return fields()[pattern]
