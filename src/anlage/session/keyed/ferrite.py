"""What a stainless deposit of a stated composition comes to: equivalents, ferrite, how it solidifies."""

from collections.abc import Mapping
from pathlib import Path
from typing import Any

from anlage.core.metal.ferrite import (
    WRC_CR,
    WRC_NI,
    Band,
    Lines,
    ferrite_estimate,
    read_off,
    seferian_ferrite,
    solidification_mode,
)
from anlage.core.metal.indices import summed
from anlage.core.ranges import Interval
from anlage.core.results import Notice, Source
from anlage.data.metal_tables import indices
from anlage.session.keyed.answer import Answer, number, number_or_interval, shown
from anlage.session.keyed.composition import Stated, outside_notice, over_stated, summed_over

EQUIVALENTS = ("schaeffler_creq", "schaeffler_nieq", "wrc_creq", "wrc_nieq")
ASSUMED_N = 0.06  # of an austenitic deposit by the note to DeLong's diagram (M)
DUPLEX_RATIO = 1.95  # of Schaeffler's equivalents: above, no nitrogen is assumed
SEFERIAN_MOST = 20.0
LINES_COLUMNS = "a table of lines, CSV with fn,cr_eq,ni_eq"


def with_nitrogen(stated: Stated) -> tuple[Stated, list[Notice]]:
    """Return a composition with the nitrogen that convention assumes of an austenitic deposit, and the notice of it."""
    if "N" in stated or not {"C", "Cr", "Ni"} <= set(stated):
        return stated, []
    middle = {name: (share.low + share.high) / 2 for name, share in stated.items()}
    cr, ni = (summed(middle, indices()[name]).value for name in EQUIVALENTS[:2])
    if cr is None or ni is None or not ni > 0 or cr / ni > DUPLEX_RATIO:
        text = "N is not stated, and no nitrogen is assumed of a duplex or ferritic deposit: state it"
        return stated, [Notice("ferrite.no_nitrogen", "N", text)]
    text = f"N is not stated: {ASSUMED_N:g} % is assumed by convention of an austenitic deposit"
    return {**stated, "N": Interval.single(ASSUMED_N)}, [Notice("ferrite.assumed_nitrogen", "N", text)]


def ferrite_answer(given: Stated, lines: Lines | None = None) -> Answer:
    """Return the answer of `calc ferrite` for a composition."""
    stated, notices = with_nitrogen(given)
    values, more, sources = summed_over(stated, (indices()[name] for name in EQUIVALENTS))
    notices += more
    cr_eq, ni_eq = values["schaeffler_creq"], values["schaeffler_nieq"]
    ferrite = over_stated(_seferian, stated)["seferian_ferrite_percent"]
    modes = _modes(stated)
    result: dict[str, Any] = {name: number_or_interval(value) for name, value in values.items()}
    result["seferian_ferrite_percent"] = number_or_interval(ferrite)
    result["solidification_mode"] = modes[0] if len(modes) == 1 else modes or None
    shown_lines = [(indices()[name].title, shown("", values[name])) for name in EQUIVALENTS]
    shown_lines.append(("ferrite (Séférian)", "unknown" if ferrite is None else f"{shown('', ferrite)} %"))
    shown_lines.append(("solidification", " or ".join(modes) or "unknown"))
    sources.append(Source("seferian_ferrite_percent", "Séférian, from memory; use 0 to 20 % alone", "H"))
    sources.append(Source("solidification_mode", "Suutala, ratio of Schaeffler's equivalents, from memory", "H"))
    if ferrite is not None and not (ferrite.low >= 0 and ferrite.high <= SEFERIAN_MOST):
        notices.append(outside_notice("Séférian", "seferian_ferrite_percent", ferrite, (0, SEFERIAN_MOST)))
    band, source = _band(values["wrc_creq"], values["wrc_nieq"], lines)
    result["fn_wrc"] = None if band is None else _as_json(band)
    shown_lines.append(("ferrite number", "unknown" if band is None else _text(band)))
    sources.append(source)
    if band is None and values["wrc_creq"] is not None and values["wrc_nieq"] is not None:
        text = f"no ferrite number: outside Cr equivalent {WRC_CR[0]:g}..{WRC_CR[1]:g}, Ni {WRC_NI[0]:g}..{WRC_NI[1]:g}"
        text = text if lines is None else f"no ferrite number: beyond the lines of {lines.name}"
        notices.append(Notice("ferrite.no_number", "fn_wrc", text))
    assert cr_eq is None or ni_eq is None or cr_eq.low >= 0
    return Answer(result, shown_lines, sources, notices)


def lines_of(path: str) -> Lines:
    """Return an engineer's own table of lines.

    Raises
    ------
    InputError : the file cannot be read
    FormatError : it is no table of lines
    """
    from anlage.core.errors import InputError
    from anlage.core.metal.ferrite import read_lines

    try:
        text = Path(path).read_text(encoding="utf-8-sig")
    except (OSError, UnicodeDecodeError) as fault:
        raise InputError(f"cannot be read: {fault}", where=path, mend=f"name {LINES_COLUMNS}") from fault
    return read_lines(text, name=Path(path).name)


def _seferian(**shares: float) -> Mapping[str, float | None]:
    cr, ni = (summed(shares, indices()[name]).value for name in EQUIVALENTS[:2])
    return {"seferian_ferrite_percent": None if cr is None or ni is None else seferian_ferrite(cr, ni)}


def _modes(stated: Stated) -> list[str]:
    found: dict[str, None] = {}

    def formula(**shares: float) -> Mapping[str, float | None]:
        cr, ni = (summed(shares, indices()[name]).value for name in EQUIVALENTS[:2])
        if cr is not None and ni is not None and ni > 0:
            found[solidification_mode(cr, ni)] = None
        return {"mode": None}

    over_stated(formula, stated)
    return sorted(found, key=("A", "AF", "FA", "F").index)


def _band(cr_eq: Interval | None, ni_eq: Interval | None, lines: Lines | None) -> tuple[Band | None, Source]:
    corners = [] if cr_eq is None or ni_eq is None else [
        (cr, ni) for cr in (cr_eq.low, cr_eq.high) for ni in (ni_eq.low, ni_eq.high)
    ]  # fmt: skip
    if lines is not None:
        read = [read_off(lines, cr, ni) for cr, ni in corners]
        known = [fn for fn in read if fn is not None]
        band = Band(min(known), max(known)) if known and len(known) == len(read) else None
        return band, Source("fn_wrc", f"read off the lines of {lines.name}", "M")
    bands = [ferrite_estimate(cr, ni) for cr, ni in corners]
    sure = [band for band in bands if band is not None]
    source = Source("fn_wrc", "estimate: own fit to typical all-weld deposits, not the diagram", "L")
    if not sure or len(sure) < len(bands):
        return None, source
    return Band(min(band.low for band in sure), max(band.high for band in sure)), source


def _as_json(band: Band) -> Any:
    return number(band.low) if band.low == band.high else [number(band.low), number(band.high)]


def _text(band: Band) -> str:
    return f"FN {band.low:.3g}" if band.low == band.high else f"FN {band.low:.0f} to {band.high:.0f}, an estimate"
