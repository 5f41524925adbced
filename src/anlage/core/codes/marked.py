"""A pack with what the people of a works say of its rules: overlays in place of its words, checks beside them."""

from collections.abc import Callable, Mapping
from typing import TYPE_CHECKING, Any

import rtoml
from msgspec.structs import replace

from anlage.core.codes.kinds import Unknown
from anlage.core.codes.pack import Pack, Rule
from anlage.core.errors import AnlageError, FormatError, UnknownNameError

if TYPE_CHECKING:  # a document: what judges a coupon stated by hand needs none
    from anlage.core.rulebook import Check, Overlay, Rulebook

    Maker = Callable[[Overlay], tuple[Rule, ...]]

Reader = Callable[[Mapping[str, Mapping[str, Any]]], Pack]  # reads a pack anew, with other keys in some of its rules
FIXED = ("id", "variable", "scope", "route", "basis", "editions", "confidence", "source")  # it would be another rule
STALE = "its overlay was put over other words of this rule, and nobody has looked at it since"


def keys_in(text: str, *, where: str = "overlay") -> Mapping[str, Any]:
    """Return the keys that an overlay writes.

    Raises
    ------
    FormatError : the text is no TOML, or says nothing
    """
    try:
        keys: Mapping[str, Any] = rtoml.loads(text)
    except (rtoml.TomlParsingError, RecursionError) as fault:
        raise FormatError(f"no TOML: {fault}", where=where, mend="mend the line") from fault
    if not keys:
        raise FormatError("it changes nothing", where=where, mend="state a key of the rule and its value")
    return keys


def overlaid(shipped: Pack, overlay: "Overlay", read: Reader) -> tuple[Rule, ...]:
    """Return the rules that an overlay makes of the shipped one; a mixture has several under one id.

    Parameters
    ----------
    read : reads the pack anew

    Raises
    ------
    UnknownNameError : the pack has no such rule
    FormatError : it is no TOML, changes what a rule is about, or is at fault as a rule would be
    """
    where = f"overlay of {overlay.rule}"
    known = {rule.id for rule in shipped.rules}
    if overlay.rule not in known:
        raise UnknownNameError(overlay.rule, known, where="overlay")
    keys = keys_in(overlay.keys, where=where)
    for key in FIXED:
        if key in keys:
            raise FormatError(f"{key} would make another rule of it", where=where, mend="leave it out")
    try:
        found = read({overlay.rule: keys})
    except AnlageError as fault:
        raise FormatError(fault.what, where=where, mend=fault.mend) from fault
    return tuple(replace(rule, overlay=overlay) for rule in found.rules if rule.id == overlay.rule)


def marked(shipped: Pack, book: "Rulebook", make: "Maker") -> Pack:
    """Return a pack with the overlays of a rulebook; one that does not hold any more leaves its rule unknown.

    Parameters
    ----------
    make : returns the rules that an overlay makes
    """
    others: dict[str, tuple[Rule, ...]] = {}
    for overlay in book.overlays:
        own = tuple(rule for rule in shipped.rules if rule.id == overlay.rule)
        if own:
            others[overlay.rule] = _of(own, overlay, make)
    if not others:
        return shipped
    kept = [rule for rule in shipped.rules if rule.id not in others]
    rules = (*kept, *(rule for found in others.values() for rule in found))
    return replace(shipped, rules=tuple(sorted(rules, key=lambda rule: (rule.rank, rule.file, rule.line))))


def with_checks(pack: Pack, checks: "tuple[Check, ...]", edition: str) -> Pack:
    """Return a pack of one edition whose rules carry the checks that hold for it: of these words, in that edition."""
    standing: dict[tuple[str, str], tuple[Check, ...]] = {}
    for each in checks:
        if each.edition == edition:
            key = (each.rule, each.said)
            standing[key] = (*standing.get(key, ()), each)
    if not standing:
        return pack

    def with_own(rules: tuple[Rule, ...]) -> tuple[Rule, ...]:
        own = ((rule, standing.get((rule.id, rule.said))) for rule in rules)
        return tuple(replace(rule, checks=found) if found else rule for rule, found in own)

    clauses = with_own(pack.clauses)
    checked = {rule.id for rule in clauses if rule.checks}
    return replace(
        pack,
        rules=with_own(pack.rules),
        staged=with_own(pack.staged),
        details=tuple(replace(each, rules=with_own(each.rules)) for each in pack.details),
        clauses=clauses,
        specimens=tuple(replace(each, is_checked=True) if each.id in checked else each for each in pack.specimens),
        edition=edition,
    )


def _of(own: tuple[Rule, ...], overlay: "Overlay", make: "Maker") -> tuple[Rule, ...]:
    if own[0].said != overlay.over:
        return _unknown(own, overlay, STALE)
    try:
        return make(overlay)
    except AnlageError as fault:
        return _unknown(own, overlay, f"its overlay cannot be read: {fault.what}")


def _unknown(own: tuple[Rule, ...], overlay: "Overlay", why: str) -> tuple[Rule, ...]:
    return tuple(replace(rule, kind=Unknown(why), overlay=overlay) for rule in own)
