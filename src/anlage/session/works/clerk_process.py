"""The clerk in a process of its own: the window stays free however many documents there are."""

import signal
from collections.abc import Iterable, Mapping, Sequence
from multiprocessing import get_context
from multiprocessing.connection import Connection

from anlage.session.works.clerk import Clerk
from anlage.session.works.filed import Filed
from anlage.session.works.register import RegisterRow, Standpoint


class ClerkProcess:
    """Passes on what a clerk is asked; the process starts with this and ends with `close`, or with its maker.

    Every call waits for its answer: ask on a thread that may.
    """

    def __init__(self) -> None:
        context = get_context("spawn")  # a copy of a process with a window and threads would be a trap
        self._own, other = context.Pipe()
        self._process = context.Process(target=_serve, args=(other,), name="register", daemon=True)
        self._process.start()
        other.close()

    def take(self, filed: Sequence[Filed], order: Sequence[str], books: Mapping[str, str]) -> None:
        """See `Clerk.take`.

        Raises
        ------
        OSError, EOFError : the process is gone
        """
        self._own.send((list(filed), (list(order), dict(books))))
        self._own.recv()

    def rows(self, ids: Iterable[str], seen: Standpoint) -> tuple[RegisterRow, ...]:
        """See `Clerk.rows`.

        Raises
        ------
        OSError, EOFError : the process is gone
        """
        self._own.send((list(ids), seen))
        found: tuple[RegisterRow, ...] = self._own.recv()
        return found

    def close(self) -> None:
        """End the process."""
        self._process.kill()  # it holds nothing but copies
        self._process.join()
        self._own.close()


def _serve(line: Connection) -> None:
    """Answer until the other end is gone."""
    signal.signal(signal.SIGINT, signal.SIG_IGN)  # meant for the window, which then ends this
    clerk = Clerk()
    while True:
        try:
            asked, beside = line.recv()
        except EOFError:
            return
        if isinstance(beside, tuple):
            clerk.take(asked, *beside)
            line.send(None)
        else:
            line.send(clerk.rows(asked, beside))
