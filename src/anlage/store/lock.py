"""One writer a works file: a lock on a side file, with the name of who holds it for whoever comes second."""

import fcntl
import os
from pathlib import Path

MOST_NAME = 200  # bytes of the side file that are read


class WriterLock:
    """Holds the side file `NAME.anlage.lock`; the system lets go when the process ends, however it ends."""

    def __init__(self, works: Path) -> None:
        self.path = works.with_name(works.name + ".lock")
        self._descriptor: int | None = None

    def take(self, holder: str) -> bool:
        """Take the lock and write who holds it; return whether it was to be had."""
        try:
            descriptor = os.open(self.path, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o644)
        except OSError:
            return False
        try:
            fcntl.flock(descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
        except OSError:
            os.close(descriptor)
            return False
        os.ftruncate(descriptor, 0)
        os.pwrite(descriptor, holder.encode()[:MOST_NAME], 0)
        self._descriptor = descriptor
        return True

    def holder(self) -> str:
        """Return who holds it, as that one wrote; "" when nobody can be named."""
        try:
            with self.path.open("rb") as side:
                return side.read(MOST_NAME).decode(errors="replace").strip()
        except OSError:
            return ""

    def release(self) -> None:
        """Let go. The side file stays: taking it away would let two writers in."""
        if self._descriptor is not None:
            os.ftruncate(self._descriptor, 0)
            os.close(self._descriptor)
            self._descriptor = None
