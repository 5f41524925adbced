"""Files that come to the window: by name, or dropped on it."""

from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

from anlage.session.works.imported import take_in as add_document
from anlage.ui.desk.telling import told

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk


@told
def open_named(desk: "WindowDesk", name: str) -> None:
    """Open a works file by its name, if it is still there."""
    if Path(name).exists():
        desk.open_file(Path(name))
    else:
        desk.say(f"{name} is no longer there.")


@told
def take_in(desk: "WindowDesk", paths: Sequence[str]) -> None:
    """Open a works file that was dropped on the window, or add documents to the one that is open."""
    for path in map(Path, paths):
        if path.suffix.lower() == ".anlage":
            desk.open_file(path)
        elif desk.works is None:
            desk.say("Open a works file first; then documents can be dropped into it.")
        else:
            desk.open(add_document(desk.works, path))
            desk.mention(f"{path.name} is added.")
