"""How much hydrogen a deposit may give off, as people state it: a number, a class, or that nobody knows."""

import re

from anlage.core.ranges import Interval
from anlage.core.results import Notice
from anlage.session.keyed.arguments import Arguments

CLASS = re.compile(r"H\s*(\d+)", re.IGNORECASE)
UNKNOWN = ("unknown", "not controlled", "not stated", "none")
NOT_CONTROLLED = 30.0  # ml/100 g: what the structural code counts for hydrogen that nobody controls


def stated_hydrogen(arguments: Arguments) -> tuple[Interval, list[Notice]]:
    """Return hydrogen [ml/100 g]: the upper end of a class, the highest that is counted where it is not known.

    Raises
    ------
    InputError : neither a number nor a class
    """
    text = arguments.text("hydrogen")
    if found := CLASS.fullmatch(text):
        most = float(found[1])
        if most > 0:
            return Interval.single(most), [
                Notice(
                    "preheat.hydrogen_class",
                    "hydrogen",
                    f"{text.upper()}: the upper end of its class, {most:g} ml/100 g",
                )
            ]
    if text.casefold() in UNKNOWN:
        said = f"not known: {NOT_CONTROLLED:g} ml/100 g is assumed, the most that is counted"
        return Interval.single(NOT_CONTROLLED), [Notice("preheat.hydrogen_unknown", "hydrogen", said)]
    return arguments.interval("hydrogen", "hydrogen", bare="ml/100 g"), []
