"""`anlage draft`: a whole procedure to start from, every proposed leaf with its reason and confidence."""

import argparse
import textwrap
from pathlib import Path
from pkgutil import resolve_name
from typing import Any

from anlage.cli.parsing import Parser, add_force, add_words, add_works
from anlage.core.document import write
from anlage.core.errors import InputError
from anlage.core.procedure import Wps
from anlage.core.results import Notice, Source
from anlage.data.drafts_table import drafts
from anlage.data.tables import catalogue, vocabulary
from anlage.session.draft.whole import whole_draft
from anlage.session.judging.editions import SHIPPED, Codes, edition_of
from anlage.session.keyed.answer import Answer
from anlage.session.keyed.arguments import Arguments
from anlage.session.leaves.text import shown, with_number, with_text
from anlage.session.output.saving import check_ending, check_target, save
from anlage.session.proposal.draft import proposals, with_size

MARKED = "anlage.session.works.marked_codes:codes_of_file"  # opens a works file: most drafts need none
KEYS = (
    "base", "base2", "product", "thickness", "nps", "schedule", "od", "position", "progression", "process", "code",
    "weld", "number", "title",
)  # fmt: skip


LEAVES = {
    "metals/one/name": "base", "metals/other/name": "base2", "technique/position": "position", "header/code": "code",
    "header/number": "number", "header/title": "title", "technique/progression": "progression", "header/weld": "weld",
    "joint/product": "product",
}  # fmt: skip


def draft_answer(words: list[str], target: str | None, *, works: str = "", force: bool = False) -> Answer:
    """Return a draft of what is stated in `words`, written as JSON where a file is named.

    `works` is the works file whose metals, fillers and rulebooks count, "" for none.

    Raises
    ------
    InputError, UnknownNameError : a key, name or value cannot be, or what a draft hangs on is missing
    FormatError : the target exists or cannot be written
    """
    codes: Codes = resolve_name(MARKED)(Path(works)) if works else SHIPPED
    a = Arguments(words, known=KEYS)
    a.need("base")
    wps = _stated(a)
    processes = (
        [vocabulary().token("process", part.strip(), where="process") for part in a.text("process").split(",")]
        if "process" in a
        else []
    )
    found = whole_draft(wps, processes, codes)
    done = found.wps
    if target is not None:
        path = Path(target)
        check_target(path, sources=(), over=force)
        check_ending(path, (".json",))
        save(path, lambda: write(done).encode("utf-8"), sources=(), over=force)
    table = drafts()
    values: dict[str, Any] = {
        "proposed": {
            leaf: {"value": shown(done, leaf, "si") or None, "reason": mark.reason, "confidence": mark.confidence}
            for leaf, mark in done.proposed.items()
        },
        "passes": len(done.passes),
        "file": target,
    }
    lines = [(label, f"{text}: {why}") for label, text, why in proposals(done, "si")]
    lines += [("Passes", f"{len(done.passes)}")] + ([("Written", target)] if target else [])
    notices = [Notice.of("draft.said", "draft", each) for each in found.said]
    return Answer(values, lines, [Source("draft", table.source, table.confidence)], notices)


def _stated(a: Arguments) -> Wps:
    """Return what the words state as a procedure.

    Raises
    ------
    InputError : pipe size and thickness are both stated, or one of them alone is not enough
    """
    wps = Wps()
    if "code" in a:
        edition_of(a.text("code"))
    for path, key in LEAVES.items():
        if key in a:
            wps = with_text(wps, path, a.text(key), "si")
    if "nps" in a:
        return _of_pipe(wps, a)
    if "thickness" in a:
        wps = with_number(wps, "joint/thickness_mm", a.single("thickness", "length"))
    return with_number(wps, "joint/od_mm", a.single("od", "length")) if "od" in a else wps


def _of_pipe(wps: Wps, a: Arguments) -> Wps:
    a.need("schedule")
    if "thickness" in a or "od" in a:
        raise InputError("the pipe has its own", where="thickness" if "thickness" in a else "od", mend="leave it out")
    pipe = catalogue().pipe(a.text("nps"), a.text("schedule"))
    return with_size(wps, f"{pipe.nps} sch {pipe.schedule}", "", "si")


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    add_words(parser, "base=A106-B nps=5 schedule=40 position=6G process=GTAW,SMAW code=asme-ix, or thickness=20mm")
    parser.add_argument("-o", "--output", metavar="FILE.json", help="write the draft as a document")
    add_works(parser, "whose metals, fillers and rulebook count; else none")
    add_force(parser)
    assert isinstance(parser, Parser)
    parser.more = lambda: textwrap.fill(f"keys: {' '.join(KEYS)}", 100, subsequent_indent="  ")


def answer(arguments: argparse.Namespace) -> Answer:
    """Draft a procedure."""
    return draft_answer(arguments.words, arguments.output, works=arguments.works, force=arguments.force)
