"""How hot after? Hydrogen release and heat treatment: what the construction code asks, and what the metals bear."""

from collections.abc import Iterator
from math import inf

from msgspec import Struct

from anlage.core.codes.verdict import Verdict
from anlage.core.document import kept, with_at
from anlage.core.errors import AnlageError
from anlage.core.procedure import Wps
from anlage.core.quantities.units import System
from anlage.core.ranges import Choices, Interval, Numbers, Range
from anlage.core.thermal.hydrogen import hold_time, hydrogen_left
from anlage.core.thermal.tempering import hollomon_jaffe
from anlage.data.metal_tables import families
from anlage.session.heat.construction import CONSTRUCTION, Asked, asked_by, has_numbers, sides_asked
from anlage.session.heat.lower_transformation import MARGIN_K, Begins, lower_transformations
from anlage.session.heat.preheat import thickest_mm, thickest_stated_mm
from anlage.session.heat.scales import degrees, degrees_more, degrees_span, length_text
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.leaves.set_text import set_text
from anlage.session.leaves.table import field_of
from anlage.session.weld.analyses import sides_of

AS_WELDED, BELOW = "none", "below-ltt"
TREATMENT, TEMPERATURE, HOLD = "pwht", "pwht_temperature_c", "pwht_time_h"
RATES = ("heating_rate_k_h", "cooling_rate_k_h")
LEFT = 0.1  # of the hydrogen: what is usually aimed at
RELEASE_C, RELEASE_H, MM_PER_H = (200.0, 300.0), 2.0, 25.0  # usual hydrogen release (M)
AT_C = (250.0, 300.0)
QUARTER_H, STEP_C = 0.25, 5.0
DRAWN_K_H = 100.0  # a ramp that nobody states, drawn dashed
KIND = "pwht/kind"


class Line(Struct, frozen=True):
    """One judgement in a sentence."""

    verdict: Verdict
    text: str


class Fact(Struct, frozen=True):
    """A figure: its name, what it is, and what to say of it."""

    name: str
    text: str
    note: str


class Treatment(Struct, frozen=True):
    """A heat treatment that a code asks and the metals bear: temperature [°C], least hold [h], and why."""

    temperature_c: Interval
    hours: float
    reason: str


class AfterView(Struct, frozen=True):
    """All that is to be said of what follows the last pass; `begins` is where each metal transforms.

    `band` is what the code allows as temperature [°C], `takes` what it asks where nothing is stated.
    """

    lines: tuple[Line, ...]
    facts: tuple[Fact, ...]
    begins: tuple[Begins, ...]
    band: Interval | None
    takes: Treatment | None
    cautions: tuple[str, ...]
    code: str

    @property
    def lowest_c(self) -> float | None:
        """Where the first metal transforms; `None` where that is not known of one of them, or none does."""
        known = [each.celsius for each in self.begins if each.celsius is not None]
        return min(known) if known and len(known) == len(self.begins) else None


@kept
def after_view(wps: Wps, codes: Codes = SHIPPED, system: System = "si") -> AfterView:
    """Return what is to be said of a procedure after its last pass, in the reader's units."""
    begins, said = lower_transformations(wps), _Said(wps, codes, system)
    hardens = any(side.family and families()[side.family].preheat != "none" for side in sides_of(wps))
    may_harden = hardens or not all(side.family for side in sides_of(wps))
    lines = [*said.of_treatment(hardens=may_harden), *said.of_transformation(begins), *said.of_release(hardens=hardens)]
    band = said.asked(TEMPERATURE, thickest_mm(wps)) if said.name else None
    allowed = band.sure.parts[0] if band is not None and has_numbers(band.sure) else None
    return AfterView(
        tuple(lines), tuple(said.facts(hardens=hardens)), begins, allowed, said.takes(allowed, begins),
        tuple(_cautions(wps)), said.name,
    )  # fmt: skip


class _Said:
    """What is said of one procedure by one construction code."""

    def __init__(self, wps: Wps, codes: Codes, system: System) -> None:
        self.wps, self.codes, self.system = wps, codes, system
        self.named = wps.header.construction_code or ""
        self.fault = self.name = ""
        try:
            self.name = codes.edition_of(self.named, CONSTRUCTION)[0].name if self.named else ""
        except AnlageError as fault:
            self.fault = fault.what
        self.drawn = thickest_mm(wps)
        self.thickest = max(self.drawn or 0.0, thickest_stated_mm(wps)) if self.drawn is not None else None

    def asked(self, variable: str, thickness_mm: float | None) -> Asked | None:
        """Return what the code asks in metal so thick."""
        sides = sides_asked(self.wps, thickness_mm)
        return asked_by(self.named, sides, variable, units=self.wps.header.units, codes=self.codes)

    def of_treatment(self, *, hardens: bool) -> Iterator[Line]:
        """Yield whether heat treatment is asked, and whether what is stated of it is as the code asks."""
        kind = self.wps.pwht.kind
        if not self.name:
            if hardens:
                why = self.fault or "no construction code is stated"
                yield Line("unproven", f"Whether heat treatment is asked is not known: {why}.")
            return
        if not sides_asked(self.wps, self.drawn):
            yield Line("unproven", f"What {self.name} asks is not known: the P-Number of a side is not.")
            return
        yield self._whether(kind)
        hold = self.wps.pwht
        if kind in (None, AS_WELDED):
            if hold.temperature_c is not None or hold.time_h is not None:
                said = field_of(KIND).say(kind) if kind else "not stated"
                yield Line("unproven", f"Heat treatment is {said}, yet a temperature or a time of it is stated.")
            return
        if kind != BELOW:
            if self.asked(TEMPERATURE, self.drawn) is not None:
                said = field_of(KIND).say(kind)
                said = f"{said[0].upper()}{said[1:]} is stated as heat treatment"
                yield Line("unproven", f"{said}: what {self.name} asks is below the lower transformation.")
            return
        yield from self._by_code(TEMPERATURE, _numbers(hold.temperature_c), "heat treatment", "Its temperature")
        yield from self._by_code(HOLD, _numbers(hold.time_h), "the hold", "Its hold")
        yield from self._rates()

    def _rates(self) -> Iterator[Line]:
        """Yield whether it is heated and cooled no faster than the code allows; one line where that is not known."""
        asked = [found for name in RATES if (found := self.asked(name, self.drawn)) is not None]
        if asked and not any(has_numbers(found.sure) or found.lacks for found in asked):
            yield Line("unproven", f"How fast it is heated and cooled cannot be judged: {_open(asked[0])}.")
            return
        for name, word in zip(RATES, ("heating", "cooling"), strict=True):
            yield from self._by_code(name, _numbers(getattr(self.wps.after, name)), word, f"Its {word} rate")

    def _whether(self, kind: str | None) -> Line:
        """Return whether heat treatment is asked, and stated."""
        is_asked, why = self._is_asked(self.drawn)
        if kind is None:
            said = {"inside": "does not ask it", "outside": f"asks it: {why}", "unproven": f"may ask it: {why}"}
            return Line("unproven", f"Nothing is stated of heat treatment; {self.name} {said[is_asked]}.")
        if kind != AS_WELDED:
            word = {"inside": "does not ask", "outside": "asks", "unproven": "may ask"}[is_asked]
            is_such = kind == BELOW or is_asked == "inside"
            return Line("inside" if is_such else "unproven", f"{self.name} {word} heat treatment, and it is stated.")
        if is_asked != "inside":
            word = "asks" if is_asked == "outside" else "may ask"
            return Line(is_asked, f"As welded is stated, and {self.name} {word} heat treatment: {why}.")
        if self.drawn is not None and self.thickest is not None and self.thickest > self.drawn:
            is_asked, why = self._is_asked(self.thickest)
            if is_asked != "inside":
                at = f"{self._mm(self.thickest)}, as the procedure is stated for"
                word = "asks it" if is_asked == "outside" else "may ask it"
                text = f"As welded holds for the drawn {self._mm(self.drawn)}; in {at}, {self.name} {word}: {why}."
                return Line("unproven", text)
        return Line("inside", f"{self.name} lets it stay as welded.")

    def _is_asked(self, thickness_mm: float | None) -> tuple[Verdict, str]:
        """Return the verdict on no heat treatment in metal so thick, and why it is that."""
        found = self.asked(TREATMENT, thickness_mm)
        verdict = "inside" if found is None else found.verdict(_only(AS_WELDED))
        if found is None or verdict == "inside":
            return "inside", ""
        return verdict, "; ".join(rule.title for rule in found.limits) if verdict == "outside" else _open(found)

    def _by_code(self, variable: str, stated: Range | None, word: str, title: str) -> Iterator[Line]:
        """Yield whether a figure of a heat treatment is as the code asks, in the drawn metal and in the thickest."""
        found = self.asked(variable, self.drawn)
        if found is None:
            return
        if found.lacks or not has_numbers(found.sure):
            yield Line("unproven", f"{title} cannot be judged: {_open(found)}.")
            return
        allowed = set_text(variable, found.sure, self.system)
        if stated is None:
            yield Line("unproven", f"{title} is not stated; {self.name} asks {allowed} ({found.clause}).")
            return
        verdict, said = found.verdict(stated), set_text(variable, stated, self.system)
        if verdict == "inside" and self.thickest is not None and self.thickest > (self.drawn or inf):
            thicker = self.asked(variable, self.thickest)
            if thicker is not None and thicker.verdict(stated) != "inside":
                most = set_text(variable, thicker.sure, self.system)
                at = f"{self._mm(self.thickest)}, as the procedure is stated for, asks {most}"
                yield Line("unproven", f"{said} is enough for the drawn {self._mm(self.drawn or 0.0)}; {at}.")
                return
        yield Line(verdict, f"{said} for {word}: {self.name} asks {allowed} ({found.clause}).")

    def of_transformation(self, begins: tuple[Begins, ...]) -> Iterator[Line]:
        """Yield whether the heat treatment stays below where the metals transform."""
        treatment = self.wps.pwht
        if treatment.kind != BELOW or treatment.temperature_c is None:
            return
        if not begins:
            yield Line("unproven", "No metal of this joint is known to transform: what the hold does is to be shown.")
            return
        unknown = [each for each in begins if each.celsius is None]
        known = [each for each in begins if each.celsius is not None]
        lowest = min(known, key=lambda each: each.celsius or inf, default=None)
        top = treatment.temperature_c.high
        if lowest is not None and lowest.celsius is not None:
            at = f"{lowest.name} begins to transform at about {degrees(lowest.celsius, self.system)}, {lowest.basis}"
            below = lowest.celsius - top
            if below < -MARGIN_K:
                yield Line("outside", f"{degrees(top, self.system)} is over the transformation: {at}.")
                return
            if below < MARGIN_K:
                margin = degrees_more(MARGIN_K, self.system)
                text = f"{degrees(top, self.system)} is within {margin} of the transformation: {at}."
                yield Line("unproven", text)
                return
        if unknown:
            names = " and ".join(f"{each.name} ({each.basis})" for each in unknown)
            yield Line("unproven", f"Whether it stays below the transformation is not known of {names}.")
        elif lowest is not None and lowest.celsius is not None:
            margin = degrees_more(lowest.celsius - top, self.system)
            at = f"{lowest.name}, {degrees(lowest.celsius, self.system)}, {lowest.basis}"
            yield Line("inside", f"It stays {margin} below where the first metal transforms: {at}.")

    def of_release(self, *, hardens: bool) -> Iterator[Line]:
        """Yield whether a hydrogen release that is stated is what the trade does."""
        after = self.wps.after
        if after.release_c is None and after.release_h is None:
            return
        if not hardens:
            yield Line("unproven", "A hydrogen release is stated; this metal does not crack by hydrogen.")
            return
        if after.release_c is None or after.release_h is None:
            missing = "temperature" if after.release_c is None else "time"
            yield Line("unproven", f"The {missing} of the hydrogen release is not stated.")
            return
        hours = max(RELEASE_H, (self.thickest or 0.0) / MM_PER_H)
        usual = f"usual is {degrees_span(RELEASE_C, self.system)} for {hours:.1f} h (1 h for 25 mm, 2 h at least; M)"
        said = f"{degrees_span((after.release_c.low, after.release_c.high), self.system)} for {after.release_h.low:g} h"
        is_usual = RELEASE_C[0] <= after.release_c.low and after.release_c.high <= RELEASE_C[1]
        enough = is_usual and after.release_h.low >= hours
        text = f"Hydrogen release at {said}: {usual}."
        yield Line("inside" if enough and self.thickest is not None else "unproven", text)

    def facts(self, *, hardens: bool) -> Iterator[Fact]:
        """Yield figures of hydrogen and tempering."""
        if not hardens:
            return
        after, hold = self.wps.after, self.wps.pwht
        if self.thickest:
            yield from self._hydrogen(self.thickest)
        if hold.kind != AS_WELDED and hold.temperature_c is not None and hold.time_h is not None:
            ends = [
                hollomon_jaffe(getattr(hold.temperature_c, end), getattr(hold.time_h, end)) for end in ("low", "high")
            ]
            low, high = (f"{each:.2f}" for each in ends)
            text = low if low == high else f"{low} to {high}"
            yield Fact("Tempering parameter", text, "Hollomon and Jaffe, C 20: what hold and temperature do together")
        if hold.kind not in (None, AS_WELDED) and None in (after.heating_rate_k_h, after.cooling_rate_k_h):
            yield Fact("Heating and cooling", f"drawn at {degrees_more(DRAWN_K_H, self.system)}/h", "where not stated")

    def _hydrogen(self, thickness_mm: float) -> Iterator[Fact]:
        after = self.wps.after
        doubt = "even slab, both faces; Johnson and Hill (M)"
        if after.release_c is not None and after.release_h is not None:
            left = hydrogen_left(thickness_mm, temperature_c=after.release_c.low, hours=after.release_h.low)
            scatter = f"; below {degrees(RELEASE_C[0], self.system)} a factor of 10 to 100 either way"
            far = scatter if after.release_c.low < RELEASE_C[0] else ""
            yield Fact("Hydrogen left after it", f"{100 * left:.0f} %", f"in {self._mm(thickness_mm)}, {doubt}{far}")
        times = " or ".join(
            f"{hold_time(thickness_mm, temperature_c=each, left=LEFT):.1f} h at {degrees(each, self.system)}"
            for each in AT_C
        )
        yield Fact(f"To {100 * LEFT:.0f} % of the hydrogen", times, f"in {self._mm(thickness_mm)}, {doubt}")

    def takes(self, band: Interval | None, begins: tuple[Begins, ...]) -> Treatment | None:
        """Return the heat treatment that the code asks, below where the metals transform; `None` where it asks none.

        Nothing is proposed where the transformation of a metal is not known, or leaves no room in what the code asks.
        """
        found = self.asked(TREATMENT, self.thickest) if self.name and self.drawn else None
        known = [each.celsius for each in begins]
        if found is None or band is None or None in known or found.verdict(_only(AS_WELDED)) == "inside":
            return None
        highest = min([band.high, *(each - MARGIN_K for each in known if each is not None)])
        highest = highest // STEP_C * STEP_C
        hold = self.asked(HOLD, self.thickest)
        if highest < band.low or hold is None or not has_numbers(hold.sure):
            return None
        hours = -(-hold.sure.parts[0].low // QUARTER_H) * QUARTER_H
        reason = f"{self.name} {hold.clause}, {degrees_more(MARGIN_K, self.system)} below where the metals transform"
        return Treatment(Interval(band.low, highest), hours, reason)

    def _mm(self, length_mm: float) -> str:
        return length_text(length_mm, self.system)


def _cautions(wps: Wps) -> Iterator[str]:
    """Yield what each metal suffers or needs when it is heat treated, where that is stated."""
    if wps.pwht.kind not in (None, AS_WELDED):
        told = (families()[side.family].treated for side in sides_of(wps) if side.family)
        yield from dict.fromkeys(filter(None, told))


def _numbers(span: Interval | None) -> Range | None:
    return None if span is None else Numbers((Interval(span.low, span.high),))


def _only(word: str) -> Choices:
    return Choices(frozenset((word,)))


def _open(found: Asked) -> str:
    """Return why a code leaves something open."""
    return f"{', '.join(found.lacks)} not stated" if found.lacks else found.reason or "its rule is not known"


def with_treatment(wps: Wps, takes: Treatment) -> Wps:
    """Return a procedure with a heat treatment below where its metals transform."""
    wps = with_at(wps, "pwht/kind", BELOW)
    wps = with_at(wps, "pwht/temperature_c", takes.temperature_c)
    return with_at(wps, "pwht/time_h", Interval(takes.hours, takes.hours))
