"""The chain of a works file: every issued revision linked to the one issued before it, whatever its document.

A link is the SHA-256 over the link before, the document, its revision, who issued it, when, the hash of its body, and
when it was linked. Whoever changes, exchanges or takes out a revision has to make every later link anew, and then no
link that was printed on a sheet stands any more.
"""

import hashlib
import json
import sqlite3
from collections.abc import Mapping

from msgspec import Struct

from anlage.core.results import Notice


class Link(Struct, frozen=True):
    """One link: its place in the chain, the revision it is of, when that was issued and linked, its hash."""

    place: int
    document_id: str
    number: int
    linked_at: str
    sha256: str
    issued_at: str

    @property
    def is_late(self) -> bool:
        """Whether the revision is older than the chain, which proves nothing of the time before."""
        return self.linked_at != self.issued_at


def link_hash(before: str, revision: sqlite3.Row, linked_at: str) -> str:
    """Return the hash of the link of a revision; `before` is that of the link before, "" for the first."""
    said = [before, *(revision[name] for name in ("document_id", "number", "author", "issued_at", "sha256")), linked_at]
    # What a foreign hand put there as bytes is none of what was linked.
    text = json.dumps(said, ensure_ascii=True, default=repr)
    return hashlib.sha256(text.encode(errors="surrogatepass")).hexdigest()


def links_of(connection: sqlite3.Connection) -> tuple[Link, ...]:
    """Return the chain, first link first."""
    query = """
        SELECT place, links.document_id, links.number, linked_at, links.sha256, coalesce(issued_at, '')
        FROM links LEFT JOIN revisions
          ON revisions.document_id = links.document_id AND revisions.number = links.number
        ORDER BY place
    """
    return tuple(Link(*row) for row in connection.execute(query))


def add_link(connection: sqlite3.Connection, revision: sqlite3.Row, linked_at: str) -> str:
    """Link a revision that stands in the file to the last one, and return the hash of its link."""
    last = connection.execute("SELECT sha256 FROM links ORDER BY place DESC LIMIT 1").fetchone()
    own = link_hash(last["sha256"] if last else "", revision, linked_at)
    values = (revision["document_id"], revision["number"], linked_at, own)
    connection.execute("INSERT INTO links (document_id, number, linked_at, sha256) VALUES (?, ?, ?, ?)", values)
    return own


def link_all(connection: sqlite3.Connection, linked_at: str) -> None:
    """Link the revisions of a file that had no chain yet, in the order in which they were issued."""
    query = "SELECT * FROM revisions ORDER BY issued_at, rowid"
    for revision in connection.execute(query).fetchall():
        add_link(connection, revision, linked_at)


def faults_of_chain(connection: sqlite3.Connection, called: Mapping[str, str]) -> tuple[Notice, ...]:
    """Return a notice for every link that does not hold.

    Parameters
    ----------
    called : by the id of a document, what it is called
    """
    rows = {(row["document_id"], row["number"]): row for row in connection.execute("SELECT * FROM revisions")}
    notices: list[Notice] = []
    before, place = "", 0
    for link in links_of(connection):
        at = f"{called.get(link.document_id, link.document_id)}@{link.number}"
        revision = rows.pop((link.document_id, link.number), None)
        if link.place != place + 1:
            notices.append(Notice.of("works.link_missing", at, f"before {at} a link of the chain is gone"))
        if revision is None:
            notices.append(Notice.of("works.revision_missing", at, f"{at} was issued and is gone"))
        elif link_hash(before, revision, link.linked_at) != link.sha256:
            text = f"{at} does not hold in the chain: it, its author, its date or what was issued before is another"
            notices.append(Notice.of("works.link_broken", at, text))
        before, place = link.sha256, link.place
    for document_id, number in rows:
        at = f"{called.get(document_id, document_id)}@{number}"
        notices.append(Notice.of("works.link_missing", at, f"{at} has no link in the chain: it was not issued here"))
    given = connection.execute("SELECT seq FROM sqlite_sequence WHERE name = 'links'").fetchone()
    if given is not None and given["seq"] != place:
        text = f"the chain ended at {given['seq']} and ends at {place}"
        notices.append(Notice.of("works.link_missing", "chain", text))
    return tuple(notices)
