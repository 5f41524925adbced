"""The pack and edition that a document or a command names, with what the people of a works say of its rules."""

from collections.abc import Mapping
from typing import TYPE_CHECKING

from msgspec import Struct, field

from anlage.core.codes import Pack, with_checks
from anlage.core.codes.pack import Governs
from anlage.core.errors import FormatError, InputError, UnknownNameError
from anlage.data.code_packs import code_pack, marked_pack

if TYPE_CHECKING:  # a document: what judges a coupon stated by hand needs none
    from anlage.core.rulebook import Rulebook


class Codes(Struct, frozen=True, dict=True):
    """The codes that a works judges by: each as it ships, with the overlays and checks of its rulebook.

    `books` are the rulebooks by code, `None` for one that cannot be read: what it says of a rule is not known, and
    nothing is judged by that code.
    """

    books: "Mapping[str, Rulebook | None]" = field(default_factory=dict)

    def book(self, code: str) -> "Rulebook | None":
        """Return the rulebook of a code; `None` where nobody has marked anything.

        Raises
        ------
        FormatError : it cannot be read
        """
        found = self.books.get(code)
        if found is None and code in self.books:
            mend = "open a copy of the works file from before"
            raise FormatError(f"the rulebook of {code} cannot be read", where="rulebook", mend=mend)
        return found

    def edition_of(self, code: str, governs: Governs | None = "qualification") -> tuple[Pack, str]:
        """Return the pack and edition that `asme-ix` or `asme-ix:2019` names; the newest when none is named.

        Parameters
        ----------
        code : with or without edition
        governs : of which kind the code has to be; any where `None`

        Raises
        ------
        InputError : the code governs something else, as one of construction that qualifies no procedure
        UnknownNameError : no such pack, or the pack serves no such edition
        FormatError : its rulebook cannot be read
        """
        name, _, edition = code.partition(":")
        name = name.strip().lower()
        pack = self._pack(name)
        if governs is not None and pack.governs != governs:
            what = f"{pack.name} is a code of {pack.governs}, not of {governs}"
            raise InputError(what, where="code", mend=f"name a code of {governs}")
        if edition and edition not in pack.editions:
            raise UnknownNameError(edition, pack.editions, where="code")
        own = edition or pack.editions[-1]
        return self._checked(pack, own), own

    def _pack(self, name: str) -> Pack:
        book = self.book(name)
        if book is None:
            return code_pack(name)
        made: dict[str, Pack] = self.__dict__.setdefault("packs", {})
        if name not in made:
            made[name] = marked_pack(name, book)
        return made[name]

    def _checked(self, pack: Pack, edition: str) -> Pack:
        book = self.book(pack.code)
        if book is None:
            return pack.of_edition(edition)
        made: dict[tuple[str, str], Pack] = self.__dict__.setdefault("checked", {})
        key = (pack.code, edition)
        if key not in made:
            made[key] = with_checks(pack.of_edition(edition), book.checks, edition)
        return made[key]


SHIPPED = Codes()  # as they come, marked by nobody


def edition_of(code: str) -> tuple[Pack, str]:
    """Return the pack and edition that a name means, as they ship: what a pack derives, no mark changes.

    Raises
    ------
    UnknownNameError : no such pack, or the pack serves no such edition
    """
    return SHIPPED.edition_of(code)
