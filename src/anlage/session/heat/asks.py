"""What schools and codes ask, what they were told, and whether the chosen temperatures are that."""

from typing import Literal

from msgspec import Struct

from anlage.core.metal.families import Family
from anlage.core.quantities.units import System
from anlage.session.heat.scales import degrees, degrees_more, degrees_span, length_text

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
    nothing, and `note` says why; `between_c` is the most between passes that a code allows [°C].
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
    between_c: float | None = None
    is_binding: bool = True  # of a code: it requires that, and does not merely advise it

    def noted(self, system: System) -> str:
        """Return what is to be said of it in the reader's scale."""
        between = "" if self.between_c is None else f"at most {degrees(self.between_c, system)} between passes"
        return "; ".join(filter(None, (self.note, between)))

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
    code_interpass: Ask | None = None  # what the stated code says of the most between passes, in `between_c`
    thicker_mm: tuple[float, float] | None = None  # the drawn thickness, and the thickest stated where that is more

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
            return "unproven" if governing.kind == "school" or not governing.is_binding else "outside", text
        chosen = degrees(self.chosen_c, system)
        if self.worst is not None and (self.worst.high_c or 0.0) > self.chosen_c + 0.5:
            at_worst = f"at worst {self.worst.word} asks {degrees(self.worst.high_c or 0.0, system)}"
            *others, last = (*self.unstated, *self._of_thicker(system))
            taken = f"{', '.join(others)} and {last}" if others else last
            text = f"{chosen} is enough ({governing.word}, {asked}) only if {taken}"
            return "unproven", f"{text}, which nothing shows; {at_worst}."
        return "inside", f"The chosen {chosen} is what {governing.word} asks, {asked}, or more."

    def _of_thicker(self, system: System) -> tuple[str, ...]:
        """Return that no metal is over what is drawn, where the procedure is stated for thicker."""
        if self.thicker_mm is None:
            return ()
        drawn, most = (length_text(each, system) for each in self.thicker_mm)
        return (f"no metal is over the drawn {drawn}, not {most} as the procedure is stated for",)

    def _of_soft(self, system: System) -> tuple[str, str]:
        """Return the verdict on metals that do not harden: nothing is asked, and not much is borne."""
        most = min((each.most_c for each in self.wants if each.most_c is not None), default=None)
        asked = [a for a in self.asks if self.governing is not None and a.id == self.governing.id]
        code = max((a.high_c or 0.0 for a in asked), default=0.0)
        if self.chosen_c is not None and most is not None and self.chosen_c > most + 0.5:
            chosen = degrees(self.chosen_c, system)
            return "unproven", f"{chosen} is over the {degrees(most, system)} that this metal is warmed to at most."
        if self.chosen_c is not None and self.chosen_c + 0.5 < code:
            is_bound = all(a.is_binding for a in asked)
            return "outside" if is_bound else "unproven", f"The code asks {degrees(code, system)} for every metal."
        return "inside", "No preheat is asked of this metal but to be dry."

    def interpass_verdict(self, system: System = "si") -> tuple[str, str]:
        """Return whether the most between passes is usual for the metals: a verdict, and a sentence."""
        code = self.code_interpass
        if code is not None and code.between_c is not None and self.interpass_c is not None:
            word, most = code.word, code.between_c
            if self.interpass_c > most + 0.5:
                text = f"{degrees(self.interpass_c, system)} between passes is over what {word} allows"
                return "outside" if code.is_binding else "unproven", f"{text}, {degrees(most, system)}."
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
