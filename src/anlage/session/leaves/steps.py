"""What a press of an arrow key makes of the number in a field, on the trade's own steps."""

from msgspec.structs import replace

from anlage.core.errors import InputError
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import bare_text, parsed


def stepped(text: str, cursor: int, path: str, system: System, steps: int) -> str | None:
    """Return the text after some presses of an arrow key, on whole steps; of a range the end under the cursor moves.

    The other end is pushed along, never crossed. `None` when there is no number to move.

    Examples
    --------
    >>> stepped("100..120", 7, "passes/p1/current_a", "si", 1), stepped("118..120", 0, "passes/p1/current_a", "si", 1)
    ('100..125', '120')
    """
    the_field = field_of(path)
    if not the_field.step:
        return None
    try:
        interval = parsed(the_field, text, system)
    except InputError:
        return None
    if interval.low_open or interval.high_open:
        end = on_step(interval.low if interval.high_open else interval.high, path, system, steps)
        side = {"low": end} if interval.high_open else {"high": end}
        return bare_text(replace(interval, **side), the_field.kind, system) if end > 0 else None
    low, high = (on_step(end, path, system, steps) for end in (interval.low, interval.high))
    if interval.is_single:
        return bare_text(Interval.single(low), the_field.kind, system)
    if cursor <= text.find(".."):
        moved = Interval(low, max(low, interval.high))
    else:
        moved = Interval(min(high, interval.low), high)
    return bare_text(moved, the_field.kind, system)


def on_step(number: float, path: str, system: System, steps: int = 0) -> float:
    """Return the number on the next whole step after some presses, or on the nearest one; never below the kind's least.

    Examples
    --------
    >>> on_step(3.1, "joint/root_opening_mm", "si"), on_step(3.1, "joint/root_opening_mm", "us", 1) / 25.4 * 32
    (3.0, 4.0)
    """
    the_field = field_of(path)
    kind = unit_table()[the_field.kind]
    unit, step = kind.shown_in[system][0], the_field.step[system]
    count = unit.from_base(number) / step
    if steps > 0:
        whole = int(count // 1 if abs(count - round(count)) > 1e-6 else round(count)) + steps
    elif steps < 0:
        whole = -int(-count // 1 if abs(count - round(count)) > 1e-6 else -round(count)) + steps
    else:
        whole = round(count)
    return max(unit.to_base(whole * step), kind.least)
