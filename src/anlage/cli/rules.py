"""`anlage rules`: the rules of a code in words, with worked examples; as a checking list; checked and corrected."""

import argparse
import textwrap
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any, NamedTuple

from anlage.cli.parsing import CODE, add_force, add_json
from anlage.core.errors import InputError, UnknownNameError
from anlage.core.quantities.units import System
from anlage.core.results import Source
from anlage.core.rulebook import Rulebook
from anlage.data.tables import variables
from anlage.session.keyed.answer import Answer, open_ends, range_as_json
from anlage.session.machine.clock import made_at, utc_now
from anlage.session.output.saving import check_ending, check_target, save
from anlage.session.rulebook.entries import RuleEntry, RulesOfCode, rules_of
from anlage.session.rulebook.marking import Signing, as_toml, book_of, checked, taken_back, with_marks
from anlage.session.works.beside import put_beside
from anlage.session.works.found_documents import text_of_file
from anlage.session.works.marked_codes import codes_of_file
from anlage.store import open_works

MARKS = ("--sign", "--overlay", "--take-back", "--export")
WIDTH = 96  # of a line of words


class Asked(NamedTuple):
    """Which rules are asked for: by clause, by variable, or those that nobody checked."""

    clause: str = ""
    variable: str = ""
    unchecked: bool = False

    def takes(self, entry: RuleEntry) -> bool:
        """Return whether a rule is asked for."""
        return (
            self.clause.casefold() in entry.clause.casefold()
            and (not self.variable or any(self.variable in rule.variables for rule in entry.rules))
            and not (self.unchecked and entry.checks)
        )


def rules_answer(code: str, asked: Asked, works: str = "", system: System = "si") -> Answer:
    """Return the rules of a code, or those that are asked for, with their worked examples.

    Raises
    ------
    UnknownNameError : no such code, or no such variable
    FormatError : the works file is not what it claims
    """
    rules, entries = _asked(code, asked, works, system)
    values = {
        "code": rules.code, "edition": rules.edition, "units": system,
        "rules": [_values(rules, each, system) for each in entries],
    }  # fmt: skip
    head = f"{len(entries)} rules, {sum(bool(each.checks) for each in entries)} of them checked"
    lines = [
        (f"{rules.pack.name} {rules.edition}", head),
        *(line for each in entries for line in _lines(rules, each, system)),
    ]
    return Answer(values, lines, [Source("rules", f"{rules.pack.source}, edition {rules.edition}", _doubt(entries))])


def list_answer(code: str, asked: Asked, works: str, target: Path, options: argparse.Namespace) -> Answer:
    """Write the rules that are asked for as a checking list, PDF.

    Raises
    ------
    UnknownNameError : no such code, or no such variable
    FormatError : a file is not what it claims, or cannot be written
    """
    from anlage.formats.font import measure  # when asked for: most answers need no page
    from anlage.formats.pdf import pdf
    from anlage.session.output.checking_list import checking_list
    from anlage.session.output.wps_sheet import Stationery

    sources = [Path(works)] if works else []
    check_target(target, sources=sources, over=options.force)
    check_ending(target, (".pdf",))
    rules, entries = _asked(code, asked, works, options.units)
    if not entries:
        raise InputError("no rule is asked for", where="rules", mend="ask for less")
    pages = checking_list(rules, entries, Stationery(options.paper, measure), options.units)
    title = f"{rules.pack.name} {rules.edition} checking list"
    data = pdf(pages, title=title, author="", made_at=made_at())
    save(target, lambda: data, sources=sources, over=options.force)
    values = {"file": str(target), "pages": len(pages), "rules": len(entries)}
    return Answer(values, [("written", str(target)), ("rules", f"{len(entries)}"), ("pages", f"{len(pages)}")], ())


def mark_answer(code: str, works: str, options: argparse.Namespace) -> Answer:
    """Set, bring in or take back marks of a works file, and say what became of them.

    Raises
    ------
    UnknownNameError : no such code or rule
    FormatError, InputError : a file is not what it claims or cannot be written, or something is not stated
    """
    if not works:
        raise InputError("marks lie in a works file", where="rules", mend="say --works FILE.anlage")
    path, now = Path(works), utc_now()
    codes = codes_of_file(path)
    rules, signing = rules_of(code, codes), Signing(by=options.by, on=now, copy=options.copy)
    book: Rulebook
    if options.sign:
        book = checked(rules, options.sign, signing)
        said = f"{options.sign} is checked by {signing.by}, edition {rules.edition}"
    elif options.take_back:
        overlay = rules.book is not None and rules.book.overlay_of(options.take_back) is not None
        book = taken_back(rules, options.take_back, overlay=overlay)
        said = f"{'the overlay' if overlay else 'the check'} of {options.take_back} is taken back"
    else:
        text = text_of_file(Path(options.overlay))
        book = with_marks(codes, rules.code, text, signing, where=Path(options.overlay).name)
        said = f"{len(book.overlays)} overlays and {len(book.checks)} checks stand in it now"
    author = options.by or next((each.by for each in (*book.checks, *book.overlays)), "")
    with open_works(path, now=now) as file:
        put_beside(file, book, author=author, now=now)
    values = {"works": works, "code": rules.code, "overlays": len(book.overlays), "checks": len(book.checks)}
    return Answer(values, [(rules.code, said)], ())


def export_answer(code: str, works: str, target: Path, *, force: bool) -> Answer:
    """Write the marks of a works file on a code as TOML.

    Raises
    ------
    FormatError : a file is not what it claims, or cannot be written
    """
    check_target(target, sources=[Path(works)] if works else [], over=force)
    check_ending(target, (".toml",))
    codes = codes_of_file(Path(works) if works else None)
    book = book_of(codes, rules_of(code, codes).code)
    save(target, lambda: as_toml(book).encode(), over=force)
    values = {"file": str(target), "overlays": len(book.overlays), "checks": len(book.checks)}
    return Answer(values, [("written", str(target))], ())


def _asked(code: str, asked: Asked, works: str, system: System) -> tuple[RulesOfCode, Sequence[RuleEntry]]:
    if asked.variable and asked.variable not in variables():
        raise UnknownNameError(asked.variable, variables(), where="variable")
    rules = rules_of(code, codes_of_file(Path(works) if works else None))
    return rules, [each for each in rules.entries(system) if asked.takes(each)]


def _doubt(entries: Sequence[RuleEntry]) -> str:
    return max((each.confidence for each in entries), key="HML".index, default="H")


def _values(rules: RulesOfCode, entry: RuleEntry, system: System) -> dict[str, Any]:
    found = {
        "id": entry.id, "clause": entry.clause, "title": entry.title, "category": entry.category,
        "variables": [name for rule in entry.rules for name in rule.variables], "concerns": entry.concerns,
        "note": entry.note, "confidence": entry.confidence, "source": entry.rule.source, "checked": bool(entry.checks),
        "checks": [{"by": c.by, "on": c.on, "copy": c.copy, "edition": c.edition} for c in entry.checks],
        "examples": [
            {"coupon": each.coupon, "allowed": range_as_json(each.sure), "possible": range_as_json(each.possible),
             **({"open": ends} if (ends := open_ends(each.sure)) else {}), "text": each.allowed}
            for each in rules.examples(entry, system)
        ],
    }  # fmt: skip
    over = entry.overlay
    if over is not None:
        found["overlay"] = {"keys": over.keys, "reason": over.reason, "by": over.by, "on": over.on}
    return found


def _lines(rules: RulesOfCode, entry: RuleEntry, system: System) -> Iterator[tuple[str, str]]:
    yield entry.id, f"{entry.clause}  {entry.title}, {entry.category}  [{entry.confidence}]"
    yield from (("", line) for line in textwrap.wrap(entry.concerns, WIDTH))
    yield from (("", line) for line in textwrap.wrap(entry.note, WIDTH))
    yield from (("", f"  {each.coupon}: {each.allowed}") for each in rules.examples(entry, system))
    if entry.overlay is not None:
        yield "", f"not as shipped: {entry.overlay.by}, {entry.overlay.on[:10]}: {entry.overlay.reason}"
    yield from (("", f"checked by {c.by}, {c.on[:10]}, {c.copy}, edition {c.edition}") for c in entry.checks)
    yield from (("", f"check of {c.by}, {c.on[:10]}, does not count: {why}") for c, why in entry.stale)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("code", metavar="CODE", help=CODE)
    parser.add_argument("--clause", metavar="TEXT", default="", help="only rules whose clause has it: QW-403")
    parser.add_argument("--variable", metavar="ID", default="", help="only rules on it: base_metal_thickness_mm")
    parser.add_argument("--unchecked", action="store_true", help="only rules that nobody checked")
    parser.add_argument("-o", "--output", metavar="FILE.pdf", default="", help="write them as a checking list")
    parser.add_argument("--works", metavar="FILE.anlage", default="", help="whose marks count, and where marks go")
    parser.add_argument("--sign", metavar="RULE", default="", help="mark a rule checked; needs --by, --copy, --works")
    parser.add_argument("--by", metavar="NAME", default="", help="who marks it")
    parser.add_argument("--copy", metavar="TEXT", default="", help="which copy of the code it was compared with")
    parser.add_argument("--overlay", metavar="FILE.toml", default="", help="bring in marks: [[overlay]], [[check]]")
    parser.add_argument("--take-back", metavar="RULE", default="", help="take the overlay of a rule back, or its check")
    parser.add_argument("--export", metavar="FILE.toml", default="", help="write the marks of the works file")
    parser.add_argument("--units", choices=("si", "us"), default="si")
    parser.add_argument("--paper", choices=("a4", "letter"), default="a4")
    add_force(parser)
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Read, print or mark rules."""
    marks = [each for each in (arguments.sign, arguments.overlay, arguments.take_back, arguments.export) if each]
    if len(marks) > 1:
        raise InputError(
            "one thing at a time", where="rules", mend="take one of --sign, --overlay, --take-back, --export"
        )
    if arguments.export:
        return export_answer(arguments.code, arguments.works, Path(arguments.export), force=arguments.force)
    if marks:
        return mark_answer(arguments.code, arguments.works, arguments)
    asked = Asked(arguments.clause, arguments.variable, arguments.unchecked)
    if arguments.output:
        return list_answer(arguments.code, asked, arguments.works, Path(arguments.output), arguments)
    return rules_answer(arguments.code, asked, arguments.works, arguments.units)
