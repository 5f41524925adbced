"""The rows that a first draft is made from, and the one reader of them: what holds when, first match taken."""

from typing import TypeVar

from msgspec import Struct

from anlage.core.toml_rows import whole_table

Three = tuple[float, float, float]
Pair = tuple[float, float]


class DraftWhen(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """When a row holds: any of the words of each list given; families by their beginning; ranges from and below."""

    product: tuple[str, ...] = ()
    weld: tuple[str, ...] = ()
    process: tuple[str, ...] = ()
    first: tuple[str, ...] = ()
    place: tuple[str, ...] = ()
    role: tuple[str, ...] = ()
    family: tuple[str, ...] = ()
    p_number: tuple[str, ...] = ()
    uns: tuple[str, ...] = ()
    code: tuple[str, ...] = ()
    filler_ends: tuple[str, ...] = ()
    thickness_mm: Pair | None = None
    smts_mpa: Pair | None = None
    open_root: bool | None = None


class DraftRow(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """What every row has; `confidence` is that of the table where the row says none."""

    when: DraftWhen
    why: str
    confidence: str = ""


class ProcessRow(DraftRow, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """The processes that lay a weld, the root's first."""

    take: tuple[str, ...]


class JointRow(DraftRow, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A preparation: its kind and its dimensions as nominal, minus and plus [mm, °]."""

    kind: str
    dimensions: dict[str, Three]
    root_style: str = ""
    backing: str = "none"


class FillerRow(DraftRow, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """The filler of one metal."""

    take: str


class PairRow(DraftRow, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """The filler between metals of two families, in either order."""

    families: tuple[str, str]
    take: str


class DepositRow(DraftRow, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """What else a deposit states: polarity, size [mm], gases, transfer mode, tungsten; "" for what it does not.

    Flows of gas and purge [l/min] are those of the catalogue where the row has none.
    """

    current_type: str
    size_mm: float
    gas: str = ""
    flow_l_min: Pair | None = None
    purge_l_min: Pair | None = None
    backing_gas: str = ""
    transfer_mode: str = ""
    tungsten: str = ""


class WordRow(DraftRow, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """A leaf that is stated in a word: of the procedure, or as `deposits/*/…` of each of its deposits."""

    leaf: str
    say: str


class Drafts(Struct, frozen=True, forbid_unknown_fields=True, kw_only=True):
    """All of the table."""

    title: str
    source: str
    confidence: str
    ways: tuple[tuple[str, ...], ...]
    process: tuple[ProcessRow, ...]
    joint: tuple[JointRow, ...]
    filler: tuple[FillerRow, ...]
    pair: tuple[PairRow, ...]
    deposit: tuple[DepositRow, ...]
    word: tuple[WordRow, ...]


def read_drafts(text: str, *, where: str = "drafts.toml") -> Drafts:
    """Return the table written in `text` (TOML).

    Raises
    ------
    FormatError : a row is not what it has to be
    """
    return whole_table(text, Drafts, where=where)


AnyDraftRow = TypeVar("AnyDraftRow", bound=DraftRow)


class Facts(Struct, frozen=True, kw_only=True):
    """What is known of a weld to be drafted; "" and `None` for what is not, which no list and no range holds."""

    product: str = ""
    weld: str = ""
    process: str = ""
    first: str = ""
    place: str = ""
    role: str = ""
    family: str = ""
    p_number: str = ""
    uns: str = ""
    code: str = ""
    filler: str = ""
    thickness_mm: float | None = None
    smts_mpa: float | None = None
    open_root: bool | None = None

    def hold(self, when: DraftWhen) -> bool:
        """Return whether all that a row asks holds."""
        words = (
            (when.product, self.product), (when.weld, self.weld), (when.process, self.process),
            (when.first, self.first), (when.place, self.place), (when.role, self.role),
            (when.p_number, self.p_number), (when.uns, self.uns), (when.code, self.code),
        )  # fmt: skip
        ranges = ((when.thickness_mm, self.thickness_mm), (when.smts_mpa, self.smts_mpa))
        return (
            all(not asked or word in asked for asked, word in words)
            and (not when.family or self.family.startswith(when.family))
            and (not when.filler_ends or self.filler.endswith(when.filler_ends))
            and all(asked is None or (value is not None and asked[0] <= value < asked[1]) for asked, value in ranges)
            and when.open_root in (None, self.open_root)
        )

    def first_of(self, rows: tuple[AnyDraftRow, ...]) -> AnyDraftRow | None:
        """Return the first row that holds."""
        return next((row for row in rows if self.hold(row.when)), None)
