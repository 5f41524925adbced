"""Sheets of paper as display lists: texts, rules, tables and pictures set from the top down, page after page.

Glossary
--------
page : a display list of scale 1 in millimetres of paper, its origin at the lower left corner
flow : a growing stack of pages; what no longer fits goes to the next one
"""

from collections.abc import Iterator, Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.drawing.display import Anchor, DisplayList, Item, Marker, Measure, Path, Point, Text

MARGIN_MM, FOOT_MM = 15.0, 22.0
BODY_MM, NOTE_MM, TITLE_MM, HEAD_MM = 2.3, 1.9, 4.6, 2.6  # heights of figures
STRONG_WIDER = 1.07  # semibold text against the measured regular one
BOX_MM = 3.0  # of a box to tick
LEAD = 2.1  # from line to line, in heights
PAPERS = {"a4": (210.0, 297.0), "letter": (215.9, 279.4)}


class Column(Struct, frozen=True):
    """One column of a table: its head, its share of the width, and whether it holds numbers."""

    head: str
    share: float
    numbers: bool = False


class Flow:
    """Sets a sheet from the top down.

    Parameters
    ----------
    paper : `a4` or `letter`
    measure : measures a text in the shipped font
    """

    def __init__(self, paper: str, measure: Measure) -> None:
        self.size = PAPERS[paper]
        self.measure = measure
        self.width = self.size[0] - 2 * MARGIN_MM
        self._pages: list[list[Item]] = [[]]
        self.y = self.size[1] - MARGIN_MM

    def room(self, height_mm: float) -> None:
        """Begin a new page when less than a height is left on this one."""
        if self.y - height_mm < FOOT_MM:
            self._pages.append([])
            self.y = self.size[1] - MARGIN_MM

    def put(self, item: Item) -> None:
        """Put an item on the page as it is."""
        self._pages[-1].append(item)

    def skip(self, height_mm: float) -> None:
        """Leave a space."""
        self.y -= height_mm

    def text(self, text: str, *, height_mm: float = BODY_MM, role: str = "print", indent_mm: float = 0.0) -> None:
        """Set a paragraph over the whole width, broken at blanks."""
        room = (self.width - indent_mm) / (STRONG_WIDER if role == "print_strong" else 1.0)
        for line in broken(text, room, height_mm, self.measure):
            self.room(height_mm * LEAD)
            self.y -= height_mm * LEAD
            at = (MARGIN_MM + indent_mm, self.y)
            self.put(Text(role=role, at=at, text=line, height_mm=height_mm, anchor="start"))

    def heading(self, text: str) -> None:
        """Set a heading over a rule; it keeps some lines of what follows on its page."""
        self.room(HEAD_MM * LEAD * 4)
        self.skip(HEAD_MM * 0.9)
        self.text(text, height_mm=HEAD_MM, role="print_strong")
        self.y -= 1.2
        self.rule()

    def rule(self) -> None:
        """Draw a line over the whole width."""
        self.put(Path(role="print_rule", points=((MARGIN_MM, self.y), (MARGIN_MM + self.width, self.y))))

    def pairs(self, rows: Sequence[tuple[str, str]], *, columns: int = 2) -> None:
        """Set names and values side by side, row by row."""
        each = self.width / columns
        for start in range(0, len(rows), columns):
            row = rows[start : start + columns]
            texts = [broken(value, each * 0.62 - 3, BODY_MM, self.measure) for _, value in row]
            self.room(max(map(len, texts)) * BODY_MM * LEAD)
            for place, ((name, _), lines) in enumerate(zip(row, texts, strict=True)):
                x = MARGIN_MM + place * each
                self._lines(x, [name], "print_muted")
                self._lines(x + each * 0.38, lines, "print")
            self.y -= max(map(len, texts)) * BODY_MM * LEAD

    def boxes(self, answers: Sequence[str]) -> None:
        """Set boxes to tick in one line, each before its answer."""
        self.room(BOX_MM * 2)
        self.y -= BOX_MM + 1.2
        x = MARGIN_MM
        for answer in answers:
            corners = ((x, self.y), (x + BOX_MM, self.y), (x + BOX_MM, self.y + BOX_MM), (x, self.y + BOX_MM))
            self.put(Path(role="print_rule", points=corners, closed=True))
            at = (x + BOX_MM + 1.6, self.y + (BOX_MM - BODY_MM) / 2)
            self.put(Text(role="print", at=at, text=answer, height_mm=BODY_MM, anchor="start"))
            x = at[0] + self.measure(answer, BODY_MM) + 6.0
        self.y -= 1.0

    def table(self, columns: Sequence[Column], rows: Sequence[Sequence[str]]) -> None:
        """Set a table; numbers stand at the right of their columns, and its heads come again on every page."""
        total = sum(column.share for column in columns)
        widths = [self.width * column.share / total for column in columns]
        heads = [column.head for column in columns]
        self._heads(columns, widths, heads)
        for row in rows:
            before = len(self._pages)
            height = self._height(widths, row)
            self.room(height)
            if len(self._pages) > before:
                self._heads(columns, widths, heads)
            self._row(columns, widths, row, "print")
        self.y -= 1.0

    def _heads(self, columns: Sequence[Column], widths: Sequence[float], heads: Sequence[str]) -> None:
        """Set the heads of a table over a rule."""
        self._row(columns, widths, heads, "print_muted")
        self.y -= 0.9  # clear of what hangs under the line
        self.rule()

    def _height(self, widths: Sequence[float], row: Sequence[str]) -> float:
        counts = [len(broken(cell, width - 2, BODY_MM, self.measure)) for cell, width in zip(row, widths, strict=True)]
        return max(counts) * BODY_MM * LEAD

    def _row(self, columns: Sequence[Column], widths: Sequence[float], row: Sequence[str], role: str) -> None:
        x = MARGIN_MM
        for column, width, cell in zip(columns, widths, row, strict=True):
            lines = broken(cell, width - 2, BODY_MM, self.measure)
            self._lines(x + (width - 2 if column.numbers else 0), lines, role, "end" if column.numbers else "start")
            x += width
        self.y -= self._height(widths, row) + 0.3

    def _lines(self, x: float, lines: Sequence[str], role: str, anchor: Anchor = "start") -> None:
        for count, line in enumerate(lines, 1):
            at = (x, self.y - count * BODY_MM * LEAD)
            self.put(Text(role=role, at=at, text=line, height_mm=BODY_MM, anchor=anchor))

    def picture(self, picture: DisplayList, *, x_mm: float) -> None:
        """Place a picture with its upper left corner at the cursor; the cursor stays."""
        for item in _on_paper(picture, (x_mm, self.y)):
            self.put(item)

    def pages(self, foot: str) -> tuple[DisplayList, ...]:
        """Return the finished pages, each with a foot line and its number."""
        found = []
        width, height = self.size
        for number, items in enumerate(self._pages, 1):
            line = Path(role="print_rule", points=((MARGIN_MM, FOOT_MM - 5), (width - MARGIN_MM, FOOT_MM - 5)))
            texts = (("start", MARGIN_MM, foot), ("end", width - MARGIN_MM, f"page {number} of {len(self._pages)}"))
            feet = [
                Text(role="print_muted", at=(x, FOOT_MM - 9), text=text, height_mm=NOTE_MM, anchor=anchor)  # type: ignore[arg-type]
                for anchor, x, text in texts
            ]
            found.append(DisplayList((*items, line, *feet), 1.0, (0.0, 0.0), (width, height)))
        return tuple(found)


def _on_paper(picture: DisplayList, corner_mm: Point) -> Iterator[Item]:
    """Yield the items of a picture in paper millimetres, its upper left corner at a point, without handles."""
    (left, _), (_, high) = picture.low, picture.high
    scale = picture.scale

    def moved(point: Point) -> Point:
        return ((point[0] - left) * scale + corner_mm[0], (point[1] - high) * scale + corner_mm[1])

    for item in picture.items:
        if isinstance(item, Path):
            yield replace(item, points=tuple(map(moved, item.points)), target="")
        elif not (isinstance(item, Marker) and item.kind == "handle"):
            yield replace(item, at=moved(item.at), target="")


def on_page(picture: DisplayList, *, margin_mm: float = 8.0) -> DisplayList:
    """Return a picture as a page of its own size, in paper millimetres."""
    width, height = ((high - low) * picture.scale for low, high in zip(picture.low, picture.high, strict=True))
    size = (width + 2 * margin_mm, height + 2 * margin_mm)
    return DisplayList(tuple(_on_paper(picture, (margin_mm, margin_mm + height))), 1.0, (0.0, 0.0), size)


def broken(text: str, width_mm: float, height_mm: float, measure: Measure) -> list[str]:
    """Return a text in lines no wider than a width, broken at blanks; a word too wide stands alone.

    Examples
    --------
    >>> broken("one two three", 8.0, 1.0, lambda text, height: len(text) * height)
    ['one two', 'three']
    """
    lines = [""]
    for word in text.split(" "):
        longer = f"{lines[-1]} {word}" if lines[-1] else word
        if not lines[-1] or measure(longer, height_mm) <= width_mm:
            lines[-1] = longer
        else:
            lines.append(word)
    return lines
