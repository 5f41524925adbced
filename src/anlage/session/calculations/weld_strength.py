"""`calc weld-strength`: strength of carbon-manganese weld metal as welded, estimated from its composition."""

from anlage.core.metal.composition import ELEMENTS, named
from anlage.core.metal.strength import weld_strength
from anlage.core.ranges import Interval
from anlage.core.results import Notice, Source
from anlage.session.keyed.answer import Answer, number_or_interval, shown
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.composition import outside_notice, over_stated, stated_composition

KEYS = ELEMENTS


def answer(arguments: Arguments) -> Answer:
    """Answer `calc weld-strength`."""
    stated = stated_composition(arguments, "C", "Mn")

    def formula(**shares: float) -> dict[str, float | None]:
        found = weld_strength(shares)
        assert found is not None
        return {"yield_mpa": found.yield_mpa, "tensile_mpa": found.tensile_mpa}

    values = over_stated(formula, {name: stated[name] for name in ("C", "Mn")})
    found = weld_strength({name: share.high for name, share in stated.items()})
    least = weld_strength({name: share.low for name, share in stated.items()})
    assert found is not None
    assert least is not None
    outside = {name: bounds for name, _, *bounds in (*least.outside, *found.outside)}
    notices = [outside_notice("the fit", name, stated[name], (low, high)) for name, (low, high) in outside.items()]
    if found.alloyed:
        text = f"the fit knows no {named(found.alloyed)}: carbon-manganese deposits alone"
        notices.append(Notice("weld_strength.alloyed", found.alloyed[0], text))
    estimate = "an estimate as welded, tens of MPa to either side: never a proof of matching strength"
    notices.append(Notice("weld_strength.estimate", "C", estimate))
    lines = [("yield strength", _mpa(values["yield_mpa"])), ("tensile strength", _mpa(values["tensile_mpa"]))]
    source = Source("strength", "Evans, all-weld metal of C-Mn basic electrodes, from memory", "M")
    return Answer({name: number_or_interval(value) for name, value in values.items()}, lines, [source], notices)


def _mpa(value: Interval | None) -> str:
    return shown("_mpa", value)
