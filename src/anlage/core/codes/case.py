"""One procedure as it is judged: the sets of each deposit, what does not concern it, and what a deposit rests on."""

from collections.abc import Mapping
from types import MappingProxyType

from msgspec import Struct

from anlage.core.codes.asking import wanted
from anlage.core.codes.box import Allowance, CoverBox
from anlage.core.codes.candidates import Boxes, Candidate
from anlage.core.codes.facts import Demand, deposit_labels
from anlage.core.codes.pack import Pack
from anlage.core.codes.stated import Stated, StatedDeposit, StatedPass, several_of
from anlage.core.ranges import Choices, Range, union

NOWHERE: Mapping[str, StatedPass] = MappingProxyType({})


class Support(Struct, frozen=True):
    """What one deposit rests on: the allowances it is judged by and the records they come from."""

    allowances: Mapping[str, Allowance]
    records: tuple[str, ...]
    covered: bool
    places: frozenset[tuple[str, int]] = frozenset()  # the deposits of records that it rests on
    box: CoverBox | None = None  # of the one record that it rests on
    detail: str = ""  # the joint without a record that it rests on, in place of records
    at: Mapping[str, StatedPass] = NOWHERE  # the pass that gives the verdict on a variable asked of each pass itself


class Case(Struct, frozen=True):
    """One WPS against its candidate records: per deposit its label and the sets it is judged by."""

    pack: Pack
    deposits: tuple[StatedDeposit, ...]
    labels: tuple[str, ...]
    sets: list[dict[str, Range]]
    beside: list[frozenset[str]]  # variables that do not concern it
    boxes: Boxes
    demand: Demand
    clashes: tuple[Mapping[str, str], ...]
    remarks: Mapping[str, str]  # by record
    members: tuple[Mapping[str, Range], ...] = ()

    def near(self, index: int) -> list[Candidate]:
        """Return the candidates that could carry a deposit, alone or with others, by rank."""
        return self.boxes.near(self.sets[index], self.beside[index], self.pack.combination.spare)


def case_of(pack: Pack, stated: Stated, boxes: Boxes) -> Case:
    """Return a procedure as it is judged by a code from some boxes."""
    sets = [_sets(stated, deposit, pack) for deposit in stated.deposits]
    several = [several_of(pack, own, deposit) for own, deposit in zip(sets, stated.deposits, strict=True)]
    unsaid = [(own, {**stated.clashes, **each.clashes}) for own, each in zip(sets, stated.deposits, strict=True)]
    beside = [frozenset(v for v in pack.optional if v not in own and v not in told) for own, told in unsaid]
    labels = deposit_labels([deposit.process for deposit in stated.deposits])
    clashes = tuple(
        {**told, **stated.clashes, **deposit.clashes} for told, deposit in zip(several, stated.deposits, strict=True)
    )
    sets = [
        {name: each for name, each in own.items() if name not in told} for own, told in zip(sets, several, strict=True)
    ]
    remarks = {box.record: f"{box.record} was {box.coupon.remark}" for box in boxes.boxes if box.coupon.remark}
    return Case(
        pack, stated.deposits, labels, sets, beside, boxes, stated.demand, clashes, remarks, stated.members
    )  # fmt: skip


def _sets(stated: Stated, deposit: StatedDeposit, pack: Pack) -> dict[str, Range]:
    """Return every set a deposit is judged by: its own, its passes' united, and the joint's."""
    united: dict[str, Range] = {}
    for variable in {name for each in deposit.passes for name in each.sets}:
        parts = [each.sets.get(variable) for each in deposit.passes]
        stated_in_all = [part for part in parts if part is not None]
        if len(stated_in_all) == len(parts):
            united[variable] = union({id(part): part for part in stated_in_all}.values())
    own = {**stated.joint, **deposit.sets, **united, "process": Choices(frozenset((deposit.process,)))}
    clashes = {**stated.clashes, **deposit.clashes}
    return {variable: own[variable] for variable in wanted(pack) if variable in own and variable not in clashes}
