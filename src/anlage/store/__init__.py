"""The works file: drafts saved as they are typed, issued revisions that never change."""

from anlage.store.copies import copies_of, copy_as, keep_copy
from anlage.store.faults import ConflictError, HeldError
from anlage.store.opening import build_beside, create_works, exchange, inspect_works, is_works_file, open_works
from anlage.store.saver import Saver
from anlage.store.works import Draft, Entry, Revision, WorksFile

__all__ = [
    "ConflictError", "Draft", "Entry", "HeldError", "Revision", "Saver", "WorksFile", "build_beside", "copies_of",
    "copy_as", "create_works", "exchange", "inspect_works", "is_works_file", "keep_copy", "open_works",
]  # fmt: skip
