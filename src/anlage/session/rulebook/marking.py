"""Marking the rules of a code: checked against a copy, corrected, taken back; marks as a file of TOML, both ways."""

from collections.abc import Mapping, Sequence
from typing import Any, TypeVar

import msgspec
import rtoml

from anlage.core.codes import Pack, Rule
from anlage.core.codes.marked import keys_in
from anlage.core.errors import FormatError, InputError, UnknownNameError
from anlage.core.rulebook import (
    Check,
    Overlay,
    Rulebook,
    RulebookHeader,
    with_check,
    with_overlay,
    without_check,
    without_overlay,
)
from anlage.data.code_packs import code_pack, overlaid_rules, written_pack
from anlage.session.judging.editions import Codes
from anlage.session.rulebook.entries import RulesOfCode

Mark = TypeVar("Mark", Check, Overlay)
NO_TIME = "2000-01-01T00:00:00Z"  # of what nobody has put in place yet
HEAD = "# Checks and overlays of the rules of a code, as Anlage keeps them in a works file.\n"


def new_rulebook(code: str) -> Rulebook:
    """Return the rulebook of a code with no mark in it.

    Raises
    ------
    UnknownNameError : no pack ships for the code
    """
    return Rulebook(header=RulebookHeader(number=code, title=f"Rulebook of {code_pack(code).name}"))


def book_of(codes: Codes, code: str) -> Rulebook:
    """Return the rulebook of a code, new where nobody marked anything.

    Raises
    ------
    UnknownNameError : no pack ships for the code
    FormatError : it cannot be read
    """
    return codes.book(code) or new_rulebook(code)


class Signing(msgspec.Struct, frozen=True, kw_only=True):
    """Who says so, when, and which copy of the code lies beside it."""

    by: str
    on: str
    copy: str = ""


def checked(rules: RulesOfCode, rule: str, signing: Signing) -> Rulebook:
    """Return the rulebook with a rule checked, as it reads now, against a copy of the edition.

    Raises
    ------
    UnknownNameError : the code has no such rule
    InputError : nobody says so, or against which copy
    """
    said = _rule(rules.pack.every, rule, rules.pack).said
    _need(signing.by, "by", "state who compared it")
    _need(signing.copy, "copy", "name the copy that it was compared with, as it stands on your shelf")
    check = Check(
        rule=rule, edition=rules.edition, by=signing.by.strip(), on=signing.on, copy=signing.copy.strip(), said=said
    )
    return with_check(rules.book or new_rulebook(rules.code), check)


def corrected(rules: RulesOfCode, rule: str, keys: str, reason: str, signing: Signing) -> Rulebook:
    """Return the rulebook with keys put in place of those of a rule.

    Raises
    ------
    UnknownNameError : the code has no such rule
    InputError : nobody says so, no reason is stated, or it says what the rule says already
    FormatError : the keys are no TOML, or at fault as a rule would be
    """
    _need(signing.by, "by", "state who corrects it")
    _need(reason, "reason", "say what your copy of the code says, and where")
    keys_in(keys)
    shipped = _rule(rules.shipped.rules, rule, rules.shipped)
    overlay = Overlay(
        rule=rule, keys=keys.strip(), reason=reason.strip(), by=signing.by.strip(), on=signing.on, over=shipped.said
    )
    made = overlaid_rules(rules.code, overlay)
    if made[0].said == shipped.said:
        raise InputError("it says what the rule says already", where="overlay", mend="change a value of it")
    return with_overlay(rules.book or new_rulebook(rules.code), overlay)


def taken_back(rules: RulesOfCode, rule: str, *, overlay: bool) -> Rulebook:
    """Return the rulebook without the overlay of a rule, or without its check in this edition.

    Raises
    ------
    InputError : there is no such mark
    """
    book = rules.book or new_rulebook(rules.code)
    left = without_overlay(book, rule) if overlay else without_check(book, rule, rules.edition)
    if left is book:
        what = "is not overlaid" if overlay else f"is not checked in edition {rules.edition}"
        raise InputError(f"{rule} {what}", where="rulebook", mend="choose one that is")
    return left


def written_now(rules: RulesOfCode, rule: str) -> tuple[Mapping[str, Any], Mapping[str, Any]]:
    """Return the keys of a rule as it is written now, and as it ships; none where no table has it."""
    shipped = written_pack(rules.code).get(rule, {})
    overlay = rules.book.overlay_of(rule) if rules.book else None
    return {**shipped, **(keys_in(overlay.keys) if overlay else {})}, shipped


def rules_with(rules: RulesOfCode, rule: str, keys: str) -> tuple[tuple[Rule, ...], Pack]:
    """Return what a rule would be with other keys, without marking anything, and the pack that it is of.

    Raises
    ------
    UnknownNameError : the code has no such rule
    FormatError : the keys are at fault
    """
    if not keys:
        return tuple(each for each in rules.shipped.rules if each.id == rule), rules.shipped
    trial = Overlay(rule=rule, keys=keys, reason="-", by="-", on=NO_TIME, over="-")
    return overlaid_rules(rules.code, trial), rules.shipped


def as_toml(book: Rulebook) -> str:
    """Return the marks of a rulebook as TOML, to be read by `with_marks`."""
    import tomli_w  # when something is written out

    overlays = [{**_plain(each), "keys": dict(rtoml.loads(each.keys))} for each in book.overlays]
    table = {"code": book.header.number, "check": [_plain(each) for each in book.checks], "overlay": overlays}
    return HEAD + tomli_w.dumps({key: value for key, value in table.items() if value})


def with_marks(codes: Codes, code: str, text: str, signing: Signing, *, where: str = "overlay") -> Rulebook:
    """Return the rulebook of a code with the marks of a file: each in place of one that is there.

    A mark that names nobody, or no day, is that of who brings it in; an overlay that does not say what it was put over
    is put over the rule as it ships.

    Raises
    ------
    FormatError : the file is no TOML, of another code, or a mark in it is at fault
    UnknownNameError : the code has no such rule
    InputError : nobody says so, or a reason is missing
    """
    raw = keys_in(text, where=where)
    own = str(raw.get("code", code))
    if own != code:
        raise FormatError(f"it marks {own}", where=where, mend=f"take a file of marks of {code}")
    if unknown := sorted(set(raw) - {"code", "check", "overlay"}):
        raise FormatError(f"it has no use for {unknown[0]}", where=where, mend="write [[check]] and [[overlay]]")
    book, marks = book_of(codes, code), {"by": signing.by, "on": signing.on}
    for row in _rows(raw, "overlay", where):
        book = with_overlay(book, _overlay(code, marks | row, where))
    for row in _rows(raw, "check", where):
        book = with_check(book, _as(Check, marks | row, where))
    return book


def _overlay(code: str, row: Mapping[str, Any], where: str) -> Overlay:
    import tomli_w  # when something is written out

    rule, keys = str(row.get("rule", "")), row.get("keys")
    pack = code_pack(code)
    shipped = _rule(pack.rules, rule, pack)
    if not isinstance(keys, dict) or not keys:
        raise FormatError(f"the overlay of {rule} has no keys", where=where, mend="write [overlay.keys]")
    _need(str(row.get("reason", "")), "reason", "say what your copy of the code says, and where")
    overlay = _as(Overlay, {"over": shipped.said, **row, "keys": tomli_w.dumps(keys)}, where)
    overlaid_rules(code, overlay)
    return overlay


def _rows(raw: Mapping[str, Any], key: str, where: str) -> list[dict[str, Any]]:
    rows = raw.get(key, [])
    if not isinstance(rows, list) or not all(isinstance(each, dict) for each in rows):
        raise FormatError(f"{key} is no list of tables", where=where, mend=f"write [[{key}]]")
    return rows


def _as(kind: type[Mark], row: Mapping[str, Any], where: str) -> Mark:
    try:
        return msgspec.convert(dict(row), kind)
    except (msgspec.ValidationError, InputError) as fault:
        raise FormatError(f"a mark of {row.get('rule', 'no rule')}: {fault}", where=where, mend="mend it") from fault


def _plain(mark: Check | Overlay) -> dict[str, Any]:
    return {name: getattr(mark, name) for name in type(mark).__struct_fields__}


def _rule(among: Sequence[Rule], rule: str, pack: Pack) -> Rule:
    found = next((each for each in among if each.id == rule), None)
    if found is None and any(each.id == rule for each in pack.every):
        raise InputError(f"{rule} limits no variable of a record", where=pack.code, mend="mark it as checked, or not")
    if found is None:
        raise UnknownNameError(rule or "rule", {each.id for each in pack.every}, where=pack.code)
    return found


def _need(text: str, where: str, mend: str) -> None:
    if not text.strip():
        raise InputError("nothing is stated", where=where, mend=mend)
