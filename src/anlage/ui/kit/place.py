"""What a place is, told before it is made, and what it may ask of the desk it stands on.

A spec is cheap to import: the place bar is drawn from it before anything is loaded. A place is made when it is first
shown, from the names in its spec.
"""

from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, Any, NamedTuple, Protocol

from PySide6.QtCore import Qt
from PySide6.QtWidgets import QWidget

from anlage.ui.kit.reader import Reader

if TYPE_CHECKING:  # part of the first paint: nothing heavy may be loaded for it
    from anlage.core.document import Part
    from anlage.core.machine import Calibrated
    from anlage.core.materials import Materials
    from anlage.core.procedure import Wps
    from anlage.core.rulebook import Rulebook
    from anlage.session.judging.assessment import Assessment
    from anlage.session.judging.editions import Codes
    from anlage.session.machine.settings import Settings
    from anlage.session.works.issuing import Against, Saying
    from anlage.session.works.register import RegisterRow
    from anlage.session.works.standing import Standing
    from anlage.store import Revision
    from anlage.ui.kit.document import Document


class PlaceCommand(NamedTuple):
    """A command of a place: `do` names the method, `module:Class.method`, that does it there; `words` as of a place."""

    id: str
    text: str
    keys: str
    do: str
    words: str = ""


class PlaceSpec(NamedTuple):
    """A place as the rest of the window knows it.

    `kinds` are the kinds of document that it shows, none for the works file itself; `make` names the class,
    `module:Class`, made of a document and the desk; `leaves` names the patterns of the leaves that have their field
    here, `module:NAME`; `words` are others that people look for it by.
    """

    id: str
    word: str
    keys: str
    question: str
    make: str
    kinds: tuple[str, ...] = ()
    leaves: str = ""
    commands: tuple[PlaceCommand, ...] = ()
    words: str = ""


class Clocks(NamedTuple):
    """The two clocks of a window: time of day as ISO 8601 in UTC, and seconds that only run on."""

    now: Callable[[], str]
    seconds: Callable[[], float]


class Rules(Protocol):
    """What a place may ask about the rules of the codes, and do with them."""

    def codes(self) -> "Codes":
        """Return the codes as the works file has them; as they ship while none is open."""
        ...

    def code_in_front(self) -> str:
        """Return the code that the document in front names; "" for none."""
        ...

    def can_mark(self) -> bool:
        """Return whether a mark can be saved."""
        ...

    def mark(self, book: "Rulebook", author: str) -> None:
        """Save a rulebook, and judge by it from now on.

        Raises
        ------
        InputError : nobody does it, or the works file is open for reading only
        """

    def materials(self) -> "Materials":
        """Return what the works file adds to the catalogue.

        Raises
        ------
        FormatError : it cannot be read
        """
        ...

    def add(self, materials: "Materials", author: str) -> None:
        """Save what the works file adds to the catalogue, and work with it from now on.

        Raises
        ------
        InputError : nobody does it, or the works file is open for reading only
        FormatError : it was not written, and why
        """

    def read(self, rule: str) -> None:
        """Show a rule at the place where rules are read."""


class Desk(Protocol):
    """What a place may ask of the window it is part of."""

    settings: "Settings"
    clocks: Clocks
    rules: Rules

    @property
    def reader(self) -> Reader:
        """Units and look of the window."""
        ...

    def say(self, text: str) -> None:
        """Show a sentence that must not be missed."""

    def mention(self, text: str) -> None:
        """Show what was done, until something else is."""

    def go_to(self, path: str) -> None:
        """Put the keyboard on the field of a leaf, wherever it is."""

    def home_of(self, path: str) -> str:
        """Return the id of the place that has the field of a leaf; "" when none has."""
        ...

    def in_front(self) -> str:
        """Return the id of the document in front; "" for none."""
        ...

    def bring(self, document_id: str) -> None:
        """Bring a document to the front, at the place that is shown."""

    def open(self, document_id: str) -> None:
        """Open a document at the place where work on its kind begins."""

    def add(self, value: "Part") -> None:
        """Add a document to the works file, under the number that it has."""

    def keep(self, **settings: Any) -> None:
        """Remember settings of the person."""

    def run(self, command: str) -> None:
        """Do a command by its id."""

    def assessment(self) -> "Assessment | None":
        """Return how the procedure in front stands by its code; `None` where no procedure is in front."""
        ...

    def assess(self, wps: "Wps", by: str = "") -> "Assessment":
        """Return how a procedure that is not in front stands by its code and the records, or by one of them alone."""
        ...

    def rows(self) -> "tuple[RegisterRow, ...]":
        """Return every document of the works file."""
        ...

    def machines(self) -> "Calibrated":
        """Return the machines of the works file, as they are known today."""
        ...

    def standing(self, document: "Document", *, hashed: bool = True) -> "Standing":
        """Return whether a document is what was issued last, and the hash of what it is now where it is wanted."""
        ...

    def against(self, document: "Document") -> "Against":
        """Return what speaks against issuing a procedure as it is."""
        ...

    def revisions(self, document: "Document") -> "Sequence[Revision]":
        """Return what was issued of a document, oldest first."""
        ...

    def issue(self, document: "Document", saying: "Saying") -> None:
        """Issue a document as its next revision.

        Raises
        ------
        InputError : it cannot be issued as it is
        """


class Place(QWidget):
    """A place: one question, one picture; what it has no use for it leaves as it is here."""

    def begin(self) -> None:
        """Put the keyboard where the work starts."""
        self.setFocus(Qt.FocusReason.OtherFocusReason)

    def go_to(self, path: str) -> bool:
        """Put the keyboard into the field of a leaf; return whether it is on this place."""
        return False

    def refresh(self) -> None:
        """Show what is true now."""

    def show_proof(self, assessment: "Assessment") -> None:
        """Show how the open procedure stands by its code."""

    def may_go(self) -> bool:
        """Return whether it can be made anew the next time, with nothing lost that a person began here."""
        return True

    def picture(self) -> str:
        """Return the name of the picture in front, by which it can be saved; "" where there is none."""
        return ""
