"""The single values of a rule as it is written: each with where it stands in words, changed one by one as text."""

import math
from collections.abc import Iterator, Mapping, Sequence
from typing import Any

import rtoml
from msgspec import Struct

from anlage.core.errors import InputError
from anlage.data.tables import variables

Place = tuple[str | int, ...]

WORDS: Mapping[str, str] = {
    "low": "lowest", "high": "highest", "is": "", "si": "metric", "us": "US", "below": "below", "to": "up to",
    "above": "above", "from": "from", "at_least": "no less than", "at_most": "no more than", "of": "of",
    "when": "where", "unless": "not where", "rows": "row", "groups": "group", "map": "for", "relative": "share of",
    "absolute": "limit of", "otherwise": "for any other", "tokens": "allowed", "ranks": "in rising order",
    "also": "second reading",
}  # fmt: skip
# A whole that changes what the rule is about, or how it is asked, is no single value of it.
LEFT_OUT = frozenset({
    "id", "variable", "clause", "title", "category", "scope", "kind", "on", "confidence", "source", "because", "note",
    "route", "basis", "editions", "function",
})  # fmt: skip


class RuleValue(Struct, frozen=True):
    """One value of a rule: where it stands, in the table and in words, and its text."""

    place: Place
    label: str
    text: str


def values_of(table: Mapping[str, Any]) -> tuple[RuleValue, ...]:
    """Return every single value of a rule as it is written."""
    return tuple(
        RuleValue((key, *place), _label((key, *place)), _text(value))
        for key, whole in table.items()
        if key not in LEFT_OUT
        for place, value in _singles(whole)
    )


def keys_with(shipped: Mapping[str, Any], now: Mapping[str, Any], texts: Mapping[Place, str]) -> str:
    """Return the keys of a rule that differ from the shipped ones once its values read as stated, as TOML; "" for none.

    Parameters
    ----------
    shipped, now : the rule as it ships, and as it is written now
    texts : what each value of `now` is to be; one that is not named stays

    Raises
    ------
    InputError : a text is no number where there was one, or is empty
    """
    import tomli_w  # when something is written out

    found: dict[str, Any] = rtoml.loads(tomli_w.dumps(dict(now)))
    for value in values_of(now):
        text = texts.get(value.place, value.text).strip()
        if text != value.text:
            _put(found, value.place, _value(_at(now, value.place), text, value.label))
    changed = {key: value for key, value in found.items() if value != shipped.get(key)}
    return tomli_w.dumps(changed) if changed else ""


def _singles(whole: Any, place: Place = ()) -> Iterator[tuple[Place, Any]]:
    if isinstance(whole, Mapping):
        for key, each in whole.items():
            yield from _singles(each, (*place, key))
    elif isinstance(whole, list) and not all(isinstance(each, str) for each in whole):
        for number, each in enumerate(whole):
            yield from _singles(each, (*place, number))
    else:
        yield place, whole


def _label(place: Place) -> str:
    words: list[str] = []
    for each in place:
        if isinstance(each, int):
            words.append(f"{words.pop()} {each + 1}" if words else f"{each + 1}")
        elif own := WORDS.get(each) if each in WORDS else _named(each):
            words.append(own)
    return ", ".join(words)


def _named(key: str) -> str:
    row = variables().get(key)
    return row.name if row else key.replace("_", " ")


def _text(value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return ", ".join(value)
    return f"{value:g}" if isinstance(value, float) else str(value)


def _value(before: Any, text: str, label: str) -> Any:
    """Return a text as what stood there before it was changed: a number, words, yes or no."""
    if isinstance(before, bool):
        if text.casefold() not in ("yes", "no"):
            raise InputError(f"{text or 'nothing'} is neither", where=label, mend="write yes or no")
        return text.casefold() == "yes"
    if isinstance(before, int | float):
        return _number(text, label)
    if isinstance(before, list) or text.startswith("@"):
        words = [each.strip() for each in text.split(",") if each.strip()]
        if not words:
            raise InputError("nothing is stated", where=label, mend="write words with commas between them")
        return words[0] if len(words) == 1 and words[0].startswith("@") else words
    return text


def _number(text: str, label: str) -> float | int:
    try:
        number = float(text.replace("−", "-").replace(",", "."))
    except ValueError as fault:
        raise InputError(f"{text or 'nothing'} is no number", where=label, mend="write a plain number") from fault
    if not math.isfinite(number):
        raise InputError(f"{text} is no number", where=label, mend="write a plain number")
    return int(number) if number.is_integer() else number


def _at(whole: Any, place: Sequence[str | int]) -> Any:
    for each in place:
        whole = whole[each]
    return whole


def _put(whole: Any, place: Sequence[str | int], value: Any) -> None:
    _at(whole, place[:-1])[place[-1]] = value
