"""A rung of words: what is allowed as a row of boxes, what is stated filled in, or barred where it is not allowed."""

from collections.abc import Callable, Iterator, Sequence

from msgspec import Struct

from anlage.core.drawing.display import DisplayList, Item, Measure, Path, Text
from anlage.core.ranges import Choices, Extreme, Range, is_any

HEIGHT_MM, BOX_MM, TEXT_MM = 6.0, 4.6, 2.6
PAD_MM, APART_MM = 1.2, 1.2


class Token(Struct, frozen=True):
    """A word of a rung: whether it is stated, and whether it is allowed surely, perhaps, or not."""

    word: str
    stated: bool
    allowed: bool
    possible: bool


def tokens_of_rung(
    stated: Range | None, sure: Range, possible: Range, say: Callable[[str], str] = str
) -> tuple[Token, ...]:
    """Return the words of a rung, the stated ones first; none where its sets are no words.

    Parameters
    ----------
    stated : what the procedure states, `None` when it does not
    sure, possible : what is allowed in every reading, and in any
    say : how a word is written for people
    """
    sets = [each for each in (stated, sure, possible) if isinstance(each, Choices)]
    if not sets or not all(isinstance(each, Choices | Extreme) for each in (sure, possible)):
        return ()
    own = stated.tokens if isinstance(stated, Choices) and not stated.but else frozenset[str]()
    named = {token for each in (sure, possible) if isinstance(each, Choices) and not each.but for token in each.tokens}
    found = [*sorted(own), *sorted(named - own)]
    return tuple(Token(say(each), each in own, sure.contains(each), possible.contains(each)) for each in found)


def token_rung(tokens: Sequence[Token], sure: Range, width_mm: float, measure: Measure) -> DisplayList:
    """Return the words of a rung as boxes in one line; what has no room is counted at its end.

    Parameters
    ----------
    tokens : from `tokens_of_rung`
    sure : what is allowed: where that is anything, or all but some words, it is said after the boxes
    width_mm : width on paper [mm]
    measure : measures a text
    """
    return DisplayList(tuple(_items(tokens, sure, width_mm, measure)), 1.0, (0.0, 0.0), (width_mm, HEIGHT_MM))


def _items(tokens: Sequence[Token], sure: Range, width_mm: float, measure: Measure) -> Iterator[Item]:
    x, foot = 0.2, (HEIGHT_MM - BOX_MM) / 2
    more_mm = measure("+99", TEXT_MM)
    for place, token in enumerate(tokens):
        width = measure(token.word, TEXT_MM) + 2 * PAD_MM
        room = width_mm - (more_mm + APART_MM if place < len(tokens) - 1 else 0.0)
        if x + width > room and place:
            yield Text(
                role="tick", at=(x, foot + 1.2), text=f"+{len(tokens) - place}", height_mm=TEXT_MM, anchor="start"
            )
            return
        corners = ((x, foot), (x + width, foot), (x + width, foot + BOX_MM), (x, foot + BOX_MM))
        yield Path(role=_role(token), points=corners, closed=True)
        role = "token_on" if token.stated and token.possible else "token_out" if token.stated else "value"
        yield Text(role=role, at=(x + PAD_MM, foot + 1.2), text=token.word, height_mm=TEXT_MM, anchor="start")
        x += width + APART_MM
    rest = _rest(sure)
    if rest and x + measure(rest, TEXT_MM) <= width_mm:
        yield Text(role="tick", at=(x, foot + 1.2), text=rest, height_mm=TEXT_MM, anchor="start")


def _role(token: Token) -> str:
    if token.stated:
        return "token_stated" if token.possible else "token_barred"
    return "token_allowed" if token.allowed else "token_possible"


def _rest(sure: Range) -> str:
    if is_any(sure):
        return "any is allowed"
    if isinstance(sure, Choices) and sure.but:
        return f"any but {', '.join(sorted(sure.tokens))}"
    return ""
