"""What procedures and records alike can say twice."""

from collections.abc import Iterator

from anlage.core.errors import UnknownNameError
from anlage.core.joint import MAKES
from anlage.core.procedure import Joint, Metal, Technique, Wps
from anlage.core.ranges import Interval
from anlage.core.record import Pqr
from anlage.data.tables import catalogue, processes, vocabulary
from anlage.session.judging.clashes.clash import Check, Clash, Said
from anlage.session.judging.clashes.electrodes import (
    gases_of_electrodes,
    polarities,
    transfers,
    windows_of_transfers,
)
from anlage.session.judging.metals import group_of, is_known_filler, metals_of
from anlage.session.leaves.gases import GASES, unknown_gases
from anlage.session.leaves.positions import listed

WITHOUT = ("none", "no")
CERAMIC = "ceramic"
OF_GAS = "check the spelling, or take one that it has"
DRAWN_FORMS = {
    **dict.fromkeys(("fillet", "socket", "slip-on"), "a fillet weld"), "plug": "a plug weld", "slot": "a slot weld",
    "cladding": "a surfacing",
}  # fmt: skip
ROUND = frozenset(("5G", "6G", "5F"))  # positions of a pipe alone
FLAT = frozenset(("1G", "2G", "4G", "1F", "2F", "4F"))


def _kind_of_weld(said: Said) -> Iterator[Clash]:
    joint, weld = said.document.joint, said.document.header.weld
    variables = frozenset(("weld", "coupon_weld"))
    if isinstance(said.document, Pqr) and weld in ("partial", "repair"):
        text = "no rule says what a coupon of partial penetration or of a repair covers"
        yield Clash(("header/weld",), variables, text, "", "state a groove or a fillet")
        return
    if not joint.kind or not weld or weld == "repair" or joint.kind == "tube-node":
        return
    form = MAKES[joint.kind].form
    drawn = DRAWN_FORMS.get(form, "a groove weld")
    if (drawn == "a fillet weld" and weld == "fillet") or (drawn == "a groove weld" and weld in ("groove", "partial")):
        return
    word = {"groove": "a groove", "fillet": "a fillet", "partial": "a partial-penetration groove"}[weld]
    yield Clash(("header/weld", "joint/kind"), variables, f"{word} is stated, but what is drawn is {drawn}")


def _metal_groups(said: Said) -> Iterator[Clash]:
    sides: tuple[tuple[str, Metal | None], ...] = (
        ("metals/one", said.document.metals.one), ("metals/other", said.document.metals.other)
    )  # fmt: skip
    for path, metal in sides:
        if metal is None or not metal.name:
            continue
        try:
            known = catalogue().metal_group(metal.name)
        except UnknownNameError:
            continue
        number, group = known.group("p_number"), known.group("group_number")
        if metal.p_number and number and metal.p_number != number:
            text = f"{metal.name} is P-{number}, but P-{metal.p_number} is stated"
            yield Clash(
                (f"{path}/name", f"{path}/p_number"), frozenset(("p_number", "p_numbers", "group_number")), text
            )
        elif metal.group_number and group and metal.group_number != group:
            text = f"{metal.name} is of group {group}, but group {metal.group_number} is stated"
            yield Clash((f"{path}/name", f"{path}/group_number"), frozenset(("group_number",)), text)


def _heat_treatment(said: Said) -> Iterator[Clash]:
    pwht = said.document.pwht
    leaves, variables = ("pwht/kind", "pwht/temperature_c"), frozenset(("pwht", "pwht_temperature_c"))
    if pwht.kind == "none":
        if pwht.temperature_c is not None:
            yield Clash(leaves, variables, "no heat treatment is stated, but a temperature of one is")
        if pwht.time_h is not None:
            both = frozenset(("pwht", "pwht_time_h"))
            yield Clash(("pwht/kind", "pwht/time_h"), both, "no heat treatment is stated, but a time of one is")
    elif pwht.kind and pwht.temperature_c is not None:
        text = _misclassed(said, pwht.kind, pwht.temperature_c)
        if text:
            yield Clash(leaves, variables, text)


def _misclassed(said: Said, kind: str, temperature_c: Interval) -> str:
    """Return what contradicts a class of heat treatment; "" where nothing does."""
    groups = metals_of(said.document.metals)
    if not groups or said.derive.heat_treatment is None:
        return ""
    rule, ends = said.derive.heat_treatment, said.derive.metal_facts(groups[0], groups[-1]).get("p_numbers")
    metals = ends if isinstance(ends, frozenset) else frozenset[str]()
    found = said.derive.heat_treatment_class(temperature_c, metals)
    named = said.leaf("pwht/kind") or kind
    if found == rule.otherwise:
        return "" if kind in (rule.otherwise, "solution") else f"{named} is stated of metals that do not transform so"
    limit = said.derive.lower_transformation(metals)
    if found == rule.below and kind not in (rule.below, "range"):
        return f"{said.temperature(temperature_c.high)} stays below the lower transformation, but {named} is stated"
    if kind == rule.below and limit is not None and temperature_c.high >= limit:
        about = f"the lower transformation at about {said.temperature(limit)}"
        return f"{named} is stated, but {said.temperature(temperature_c.high)} reaches {about}"
    return ""


def _way_up(said: Said) -> Iterator[Clash]:
    technique: Technique = said.document.technique
    if not technique.position or not technique.progression:
        return
    ways = {_way_of(word) for word in listed(technique.position)}
    stated, text = technique.progression, ""
    if stated == "none" and ways - {"none"}:
        text = f"position {technique.position} goes up or down, but the progression says neither"
    elif stated != "none" and ways == {"none"}:
        text = f"{stated} is stated, but position {technique.position} goes neither up nor down"
    elif stated != "none" and ways - {"none", "either", stated}:
        text = f"{stated} is stated, but position {technique.position} says otherwise"
    if text:
        yield Clash(("technique/position", "technique/progression"), frozenset(("position", "progression")), text)


def _way_of(word: str) -> str:
    """Return which way a position goes: uphill, downhill, none, or either; a word nobody knows may go any way."""
    try:
        return vocabulary().token("progression_of_position", word)
    except UnknownNameError:
        pass
    try:
        return "none" if vocabulary().token("position", word) in FLAT else "either"
    except UnknownNameError:
        return "either"


def _backing(said: Said) -> Iterator[Clash]:
    joint: Joint = said.document.joint
    leaves = ("joint/backing_form", "joint/backing")
    if not joint.backing:
        return
    if joint.backing.casefold() not in WITHOUT:
        if joint.backing_form and (joint.backing_form == CERAMIC) != (CERAMIC in joint.backing.casefold()):
            text = f"{said.leaf(leaves[0])} is stated as backing, and {joint.backing} as well"
            yield Clash(leaves, frozenset(("backing",)), text)
        return
    if joint.kind and joint.kind.endswith("backing"):
        text = "a preparation on backing is drawn, but no backing is stated"
        yield Clash(("joint/kind", "joint/backing"), frozenset(("backing",)), text)
    elif joint.backing_form:
        text = f"a backing of {joint.backing_form} is stated, and no backing as well"
        yield Clash(leaves, frozenset(("backing",)), text)


def _unknown_names(said: Said) -> Iterator[Clash]:
    """Yield the names that no table has: what follows from them is not known, and they are no other metal or filler."""
    mend = "check the spelling, or add it to the metals and fillers of this works"
    for path, metal in (("metals/one", said.document.metals.one), ("metals/other", said.document.metals.other)):
        if metal is not None and metal.name and not metal.p_number and group_of(metal) is None:
            text = f"the catalogue has no base metal {metal.name}"
            yield Clash((f"{path}/name",), frozenset(("p_number", "p_numbers", "group_number")), text, "", mend)
    for each in said.document.deposits:
        if each.filler and not is_known_filler(each.filler):
            variables = frozenset(("filler_classification", "f_number", "a_number", "product_form"))
            text = f"the catalogue has no filler {each.filler}"
            yield Clash((f"deposits/{each.id}/filler",), variables, text, each.id, mend)
        for name in GASES:
            for gas in unknown_gases(getattr(each, name, None)):
                text = f"{gas} is no gas that the catalogue has, and no composition"
                yield Clash((f"deposits/{each.id}/{name}",), frozenset((name,)), text, each.id, OF_GAS)


def _fillers(said: Said) -> Iterator[Clash]:
    for each in said.document.deposits:
        process = processes().get(each.process or "")
        if process is None or not each.filler:
            continue
        leaves = (f"deposits/{each.id}/process", f"deposits/{each.id}/filler")
        if each.filler.casefold() == "none":
            if not process.without_filler:
                text = f"{each.process} lays no weld without filler"
                yield Clash(leaves, frozenset(("filler_present", "filler_classification", "f_number")), text, each.id)
            continue
        try:
            filler = catalogue().filler(each.filler)
        except UnknownNameError:
            continue
        if each.process not in filler.processes:
            variables = frozenset(("filler_classification", "f_number", "a_number", "product_form", "filler_present"))
            text = f"{filler.classification} is a filler for {', '.join(filler.processes)}, not for {each.process}"
            yield Clash(leaves, variables, text, each.id)


def _on_plate(said: Said) -> Iterator[Clash]:
    if said.document.joint.product != "plate":
        return
    found = [word for word, token in listed(said.document.technique.position).items() if token in ROUND]
    if found:
        are = "are positions" if len(found) > 1 else "is a position"
        text = f"{' and '.join(found)} {are} of pipe, but the product is plate"
        yield Clash(("technique/position", "joint/product"), frozenset(("position",)), text)


def _fillets_alone(said: Said) -> Iterator[Clash]:
    """Tell a groove weld of which every position is one of fillets; a groove's position is said of fillets as well."""
    found, kind = listed(said.document.technique.position), said.document.joint.kind
    is_drawn = kind and kind != "tube-node" and MAKES[kind].form not in DRAWN_FORMS
    weld = said.document.header.weld or ("groove" if is_drawn else "")
    if weld in ("groove", "partial") and found and all(token.endswith("F") for token in found.values()):
        are = "are positions" if len(found) > 1 else "is a position"
        leaf = "header/weld" if said.document.header.weld else "joint/kind"
        text = f"{' and '.join(found)} {are} of a fillet, but the weld is a groove"
        yield Clash(("technique/position", leaf), frozenset(("position", "weld", "coupon_weld")), text)


def _preheat(said: Said) -> Iterator[Clash]:
    if isinstance(said.document, Wps):
        low, high = said.document.preheat.minimum_c, said.document.preheat.interpass_maximum_c
        leaves: tuple[str, ...] = ("preheat/minimum_c", "preheat/interpass_maximum_c")
    else:
        low, high = said.document.preheat_least_c, said.document.interpass_most_c
        leaves = ("preheat_least_c", "interpass_most_c")
    if low is not None and high is not None and low > high:
        text = f"preheat of {said.temperature(low)} is above the interpass temperature of {said.temperature(high)}"
        yield Clash(leaves, frozenset(("preheat_c", "interpass_c")), text)


OF_BOTH: tuple[Check, ...] = (
    _kind_of_weld,
    _metal_groups,
    _heat_treatment,
    _way_up,
    _backing,
    _unknown_names,
    _fillers,
    gases_of_electrodes,
    polarities,
    transfers,
    windows_of_transfers,
    _on_plate,
    _fillets_alone,
    _preheat,
)
