"""The welding procedure specification: one frozen value; every quantity may be `None`, not stated."""

from collections.abc import Iterable, Mapping
from typing import Any, Final, Literal

import msgspec

from anlage.core.document import (
    DocumentKind,
    Element,
    OpenSpan,
    Part,
    Proposed,
    Text,
    as_it_is,
    check_ids,
    mend_ids,
    next_id,
    with_,
)
from anlage.core.errors import InputError
from anlage.core.procedure.parts import (
    After,
    Deposit,
    Header,
    HoldPoint,
    Joint,
    Metals,
    NodeMember,
    Pass,
    Piece,
    Preheat,
    Purge,
    Pwht,
    Reading,
    Seam,
    Sector,
    Station,
    Tack,
    Technique,
    with_codes,
)
from anlage.core.results import Notice

FORMAT: Final = "anlage-wps"
VERSION: Final = 10
LISTS: Final = ("deposits", "passes", "hold_points", "members", "tacks", "stations", "sectors", "readings")


class StatedRange(Part):
    """What the procedure is stated for [mm]: base metal, the thicker of unequal members, pipe diameters.

    Each may be without end, as diameters from a least one on usually are.
    """

    thickness_mm: OpenSpan | None = None
    thicker_member_mm: OpenSpan | None = None
    diameter_mm: OpenSpan | None = None


class Revision(Part):
    """What was said when a revision was issued: what changed, and why it was issued although it is not all inside.

    `verdict` is how it stood by its code then. It stands in revisions alone, never in a draft.
    """

    change: Text | None = None
    reason: Text | None = None
    verdict: Literal["inside", "outside", "unproven"] | None = None


class Wps(Part):
    """A procedure. A new one is valid; `ids` counts the ids given so far, so that none is used again."""

    format: Literal["anlage-wps"] = FORMAT
    version: Literal[10] = VERSION
    header: Header = Header()
    revision: Revision = Revision()
    range: StatedRange = StatedRange()
    metals: Metals = Metals()
    joint: Joint = Joint()
    preheat: Preheat = Preheat()
    piece: Piece = Piece()
    purge: Purge = Purge()
    pwht: Pwht = Pwht()
    after: After = After()
    technique: Technique = Technique()
    seam: Seam = Seam()
    deposits: tuple[Deposit, ...] = ()
    passes: tuple[Pass, ...] = ()
    hold_points: tuple[HoldPoint, ...] = ()
    members: tuple[NodeMember, ...] = ()
    tacks: tuple[Tack, ...] = ()
    stations: tuple[Station, ...] = ()
    sectors: tuple[Sector, ...] = ()
    readings: tuple[Reading, ...] = ()
    proposed: dict[str, Proposed] = msgspec.field(default_factory=dict)
    ids: int = 0

    def check(self) -> None:
        """Refuse ids that come twice or were never given, passes without a home, sectors of no pass."""
        check_ids([element for name in LISTS for element in getattr(self, name)], self.ids)
        homes = {deposit.id for deposit in self.deposits}
        for each in self.passes:
            if each.deposit not in homes:
                what = f"pass {each.id} belongs to {each.deposit}, which is no deposit"
                raise InputError(what, where="passes", mend="name a deposit")
        known = {each.id for each in self.passes}
        for sector in self.sectors:
            if sector.of not in known:
                what = f"sector {sector.id} belongs to {sector.of}, which is no pass"
                raise InputError(what, where="sectors", mend="name a pass")


def _mend(raw: dict[str, Any]) -> list[Notice]:
    """Leave out what has no id of its own, passes whose deposit is gone, sectors whose pass is gone."""
    notices = mend_ids(raw, LISTS)
    homes = {deposit["id"] for deposit in raw.get("deposits", ())}
    passes, homed = raw.get("passes", []), []
    for each in passes:
        home = each.get("deposit")
        if isinstance(home, str) and home in homes:
            homed.append(each)
        else:
            text = f"pass {each['id']} belongs to no deposit and was left out"
            notices.append(Notice.of("document.part_left_out", f"passes/{each['id']}", text))
    if len(homed) < len(passes):
        raw["passes"] = homed
    kept, known = [], {each["id"] for each in raw.get("passes", ())}
    for sector in raw.get("sectors", []):
        if isinstance(of := sector.get("of"), str) and of in known:
            kept.append(sector)
        else:
            text = f"sector {sector['id']} belongs to no pass and was left out"
            notices.append(Notice.of("document.part_left_out", f"sectors/{sector['id']}", text))
    if len(kept) < len(raw.get("sectors", ())):
        raw["sectors"] = kept
    return notices


_MIGRATIONS: Final = {1: with_codes, **dict.fromkeys(range(2, VERSION), as_it_is)}
WPS = DocumentKind(Wps, FORMAT, VERSION, _MIGRATIONS, mend=_mend)


def deposit_of_pass(wps: Wps, each: Pass) -> Deposit:
    """Return the deposit that a pass belongs to."""
    return next(deposit for deposit in wps.deposits if deposit.id == each.deposit)


def with_deposit(wps: Wps, **stated: object) -> tuple[Wps, str]:
    """Return the procedure with one more deposit at the end, and the new id.

    Raises
    ------
    InputError : a stated value cannot be of its field
    """
    element_id, ids = next_id("d", wps.ids)
    deposit = Deposit.stated(id=element_id, **stated)
    return with_(wps, deposits=(*wps.deposits, deposit), ids=ids), element_id


def with_pass(wps: Wps, deposit: str, *, after: str | None = None, **stated: object) -> tuple[Wps, str]:
    """Return the procedure with one more pass, at the end or after another, and the new id.

    Raises
    ------
    InputError : a stated value cannot be of its field, or there is no such deposit or pass
    """
    if deposit not in {each.id for each in wps.deposits}:
        raise InputError(f"{deposit} is no deposit", where="deposit", mend="add the deposit first")
    element_id, ids = next_id("p", wps.ids)
    new = Pass.stated(id=element_id, deposit=deposit, **stated)
    place = len(wps.passes) if after is None else _place(wps, after) + 1
    return with_(wps, passes=(*wps.passes[:place], new, *wps.passes[place:]), ids=ids), element_id


def with_passes(wps: Wps, passes: Iterable[tuple[str, Mapping[str, object]]]) -> Wps:
    """Return the procedure with more passes at the end, each of a deposit and with what it states.

    Raises
    ------
    InputError : a stated value cannot be of its field, or there is no such deposit
    """
    known, ids, new = {each.id for each in wps.deposits}, wps.ids, []
    for deposit, stated in passes:
        if deposit not in known:
            raise InputError(f"{deposit} is no deposit", where="deposit", mend="add the deposit first")
        element_id, ids = next_id("p", ids)
        new.append(Pass.stated(id=element_id, deposit=deposit, **stated))
    return with_(wps, passes=(*wps.passes, *new), ids=ids)


_ADDED: Final[Mapping[str, tuple[str, type[Element]]]] = {
    "members": ("m", NodeMember),
    "tacks": ("t", Tack),
    "stations": ("s", Station),
    "sectors": ("c", Sector),
    "readings": ("r", Reading),
}


def with_element(wps: Wps, into: str, /, **stated: object) -> tuple[Wps, str]:
    """Return the procedure with one more member, tack, station, sector or reading at the end, and the new id.

    Raises
    ------
    InputError : a stated value cannot be of its field
    """
    letter, kind = _ADDED[into]
    element_id, ids = next_id(letter, wps.ids)
    element = kind.stated(id=element_id, **stated)
    return with_(wps, **{into: (*getattr(wps, into), element), "ids": ids}), element_id


def without_element(wps: Wps, of: str, element_id: str) -> Wps:
    """Return the procedure without an element of a list; the very same one when there is no such element."""
    return with_(wps, **{of: tuple(each for each in getattr(wps, of) if each.id != element_id)})


def without_pass(wps: Wps, pass_id: str) -> Wps:
    """Return the procedure without a pass; hold points before it move to the next pass, or to the end.

    Raises
    ------
    InputError : there is no such pass
    """
    place = _place(wps, pass_id)
    rest = (*wps.passes[:place], *wps.passes[place + 1 :])
    following = rest[place].id if place < len(rest) else None
    holds = tuple(with_(hold, before=following) if hold.before == pass_id else hold for hold in wps.hold_points)
    sectors = tuple(each for each in wps.sectors if each.of != pass_id)
    return with_(wps, sectors=sectors, passes=rest, hold_points=holds)


def without_whole_passes(wps: Wps) -> Wps:
    """Return the procedure without the passes that go all the way; hold points before them move to the end."""
    rest = tuple(each for each in wps.passes if each.reach is not None)
    gone = {each.id for each in wps.passes} - {each.id for each in rest}
    holds = tuple(with_(hold, before=None) if hold.before in gone else hold for hold in wps.hold_points)
    sectors = tuple(each for each in wps.sectors if each.of not in gone)
    return with_(wps, sectors=sectors, passes=rest, hold_points=holds)


def without_deposit(wps: Wps, deposit_id: str) -> Wps:
    """Return the procedure without a deposit and without its passes.

    Raises
    ------
    InputError : there is no such deposit
    """
    kept = tuple(each for each in wps.deposits if each.id != deposit_id)
    if len(kept) == len(wps.deposits):
        raise InputError(f"{deposit_id} is no deposit", where="deposits", mend="name a deposit of this procedure")
    for each in wps.passes:
        if each.deposit == deposit_id:
            wps = without_pass(wps, each.id)
    return with_(wps, deposits=kept)


def moved_pass(wps: Wps, pass_id: str, place: int) -> Wps:
    """Return the procedure with a pass at another place in the order, 0 first.

    Raises
    ------
    InputError : there is no such pass
    """
    moving = wps.passes[_place(wps, pass_id)]
    rest = [each for each in wps.passes if each is not moving]
    rest.insert(max(0, min(place, len(rest))), moving)
    return with_(wps, passes=tuple(rest))


def _place(wps: Wps, pass_id: str) -> int:
    for place, each in enumerate(wps.passes):
        if each.id == pass_id:
            return place
    raise InputError(f"{pass_id} is no pass", where="passes", mend="name a pass of this procedure")
