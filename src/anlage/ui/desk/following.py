"""A second reader of a works file sees what its writer does: looked for once a second, shown where it differs."""

from collections.abc import Callable, Mapping

from PySide6.QtCore import QObject, QTimer

from anlage.core.errors import AnlageError
from anlage.session.works.open_works import OpenWorks

EVERY_MS = 1000


class Following(QObject):
    """Looks for what another program wrote, while a works file is open for reading only.

    Parameters
    ----------
    changed : called with the ids of the documents that are others now, come or gone
    """

    def __init__(self, changed: Callable[[set[str]], None], parent: QObject) -> None:
        super().__init__(parent)
        self._changed = changed
        self._works: OpenWorks | None = None
        self._seen: Mapping[str, str] = {}
        self._timer = QTimer(self, interval=EVERY_MS)
        self._timer.timeout.connect(self.look)

    def follow(self, works: OpenWorks | None) -> None:
        """Follow a works file that somebody else writes; none, or one that is written here, needs no following."""
        self._works = works if works is not None and not works.can_write else None
        self._seen = self._stamps()
        if self._works is None:
            self._timer.stop()
        else:
            self._timer.start()

    def look(self) -> None:
        """Look now."""
        now = self._stamps()
        others = {own for own in now.keys() | self._seen.keys() if now.get(own) != self._seen.get(own)}
        if others:
            self._seen = now
            self._changed(others)

    def _stamps(self) -> Mapping[str, str]:
        """Return of every document what is another text once it changes; as last seen while the file is busy."""
        if self._works is None:
            return {}
        try:
            return self._works.stamps()
        except AnlageError:
            return self._seen
