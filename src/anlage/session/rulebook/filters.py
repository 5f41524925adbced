"""Which rules a reader wants to see."""

from collections.abc import Mapping
from types import MappingProxyType

from msgspec import Struct

from anlage.session.rulebook.entries import RuleEntry

EVERY, UNCHECKED, CHECKED, CORRECTED, DOUBTFUL, STALE = "", "unchecked", "checked", "corrected", "doubtful", "stale"
WHICH: Mapping[str, str] = MappingProxyType({
    EVERY: "Every rule", UNCHECKED: "Not checked yet", CHECKED: "Checked", CORRECTED: "Corrected",
    DOUBTFUL: "In doubt: M and L", STALE: "Check that lapsed",
})  # fmt: skip


class Filter(Struct, frozen=True):
    """Words that a rule must have, a process that it may concern, and what became of it."""

    words: str = ""
    process: str = ""
    which: str = EVERY

    def takes(self, entry: RuleEntry) -> bool:
        """Return whether a rule is wanted."""
        said = f"{entry.clause} {entry.title} {entry.limits} {entry.category} {entry.note} {entry.id}".casefold()
        return (
            all(word in said for word in self.words.casefold().split())
            and (not self.process or entry.is_for(self.process))
            and self._is_so(entry)
        )

    def _is_so(self, entry: RuleEntry) -> bool:
        return {
            UNCHECKED: not entry.checks, CHECKED: bool(entry.checks), CORRECTED: entry.overlay is not None,
            DOUBTFUL: entry.confidence != "H", STALE: bool(entry.stale) and not entry.checks,
        }.get(self.which, True)  # fmt: skip
