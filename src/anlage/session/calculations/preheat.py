"""`calc preheat`: what each school asks, side by side; none is averaged with another."""

from collections.abc import Mapping
from typing import Any, cast

from msgspec import Struct

from anlage.core.errors import InputError
from anlage.core.metal.composition import ELEMENTS
from anlage.core.ranges import Interval, over_corners
from anlage.core.results import Notice, Source
from anlage.core.thermal.hydrogen_control import Restrained, asked_preheat
from anlage.core.thermal.preheat import Outside, Restraint, governing_cet, ito_bessyo, method_b, seferian
from anlage.data.metal_tables import hydrogen_control, indices
from anlage.session.keyed.answer import Answer, number_or_interval, shown
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.composition import Stated, stated_composition, summed_over
from anlage.session.keyed.hydrogen import stated_hydrogen

KEYS = (
    *ELEMENTS, "thickness", "hydrogen", "heat_input", "combined_thickness", "restraint", "process", "steel", "weld_cet",
)  # fmt: skip
RESTRAINTS = ("low", "medium", "high")


class Told(Struct, frozen=True):
    """What a school says over what is stated: its temperatures, what is out of its range, a note, and more keys."""

    preheat_c: Interval | None
    outside: tuple[str, ...]
    note: str
    more: dict[str, Any]
    source: Source


def answer(arguments: Arguments) -> Answer:
    """Answer `calc preheat`."""
    stated = stated_composition(arguments, "C", "Mn")
    arguments.need("thickness", "hydrogen", "heat_input")
    thick, heat = arguments.interval("thickness", "length"), arguments.interval("heat_input", "heat_input")
    hydrogen, notices = stated_hydrogen(arguments)
    restraint = _restraint(arguments)
    values, more, sources = summed_over(stated, (indices()[name] for name in ("cet", "pcm")))
    cet, pcm = values["cet"], values["pcm"]
    assert cet is not None
    assert pcm is not None
    inputs = {"thickness_mm": thick, "hydrogen": hydrogen, "heat_input_kj_mm": heat}
    units = "us" if set(arguments.units_named("thickness", "length")) & {"in", "ft", "thou"} else "si"
    weld = arguments.single("weld_cet", "percent", bare="%") if "weld_cet" in arguments else None
    schools = {
        "en1011_2_cet": _method_b(cet, weld, inputs),
        "ito_bessyo": _ito_bessyo(pcm, restraint, inputs),
        "seferian": _seferian(stated, thick),
        "aws_d1_1_hydrogen_control": _hydrogen_control(pcm, restraint, units, inputs),
        "en1011_2_combined": _method_a(arguments, hydrogen),
    }
    known = {name: told.preheat_c for name, told in schools.items() if told.preheat_c is not None}
    within = {name: span for name, span in known.items() if not schools[name].outside}
    top = max(known, key=lambda name: known[name].high)
    result: dict[str, Any] = {
        "schools": {
            name: {
                "preheat_c": number_or_interval(told.preheat_c),
                "valid": told.preheat_c is not None and not told.outside,
                "note": "; ".join([*told.outside, *([told.note] if told.note else [])]),
                **told.more,
            }
            for name, told in schools.items()
        },
        "highest_c": number_or_interval(_highest(known)),
        "highest": top,
        "highest_valid_c": number_or_interval(_highest(within)),
    }
    lines = [(name.replace("_", " "), _line(told)) for name, told in schools.items()]
    lines.append(("highest", shown("_c", known[top])))
    lines.append(("highest within its range", shown("_c", _highest(within))))
    sources += [told.source for told in schools.values()]
    floor = "no school knows this weld: the code's minimum is a floor, and the highest of these is not always asked"
    notices += [*more, Notice("preheat.spread", "schools", floor)]
    return Answer(result, lines, sources, notices)


def _highest(spans: Mapping[str, Interval]) -> Interval | None:
    if not spans:
        return None
    return Interval(max(span.low for span in spans.values()), max(span.high for span in spans.values()))


def _restraint(arguments: Arguments) -> Restraint | None:
    if "restraint" not in arguments:
        return None
    word = arguments.text("restraint").casefold()
    if word not in RESTRAINTS:
        raise InputError(f"no {word}", where="restraint", mend=f"take {', '.join(RESTRAINTS[:2])} or {RESTRAINTS[2]}")
    return cast("Restraint", word)


def _method_b(parent: Interval, weld: float | None, inputs: dict[str, Interval]) -> Told:
    outside: dict[str, None] = {}
    cets = [governing_cet(end, weld) for end in (parent.low, parent.high)]

    def formula(cet: float, thickness_mm: float, hydrogen: float, heat_input_kj_mm: float) -> dict[str, float | None]:
        found = method_b(cet, thickness_mm=thickness_mm, hydrogen=hydrogen, heat_input_kj_mm=heat_input_kj_mm)
        outside.update(dict.fromkeys(map(_outside_text, found.outside)))
        return {"preheat_c": found.preheat_c}

    span = over_corners(formula, {"cet": Interval(cets[0][0], cets[1][0]), **inputs})["preheat_c"]
    source = Source("en1011_2_cet", "EN 1011-2:2001 method B, from memory", "H")
    return Told(
        span,
        tuple(outside),
        f"CET of {cets[1][1]}",
        {"cet": number_or_interval(Interval(cets[0][0], cets[1][0]))},
        source,
    )


def _ito_bessyo(pcm: Interval, restraint: Restraint | None, inputs: dict[str, Interval]) -> Told:
    outside: dict[str, None] = {}

    def formula(pcm: float, thickness_mm: float, hydrogen: float, heat_input_kj_mm: float) -> dict[str, float | None]:
        found = ito_bessyo(
            pcm, thickness_mm=thickness_mm, hydrogen=hydrogen, heat_input_kj_mm=heat_input_kj_mm, restraint=restraint
        )
        outside.update(dict.fromkeys(map(_outside_text, found.outside)))
        preheat = found.by_thickness_c if found.by_restraint_c is None else found.by_restraint_c
        return {
            "preheat_c": preheat, "p_c": found.p_c, "p_w": found.p_w, "k_kgf_mm2": found.k_kgf_mm2,
            "p_c_preheat_c": found.by_thickness_c, "hydrogen_glycerine": found.hydrogen_glycerine,
        }  # fmt: skip

    found = over_corners(formula, {"pcm": pcm, **inputs})
    more = {
        name: number_or_interval(value) for name, value in found.items() if name != "preheat_c" and value is not None
    }
    note = "by thickness, for the root of a y-groove" if restraint is None else f"by {restraint} restraint"
    confidence = "L" if restraint == "low" else "M"
    source = Source("ito_bessyo", "Ito and Bessyo 1968, IIW IX-576-68 and IX-631-69, from memory", confidence)
    return Told(found["preheat_c"], tuple(outside), note, more, source)


def _seferian(stated: Stated, thick: Interval) -> Told:
    ends = [
        seferian({name: getattr(share, end) for name, share in stated.items()}, thickness_mm=getattr(thick, end))
        for end in ("low", "high")
    ]
    assert ends[0] is not None
    assert ends[1] is not None
    note = "knows neither hydrogen nor heat input" if ends[1] > 0 else "asks for none"
    return Told(Interval(ends[0], ends[1]), (), note, {}, Source("seferian", "Séférian 1959, from memory", "H"))


def _hydrogen_control(pcm: Interval, restraint: Restraint | None, units: str, inputs: dict[str, Interval]) -> Told:
    control = hydrogen_control()
    ends = [
        asked_preheat(
            getattr(pcm, end),
            hydrogen=getattr(inputs["hydrogen"], end),
            joint=Restrained(
                getattr(inputs["thickness_mm"], end), restraint or "medium", "us" if units == "us" else "si"
            ),
            control=control,
        )
        for end in ("low", "high")
    ]
    least, most = ends
    span = None if least.preheat_c is None or most.preheat_c is None else Interval(least.preheat_c, most.preheat_c)
    outside = () if most.group else (f"index {most.index:g} and Pcm {pcm.high:.3f} are beyond the table",)
    note = f"group {most.group or 'beyond G'}, {restraint or 'medium'} restraint"
    note += ", or less than this" if most.may_be_lower else ""
    more = {"susceptibility_index": most.index, "group": most.group, "hydrogen_level": most.level}
    return Told(span, outside, note, more, Source("aws_d1_1_hydrogen_control", control.source, control.confidence))


def _method_a(arguments: Arguments, hydrogen: Interval) -> Told:
    scale = next(
        word for word, most in (("E", 3), ("D", 5), ("C", 10), ("B", 15), ("A", float("inf"))) if hydrogen.high <= most
    )
    more: dict[str, Any] = {"hydrogen_scale": scale}
    if "combined_thickness" in arguments:
        more["combined_thickness_mm"] = number_or_interval(arguments.interval("combined_thickness", "length"))
    note = "its nomograms are not in this program: read them off a licensed copy"
    return Told(None, (), note, more, Source("en1011_2_combined", "EN 1011-2:2001 method A", "unknown"))


def _outside_text(outside: Outside) -> str:
    name, value, least, most = outside
    return f"{name.replace('_', ' ')} {value:.4g} is outside {least:g}..{most:g}"


def _line(told: Told) -> str:
    text = shown("_c", told.preheat_c)
    note = "; ".join([*told.outside, *([told.note] if told.note else [])])
    return f"{text}  {note}" if note else text
