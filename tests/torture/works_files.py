"""Works files from outside: each opens, or is refused with one sentence, and none is changed by looking at it."""

import random
import signal
import sqlite3
from collections import Counter
from collections.abc import Iterator
from contextlib import closing, contextmanager, suppress
from pathlib import Path
from types import FrameType

from anlage.core.errors import AnlageError
from anlage.session.works.demo import demo_file
from anlage.session.works.open_works import OpenWorks
from anlage.session.works.register import Standpoint
from anlage.session.works.register_rows import RegisterRows
from anlage.store import inspect_works, open_works
from anlage.store.rescue import recover
from tests.torture.documents import FoundError, assessor
from tests.torture.mutations import NASTY, mutated

NOW = "2026-11-23T12:00:00Z"
HANGS_S = 20
COLUMNS = (
    ("documents", "kind"), ("documents", "number"), ("documents", "title"), ("documents", "deleted_at"),
    ("drafts", "body"), ("drafts", "pending"), ("drafts", "sha256"), ("drafts", "document_id"), ("revisions", "body"),
    ("revisions", "sha256"), ("revisions", "author"), ("revisions", "number"), ("links", "sha256"), ("documents", "id"),
)  # fmt: skip
PLANTED = (
    "CREATE TRIGGER planted AFTER INSERT ON drafts BEGIN DELETE FROM documents; END",
    "CREATE VIEW planted AS WITH RECURSIVE n(x) AS (SELECT 1 UNION ALL SELECT x + 1 FROM n) SELECT x FROM n",
    "CREATE TABLE planted (x)", "DROP TABLE drafts", "DROP TABLE revisions", "DELETE FROM drafts", "DELETE FROM links",
    "DELETE FROM documents", "PRAGMA user_version = 77", "PRAGMA application_id = 5", "PRAGMA journal_mode = WAL",
    "ALTER TABLE drafts ADD COLUMN x", "CREATE INDEX planted ON drafts (body)",
)  # fmt: skip


class HangsError(BaseException):
    """Nothing came of it in time."""


@contextmanager
def in_time(seconds: int) -> Iterator[None]:
    """Cut short what takes longer than any person waits."""

    def late(_number: int, _frame: FrameType | None) -> None:
        raise HangsError

    before = signal.signal(signal.SIGALRM, late)
    signal.alarm(seconds)
    try:
        yield
    finally:
        signal.alarm(0)
        signal.signal(signal.SIGALRM, before)


def sound_file(folder: Path) -> Path:
    """Return a works file with documents, revisions and a document that was put away."""
    path = demo_file(NOW, folder=folder)
    with closing(_works(path)) as works:
        for entry in works.entries()[:2]:
            for author in ("A. Maker", "B. Maker"):
                works.issue(entry.id, works.read(entry.id)[0], author=author)
        works.delete(works.entries()[2].id)
    return path


def _works(path: Path) -> OpenWorks:
    return OpenWorks(path, now=lambda: NOW, told=lambda _faults: None)


def damage(dice: random.Random, path: Path) -> None:
    """Damage a works file in one of the ways in which that happens, or is done."""
    whole = bytearray(path.read_bytes()) or bytearray(1)
    way = dice.randrange(8)
    if way == 0:
        for _ in range(dice.choice((1, 3, 40))):
            whole[dice.randrange(len(whole))] = dice.randrange(256)
    elif way == 1:
        page = dice.randrange(len(whole) // 4096 + 1) * 4096
        whole[page : page + 4096] = dice.choice((bytes(4096), dice.randbytes(4096), whole[:4096]))
    elif way == 2:
        del whole[dice.randrange(len(whole)) :]
    elif way == 3:
        whole[dice.randrange(min(len(whole), 100))] = dice.randrange(256)  # of the header
    elif way == 4:
        whole += dice.randbytes(dice.choice((1, 4096, 100_000)))
    else:
        _by_hand(dice, path, way)
        return
    path.write_bytes(whole)


def _by_hand(dice: random.Random, path: Path, way: int) -> None:
    with closing(sqlite3.connect(path)) as connection, suppress(sqlite3.Error, OverflowError, UnicodeError), connection:
        for (name,) in connection.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'").fetchall():
            connection.execute(f'DROP TRIGGER "{name}"')
        if way == 5:
            connection.execute(dice.choice(PLANTED))
            return
        table, column = dice.choice(COLUMNS)
        value = dice.choice((*(each for each in NASTY if not isinstance(each, (list, dict))), b"\xff\xfe", b"\x00"))
        if column == "body" and dice.random() < 0.7:
            own = connection.execute(f"SELECT rowid, body FROM {table}").fetchall()  # noqa: S608 - names of ours
            row, body = dice.choice(own)
            text = body if isinstance(body, str) else body.decode()
            value = mutated(dice, text).encode(errors="surrogatepass")
            connection.execute(f"UPDATE {table} SET body = ? WHERE rowid = ?", (value, row))  # noqa: S608 - see above
            return
        where = "" if dice.random() < 0.3 else f"WHERE rowid = (SELECT rowid FROM {table} ORDER BY random() LIMIT 1)"  # noqa: S608
        connection.execute(f"UPDATE {table} SET {column} = ? {where}", (value,))  # noqa: S608 - see above


def check(path: Path, beside: Path) -> str:
    """Return how a works file is taken: `refused`, `told` or `sound`.

    Raises
    ------
    FoundError : it was changed by looking at it, or something other than a sentence came
    """
    before = path.read_bytes()
    taken: set[str] = set()
    for look in (_read, _inspect, _opened_for_work, _recovered):
        try:
            taken.add(look(path, beside))
        except AnlageError as fault:
            if len(str(fault).splitlines()) != 1:
                raise FoundError(f"no sentence: {str(fault)[:200]!r}") from fault
            taken.add("refused")
        if path.read_bytes() != before:
            raise FoundError(f"{look.__name__} changed it")
    return "refused" if "refused" in taken else "told" if "told" in taken else "sound"


def _read(path: Path, _beside: Path) -> str:
    with open_works(path, read_only=True) as works:
        for entry in (*works.entries(), *works.entries(deleted=True)):
            works.draft(entry.id)
            works.revisions(entry.id)
        works.stamps()
    return "sound"


def _inspect(path: Path, _beside: Path) -> str:
    with inspect_works(path) as works:
        return "told" if works.verify() or works.verify_drafts() else "sound"


def _opened_for_work(path: Path, _beside: Path) -> str:
    with closing(_works(path)) as works:
        rows = RegisterRows(works, lambda: None).rows(Standpoint("si", NOW[:10]), assessor)
    return "told" if any(row.state == "cannot be read" for row in rows) else "sound"


def _recovered(path: Path, beside: Path) -> str:
    beside.unlink(missing_ok=True)
    found = recover(path, beside, now=NOW)
    with open_works(beside) as works:
        for entry in works.entries():
            works.draft(entry.id)
    return "told" if found.notices else "sound"


def fuzz(seed: int, count: int, folder: Path, keep: Path | None = None) -> Counter[str]:
    """Return how many works files were taken how; faults are counted by what they are, and their files kept.

    Parameters
    ----------
    seed : of the dice
    count : works files
    folder : where they are made
    keep : the folder that takes each file with a fault
    """
    dice, found = random.Random(seed), Counter[str]()
    whole = sound_file(folder).read_bytes()
    path = folder / "damaged.anlage"
    for number in range(count):
        path.write_bytes(whole)
        for _ in range(dice.choice((1, 1, 2))):
            damage(dice, path)
        given = path.read_bytes()
        try:
            with in_time(HANGS_S):
                found[check(path, folder / "recovered.anlage")] += 1
        except (Exception, HangsError) as fault:  # noqa: BLE001 - whatever comes is counted
            name = f"FAULT {type(fault).__name__}: {str(fault)[:90]!r}"
            found[name] += 1
            if keep is not None and found[name] == 1:
                keep.mkdir(parents=True, exist_ok=True)
                (keep / f"{seed}-{number}.anlage").write_bytes(given)
    return found
