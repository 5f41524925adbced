"""What a terminal without a letter is shown instead of it."""

import codecs
import sys
import unicodedata
from contextlib import suppress

INSTEAD = {"–": "-", "—": "-", "−": "-", "…": "...", "°": "deg", "·": ".", "×": "x", "≤": "<=", "≥": ">=", "√": "sqrt"}


def plain(text: str) -> str:
    """Return a text in ASCII.

    Examples
    --------
    >>> plain("0.72 kJ/mm – 9.3 mm² at 60°")
    '0.72 kJ/mm - 9.3 mm2 at 60deg'
    """
    bare = "".join(INSTEAD.get(letter, letter) for letter in text)
    return unicodedata.normalize("NFKD", bare).encode("ascii", "ignore").decode()


def _instead(fault: UnicodeError) -> tuple[str, int]:
    assert isinstance(fault, UnicodeEncodeError), "only what is written is put otherwise"
    return plain(fault.object[fault.start : fault.end]) or "?", fault.end


def speak_plainly() -> None:
    """Let what is printed always be printable."""
    codecs.register_error("anlage.plain", _instead)
    for stream in (sys.stdout, sys.stderr):
        with suppress(AttributeError, ValueError):
            stream.reconfigure(errors="anlage.plain")  # type: ignore[union-attr]
