"""A document as it lies in its works file, and what is made of it when it is opened: here or in another process."""

from types import MappingProxyType

from msgspec import Struct

from anlage.core.document import read_mending
from anlage.core.results import Notice
from anlage.session.kinds import Kind
from anlage.session.leaves.draft import Working, within_bounds
from anlage.session.leaves.presence import has_leaf
from anlage.store import Draft, Entry, Revision


class Filed(Struct, frozen=True):
    """A document as it lies in its works file: its entry, its draft, and the revision that was issued last."""

    entry: Entry
    draft: Draft
    last: Revision | None = None


Opened = tuple[Working, tuple[Notice, ...]]


def proves(read: Opened) -> bool:
    """Return whether a record may prove anything: it was read whole, and no text waits in it.

    What was left out of it, or is being typed over, may be what failed.
    """
    working, notices = read
    return not (notices or working.pending)


def opened(draft: Draft, kind: Kind) -> Opened:
    """Return the value of a draft with the texts that wait, and what had to be mended in it.

    Raises
    ------
    FormatError : what is saved is no document of that kind, or one of a newer version
    """
    value, notices = read_mending(draft.body, kind.core)
    told = tuple(Notice.of("document.damaged", "draft", flaw) for flaw in draft.flaws)
    pending = {path: text for path, text in draft.pending.items() if has_leaf(value, path)}
    value, waiting = within_bounds(value)
    told += tuple(
        Notice.of("document.beyond", path, f"{path} cannot be {text}, which waits in its field")
        for path, text in waiting.items()
    )
    return Working(value, MappingProxyType({**waiting, **pending})), (*notices, *told)
