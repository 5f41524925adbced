"""From the value of a leaf to the text in its field, and from what is typed back to a value."""

from pkgutil import resolve_name
from typing import Any, Final

from msgspec.structs import replace

from anlage.core.document import Dimension, at, with_at
from anlage.core.errors import InputError, UnknownNameError
from anlage.core.letters import without_odd
from anlage.core.machine import Machine
from anlage.core.procedure import Header, Metal, Wps
from anlage.core.quantities import parse, show_interval, with_points
from anlage.core.quantities.open_ranges import one_ended, parse_open
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, Recorded
from anlage.data.tables import unit_table, vocabulary
from anlage.session.leaves.bounds import check_bound, check_bounds
from anlage.session.leaves.documents import AnyDocument, SomeDocument
from anlage.session.leaves.size_text import size_text
from anlage.session.leaves.table import ENDS, PARTS, RECORDED, Field, field_of

NEVER_NONE = ("header/number", "header/title")
# Leaves of their own on screen: the codes one by one, the leading one first.
CODE_LEAVES: Final = {"header/code": 0, "header/second_code": 1, "header/third_code": 2}
_BOOLS = {"yes": True, "no": False}


def shown(value: SomeDocument, path: str, system: System) -> str:
    """Return what stands in the field of a leaf, without its unit; "" when it is not stated."""
    leaf = leaf_value(value, path)
    if isinstance(leaf, bool):
        return "yes" if leaf else "no"
    if leaf is None or isinstance(leaf, str):
        return leaf or ""
    kind = field_of(path).kind
    if isinstance(leaf, Dimension):
        leaf = leaf.nominal
    if isinstance(leaf, Recorded):
        leaf = leaf.mean
        if leaf is None:
            return ""
    interval = leaf if isinstance(leaf, Interval) else Interval.single(leaf)
    return size_text(interval, system) if field_of(path).sizes else bare_text(interval, kind, system)


def bare_text(interval: Interval, kind: str, system: System) -> str:
    """Return an interval as it stands in a field: without its unit, which stands beside."""
    unit = unit_table()[kind].shown_in[system][0].name
    return show_interval(interval, kind, system, unit_table()).removesuffix(unit).rstrip()


def _refuse(reads: str, text: str) -> None:
    """Refuse a text that does not say what it must; what reads it is loaded when something is typed.

    Raises
    ------
    InputError, UnknownNameError : it does not
    """
    kind = reads.removesuffix("_tolerance")
    if kind != reads:
        resolve_name("anlage.core.heat.uncertainty:tolerance_of")(text, unit_table()[kind])
    else:
        resolve_name(_READS[reads])(text)


_READS = {
    "certificate": "anlage.core.metal.certificate:read_certificate",
    "hydrogen": "anlage.core.thermal.hydrogen_class:hydrogen_of",
}


def leaf_value(value: SomeDocument, path: str) -> Any:
    """Return the value of a leaf, `None` where it is not stated; a minus or plus of 0 counts as not stated.

    Raises
    ------
    UnknownNameError : the document has no such leaf
    """
    if path.startswith("metals/other/") and not isinstance(value, Machine) and value.metals.other is None:
        return None
    if path in CODE_LEAVES and isinstance(value.header, Header):
        return next(iter(value.header.codes[CODE_LEAVES[path] :]), None)
    if path.rpartition("/")[2] in PARTS:
        dimension = at(value, path.rpartition("/")[0])
        return getattr(dimension, path.rpartition("/")[2]) or None if dimension else None
    return at(value, path)


def with_leaf_of(value: AnyDocument, other: AnyDocument, path: str) -> AnyDocument:
    """Return a document with one leaf as another of its kind has it; as it is where the other has no such leaf."""
    parent, _, part = path.rpartition("/")
    if path in CODE_LEAVES:
        kept = "header/codes"
    elif path.startswith("metals/other/"):
        kept = "metals/other"
    else:
        kept = parent if part in PARTS and part not in RECORDED else path
    try:
        before = leaf_value(other, path) if part in RECORDED else at(other, kept)
        if part in RECORDED:
            return value if leaf_value(value, path) == before else _with_recorded(value, parent, part, before)
        return value if at(value, kept) is before else with_at(value, kept, before)
    except (UnknownNameError, InputError):
        return value


def leaf_of(target: str) -> str:
    """Return the leaf that a target of a picture lies in: an end of a range is part of its leaf.

    Examples
    --------
    >>> leaf_of("passes/p1/current_a/high")
    'passes/p1/current_a'
    """
    leaf, _, end = target.rpartition("/")
    return leaf if end in ENDS else target


def with_end(value: Wps, target: str, number: float) -> Wps:
    """Return the procedure with one end of a stated range moved; the other end is pushed along, never crossed.

    Raises
    ------
    InputError : the range cannot be that
    """
    leaf, _, end = target.rpartition("/")
    check_bound(leaf, number)
    stated: Interval = at(value, leaf)
    if (end == "low" and stated.low_open) or (end == "high" and stated.high_open):
        raise InputError("it has no such end", where=leaf, mend="type a range with both ends")
    if end == "low":
        return with_at(value, leaf, replace(stated, low=number, high=max(number, stated.high)))
    return with_at(value, leaf, replace(stated, low=min(number, stated.low), high=number))


def with_middle(value: Wps, path: str, number: float) -> Wps:
    """Return the procedure with a range about another middle, as wide as before; a single number where none is stated.

    Raises
    ------
    InputError : the range cannot be that
    """
    stated: Interval | None = at(value, path)
    half = 0.0 if stated is None or stated.low_open or stated.high_open else (stated.high - stated.low) / 2
    moved = Interval(number - half, number + half)
    check_bounds(path, moved)
    return with_at(value, path, moved)


def with_text(value: AnyDocument, path: str, text: str, system: System) -> AnyDocument:
    """Return the procedure with a leaf stated as typed; an empty text makes it not stated.

    Raises
    ------
    InputError : the text is nothing that the leaf can be
    UnknownNameError : nothing lies at the path, or a choice is none of its kind
    """
    the_field, text = field_of(path), without_odd(text).strip()
    if path.startswith("metals/other") and not isinstance(value, Machine):
        if value.metals.other is None:
            return with_at(value, "metals/other", _new_side(path, value.metals.one.name, text)) if text else value
        if path == "metals/other/name" and not text:
            return with_at(value, "metals/other", None)
    if path in CODE_LEAVES and isinstance(value.header, Header):
        place, codes = CODE_LEAVES[path], value.header.codes
        own: tuple[Any, ...] = (_choice(the_field, text),) if text else ()
        rest = tuple(code for code in codes[place + 1 :] if code not in own)
        before = tuple(code for code in codes[:place] if code not in own)
        return with_at(value, "header/codes", before + own + rest)
    if not text:
        return _emptied(value, path, the_field)
    if the_field.shape in ("number", "dimension", "recorded") or (the_field.record_shape and isinstance(value, Pqr)):
        return with_number(value, path, _single(the_field, text, system))
    read = _read(the_field, text, system)
    if isinstance(read, Interval):
        check_bounds(path, read)
    return with_at(value, path, read)


def _new_side(path: str, first: str | None, text: str) -> Metal:
    """Return the other side of a joint as it is first spoken of: its name, or another heat of the same metal."""
    if not path.endswith("/certificate"):
        return Metal(name=text)
    _refuse("certificate", text)
    return Metal(name=first, certificate=text)


def _read(the_field: Field, text: str, system: System) -> Interval | str | bool:
    """Return what a text says of a leaf that is a range, a text or a choice."""
    if the_field.shape == "span":
        return parsed(the_field, text, system)
    if the_field.reads:
        _refuse(the_field.reads, text)
    if the_field.shape == "text":
        return _word(the_field, text) if the_field.vocabulary else text
    choice = _choice(the_field, text)
    return _BOOLS[choice] if the_field.flag else choice


def parsed(the_field: Field, text: str, system: System) -> Interval:
    """Return what a text says as a quantity of a leaf's kind.

    A bare number is read in the unit beside the field, a decimal comma as a point.

    Raises
    ------
    InputError : it is no quantity of that kind, or without an end that the leaf has
    """
    where = the_field.label.lower()
    text = with_points(text, where=where)
    if the_field.open_ends:
        return parse_open(text, the_field.kind, unit_table(), where=where, bare=the_field.unit(system))
    end = one_ended(text)
    if end is not None and end[0] == the_field.limit:
        text = end[1]
    elif end is not None:
        raise InputError(f"{text} states one end", where=where, mend=_ends_wanted(the_field, *end))
    return parse(text, the_field.kind, unit_table(), where=where, bare=the_field.unit(system))


def _ends_wanted(the_field: Field, end: str, number: str) -> str:
    if the_field.limit:
        return f"the {'most' if end == 'least' else 'least'} alone is typed here, write {number} if it is that"
    return "state both ends, what follows is worked out from them" if the_field.shape == "span" else "state one value"


def _single(the_field: Field, text: str, system: System) -> float:
    interval = parsed(the_field, text, system)
    if not interval.is_single:
        mend = "state one value, its tolerance beside it" if the_field.shape == "dimension" else "state one value"
        raise InputError(f"{text} is a range", where=the_field.label.lower(), mend=mend)
    return interval.low


def with_number(value: AnyDocument, path: str, number: float) -> AnyDocument:
    """Return the procedure with one number stated: a plain leaf, a dimension's nominal, or its minus or plus.

    Raises
    ------
    InputError : the leaf cannot be that number, or the dimension of a tolerance is not stated
    """
    the_field = field_of(path)
    check_bound(path, number)
    parent, _, part = path.rpartition("/")
    if the_field.shape == "recorded":
        return _with_recorded(value, parent, part, number)
    if the_field.shape != "dimension":
        whole = the_field.kind == "count" and number.is_integer()
        return with_at(value, path, int(number) if whole else number)
    if part not in PARTS:
        if at(value, path) is None:
            return with_at(value, path, Dimension.stated(nominal=number))
        return with_at(value, f"{path}/nominal", number)
    if at(value, parent) is None:
        label = the_field.label.lower()
        raise InputError(f"{label} itself is not stated", where=part, mend=f"state the {label} first")
    return with_at(value, path, number)


def _with_recorded(value: AnyDocument, path: str, part: str, number: float | None) -> AnyDocument:
    """Return a document with one number of a recorded quantity written down, or none; the others stay as they are.

    Raises
    ------
    InputError : least, mean and most are out of order
    """
    known: Recorded | None = at(value, path)
    numbers = {name: getattr(known, name) if known else None for name in RECORDED} | {part: number}
    if all(each is None for each in numbers.values()):
        return with_at(value, path, None)
    return with_at(value, path, Recorded.stated(**numbers))


def _emptied(value: AnyDocument, path: str, the_field: Field) -> AnyDocument:
    parent, _, part = path.rpartition("/")
    if part in RECORDED:
        return _with_recorded(value, parent, part, None)
    if part in PARTS:
        return with_at(value, path, 0.0) if at(value, parent) else value
    if the_field.required:
        raise InputError("nothing is stated", where=the_field.label.lower(), mend="choose one")
    return with_at(value, path, "" if path in NEVER_NONE else None)


def _word(the_field: Field, text: str) -> str:
    return vocabulary().token(the_field.vocabulary, text, where=the_field.label.lower())


def _choice(the_field: Field, text: str) -> str:
    if the_field.vocabulary:
        return _word(the_field, text)
    said = {the_field.say(choice).casefold(): choice for choice in the_field.choices}
    if the_field.choices and text not in the_field.choices and text.casefold() not in said:
        raise UnknownNameError(text, the_field.choices, where=the_field.label.lower())
    return said.get(text.casefold(), text)
