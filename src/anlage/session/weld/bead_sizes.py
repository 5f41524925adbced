"""How large the beads of a procedure come out by role, which deposit lays which of them; and how many fill a joint."""

import math
from collections.abc import Mapping, Sequence
from functools import lru_cache
from types import MappingProxyType
from typing import Final

from msgspec import Struct
from msgspec.structs import replace

from anlage.core.beads import Size, fill
from anlage.core.document import with_
from anlage.core.errors import InputError
from anlage.core.joint import Preparation, shape_of
from anlage.core.procedure import Deposit, Wps
from anlage.core.proposal import Circumstances, Narrow, Proposal
from anlage.data.usual_table import usual_table
from anlage.session.weld.bead_areas import filler_of
from anlage.session.weld.usual import proposal_for, where_of

LAID: Final = ("root", "hot", "fill", "cap", "back", "buttering")  # roles that a fill lays
ELECTRODE_MM = 3.2  # taken where no size is stated; own choice
ROOM: Final = (0.75, 1.3)  # of a bead that stated settings lay: a joint is split into beads as near to it; own choice


class Plan(Struct, frozen=True):
    """The deposits in the order in which they are used, and how the beads of each come out.

    `narrow` says of some deposits, by id, how far the settings of their passes may lie apart.
    """

    deposits: tuple[Deposit, ...]
    sizes: tuple[Size, ...]
    narrow: Mapping[str, Narrow] = MappingProxyType({})

    def narrowed(self, narrow: Mapping[str, Narrow], share: float) -> "Plan":
        """Return the same where all beads of some deposits are of one size, a share of their usual one."""
        sizes = tuple(
            _even(size, share) if deposit.id in narrow else size
            for deposit, size in zip(self.deposits, self.sizes, strict=True)
        )
        return Plan(self.deposits, sizes, narrow)

    def loosened(self) -> "Plan":
        """Return the same where beads may come out a little smaller or larger than stated settings lay them."""
        return Plan(self.deposits, tuple(
            replace(size, is_fixed=False, roles=tuple((role, replace(own, is_fixed=False)) for role, own in size.roles))
            for size in self.sizes
        ))  # fmt: skip


def _even(size: Size, share: float) -> Size:
    """Return the size of a filler that lays every bead alike, whatever it is for."""
    by = math.sqrt(share)
    return replace(size, pitch_mm=by * size.pitch_mm, height_mm=by * size.height_mm, is_fixed=True, roles=(),
                   least_mm2=0.0, most_mm2=None)  # fmt: skip


def bead_counts(wps: Wps, joints: Sequence[Preparation]) -> tuple[int | None, ...]:
    """Return how many beads fill each joint at the sizes of a procedure's deposits.

    `None` without any deposit, and where there are more than are laid one by one.
    """
    if not wps.deposits:
        return (None,) * len(joints)
    sizes = plan_of(wps).sizes
    return tuple(_count(each, sizes) for each in joints)


@lru_cache(maxsize=16)
def _count(joint: Preparation, sizes: tuple[Size, ...]) -> int | None:
    try:
        return len(fill(shape_of(joint), sizes, over_land_mm=usual_table().root.over_land_mm))
    except InputError:
        return None


def plan_of(wps: Wps) -> Plan:
    """Return which deposit lays what: in the order of their passes, else as they are listed."""
    deposits = _in_order(wps)
    sizes = [_size_of(wps, each, is_last=each is deposits[-1]) for each in deposits]
    return Plan(deposits, tuple(sizes))


def _in_order(wps: Wps) -> tuple[Deposit, ...]:
    """Return the deposits by their first whole pass; one without a pass stays behind the one listed before it."""
    firsts: dict[str, float] = {}
    for n, each in enumerate(wps.passes):
        if each.reach is None:
            firsts.setdefault(each.deposit, n)
    keys, last = [], -1.0
    for place, deposit in enumerate(wps.deposits):
        last = firsts.get(deposit.id, last + 1e-3)
        keys.append((last, place))
    return tuple(wps.deposits[place] for _, place in sorted(keys))


def _size_of(wps: Wps, deposit: Deposit, *, is_last: bool) -> Size:
    """Return how the beads of a deposit come out, role by role."""
    reach = None if is_last or deposit.thickness_mm is None else deposit.thickness_mm.high
    sizes = {role: _role_size(wps, deposit, role) for role in LAID}
    return replace(sizes["fill"], reach_mm=reach, layers=_layers(wps, deposit, is_last=is_last),
                   roles=tuple((role, size) for role, size in sizes.items() if size != sizes["fill"]))  # fmt: skip


def _layers(wps: Wps, deposit: Deposit, *, is_last: bool) -> int | None:
    """Return how many layers a deposit lays: by the roles of its passes, else by what is usual before the next one."""
    roles = {each.role for each in wps.passes if each.deposit == deposit.id and each.reach is None} - {None}
    if len(wps.deposits) > 1 and is_last and roles == {"cap"}:
        return 0
    if roles and roles <= {"root", "hot"}:
        return len(roles)
    place = where_of(wps, deposit).place
    filler = filler_of(deposit)
    at = Circumstances(process=deposit.process or "", family=filler.family if filler else "", place=place)
    row = at.first_of(usual_table().first)
    first = bool(wps.deposits) and deposit is _in_order(wps)[0]
    return row.layers if row and first else None


def proposal_or_none(wps: Wps, deposit: Deposit, role: str) -> Proposal | None:
    """Return what is usual for a role, wherever it is laid: flat where the stated position cannot be."""
    try:
        return proposal_for(wps, deposit, role)
    except InputError:
        flat = with_(wps, technique=with_(wps.technique, position=None))
    try:
        return proposal_for(flat, deposit, role)
    except InputError:
        return None


def _role_size(wps: Wps, deposit: Deposit, role: str) -> Size:
    weave = wps.technique.bead_technique == "weave" and role in ("fill", "cap")
    limits = [wps.seam.weave_limit_mm]
    diameter = deposit.filler_diameter_mm
    proposal = proposal_or_none(wps, deposit, role)
    if proposal is None:
        size = Size.of_electrode((diameter.low + diameter.high) / 2 if diameter else ELECTRODE_MM)
        return replace(size, weave=weave, weave_limit_mm=wps.seam.weave_limit_mm)
    least, most = proposal.sections(weave=weave)
    is_fixed = most - least < 1e-6  # its settings are stated
    if is_fixed:
        least, most = (share * least for share in ROOM)
    widest = min((limit for limit in (*limits, proposal.widest_mm) if limit is not None), default=None)
    pitch = proposal.cap_pitch_mm if role == "cap" else proposal.pitch_mm
    return Size(pitch_mm=pitch, height_mm=proposal.settings.area_mm2 / proposal.pitch_mm, weave=weave,
                weave_limit_mm=widest, least_mm2=least, most_mm2=most, is_fixed=is_fixed)  # fmt: skip
