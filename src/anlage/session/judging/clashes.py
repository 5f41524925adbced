"""The one place that reconciles what a document states twice: two statements that disagree prove nothing.

Each check looks at two or more leaves of one document. Where they disagree every variable that hangs on them counts
as not stated, by a procedure, or not recorded, by a record, and one sentence says so at each of the leaves.
"""

import math
from collections.abc import Callable, Iterable, Iterator
from datetime import date
from typing import Any

from msgspec import Struct

from anlage.core.codes.derive import Derivations
from anlage.core.document import kept
from anlage.core.errors import AnlageError, InputError, UnknownNameError
from anlage.core.heat import arc_energy
from anlage.core.joint import MAKES
from anlage.core.procedure import Joint, Metal, Pass, Technique, Wps
from anlage.core.quantities import show
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.core.record import Pqr, RecordedDeposit
from anlage.data.tables import catalogue, processes, unit_table, vocabulary
from anlage.session.judging.editions import edition_of
from anlage.session.judging.gases import NONE as NO_GAS
from anlage.session.judging.gases import gas_tokens, unknown_gases
from anlage.session.judging.metals import group_of, is_known_filler, is_without, metals_of
from anlage.session.judging.results import kind_of_test
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import shown

NEAR = 1e-6  # relative; what is closer is the same number
WITHOUT = ("none", "no")
DRAWN_FORMS = {
    **dict.fromkeys(("fillet", "socket", "slip-on"), "a fillet weld"), "plug": "a plug weld", "slot": "a slot weld",
    "cladding": "a surfacing",
}  # fmt: skip
ROUND = frozenset(("5G", "6G", "5F"))  # positions of a pipe alone
FLAT = frozenset(("1G", "2G", "4G", "1F", "2F", "4F"))
VERTICAL = frozenset(("3G", "5G", "6G", "3F", "5F"))


class Clash(Struct, frozen=True):
    """Two statements that disagree: the leaves, the variables that hang on them, and the sentence that says so."""

    leaves: tuple[str, ...]
    variables: frozenset[str]
    text: str
    deposit: str = ""  # the deposit that they belong to; "" for the joint
    mend: str = "make both say the same"


class _Said(Struct, frozen=True):
    """A document with the reader's units and what its code derives."""

    document: Any
    derive: Derivations
    system: System

    def length(self, value_mm: float) -> str:
        return show(value_mm, "length", self.system, unit_table())

    def leaf(self, path: str) -> str:
        return shown(self.document, path, self.system)

    def temperature(self, value_c: float) -> str:
        return show(value_c, "temperature", self.system, unit_table())


@kept
def clashes_of(document: Any, derive: Derivations, system: System = "si") -> tuple[Clash, ...]:
    """Return every contradiction in a procedure or record.

    Parameters
    ----------
    document : a `Wps` or a `Pqr`
    derive : what its code derives of metals and heat treatments; without a code `Derivations()`
    system : the units that the sentences are said in
    """
    said = _Said(document, derive, system)
    checks = (*_BOTH, *(_OF_WPS if isinstance(document, Wps) else _OF_PQR))
    return tuple(clash for check in checks for clash in check(said))


def complaints_of(document: Any, system: System) -> dict[str, InputError]:
    """Return what a document says twice and not alike, by every leaf that takes part."""
    try:
        derive = edition_of(document.header.code)[0].derive if document.header.code else Derivations()
    except AnlageError:
        derive = Derivations()
    found: dict[str, InputError] = {}
    for clash in clashes_of(document, derive, system):
        for leaf in clash.leaves:
            found.setdefault(leaf, InputError(clash.text, where=leaf, mend=clash.mend))
    return found


def sentences(clashes: Iterable[Clash], deposit: str = "") -> dict[str, str]:
    """Return the variables that clash in the joint, or in one deposit, each with its sentence."""
    return {variable: each.text for each in clashes if each.deposit == deposit for variable in sorted(each.variables)}


# What both kinds of document can say twice ---------------------------------------------------


def _kind_of_weld(said: _Said) -> Iterator[Clash]:
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


def _metal_groups(said: _Said) -> Iterator[Clash]:
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


def _heat_treatment(said: _Said) -> Iterator[Clash]:
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


def _misclassed(said: _Said, kind: str, temperature_c: Interval) -> str:
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


def _way_up(said: _Said) -> Iterator[Clash]:
    technique: Technique = said.document.technique
    if not technique.position or not technique.progression:
        return
    words = [word.strip() for word in technique.position.replace(";", ",").replace(" and ", ",").split(",")]
    ways = {way for word in words if (way := _way_of(word))}
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
    if not word:
        return ""
    try:
        return vocabulary().token("progression_of_position", word)
    except UnknownNameError:
        pass
    try:
        return "none" if vocabulary().token("position", word) in FLAT else "either"
    except UnknownNameError:
        return "either"


def _backing(said: _Said) -> Iterator[Clash]:
    joint: Joint = said.document.joint
    if (joint.backing or "").casefold() not in WITHOUT:
        return
    if joint.kind and joint.kind.endswith("backing"):
        text = "a preparation on backing is drawn, but no backing is stated"
        yield Clash(("joint/kind", "joint/backing"), frozenset(("backing",)), text)
    elif joint.backing_form:
        text = f"a backing of {joint.backing_form} is stated, and no backing as well"
        yield Clash(("joint/backing_form", "joint/backing"), frozenset(("backing",)), text)


def _unknown_names(said: _Said) -> Iterator[Clash]:
    """Yield the names that no table has: what follows from them is not known, and they are no other metal or filler."""
    mend = "check the spelling, or take one that it has"
    for path, metal in (("metals/one", said.document.metals.one), ("metals/other", said.document.metals.other)):
        if metal is not None and metal.name and not metal.p_number and group_of(metal) is None:
            text = f"the catalogue has no base metal {metal.name}"
            yield Clash((f"{path}/name",), frozenset(("p_number", "p_numbers", "group_number")), text, "", mend)
    for each in said.document.deposits:
        if each.filler and not is_known_filler(each.filler):
            variables = frozenset(("filler_classification", "f_number", "a_number", "product_form"))
            text = f"the catalogue has no filler {each.filler}"
            yield Clash((f"deposits/{each.id}/filler",), variables, text, each.id, mend)
        for name in ("shielding_gas", "backing_gas", "trailing_gas"):
            for gas in unknown_gases(getattr(each, name)):
                text = f"{gas} is no gas that the catalogue has, and no composition"
                yield Clash((f"deposits/{each.id}/{name}",), frozenset((name,)), text, each.id, mend)


def _fillers(said: _Said) -> Iterator[Clash]:
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


def _sticks(said: _Said) -> Iterator[Clash]:
    """Yield covered electrodes on a current that they are not made for, or under a gas that they do not take."""
    for each in said.document.deposits:
        process = processes().get(each.process or "")
        if process is None or process.electrode != "stick":
            continue
        home = f"deposits/{each.id}"
        if gas_tokens(each.shielding_gas) - {NO_GAS}:
            text = f"{each.process} takes no shielding gas, but {each.shielding_gas} is stated"
            yield Clash((f"{home}/process", f"{home}/shielding_gas"), frozenset(("shielding_gas",)), text, each.id)
        if not each.current_type or not is_known_filler(each.filler) or is_without(each.filler):
            continue
        filler = catalogue().filler(each.filler or "")
        if filler.currents and each.current_type not in filler.currents:
            text = f"{filler.classification} is made for {' and '.join(filler.currents)}, not for {each.current_type}"
            yield Clash((f"{home}/filler", f"{home}/current_type"), frozenset(("current_type",)), text, each.id)


def _on_plate(said: _Said) -> Iterator[Clash]:
    position, joint = said.document.technique.position, said.document.joint
    if not position or joint.product != "plate":
        return
    try:
        found = vocabulary().token("position", position)
    except UnknownNameError:
        return
    if found in ROUND:
        text = f"{position} is a position of pipe, but the product is plate"
        yield Clash(("technique/position", "joint/product"), frozenset(("position",)), text)


def _preheat(said: _Said) -> Iterator[Clash]:
    if isinstance(said.document, Wps):
        low, high = said.document.preheat.minimum_c, said.document.preheat.interpass_maximum_c
        leaves: tuple[str, ...] = ("preheat/minimum_c", "preheat/interpass_maximum_c")
    else:
        low, high = said.document.preheat_least_c, said.document.interpass_most_c
        leaves = ("preheat_least_c", "interpass_most_c")
    if low is not None and high is not None and low > high:
        text = f"preheat of {said.temperature(low)} is above the interpass temperature of {said.temperature(high)}"
        yield Clash(leaves, frozenset(("preheat_c", "interpass_c")), text)


# What a procedure can say twice --------------------------------------------------------------


def _thickness_drawn(said: _Said) -> Iterator[Clash]:
    wps: Wps = said.document
    stated, thicker = wps.range.thickness_mm, wps.range.thicker_member_mm
    drawn = {"joint/thickness_mm": wps.joint.thickness_mm, "joint/other_thickness_mm": wps.joint.other_thickness_mm}
    drawn |= {f"members/{each.id}/wall_mm": each.wall_mm for each in wps.members}
    known = {path: value for path, value in drawn.items() if value is not None}
    thickest = max(known.values(), default=0.0)
    for path, value in known.items():
        of_thicker = thicker is not None and len(known) > 1 and value == thickest and value > min(known.values())
        span, home = (thicker, "range/thicker_member_mm") if of_thicker else (stated, "range/thickness_mm")
        if span is not None and not _holds(span, value):
            text = f"{said.length(value)} is drawn, but the procedure is stated for {_span(said, span)}"
            variable = "thicker_member_mm" if of_thicker else "base_metal_thickness_mm"
            yield Clash((home, path), frozenset((variable,)), text)


def _diameter_drawn(said: _Said) -> Iterator[Clash]:
    wps: Wps = said.document
    if (span := wps.range.diameter_mm) is None:
        return
    drawn = {"joint/od_mm": wps.joint.od_mm} | {f"members/{each.id}/od_mm": each.od_mm for each in wps.members}
    for path, value in drawn.items():
        if value is not None and not _holds(span, value):
            text = f"a diameter of {said.length(value)} is drawn, but the procedure is stated for {_span(said, span)}"
            yield Clash(("range/diameter_mm", path), frozenset(("diameter_mm",)), text)


def _deposits_laid(said: _Said) -> Iterator[Clash]:
    """Yield the deposits whose stated thickness their own passes contradict, and those that do not make the joint."""
    wps: Wps = said.document
    for each in wps.deposits:
        laid = _laid([one for one in wps.passes if one.deposit == each.id])
        if each.thickness_mm is None or laid is None:
            continue
        home = f"deposits/{each.id}/thickness_mm"
        if laid.low > each.thickness_mm.high + _slack(each.thickness_mm.high):
            text = (
                f"the passes lay {said.length(laid.low)}, but at most {said.length(each.thickness_mm.high)} is stated"
            )
        elif laid.high < each.thickness_mm.low - _slack(each.thickness_mm.low):
            text = (
                f"the passes lay {said.length(laid.high)}, but at least {said.length(each.thickness_mm.low)} is stated"
            )
        else:
            continue
        leaves = (home, *(f"passes/{one.id}/thickness_mm" for one in wps.passes if one.deposit == each.id))
        yield Clash(leaves, frozenset(("deposit_thickness_mm",)), text, each.id)


def _deposits_of_joint(said: _Said) -> Iterator[Clash]:
    wps: Wps = said.document
    joint, spans = wps.joint, [each.thickness_mm for each in wps.deposits]
    if (
        wps.header.weld != "groove"
        or not joint.kind
        or MAKES[joint.kind].family != "butt"
        or joint.thickness_mm is None
    ):
        return
    thickness = min(joint.thickness_mm, joint.other_thickness_mm or joint.thickness_mm)
    least = sum(span.low for span in spans if span is not None)
    most = math.fsum(math.inf if span is None else span.high for span in spans)
    crown = joint.reinforcement_mm.span.high if joint.reinforcement_mm else 0.0
    laid = _laid(wps.passes)
    text = ""
    if not spans:
        return
    if most < thickness - _slack(thickness):
        text = f"the deposits add up to at most {said.length(most)} in a joint of {said.length(thickness)}"
    elif least > thickness + _slack(thickness):
        text = f"the deposits add up to at least {said.length(least)} in a joint of {said.length(thickness)}"
    elif laid is not None and laid.high < thickness - _slack(thickness):
        text = f"all passes lay {said.length(laid.high)} in a joint of {said.length(thickness)}"
    elif laid is not None and laid.low > thickness + crown + _slack(thickness) + 1.0:
        text = f"all passes lay {said.length(laid.low)} in a joint of {said.length(thickness)}"
    if text:
        leaves = ("joint/thickness_mm", *(f"deposits/{each.id}/thickness_mm" for each in wps.deposits))
        yield Clash(leaves, frozenset(("deposit_thickness_mm",)), text)


def _laid(passes: Iterable[Pass]) -> Interval | None:
    """Return the least and most that passes can add up to through the thickness, layer by layer.

    Beads beside each other are one layer; a bead of which nobody says where it lies may be either. `None` where
    nothing is laid, or a pass does not state its thickness.
    """
    least = most = layer = 0.0
    seen = False
    for each in passes:
        if each.reach is not None or each.role == "buttering":
            continue
        if each.thickness_mm is None:
            return None
        low, high = each.thickness_mm.low, each.thickness_mm.high
        if not seen or each.layer == "new":
            least, most, layer = least + low, most + high, low
        elif each.layer == "beside":
            least, layer = least + max(low - layer, 0.0), max(low, layer)
        else:
            least, most, layer = least + max(low - layer, 0.0), most + high, max(low, layer)
        seen = True
    return Interval(least, most) if seen else None


def _beads(said: _Said) -> Iterator[Clash]:
    wps: Wps = said.document
    stated, laid = wps.technique.bead_technique, [each for each in wps.passes if each.bead is not None]
    woven = [each for each in laid if each.bead == "weave"]
    if stated == "stringer" and woven:
        number = wps.passes.index(woven[0]) + 1
        text = f"stringers are stated, but pass {number} is woven"
        leaves = ("technique/bead_technique", *(f"passes/{each.id}/bead" for each in woven))
    elif stated == "weave" and len(laid) == len(wps.passes) > 0 and not woven:
        text = "weaving is stated, but every pass is a stringer"
        leaves = ("technique/bead_technique", *(f"passes/{each.id}/bead" for each in laid))
    else:
        return
    yield Clash(leaves, frozenset(("bead_technique",)), text)


def _runs(said: _Said) -> Iterator[Clash]:
    wps: Wps = said.document
    whole = [each for each in wps.passes if each.reach is None and each.role not in ("buttering", "strip")]
    second = sum(each.side == "second" or (each.side is None and each.role == "back") for each in whole)
    most = max(second, len(whole) - second)
    if not whole or not wps.technique.runs or (most > 1) == (wps.technique.runs == "multi"):
        return
    text = (
        f"one pass a side is stated, but {most} are laid on one"
        if most > 1
        else "several passes a side are stated, but one is laid"
    )
    yield Clash(("technique/runs", f"passes/{whole[0].id}/role"), frozenset(("runs",)), text)


# What a record can say twice -----------------------------------------------------------------


def _recorded_energy(said: _Said) -> Iterator[Clash]:
    for each in said.document.deposits:
        bounds = _corners(each)
        stated = each.heat_input_kj_mm
        if bounds is None or stated is None or each.heat_input_basis != "arc_energy":
            continue
        if stated.most > bounds.high * 1.02 or stated.least < bounds.low * 0.98:
            low, high = (show(end, "heat_input", said.system, unit_table()) for end in (bounds.low, bounds.high))
            text = f"the heat input recorded does not lie within {low} to {high} of its own volts, amps and speeds"
            leaves = tuple(
                f"deposits/{each.id}/{name}"
                for name in ("heat_input_kj_mm", "voltage_v", "current_a", "travel_speed_mm_min")
            )
            yield Clash(leaves, frozenset(("heat_input_kj_mm",)), text, each.id)


def _passes_read(said: _Said) -> Iterator[Clash]:
    """Yield the passes that were read beyond the extremes that are recorded of their deposit."""
    for deposit in said.document.deposits:
        for each in said.document.welded:
            if each.deposit not in (deposit.id, None) or (each.deposit is None and len(said.document.deposits) > 1):
                continue
            for name in ("current_a", "voltage_v", "travel_speed_mm_min"):
                read, recorded = getattr(each, name), getattr(deposit, name)
                if read is None or recorded is None or _holds(Interval(recorded.least, recorded.most), read):
                    continue
                what = field_of(f"deposits/{deposit.id}/{name}").label.lower()
                text = f"the {what} of a pass as read lies beyond the least and most that are recorded"
                ends = [f"deposits/{deposit.id}/{name}/{end}" for end in ("least", "most")]
                leaves = (f"welded/{each.id}/{name}", *ends)
                yield Clash(leaves, frozenset(("heat_input_kj_mm",)), text, deposit.id)


def _corners(deposit: RecordedDeposit) -> Interval | None:
    volts, amps, speed = deposit.voltage_v, deposit.current_a, deposit.travel_speed_mm_min
    if volts is None or amps is None or speed is None:
        return None
    cold = arc_energy(volts.least, amps.least, speed.most / 60)
    return Interval(cold, arc_energy(volts.most, amps.most, speed.least / 60))


def _pass_in_deposit(said: _Said) -> Iterator[Clash]:
    for each in said.document.deposits:
        thick, most = each.thickness_mm, each.max_pass_thickness_mm
        if thick is not None and most is not None and most > thick * (1 + NEAR):
            text = f"a pass of {said.length(most)} is recorded in a deposit of {said.length(thick)}"
            leaves = (f"deposits/{each.id}/thickness_mm", f"deposits/{each.id}/max_pass_thickness_mm")
            yield Clash(leaves, frozenset(("deposit_thickness_mm", "pass_thickness_mm")), text, each.id)


def _runs_of_coupon(said: _Said) -> Iterator[Clash]:
    pqr: Pqr = said.document
    most = max(len(pqr.welded), len(pqr.deposits))
    if pqr.technique.runs == "single" and most > 2:
        text = f"one pass a side is recorded, but {most} were laid"
        yield Clash(("technique/runs",), frozenset(("runs",)), text)


def _deposits_of_coupon(said: _Said) -> Iterator[Clash]:
    """Yield a groove coupon whose deposits do not make its thickness: one of the numbers is another."""
    pqr: Pqr = said.document
    joint, laid = pqr.joint, [each.thickness_mm for each in pqr.deposits]
    is_butt = joint.kind is None or MAKES[joint.kind].family == "butt"
    if pqr.header.weld not in (None, "groove") or not is_butt or joint.thickness_mm is None or not laid:
        return
    known = [thickness for thickness in laid if thickness is not None]
    if len(known) == len(laid) and sum(known) < joint.thickness_mm - _slack(joint.thickness_mm):
        text = f"the deposits add up to {said.length(sum(known))} in a coupon of {said.length(joint.thickness_mm)}"
        leaves = ("joint/thickness_mm", *(f"deposits/{each.id}/thickness_mm" for each in pqr.deposits))
        yield Clash(leaves, frozenset(("base_metal_thickness_mm", "deposit_thickness_mm")), text)


def _impact_results(said: _Said) -> Iterator[Clash]:
    tested = [each for each in said.document.results if kind_of_test(each.kind) == "impact"]
    if tested and said.document.toughness_tested is False:
        leaves = ("toughness_tested", f"results/{tested[0].id}/kind")
        yield Clash(leaves, frozenset(), "impact tests are listed, but it is said that there are none")


def _days(said: _Said) -> Iterator[Clash]:
    day = said.document.welded_on
    if day and not is_day(day):
        yield Clash(("welded_on",), frozenset(), f"{day} is no day of the calendar")


def is_day(text: str) -> bool:
    """Return whether a text is a day of the calendar, as 2026-04-14."""
    try:
        date.fromisoformat(text)
    except ValueError:
        return False
    return True


def _holds(span: Interval, value: float) -> bool:
    return span.low * (1 - NEAR) <= value <= span.high * (1 + NEAR)


def _slack(thickness_mm: float) -> float:
    """Return by how much deposits may miss a thickness: what a ruler and a crown leave open."""
    return max(0.5, 0.02 * thickness_mm)


def _span(said: _Said, span: Interval) -> str:
    low, high = said.length(span.low), said.length(span.high)
    return low if low == high else f"{low} to {high}"


_Check = Callable[[_Said], Iterator[Clash]]
_BOTH: tuple[_Check, ...] = (
    _kind_of_weld, _metal_groups, _heat_treatment, _way_up, _backing, _unknown_names, _fillers, _sticks, _on_plate,
    _preheat,
)  # fmt: skip
_OF_WPS: tuple[_Check, ...] = (_thickness_drawn, _diameter_drawn, _deposits_laid, _deposits_of_joint, _beads, _runs)
_OF_PQR: tuple[_Check, ...] = (
    _recorded_energy, _passes_read, _pass_in_deposit, _runs_of_coupon, _deposits_of_coupon, _impact_results,
    _days,
)  # fmt: skip
