"""What the layers above need to know of a kind of document."""

from collections.abc import Callable
from typing import Any

from msgspec import Struct

from anlage.core.document import DocumentKind


class Kind(Struct, frozen=True, kw_only=True):
    """One kind of document.

    `first_number` is that of the first document of a works file; `first_place` where one is opened from the Register;
    `letter` stands for it in the numbers of the demo. `row` names the function, `module:function`, that shows a
    document in the Register, `state` the one that says in few words how a document stands which no code judges; each is
    loaded when it is first asked for.
    """

    id: str
    word: str
    core: DocumentKind[Any]
    first_number: str
    first_place: str
    letter: str
    new: Callable[[str], Any]  # a new document under a number
    row: str
    state: str = ""

    @property
    def format(self) -> str:
        """The format that its JSON says."""
        return self.core.format
