"""What a procedure states and asks, as the judge reads it: sets variable by variable, and its demand."""

from collections.abc import Mapping, Sequence
from typing import Any

from anlage.core.catalogue import MetalGroup
from anlage.core.codes import Demand, Pack, Stated, StatedDeposit, StatedPass
from anlage.core.codes.asking import asked_by, lies_in_a_detail
from anlage.core.codes.conditions import tokens_of
from anlage.core.codes.facts import Fact
from anlage.core.codes.listed_metals import Sides
from anlage.core.codes.pack import DemandKind
from anlage.core.document import at
from anlage.core.procedure import Deposit, Wps
from anlage.core.ranges import Choices, Interval, Range, choices, numbers
from anlage.data.tables import catalogue, variables
from anlage.session.judging.clashes.all_clashes import clashes_of, sentences
from anlage.session.judging.heat_basis import basis_of, with_stated_heat
from anlage.session.judging.mapper import pass_sets, sets_of
from anlage.session.judging.metals import is_known_filler, is_without, metals_of

THICKNESS = "base_metal_thickness_mm"
WAY = frozenset({"progression"})  # words of a position may hang on it
DIAMETER = "diameter_mm"
UNLISTED = {
    "unlisted_opening_mm": "root_opening_mm", "unlisted_face_mm": "root_face_mm",
    "unlisted_angle_deg": "groove_angle_deg",
}  # fmt: skip


def demand_of(document: Any, pack: Pack) -> Demand:
    """Return what a document asks of any record by a pack; a demand that is not stated, or clashes, is open."""
    return _demand(document, pack, sentences(clashes_of(document, pack.derive)))


def _demand(document: Any, pack: Pack, clashes: Mapping[str, str]) -> Demand:
    asked = {each.id: at(document, variables()[each.id].asked) for each in pack.demands}
    asked |= {each.id: _of_metals(document, pack, each) for each in pack.demands if each.of and not asked[each.id]}
    unsaid = [name for name, answer in asked.items() if answer is None or name in clashes]
    return Demand(units=document.header.units, unsaid=unsaid, **asked)


def _of_metals(document: Any, pack: Pack, demand: DemandKind) -> bool | None:
    """Return whether a code itself makes a demand of the metals that are joined; `None` where they are not known."""
    metals = metals_of(document.metals)
    words = pack.derive.metal_facts(metals[0], metals[-1]).get(demand.of) if metals else None
    known = tokens_of(words) if isinstance(words, str | frozenset) else frozenset[str]()
    return bool(known - set(demand.but)) if known else None


def stated_of(wps: Wps, pack: Pack) -> Stated:
    """Return the sets of a procedure; what is not stated, or not known to the catalogue, has none."""
    clashes = clashes_of(wps, pack.derive)
    joint = {**_pipe_without_diameter(wps, pack), **sentences(clashes)}
    metals = metals_of(wps.metals)
    sides = sides_of(wps)
    facts = pack.derive.metal_facts(metals[0], metals[-1], sides) if metals else {}
    asked = asked_by(pack)
    deposits = tuple(_deposit(wps, each, pack, sentences(clashes, each.id)) for each in wps.deposits)
    stated = in_words_of(pack, sets_of(wps, "joint", only=asked | WAY))
    sets = {**_words(facts), **_heat_treatment(wps, pack, facts), **stated}
    sets |= {name: choices(*sorted(each)) for name, each in pack.derive.class_facts(sets, wps.header.units).items()}
    sets |= _as_a_joint(pack, sets, _demand(wps, pack, joint))
    members = _members(pack, metals, sides) if pack.asks_members else ()
    return Stated(sets, deposits, joint, _demand(wps, pack, joint), members)


def _pipe_without_diameter(wps: Wps, pack: Pack) -> dict[str, str]:
    """Return why a pipe's diameter is not stated where a code lets plates state none."""
    needs = DIAMETER in pack.optional and wps.joint.product != "plate" and wps.range.diameter_mm is None
    return {DIAMETER: "a pipe needs its outside diameters, and a plate to be called one"} if needs else {}


def _as_a_joint(pack: Pack, sets: Mapping[str, Range], demand: Demand) -> dict[str, Range]:
    """Return the type of a groove to a code that lists joints, and the dimensions of one that it does not list."""
    form = sets.get("groove_form")
    if not (pack.details and isinstance(form, Choices)):
        return {}
    verdict = lies_in_a_detail(pack, sets, demand)
    if verdict == "unproven":
        return {}
    if verdict == "inside":
        return {"groove_type": choices("listed square" if form.contains("square") else "listed")}
    own = {name: sets[leaf] for name, leaf in UNLISTED.items() if leaf in sets}
    return {"groove_type": form, **own}


def sides_of(wps: Wps) -> Sides:
    """Return how thick each side of a procedure may be: the thicker one where its drawing says which that is."""
    thin, thick = wps.range.thickness_mm, wps.range.thicker_member_mm
    one, other = wps.joint.thickness_mm, wps.joint.other_thickness_mm
    if thin is None:
        return Sides(units=wps.header.units)
    if one is None or other is None or one == other:
        both = Interval(min(thin.low, thick.low), max(thin.high, thick.high)) if thick else thin
        return Sides(both, both, wps.header.units)
    thick = thick or Interval.single(max(one, other))
    return Sides(*((thick, thin) if one > other else (thin, thick)), wps.header.units)


def _members(pack: Pack, metals: Sequence[MetalGroup], sides: Sides) -> tuple[dict[str, Range], ...]:
    """Return what is stated of each side alone."""
    found = []
    for metal, span in zip((metals[0], metals[-1]) if metals else (), (sides.one, sides.other), strict=False):
        own = _words(pack.derive.metal_facts(metal, metal, Sides(span, span, sides.units)))
        found.append(own | ({THICKNESS: numbers([span])} if span else {}))
    return tuple(found)


def in_words_of(pack: Pack, sets: Mapping[str, Range]) -> dict[str, Range]:
    """Return sets in the words that a code has for them; what it has no word for is not stated."""
    found = dict(sets)
    for name in pack.derive.words:
        own = found.pop(name, None)
        way = sets.get("progression")
        ways = way.tokens if isinstance(way, Choices) else frozenset[str]()
        if isinstance(own, Choices) and (told := pack.derive.in_words_of_the_code(name, own.tokens, ways)):
            found[name] = choices(*sorted(told))
    return found


def _heat_treatment(wps: Wps, pack: Pack, facts: Mapping[str, Fact]) -> dict[str, Range]:
    """Return the class of a heat treatment of which only the temperature is stated, where it is known."""
    rule, metals = pack.derive.heat_treatment, facts.get("p_numbers")
    if rule is None or wps.pwht.kind is not None or wps.pwht.temperature_c is None:
        return {}
    known = metals if isinstance(metals, frozenset) else frozenset[str]()
    found = pack.derive.heat_treatment_class(wps.pwht.temperature_c, known)
    return {rule.fact: choices(found)} if found else {}


def _words(facts: dict[str, Fact]) -> dict[str, Range]:
    """Return facts in words as sets; what is asked of coupons alone is stated by no procedure."""
    return {
        name: choices(*sorted(tokens_of(fact)))
        for name, fact in facts.items()
        if isinstance(fact, str | frozenset) and not variables()[name].fact
    }


def _deposit(wps: Wps, deposit: Deposit, pack: Pack, clashes: Mapping[str, str]) -> StatedDeposit:
    asked = asked_by(pack)
    sets = sets_of(wps, "deposit", deposit, asked)
    if is_known_filler(deposit.filler) and not is_without(deposit.filler):
        sets |= _words(pack.derive.filler_facts(catalogue().filler(deposit.filler or "")))
    basis = basis_of(deposit, pack)
    passes = tuple(StatedPass(name, with_stated_heat(own, basis)) for name, own in pass_sets(wps, deposit, asked))
    roles = {each.role for each in wps.passes if each.deposit == deposit.id}
    return StatedDeposit(
        deposit.process or "", sets, passes, frozenset() if None in roles else frozenset(map(str, roles)), clashes
    )
