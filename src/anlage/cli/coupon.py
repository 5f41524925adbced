"""`anlage coupon`: what a test would buy, from keys to the allowed set of every variable."""

import argparse
import textwrap
from functools import partial
from pathlib import Path
from pkgutil import resolve_name

from anlage.cli.parsing import Parser, add_codes, add_words, add_works
from anlage.cli.what_it_buys import by_each_code, what_if_answer
from anlage.core.catalogue import MetalGroup
from anlage.core.codes import Demand
from anlage.core.codes.facts import Fact, Measured
from anlage.core.errors import InputError, UnknownNameError
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.core.results import Notice
from anlage.data.tables import catalogue, variables, vocabulary
from anlage.session.judging.coupons import MAKES, StatedCoupon, StatedCouponDeposit
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.judging.what_if import what_if
from anlage.session.keyed.answer import Answer
from anlage.session.keyed.arguments import Arguments

MARKED = "anlage.session.works.marked_codes:codes_of_file"  # opens a works file: most coupons need none
KEYS = (
    "process", "thickness", "deposit", "p_number", "group_number", "base", "base2", "filler", "f_number", "a_number",
    "filler_diameter", "position", "progression", "od", "preheat", "interpass", "pwht", "heat_input", "basis", "impact",
    "hardness_test", "max_pass_thickness", "transfer_mode", "gas", "backing_gas", "current", "backing", "joint",
    "volts", "amps", "speed", "runs", "units", "weld", "flux", "flux_type", "recrushed_slag", "supplemental_filler",
    "filler_make", "orifice_gas", "keyhole", "smys", "pwht_time", "trailing_gas", "throat", "leg",
)  # fmt: skip
OF_A_PROCESS = ("flux_type", "recrushed_slag", "supplemental_filler", "keyhole")  # words of the table of variables
BASES = {"arc_energy": "arc energy, without efficiency", "heat_input": "heat input, with the efficiency in it"}
INCH_UNITS = {"in", "ft", "thou"}


def coupon_answer(code: str, words: list[str], works: str = "") -> Answer:
    """Return what the coupon stated in `words` would buy by `code`.

    Raises
    ------
    InputError, UnknownNameError : a key, name or value cannot be
    """
    arguments = Arguments(words, known=KEYS)
    arguments.need("process", "thickness")
    codes: Codes = resolve_name(MARKED)(Path(works)) if works else SHIPPED
    pack, _ = codes.edition_of(code)
    basis = pack.basis
    demand = Demand(
        weld=arguments.optional_word("weld", "weld"),
        impact=arguments.answer("impact"),
        hardness=arguments.answer("hardness_test"),
        units=_units(arguments, pack.units),
    )
    return what_if_answer(what_if(code, _coupon(arguments, basis), demand, codes), _basis_notices(arguments, basis))


def _units(a: Arguments, usual: System) -> System:
    if "units" in a:
        stated = a.text("units").casefold()
        if stated not in ("si", "us"):
            raise UnknownNameError(stated, ("si", "us"), where="units")
        return "us" if stated == "us" else "si"
    return "us" if INCH_UNITS & set(a.units_named("thickness", "length")) else usual


def _coupon(a: Arguments, basis: str) -> StatedCoupon:
    token, temperature = _pwht(a)
    return StatedCoupon(
        thickness_mm=a.single("thickness", "length"),
        deposits=_deposits(a, basis),
        metals=_metals(a),
        pwht=token,
        pwht_temperature_c=temperature,
        facts=_joint_facts(a),
    )


def _joint_facts(a: Arguments) -> dict[str, Fact]:
    facts: dict[str, Fact | None] = {
        "position": a.optional_word("position", "position"),
        "progression": a.optional_word("progression", "progression") or _progression_of_position(a),
        "diameter_mm": a.single("od", "length") if "od" in a else None,
        "preheat_c": a.interval("preheat", "temperature").low if "preheat" in a else None,
        "interpass_c": a.interval("interpass", "temperature").high if "interpass" in a else None,
        "backing": a.optional_word("backing", "backing"),
        "joint_type": a.optional_word("joint", "joint"),
        "runs": a.optional_word("runs", "runs"),
        "product": "pipe" if "od" in a else None,
        "highest_yield_mpa": a.single("smys", "stress") if "smys" in a else None,
        "backing_gas": _gas(a.text("backing_gas"), "backing_gas") if "backing_gas" in a else None,
    }
    facts["direction"] = facts["progression"]  # of each deposit, where nobody says another
    facts |= _fillet(a) | _treated(a)
    return {name: fact for name, fact in facts.items() if fact is not None}


def _fillet(a: Arguments) -> dict[str, Fact | None]:
    """Return the size of a fillet, which is what a coupon with one is."""
    found: dict[str, Fact | None] = {f"{key}_mm": a.single(key, "length") for key in ("throat", "leg") if key in a}
    return {**found, "coupon_weld": "fillet"} if found else {}


def _treated(a: Arguments) -> dict[str, Fact | None]:
    if "pwht_time" not in a:
        return {}
    hours = a.interval("pwht_time", "hours")
    return {"pwht_time_h": Measured(hours.low, (hours.low + hours.high) / 2, hours.high)}


def _gas(name: str, where: str) -> str:
    return "none" if name.casefold() == "none" else catalogue().gas(name, where=where).id


def _progression_of_position(a: Arguments) -> str | None:
    """Return which way the position goes, where its word says so: PF and PG do, 3G does not."""
    if "position" not in a:
        return None
    try:
        return vocabulary().token("progression_of_position", a.text("position"))
    except UnknownNameError:
        return None


def _pwht(a: Arguments) -> tuple[str | None, Interval | None]:
    if "pwht" not in a:
        return None, None
    if any(character.isdigit() for character in a.text("pwht")):
        return None, a.interval("pwht", "temperature")
    return a.word("pwht", "pwht"), None


def _metals(a: Arguments) -> tuple[MetalGroup, ...]:
    if "base" in a:
        for key in ("p_number", "group_number"):
            if key in a:
                raise InputError("stated beside base", where=key, mend=f"leave {key} or base out")
        names = [key for key in ("base", "base2") if key in a]
        return tuple(catalogue().metal_group(a.text(key), where=key) for key in names)
    if "base2" in a:
        a.need("base")
    if "p_number" not in a:
        if "group_number" in a:
            a.need("p_number")
        return ()
    return _groups(a)


def _groups(a: Arguments) -> tuple[MetalGroup, ...]:
    """Return the metals of `p_number=5A+1 group_number=1+2`."""
    known = {row.p_number for row in catalogue().p_numbers}
    ends = [end.strip().upper().removeprefix("P-").removeprefix("P") for end in a.text("p_number").split("+")]
    for end in ends:
        if end not in known:
            raise UnknownNameError(end, sorted(known), where="p_number")
    groups = [g.strip() for g in a.text("group_number").split("+")] if "group_number" in a else [""]
    groups = groups * len(ends) if len(groups) == 1 else groups
    if len(ends) > 2 or len(groups) != len(ends):
        mend = "state one number, or two with a plus between"
        raise InputError("a joint has two metals, each with its group", where="group_number", mend=mend)
    if any(not (group.isdigit() or group == "") for group in groups):
        raise InputError(f"{'+'.join(groups)} is no group", where="group_number", mend="write a number such as 2")
    return tuple(
        MetalGroup(f"P-{end}", {"p_number": end, "group_number": group}, "H", "as stated")
        for end, group in zip(ends, groups, strict=True)
    )


def _deposits(a: Arguments, basis: str) -> tuple[StatedCouponDeposit, ...]:
    processes = [vocabulary().token("process", word, where="process") for word in a.text("process").split(",")]
    count = len(processes)

    def one(key: str, kind: str) -> list[float | None]:
        found = a.each_quantity(key, count, kind)
        if any(value and not value.is_single for value in found):
            raise InputError("is a range", where=key, mend="state one value")
        return [value.low if value else None for value in found]

    thickness, most = one("deposit", "length"), one("max_pass_thickness", "length")
    diameter = one("filler_diameter", "length")
    texts = {key: a.each(key, count, str) for key in ("filler", "gas")}
    texts |= {key: a.each_word(key, count, key) for key in ("f_number", "a_number")}
    volts, amps, speed = (
        a.each_quantity(key, count, kind)
        for key, kind in (("volts", "voltage"), ("amps", "current"), ("speed", "speed"))
    )
    heat = a.each_quantity("heat_input", count, "heat_input") if not _basis_notices(a, basis) else [None] * count
    current = a.each_word("current", count, "current")
    transfer = a.each_word("transfer_mode", count, "transfer")
    beside = {key: a.each(key, count, partial(_token, key)) for key in OF_A_PROCESS}
    beside |= {key: a.each(key, count, lambda text: " ".join(text.casefold().split())) for key in MAKES}
    for key in ("orifice_gas", "trailing_gas"):
        beside[key] = a.each(key, count, partial(_gas, where=key))
    deposits = []
    for n, process in enumerate(processes):
        facts: dict[str, Fact | None] = {
            "filler_diameter_mm": diameter[n],
            "current_type": current[n],
            "transfer_mode": transfer[n],
            "shielding_gas": "none" if texts["gas"][n] == "none" else None,
            **{key: each[n] for key, each in beside.items()},
        }
        deposits.append(
            StatedCouponDeposit(
                process=process,
                thickness_mm=thickness[n],
                max_pass_thickness_mm=most[n],
                filler=texts["filler"][n],
                f_number=texts["f_number"][n],
                a_number=texts["a_number"][n],
                gas=None if texts["gas"][n] == "none" else texts["gas"][n],
                volts=volts[n],
                amps=amps[n],
                travel_speed_mm_min=speed[n],
                heat_input_kj_mm=heat[n],
                facts={name: fact for name, fact in facts.items() if fact is not None},
            )
        )
    return tuple(deposits)


def _token(key: str, text: str) -> str:
    """Return one of the words that a variable may be."""
    known = variables()[key].tokens
    if text.casefold() not in known:
        raise UnknownNameError(text, known, where=key)
    return text.casefold()


def _basis_notices(a: Arguments, basis: str) -> list[Notice]:
    """Return a notice when the stated heat input is of another basis than the code compares."""
    if "basis" not in a:
        return []
    stated = a.text("basis").casefold()
    if stated not in BASES:
        raise UnknownNameError(stated, BASES, where="basis")
    if stated == basis:
        return []
    text = f"the code compares {BASES[basis]}: {BASES[stated]} is not comparable and not used"
    return [Notice("coupon.basis", "heat_input", text)]


def add_arguments(parser: Parser) -> None:
    """Say what the command takes."""
    parser.more = lambda: textwrap.fill(f"keys: {' '.join(KEYS)}", 100, subsequent_indent="  ")
    add_codes(parser, needed=True)
    add_works(parser, "whose metals, fillers and rulebook count; else none")
    add_words(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Say what a coupon would buy."""
    return by_each_code(arguments.code, lambda code: coupon_answer(code, arguments.words, arguments.works))
