"""What the people of a works say of the rules of a code: which they checked by their own copy, which they correct."""

from anlage.core.rulebook.rulebook import (
    RULEBOOK,
    Check,
    Overlay,
    Rulebook,
    RulebookHeader,
    with_check,
    with_overlay,
    without_check,
    without_overlay,
)

__all__ = [
    "RULEBOOK",
    "Check",
    "Overlay",
    "Rulebook",
    "RulebookHeader",
    "with_check",
    "with_overlay",
    "without_check",
    "without_overlay",
]
