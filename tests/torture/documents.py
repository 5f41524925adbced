"""Documents from outside: each is refused with one sentence, or mended, and what is left can be worked with."""

import json
import random
from collections import Counter
from functools import cache
from pathlib import Path
from typing import Any

from anlage.core.document import read_strict, write
from anlage.core.errors import AnlageError
from anlage.core.letters import has_odd
from anlage.data.files import FOLDER
from anlage.session.judging.assessment import Assessor
from anlage.session.kinds import RECORD, Kind, kind_of_format
from anlage.session.leaves.bounds import beyond
from anlage.session.works.filed import opened
from anlage.session.works.register import Standpoint, row_of
from anlage.store import Draft, Entry
from tests.torture.mutations import mutated

FIXTURES = Path(__file__).parent.parent / "fixtures"
LONGEST = 600  # characters of a refusal or a notice: no more than a few lines on any screen


class FoundError(AssertionError):
    """Something that must not be came of a text."""


@cache
def sources() -> tuple[tuple[Kind, str], ...]:
    """Return sound documents of this version and of the first, each with its kind."""
    files = [*sorted((FOLDER / "demo").glob("*.json")), *sorted(FIXTURES.glob("*-version-*.json"))]
    texts = [path.read_text(encoding="utf-8") for path in files]
    return tuple((kind_of_format(json.loads(text)["format"]), text) for text in texts)


@cache
def assessor() -> Assessor:
    """Return what judges by the records of the demo."""
    return Assessor(
        [(str(n), read_strict(text, kind.core)) for n, (kind, text) in enumerate(sources()) if kind is RECORD]
    )


def check(kind: Kind, text: str) -> str:
    """Return how a text is taken: `refused`, `mended`, or `sound`.

    Raises
    ------
    FoundError : a refusal is no sentence, or what was mended is no document
    """
    try:
        strict: Any = read_strict(text, kind.core)
        list(beyond(strict).values())
    except AnlageError as fault:
        _one_line(str(fault))
        strict = None
    try:
        working, notices = opened(Draft(text, {}), kind)
    except AnlageError as fault:
        _one_line(str(fault))
        if strict is not None:
            raise FoundError("the strict door took what the mending door refused") from fault
        return "refused"
    for notice in notices:
        _one_line(notice.text)
    if strict is None and not notices:
        raise FoundError("the mending door took in silence what the strict door refused")
    if read_strict(write(working.value), kind.core) != working.value:
        raise FoundError("what was mended is another document once it was written")
    if beyond(working.value):
        raise FoundError("what was mended is beyond what typing takes")
    entry = Entry("own", kind.format, "N", "T", 0, deleted=False)
    for system in ("si", "us"):
        row_of(entry, (working, notices), None, assessor(), Standpoint(system, "2026-11-23"))
    return "mended" if notices else "sound"


def _one_line(said: str) -> None:
    if len(said) > LONGEST or has_odd(said) or any(each in said for each in "\n\r\t"):
        raise FoundError(f"no sentence: {said[:300]!r}")


def fuzz(seed: int, count: int, keep: Path | None = None) -> Counter[str]:
    """Return how many texts were taken how; faults are counted by what they are, and their texts kept.

    Parameters
    ----------
    seed : of the dice
    count : texts
    keep : the folder that takes each text with a fault
    """
    dice, found = random.Random(seed), Counter[str]()
    for number in range(count):
        kind, text = dice.choice(sources())
        text = mutated(dice, text)
        try:
            found[check(kind, text)] += 1
        except Exception as fault:  # noqa: BLE001 - whatever comes is counted
            name = f"FAULT {type(fault).__name__}: {str(fault)[:90]!r}"
            found[name] += 1
            if keep is not None and found[name] == 1:
                keep.mkdir(parents=True, exist_ok=True)
                (keep / f"{kind.id}-{seed}-{number}.json").write_bytes(text.encode(errors="surrogatepass"))
    return found
