"""Boxes kept: one per record revision, pack edition and demand, built when first asked for."""

from collections.abc import Sequence

from msgspec import Struct

from anlage.core.codes import Boxes, Coupon, CoverBox, Demand, Judgement, Pack, Stated, cover_box, judge


class Record(Struct, frozen=True):
    """A record as judging needs it: its number and revision, and its coupon. Only accepted records have a box.

    `standing` says in words how it stands where it is not accepted.
    """

    revision: str
    coupon: Coupon
    accepted: bool = True
    standing: str = ""


class BoxKeeper:
    """Keeps the boxes of one pack; a record's revision never changes, so neither does its box."""

    def __init__(self, pack: Pack) -> None:
        self.pack = pack
        self._boxes: dict[tuple[str, Demand], CoverBox] = {}
        self._together: tuple[Sequence[Record], dict[Demand, Boxes]] = (), {}  # of the records asked about last

    def box(self, record: Record, demand: Demand) -> CoverBox:
        """Return the box of a record under a demand."""
        key = (record.revision, demand)
        if key not in self._boxes:
            self._boxes[key] = cover_box(self.pack, record.coupon, demand)
        return self._boxes[key]

    def judge(self, stated: Stated, records: Sequence[Record], demand: Demand) -> Judgement:
        """Return the verdict on a WPS from the accepted ones of `records`, newest first."""
        if len(records) == 1:  # asked of one alone, in between: what is kept of all stays
            own = [self.box(records[0], demand)] if records[0].accepted else []
            return judge(self.pack, stated, own)
        return judge(self.pack, stated, self._boxes_of(records, demand))

    def _boxes_of(self, records: Sequence[Record], demand: Demand) -> Boxes:
        if records is not self._together[0]:
            self._together = records, {}
        found = self._together[1].get(demand)
        if found is None:
            found = Boxes([self.box(record, demand) for record in records if record.accepted])
            self._together[1][demand] = found
        return found
