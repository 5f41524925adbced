"""The works file: drafts saved as they are typed, issued revisions that never change."""

from anlage.store.saver import Saver
from anlage.store.works import Draft, Entry, Revision, WorksFile, create_works, open_works

__all__ = ["Draft", "Entry", "Revision", "Saver", "WorksFile", "create_works", "open_works"]
