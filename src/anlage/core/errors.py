"""The few ways Anlage refuses: every refusal says what, where and how to mend it."""

from collections.abc import Iterable
from functools import cached_property

from anlage.core.letters import one_line

LONGEST, LONGEST_NAME = 400, 100  # letters of a part of a refusal, and of the place it names
LISTED = 24  # names: more than this and a refusal does not list them all


class AnlageError(Exception):
    """Base of every error raised on purpose; `str(error)` is one line fit for a status bar, whatever it tells of."""

    def __init__(self, what: str, *, where: str, mend: str) -> None:
        super().__init__(what)
        self.what, self.where, self._mend = one_line(what, LONGEST), one_line(where, LONGEST_NAME), mend

    @property
    def mend(self) -> str:
        """How to mend it."""
        return one_line(self._mend, LONGEST)

    def __str__(self) -> str:
        return f"{self.where}: {self.what}; {self.mend}"


class InputError(AnlageError, ValueError):
    """A stated value cannot be of its kind: no unit, a negative length, not a number.

    `position` is the character, from 0, at which a typed text stops making sense; `None` when the value as a
    whole is at fault.
    """

    def __init__(self, what: str, *, where: str, mend: str, position: int | None = None) -> None:
        super().__init__(what, where=where, mend=mend)
        self.position = position


class UnknownNameError(AnlageError, LookupError):
    """A name is in no table; the message offers the closest one.

    It is looked for when the message is read: most names that are in no table were only tried.
    """

    def __init__(self, name: str, known: Iterable[str], *, where: str, otherwise: str = "") -> None:
        super().__init__(f"no {shortened(name)}", where=where, mend=otherwise)
        self.name, self._known = name, tuple(known)

    @property
    def mend(self) -> str:
        """How to mend it: a close name, a name of a few, or the spelling."""
        return one_line(f"{self._nearest()}{self._mend}", LONGEST)

    @cached_property
    def close(self) -> tuple[str, ...]:
        """The known names that it was most likely meant to be."""
        return closest(self.name, self._known)

    def _nearest(self) -> str:
        if self.close:
            return f"take {' or '.join(self.close)}"
        if len(set(self._known)) <= LISTED:
            return f"take one of {', '.join(dict.fromkeys(self._known))}"
        return "check the spelling"


class FormatError(AnlageError, ValueError):
    """A text is not what it claims: a table, pack or document breaks its own rules."""


def shortened(text: str, length: int = 40) -> str:
    """Return `text` on one line, cut in the middle when it is too long for a message."""
    return one_line(text, length)


def closest(name: str, known: Iterable[str], count: int = 2) -> tuple[str, ...]:
    """Return the known names that `name` was most likely meant to be, best first.

    Case and punctuation do not count; a name much longer than any known one has no match.
    """
    from difflib import get_close_matches  # noqa: PLC0415 - when a name is not known: a start needs none

    bare = {"".join(filter(str.isalnum, k)).casefold(): k for k in known}
    wanted = "".join(filter(str.isalnum, name[:80])).casefold()
    near = get_close_matches(wanted, bare, n=count + 4, cutoff=0.7)
    near.sort(key=lambda match: sorted(match) != sorted(wanted))  # two characters changed places: the likeliest slip
    return tuple(bare[match] for match in near[: 1 if near and sorted(near[0]) == sorted(wanted) else count])
