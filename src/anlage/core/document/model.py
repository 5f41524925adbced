"""The base of every saved value: frozen, unknown keys forbidden, changed only into a new value.

Glossary
--------
document : a value that is saved as JSON under a `format` and a `version`
leaf : one field of a document or of a part of it; `None` is *not stated*
path : where a leaf lies, `preheat/minimum_c`, `passes/p3/current_a`: field names, and ids inside lists
"""

import re
from collections.abc import Mapping
from functools import cache
from typing import TYPE_CHECKING, Any, Final, Literal, Self, TypeVar, dataclass_transform, get_args, get_origin

import msgspec

from anlage.core.errors import InputError, UnknownNameError
from anlage.core.ranges import Interval

SPAN: Final = "span"  # the mark of a range in an annotation: what its low end may be
OPEN_ENDS: Final = "x-open-ends"  # the mark of a range in a schema that may be without end


@dataclass_transform(kw_only_default=True, frozen_default=True, field_specifiers=(msgspec.field,))
class _Checked(msgspec.StructMeta):
    """Makes parts whose every value is checked as it comes in, also when one is made by hand."""

    def __new__(cls, name: str, bases: tuple[type, ...], namespace: dict[str, Any], **config: Any) -> Any:
        """Make a class of parts: its fields by name alone, in any order."""
        return super().__new__(cls, name, bases, namespace, **{"kw_only": True} | config)

    if not TYPE_CHECKING:  # a checker knows the fields already

        def __call__(cls, **values: Any) -> Any:
            """Make a part from values that may be wrong."""
            try:
                return msgspec.convert(values, cls)
            except msgspec.ValidationError as fault:
                raise refusal(fault, values) from fault


class Part(msgspec.Struct, frozen=True, forbid_unknown_fields=True, metaclass=_Checked):
    """A part of a document.

    Raises
    ------
    InputError : a value cannot be of its field; the first fault is told
    """

    def __post_init__(self) -> None:
        """Refuse ranges without end or below what they may be, then what cannot stand together."""
        for name, least in _spans(type(self)):
            span = getattr(self, name)
            if span is not None and (fault := _fault_of_span(span, least)) is not None:
                raise InputError(fault[0], where=name, mend=fault[1])
        self.check()

    def check(self) -> None:
        """Refuse fields that cannot stand together in this part; most parts accept whatever each field accepts.

        Raises
        ------
        InputError : two fields contradict each other
        """

    def __hash__(self) -> int:
        raise TypeError("documents are no dictionary keys: compare them with `is`")

    @classmethod
    def stated(cls, **values: Any) -> Self:
        """Return a new part from values that may be wrong.

        Raises
        ------
        InputError : a value cannot be of its field; the first fault is told
        """
        return cls(**values)


AnyPart = TypeVar("AnyPart", bound=Part)


class Element(Part):
    """A part that lies in a list: its `id` is unique in the document and never used again."""

    id: str


def fields_of(kind: type[Part]) -> tuple[str, ...]:
    """Return the names of a part's fields, in their order."""
    return kind.__struct_fields__


@cache
def annotations_of(kind: type[Part]) -> Mapping[str, Any]:
    """Return what each field of a part may be."""
    found: dict[str, Any] = {}
    for each in reversed(kind.__mro__):
        found |= {name: note for name, note in vars(each).get("__annotations__", {}).items() if name in fields_of(kind)}
    return found


@cache
def _spans(kind: type[Part]) -> tuple[tuple[str, str], ...]:
    """Return the fields that are ranges, with what their low end may be."""
    found = []
    for name, note in annotations_of(kind).items():
        for each in (note, *get_args(note)):
            marks = (mark.extra or {} for mark in getattr(each, "__metadata__", ()))
            found += [(name, str(mark[SPAN])) for mark in marks if SPAN in mark]
    return tuple(found)


def _fault_of_span(span: Interval, least: str) -> tuple[str, str] | None:
    """Return what is wrong with a range and how to mend it; `least` says what its low end may be."""
    if least == "open":
        return _fault_of_open_span(span)
    if not span.low > float("-inf") or span.low_open:
        return "the range has no end below", "state both ends"
    if not span.high < float("inf") or span.high_open:
        return "the range has no end above", "state both ends"
    if least == "above zero" and not span.low > 0:
        return f"{span.low:g} is not above 0", "state values above 0"
    if least == "zero" and not span.low >= 0:
        return f"{span.low:g} is below 0", "state values of 0 or more"
    return None


def _fault_of_open_span(span: Interval) -> tuple[str, str] | None:
    """Return what is wrong with a range that may be without one of its ends, which is 0 or none then."""
    if span.high <= 0 or span.low < 0 or (span.low == 0 and not span.low_open):
        return f"{span.low:g} is not above 0", "state values above 0"
    if span.low_open and span.high_open:
        return "the range has no end", "state one end at least, and each end itself"
    if (span.low_open and span.low > 0) or (span.high_open and span.high < float("inf")):
        return f"{span} leaves its end out", "state one end at least, and each end itself"
    return None


def with_(value: AnyPart, **changes: Any) -> AnyPart:
    """Return `value` with some fields changed; each changed field is validated, all others are shared.

    The very same value comes back when nothing differs, so that an edit without effect is no edit.

    Raises
    ------
    InputError : a change cannot be a value of its field, or contradicts another
    UnknownNameError : there is no such field

    Examples
    --------
    >>> from anlage.core.procedure import Preheat
    >>> with_(Preheat(minimum_c=95), interpass_maximum_c=250).minimum_c
    95.0
    """
    notes = annotations_of(type(value))
    checked = {}
    for name, change in changes.items():
        if name not in notes:
            raise UnknownNameError(name, notes, where=type(value).__name__.lower())
        try:
            checked[name] = msgspec.convert(change, notes[name])
        except msgspec.ValidationError as fault:
            raise refusal(fault, change, where=name, note=notes[name]) from fault
    if all(checked[name] == getattr(value, name) for name in checked):
        return value
    return msgspec.structs.replace(value, **checked)


def at(value: Part, path: str) -> Any:
    """Return what lies at `path`.

    Raises
    ------
    UnknownNameError : nothing lies there
    """
    found: Any = value
    for step in path.split("/"):
        found = _step(found, step, path)
    return found


def with_at(value: AnyPart, path: str, change: Any) -> AnyPart:
    """Return `value` with the leaf at `path` changed, as `with_`; parts off the path are shared.

    Raises
    ------
    InputError : the change cannot be a value of its field; `where` is the path
    UnknownNameError : nothing lies at the path
    """
    step, _, rest = path.partition("/")
    if not isinstance(value, Part):
        raise UnknownNameError(step, (), where=path)
    try:
        if not rest:
            return with_(value, **{step: change})
        inner = _step(value, step, path)
        if isinstance(inner, tuple):
            key, _, deeper = rest.partition("/")
            new = with_at(_step(inner, key, path), deeper, change) if deeper else change
            return with_(value, **{step: tuple(new if each.id == key else each for each in inner)})
        return with_(value, **{step: with_at(inner, rest, change)})
    except InputError as fault:
        raise InputError(fault.what, where=path, mend=fault.mend) from fault


def _step(found: Any, step: str, path: str) -> Any:
    if isinstance(found, tuple):
        for element in found:
            if element.id == step:
                return element
        raise UnknownNameError(step, [element.id for element in found], where=path)
    if not isinstance(found, Part) or step not in fields_of(type(found)):
        raise UnknownNameError(step, fields_of(type(found)) if isinstance(found, Part) else (), where=path)
    return getattr(found, step)


# What cannot be, in our own words -------------------------------------------------------------

_PLACE: Final = re.compile(r" - at `(?:key` in `)?\$(?P<steps>[^`]*)`$")
_STEP: Final = re.compile(r"\.([^.\[\]]+)|\[(\d+|\.\.\.)\]")
_BOUND: Final = re.compile(r"Expected `\w+` (>=|<=|>|<) (\S+)")
_KINDS: Final = {"float": "a number", "int": "a whole number", "str": "a text", "bool": "true or false",
                 "array": "a list", "object": "a part with its own keys"}  # fmt: skip
_FORMS: Final = {r"\d{4}": "write the day as 2026-04-14", "[HML]": "take H, M or L"}  # texts with a form of their own
_BOUNDS: Final = {">": "above", ">=": "of at least", "<": "below", "<=": "of at most"}


def fault_path(fault: msgspec.ValidationError) -> tuple[list[str | int], str]:
    """Return where in a raw value a fault lies, and what is wrong there without its place."""
    text = str(fault)
    match = _PLACE.search(text)
    if match is None:
        return [], text
    steps: list[str | int] = [
        int(number) if number.isdigit() else name or number for name, number in _STEP.findall(match["steps"])
    ]
    return steps, text[: match.start()]


def refusal(fault: msgspec.ValidationError, raw: Any, *, where: str = "", note: Any = None) -> InputError:
    """Return what is wrong with a raw value as one of our own refusals.

    Parameters
    ----------
    fault : what the conversion found first
    raw : the value that was to be converted
    where : the field that it is of; "" for a whole part
    note : what that field may be, where it is known
    """
    steps, text = fault_path(fault)
    own = fault.__cause__
    if isinstance(own, InputError):
        field = [own.where] if _names_field(own, raw, steps) else []
        place = "/".join(str(step) for step in (where, *steps, *field) if step != "")
        return InputError(own.what, where=place or own.where, mend=own.mend)
    named = re.search(r"(?:unknown|required) field `([^`]*)`", text)
    if named is not None:
        steps = [*steps, named[1]]
    place = "/".join(str(step) for step in (where, *steps) if step != "") or "document"
    if "required field" in text:
        return InputError("is missing", where=place, mend="state it")
    value = _at_steps(raw, steps)
    if "unknown field" in text:
        return InputError(f"{value!r:.40} cannot be", where=place, mend="no such key is known; leave it out")
    ranged = _range_at(raw, steps)
    if ranged is not None or "`array" in text:
        cut = place.rpartition("/")[0] if ranged is not None and steps and isinstance(steps[-1], int) else place
        shown = value if ranged is None else ranged
        return InputError(f"{shown!r:.40} is no range", where=cut, mend="write two numbers, [low, high]")
    return InputError(f"{value!r:.40} cannot be", where=place, mend=_mend(text, note))


def _names_field(own: InputError, raw: Any, steps: list[str | int]) -> bool:
    """Whether a refusal names a field of the part that lies at some steps."""
    part = _at_steps(raw, steps)
    return isinstance(part, dict) and own.where in part and isinstance(part[own.where], list | tuple | Interval)


def _range_at(raw: Any, steps: list[str | int]) -> Any:
    """Return the list that was to be a range and holds what is wrong, if it is one."""
    holder = _at_steps(raw, steps[:-1]) if steps and isinstance(steps[-1], int) else None
    return holder if isinstance(holder, list | tuple) and not any(isinstance(e, dict | Part) for e in holder) else None


def _at_steps(raw: Any, steps: list[str | int]) -> Any:
    for step in steps:
        try:
            raw = raw[step] if hasattr(raw, "__getitem__") else getattr(raw, str(step))
        except (KeyError, IndexError, TypeError, AttributeError):
            return None
    return raw


def _words(note: Any) -> tuple[str, ...]:
    """Return the words that a field may be, where it is one of a few."""
    if get_origin(note) is Literal:
        return tuple(map(str, get_args(note)))
    return tuple(word for each in get_args(note) for word in _words(each))


def _mend(text: str, note: Any) -> str:
    """Return how to mend what the conversion says is wrong."""
    if "enum value" in text and (words := _words(note)):
        return f"take one of {', '.join(words)}"
    if bound := _BOUND.match(text):
        return f"state a number {_BOUNDS[bound[1]]} {float(bound[2]):g}"
    if length := re.match(r"Expected `str` of length <= (\d+)", text):
        return f"write at most {length[1]} characters"
    if form := next((mend for form, mend in _FORMS.items() if form in text), ""):
        return form
    if expected := re.match(r"Expected `([^`]*)`", text):
        return f"state {' or '.join(_KINDS.get(each, each) for each in expected[1].split(' | ') if each != 'null')}"
    return "take a word that the schema names" if "enum value" in text else f"{text[0].lower()}{text[1:]}"
