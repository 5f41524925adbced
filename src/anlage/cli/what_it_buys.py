"""The sets that a coupon or a record buys, as an answer."""

import textwrap
from collections.abc import Callable, Iterator, Sequence
from typing import Any

from anlage.core.codes import Pack
from anlage.core.quantities.units import System
from anlage.core.ranges import ANY, Range, is_any, is_none
from anlage.core.results import Notice, Source
from anlage.session.judging.what_if import Bought, WhatIf
from anlage.session.keyed.answer import Answer, open_ends, range_as_json
from anlage.session.leaves.set_text import set_text


def what_if_answer(found: WhatIf, notices: list[Notice]) -> Answer:
    """Return the sets of a what-if, or of a record, as an answer."""
    variables = {bought.id: _variable(bought, found.pack) for bought in found.variables}
    units = found.demand.units
    values = {"code": found.pack.code, "edition": found.edition, "units": units, "variables": variables}
    lines = list(_lines(found))
    confidences = {b.allowance.confidence for b in found.variables if b.allowance}
    sources = [Source("ranges", f"{found.pack.source}, edition {found.edition}", max(confidences, key="HML".index))]
    return Answer(values, lines, [*sources, *found.sources], [*notices, *found.notices])


def by_each_code(codes: Sequence[str], ask: Callable[[str], Answer]) -> Answer:
    """Return the answer by a code; by several, each under the name of its code."""
    named = list(dict.fromkeys(code.strip().lower() for code in codes))
    answers = {code: ask(code) for code in named}
    if len(answers) == 1:
        return answers[named[0]]
    lines = [line for code, each in answers.items() for line in ((code.upper(), ""), *each.lines)]
    return Answer(
        {"codes": {code: dict(each.values) for code, each in answers.items()}}, lines,
        list(dict.fromkeys(source for each in answers.values() for source in each.sources)),
        list(dict.fromkeys(notice for each in answers.values() for notice in each.notices)),
        max(each.status for each in answers.values()),
    )  # fmt: skip


def _sets(bought: Bought) -> tuple[Range, Range]:
    if bought.allowance is None:
        return ANY, ANY
    return bought.allowance.sure, bought.allowance.possible


def _variable(bought: Bought, pack: Pack) -> dict[str, Any]:
    sure, possible = _sets(bought)
    unproven = is_none(sure) and not is_none(possible)
    answer: dict[str, Any] = {"allowed": None if unproven else range_as_json(sure)}
    if ends := open_ends(sure):
        answer["open"] = ends
    if sure != possible and not (unproven and is_any(possible)):
        answer["possible"] = range_as_json(possible)
    if bought.variable == "heat_input_kj_mm":
        answer["basis"] = pack.basis
    note = "not stated" if unproven and bought.allowance and bought.allowance.missing else bought.note
    confidence = bought.allowance.confidence if bought.allowance else "H"
    return {**answer, "clause": bought.clause, "category": bought.category, "confidence": confidence, "note": note}


def _lines(found: WhatIf) -> Iterator[tuple[str, str]]:
    """Yield the table: what limits first, then in one paragraph what the WPS must only state."""
    for category in found.pack.categories:
        own = [bought for bought in found.variables if bought.category == category.id]
        if own and category.stated:
            yield category.word.upper(), "any, but the WPS states it:"
            yield from (("", line) for line in textwrap.wrap(", ".join(bought.id for bought in own), 84))
        elif own:
            yield category.word.upper(), ""
            yield from ((f"  {bought.id}", _line(bought, found.demand.units)) for bought in own)


def _line(bought: Bought, units: System) -> str:
    sure, possible = _sets(bought)
    if bought.allowance is None:
        return f"{f'any: {bought.note}':<44} {bought.clause}"
    text = set_text(bought.variable, sure, units)
    if is_none(sure) and not is_none(possible):
        text = "not stated" if bought.allowance.missing else "unproven"
    if sure != possible and not is_any(possible):
        text += f", possibly {set_text(bought.variable, possible, units)}"
    doubt = "" if bought.allowance.confidence == "H" else f"  [{bought.allowance.confidence}]"
    return f"{text:<44} {bought.clause}{doubt}"
