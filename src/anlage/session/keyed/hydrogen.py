"""How much hydrogen a deposit may give off, as people state it on a command line: a number, a class, or not known."""

from anlage.core.ranges import Interval
from anlage.core.results import Notice
from anlage.core.thermal.hydrogen_class import NOT_CONTROLLED, hydrogen_of
from anlage.session.keyed.arguments import Arguments

UNKNOWN = ("unknown", "not controlled", "not stated", "none")


def stated_hydrogen(arguments: Arguments) -> tuple[Interval, list[Notice]]:
    """Return hydrogen [ml/100 g]: the upper end of a class, the highest that is counted where it is not known.

    Raises
    ------
    InputError : neither a number nor a class
    """
    text = arguments.text("hydrogen")
    if text.casefold() in UNKNOWN:
        said = f"not known: {NOT_CONTROLLED:g} ml/100 g is assumed, the most that is counted"
        return Interval.single(NOT_CONTROLLED), [Notice("preheat.hydrogen_unknown", "hydrogen", said)]
    if text[:1].casefold() == "h":
        most = hydrogen_of(text)
        said = f"{text.upper()}: the upper end of its class, {most:g} ml/100 g"
        return Interval.single(most), [Notice("preheat.hydrogen_class", "hydrogen", said)]
    return arguments.interval("hydrogen", "hydrogen", bare="ml/100 g"), []
