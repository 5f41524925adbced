"""How hot before? What every school and construction code asks of an open procedure, and which of them governs."""

from collections.abc import Iterator, Mapping, Sequence

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.document import kept, with_at
from anlage.core.errors import AnlageError, InputError, UnknownNameError
from anlage.core.machine import Calibrated
from anlage.core.metal.analyses import FERROUS, Analysis
from anlage.core.metal.families import Family
from anlage.core.metal.indices import summed
from anlage.core.procedure import Deposit, Wps, pass_energy
from anlage.core.ranges import Interval, Range
from anlage.core.thermal.hydrogen_class import NOT_CONTROLLED, hydrogen_of
from anlage.core.thermal.hydrogen_control import Restrained, asked_preheat
from anlage.core.thermal.preheat import Outside, governing_cet, ito_bessyo, method_b, seferian
from anlage.data.metal_tables import families, hydrogen_control, indices, planned_hydrogen
from anlage.data.tables import catalogue
from anlage.session.heat.asks import Ask, PreheatView, Told
from anlage.session.heat.construction import (
    CONSTRUCTION,
    Asked,
    asked_by,
    construction_codes,
    has_numbers,
    is_of,
    side_asked,
    sides_asked,
)
from anlage.session.heat.meters import NO_MACHINES, Metered, metered
from anlage.session.heat.residual import counted_as_none, left_out, with_residuals
from anlage.session.heat.scales import length_text
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.weld.analyses import Side, filler_analysis, sides_of
from anlage.session.weld.figures import thermal_efficiency_of

WITHIN, NOT_WITHIN = True, False
LOW_HYDROGEN = 10.0  # ml/100 g: with no more, the school that does not know hydrogen is too careful to govern
STAINLESS_CR = 10.0  # % chromium of a filler: above, the weld holds its hydrogen, and no school was made for it
STATED = "as stated"
SAME_MM = 0.5  # as thick as drawn
THICKEST_MM = 200.0  # the most that a code qualifies; asked in place of a range without end
LEAST_HEAT = 0.5  # kJ/mm: the coldest pass that a school with heat input was made for
MOST_CR = 1.5  # % chromium: above, no carbon equivalent speaks (common practice, M)
WORDS = {
    "cet": "CET", "thickness": "thickness", "hydrogen": "hydrogen", "hydrogen_glycerine": "hydrogen by glycerine",
    "heat_input": "heat input", "k_kgf_mm2": "restraint",
}  # fmt: skip
UNITS = {"thickness": " mm", "heat_input": " kJ/mm", "chromium": " %"}  # of the formulas, whatever the reader's


class Given(Struct, frozen=True):
    """What the schools work with: sides, thickest member [mm], hydrogen [ml/100 g], least heat input [kJ/mm]."""

    sides: tuple[Side, ...]
    thickness_mm: float | None
    hydrogen: float
    heat_kj_mm: float | None
    weld_cet: float | None
    austenitic: tuple[str, ...]


@kept
def preheat_view(wps: Wps, codes: Codes = SHIPPED, works: Calibrated = NO_MACHINES) -> PreheatView:
    """Return what is asked of a procedure's preheat.

    `codes` are with what the works says of the construction codes, `works` with how far its meters may be off.
    """
    given, told = _given(wps)
    known = [side for side in given.sides if side.family]
    wants = {side.family: families()[side.family] for side in known}
    asks = [*_of_metals(wants), *_schools(wps, given, wants), *_codes(wps, given, codes)]
    governing = _governing(wps, asks, given)
    unstated, worst = _worst(wps, given, wants, codes, metered(wps, works))
    usual = min((family.interpass for family in wants.values()), default=None)
    sentences = tuple(dict.fromkeys(family.say for family in wants.values()))
    if not known:
        sentences = ("Name the base metal: what it is made of says how it hardens.",)
    p = wps.preheat
    return PreheatView(
        tuple(asks), told, sentences, tuple(wants.values()), governing, p.minimum_c, p.interpass_maximum_c, usual,
        unstated, worst, _doubt(given, wants) or _code_doubt(wps, given, wants, codes),
        _taken(wps, governing, given, wants, codes), _code_interpass(wps, asks), _thicker_mm(wps, given),
    )  # fmt: skip


def _code_interpass(wps: Wps, asks: Sequence[Ask]) -> Ask | None:
    """Return what the code of the job says, where it limits the most between passes."""
    own = wps.header.construction_code or ""
    return next((a for a in asks if a.kind == "code" and is_of(own, a.id) and a.between_c is not None), None)


def _thicker_mm(wps: Wps, given: Given) -> tuple[float, float] | None:
    """Return the drawn thickness and the thickest that the procedure is stated for; `None` where that is no more."""
    drawn, thick = given.thickness_mm, thickest_stated_mm(wps)
    return (drawn, thick) if drawn is not None and thick > drawn + SAME_MM else None


def _taken(wps: Wps, governing: Ask | None, given: Given, wants: dict[str, Family], codes: Codes) -> Ask | None:
    """Return what governs in the thickest metal that the procedure is stated for: that is what is to be chosen."""
    thicker = _thicker_mm(wps, given)
    if governing is None or thicker is None:
        return governing
    given = replace(given, thickness_mm=thicker[1])
    found = _governing(wps, [*_of_metals(wants), *_schools(wps, given, wants), *_codes(wps, given, codes)], given)
    if found is None:
        return governing
    # The reason goes into the procedure: in its own units, with the blanks that people type.
    at = f"in {length_text(thicker[1], wps.header.units)}".replace("\u2009", " ")
    return replace(found, note="; ".join(filter(None, (found.note, at))))


def _code_doubt(wps: Wps, given: Given, wants: dict[str, Family], codes: Codes) -> str:
    """Return of what the job's construction code asks is not known; "" where it is, or no code is named.

    Of a metal that hardens, a table that is silent is one that this program does not know whole.
    """
    own = wps.header.construction_code
    if not own:
        return ""
    try:
        pack, _ = codes.edition_of(own, CONSTRUCTION)
    except AnlageError as fault:
        return f"What {own} asks is not known: {fault.what}."
    if not any("preheat_c" in rule.variables for rule in pack.rules):
        return ""  # it says how a weld looks, and nothing of heat
    name = pack.name
    for side in given.sides:
        if side.family not in wants or wants[side.family].preheat == "none":
            continue
        facts = side_asked(wps, side, given.thickness_mm)
        if facts is None:
            return f"What {name} asks of {side.name} is not known: it has no P-Number here."
        asked = asked_by(own, (facts,), "preheat_c", units=wps.header.units, codes=codes)
        if asked is None or not has_numbers(asked.sure):
            return f"What {name} asks of {side.name} is not known to this program."
    return ""


def _doubt(given: Given, wants: dict[str, Family]) -> str:
    """Return of which side nothing is known, while the other is judged; "" where none is."""
    for side in given.sides:
        if side.family and (not _hardens(side, wants) or _index(side, "cet") is not None):
            continue
        what = "is not in the catalogue" if not side.family else "has no carbon or manganese stated"
        return f"{side.name or 'The other side'} {what}: what it asks is not known."
    return ""


def _worst(
    wps: Wps, given: Given, wants: dict[str, Family], codes: Codes, meters: Mapping[str, Metered]
) -> tuple[tuple[str, ...], Ask | None]:
    """Return what is taken for granted, and what governs were it the worst: hydrogen of no class, a stiff joint."""
    unstated = []
    if not _is_hydrogen_stated(wps):
        unstated.append(f"hydrogen is no more than {given.hydrogen:g} ml/100 g")
        given = replace(given, hydrogen=max(given.hydrogen, NOT_CONTROLLED))
    if missing := dict.fromkeys(name for side in given.sides if _hardens(side, wants) for name in left_out(side)):
        unstated.append(counted_as_none(missing))
        given = replace(given, sides=tuple(with_residuals(side) for side in given.sides))
    heats = heat_inputs(wps)
    if unset := [number for number, each in enumerate(wps.passes, 1) if each.id not in heats]:
        unstated.append(f"pass {', '.join(map(str, unset))} is as hot as the others")
        given = replace(given, heat_kj_mm=min(given.heat_kj_mm or LEAST_HEAT, LEAST_HEAT))
    if off := [each.widened(heats[own]).low for own, each in meters.items() if own in heats]:
        unstated.append("the meters read true")
        given = replace(given, heat_kj_mm=min(given.heat_kj_mm or LEAST_HEAT, *off))
    if wps.preheat.restraint is None:
        unstated.append("restraint is medium")
        wps = with_at(wps, "preheat/restraint", "high")
    thicker = _thicker_mm(wps, given)
    if thicker is not None:
        given = replace(given, thickness_mm=thicker[1])
    if not unstated and thicker is None:
        return (), None
    return tuple(unstated), _governing(wps, [*_schools(wps, given, wants), *_codes(wps, given, codes)], given)


def _hardens(side: Side, wants: dict[str, Family]) -> bool:
    return side.family in FERROUS and side.family in wants and wants[side.family].preheat == "schools"


def _is_hydrogen_stated(wps: Wps) -> bool:
    """Return whether the hydrogen is stated, or every deposit is laid by bare wire, which takes up no moisture."""
    if wps.preheat.hydrogen:
        return hydrogen_stated(wps)[1] == STATED
    return all(each.process is not None and planned_hydrogen().is_bare(each.process) for each in wps.deposits)


def schools_at(wps: Wps, thicknesses_mm: Sequence[float], heats_kj_mm: Sequence[float]) -> tuple[tuple[Ask, ...], ...]:
    """Return what the schools ask at other thicknesses with the heat as it is, then at other heats with the thickness.

    One tuple a thickness, then one a heat, each with the schools in the same order; empty for metals that do not
    harden.
    """
    given, _ = _given(wps)
    wants = {side.family: families()[side.family] for side in given.sides if side.family}
    others = [replace(given, thickness_mm=each) for each in thicknesses_mm]
    others += [replace(given, heat_kj_mm=each) for each in heats_kj_mm]
    return tuple(tuple(_schools(wps, other, wants)) for other in others)


def thickest_mm(wps: Wps) -> float | None:
    """Return the thickness of the thicker member, which cools faster and asks for more [mm]."""
    thick = [t for t in (wps.joint.thickness_mm, wps.joint.other_thickness_mm) if t is not None]
    return max(thick, default=None)


def thickest_stated_mm(wps: Wps) -> float:
    """Return the thickest metal that the procedure is stated for, no more than codes know [mm]; 0 while none is."""
    spans = (wps.range.thickness_mm, wps.range.thicker_member_mm)
    return min(max((each.high for each in spans if each is not None), default=0.0), THICKEST_MM)


def least_heat(wps: Wps) -> float | None:
    """Return the least heat input of all passes, efficiency included [kJ/mm]; `None` while none is known."""
    spans = heat_inputs(wps).values()
    return min((span.low for span in spans), default=None)


@kept
def heat_inputs(wps: Wps) -> dict[str, Interval]:
    """Return the heat input of every pass whose settings and process are stated, by its id [kJ/mm]."""
    homes = {each.id: thermal_efficiency_of(each) for each in wps.deposits}
    found = {}
    for each in wps.passes:
        energy, row = pass_energy(each), homes[each.deposit]
        if energy is not None and row is not None and row.k is not None:
            found[each.id] = energy.scaled(row.k)
    return found


def hydrogen_stated(wps: Wps) -> tuple[float, str]:
    """Return the hydrogen of the worst deposit [ml/100 g], and what it rests on."""
    if wps.preheat.hydrogen:
        try:
            return hydrogen_of(wps.preheat.hydrogen), STATED
        except InputError:
            pass  # its field says what is wrong
    found = [_planned(each) for each in wps.deposits]
    if not found or None in found:
        return NOT_CONTROLLED, "not known: the highest that is counted is assumed"
    most = max(each for each in found if each is not None)
    return most, "a planning figure of process and filler: state what designator or certificate says"


def _planned(deposit: Deposit) -> float | None:
    if not deposit.process:
        return None
    family = ""
    if deposit.filler and deposit.filler.casefold() != "none":
        try:
            filler = catalogue().filler(deposit.filler)
        except UnknownNameError:
            return None
        if filler.hydrogen_class:
            return hydrogen_of(filler.hydrogen_class)
        family = filler.family
    return planned_hydrogen().of(deposit.process, family)


def _given(wps: Wps) -> tuple[Given, tuple[Told, ...]]:
    sides = sides_of(wps)
    hydrogen, basis = hydrogen_stated(wps)
    heat = least_heat(wps)
    weld = [found for each in wps.deposits if (found := filler_analysis(each)) is not None]
    told = [Told("Metal" if n == 0 else "Joined to", side.name or "not named", side.basis, f"{side.path}/certificate")
            for n, side in enumerate(sides)]  # fmt: skip
    if not any(side.family in FERROUS for side in sides):
        return _as_given(sides, thickest_mm(wps), (hydrogen, heat), weld), tuple(told)
    told.append(Told("Hydrogen", f"{hydrogen:g} ml/100 g", basis, "preheat/hydrogen"))
    text = "not known" if heat is None else f"{heat:.2f} kJ/mm"
    told.append(Told("Least heat input", text, "of all passes, with k; less heat asks for more preheat", "passes"))
    restraint = wps.preheat.restraint
    basis = STATED if restraint else "medium in hydrogen control until it is stated"
    told.append(Told("Restraint", restraint or "not stated", basis, "preheat/restraint"))
    return _as_given(sides, thickest_mm(wps), (hydrogen, heat), weld), tuple(told)


def _as_given(
    sides: tuple[Side, ...], thickness_mm: float | None, arc: tuple[float, float | None], weld: Sequence[Analysis]
) -> Given:
    """Return what the schools work with; a stainless weld has no carbon equivalent of theirs."""
    ferritic = [each for each in weld if each.composition.get("Cr", 0.0) <= STAINLESS_CR]
    austenitic = [each.name for each in weld if each not in ferritic]
    cets = [value for each in ferritic if (value := summed(each.composition, indices()["cet"]).value) is not None]
    return Given(sides, thickness_mm, *arc, max(cets, default=None), tuple(austenitic))


def _of_metals(wants: dict[str, Family]) -> Iterator[Ask]:
    for name, family in wants.items():
        if family.fixed_c is not None:
            note, source = "usual for this metal", "common practice, from memory"
            yield Ask(
                f"metal_{name}", name, "metal", family.fixed_c, family.fixed_c, WITHIN, note, source, family.confidence
            )


def _schools(wps: Wps, given: Given, wants: dict[str, Family]) -> Iterator[Ask]:
    """Yield what each school asks: of the side that asks most."""
    hardening = [side for side in given.sides if _hardens(side, wants)]
    if not hardening:
        return
    makers = (_method_b, _ito_bessyo, _seferian, _hydrogen_control)
    for make in makers:
        found = [make(wps, given, side) for side in hardening]
        asked = max(found, key=lambda ask: -1.0 if ask.high_c is None else ask.high_c)
        if given.austenitic and asked.high_c is not None:
            note = f"{given.austenitic[0]} holds its hydrogen: made for ferritic weld metal; {asked.note}"
            asked = replace(asked, within=NOT_WITHIN, note=note)
        yield asked
    note = "its nomograms are not in this program: read them off a licensed copy"
    yield Ask(
        "en1011_2_combined", "EN 1011-2 method A", "school", None, None, NOT_WITHIN, note, "EN 1011-2:2001", "unknown"
    )


def _method_b(_wps: Wps, given: Given, side: Side) -> Ask:
    name, source = "EN 1011-2 method B", "EN 1011-2:2001 method B, from memory"
    cet = _index(side, "cet")
    lacks = _lacks(
        (cet, "composition"), (given.thickness_mm, "thickness"), (given.heat_kj_mm, "current, volts and speed")
    )
    if lacks:
        return Ask("en1011_2_cet", name, "school", None, None, NOT_WITHIN, lacks, source, "H")
    assert cet is not None
    assert given.thickness_mm is not None
    assert given.heat_kj_mm is not None
    taken, why = governing_cet(cet, given.weld_cet)
    found = method_b(taken, thickness_mm=given.thickness_mm, hydrogen=given.hydrogen, heat_input_kj_mm=given.heat_kj_mm)
    return _ask(
        "en1011_2_cet",
        name,
        found.preheat_c,
        (*found.outside, *_chromium(side)),
        f"CET {taken:.2f} of {why}",
        source,
        "H",
    )


def _ito_bessyo(wps: Wps, given: Given, side: Side) -> Ask:
    source = "Ito and Bessyo 1968, IIW IX-576-68, from memory"
    pcm, restraint = _index(side, "pcm"), wps.preheat.restraint
    lacks = _lacks((pcm, "composition"), (given.thickness_mm, "thickness"))
    if lacks:
        return Ask("ito_bessyo", "Ito and Bessyo", "school", None, None, NOT_WITHIN, lacks, source, "M")
    assert pcm is not None
    assert given.thickness_mm is not None
    found = ito_bessyo(
        pcm,
        thickness_mm=given.thickness_mm,
        hydrogen=given.hydrogen,
        heat_input_kj_mm=given.heat_kj_mm,
        restraint=restraint,
    )
    held = found.by_restraint_c is not None
    value = found.by_restraint_c if found.by_restraint_c is not None else found.by_thickness_c
    note = f"by {restraint} restraint; {found.by_thickness_c:.0f} °C by thickness" if held else "by thickness, y-groove"
    return _ask("ito_bessyo", "Ito and Bessyo", value, (*found.outside, *_chromium(side)), note, source, "M")


def _seferian(_wps: Wps, given: Given, side: Side) -> Ask:
    source = "Séférian 1959, from memory"
    lacks = _lacks((side.analysis, "composition"), (given.thickness_mm, "thickness"))
    value = None
    if not lacks:
        assert side.analysis is not None
        assert given.thickness_mm is not None
        value = seferian(side.analysis.composition, thickness_mm=given.thickness_mm)
        lacks = "" if value is not None else "it needs carbon and manganese"
    if value is None:
        return Ask("seferian", "Séférian", "school", None, None, NOT_WITHIN, lacks, source, "H")
    return _ask("seferian", "Séférian", value, _chromium(side), "knows neither hydrogen nor heat", source, "H")


def _hydrogen_control(wps: Wps, given: Given, side: Side) -> Ask:
    control, word = hydrogen_control(), "AWS D1.1 hydrogen control"
    pcm = _index(side, "pcm")
    lacks = _lacks((pcm, "composition"), (given.thickness_mm, "thickness"))
    if lacks:
        return Ask(
            "aws_d1_1_hydrogen_control",
            word,
            "school",
            None,
            None,
            NOT_WITHIN,
            lacks,
            control.source,
            control.confidence,
        )
    assert pcm is not None
    assert given.thickness_mm is not None
    restraint = wps.preheat.restraint or "medium"
    joint = Restrained(given.thickness_mm, restraint, wps.header.units)
    found = asked_preheat(pcm, hydrogen=given.hydrogen, joint=joint, control=control)
    note = f"group {found.group}, {restraint} restraint" if found.group else "beyond its table"
    if found.preheat_c is None:
        return Ask(
            "aws_d1_1_hydrogen_control",
            word,
            "school",
            None,
            None,
            NOT_WITHIN,
            note,
            control.source,
            control.confidence,
        )
    return _ask(
        "aws_d1_1_hydrogen_control", word, found.preheat_c, _chromium(side), note, control.source, control.confidence
    )


def _codes(wps: Wps, given: Given, codes: Codes) -> Iterator[Ask]:
    """Yield what each construction code asks; of the one that the job names by its own edition."""
    sides = sides_asked(wps, given.thickness_mm)
    own = wps.header.construction_code or ""
    for code in construction_codes() if sides else ():
        named = own if is_of(own, code) else code
        try:
            pack, _ = codes.edition_of(named, CONSTRUCTION)
        except AnlageError as fault:  # its rulebook cannot be read: what the works says of it is not known
            yield Ask(code, code, "code", None, None, NOT_WITHIN, fault.what, code, "unknown")
            continue
        found = asked_by(named, sides, "preheat_c", units=wps.header.units, codes=codes)
        if found is not None:
            most = asked_by(named, sides, "interpass_c", units=wps.header.units, codes=codes)
            yield _of_code(code, pack.name, found, most)


def _of_code(code: str, name: str, found: Asked, most: Asked | None) -> Ask:
    low, high = _least(found.possible), _least(found.sure)
    told = ", ".join(found.lacks) + " not known" if found.lacks else found.reason
    notes = [f"higher reading, {told}"] if high is not None and high != low else []
    notes += [found.reason or "not known"] if high is None else []
    notes += [] if found.is_binding else ["advice of the code, not a rule"]
    between = most.sure.parts[0].high if most and has_numbers(most.sure) else None
    source = f"{name} {found.clause}, from memory"
    return Ask(
        code,
        name,
        "code",
        low,
        high,
        high is not None,
        "; ".join(notes),
        source,
        found.confidence,
        between,
        found.is_binding,
    )


def _least(allowed: Range) -> float | None:
    """Return from how hot on preheat is allowed; `None` where nothing, or everything is."""
    return allowed.parts[0].low if has_numbers(allowed) else None


def _governing(wps: Wps, asks: Sequence[Ask], given: Given) -> Ask | None:
    """Return what governs: the highest of the stated code, of what the metal wants, and of schools within their range.

    Of low-hydrogen work the school that knows no hydrogen is shown and does not govern.
    """
    own = wps.header.construction_code or ""
    counted = [
        each for each in asks
        if each.high_c is not None and each.within and (each.kind != "code" or is_of(own, each.id))
        and not (each.id == "seferian" and given.hydrogen <= LOW_HYDROGEN)
    ]  # fmt: skip
    return max(counted, key=lambda each: (each.high_c or 0.0, each.kind == "code"), default=None)


def _ask(own: str, word: str, value: float, outside: Sequence[Outside], note: str, source: str, confidence: str) -> Ask:  # noqa: PLR0913, PLR0917 - a row of facts
    out = [
        f"{WORDS.get(name, name)} {number:.3g} is outside {least:g} to {most:g}{UNITS.get(name, '')}"
        for name, number, least, most in outside
    ]
    return Ask(own, word, "school", value, value, not out, "; ".join([*out, note]), source, confidence)


def _chromium(side: Side) -> tuple[Outside, ...]:
    share = side.analysis.composition.get("Cr", 0.0) if side.analysis else 0.0
    return (("chromium", share, 0.0, MOST_CR),) if share > MOST_CR else ()


@kept
def _index(side: Side, name: str) -> float | None:
    return None if side.analysis is None else summed(side.analysis.composition, indices()[name]).value


def _lacks(*needed: tuple[object, str]) -> str:
    missing = [name for value, name in needed if value is None]
    return f"state {' and '.join(missing)}" if missing else ""
