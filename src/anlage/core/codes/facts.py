"""What a rule is asked about: the facts of a coupon and the demand it is judged for.

Glossary
--------
fact : one recorded value of the coupon, a number or a token, named like the variable it belongs to
demand : what the WPS asks of any record (weld kind, toughness, hardness, judging units), and nothing else of it
deposit : the passes that share process, filler classification and transfer mode
assumed fact : not recorded, taken for granted in conditions only, and named in the answer
clash : two statements of one fact that disagree; the fact is none, and the sentence that says so stands for it
"""

from collections.abc import Iterable, Mapping
from types import MappingProxyType

from msgspec import Struct, field

from anlage.core.errors import InputError
from anlage.core.quantities.units import System
from anlage.core.ranges import Range


class Measured(Struct, frozen=True):
    """A recorded number with its least, mean and most value; percentage rules act on the mean.

    `sure` is the highest value that was surely reached, where `most` is only what may have been: extremes of several
    quantities need not belong together.
    """

    least: float
    mean: float
    most: float
    sure: float | None = None

    def times(self, factor: float) -> "Measured":
        """Return every number of it times a factor above 0."""
        sure = None if self.sure is None else self.sure * factor
        return Measured(self.least * factor, self.mean * factor, self.most * factor, sure)


Fact = float | str | frozenset[str] | Measured | Range

EMPTY: Mapping[str, Fact] = MappingProxyType({})
EMPTY_WORDS: Mapping[str, str] = MappingProxyType({})


class Demand:
    """What is asked of a record, by the pack's own demands: the key under which boxes are kept.

    Parameters
    ----------
    units : the column that limits are judged in
    unsaid : demands of which nobody says whether they are made: every rule that hangs on one has two readings
    asked : the answer to each demand, a word, or true and false for yes and no; else the pack's default holds
    """

    __slots__ = ("asked", "units", "unsaid")

    def __init__(
        self,
        *,
        units: System = "si",
        unsaid: Iterable[str] = (),
        **asked: str | bool | None,
    ) -> None:
        words = {name: _word(value) for name, value in sorted(asked.items()) if value is not None}
        self.units: System = units
        self.unsaid = frozenset(unsaid)
        self.asked: Mapping[str, str] = MappingProxyType(words)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Demand) and self._key() == other._key()

    def __hash__(self) -> int:
        return hash((self.units, self.unsaid, *self.asked.items()))

    def __repr__(self) -> str:
        words = ", ".join(f"{name}={word!r}" for name, word in self.asked.items())
        return f"Demand(units={self.units!r}, unsaid={sorted(self.unsaid)}, {words})"

    def _key(self) -> tuple[object, ...]:
        return self.units, self.unsaid, self.asked

    def asks_for(self, name: str) -> bool:
        """Return whether a demand of yes or no is made."""
        return self.asked.get(name) == "yes"

    def as_facts(self) -> dict[str, Fact]:
        """Return what is asked as facts a condition can ask for."""
        return dict(self.asked)


class Coupon(Struct, frozen=True, kw_only=True):
    """The recorded facts of one test weld: of the joint, and of each deposit in order.

    `toughness_tested` is False when it is known that no impact results exist, and `None` where nobody says, as of
    hardness; `clashes`
    says of facts that are none because the record contradicts itself, and of `deposit_clashes` by deposit, why.
    """

    name: str
    joint: Mapping[str, Fact]
    deposits: tuple[Mapping[str, Fact], ...]
    assumed: Mapping[str, Fact] = field(default_factory=lambda: EMPTY)
    toughness_tested: bool | None = None
    hardness_tested: bool | None = None
    remark: str = ""  # what was said against its results
    clashes: Mapping[str, str] = field(default_factory=lambda: EMPTY_WORDS)
    deposit_clashes: tuple[Mapping[str, str], ...] = ()

    def __post_init__(self) -> None:
        thickness = self.joint.get("base_metal_thickness_mm")
        laid = [deposit.get("deposit_thickness_mm") for deposit in self.deposits]
        if not isinstance(thickness, float) or not all(isinstance(each, float) for each in laid):
            return
        total = sum(each for each in laid if isinstance(each, float))
        if total - thickness > max(0.5, 0.02 * thickness):
            what = f"deposits add up to {total:g} mm in a coupon of {thickness:g} mm"
            raise InputError(what, where="deposit", mend="state the deposits without reinforcement")


class Facts(Struct, frozen=True):
    """The facts that one rule sees: those of a deposit before those of the joint before the demand's."""

    values: Mapping[str, Fact]
    assumed: Mapping[str, Fact]
    clashes: Mapping[str, str] = EMPTY_WORDS

    def get(self, name: str) -> Fact | None:
        """Return a recorded fact, or `None` when it was not recorded."""
        return self.values.get(name)

    def get_for_condition(self, name: str) -> Fact | None:
        """Return a recorded or else an assumed fact."""
        found = self.values.get(name)
        return self.assumed.get(name) if found is None else found


def joint_facts(coupon: Coupon, demanded: Mapping[str, Fact]) -> Facts:
    """Return what a rule of scope joint sees; its `process` is the set of all processes of the coupon."""
    processes = frozenset(str(deposit["process"]) for deposit in coupon.deposits)
    return Facts({**demanded, **coupon.joint, "process": processes}, coupon.assumed, coupon.clashes)


def deposit_facts(coupon: Coupon, index: int, demanded: Mapping[str, Fact]) -> Facts:
    """Return what a rule of scope deposit or pass sees of one deposit."""
    own = coupon.deposit_clashes[index] if index < len(coupon.deposit_clashes) else EMPTY_WORDS
    values = {**demanded, **coupon.joint, **coupon.deposits[index]}
    return Facts(values, coupon.assumed, {**coupon.clashes, **own} if own else coupon.clashes)


def deposit_labels(processes: list[str]) -> tuple[str, ...]:
    """Return the name of each deposit: its process, numbered where a process comes more than once.

    Examples
    --------
    >>> deposit_labels(["GTAW", "SMAW", "SMAW"])
    ('GTAW', 'SMAW-1', 'SMAW-2')
    """
    seen: dict[str, int] = {}
    labels = []
    for process in processes:
        seen[process] = seen.get(process, 0) + 1
        labels.append(process if processes.count(process) == 1 else f"{process}-{seen[process]}")
    return tuple(labels)


def pair_token(one: str, other: str) -> str:
    """Return the token of two metals that are joined: both ends with a plus, the higher group first.

    Examples
    --------
    >>> pair_token("1", "5A"), pair_token("10H", "8"), pair_token("1-1", "1-2")
    ('5A+1', '10H+8', '1-2+1-1')
    """
    return "+".join(sorted((one, other), key=_group_order, reverse=True))


def _group_order(group: str) -> tuple[tuple[int, str], ...]:
    order = []
    for part in group.split("-"):
        digits = "".join(c for c in part if c.isdigit())
        order.append((int(digits or 0), part))
    return tuple(order)


def _word(value: str | bool) -> str:  # noqa: FBT001 - one flag into one word
    return value if isinstance(value, str) else "yes" if value else "no"
