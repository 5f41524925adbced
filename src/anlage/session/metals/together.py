"""Do these go together? What the metals and the filler of a procedure come to, with what to mind."""

from collections.abc import Iterator, Mapping
from typing import Literal

from msgspec import Struct

from anlage.core.catalogue import Filler
from anlage.core.document import kept
from anlage.core.errors import UnknownNameError
from anlage.core.metal.analyses import FERROUS, STAINLESS, deposit_of
from anlage.core.metal.composition import Composition
from anlage.core.metal.dilution import weld_metal
from anlage.core.metal.ferrite import Band, ferrite_estimate, seferian_ferrite, solidification_mode
from anlage.core.metal.indices import cen, summed
from anlage.core.procedure import Deposit, Wps
from anlage.data.metal_tables import dilutions, indices
from anlage.data.tables import catalogue
from anlage.session.weld.analyses import Side, sides_of

FILLED = ("Cr", "Ni", "Mo", "Cu", "Nb", "Si", "Mn", "C")
ASSUMED_N = 0.06  # % in an austenitic deposit by convention (M)
DUPLEX_RATIO = 1.95
CRACK_RATIO = 1.48  # of Schaeffler's equivalents: above, little risk of solidification cracks (M)
ROOM_C = 20.0
NONE_BELOW_C = -200.0  # colder than anything in service: no number is said, the formula was not made for it
CARBON_EQUIVALENTS = ("ce_iiw", "cet", "pcm")
MATCH_STEP_MPA = 7.0  # between the metric prints of one grade
Verdict = Literal["inside", "outside", "unproven", ""]


class Figure(Struct, frozen=True):
    """A figure in words: its name, what it comes to, what to say of it, where it comes from."""

    name: str
    text: str
    note: str
    source: str


class Caution(Struct, frozen=True):
    """A sentence with its verdict: outside for what fails, unproven for what is not shown, inside for what goes."""

    verdict: Verdict
    text: str


class Spot(Struct, frozen=True):
    """A metal in the plane of equivalents: its name, Cr and Ni equivalent of Schaeffler [%]."""

    name: str
    cr_eq: float
    ni_eq: float


class Mixture(Struct, frozen=True):
    """A deposit: where it lies, its ferrite, its mode, where it turns to martensite [°C], its pitting number."""

    spot: Spot
    composition: Mapping[str, float]
    ferrite_percent: float
    number: Band | None
    mode: str
    martensite_c: float | None


class Compared(Struct, frozen=True):
    """One filler for the same pair: its mixture in words."""

    filler: str
    ferrite: str
    mode: str
    martensite: str
    verdict: Verdict


class Strength(Struct, frozen=True):
    """A bar of strength: whose, yield and tensile [MPa]."""

    name: str
    yield_mpa: float | None
    tensile_mpa: float | None


class Together(Struct, frozen=True):
    """All that the place shows."""

    sides: tuple[Side, ...]
    figures: tuple[Figure, ...]
    cautions: tuple[Caution, ...]
    strengths: tuple[Strength, ...]
    spots: tuple[Spot, ...]
    filler_spot: Spot | None
    mixture: Mixture | None
    dilution: float
    usual_dilution: tuple[float, float]
    compared: tuple[Compared, ...]

    @property
    def is_stainless(self) -> bool:
        """Whether the plane of equivalents is what to look at."""
        return self.filler_spot is not None and bool(self.spots)


@kept
def together(wps: Wps, deposit_id: str = "") -> Together:
    """Return how the metals of a procedure go together, with the filler of one of its deposits."""
    sides, deposit = sides_of(wps), _deposit(wps, deposit_id)
    filler = filler_of(deposit)
    usual = dilutions().of(deposit.process or "") if deposit else None
    span = (usual.low, usual.high) if usual else (0.2, 0.4)
    dilution = sum(span) / 2 if wps.metals.dilution is None else wps.metals.dilution
    figures = [figure for side in sides for figure in _carbon_figures(side)]
    spots, mixture, filler_spot, compared = _stainless(sides, filler, dilution)
    if mixture is not None:
        figures += _mixture_figures(mixture)
    stated = span if wps.metals.dilution is None else (wps.metals.dilution,)
    runs = () if mixture is None or filler is None else tuple(_runs(sides, filler, stated))
    cautions = [
        *_hardening(sides), *_matching(sides, filler), *_others_matching(wps, sides, filler),
        *_mixture_cautions(mixture, runs), *_diluted(wps.metals.dilution, span), *_kinds(sides, filler),
    ]  # fmt: skip
    return Together(
        sides, tuple(figures), tuple(cautions), tuple(_strengths(sides, filler)), spots, filler_spot, mixture, dilution,
        span, compared,
    )  # fmt: skip


def filler_of(deposit: Deposit | None) -> Filler | None:
    """Return the filler of a deposit; `None` where it has none or nobody knows it."""
    if deposit is None or not deposit.filler or deposit.filler.casefold() == "none":
        return None
    try:
        return catalogue().filler(deposit.filler)
    except UnknownNameError:
        return None


def deposit_names(wps: Wps) -> tuple[tuple[str, str], ...]:
    """Return the deposits of a procedure that have a filler: id and what they are called."""
    return tuple((each.id, f"{each.process or 'no process'}  {each.filler}") for each in wps.deposits if each.filler)


def _deposit(wps: Wps, deposit_id: str) -> Deposit | None:
    own = [each for each in wps.deposits if each.filler]
    return next((each for each in own if each.id == deposit_id), own[0] if own else None)


# Steel that hardens ------------------------------------------------------------------------------------------------


def _carbon_figures(side: Side) -> Iterator[Figure]:
    if side.analysis is None or side.family not in FERROUS:
        return
    composition = side.analysis.composition
    lacking = "not stated: C or Mn" if not {"C", "Mn"} <= set(composition) else ""
    for name in CARBON_EQUIVALENTS:
        index = indices()[name]
        value = summed(composition, index)
        out = ", ".join(f"{e} {v:g} is outside {low:g} to {high:g}" for e, v, low, high in value.outside)
        text = "unknown" if value.value is None else f"{value.value:.2f}"
        none = ", ".join(value.counted_as_none)
        zero = f"counted as none: {none}" if none and value.value is not None else ""
        yield Figure(f"{index.title}, {side.name}", text, lacking or "; ".join(filter(None, (out, zero))), index.source)
    found = cen(composition)
    yield Figure(
        f"CEN, {side.name}",
        "unknown" if found is None else f"{found:.2f}",
        lacking,
        "Yurioka et al. 1983",
    )
    for name in ("ms_andrews_c", "ac1_andrews_c"):
        index = indices()[name]
        value = summed(composition, index)
        text = "unknown" if value.value is None else f"{value.value:.0f} °C"
        yield Figure(f"{index.title}, {side.name}", text, "± 25 K", index.source)


def _hardening(sides: tuple[Side, ...]) -> Iterator[Caution]:
    for side in sides:
        if side.analysis is None:
            name = side.name or "The base metal"
            yield Caution("unproven", f"{name}: {side.basis}.")
        elif side.family == "aluminium":
            yield Caution("", f"{side.name}: no carbon equivalent; aluminium does not harden by martensite.")
        elif side.family in ("nickel", "titanium"):
            yield Caution("", f"{side.name}: no carbon equivalent; this metal does not harden by martensite.")


# Strength ----------------------------------------------------------------------------------------------------------


def _strengths(sides: tuple[Side, ...], filler: Filler | None) -> Iterator[Strength]:
    for side in sides:
        own = side.certificate
        metal = side.metal
        yield Strength(
            side.name or "base metal",
            own.yield_mpa if own and own.yield_mpa else metal.smys_mpa if metal else None,
            own.tensile_mpa if own and own.tensile_mpa else metal.smts_mpa if metal else None,
        )
    if filler is not None:
        yield Strength(filler.classification, filler.smys_mpa, filler.smts_mpa)


def _matching(sides: tuple[Side, ...], filler: Filler | None) -> Iterator[Caution]:
    asked = [side.metal.smts_mpa for side in sides if side.metal and side.metal.smts_mpa]
    if filler is None or not asked or len(asked) < len(sides):
        return
    weaker = min(asked)
    if filler.smts_mpa is None:
        yield Caution("unproven", f"{filler.classification} states no strength: its match is not shown.")
    elif filler.smts_mpa + MATCH_STEP_MPA < weaker:
        text = f"{filler.classification} is undermatching: {filler.smts_mpa:.0f} MPa against {weaker:.0f} MPa."
        yield Caution("outside", text)
    else:
        side = "the weaker side" if len(set(asked)) > 1 else "the base metal"
        yield Caution(
            "inside", f"{filler.classification} matches {side}: {filler.smts_mpa:.0f} MPa against {weaker:.0f} MPa."
        )


def _others_matching(wps: Wps, sides: tuple[Side, ...], shown: Filler | None) -> Iterator[Caution]:
    """Yield what does not match of the fillers that are not shown: the weakest deposit of a weld gives way first."""
    told = {shown.classification} if shown else set()
    for each in wps.deposits:
        filler = filler_of(each)
        if filler is not None and filler.classification not in told:
            told.add(filler.classification)
            yield from (caution for caution in _matching(sides, filler) if caution.verdict != "inside")


# Stainless and dissimilar ------------------------------------------------------------------------------------------


def _stainless(
    sides: tuple[Side, ...], filler: Filler | None, dilution: float
) -> tuple[tuple[Spot, ...], Mixture | None, Spot | None, tuple[Compared, ...]]:
    bases = [
        (side, _filled(side.analysis.composition))
        for side in sides
        if side.analysis is not None and side.family in (*FERROUS, *STAINLESS)
    ]
    if len(bases) < len(sides) or filler is None or not filler.composition:
        return (), None, None, ()
    stainless = any(side.family in STAINLESS for side, _ in bases) or filler.composition.get("Cr", 0.0) > 10
    if not stainless:
        return (), None, None, ()
    spots = tuple(_spot(side.name, own) for side, own in bases)
    pair = (bases[0][1], bases[-1][1])
    mixture = _mixed(filler, pair, dilution)
    compared = tuple(_compared(name, sides, pair, dilution) for name in dilutions().compared)
    return spots, mixture, _spot(filler.classification, _filled(filler.composition)), compared


def _filled(composition: Composition) -> dict[str, float]:
    return {**dict.fromkeys(FILLED, 0.0), **composition}


def _spot(name: str, composition: Composition) -> Spot:
    cr, ni = (summed(composition, indices()[f"schaeffler_{which}"]).value for which in ("creq", "nieq"))
    return Spot(name, cr or 0.0, ni or 0.0)


def _mixed(filler: Filler, pair: tuple[Composition, Composition], dilution: float) -> Mixture:
    weld = dict(weld_metal(*pair, _filled(deposit_of(filler).composition), dilution=dilution, first_share=0.5))
    spot = _spot(filler.classification, weld)
    ratio = spot.cr_eq / spot.ni_eq if spot.ni_eq > 0 else float("inf")
    if "N" not in weld and ratio <= DUPLEX_RATIO:
        weld["N"] = ASSUMED_N
    wrc = [summed(weld, indices()[f"wrc_{which}"]).value for which in ("creq", "nieq")]
    band = ferrite_estimate(wrc[0], wrc[1]) if wrc[0] is not None and wrc[1] is not None else None
    mode = solidification_mode(spot.cr_eq, spot.ni_eq) if spot.ni_eq > 0 else "F"
    return Mixture(
        spot,
        weld,
        seferian_ferrite(spot.cr_eq, spot.ni_eq),
        band,
        mode,
        summed(weld, indices()["ms_eichelman_hull_c"]).value,
    )


def _compared(name: str, sides: tuple[Side, ...], pair: tuple[Composition, Composition], dilution: float) -> Compared:
    filler = catalogue().filler(name)
    if not filler.composition:
        return Compared(name, "unknown", "", "", "unproven")
    found = _mixed(filler, pair, dilution)
    runs = tuple(_runs(sides, filler, (dilution,)))
    one_sided = next((run.side for run in runs if _is_hard(run.mixture) and not run.little_carbon), "")
    verdicts = [each.verdict for each in _mixture_cautions(found, runs)]
    verdict: Verdict = next((each for each in ("outside", "unproven") if each in verdicts), "inside")
    martensite = f"on {one_sided}" if one_sided else "none"
    if found.martensite_c is None:
        martensite = ""
    elif _is_hard(found):
        martensite = "martensite"
    return Compared(filler.classification, _band_text(found.number), found.mode, martensite, verdict)


def _band_text(band: Band | None) -> str:
    return "no number" if band is None else f"{band.low:.0f} to {band.high:.0f}"


def _mixture_figures(mixture: Mixture) -> Iterator[Figure]:
    number = "no number here" if mixture.number is None else f"{_band_text(mixture.number)} FN"
    yield Figure("Ferrite, estimate", number, "a band, not the diagram; read yours off a licensed copy", "own fit, L")
    held = f"{mixture.ferrite_percent:.0f} %" if 0 <= mixture.ferrite_percent <= 20 else "outside 0 to 20 %"
    yield Figure("Ferrite, Séférian", held, "by Schaeffler's equivalents", "Séférian, from memory")
    yield Figure("Solidifies", mixture.mode, "A and AF crack more readily", "Suutala, from memory")
    if mixture.martensite_c is not None:
        text = f"{mixture.martensite_c:.0f} °C" if mixture.martensite_c > NONE_BELOW_C else "none"
        yield Figure("Martensite start", text, "of the deposit; hard above room temperature", "Eichelman and Hull 1953")
    pren = summed(mixture.composition, indices()["pren"]).value
    if pren is not None and mixture.composition.get("Cr", 0.0) > 15:
        yield Figure("PREN", f"{pren:.0f}", "22 % Cr duplex 34 or more, 25 % Cr 40", "common practice")


class _Run(Struct, frozen=True):
    """A run that is laid on one side alone, as the first ones are: whose, how diluted, and what it comes to."""

    side: str
    dilution: float
    mixture: Mixture
    little_carbon: bool


def _runs(sides: tuple[Side, ...], filler: Filler, shares: tuple[float, ...]) -> Iterator[_Run]:
    """Yield a run on each side alone at each dilution, and with no carbon in it where only the most is known.

    Carbon holds austenite: the most that a specification allows is the best case against martensite, not the worst.
    """
    for side in sides:
        if side.analysis is None:
            continue
        own = _filled(side.analysis.composition)
        for share in shares:
            yield _Run(side.name, share, _mixed(filler, (own, own), share), little_carbon=False)
            if side.analysis.basis == "specification":
                lean = {**own, "C": 0.0}
                yield _Run(side.name, share, _mixed(filler, (lean, lean), share), little_carbon=True)


def _is_hard(mixture: Mixture) -> bool:
    return mixture.martensite_c is not None and mixture.martensite_c > ROOM_C


def _is_crack_prone(mixture: Mixture) -> bool:
    return mixture.spot.ni_eq > 0 and mixture.spot.cr_eq / mixture.spot.ni_eq < CRACK_RATIO


def _mixture_cautions(mixture: Mixture | None, runs: tuple[_Run, ...]) -> Iterator[Caution]:
    if mixture is None:
        return
    if _is_hard(mixture):
        yield Caution(
            "outside", "The deposit turns to martensite: hard and brittle. Take a richer filler, or less dilution."
        )
        return
    hard = max((run for run in runs if _is_hard(run.mixture)), key=lambda run: not run.little_carbon, default=None)
    if hard is not None:
        why = " if that holds little carbon: state its certificate" if hard.little_carbon else ""
        text = f"A run on {hard.side} alone, {_percent(hard.dilution)} diluted, turns to martensite{why}."
        yield Caution("unproven", f"{text} Take a richer filler, or less dilution.")
    if _is_crack_prone(mixture):
        yield Caution("unproven", "It solidifies as austenite first: prone to hot cracks unless clean and cool.")
    elif prone := next((run for run in runs if _is_crack_prone(run.mixture) and not run.little_carbon), None):
        text = f"A run on {prone.side} alone, {_percent(prone.dilution)} diluted, solidifies as austenite first"
        yield Caution("unproven", f"{text}: prone to hot cracks unless clean and cool.")
    elif mixture.martensite_c is not None and hard is None:
        yield Caution("inside", "It solidifies as ferrite first and keeps no martensite, on either side.")


def _diluted(stated: float | None, usual: tuple[float, float]) -> Iterator[Caution]:
    """Yield that a dilution is not what the process usually melts off; less than usual flatters the mixture."""
    if stated is None or usual[0] <= stated <= usual[1]:
        return
    text = f"{_percent(stated)} of dilution is not usual of the process, {_percent(usual[0])} to {_percent(usual[1])}"
    yield Caution("unproven" if stated < usual[0] else "", f"{text}: measure it on a section.")


def _percent(share: float) -> str:
    return f"{100 * share:.0f} %"


def _kinds(sides: tuple[Side, ...], filler: Filler | None) -> Iterator[Caution]:
    """Yield what is said of the kinds of metal that meet."""
    families = {side.family for side in sides if side.family}
    if families and families <= set(FERROUS) and filler is not None and filler.composition.get("Cr", 0.0) > 10:
        text = "A stainless filler between steels: no hydrogen cracks in the weld, a hard line at its edge,"
        yield Caution("", f"{text} and no heat treatment after.")
    if families & set(FERROUS) and families & {"austenitic", "duplex"}:
        text = "Carbon steel to stainless: 309L up to about 300 °C in service,"
        yield Caution("", f"{text} nickel base above it or with heat treatment.")
    if "aluminium" in families and len(families) > 1:
        yield Caution("outside", "Aluminium is not fusion welded to another metal.")
