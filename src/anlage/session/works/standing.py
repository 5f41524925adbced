"""Whether a procedure is a revision as issued, or a draft."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Standing:
    """Which state of a procedure is printed: a revision as issued, or a draft; `sha256` is that of what is printed."""

    sha256: str
    revision: int | None = None  # the last issued one
    is_issued: bool = False  # what is printed is that revision, to the byte
    author: str = ""
    issued_at: str = ""

    def words(self) -> str:
        """Return the state in words; only what was issued is called so."""
        if self.is_issued:
            return f"revision {self.revision}, issued {self.issued_at[:10]} by {self.author}"
        return f"draft after revision {self.revision}, not issued" if self.revision else "draft, not issued"

    def badge(self) -> str:
        """Return the state in the fewest words."""
        if self.is_issued:
            return f"revision {self.revision}"
        return f"draft after {self.revision}" if self.revision else "draft"
