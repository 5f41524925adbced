"""From what people type to numbers: fractions, units, arithmetic and ranges.

Glossary
--------
mixed number : `1-1/2` or `1 1/2`, one and a half; a minus has blanks round it
range : `23..26 V`, also `23 to 26 V`; a unit at the end serves both ends
bare number : one without unit; a field reads it in the unit it shows, the command line refuses it

Grammar::

    quantity = sum [ (".." | "to") sum ]
    sum      = product { (" + " | " - ") product }
    product  = factor { ("*" | "×" | "x" | "÷" | " / ") factor }
    factor   = number [ unit ] [ number unit ]          (5 ft 3 in)
    number   = digits ["." digits] [exponent] | [digits ("-" | " ")] digits "/" digits

A number without unit in a sum takes the next unit to its right: `3/8 - 1/16 in`.
"""

import re

from msgspec import Struct

from anlage.core.errors import InputError, closest, shortened
from anlage.core.quantities.units import Kind, Unit, UnitTable, folded
from anlage.core.ranges.interval import Interval

LONGEST = 200  # characters; a longer text is no quantity
_NUMBER = re.compile(
    r"(?P<whole>\d+)(?:-|[ ]+)(?P<num>\d+)[ ]?/[ ]?(?P<den>\d+)(?![\d.])"
    r"|(?P<n>\d+)/(?P<d>\d+)(?![\d.])"
    r"|(?P<decimal>(?:\d+(?:\.\d+)?|\.\d+)(?:[eE][+-]?\d+)?)"
)
_RANGE = re.compile(r"\s*(?:\.\.\.?|…|\bto\b)\s*")
_SIGN = re.compile(r"\s+[\-−–]\s+|\s*\+\s*")
_TIMES = re.compile(r"\s*[*×÷]\s*|\s+[x/]\s+|/(?=\d)")
_UNIT_GOES_ON = re.compile(r"[^\W\d_]|[²³^]|/[^\W\d_]")
_COMMA = re.compile(r"(\d+),(\d+)")
_UNIT_LIKE = re.compile(r"[^\d\s+*×÷.…]+(?:/\s*[^\d\s+*×÷.…]+)?")
_VULGAR = {"½": "1/2", "¼": "1/4", "¾": "3/4", "⅛": "1/8", "⅜": "3/8", "⅝": "5/8", "⅞": "7/8", "⅓": "1/3", "⅔": "2/3"}


class Reading(Struct, frozen=True):
    """What a text says: the interval in the base unit of its kind, and the units named in it, in order."""

    interval: Interval
    units: tuple[str, ...]


def parse(text: str, kind: str, units: UnitTable, *, where: str = "value", bare: str | None = None) -> Interval:
    """Return the interval that `text` states, in the base unit of `kind`.

    Parameters
    ----------
    text : what was typed, at most 200 characters
    kind : a kind of the unit table: `length`, `speed`, `temperature`, …
    units : the unit table
    where : the field or key, for the message
    bare : the unit of a number without one; `None` refuses it

    Raises
    ------
    InputError : the text is no quantity of this kind; `position` is the character where it stops being one

    Examples
    --------
    >>> from anlage.data.tables import unit_table
    >>> print(parse("3/8 in - 1/16 in", "length", unit_table()))
    [7.9375, 7.9375]
    >>> print(parse("4..6 in/min", "speed", unit_table()))
    [101.6, 152.4]
    """
    return read(text, kind, units, where=where, bare=bare).interval


def read(text: str, kind: str, units: UnitTable, *, where: str = "value", bare: str | None = None) -> Reading:
    """Return what `parse` returns, with the units that the text names."""
    the_kind = units[kind]
    if len(text) > LONGEST:
        mend = f"write at most {LONGEST} characters"
        raise InputError(f"{len(text)} characters are no {_spoken(the_kind)}", where=where, mend=mend)
    reader = _Reader(_plain(text), the_kind, where, the_kind.unit(bare, where=where) if bare is not None else None)
    return reader.read()


def _plain(text: str) -> str:
    for sign, fraction in _VULGAR.items():
        text = re.sub(rf"(\d?)\s*{sign}", lambda m, f=fraction: f"{m[1]} {f}" if m[1] else f, text)  # type: ignore[misc]
    return text.replace("\u00a0", " ").replace("\u202f", " ").replace("\u2009", " ").strip()


def _spoken(kind: Kind) -> str:
    return kind.name.replace("_", " ")


class _Term(Struct):
    """A signed number with its unit, if one stands beside it."""

    number: float
    unit: Unit | None
    sign: int
    position: int


class _Reader:
    """One pass over one text; `place` is the next character to read."""

    def __init__(self, text: str, kind: Kind, where: str, bare: Unit | None) -> None:
        self.text, self.kind, self.where, self.bare = text, kind, where, bare
        self.place = 0
        self.units: list[str] = []

    def read(self) -> Reading:
        if not self.text:
            raise self.refusal("nothing is stated", f"write a number with {self.example()}")
        first = self.sum()
        second = self.sum() if self.skip(_RANGE) else None
        if self.place < len(self.text):
            raise self.unreadable()
        unit_after = self.first_unit(second) if second else None
        low = self.value(first, unit_after)
        high = low if second is None else self.value(second, None)
        if low > high:
            shown = shortened(self.text)
            raise self.refusal(f"{shown} holds nothing", "swap the ends", at=0)
        return Reading(Interval(low, high), tuple(self.units))

    # Reading ---------------------------------------------------------------------------------

    def skip(self, pattern: re.Pattern[str]) -> str:
        match = pattern.match(self.text, self.place)
        if not match:
            return ""
        self.place = match.end()
        return match[0]

    def sum(self) -> list[_Term]:
        terms = self.product(self.leading_sign())
        while sign := self.skip(_SIGN):
            terms += self.product(1 if "+" in sign else -1)
        return terms

    def leading_sign(self) -> int:
        mark = self.skip(re.compile(r"\s*[+\-−]\s*(?=[\d.])"))
        return -1 if mark and "+" not in mark else 1

    def product(self, sign: int) -> list[_Term]:
        terms = self.factor(sign)
        while operator := self.skip(_TIMES):
            at = self.place
            divide = "÷" in operator or "/" in operator
            other = self.factor(1)
            if len(terms) > 1 or len(other) > 1 or (terms[0].unit and other[0].unit) or (divide and other[0].unit):
                raise self.refusal("only a plain number multiplies or divides", "leave its unit out", at=at)
            terms = [self.combined(terms[0], other[0], divide=divide, at=at)]
        return terms

    def combined(self, left: _Term, right: _Term, *, divide: bool, at: int) -> _Term:
        unit = left.unit or right.unit
        if any(each.offset for each in self.kind.units.values()):
            raise self.refusal("a temperature cannot be multiplied", "write the temperature itself", at=at)
        if divide and right.number == 0:
            raise self.refusal("nothing divides by zero", "divide by another number", at=at)
        number = left.number / right.number if divide else left.number * right.number
        return _Term(number, unit, left.sign, left.position)

    def factor(self, sign: int) -> list[_Term]:
        """Return one term, or two for `5 ft 3 in`."""
        terms = [self.term(sign)]
        if terms[0].unit and re.match(r"\s*\d", self.text[self.place :]):
            terms.append(self.term(sign))
        return terms

    def term(self, sign: int) -> _Term:
        self.skip(re.compile(r"\s+"))
        position = self.place
        match = _NUMBER.match(self.text, self.place)
        if not match:
            raise self.unreadable()
        self.place = match.end()
        self.refuse_comma(position)
        if match["decimal"]:
            number = float(match["decimal"])
        else:
            top, bottom = float(match["num"] or match["n"]), float(match["den"] or match["d"])
            if bottom == 0:
                raise self.refusal("a fraction over zero is no number", "write the fraction again", at=position)
            number = float(match["whole"] or 0) + top / bottom
        return _Term(number, self.unit(), sign, position)

    def refuse_comma(self, position: int) -> None:
        if comma := _COMMA.match(self.text, position):
            whole, part = comma.groups()
            raise self.refusal(f"{comma[0]} has a comma", f"write {whole}.{part}", at=position)

    def unit(self) -> Unit | None:
        """Return the longest spelling of a unit that stands here, if any."""
        start = re.compile(r"\s*").match(self.text, self.place).end()  # type: ignore[union-attr]
        for end in range(min(len(self.text), start + 16), start, -1):
            spelling = self.text[start:end]
            if spelling[-1].isspace() or (spelling[-1].isalpha() and _UNIT_GOES_ON.match(self.text, end)):
                continue
            if (unit := self.kind.units.get(folded(spelling))) and unit.name:
                self.place = end
                self.units.append(unit.name)
                return unit
        return None

    # Valuing ---------------------------------------------------------------------------------

    def first_unit(self, terms: list[_Term]) -> Unit | None:
        return next((term.unit for term in terms if term.unit), None)

    def value(self, terms: list[_Term], unit_after: Unit | None) -> float:
        """Return the sum of `terms` in the base unit; a number without unit takes the next unit to its right."""
        total, following = 0.0, unit_after
        stated = following is not None or any(term.unit for term in terms)
        for index in range(len(terms) - 1, -1, -1):
            term = terms[index]
            following = term.unit or following
            unit = following or (None if stated else self.bare) or self.kind.units.get("")
            if unit is None:
                raise self.refusal(
                    f"{term.number:g} has no unit", f"write {self.example(term.number)}", at=term.position
                )
            signed = term.sign * term.number
            # In a sum of temperatures the first is a temperature, the others are differences.
            total += unit.to_base(signed) if index == 0 else signed * unit.factor
        return self.checked(total, terms[0].position)

    def checked(self, total: float, position: int) -> float:
        kind, name = self.kind, _spoken(self.kind)
        if kind.least <= total <= kind.most:
            return total
        shown, one = shortened(self.text), "" if name.endswith("s") else "a "
        if total < 0 and kind.least == 0:
            raise self.refusal(f"{shown} is below zero", f"state {one}{name} above zero", at=position)
        side, end = ("below", kind.least) if total < kind.least else ("above", kind.most)
        raise self.refusal(f"{shown} is {side} {end:.15g} {kind.base}", f"state {one}possible {name}", at=position)

    # Refusing --------------------------------------------------------------------------------

    def example(self, number: float = 1) -> str:
        names = [name for name in self.kind.unit_names if name]
        if not names:
            return f"{number:g}"
        shown = list(dict.fromkeys(unit.name for unit, _ in self.kind.shown_in.values()))
        return " or ".join(f"{number:g} {name}" for name in shown)

    def refusal(self, what: str, mend: str, *, at: int | None = None) -> InputError:
        return InputError(what, where=self.where, mend=mend, position=self.place if at is None else at)

    def unreadable(self) -> InputError:
        """Return the refusal of what stands at `place`, guessing what was meant."""
        rest = self.text[self.place :].strip()
        if not rest:
            return self.refusal(f"{shortened(self.text)} stops short", "write the number that is missing")
        if re.match(r"[-−–]\d", rest):
            text = shortened(self.text)
            mend = "write 23..26 for a range, blanks round a minus, 1-1/2 for one and a half"
            return self.refusal(f"{text} can be read in two ways", mend)
        if re.match(r"\.(?!\d)", rest) and self.place:
            return self.refusal("a dot stands alone", "write 2.5 or a range as 2..5")
        word = (_UNIT_LIKE.match(rest) or re.match(r"\S+", rest))[0]  # type: ignore[index]
        if self.place == 0:
            return self.refusal(f"{shortened(rest)} is not a number", f"write {self.example()}")
        close = closest(word, [name for name in self.kind.unit_names if name])
        mend = f"take {' or '.join(close) or ', '.join(filter(None, self.kind.unit_names)) or 'no unit'}"
        what = f"{shortened(word)} at character {self.place + 1} is no unit of {_spoken(self.kind)}"
        return self.refusal(what, mend)
