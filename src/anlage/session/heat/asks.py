"""What schools and codes ask, what they were told, and whether the chosen temperatures are that."""

from typing import Literal

from msgspec import Struct

from anlage.core.metal.families import Family
from anlage.core.quantities.units import System
from anlage.session.heat.scales import degrees, degrees_more, degrees_span

STEP_C = 5.0  # a preheat is chosen in such steps, never below what is asked


class Told(Struct, frozen=True):
    """A fact that the schools were given: its name, what it is, where it comes from, the leaf that states it."""

    name: str
    text: str
    basis: str
    path: str


class Ask(Struct, frozen=True):
    """What a school or a code asks [°C]; `high_c` is above `low_c` where two readings stand.

    `within` is false where something lies outside the range that a school was made for; `low_c` is `None` where it says
    nothing, and `note` says why.
    """

    id: str
    word: str
    kind: Literal["school", "code", "metal"]
    low_c: float | None
    high_c: float | None
    within: bool
    note: str
    source: str
    confidence: str

    @property
    def chosen_c(self) -> float | None:
        """What is stated when it is taken: no less than is asked, in whole steps of five [°C]."""
        return None if self.high_c is None else -(-max(self.high_c, 0.0) // STEP_C) * STEP_C

    @property
    def reason(self) -> str:
        """Why so hot, in few words."""
        return f"{self.word}: {self.note}" if self.note else self.word


class PreheatView(Struct, frozen=True):
    """All that is asked, what it was worked out from, what governs and why, and what is chosen [°C]."""

    asks: tuple[Ask, ...]
    told: tuple[Told, ...]
    sentences: tuple[str, ...]
    wants: tuple[Family, ...]
    governing: Ask | None
    chosen_c: float | None
    interpass_c: float | None
    usual_interpass: tuple[float, float] | None
    unstated: tuple[str, ...] = ()  # what was taken for granted
    worst: Ask | None = None  # what governs if all of that is as bad as it can be
    doubt: str = ""  # of which side nothing is known
    takes: Ask | None = None  # what governs in the thickest metal that is stated
    code_interpass: tuple[str, float] | None = None  # the most between passes that the stated code allows, and its name

    def verdict(self, system: System = "si") -> tuple[str, str]:
        """Return whether the chosen preheat is what is asked: a verdict, and a sentence in the reader's scale."""
        if self.wants and all(each.preheat == "none" for each in self.wants):
            verdict, text = self._of_soft(system)
        elif self.governing is None or self.governing.high_c is None:
            text = "No school holds here: see what is missing, or out of its range."
            verdict, text = ("unproven", text) if self.asks else ("", "")
        else:
            verdict, text = self._of_hard(self.governing, self.governing.high_c, system)
        return ("unproven", self.doubt) if verdict == "inside" and self.doubt else (verdict, text)

    def _of_hard(self, governing: Ask, asked_c: float, system: System) -> tuple[str, str]:
        """Return the verdict on a preheat that is asked: below a code it is outside, below a school not shown."""
        asked = degrees(asked_c, system)
        if self.chosen_c is None:
            return "unproven", f"No preheat is chosen: {governing.word} asks {asked}."
        if self.interpass_c is not None and self.interpass_c < self.chosen_c:
            return "outside", "The preheat is over the most between passes: no pass could start."
        if self.chosen_c + 0.5 < asked_c:
            text = (
                f"{governing.word} asks {asked}, {degrees_more(asked_c - self.chosen_c, system)} more than is chosen."
            )
            return "unproven" if governing.kind == "school" else "outside", text
        chosen = degrees(self.chosen_c, system)
        if self.worst is not None and (self.worst.high_c or 0.0) > self.chosen_c + 0.5:
            at_worst = f"at worst {self.worst.word} asks {degrees(self.worst.high_c or 0.0, system)}"
            *others, last = self.unstated
            taken = f"{', '.join(others)} and {last}" if others else last
            text = f"{chosen} is enough ({governing.word}, {asked}) only if {taken}"
            return "unproven", f"{text}, which nothing shows; {at_worst}."
        return "inside", f"The chosen {chosen} is what {governing.word} asks, {asked}, or more."

    def _of_soft(self, system: System) -> tuple[str, str]:
        """Return the verdict on metals that do not harden: nothing is asked, and not much is borne."""
        most = min((each.most_c for each in self.wants if each.most_c is not None), default=None)
        code = max(
            (a.high_c or 0.0 for a in self.asks if self.governing is not None and a.id == self.governing.id),
            default=0.0,
        )
        if self.chosen_c is not None and most is not None and self.chosen_c > most + 0.5:
            chosen = degrees(self.chosen_c, system)
            return "unproven", f"{chosen} is over the {degrees(most, system)} that this metal is warmed to at most."
        if self.chosen_c is not None and self.chosen_c + 0.5 < code:
            return "outside", f"The code asks {degrees(code, system)} for every metal."
        return "inside", "No preheat is asked of this metal but to be dry."

    def interpass_verdict(self, system: System = "si") -> tuple[str, str]:
        """Return whether the most between passes is usual for the metals: a verdict, and a sentence."""
        if self.code_interpass is not None and self.interpass_c is not None:
            word, most = self.code_interpass
            if self.interpass_c > most + 0.5:
                text = f"{degrees(self.interpass_c, system)} between passes is over what {word} allows"
                return "outside", f"{text}, {degrees(most, system)}."
            if self.usual_interpass is None:
                within = f"{degrees(self.interpass_c, system)} between passes is within what {word} allows"
                return "inside", f"{within}, {degrees(most, system)}."
        if self.usual_interpass is None:
            return "", ""
        span = degrees_span(self.usual_interpass, system)
        if self.interpass_c is None:
            return "unproven", f"No most between passes is stated; usual {span}."
        stated = degrees(self.interpass_c, system)
        if self.interpass_c > self.usual_interpass[1] + 0.5:
            return "unproven", f"{stated} between passes is over what is usual, {span}."
        return "inside", f"{stated} between passes is usual for this metal: {span}."
