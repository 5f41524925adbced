"""The rules of a code as a list to be laid beside the book: own words, worked examples, boxes to tick."""

from collections.abc import Sequence

from anlage.core.drawing import DisplayList
from anlage.core.drawing.page import BODY_MM, NOTE_MM, TITLE_MM, Column, Flow
from anlage.core.quantities.units import System
from anlage.session.judging.reasons import capital
from anlage.session.output.wps_sheet import Stationery
from anlage.session.rulebook.entries import CONFIDENCES, RuleEntry, RulesOfCode

LINE = "_" * 26  # to write on
ANSWERS = ("as our copy says", "differs, as written beside", "not found there")
WHAT_FOR = (
    "Each rule stands here in own words, from memory, with what the rule itself makes of a coupon. Lay the book beside "
    "it: tick what it says, write the difference down, and mark the rule in the Rulebook by name, day and copy. The "
    "book decides, never this list."
)  # fmt: skip
EXAMPLE = (Column("Coupon", 64), Column("allows", 36))


def checking_list(
    rules: RulesOfCode, entries: Sequence[RuleEntry], on: Stationery, system: System
) -> tuple[DisplayList, ...]:
    """Return the pages of some rules of a code.

    Parameters
    ----------
    rules : whose entries they are
    entries : the rules, in their order
    on : paper, letterhead and font
    system : the column that limits are shown in
    """
    flow = Flow(on.paper, on.measure)
    if on.letterhead:
        flow.text(on.letterhead, role="print_strong")
        flow.skip(1.5)
    flow.text(f"Checking list, {rules.pack.name} {rules.edition}", height_mm=TITLE_MM, role="print_strong")
    flow.skip(1.0)
    flow.text(rules.pack.source, role="print_muted")
    flow.text(WHAT_FOR)
    left = sum(not each.checks for each in entries)
    flow.text(f"{len(entries)} rules, {left} of them checked by nobody yet.", role="print_strong")
    flow.pairs([("Copy of the code", LINE), ("Compared by", LINE), ("Edition", LINE), ("Day", LINE)])
    category = ""
    for entry in entries:
        if entry.category != category:
            category = entry.category
            flow.heading(capital(category) if entry.is_clause else f"{capital(category)} variables")
        _rule(flow, rules, entry, system)
    return flow.pages(f"{rules.pack.name} {rules.edition}   checking list")


def _rule(flow: Flow, rules: RulesOfCode, entry: RuleEntry, system: System) -> None:
    flow.room(BODY_MM * 16)  # its head and some of its examples stay together
    flow.skip(2.0)
    flow.text(f"{entry.clause}   {entry.title}", role="print_strong")
    limits = "" if entry.is_clause else f"Limits {entry.limits}. "
    told = f"{limits}Confidence {CONFIDENCES[entry.confidence]}."
    flow.text(told, height_mm=NOTE_MM, role="print_muted")
    if entry.concerns:
        flow.text(f"{entry.concerns[0].upper()}{entry.concerns[1:]}.")
    if entry.note:
        flow.text(f"{entry.note}.")
    if entry.overlay is not None:
        over = entry.overlay
        flow.text(f"Not as shipped: {over.by} corrected it on {over.on[:10]}. {over.reason}.", role="print_strong")
    examples = rules.examples(entry, system)
    flow.table(EXAMPLE, [(each.coupon, each.allowed) for each in examples])
    flow.boxes(ANSWERS)
    for check in entry.checks:
        said = f"Checked by {check.by} on {check.on[:10]} against {check.copy}, edition {check.edition}."
        flow.text(said, height_mm=NOTE_MM, role="print_muted")
