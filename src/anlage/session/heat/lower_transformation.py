"""At what temperature each metal of a joint begins to transform: heat treatment that softens stays below the lowest."""

from collections.abc import Iterator, Mapping

from msgspec import Struct

from anlage.core.metal.indices import summed
from anlage.core.procedure import Wps
from anlage.data.metal_tables import families, indices
from anlage.session.judging.editions import edition_of
from anlage.session.judging.metals import group_of
from anlage.session.weld.analyses import Side, filler_analysis, sides_of

TABLE = "asme-ix"  # whose table of groups is read
MARGIN_K = 25.0  # of a heat treatment below it, and the scatter of the sums: 20 to 30 K is the trade's (M)
NINE_CHROMIUM = 6.0  # %: above, the sum reads 40 to 80 K high
MOST_NICKEL = 10.0  # % of what a filler lays: above, it does not transform
STAINLESS_CR, AUSTENITIC_NI = 10.0, 6.0  # %: with both it is austenitic or duplex
INDEX = "ac1_andrews_c"


class Begins(Struct, frozen=True):
    """Where a metal begins to transform [°C]: `None` where that is not known, and `basis` says by what."""

    name: str
    celsius: float | None
    basis: str


def lower_transformations(wps: Wps) -> tuple[Begins, ...]:
    """Return where every metal of a joint that transforms begins to do so: both sides, and what the fillers lay.

    Of a side the lower of two counts: that of its group, and that of its certificate.

    Sources
    -------
    Groups: ASME B31.1 Table 129.3.1, approximate, from memory, M. Sum: Andrews 1965, H; not for 9 % chromium.
    """
    sides = tuple(_of_sides(wps))
    return (*sides, *_of_fillers(wps)) if sides else ()


def does_transform(composition: Mapping[str, float]) -> bool:
    """Return whether what a filler lays [%] is neither austenitic nor duplex nor nickel; martensitic metal transforms.

    Sources
    -------
    Common practice, no source: the limits are from memory, M.
    """
    chromium, nickel = (composition.get(name, 0.0) for name in ("Cr", "Ni"))
    return nickel <= MOST_NICKEL and not (chromium > STAINLESS_CR and nickel >= AUSTENITIC_NI)


def _of_sides(wps: Wps) -> Iterator[Begins]:
    for side in sides_of(wps):
        if side.family and families()[side.family].preheat == "none":
            continue  # it does not transform
        of_group, of_steel = _by_group(wps, side), _by_certificate(side)
        known = [each for each in (of_group, of_steel) if each is not None]
        lowest = min(known, default=None)
        basis = "by its certificate (Andrews)" if lowest is not None and lowest == of_steel else "of its P-Number"
        yield Begins(side.name or "a side that is not named", lowest, basis if known else "not known")


def _by_group(wps: Wps, side: Side) -> float | None:
    group = group_of(wps.metals.one if side.path == "metals/one" else wps.metals.other or wps.metals.one)
    number = group.group("p_number") if group else ""
    return edition_of(TABLE)[0].derive.lower_transformation(frozenset((number,))) if number else None


def _by_certificate(side: Side) -> float | None:
    if side.certificate is None or side.certificate.composition.get("Cr", 0.0) > NINE_CHROMIUM:
        return None
    return summed(side.certificate.composition, indices()[INDEX]).value


def _of_fillers(wps: Wps) -> Iterator[Begins]:
    seen = set()
    for deposit in wps.deposits:
        found = filler_analysis(deposit)
        if found is None or found.name in seen or not does_transform(found.composition):
            continue
        seen.add(found.name)
        nine = found.composition.get("Cr", 0.0) > NINE_CHROMIUM
        value = None if nine else summed(found.composition, indices()[INDEX]).value
        basis = f"not known over {NINE_CHROMIUM:g} % chromium: ask its maker" if nine else "typical (Andrews)"
        yield Begins(found.name, value, basis)
