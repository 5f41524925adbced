"""What one statement says in two states of a document, in words."""

from msgspec import Struct

NONE = "–"


class Difference(Struct, frozen=True):
    """One leaf that says something else on either side: what it is called, what it says there, its path if known."""

    label: str
    left: str
    right: str
    path: str = ""
