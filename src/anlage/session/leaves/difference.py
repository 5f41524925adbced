"""What one statement says in two states of a document, in words."""

from msgspec import Struct

NONE = "–"


class Difference(Struct, frozen=True):
    """One leaf that says something else on either side: what it is called, and what it says there."""

    label: str
    left: str
    right: str
