"""`calc carbon-equivalent`: how readily a steel hardens, by the formulas in use."""

from anlage.core.metal.composition import ELEMENTS
from anlage.core.metal.indices import cen
from anlage.core.ranges import Interval
from anlage.core.results import Notice, Source
from anlage.data.metal_tables import indices
from anlage.session.keyed.answer import Answer, number_or_interval
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.composition import outside_notice, stated_composition, summed_over

KEYS = ELEMENTS
IDS = ("ce_iiw", "ce_aws", "ce_wes", "cet", "pcm", "pls")
CEN_CARBON = (0.02, 0.30)
CEN_COUNTS = ("Si", "Cu", "Ni", "Cr", "Mo", "Nb", "V", "B")
MOST_CR = 1.5  # above, none of the equivalents speaks (common practice, M)


def answer(arguments: Arguments) -> Answer:
    """Answer `calc carbon-equivalent`."""
    stated = stated_composition(arguments, "C")
    values, notices, sources = summed_over(
        stated, (indices()[name] for name in IDS), counting={"cen": CEN_COUNTS} if "Mn" in stated else {}
    )
    low, high = (cen({name: getattr(share, end) for name, share in stated.items()}) for end in ("low", "high"))
    values["cen"] = None if low is None or high is None else Interval(low, high)
    sources.append(Source("cen", "Yurioka et al. 1983, from memory", "H"))
    if not (CEN_CARBON[0] <= stated["C"].low and stated["C"].high <= CEN_CARBON[1]):
        notices.append(outside_notice("CEN", "C", stated["C"], CEN_CARBON))
    if "Cr" in stated and stated["Cr"].high > MOST_CR:
        text = (
            f"over {MOST_CR:g} % chromium no carbon equivalent speaks: take the code's table and the martensite start"
        )
        notices.append(Notice("carbon_equivalent.chromium", "Cr", text))
    lines = [(indices()[name].title if name in indices() else "CEN", _shown(value)) for name, value in values.items()]
    return Answer({name: number_or_interval(value) for name, value in values.items()}, lines, sources, notices)


def _shown(value: Interval | None) -> str:
    if value is None:
        return "unknown"
    return "..".join(dict.fromkeys(f"{end:.3f}" for end in (value.low, value.high)))
