"""What a WPS states and asks, as the judge reads it: a set for every variable, of the joint, each deposit and pass."""

from collections.abc import Mapping

from msgspec import Struct

from anlage.core.codes.facts import EMPTY_WORDS, Demand
from anlage.core.codes.pack import Pack
from anlage.core.ranges import Choices, Numbers, Range, union
from anlage.core.variables import spoken


class StatedPass(Struct, frozen=True):
    """The sets that one pass states, under its id."""

    id: str
    sets: Mapping[str, Range]


class StatedDeposit(Struct, frozen=True):
    """The sets that one deposit states, with its passes in order."""

    process: str
    sets: Mapping[str, Range]
    passes: tuple[StatedPass, ...] = ()
    roles: frozenset[str] = frozenset()  # of its passes; none where a pass has none
    clashes: Mapping[str, str] = EMPTY_WORDS


class Stated(Struct, frozen=True):
    """Everything a WPS states; a variable that is not named is not stated.

    `clashes` are variables of which it states two things that disagree, each with the sentence that says so: whatever
    set stands for one of them is nothing. `demand` is what it asks of any record. `members` are the sides of the joint,
    each with what it states of it alone, in place of the joint's.
    """

    joint: Mapping[str, Range]
    deposits: tuple[StatedDeposit, ...]
    clashes: Mapping[str, str] = EMPTY_WORDS
    demand: Demand = Demand()
    members: tuple[Mapping[str, Range], ...] = ()


def several_of(pack: Pack, sets: Mapping[str, Range], deposit: StatedDeposit) -> dict[str, str]:
    """Return of what splits deposits by the code the sentences where one deposit states several."""
    found = {}
    for variable in pack.deposit_by:
        own = [each.sets[variable] for each in deposit.passes if variable in each.sets]
        whole = union(own) if own else sets.get(variable)
        if whole is not None and not _is_one(whole):
            found[variable] = f"by {pack.name} what is laid with another {spoken(variable)} is another deposit"
    return found


def _is_one(values: Range) -> bool:
    if isinstance(values, Numbers):
        return len(values.parts) == 1 and values.parts[0].is_single
    return isinstance(values, Choices) and not values.but and len(values.tokens) == 1
