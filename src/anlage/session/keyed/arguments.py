"""`key=value` arguments: each key once, every value with its unit, every refusal one line that names the key."""

from collections.abc import Callable, Iterable, Sequence
from typing import TypeVar

from anlage.core.errors import InputError, UnknownNameError, shortened
from anlage.core.quantities import read
from anlage.core.ranges import Interval
from anlage.data.tables import unit_table, vocabulary

Value = TypeVar("Value")

# Keys whose unit is universal or stated in the contract take bare numbers.
BARE = {"voltage": "V", "current": "A", "percent": "%", "ratio": ""}


class Arguments:
    """The arguments of one call; asking for a key reads and checks its value. `tell` says how far long work is.

    Raises
    ------
    InputError : an argument is no `key=value`, a key comes twice or is not known here, a needed key is missing
    """

    def __init__(
        self, words: Sequence[str], *, known: Iterable[str], tell: Callable[[str], None] = lambda _line: None
    ) -> None:
        self._known, self.tell = tuple(known), tell
        spelled = {name.casefold(): name for name in self._known}
        self._values: dict[str, str] = {}
        for word in words:
            key, equals, value = word.partition("=")
            key = spelled.get(key.strip().casefold(), key.strip())
            if not equals:
                raise InputError(f"{shortened(word)} is no key=value", where="argument", mend="write thickness=10mm")
            if key not in self._known:
                raise UnknownNameError(key, self._known, where="key")
            if key in self._values:
                raise InputError("stated twice", where=key, mend="state it once")
            self._values[key] = value

    def __contains__(self, key: str) -> bool:
        return key in self._values

    def need(self, *keys: str) -> None:
        """Refuse when one of `keys` is missing."""
        for key in keys:
            if key not in self._values:
                raise InputError("is missing", where=key, mend=f"add {key}=…")

    def text(self, key: str) -> str:
        """Return a value as typed; it may not be empty."""
        self.need(key)
        value = self._values[key].strip()
        if not value:
            raise InputError("nothing is stated", where=key, mend=f"write {key}=… or leave the key out")
        return value

    def word(self, key: str, topic: str) -> str:
        """Return the canonical token of a word of the vocabulary."""
        return vocabulary().token(topic, self.text(key), where=key)

    def optional_word(self, key: str, topic: str) -> str | None:
        """Return the canonical token of a word of the vocabulary, or `None`."""
        return self.word(key, topic) if key in self else None

    def answer(self, key: str) -> bool:
        """Return a yes or no; no when the key is not stated."""
        return self.optional_word(key, "answer") == "yes"

    def interval(self, key: str, kind: str, *, zero: bool = False, bare: str | None = None) -> Interval:
        """Return a quantity or a range of it in base units; zero only where it makes sense."""
        return self._quantity(self.text(key), key, kind, zero=zero, bare=bare)

    def single(self, key: str, kind: str, *, zero: bool = False, bare: str | None = None) -> float:
        """Return one quantity in base units; a range is refused."""
        found = self.interval(key, kind, zero=zero, bare=bare)
        if not found.is_single:
            raise InputError(f"{shortened(self.text(key))} is a range", where=key, mend="state one value")
        return found.low

    def units_named(self, key: str, kind: str) -> tuple[str, ...]:
        """Return the units that a value names."""
        return read(self.text(key), kind, unit_table(), where=key, bare=BARE.get(kind)).units

    def each(
        self, key: str, count: int, convert: Callable[[str], Value], *, what: str = "processes"
    ) -> list[Value | None]:
        """Return a value for each of `count` of something: one for all, or one each, `-` for not stated."""
        if key not in self:
            return [None] * count
        parts = [part.strip() for part in self.text(key).split(",")]
        if len(parts) not in (1, count):
            one = "one value" if count == 1 else f"one value for all, or {count} with commas between"
            raise InputError(f"{len(parts)} values for {count} {what}", where=key, mend=f"state {one}")
        spread = parts * count if len(parts) == 1 else parts
        return [None if part in ("", "-") else convert(part) for part in spread]

    def each_quantity(self, key: str, count: int, kind: str) -> list[Interval | None]:
        """Return a quantity for each deposit, as `each`."""
        return self.each(key, count, lambda part: self._quantity(part, key, kind, zero=False, bare=None))

    def each_word(self, key: str, count: int, topic: str) -> list[str | None]:
        """Return a token for each deposit, as `each`."""
        return self.each(key, count, lambda part: vocabulary().token(topic, part, where=key))

    @staticmethod
    def _quantity(text: str, key: str, kind: str, *, zero: bool, bare: str | None) -> Interval:
        unit = bare if bare is not None else BARE.get(kind)
        found = read(text, kind, unit_table(), where=key, bare=unit).interval
        if kind not in ("temperature", "temperature_difference") and not (found.low >= 0 if zero else found.low > 0):
            raise InputError(f"{shortened(text)} is not above 0", where=key, mend=f"state a {kind} above 0")
        return found
