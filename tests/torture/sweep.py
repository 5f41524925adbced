"""Every number field with a tiny, a huge and a half typed value, over every view: no text may freeze the window."""

from collections.abc import Iterator
from typing import Any

from msgspec import Struct

from anlage.core.quantities import show
from anlage.data.tables import unit_table
from anlage.session.leaves.bounds import bounds
from anlage.session.leaves.presence import applies
from anlage.session.leaves.table import LISTS, field_of, fields
from anlage.ui.desk.desk import WindowDesk
from tests.torture.window import Work, counted, settle, timed, views

BEYOND = "99999999"
MOST_CALLS = 400_000  # one view after one text; a tenth of a second of the machine this was written on


class Swept(Struct, frozen=True):
    """What one text in one field cost at one view."""

    field: str
    text: str
    view: str
    work: Work


def number_paths(value: Any) -> Iterator[str]:
    """Yield every number field of a document, of each list the first element."""
    for pattern, field in fields().items():
        if field.shape in ("text", "choice"):
            continue
        head, _, rest = pattern.partition("/*/")
        if not rest:
            paths = [pattern]
        elif head in LISTS and getattr(value, head, ()):
            paths = [f"{head}/{getattr(value, head)[0].id}/{rest}"]
        else:
            paths = []
        for path in paths:
            ends = {"dimension": ("", "/plus"), "recorded": ("/mean",)}.get(field.shape, ("",))
            yield from (f"{path}{end}" for end in ends if applies(value, path))


def texts_of(path: str) -> tuple[str, ...]:
    """Return what is typed into a field: the least and the most that it can be, a first key, and what is beyond all."""
    field = field_of(path)
    bound = bounds()[field.path]
    ends = (show(end, field.kind, "si", unit_table()) for end in (bound.least, bound.most))
    return (*ends, "1", BEYOND)


def sweep(desk: WindowDesk, *, most_calls: int = 0) -> Iterator[Swept]:
    """Yield what every text in every number field of the document in front costs at every view.

    Parameters
    ----------
    most_calls : count calls and cut short what makes more; with 0 the time is measured
    """
    shown = list(views(desk))
    for _, bring in shown:  # made and shown once before: that is another cost
        bring()
        settle()
    document = desk.document
    assert document is not None, "a document is in front"
    before = document.working
    for path in number_paths(document.value):
        for text in texts_of(path):
            for name, bring in shown:
                with counted(most_calls) if most_calls else timed() as work:
                    if document.working is before:
                        document.type_text(path, text)
                    bring()
                    settle()
                yield Swept(path, text, name, work)
            while document.working is not before and document.undo_stack.canUndo():
                document.undo_stack.undo()
            settle()
