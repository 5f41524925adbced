"""Limits of preparations and fillets that are told beside a joint, each with its source."""

from collections.abc import Mapping
from types import MappingProxyType

import msgspec
import tomli


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


def read_joint_limits(text: str) -> Mapping[str, JointLimit]:
    """Return the limits written in `text` (TOML) by their id.

    Raises
    ------
    msgspec.ValidationError : a row is not what a limit is
    """
    rows = msgspec.convert(tomli.loads(text)["limit"], tuple[JointLimit, ...])
    return MappingProxyType({row.id: row for row in rows})
