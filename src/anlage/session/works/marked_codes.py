"""The codes as a works has them: as they ship, with the overlays and checks of its rulebooks, and its own metals."""

from collections.abc import Mapping
from pathlib import Path

from anlage.core.document import read_strict
from anlage.core.errors import FormatError
from anlage.core.rulebook import RULEBOOK, Rulebook
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.works.beside import ADDED, bodies_beside
from anlage.session.works.materials import take_materials
from anlage.store import open_works


def codes_of(bodies: Mapping[str, str]) -> Codes:
    """Return the codes as the rulebooks of a works have them; one that cannot be read leaves its code unread.

    The metals and fillers that the works adds count from here on: what is judged by its codes is made of them.
    """
    take_materials(bodies.get(ADDED))
    books = {code: _book(body) for code, body in bodies.items() if code != ADDED}
    return Codes(books) if books else SHIPPED


def codes_of_file(path: Path | None) -> Codes:
    """Return the codes as a works file has them; as they ship where none is named.

    Raises
    ------
    FormatError : the works file is not what it claims
    """
    if path is None:
        return codes_of({})
    with open_works(path, read_only=True) as works:
        return codes_of(bodies_beside(works))


def _book(body: str) -> Rulebook | None:
    try:
        return read_strict(body, RULEBOOK)
    except FormatError:
        return None
