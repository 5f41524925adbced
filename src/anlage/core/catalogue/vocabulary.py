"""One vocabulary: the canonical token of every word of the trade, in AWS and ISO spelling."""

from collections.abc import Mapping, Sequence
from types import MappingProxyType

import rtoml
from msgspec import Struct

from anlage.core.catalogue.names import plain_key
from anlage.core.errors import FormatError, UnknownNameError


class Vocabulary(Struct, frozen=True):
    """The tokens of every topic (`process`, `position`, …) and the spellings that mean them."""

    tokens: Mapping[str, tuple[str, ...]]
    spellings: Mapping[str, Mapping[str, str]]

    def token(self, topic: str, word: str, *, where: str | None = None) -> str:
        """Return the canonical token that `word` means in `topic`.

        Raises
        ------
        UnknownNameError : no token of the topic is spelled so
        """
        found = self.spellings[topic].get(plain_key(word))
        if found is None:
            raise UnknownNameError(word, self.tokens[topic], where=where or topic)
        return found


def read_vocabulary(text: str, *, where: str = "vocabulary.toml", **more: Mapping[str, tuple[str, ...]]) -> Vocabulary:
    """Return the vocabulary written in `text` (TOML: a table a topic, a list of spellings a token).

    Parameters
    ----------
    text : the TOML
    where : the file, for messages
    more : topics whose words are kept elsewhere, as those of the processes

    Raises
    ------
    FormatError : one spelling means two tokens of one topic
    """
    own = {name: table for name, table in rtoml.loads(text).items() if isinstance(table, dict)}
    topics: Mapping[str, Mapping[str, Sequence[str]]] = {**more, **own}
    spellings: dict[str, Mapping[str, str]] = {}
    for topic, table in topics.items():
        meanings: dict[str, str] = {}
        for token, words in table.items():
            for word in (token, *words):
                if meanings.setdefault(plain_key(word), token) != token:
                    mend = "keep the spelling for one of them"
                    raise FormatError(f"{word} means two tokens of {topic}", where=where, mend=mend)
        spellings[topic] = MappingProxyType(meanings)
    tokens = {topic: tuple(table) for topic, table in topics.items()}
    return Vocabulary(MappingProxyType(tokens), MappingProxyType(spellings))
