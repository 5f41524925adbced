"""What a WPS states, as the judge reads it: a set for every variable, of the joint, each deposit and each pass."""

from collections.abc import Mapping

from msgspec import Struct

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


class Stated(Struct, frozen=True):
    """Everything a WPS states; a variable that is not named is not stated."""

    joint: Mapping[str, Range]
    deposits: tuple[StatedDeposit, ...]
