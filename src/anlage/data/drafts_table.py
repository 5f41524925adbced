"""The shipped table of first drafts, apart from the tables that every command reads."""

from functools import cache

from anlage.core.proposal import Drafts, read_drafts
from anlage.data.files import text_of


@cache
def drafts() -> Drafts:
    """Return the shipped table of first drafts."""
    return read_drafts(text_of("drafts.toml"))
