"""A command that cannot be done says why in one sentence."""

from collections.abc import Callable
from functools import wraps
from typing import Any, Concatenate, ParamSpec, TypeVar

from anlage.core.errors import AnlageError

Teller = TypeVar("Teller", bound=Any)  # has `say`
Anything = TypeVar("Anything")
Wanted = ParamSpec("Wanted")


def told(
    do: Callable[Concatenate[Teller, Wanted], Anything],
) -> Callable[Concatenate[Teller, Wanted], Anything | None]:
    """Let a command that cannot be done say why in one sentence, and do nothing else."""

    @wraps(do)
    def telling(desk: Teller, *args: Wanted.args, **wanted: Wanted.kwargs) -> Anything | None:
        try:
            return do(desk, *args, **wanted)
        except AnlageError as refusal:
            desk.say(str(refusal))
            return None

    return telling
