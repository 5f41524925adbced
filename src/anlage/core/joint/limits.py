"""Limits of preparations and fillets that are told beside a joint, each with its source."""

from collections.abc import Mapping

import msgspec

from anlage.core.toml_rows import rows_by_id


class JointLimit(msgspec.Struct, frozen=True, forbid_unknown_fields=True):
    """One limit: its value in the unit that ends its id, what it says, where it comes from."""

    id: str
    value: float
    what: str
    source: str
    confidence: str

    @property
    def origin(self) -> str:
        """Source and confidence in one line."""
        return f"{self.source}, {self.confidence}"


def read_joint_limits(text: str, *, where: str = "joint_limits.toml") -> Mapping[str, JointLimit]:
    """Return the limits written in `text` (TOML) by their id.

    Raises
    ------
    FormatError : a row is not what a limit is, or a limit comes twice
    """
    return rows_by_id(text, "limit", JointLimit, where=where)
