"""The shipped table of spray transition currents, apart from the tables that every command reads."""

from functools import cache

from anlage.core.proposal.transition import Transitions, read_transitions
from anlage.data.files import text_of


@cache
def transitions() -> Transitions:
    """Return the shipped transition currents."""
    return read_transitions(text_of("transitions.toml"))
