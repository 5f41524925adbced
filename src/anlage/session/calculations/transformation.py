"""`calc transformation`: where a steel turns to martensite, bainite and austenite."""

from anlage.core.metal.composition import ELEMENTS
from anlage.core.metal.indices import ac3_andrews
from anlage.core.ranges import Interval
from anlage.core.results import Notice, Source
from anlage.data.metal_tables import indices
from anlage.session.keyed.answer import Answer, number_or_interval, shown
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.composition import over_stated, stated_composition, summed_over

KEYS = ELEMENTS
STEEL = ("ms_andrews_c", "ac1_andrews_c", "ms_steven_haynes_c", "bs_steven_haynes_c")
STAINLESS = "ms_eichelman_hull_c"
AC3 = "ac3_andrews_c"
STAINLESS_FROM = 10.0  # % Cr: below, the formula of stainless deposits says nothing
ROOM_C = 20.0


def answer(arguments: Arguments) -> Answer:
    """Answer `calc transformation`."""
    stated = stated_composition(arguments, "C")
    stainless = "Cr" in stated and stated["Cr"].high >= STAINLESS_FROM
    chosen = [*STEEL, *([STAINLESS] if stainless else [])]
    counting = {AC3: ("Si", "V", "Ni", "Mo")}
    values, notices, sources = summed_over(stated, (indices()[name] for name in chosen), counting=counting)
    values[AC3] = over_stated(lambda **shares: {AC3: ac3_andrews(shares)}, _counted(stated))[AC3]
    values.setdefault(STAINLESS, None)
    sources.append(Source(AC3, "Andrews 1965, J. Iron Steel Inst. 203, from memory", "H"))
    if not stainless:
        sources.append(Source(STAINLESS, f"{indices()[STAINLESS].source}: of stainless deposits alone", "H"))
    elif "N" not in stated:
        text = "N is not stated and counts as 0: each 0.01 % lowers the martensite start of the deposit by 17 K"
        notices.append(Notice("transformation.nitrogen", "N", text))
    notices += _warnings(values[STAINLESS])
    order = ("ms_andrews_c", "ac1_andrews_c", AC3, "ms_steven_haynes_c", "bs_steven_haynes_c", STAINLESS)
    titles = {name: indices()[name].title for name in order if name != AC3} | {AC3: "Ac3 (Andrews)"}
    lines = [(titles[name], shown(name, values[name])) for name in order]
    return Answer({name: number_or_interval(values[name]) for name in order}, lines, sources, notices)


def _counted(stated: dict[str, Interval] | object) -> dict[str, Interval]:
    assert isinstance(stated, dict)
    return {name: share for name, share in stated.items() if name in ("C", "Ni", "Si", "V", "Mo", "W")}


def _warnings(martensite: Interval | None) -> list[Notice]:
    if martensite is None or martensite.high < ROOM_C:
        return []
    text = "the deposit turns to martensite above room temperature: hard and brittle as welded"
    return [Notice("transformation.martensite", "Ni", text)]
