"""The search palette over everything that can be done now; loaded when somebody looks for something."""

from functools import partial
from typing import TYPE_CHECKING

from anlage.session.kinds import KINDS
from anlage.session.leaves.presence import applies
from anlage.session.leaves.table import fields
from anlage.ui.frame.palette import Entry, Palette
from anlage.ui.kit.loading import loaded

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk


def find(desk: "WindowDesk") -> None:
    """Open the search palette over everything that can be done now."""
    if desk.palette is None:
        desk.palette = Palette(desk.shell)
    desk.palette.ask(entries(desk))


def entries(desk: "WindowDesk") -> list[Entry]:
    """Return everything the palette can find: commands, documents, recent files and fields."""
    found = [
        Entry(action.text(), action.shortcut().toString(), action.trigger, action.whatsThis())
        for action in desk.shell.commands
        if action.isEnabled() and action is not desk.actions["find"]
    ]
    for kind in KINDS:
        own = desk.works.entries(kind) if desk.works else ()
        found += [Entry(f"{e.number} {e.title}".strip(), kind.word, partial(desk.open_document, e.id)) for e in own]
    found += [
        Entry(name, "works file", partial(loaded("anlage.ui.desk.incoming:open_named"), desk, name))
        for name in desk.settings.recent[1:]
    ]
    if desk.document is not None:
        value = desk.document.value
        plain = (path for path in fields() if "*" not in path and path != "joint/kind" and applies(value, path))
        found += [Entry(fields()[p].label, "field", partial(desk.go_to, p), fields()[p].words) for p in plain]
    return found
