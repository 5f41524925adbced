"""The positions that a text lists."""

from collections.abc import Mapping

from anlage.core.catalogue.names import plain_key
from anlage.data.tables import vocabulary


def listed(text: str | None) -> Mapping[str, str]:
    """Return the words that a text lists as positions, each with the position that it means, "" for none.

    Examples
    --------
    >>> dict(listed("PA, 3G and as it comes")), dict(listed(None))
    ({'PA': '1G', '3G': '3G', 'as it comes': ''}, {})
    """
    known = vocabulary().spellings["position"]
    words = (word.strip() for word in (text or "").replace(";", ",").replace(" and ", ",").split(","))
    return {word: known.get(plain_key(word), "") for word in words if word}
