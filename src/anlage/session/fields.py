"""Every leaf that is typed: from its value to the text in a field and back, and what an arrow key adds.

Glossary
--------
pattern : a path with `*` for the id of an element, `passes/*/current_a`
shape : number, span (a range), dimension (nominal with minus and plus), text, choice
bare unit : the unit shown beside a field; a number without unit is read in it
"""

import tomllib
from collections.abc import Mapping
from dataclasses import dataclass, field
from functools import cache
from typing import Any, TypeVar

from anlage.core.document import Dimension, at, with_at
from anlage.core.errors import InputError, UnknownNameError
from anlage.core.joint import KINDS, MAKES, dimensions_of, is_on_run
from anlage.core.procedure import Metal, Wps
from anlage.core.quantities import parse, show_interval
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, Recorded
from anlage.data.files import text_of
from anlage.data.tables import unit_table, vocabulary

PARTS = ("minus", "plus", "least", "mean", "most")
RECORDED = ("least", "mean", "most")
ENDS = ("low", "high")
LISTS = ("deposits", "passes", "members", "tacks", "stations", "sectors", "readings")
NEVER_NONE = ("header/number", "header/title")
AnyDocument = TypeVar("AnyDocument", Wps, Pqr)
_BOOLS = {"yes": True, "no": False}
_DIMENSIONS = frozenset(name for kind in KINDS for name in dimensions_of(kind))
_SIMPLE = ("thickness_mm", "root_opening_mm", "root_face_mm", "groove_angle_deg", "reinforcement_mm")


@dataclass(frozen=True, slots=True, kw_only=True)
class Field:
    """What a leaf is called, of which kind it is, what it may be, and what one press of an arrow key adds."""

    path: str
    label: str
    shape: str
    tip: str
    kind: str = ""
    step: Mapping[System, float] = field(default_factory=dict)
    choices: tuple[str, ...] = ()
    says: Mapping[str, str] = field(default_factory=dict)
    required: bool = False
    record_shape: str = ""  # of the same leaf in a record, where it differs: one number for a range
    flag: bool = False  # the choices yes and no are kept as true and false
    vocabulary: str = ""
    catalogue: str = ""

    def unit(self, system: System) -> str:
        """Return the unit that stands beside the field, "" for texts."""
        return unit_table()[self.kind].shown_in[system][0].name if self.kind else ""

    def say(self, choice: str) -> str:
        """Return how a choice is written for people."""
        return self.says.get(choice, choice)


@cache
def fields() -> Mapping[str, Field]:
    """Return every field by its pattern."""
    rows = tomllib.loads(text_of("fields.toml"))["field"]
    return {row["path"]: Field(**row | {"choices": tuple(row.get("choices", ()))}) for row in rows}


def field_of(path: str) -> Field:
    """Return the field of a leaf.

    Raises
    ------
    UnknownNameError : nobody types that leaf

    Examples
    --------
    >>> field_of("passes/p3/current_a").label, field_of("joint/root_face_mm/plus").label
    ('Current', 'Root face')
    """
    steps = path.split("/")
    if steps[-1] in PARTS:
        steps.pop()
    listed = steps[0] in LISTS
    pattern = "/".join("*" if place == 1 and listed else s for place, s in enumerate(steps))
    if pattern not in fields():
        raise UnknownNameError(path, fields(), where="field")
    return fields()[pattern]


def has_leaf(value: Wps | Pqr, path: str) -> bool:
    """Return whether a leaf belongs to this kind of document; an element that is gone has none."""
    if path.startswith("metals/other"):
        return True
    try:
        _leaf(value, path)
    except UnknownNameError:
        return False
    return True


def applies(value: Wps | Pqr, path: str) -> bool:
    """Return whether a document has a leaf, and its joint too: only a pipe has a diameter, only a V a root face."""
    if not has_leaf(value, path):
        return False
    joint, (head, _, rest) = value.joint, path.partition("/")
    leaf = rest.partition("/")[0]
    if leaf == "member_order":
        return joint.kind == "tube-node"
    if head == "seam":
        return leaf in ("stagger_mm", "marks", "weave_limit_mm") or (
            joint.product == "pipe" and joint.od_mm is not None
        )
    if head != "joint" or joint.kind is None:
        return head != "joint" or leaf in ("kind", "product", *_SIMPLE) or (leaf == "od_mm" and joint.product == "pipe")
    make = MAKES[joint.kind]
    unequal = joint.other_thickness_mm not in (None, joint.thickness_mm)
    own = {
        "od_mm": joint.product == "pipe" or make.family == "pipe",
        "run_od_mm": is_on_run(joint.kind),
        "seam_length_mm": not (joint.product == "pipe" or make.family == "pipe" or make.form in ("plug", "slot")),
        "product": make.family == "butt",
        "flush": unequal and make.family == "butt",
        "taper": unequal and make.family == "butt",
        "counterbore_mm": unequal and make.family == "butt" and joint.flush in ("face", "centre"),
        "backing_form": make.backing,
        "backing_mm": make.backing,
        "other_thickness_mm": joint.kind != "cladding",
        "root_style": make.backing or make.is_open,
        "detail": make.family in ("butt", "tee", "corner") and make.form not in ("fillet", "compound-v"),
    }
    return own.get(leaf, leaf not in _DIMENSIONS or leaf in dimensions_of(joint.kind))


def shown(value: Wps | Pqr, path: str, system: System) -> str:
    """Return what stands in the field of a leaf, without its unit; "" when it is not stated."""
    leaf = _leaf(value, path)
    if isinstance(leaf, bool):
        return "yes" if leaf else "no"
    if leaf is None or isinstance(leaf, str):
        return leaf or ""
    kind = field_of(path).kind
    if isinstance(leaf, Dimension):
        leaf = leaf.nominal
    if isinstance(leaf, Recorded):
        leaf = leaf.mean
    interval = leaf if isinstance(leaf, Interval) else Interval.single(leaf)
    return _bare(interval, kind, system)


def _bare(interval: Interval, kind: str, system: System) -> str:
    unit = unit_table()[kind].shown_in[system][0].name
    return show_interval(interval, kind, system, unit_table()).removesuffix(unit).rstrip()


def _leaf(value: Wps | Pqr, path: str) -> Any:
    if path == "metals/other/name" and value.metals.other is None:
        return None
    if path.rpartition("/")[2] in PARTS:
        dimension = at(value, path.rpartition("/")[0])
        return getattr(dimension, path.rpartition("/")[2]) or None if dimension else None
    return at(value, path)


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
    stated: Interval = at(value, leaf)
    if end == "low":
        return with_at(value, leaf, Interval(number, max(number, stated.high)))
    return with_at(value, leaf, Interval(min(number, stated.low), number))


def with_middle(value: Wps, path: str, number: float) -> Wps:
    """Return the procedure with a range about another middle, as wide as before; a single number where none is stated.

    Raises
    ------
    InputError : the range cannot be that
    """
    stated: Interval | None = at(value, path)
    half = 0.0 if stated is None else (stated.high - stated.low) / 2
    return with_at(value, path, Interval(number - half, number + half))


def with_text(value: AnyDocument, path: str, text: str, system: System) -> AnyDocument:
    """Return the procedure with a leaf stated as typed; an empty text makes it not stated.

    Raises
    ------
    InputError : the text is nothing that the leaf can be
    UnknownNameError : nothing lies at the path, or a choice is none of its kind
    """
    the_field, text = field_of(path), text.strip()
    if path.startswith("metals/other") and value.metals.other is None:
        return with_at(value, "metals/other", Metal(name=text)) if text else value
    if path == "metals/other/name" and not text:
        return with_at(value, "metals/other", None)
    if not text:
        return _emptied(value, path, the_field)
    if the_field.shape in ("number", "dimension", "recorded") or (the_field.record_shape and isinstance(value, Pqr)):
        return with_number(value, path, _single(the_field, text, system))
    return with_at(value, path, _read(the_field, text, system))


def _read(the_field: Field, text: str, system: System) -> Interval | str | bool:
    """Return what a text says of a leaf that is a range, a text or a choice."""
    if the_field.shape == "span":
        return _parsed(the_field, text, system)
    if the_field.shape == "text":
        return _word(the_field, text) if the_field.vocabulary else text
    choice = _choice(the_field, text)
    return _BOOLS[choice] if the_field.flag else choice


def _parsed(the_field: Field, text: str, system: System) -> Interval:
    return parse(text, the_field.kind, unit_table(), where=the_field.label.lower(), bare=the_field.unit(system))


def _single(the_field: Field, text: str, system: System) -> float:
    interval = _parsed(the_field, text, system)
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
    parent, _, part = path.rpartition("/")
    if the_field.shape == "recorded":
        return with_at(value, parent, _recorded(at(value, parent), part, number))
    if the_field.shape != "dimension":
        return with_at(value, path, number)
    if part not in PARTS:
        if at(value, path) is None:
            return with_at(value, path, Dimension.stated(nominal=number))
        return with_at(value, f"{path}/nominal", number)
    if at(value, parent) is None:
        label = the_field.label.lower()
        raise InputError(f"{label} itself is not stated", where=part, mend=f"state the {label} first")
    return with_at(value, path, number)


def _recorded(known: Recorded | None, part: str, number: float) -> Recorded:
    """Return a recorded quantity with one of its numbers typed; the first one typed stands for all three.

    While only one number is known, the others go along as far as their order needs.

    Raises
    ------
    InputError : least, mean and most are out of order
    """
    if known is None:
        return Recorded.stated(least=number, mean=number, most=number)
    numbers = {name: getattr(known, name) for name in RECORDED} | {part: number}
    if known.least == known.most:
        numbers["least"], numbers["most"] = min(numbers["least"], number), max(numbers["most"], number)
    return Recorded.stated(**numbers)


def _emptied(value: AnyDocument, path: str, the_field: Field) -> AnyDocument:
    parent, _, part = path.rpartition("/")
    if part in RECORDED:
        return with_at(value, parent, None)
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
        interval = _parsed(the_field, text, system)
    except InputError:
        return None
    low, high = (on_step(end, path, system, steps) for end in (interval.low, interval.high))
    if interval.is_single:
        return _bare(Interval.single(low), the_field.kind, system)
    if cursor <= text.find(".."):
        moved = Interval(low, max(low, interval.high))
    else:
        moved = Interval(min(high, interval.low), high)
    return _bare(moved, the_field.kind, system)


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


def named(value: Wps | Pqr, path: str) -> str:
    """Return how a leaf is called where it stands alone: in the list of steps that can be undone.

    Examples
    --------
    >>> named(Wps(), "joint/root_face_mm/plus")
    'Root face, plus'
    """
    steps = path.split("/")
    part = f", {steps[-1]}" if steps[-1] in PARTS else ""
    label = f"{field_of(path).label}{part}"
    if steps[0] == "passes":
        number = next((n for n, each in enumerate(value.passes, 1) if each.id == steps[1]), "?")
        return f"{label} of pass {number}"
    if steps[0] in ("sectors", "readings"):
        return f"{label} of a {steps[0][:-1]}"
    if steps[0] == "members":
        name = next((each.name for each in value.members if each.id == steps[1]), None)
        return f"{label} of {name or 'a new member'}"
    if steps[0] in ("stations", "tacks"):
        place = next((each.place for each in getattr(value, steps[0]) if each.id == steps[1]), None)
        return f"{label} at {place or f'a new {steps[0][:-1]}'}"
    if steps[0] == "deposits":
        process = next((each.process for each in value.deposits if each.id == steps[1]), None)
        return f"{label} of the {process or 'new'} deposit"
    return label
