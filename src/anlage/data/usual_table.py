"""The shipped table of usual settings, apart from the tables that every command reads."""

from functools import cache

from anlage.core.proposal import Usual, read_usual
from anlage.data.files import text_of


@cache
def usual_table() -> Usual:
    """Return the shipped table of usual settings."""
    return read_usual(text_of("proposals.toml"))
