"""A sound JSON text made unsound: the ways in which files are damaged, typed by hand, or meant to harm."""

import copy
import json
import random
from typing import Any

NASTY: tuple[Any, ...] = (
    None, True, False, 0, -1, 1, 0.0, -0.0, 1e-320, 1e308, -1e308, 10**400, -(10**400), 2**63, 2**64, "", " ", "0",
    "1e999", "nan", "\x00", "\ud800", "\udfff x", "\u202e", "x" * 5000, "é" * 300, "=1+1", "+49", "-", "@x", "\n", "\t",
    "\r\n=1", "a\nb", "/", "../..", "p10", "d1", "metals/one", "inf", [], {}, [[]], [None], {"": None}, {"id": {}},
    ["x"] * 500, [0] * 3, {"low": 5, "high": 1}, {"low": "a"}, {"nominal": 10**400}, {"id": "\ud800"}, {"id": ["p1"]},
    {"id": 5},
)  # fmt: skip


def text_of(raw: Any) -> str:
    """Return the JSON text of a value; what no JSON can say is said as plain text."""
    return json.dumps(raw, ensure_ascii=False)


def mutated(dice: random.Random, text: str) -> str:
    """Return a text with one to four faults in its structure, or one in its letters."""
    if dice.random() < 0.15:
        return _letters(dice, text)
    raw = json.loads(text)
    for _ in range(dice.choice((1, 1, 1, 2, 4))):
        raw = _structure(dice, raw)
    return text_of(raw)


def _letters(dice: random.Random, text: str) -> str:
    at = dice.randrange(len(text) + 1)
    end = min(len(text), at + dice.choice((1, 2, 10, 200)))
    way = dice.randrange(6)
    if way == 0:
        return text[:at]
    if way == 1:
        return text[:at] + text[end:]
    if way == 2:
        return text[:at] + text[at:end] * 2 + text[end:]
    if way == 3:
        return (
            text[:at] + dice.choice(("[" * 3000, "{", "NaN", "1" * 5000, "\x00", '"', "\ufeff", "\\ud800")) + text[at:]
        )
    if way == 4:
        return text[:at] + chr(dice.choice((0, 9, 34, 92, 0x7F, 0x2028, 0xD800, 0x1F600))) + text[end:]
    return text[end:] + text[:end]


def _structure(dice: random.Random, raw: Any) -> Any:
    raw = copy.deepcopy(raw)
    places = list(_places(raw))
    if not places:
        return dice.choice(NASTY)
    parent, key = dice.choice(places)
    way = dice.randrange(9)
    if way <= 3:
        parent[key] = dice.choice(NASTY)
    elif way == 4:
        del parent[key]
    elif way == 5 and isinstance(parent, list):
        parent.insert(dice.randrange(len(parent) + 1), copy.deepcopy(parent[key]))
    elif way == 5:
        parent[dice.choice(("x", "id", "format", "\ud800", "", "__class__", "version"))] = copy.deepcopy(parent[key])
    elif way == 6:  # something that stands elsewhere
        other, own = dice.choice(places)
        parent[key] = copy.deepcopy(other[own])
    elif way == 7 and isinstance(parent[key], (int, float)) and not isinstance(parent[key], bool):
        value = parent[key] if abs(parent[key]) < 1e300 else 1.0
        parent[key] = dice.choice((value * 10**6, -value, value / 10**9, int(value), 1e15))
    elif way == 8 and isinstance(parent[key], list):
        parent[key] = parent[key] * dice.choice((2, 40)) if len(parent[key]) < 40 else []
    else:
        parent[key] = [parent[key]]
    return raw


def _places(raw: Any) -> Any:
    own = raw.items() if isinstance(raw, dict) else enumerate(raw) if isinstance(raw, list) else ()
    for key, value in list(own):
        yield raw, key
        yield from _places(value)
