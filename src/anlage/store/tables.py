"""The tables of a works file, and the marks by which it is known before anything in it is believed."""

from sqlalchemy import DDL, CheckConstraint, Column, ForeignKey, Integer, LargeBinary, MetaData, Table, Text, event

APPLICATION_ID = 0x414E4C47  # "ANLG", at byte 68 of the file
LAYOUT = 1  # user_version, at byte 60; a file of a higher layout is not opened

metadata = MetaData()

documents = Table(
    "documents",
    metadata,
    Column("id", Text, primary_key=True),
    Column("kind", Text, nullable=False),  # the format of its JSON: anlage-wps, anlage-pqr
    Column("number", Text, nullable=False, default=""),
    Column("title", Text, nullable=False, default=""),
    Column("created_at", Text, nullable=False),  # UTC, ISO 8601
    Column("deleted_at", Text),  # kept until emptied
)

drafts = Table(
    "drafts",
    metadata,
    Column("document_id", Text, ForeignKey("documents.id"), primary_key=True),
    Column("body", LargeBinary, nullable=False),  # the document as JSON, its last good value
    Column("pending", Text, nullable=False, default="{}"),  # texts that do not parse, by field path, as JSON
    Column("saved_at", Text, nullable=False),
)

revisions = Table(
    "revisions",
    metadata,
    Column("document_id", Text, ForeignKey("documents.id"), primary_key=True),
    Column("number", Integer, CheckConstraint("number >= 1"), primary_key=True),
    Column("body", LargeBinary, nullable=False),
    Column("sha256", Text, nullable=False),  # over the bytes of body
    Column("author", Text, nullable=False),
    Column("issued_at", Text, nullable=False),
)

# Belt to the braces of the hash: the database itself refuses to change what was issued.
for action in ("UPDATE", "DELETE"):
    trigger = (
        f"CREATE TRIGGER issued_revisions_stay_{action.lower()} BEFORE {action} ON revisions "
        "BEGIN SELECT RAISE(ABORT, 'an issued revision never changes'); END"
    )
    event.listen(revisions, "after_create", DDL(trigger))  # type: ignore[no-untyped-call]
