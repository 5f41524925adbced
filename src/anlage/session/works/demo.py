"""The demo: the Ostrel works, an invented river and firm, as a works file that can be thrown away and made anew."""

import shutil
from pathlib import Path

from anlage.core.document import read_strict
from anlage.data.files import FOLDER
from anlage.session.kinds import KINDS
from anlage.session.machine.settings import data_folder
from anlage.store import create_works


def demo_file(now: str, *, reset: bool = False, folder: Path | None = None) -> Path:
    """Return the demo works file, made when it is not there yet; `reset` makes it anew and keeps the old one aside.

    Parameters
    ----------
    now : the time as ISO 8601 in UTC
    reset : throw away what was changed in it
    folder : where it lies; by default under XDG_DATA_HOME

    Raises
    ------
    FormatError : the folder cannot be written
    """
    path = (folder or data_folder()) / "ostrel-demo.anlage"
    if path.exists() and reset:
        shutil.move(path, path.with_suffix(".anlage.before"))
    if path.exists():
        return path
    path.parent.mkdir(parents=True, exist_ok=True)
    with create_works(path) as works:
        for source in sorted((FOLDER / "demo").glob("*.json"), key=lambda each: ("-R-" in each.name, each.name)):
            letter = source.stem.split("-")[1]  # OST-W-01
            kind = next(each.core for each in KINDS if each.letter == letter)
            text = source.read_text(encoding="utf-8")
            header = read_strict(text, kind, where=source.name).header
            works.add(kind.format, text, now=now, number=header.number, title=header.title)
    return path
