"""Who has a works file open: one writer a file, known by the file itself and not by its name.

The lock lies on the file, so that a link, another name or another folder leads to the same one, and the system lets go
when the process ends, however it ends. The name of the writer lies in a side file for whoever comes second; it decides
nothing.

Closing any descriptor of a file drops the locks that the database of this process holds on it. Therefore a process
keeps one descriptor a file, for as long as anybody in it has the file open.
"""

import fcntl
import os
import stat
import threading
from contextlib import suppress
from pathlib import Path

from msgspec import Struct

from anlage.core.errors import FormatError

MOST_NAME = 200  # bytes of the side file that are read
Identity = tuple[int, int]  # device and inode


class _Shared(Struct):
    """One descriptor of this process, by how many it is used, and who of them writes."""

    descriptor: int
    users: int = 0
    holder: str | None = None


_OPEN: dict[Identity, _Shared] = {}
_OPEN_GUARD = threading.Lock()


def identity(path: Path) -> Identity | None:
    """Return which file a path leads to, by device and inode; `None` where it leads to none."""
    with suppress(OSError, ValueError):
        found = path.stat()
        return found.st_dev, found.st_ino
    return None


class Hold:
    """One use of a file, from before its database is opened until after it is closed.

    Raises
    ------
    FormatError : there is no such file, it may not be read, or it is a folder, a pipe or a device
    """

    def __init__(self, path: Path) -> None:
        self.path = path
        self.writes = False
        with _OPEN_GUARD:
            self.identity, self._shared = _descriptor(path)
            self._shared.users += 1
            self._is_held = True

    def header(self, size: int) -> bytes:
        """Return the first bytes of the file."""
        return os.pread(self._shared.descriptor, size, 0)

    def take(self, holder: str) -> bool:
        """Become the one who writes, under a name; return whether nobody else was."""
        with _OPEN_GUARD:
            if self._shared.holder is not None:
                return self.writes
            try:
                fcntl.flock(self._shared.descriptor, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except OSError:
                return False
            self._shared.holder, self.writes = holder, True
        _write_name(self.path, holder)
        return True

    def holder(self) -> str:
        """Return who writes, as that one is called; "" when nobody can be named."""
        own = self._shared.holder
        return own if own is not None else _read_name(self.path)

    def now_at(self) -> Path | None:
        """Return where the file lies now, whatever it was renamed to; `None` where it was removed."""
        with suppress(OSError):
            if identity(self.path) == self.identity:
                return self.path
            found = Path(f"/proc/self/fd/{self._shared.descriptor}").readlink()
            return found if identity(found) == self.identity else None
        return None

    def stop_writing(self) -> None:
        """Let another write, and go on reading."""
        with _OPEN_GUARD:
            if self.writes:
                self._stop_writing()

    def _stop_writing(self) -> None:
        self.writes, self._shared.holder = False, None
        _remove_name(self.path)
        fcntl.flock(self._shared.descriptor, fcntl.LOCK_UN)

    def release(self) -> None:
        """Let go, once the database is closed."""
        with _OPEN_GUARD:
            if not self._is_held:
                return
            self._is_held = False
            if self.writes:
                self._stop_writing()
            self._shared.users -= 1
            if not self._shared.users:
                del _OPEN[self.identity]
                os.close(self._shared.descriptor)


def _descriptor(path: Path) -> tuple[Identity, _Shared]:
    own = identity(path)
    if own in _OPEN:
        assert own is not None, "what is open has an identity"
        return own, _OPEN[own]
    try:  # without waiting: a pipe would keep the caller for ever
        descriptor = os.open(path, os.O_RDONLY | os.O_NONBLOCK | os.O_CLOEXEC)
    except FileNotFoundError as fault:
        raise FormatError("there is no such file", where=path.name, mend="check the name and folder") from fault
    except (OSError, ValueError) as fault:
        raise FormatError("it cannot be read", where=path.name, mend="ask for the right to read it") from fault
    found = os.fstat(descriptor)
    if not stat.S_ISREG(found.st_mode):
        os.close(descriptor)
        what = "it is a folder" if stat.S_ISDIR(found.st_mode) else "it is no file but a pipe or device"
        raise FormatError(what, where=path.name or str(path), mend="choose a file that ends in .anlage")
    own = found.st_dev, found.st_ino
    return own, _OPEN.setdefault(own, _Shared(descriptor))  # was it opened meanwhile, the second is never closed


# The name of who writes ----------------------------------------------------------------------


def _side_file(path: Path) -> Path:
    real = path.resolve()
    return real.with_name(f"{real.name}.lock")


def _write_name(path: Path, holder: str) -> None:
    with suppress(OSError):  # and never through a link, nor into a pipe
        flags = os.O_WRONLY | os.O_CREAT | os.O_NOFOLLOW | os.O_NONBLOCK | os.O_CLOEXEC
        descriptor = os.open(_side_file(path), flags, 0o644)
        try:
            if stat.S_ISREG(os.fstat(descriptor).st_mode):
                os.ftruncate(descriptor, 0)
                os.pwrite(descriptor, holder.encode(errors="replace")[:MOST_NAME], 0)
        finally:
            os.close(descriptor)


def _read_name(path: Path) -> str:
    with suppress(OSError):
        descriptor = os.open(_side_file(path), os.O_RDONLY | os.O_NOFOLLOW | os.O_NONBLOCK | os.O_CLOEXEC)
        try:
            if stat.S_ISREG(os.fstat(descriptor).st_mode):
                return os.pread(descriptor, MOST_NAME, 0).decode(errors="replace").strip()
        finally:
            os.close(descriptor)
    return ""


def _remove_name(path: Path) -> None:
    with suppress(OSError):
        side = _side_file(path)
        if stat.S_ISREG(os.lstat(side).st_mode):
            side.unlink()
