"""What a change costs: two states of a procedure variable by variable, and what each difference asks for."""

from collections.abc import Callable, Iterator
from typing import Literal

from msgspec import Struct

from anlage.core.codes import Pack, Rung
from anlage.core.errors import InputError
from anlage.core.procedure import Wps
from anlage.core.ranges import Range
from anlage.session.judging.assessment import Assessment
from anlage.session.judging.ladder import leaf_of_rung
from anlage.session.leaves.presence import has_leaf
from anlage.session.leaves.text import shown

Consequence = Literal["covered", "requalify", "editorial", "unproven"]


class VariableChange(Struct, frozen=True, kw_only=True):
    """One variable that is stated otherwise, or that the records answer otherwise.

    Parameters
    ----------
    id, variable : with the deposit behind a dot where it belongs to one, and without
    changed : whether another set is stated
    category : of the rule, by its code
    before, after : what is stated; `None` where it is not, or does not concern the procedure
    verdict_before, verdict_after : "" where the variable does not concern the procedure
    consequence : `covered` by a record all the same, `requalify` with a new one, `editorial` where the code asks for
        none, `unproven` where nobody can tell
    clause, code : of the rule that answers
    """

    id: str
    variable: str
    changed: bool
    category: str
    before: Range | None
    after: Range | None
    verdict_before: str
    verdict_after: str
    consequence: Consequence
    clause: str
    code: str = ""


def changes_between(one: Wps, other: Wps, assess: Callable[[Wps], Assessment]) -> tuple[VariableChange, ...]:
    """Return the variables in which two states of a procedure differ, those that ask for most first.

    Raises
    ------
    InputError : one of them cannot be judged, and why
    """
    found = [assess(each) for each in (one, other)]
    for proof in found:
        if proof.judgement is None or proof.pack is None:
            raise InputError(proof.missing, where="code", mend="state it in the procedure")
    order = ("requalify", "unproven", "covered", "editorial")
    changes = list(_changes((one, other), *found))
    return tuple(sorted(changes, key=lambda each: order.index(each.consequence)))


def _changes(states: tuple[Wps, Wps], one: Assessment, other: Assessment) -> Iterator[VariableChange]:
    assert one.judgement is not None, "it was judged"
    assert other.judgement is not None, "it was judged"
    packs = {each.pack.code: each.pack for proof in (one, other) for each in proof.by_code if each.pack is not None}
    before, after = ({rung.key: rung for rung in each.judgement.rungs} for each in (one, other) if each.judgement)
    for own in dict.fromkeys((*after, *before)):
        was, comes = before.get(own), after.get(own)
        changed = was.stated != comes.stated if was and comes else _leaf_differs(states, was or comes)
        if not changed and (was and was.verdict) == (comes and comes.verdict):
            continue
        rung = comes or was
        assert rung is not None, "one of them has it"
        yield VariableChange(
            id=rung.id, variable=rung.variable, changed=changed, category=rung.category,
            before=was.stated if was else None, after=comes.stated if comes else None,
            verdict_before=was.verdict if was else "", verdict_after=comes.verdict if comes else "",
            consequence=_consequence(comes, packs[rung.code], rung.category), clause=rung.clause, code=rung.code,
        )  # fmt: skip


def _leaf_differs(states: tuple[Wps, Wps], rung: Rung | None) -> bool:
    """Return whether the leaf of a variable differs that concerns only one of two states."""
    texts = []
    for wps in states:
        path = leaf_of_rung(wps, rung) if rung is not None else ""
        texts.append(shown(wps, path, "si") if path and has_leaf(wps, path) else "")
    return texts[0] != texts[1]


def _consequence(comes: Rung | None, pack: Pack, category: str) -> Consequence:
    """Return what a difference asks for; of what no longer concerns the procedure nothing."""
    if comes is None:
        return "editorial"
    if comes.verdict != "inside":
        return "requalify" if comes.verdict == "outside" else "unproven"
    return "editorial" if pack.category(category).stated else "covered"
