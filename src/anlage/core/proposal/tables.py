"""The rows that proposals are made from, and the one reader of them: what holds when, first match taken."""

from typing import Literal, TypeVar

from msgspec import Struct

from anlage.core.toml_rows import whole_table

Place = Literal["flat", "horizontal", "up", "down", "overhead"]
Role = Literal["root", "hot", "fill", "strip", "cap", "back", "buttering", "tack"]
Pair = tuple[float, float]
CLOSE = 1e-6


class When(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """When a row holds: any of the words of each list that is given; a family by its beginning, a size within two."""

    process: tuple[str, ...] = ()
    family: tuple[str, ...] = ()
    filler: tuple[str, ...] = ()
    mode: tuple[str, ...] = ()
    place: tuple[Place, ...] = ()
    role: tuple[Role, ...] = ()
    size_mm: Pair | None = None


class Row(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """What every row has; `confidence` is that of the table where the row says none."""

    when: When
    confidence: str = ""


class CurrentRow(Row, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A current: a share of the catalogue's window, or amps."""

    share: Pair | None = None
    a: Pair | None = None


class VoltsRow(Row, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A voltage: a share of the catalogue's window, or volts."""

    share: Pair | None = None
    volts: Pair | None = None


class Bead(Struct, frozen=True, forbid_unknown_fields=True):
    """How wide apart stringers lie and how high their layer is, in diameters."""

    pitch: float
    height: float


class PaceRow(Row, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A pace: travel speeds, usual one or usual bead, and in a few words the technique.

    `limits` names the row of process limits within which all of it lies; `woven` is the speeds of a weave;
    `cap_pitch` how far apart the stringers of a cap lie and `widest` the widest bead, in diameters.
    """

    limits: str
    speed: Pair
    technique: str
    woven: Pair | None = None
    usual: float | None = None
    bead: Bead | None = None
    cap_pitch: float | None = None
    widest: float | None = None


class CannotRow(Row, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """What cannot be welded so, and what would go instead."""

    what: str
    mend: str


class SeldomRow(CannotRow, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """What goes and is seldom done; `open`: in an open root, `multi`: where more than one pass is laid."""

    open: bool = False
    multi: bool = False


class FirstRow(Row, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """How many layers a first deposit lays before the next takes over."""

    layers: int


class SectorRow(Row, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A sector of a fixed pipe: so many amps off the least or the most of the pass [A], and the technique there."""

    reach: str
    technique: str
    why: str
    low: float = 0.0
    high: float = 0.0


class Hot(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """Current of the second pass over that of the root: at most so much over a root thinner than so much [mm]."""

    thin_mm: float
    most: float
    usual: str
    confidence: str


class Reposition(Struct, frozen=True, forbid_unknown_fields=True):
    """After which share of a ring, and how far at most [mm], a welder takes his place anew."""

    ring_share: float
    most_mm: float
    confidence: str


class Root(Struct, frozen=True, forbid_unknown_fields=True):
    """How much a root bead stands over its land [mm]."""

    over_land_mm: float
    confidence: str


class Spread(Struct, frozen=True, forbid_unknown_fields=True):
    """How far a proposed range goes to both sides of its middle, as a share of it."""

    speed: float
    feed: float
    current: float


class Alike(Struct, frozen=True, forbid_unknown_fields=True, rename={"like": "as"}):
    """Families of covered electrodes that melt like one of the catalogue."""

    family: tuple[str, ...]
    like: str


class RodRate(Struct, frozen=True, forbid_unknown_fields=True):
    """What is fed of a rod of a size: (A, kg/h), rising."""

    size_mm: float
    at: tuple[tuple[float, float], ...]


class Usual(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """All of the table."""

    title: str
    source: str
    confidence: str
    current: tuple[CurrentRow, ...]
    volts: tuple[VoltsRow, ...]
    pace: tuple[PaceRow, ...]
    cannot: tuple[CannotRow, ...]
    seldom: tuple[SeldomRow, ...]
    first: tuple[FirstRow, ...]
    sector: tuple[SectorRow, ...]
    hot: Hot
    reposition: Reposition
    root: Root
    spread: Spread
    alike: tuple[Alike, ...]
    rod: tuple[RodRate, ...]


def read_usual(text: str, *, where: str = "proposals.toml") -> Usual:
    """Return the table written in `text` (TOML).

    Raises
    ------
    FormatError : a row is not what it has to be
    """
    return whole_table(text, Usual, where=where)


AnyRow = TypeVar("AnyRow", bound=Row)


class Circumstances(Struct, frozen=True, kw_only=True):
    """What a row's `when` is asked about; "" and `None` where it is not known, which no list holds."""

    process: str
    family: str = ""
    filler: str = ""
    mode: str = ""
    place: str = ""
    role: str = ""
    size_mm: float | None = None

    def hold(self, when: When) -> bool:
        """Return whether all that a row asks holds."""
        words = (
            (when.process, self.process), (when.filler, self.filler), (when.mode, self.mode),
            (when.place, self.place), (when.role, self.role),
        )  # fmt: skip
        return (
            all(not asked or word in asked for asked, word in words)
            and (not when.family or self.family.startswith(when.family))
            and (
                when.size_mm is None
                or (self.size_mm is not None and when.size_mm[0] - CLOSE <= self.size_mm <= when.size_mm[1] + CLOSE)
            )
        )

    def first_of(self, rows: tuple[AnyRow, ...]) -> AnyRow | None:
        """Return the first row that holds."""
        return next((row for row in rows if self.hold(row.when)), None)
