"""What a pack may name: variables, tokens, columns of the catalogue, quantities; a misspelt name is a fault."""

from collections.abc import Callable, Mapping

from msgspec import Struct, field

from anlage.core.catalogue import Vocabulary
from anlage.core.quantities.units import UnitTable
from anlage.core.variables import VariableName, Variables

CatalogueColumn = Callable[[str], Mapping[str, str]]  # a catalogue column by its name, as token -> value
NAMES_OF_METALS = "+"  # a pair has one of its ends before it, one behind it
ALWAYS = frozenset({"none", "other"})


class Names(Struct, frozen=True):
    """Everything that a rule may name, from outside its pack."""

    variables: Variables
    vocabulary: Vocabulary
    units: UnitTable
    column: CatalogueColumn
    columns: Mapping[str, frozenset[str]] = field(default_factory=dict)  # of metals and of a filler
    _known: dict[str, frozenset[str] | None] = field(default_factory=dict)

    def variable(self, name: str, said: str = "") -> VariableName:
        """Return a variable's id with its word, or with how a code says it; that of a component by the mixture's."""
        own, _, part = name.partition(".")
        row = self.variables.get(own)
        word = said or (row.name if row else own)
        return VariableName(name, f"{word}, {part}" if part else word)

    def kind(self, name: str) -> str:
        """Return what a variable measures, "" for words."""
        row = self.variables.get(name.partition(".")[0])
        return row.kind if row else ""

    def tokens(self, name: str) -> frozenset[str] | None:
        """Return the words that a variable may be; `None` where any text may stand."""
        if name not in self._known:
            self._known[name] = self._tokens(name)
        return self._known[name]

    def _tokens(self, name: str) -> frozenset[str] | None:
        row = self.variables.get(name)
        if row is None or not row.tokens:
            return None
        if not isinstance(row.tokens, str):
            return frozenset(row.tokens) | ALWAYS
        kept_in, _, place = row.tokens.partition(".")
        if kept_in == "vocabulary":
            return frozenset((*self.vocabulary.tokens.get(place, ()), *row.said)) | ALWAYS
        return frozenset(self.column(place)) | ALWAYS

    def is_token(self, name: str, token: str) -> bool:
        """Return whether a variable may be a word; of a pair both ends must."""
        known, row = self.tokens(name), self.variables.get(name)
        if known is None or row is None:
            return True
        ends = token.split(NAMES_OF_METALS) if row.pairs else [token]
        return len(ends) == (2 if row.pairs else 1) and all(end in known for end in ends)
