"""The codes as a works has them: as they ship, with the overlays and checks of its rulebooks."""

from collections.abc import Mapping
from pathlib import Path

from anlage.core.document import read_strict
from anlage.core.errors import FormatError
from anlage.core.rulebook import RULEBOOK, Rulebook
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.works.rulebooks import rulebook_bodies
from anlage.store import open_works


def codes_of(bodies: Mapping[str, str]) -> Codes:
    """Return the codes as the rulebooks in some texts have them; one that cannot be read leaves its code unread."""
    return Codes({code: _book(body) for code, body in bodies.items()}) if bodies else SHIPPED


def codes_of_file(path: Path | None) -> Codes:
    """Return the codes as a works file has them; as they ship where none is named.

    Raises
    ------
    FormatError : the works file is not what it claims
    """
    if path is None:
        return SHIPPED
    with open_works(path, read_only=True) as works:
        return codes_of(rulebook_bodies(works))


def _book(body: str) -> Rulebook | None:
    try:
        return read_strict(body, RULEBOOK)
    except FormatError:
        return None
