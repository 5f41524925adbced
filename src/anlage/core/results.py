"""What every computed answer carries beside its number: where it comes from, and what to mind."""

from msgspec import Struct

from anlage.core.errors import LONGEST, InputError
from anlage.core.letters import one_line


class Source(Struct, frozen=True):
    """The origin of one part of an answer; confidence H, M or L as in the tables."""

    what: str
    source: str
    confidence: str


class Notice(Struct, frozen=True):
    """Something to mind about an answer that is still given: a stable code, the field concerned, one sentence."""

    code: str
    where: str
    text: str

    @classmethod
    def of(cls, code: str, where: str, text: str) -> "Notice":
        """Return a notice about something that comes from outside: one line, whatever it tells of."""
        return cls(code, where, one_line(text, LONGEST))


def require_above_zero(**values: float) -> None:
    """Refuse any of `values` (keyword: name with unit ending) that is not a number above zero.

    Raises
    ------
    InputError : a value is zero, below zero, infinite or not a number
    """
    for name, value in values.items():
        if not 0 < value < float("inf"):
            raise InputError(f"{value:g} is not above 0", where=name, mend="state a positive value")
