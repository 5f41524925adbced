"""The base of every saved value: frozen, unknown keys forbidden, changed only into a new value.

Glossary
--------
document : a value that is saved as JSON under a `format` and a `version`
leaf : one field of a document or of a part of it; `None` is *not stated*
path : where a leaf lies, `preheat/minimum_c`, `passes/p3/current_a`: field names, and ids inside lists
"""

from functools import cache
from typing import Annotated, Any, Self, TypeVar

from pydantic import BaseModel, ConfigDict, TypeAdapter, ValidationError, model_validator

from anlage.core.errors import InputError, UnknownNameError


class Part(BaseModel):
    """A part of a document."""

    model_config = ConfigDict(frozen=True, extra="forbid", allow_inf_nan=False, ser_json_inf_nan="constants")

    @model_validator(mode="after")
    def _checked(self) -> Self:
        self.check()
        return self

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
        try:
            return cls(**values)
        except ValidationError as faults:
            raise refusal(faults) from faults


AnyPart = TypeVar("AnyPart", bound=Part)


class Element(Part):
    """A part that lies in a list: its `id` is unique in the document and never used again."""

    id: str


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
    fields = type(value).model_fields
    checked = {}
    for name, change in changes.items():
        if name not in fields:
            raise UnknownNameError(name, fields, where=type(value).__name__.lower())
        try:
            checked[name] = _adapter(type(value), name).validate_python(change)
        except ValidationError as faults:
            raise refusal(faults, where=name) from faults
    if all(checked[name] == getattr(value, name) for name in checked):
        return value
    changed = value.model_copy(update=checked)
    changed.check()
    return changed


@cache
def _adapter(kind: type[Part], name: str) -> TypeAdapter[Any]:
    field = kind.model_fields[name]
    annotation: Any = Annotated[field.annotation, *field.metadata] if field.metadata else field.annotation
    return TypeAdapter(annotation)


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
    if not isinstance(found, Part) or step not in type(found).model_fields:
        raise UnknownNameError(step, type(found).model_fields if isinstance(found, Part) else (), where=path)
    return getattr(found, step)


def refusal(faults: ValidationError, *, where: str = "") -> InputError:
    """Return the first of pydantic's faults as one of our own refusals."""
    fault = faults.errors(include_url=False)[0]
    place = "/".join(filter(None, (where, *(str(step) for step in fault["loc"] if isinstance(step, str | int)))))
    own = fault.get("ctx", {}).get("error")
    if isinstance(own, InputError):
        return InputError(own.what, where=place or own.where, mend=own.mend)
    return InputError(f"{fault['input']!r:.40} cannot be", where=place or "document", mend=_mend(fault))


def _mend(fault: Any) -> str:
    message = str(fault["msg"])
    return message[0].lower() + message[1:]
