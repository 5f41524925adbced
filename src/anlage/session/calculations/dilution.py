"""`calc dilution`: what a weld between two metals of the catalogue is made of."""

from anlage.core.errors import InputError, UnknownNameError
from anlage.core.metal.analyses import FERROUS, Analysis, deposit_of, specified_of, typical_of
from anlage.core.metal.dilution import weld_metal
from anlage.core.metal.ferrite import Lines
from anlage.core.ranges import Interval, over_corners
from anlage.core.results import Notice, Source
from anlage.data.metal_tables import typical_analyses
from anlage.data.tables import catalogue
from anlage.session.keyed.answer import Answer, number_or_interval
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.ferrite import ferrite_answer, lines_of

KEYS = ("base_a", "base_b", "filler", "dilution", "share_a", "lines")
NOT_ADDED = ("Cr", "Ni", "Mo", "Cu", "Nb", "Si", "Mn")  # in a metal that does not name them: none, told


def answer(arguments: Arguments) -> Answer:
    """Answer `calc dilution`."""
    arguments.need("base_a", "filler", "dilution")
    analyses = [_base(arguments, "base_a"), _base(arguments, "base_b" if "base_b" in arguments else "base_a")]
    filler = deposit_of(catalogue().filler(arguments.text("filler")))
    if not filler.composition:
        raise InputError(
            "has no analysis in the catalogue", where="filler", mend="take a filler whose analysis is known"
        )
    dilution = _share(arguments, "dilution")
    share = _share(arguments, "share_a") if "share_a" in arguments else Interval.single(0.5)
    filled, notices = _filled([*analyses, filler])

    def formula(dilution: float, share_a: float) -> dict[str, float | None]:
        return dict(weld_metal(*filled, dilution=dilution, first_share=share_a))

    mixed = over_corners(formula, {"dilution": dilution, "share_a": share})
    stated = {name: value for name, value in mixed.items() if value is not None}
    lines: Lines | None = lines_of(arguments.text("lines")) if "lines" in arguments else None
    found = ferrite_answer(stated, lines)
    notices += [_basis_notice(each) for each in {a.name: a for a in analyses if a.basis == "specification"}.values()]
    composition = {name: number_or_interval(value) for name, value in stated.items()}
    table = [(name, "..".join(dict.fromkeys(f"{e:.3f}" for e in (v.low, v.high))) + " %") for name, v in stated.items()]
    sources = [Source(each.name, f"{each.basis}: {each.source}", each.confidence) for each in (*analyses, filler)]
    return Answer(
        {"composition": composition, **found.values},
        [*table, *found.lines],
        [*dict.fromkeys(sources), *found.sources],
        [*notices, *found.notices],
    )


def _base(arguments: Arguments, key: str) -> Analysis:
    """Return the analysis of a base metal: typical where the table has it, else the specification's most."""
    name = arguments.text(key)
    metal = catalogue().base_metal(name)
    if metal is None:
        raise UnknownNameError(name, (each.id for each in catalogue().base_metals), where=key)
    found = typical_of(metal, typical_analyses())
    if found is not None:
        return found
    if metal.family not in FERROUS:
        text = (
            f"no typical analysis of {metal.id} is known, and the most that its specification allows makes no ferrite"
        )
        raise InputError(text, where=key, mend="work out the mixture from certificates and give it to calc ferrite")
    return specified_of(metal)


def _share(arguments: Arguments, key: str) -> Interval:
    share = arguments.interval(key, "ratio", zero=True)
    if share.high > 1:
        raise InputError(f"{share.high:g} is over 1", where=key, mend="state a share of 1, such as 0.3")
    return share


def _filled(analyses: list[Analysis]) -> tuple[list[dict[str, float]], list[Notice]]:
    """Return the compositions with 0 for what a metal does not name, so that they mix, and the notice of it."""
    told = {}
    filled = []
    for each in analyses:
        missing = [name for name in NOT_ADDED if name not in each.composition]
        filled.append({**each.composition, **dict.fromkeys(missing, 0.0)})
        told[each.name] = missing
    texts = [f"{name}: {', '.join(missing)}" for name, missing in told.items() if missing]
    if not texts:
        return filled, []
    text = f"not in the analysis and counted as 0: {'; '.join(texts)}"
    return filled, [Notice("composition.counted_as_none", "filler", text)]


def _basis_notice(each: Analysis) -> Notice:
    text = f"{each.name} is taken with the most that its specification allows; a certificate says more"
    return Notice("dilution.specification", each.name, text)
