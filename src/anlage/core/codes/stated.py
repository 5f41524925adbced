"""What a WPS states and asks, as the judge reads it: a set for every variable, of the joint, each deposit and pass."""

from collections.abc import Mapping

from msgspec import Struct

from anlage.core.codes.facts import EMPTY_WORDS, Demand
from anlage.core.ranges import Range


class StatedPass(Struct, frozen=True):
    """The sets that one pass states, under its id."""

    id: str
    sets: Mapping[str, Range]


class StatedDeposit(Struct, frozen=True):
    """The sets that one deposit states, with its passes in order."""

    process: str
    sets: Mapping[str, Range]
    passes: tuple[StatedPass, ...] = ()
    root_only: bool = False  # every pass is a root pass
    clashes: Mapping[str, str] = EMPTY_WORDS


class Stated(Struct, frozen=True):
    """Everything a WPS states; a variable that is not named is not stated.

    `clashes` are variables of which it states two things that disagree, each with the sentence that says so: whatever
    set stands for one of them is nothing. `demand` is what it asks of any record.
    """

    joint: Mapping[str, Range]
    deposits: tuple[StatedDeposit, ...]
    clashes: Mapping[str, str] = EMPTY_WORDS
    demand: Demand = Demand()
