"""Classes and functions by name: their modules load when they are first called, so that a start waits for none."""

from pkgutil import resolve_name
from typing import Any


class loaded:  # noqa: N801 - used like a function
    """What `module:Name` names, loaded when it is called.

    Examples
    --------
    >>> loaded("math:sqrt")(9.0)
    3.0
    """

    def __init__(self, name: str) -> None:
        self.name = name

    def __call__(self, *arguments: Any, **named: Any) -> Any:
        return resolve_name(self.name)(*arguments, **named)
