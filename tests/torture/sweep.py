"""Every number field with a tiny, a huge and a half typed value, over every view: no text may freeze the window."""

import time
from collections import Counter
from collections.abc import Iterator
from pathlib import Path
from typing import Any

from msgspec import Struct

from anlage.core.quantities import show
from anlage.data.tables import unit_table
from anlage.session.leaves.bounds import bounds
from anlage.session.leaves.presence import applies
from anlage.session.leaves.table import LISTS, field_of, fields
from anlage.ui.desk.desk import WindowDesk
from tests.torture.window import Work, counted, opened, settle, timed, views

BEYOND = "99999999"
TEXTS = 4  # are typed into each field
MOST_LOOPS = 8.0  # a frozen window: about a quarter of a second of the machine this was written on
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


def texts_of(path: str) -> tuple[str, str, str, str]:
    """Return what is typed into a field: the least and the most that it can be, a first key, and what is beyond all."""
    field = field_of(path)
    bound = bounds()[field.path]
    least, most = (show(end, field.kind, "si", unit_table()) for end in (bound.least, bound.most))
    return least, most, "1", BEYOND


def sweep(desk: WindowDesk, *, most_calls: int = 0, part: tuple[int, int] = (0, 1), each: int = 0) -> Iterator[Swept]:
    """Yield what every text in every number field of the document in front costs at every view.

    Parameters
    ----------
    most_calls : count calls and cut short what makes more; with 0 the time is measured
    part : the first of the texts in all fields that is tried, and of how many one
    each : at how many views, one after the other; with 0 at all of them
    """
    shown = list(views(desk))
    for _, bring in shown:  # made and shown once before: that is another cost
        bring()
        settle()
    document = desk.document
    assert document is not None, "a document is in front"
    before = document.working
    tried = [(path, text) for path in number_paths(document.value) for text in texts_of(path)]
    for number, (path, text) in enumerate(tried[part[0] :: part[1]]):
        first = number * each
        for name, bring in [shown[n % len(shown)] for n in range(first, first + (each or len(shown)))]:
            with counted(most_calls) if most_calls else timed() as work:
                if document.working is before:
                    document.type_text(path, text)
                bring()
                settle()
            yield Swept(path, text, name, work)
        while document.working is not before and document.undo_stack.canUndo():
            document.undo_stack.undo()
        settle()


def fixed_loop_s() -> float:
    """Return how long this machine takes just now for a fixed piece of work: what times are compared with [s]."""
    began = time.process_time()
    table: dict[int, int] = {}
    for n in range(300_000):
        table[n % 1000] = table.get(n % 1000, 0) + n
    return time.process_time() - began


def run_all(
    folder: Path, *, part: tuple[int, int], most_calls: int = 0, each: int = 0
) -> tuple[Counter[str], Swept | None, float]:
    """Return how many views were brought up after a text, the dearest of all, and its cost in fixed loops.

    Parameters
    ----------
    folder : where the works file is made
    part : which texts are tried of the first document, of how many one; of each document after it the next, so that
        a field that many documents have meets more than one text
    most_calls, each : see `sweep`
    """
    found, worst, most = Counter[str](), None, 0.0
    window = opened(folder)
    desk = window.ready()
    assert desk.works is not None, "the demo is open"
    first, every = part
    for number, entry in enumerate(desk.works.all_entries()):
        desk.open(entry.id)
        settle()
        loop = fixed_loop_s()
        for swept in sweep(desk, most_calls=most_calls, part=((first + number) % every, every), each=each):
            found["views after a text"] += 1
            cost = swept.work.seconds / loop
            if cost > most:
                worst, most = swept, cost
            if (most_calls and swept.work.calls > most_calls) or (not most_calls and cost > MOST_LOOPS):
                found[f"FAULT {swept.field} = {swept.text} at {swept.view}"] += 1
    desk.drop_unsaved()
    window.shell.may_close = lambda: True
    window.shell.close()
    settle()
    return found, worst, most
