"""A guard round every override of a Qt virtual: an exception that leaves one ends the process without a word.

The binding calls overrides from C++, which knows no exceptions of Python. A guarded override hands what nobody foresaw
to `sys.excepthook`, once for each place, and answers as Qt itself would have.
"""

import sys
from collections.abc import Callable, Mapping
from functools import wraps
from typing import Any, TypeVar

from PySide6.QtCore import QObject, QSize, Qt

AnyClass = TypeVar("AnyClass", bound=type)
Override = Callable[..., Any]

# What answers where Qt has nothing of its own to answer: pure virtuals.
NOTHING: Mapping[str, Any] = {
    "rowCount": 0, "columnCount": 0, "flags": Qt.ItemFlag.NoItemFlags, "count": 0, "sizeHint": QSize(),
}  # fmt: skip
_told: set[tuple[str, type]] = set()


def guarded(kind: AnyClass) -> AnyClass:
    """Put every override of a class behind a guard; a class decorator for whatever derives from a class of Qt."""
    for name in overrides(kind):
        setattr(kind, name, _behind_guard(kind, name, vars(kind)[name]))
    return kind


def overrides(kind: type) -> tuple[str, ...]:
    """Return the methods of a class that Qt may call: those that a class of Qt above it has too."""
    above = [each for each in kind.__mro__[1:] if each.__module__.startswith("PySide6.")]
    own = [name for name, each in vars(kind).items() if callable(each) and not name.startswith("__")]
    return tuple(name for name in own if any(name in vars(each) for each in above))


def is_guarded(kind: type, name: str) -> bool:
    """Return whether an override stands behind its guard."""
    return hasattr(vars(kind)[name], "guards")


def _behind_guard(kind: type, name: str, function: Override) -> Override:
    @wraps(function)
    def override(self: QObject, *words: Any) -> Any:
        try:
            return override.guards(self, *words)  # type: ignore[attr-defined]
        except Exception as fault:  # noqa: BLE001 - what leaves here kills the process
            _tell(f"{kind.__qualname__}.{name}", fault)
        try:
            return getattr(super(kind, self), name)(*words)
        except Exception:  # noqa: BLE001 - a pure virtual, or the same fault again
            return NOTHING.get(name)

    override.guards = function  # type: ignore[attr-defined]
    return override


def _tell(where: str, fault: Exception) -> None:
    """Hand a fault on, once for each place and kind of fault: a picture is painted many times a second."""
    if (where, type(fault)) in _told:
        return
    _told.add((where, type(fault)))
    try:
        sys.excepthook(type(fault), fault, fault.__traceback__)
    except Exception as other:  # noqa: BLE001 - telling must not kill either
        print(f"{where}: {fault}; and nobody could be told: {other}", file=sys.stderr)  # noqa: T201 - the last resort
