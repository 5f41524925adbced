"""The positions that a procedure can be welded in: which are stated, which can be chosen, how they stand."""

from functools import cache

import msgspec
import rtoml

from anlage.core.document import with_at
from anlage.core.drawing.display import DisplayList
from anlage.core.drawing.position import Standing, Wanted, chart
from anlage.core.procedure import Wps
from anlage.data.files import text_of
from anlage.session.leaves.positions import listed
from anlage.session.weld.picture_sheet import Sheet

ALL = "all"


@cache
def standings() -> tuple[Standing, ...]:
    """Return every position of the table."""
    return tuple(msgspec.convert(row, Standing) for row in rtoml.loads(text_of("positions.toml"))["position"])


def offered(wps: Wps) -> tuple[Standing, ...]:
    """Return the positions to choose from: of plate, of pipe, or of both while nobody says; of the kind of weld."""
    weld, product = "fillet" if wps.header.weld == "fillet" else "groove", wps.joint.product
    return tuple(each for each in standings() if each.weld == weld and product in (None, each.product))


def stated_positions(text: str | None) -> tuple[str, ...]:
    """Return the positions that a text names, in AWS words; what is no position is left out.

    Examples
    --------
    >>> stated_positions("PA, 3G"), stated_positions("upside down"), stated_positions(None)
    (('1G', '3G'), (), ())
    """
    return tuple(token for token in listed(text).values() if token)


def position_picture(wps: Wps, sheet: Sheet) -> DisplayList:
    """Return the positions to choose from, with the stated one as it stands."""
    rows, text = offered(wps), wps.technique.position
    is_all = (text or "").strip().casefold() == ALL
    tokens = tuple(each.token for each in rows) if is_all else stated_positions(text)
    wanted = Wanted(tokens, wps.technique.progression or "")
    return chart(rows, wanted, (sheet.width_mm, sheet.height_mm))


def with_position(wps: Wps, target: str) -> Wps:
    """Return the procedure in a position chosen in the picture; plate or pipe goes with it while nobody said which."""
    product, _, token = target.partition("/")
    wps = with_at(wps, "technique/position", token)
    return with_at(wps, "joint/product", product) if wps.joint.product is None else wps


def words_of(target: str) -> str:
    """Return what a position to choose is, in words."""
    found = next((each for each in standings() if each.target == target), None)
    return f"{found.token}, {found.product}: {found.says}" if found else ""
