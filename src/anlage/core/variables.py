"""Variables of the codes: how each is spoken of, what is measured, which words it may be, and who states it where."""

import re
from collections.abc import Mapping

import msgspec

from anlage.core.toml_rows import rows_by_id


class Stating(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """Where a kind of document states a variable.

    `leaf` is the pattern of the leaf; `derive` names what works it out, `of` what a code derives it from; `take` says
    which number of a range or of a recorded quantity is meant. `typed` is the leaf that answers it where that is stated
    elsewhere, as at the passes of a deposit.
    """

    leaf: str
    typed: str = ""
    derive: str = ""
    of: str = ""
    take: str = ""

    @property
    def scope(self) -> str:
        """Where it is stated: `deposit`, `pass`, or `joint` for the document as a whole."""
        return {"deposits": "deposit", "passes": "pass"}.get(self.leaf.partition("/")[0], "joint")

    @property
    def name(self) -> str:
        """The leaf within its element, or its whole path."""
        return self.leaf if self.scope == "joint" else self.leaf.partition("/*/")[2]


class Variable(msgspec.Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """One variable: `tokens` are its words or where they are kept, `fact` marks what is asked of coupons alone.

    `declared` is the leaf by which a record declares the range that it qualifies. `said` are words besides, in which a
    code of its own speaks of it.

    Of `pairs` both ends are words; with a `grade` each has a number of that kind of quantity as well.
    `asked` is the leaf by which a procedure asks it of any record; an `optional` one that a procedure does not state
    does not concern it.
    """

    id: str
    name: str
    kind: str = ""
    tokens: str | tuple[str, ...] = ""
    said: tuple[str, ...] = ()
    pairs: bool = False
    grade: str = ""
    fact: bool = False
    asked: str = ""
    optional: bool = False
    wps: Stating | None = None
    pqr: Stating | None = None
    declared: str = ""


class VariableName(str):
    """The id of a variable that knows how it is spoken of: `base_metal_thickness_mm` is *base metal thickness*."""

    __slots__ = ("word",)
    word: str

    def __new__(cls, variable: str, word: str) -> "VariableName":
        """Return an id with its word."""
        found = super().__new__(cls, variable)
        found.word = word
        return found


Variables = Mapping[str, Variable]
_UNIT = re.compile(r"_(?:kj_mm|l_min|mm_min|mm2|mm|min|c|h)$")


def spoken(name: str) -> str:
    """Return how a variable is spoken of: by its own word, else by its id without unit and underscores.

    Examples
    --------
    >>> spoken(VariableName("f_number", "F-Number")), spoken("base_metal_thickness_mm")
    ('F-Number', 'base metal thickness')
    """
    return name.word if isinstance(name, VariableName) else _UNIT.sub("", name).replace("_", " ")


def read_variables(text: str, *, where: str = "variables.toml") -> Variables:
    """Return the variables written in `text` (TOML) by their id.

    Raises
    ------
    FormatError : a row is not what a variable is, or an id comes twice
    """
    return rows_by_id(text, "variable", Variable, where=where)
