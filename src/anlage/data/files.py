"""Where the shipped files lie; apart from what reads them, so that a window can be drawn before a table is read."""

from pathlib import Path

FOLDER = Path(__file__).parent


def text_of(name: str) -> str:
    """Return the text of a shipped file, named from the data folder."""
    return (FOLDER / name).read_text(encoding="utf-8")
