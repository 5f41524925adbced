"""The marks on the rules of one code as a document: number and title are those of the code."""

from typing import Annotated, Final, Literal

from msgspec import Meta

from anlage.core.document import DocumentKind, Part, Text, with_
from anlage.core.errors import InputError

FORMAT: Final = "anlage-rulebook"
VERSION: Final = 1
MOMENT: Final = r"^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\dZ$"
Words = Annotated[Text, Meta(min_length=1)]
Moment = Annotated[str, Meta(pattern=MOMENT)]


class RulebookHeader(Part):
    """Whose rules these are: the code by its name in documents, `asme-ix`, and in words."""

    number: Text = ""
    title: Text = ""


class Check(Part):
    """That a person laid a rule beside a copy of the code that they own, in one edition, and found it as it says.

    `said` is what the rule said then: of a rule that says something else since, nothing was checked.
    """

    rule: Words
    edition: Words
    by: Words
    on: Moment
    copy: Words
    said: Words


class Overlay(Part):
    """What a person puts in place of keys of a rule, as TOML, and why.

    `over` is what the rule said then: put over another wording it counts for nothing before someone looks at it again.
    """

    rule: Words
    keys: Words
    reason: Words
    by: Words
    on: Moment
    over: Words


class Rulebook(Part):
    """The checks and overlays of one code, in the order they were made; one overlay a rule at most."""

    format: Literal["anlage-rulebook"] = FORMAT
    version: Literal[1] = VERSION
    header: RulebookHeader = RulebookHeader()
    checks: tuple[Check, ...] = ()
    overlays: tuple[Overlay, ...] = ()

    def check(self) -> None:
        """Refuse a rule that is overlaid twice, or checked twice in one edition: nobody could say which counts."""
        twice = _twice([each.rule for each in self.overlays]) or _twice(
            [f"{each.rule} in {each.edition}" for each in self.checks]
        )
        if twice:
            raise InputError(f"{twice} is marked twice", where="rulebook", mend="leave one of the two")

    def overlay_of(self, rule: str) -> Overlay | None:
        """Return the overlay of a rule; `None` where there is none."""
        return next((each for each in self.overlays if each.rule == rule), None)


def _twice(names: list[str]) -> str:
    return next((name for name in names if names.count(name) > 1), "")


def with_check(book: Rulebook, check: Check) -> Rulebook:
    """Return the rulebook with a check, in place of one of the same rule and edition."""
    others = without_check(book, check.rule, check.edition).checks
    return with_(book, checks=(*others, check))


def without_check(book: Rulebook, rule: str, edition: str) -> Rulebook:
    """Return the rulebook without the check of a rule in an edition; the very same one where there is none."""
    left = tuple(each for each in book.checks if (each.rule, each.edition) != (rule, edition))
    return book if len(left) == len(book.checks) else with_(book, checks=left)


def with_overlay(book: Rulebook, overlay: Overlay) -> Rulebook:
    """Return the rulebook with an overlay, in place of one of the same rule."""
    return with_(book, overlays=(*without_overlay(book, overlay.rule).overlays, overlay))


def without_overlay(book: Rulebook, rule: str) -> Rulebook:
    """Return the rulebook without the overlay of a rule; the very same one where there is none."""
    left = tuple(each for each in book.overlays if each.rule != rule)
    return book if len(left) == len(book.overlays) else with_(book, overlays=left)


RULEBOOK = DocumentKind(Rulebook, FORMAT, VERSION)
