"""Help inside the window: the guide at the page of the place in front, every shortcut, and a search over both."""

from collections.abc import Mapping, Sequence
from typing import TYPE_CHECKING

from PySide6.QtCore import Qt
from PySide6.QtGui import QTextCursor
from PySide6.QtWidgets import QDialog, QHBoxLayout, QListWidget, QTextBrowser, QVBoxLayout

from anlage.data.guide import guide_pages
from anlage.ui.kit.text_line import TextLine

if TYPE_CHECKING:
    from anlage.ui.desk.desk import WindowDesk

SHORTCUTS = "Shortcuts"
BY_HAND = (
    ("Walk the dimensions of a drawing", "Tab"),
    ("Step a number or a dimension", "Up, Down, PgUp, PgDn"),
    ("Type a dimension where it stands", "Enter, or a digit"),
    ("Drag without steps", "Shift"),
    ("Go nearer to a drawing, or farther", "wheel, +, -"),
    ("Move a drawing that is near", "wheel button, arrow keys"),
    ("Drawing as at first, or all of it", "Home, End"),
    ("Take a word that is offered", "Down, Enter"),
    ("Change several passes at once", "Shift+Down, type, Enter"),
    ("Take passes to the clipboard, and from it", "Ctrl+C, Ctrl+V"),
)


class HelpDialog(QDialog):
    """Pages at the left, the page that is read at the right; the window stays usable beside it."""

    def __init__(self, desk: "WindowDesk") -> None:
        super().__init__(desk.shell)
        self.setWindowTitle("Help")
        self.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
        room = desk.shell.size()
        self.resize(min(860, room.width() - 40), min(600, room.height() - 40))
        pages = dict(guide_pages())
        for spec in desk.specs:
            keys = [(each.text, each.keys) for each in spec.commands]
            pages[spec.word] = f"{pages[spec.word]}\n\n{_table([(f'Go to {spec.word}', spec.keys), *keys])}"
        self.pages: Mapping[str, str] = {**pages, SHORTCUTS: shortcuts(desk)}
        self.search, self.list, self.page = TextLine(), QListWidget(), QTextBrowser()
        self.search.setPlaceholderText("Search the guide and the shortcuts")
        self.search.setAccessibleName("Search the guide and the shortcuts")
        self.list.setAccessibleName("Pages")
        self.list.setFixedWidth(230)
        self.page.setAccessibleName("Page")
        self.page.setOpenLinks(False)
        left, row = QVBoxLayout(), QHBoxLayout(self)
        left.addWidget(self.search)
        left.addWidget(self.list, 1)
        row.addLayout(left)
        row.addWidget(self.page, 1)
        self.search.textChanged.connect(self._on_search)
        self.list.currentTextChanged.connect(self._show)
        self._on_search("")

    def show_page(self, title: str) -> None:
        """Show a page; the first one where there is none of that name."""
        self.search.clear()
        found = self.list.findItems(title, Qt.MatchFlag.MatchExactly)
        self.list.setCurrentItem(found[0] if found else self.list.item(0))
        self.list.setFocus()

    def _on_search(self, text: str) -> None:
        """List the pages that hold every word, and show the first."""
        words = text.casefold().split()
        self.list.clear()
        self.list.addItems([
            title for title, page in self.pages.items() if all(word in page.casefold() for word in words)
        ])  # fmt: skip
        self.list.setCurrentRow(0)

    def _show(self, title: str) -> None:
        self.page.setMarkdown(self.pages.get(title, "Nothing here has all of these words."))
        self.page.document().setDocumentMargin(16)
        self.page.moveCursor(QTextCursor.MoveOperation.Start)
        if words := self.search.text().split():
            self.page.find(words[0])


def shortcuts(desk: "WindowDesk") -> str:
    """Return every command with its shortcut as a page."""
    rows = [(action.text(), action.shortcut().toString()) for action in desk.shell.commands]
    return f"## {SHORTCUTS}\n\n{_table([*rows, *BY_HAND])}"


def _table(rows: Sequence[tuple[str, str]]) -> str:
    return "\n".join(["| | |", "|---|---|", *(f"| {text} | `{keys}` |" for text, keys in rows if keys)])


def ask(desk: "WindowDesk", page: str = "") -> HelpDialog:
    """Show the guide at a page, that of the place in front unless another is wanted."""
    word = next((spec.word for spec in desk.specs if spec.id == desk.place), "")
    dialog = next((each for each in desk.shell.findChildren(HelpDialog) if each.isVisible()), None)
    if dialog is None:
        dialog = HelpDialog(desk)
        desk.shell.closing.connect(dialog.close)
        dialog.show()
    dialog.show_page(page or word)
    dialog.activateWindow()
    return dialog
