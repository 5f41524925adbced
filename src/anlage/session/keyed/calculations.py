"""The calculations by name: each is a file of `anlage.session.calculations`, loaded when it is asked for."""

from collections.abc import Callable
from importlib import import_module
from pathlib import Path
from typing import Protocol, cast

from anlage.core.errors import UnknownNameError
from anlage.session.keyed.answer import Answer
from anlage.session.keyed.arguments import Arguments

FOLDER = Path(__file__).parent.parent / "calculations"


class Calculation(Protocol):
    """One calculation: the keys it takes and the function that answers."""

    KEYS: tuple[str, ...]

    def answer(self, arguments: Arguments) -> Answer:
        """Answer from the stated keys."""
        ...


def calculation_names() -> tuple[str, ...]:
    """Return the names of all calculations."""
    return tuple(sorted(path.stem.replace("_", "-") for path in FOLDER.glob("[a-z]*.py")))


def calculation(name: str) -> Calculation:
    """Return a calculation.

    Raises
    ------
    UnknownNameError : there is no such calculation
    """
    if name not in calculation_names():
        raise UnknownNameError(name, calculation_names(), where="calc")
    return cast("Calculation", import_module(f"anlage.session.calculations.{name.replace('-', '_')}"))


def calculate(name: str, words: list[str], tell: Callable[[str], None] = lambda _line: None) -> Answer:
    """Return the answer of a calculation; one that takes a file alone takes its name bare, and tells how far it is.

    Raises
    ------
    UnknownNameError : no such calculation, key or name of a table
    InputError : a value is missing or cannot be
    """
    found = calculation(name)
    if found.KEYS == ("file",):
        words = [word if word.startswith("file=") else f"file={word}" for word in words]
    return found.answer(Arguments(words, known=found.KEYS, tell=tell))
