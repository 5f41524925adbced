"""A whole procedure to start from: what is not stated is proposed, with its reason; what is unknown stays empty."""

from collections.abc import Callable, Sequence
from typing import Any, Final

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.catalogue import BaseMetal
from anlage.core.document import Dimension, Proposed, at, with_, with_at
from anlage.core.errors import AnlageError, InputError
from anlage.core.joint import MAKES
from anlage.core.procedure import Deposit, Metal, Wps, with_deposit
from anlage.core.proposal import DepositRow, DraftRow, Facts
from anlage.core.proposal.first_draft import ProcessRow
from anlage.core.quantities.units import System
from anlage.core.ranges import Interval
from anlage.data.drafts_table import drafts
from anlage.data.tables import catalogue
from anlage.session.leaves.marks import known_marks
from anlage.session.leaves.names import named
from anlage.session.leaves.pipe_names import true_pipe_name, with_pipe
from anlage.session.leaves.table import field_of
from anlage.session.leaves.text import shown, with_text
from anlage.session.proposal.fill import Filled, proposed_fill
from anlage.session.weld.places import goes, whereabouts

JOINT: Final = "joint"
LISTED: Final = "/*/"  # in the leaf of a word that every deposit states
PLAIN = frozenset(("carbon-manganese", "fine-grain"))  # steels that one filler joins, where it is usual for each
GAS_LEAVES: Final = (
    ("gas", "flow_l_min", "shielding_gas", "gas_flow_l_min"),
    ("backing_gas", "purge_l_min", "backing_gas", "backing_flow_l_min"),
)


class Drafted(Struct, frozen=True):
    """A procedure whose empty leaves were proposed, and what is to be said of it, each a sentence."""

    wps: Wps
    said: tuple[str, ...]


def drafted(wps: Wps, processes: Sequence[str] = (), fill: Callable[[Wps], Filled] = proposed_fill) -> Drafted:
    """Return a procedure in which what is not stated is proposed, as far as it is known.

    What is stated stays. Heat treatment, code and the ranges that a procedure is for are not proposed; temperatures
    are by `session/draft/temperatures.py`, which knows what asks for them.

    Parameters
    ----------
    wps : what is stated so far: metals, product, thickness or pipe size, position
    processes : those that lay the weld, the root's first; none: as its deposits say, else the usual ones
    fill : fills the joint with passes

    Raises
    ------
    InputError : product or thickness is not stated
    """
    return _Drafting(wps, processes).whole(fill)


class _Drafting:
    """One draft in the making."""

    def __init__(self, wps: Wps, processes: Sequence[str]) -> None:
        for path, words in (("joint/product", "plate or pipe"), ("joint/thickness_mm", "the thickness")):
            if at(wps, path) is None:
                raise InputError(f"{words} is not stated", where=path, mend="state it, a draft hangs on it")
        self.wps, self.asked = wps, tuple(processes)
        self.said: list[str] = []
        self.marks: dict[str, Proposed] = {}
        self._process_row: ProcessRow | None = None
        self.one, self.other = base_metal(wps.metals.one), base_metal(wps.metals.other or wps.metals.one)
        self.facts = self._facts()

    def _facts(self) -> Facts:
        wps, metal = self.wps, self.one
        return Facts(
            product=wps.joint.product or "", weld=wps.header.weld or "", place=whereabouts(wps).place,
            thickness_mm=wps.joint.thickness_mm, family=metal.family if metal else "",
            p_number=metal.p_number if metal else wps.metals.one.p_number or "",
            code=(wps.header.code or "").partition(":")[0],
            uns=metal.uns_or_en if metal else "", smts_mpa=metal.smts_mpa if metal else None,
        )  # fmt: skip

    def whole(self, fill: Callable[[Wps], Filled]) -> Drafted:
        """Return the whole draft."""
        self._words(("technique/progression",))
        self.facts = self._facts()
        processes = self._processes()
        self.facts = replace(self.facts, first=processes[0] if processes else "")
        self._joint()
        make = MAKES[self.wps.joint.kind] if self.wps.joint.kind else None
        self.facts = replace(self.facts, open_root=make.is_open if make else None)
        self._deposits(processes)
        self._words(())
        done = with_(self.wps, proposed={**self.wps.proposed, **self.marks})
        try:
            found = fill(done) if not done.passes and done.deposits else None
        except AnlageError as fault:
            without_od = self.wps.joint.product == "pipe" and self.wps.joint.od_mm is None
            self.said.append(f"No passes: {'the outside diameter is not stated' if without_od else fault}.")
            found = None
        said = self.said if found is None else [*self.said, *found.said]
        return Drafted(done if found is None else found.wps, tuple(dict.fromkeys(said)))

    def _propose(self, path: str, value: Any, row: DraftRow) -> None:
        """State a leaf that is not stated, marked with its reason."""
        if at(self.wps, path) is not None or value in (None, ""):
            return
        self.wps = with_at(self.wps, path, value)
        table = drafts()
        self.marks[path] = Proposed(reason=row.why, confidence=row.confidence or table.confidence)

    def _words(self, leaves: Sequence[str]) -> None:
        for row in drafts().word:
            if LISTED not in row.leaf and self.facts.hold(row.when) and (not leaves or row.leaf in leaves):
                self._propose(row.leaf, row.say, row)

    def _processes(self) -> tuple[str, ...]:
        """Return the processes that lay the weld: as asked for, as stated, else the usual ones."""
        if self.asked:
            return self.asked
        stated = tuple(each.process for each in self.wps.deposits if each.process)
        if stated:
            return stated
        row = self.facts.first_of(drafts().process)
        if row is None:
            self.said.append("No usual process is known for this metal and product: state one at Passes.")
            return ()
        self._process_row = row
        return row.take

    def _joint(self) -> None:
        if self.facts.weld not in ("", "groove", "fillet"):
            said = "A joint is drafted for groove welds of full penetration and fillets alone: choose it at Joint."
            self.said.append(said)
            return
        row = self.facts.first_of(drafts().joint)
        if row is None or self.wps.joint.kind not in (None, row.kind):
            return
        self._propose("joint/kind", row.kind, row)
        for name, (nominal, minus, plus) in row.dimensions.items():
            self._propose(f"joint/{name}", Dimension(nominal=nominal, minus=minus, plus=plus), row)
        self._propose("joint/root_style", row.root_style, row)
        self._propose("joint/backing", row.backing, row)

    # Deposits --------------------------------------------------------------------------------

    def _deposits(self, processes: Sequence[str]) -> None:
        if self.wps.deposits and not self.asked:
            for each in self.wps.deposits:
                first = each is self.wps.deposits[0]
                self._fill_in(each, each.process or "", "root" if first else "rest")
            return
        known = {each.process: each for each in self.wps.deposits}
        for n, process in enumerate(processes):
            roles: tuple[str, ...] = ("root", "rest") if len(processes) == 1 else ("root" if n == 0 else "rest",)
            plans = {self._key(process, role): role for role in reversed(roles)}
            for role in reversed(plans.values()):
                deposit = known.get(process)
                if deposit is None:
                    self.wps, own = with_deposit(self.wps)
                    deposit = next(each for each in self.wps.deposits if each.id == own)
                self._fill_in(deposit, process, role)

    def _key(self, process: str, role: str) -> tuple[Any, ...]:
        """Return what tells two deposits of a process apart: filler and size."""
        facts = replace(self.facts, process=process, role=role)
        filler, row = self._filler(facts), facts.first_of(drafts().deposit)
        return filler and filler[0], row and row.size_mm

    def _fill_in(self, deposit: Deposit, process: str, role: str) -> None:
        facts = replace(self.facts, process=process, role=role)
        path = f"deposits/{deposit.id}"
        filler = self._filler(facts)
        row = replace(facts, filler=deposit.filler or (filler[0] if filler else "")).first_of(drafts().deposit)
        if process and deposit.process is None and self._process_row is None:
            self.wps = with_at(self.wps, f"{path}/process", process)  # asked for: nobody has to confirm it
        elif process and self._process_row is not None:
            self._propose(f"{path}/process", process, self._process_row)
        if filler is not None:
            self._propose(f"{path}/filler", *filler)
        elif deposit.filler is None:
            metals = " and ".join(dict.fromkeys(
                each.name or "the metal" for each in (self.wps.metals.one, self.wps.metals.other) if each
            ))  # fmt: skip
            self.said.append(
                f"No usual filler of {process or 'the process'} is known for {metals}: state it at Passes."
            )
        if row is not None:
            self._state(path, row, sized=filler is not None or deposit.filler is not None)
        for word in drafts().word:
            if word.leaf.startswith("deposits/") and facts.hold(word.when):
                self._propose(word.leaf.replace(LISTED, f"/{deposit.id}/"), word.say, word)

    def _state(self, path: str, row: DepositRow, *, sized: bool) -> None:
        """Propose what a row says of a deposit; its size only for a filler that is known."""
        if sized:
            self._propose(f"{path}/filler_diameter_mm", Interval.single(row.size_mm), row)
        self._propose(f"{path}/current_type", row.current_type, row)
        self._propose(f"{path}/transfer_mode", row.transfer_mode, row)
        self._propose(f"{path}/tungsten", row.tungsten, row)
        for name, own, leaf, flow in GAS_LEAVES:
            gas, rate = getattr(row, name), getattr(row, own)
            if name == "backing_gas" and not self.facts.open_root:
                continue
            self._propose(f"{path}/{leaf}", gas, row)
            if gas and gas != "none" and at(self.wps, f"{path}/{leaf}") == gas:
                self._propose(f"{path}/{flow}", Interval(*rate) if rate else _flow(gas), row)

    def _filler(self, facts: Facts) -> tuple[str, DraftRow] | None:
        """Return the usual filler of the metals, with the row that says so."""
        one, other = self.one, self.other
        if one is None or other is None:
            return None
        if one.family == other.family or {one.family, other.family} <= PLAIN:
            going = tuple(row for row in drafts().filler if goes(catalogue().filler(row.take), facts.place))
            found = facts.first_of(going)
            beside = replace(facts, p_number=other.p_number, uns=other.uns_or_en, smts_mpa=other.smts_mpa)
            same = beside.first_of(going)
            return (found.take, found) if found and same and found.take == same.take else None
        families = {one.family, other.family}
        for row in drafts().pair:
            is_meant = set(row.families) == families and facts.hold(row.when)
            if is_meant and goes(catalogue().filler(row.take), facts.place):
                return row.take, row
        return None


def with_size(wps: Wps, size: str, diameter: str, system: System) -> Wps:
    """Return a procedure with what was typed as a thickness, or as a pipe's nominal size and schedule, and a diameter.

    Raises
    ------
    InputError : a text is no thickness and no pipe, or no diameter
    """
    if size and (pipe := with_pipe(wps, size)) is not None:
        return pipe if pipe.joint.product else with_at(pipe, "joint/product", "pipe")
    if size:
        wps = with_text(wps, "joint/thickness_mm", size, system)
    return with_text(wps, "joint/od_mm", diameter, system) if diameter else wps


def size_texts(wps: Wps, system: System) -> tuple[str, str]:
    """Return thickness, or pipe by its name, and diameter as they would be typed."""
    if name := true_pipe_name(wps.joint):
        return name, ""
    return shown(wps, "joint/thickness_mm", system), shown(wps, "joint/od_mm", system)


def base_metal(metal: Metal) -> BaseMetal | None:
    """Return what the catalogue knows of a metal; `None` where it does not have it."""
    return catalogue().base_metal(metal.name) if metal.name else None


def _flow(gas: str) -> Interval | None:
    row = catalogue().gas(gas)
    if row.flow_min_l_min is None or row.flow_max_l_min is None:
        return None
    return Interval(row.flow_min_l_min, row.flow_max_l_min)


def proposals(wps: Wps, system: System) -> tuple[tuple[str, str, str], ...]:
    """Return every leaf that is only proposed but settings of passes: what it is called, what it says, and why."""
    found = []
    for path in known_marks(wps):
        if path.startswith("passes/"):
            continue
        field = field_of(path)
        text = f"{field.say(shown(wps, path, system))} {field.unit(system)}".strip()
        found.append((named(wps, path), text, f"{wps.proposed[path].reason} ({wps.proposed[path].confidence})"))
    return tuple(found)
