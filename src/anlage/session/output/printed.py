"""Sheets as they are handed out: pages, and whose they are and when they were made."""

from collections.abc import Sequence
from pathlib import Path

from msgspec import Struct

from anlage.core.drawing import DisplayList
from anlage.core.machine import Calibrated
from anlage.core.procedure import Wps
from anlage.session.heat.amiss import heat_amiss
from anlage.session.heat.known_waits import known_waits, worked_out
from anlage.session.judging.assessment import Assessment
from anlage.session.judging.editions import SHIPPED, Codes
from anlage.session.judging.finish import finish_words, limit_of_cap
from anlage.session.output.saving import check_ending, save
from anlage.session.output.wps_sheet import NO_MACHINES, Floor, Stationery, sheet
from anlage.session.works.standing import Standing


class Printed(Struct, frozen=True):
    """Some pages with their title, their author and when they were made (UTC, ISO 8601)."""

    pages: tuple[DisplayList, ...]
    title: str
    author: str
    made_at: str


class Desired(Struct, frozen=True):
    """How sheets are made: on what, by whom and when, for what is not issued, by which machines and codes."""

    on: Stationery
    author: str
    now: str
    works: Calibrated = NO_MACHINES
    codes: Codes = SHIPPED
    runs_section: bool = True  # the waits are worked out, which takes seconds; else only those known are set


def printed(wps: Wps, assessment: Assessment, standing: Standing, desired: Desired) -> Printed:
    """Return the sheet of a procedure: of a revision by whom and when it was issued, of a draft as of now."""
    waits = worked_out(wps, desired.works) if desired.runs_section else known_waits(wps, desired.works)
    amiss = heat_amiss(wps, desired.codes, desired.works, wps.header.units)
    finish = finish_words(wps, desired.codes, wps.header.units)
    caps = limit_of_cap(wps, desired.codes, wps.header.units)
    pages = sheet(wps, assessment, standing, desired.on, Floor(desired.works, waits, amiss, finish, caps))
    if standing.is_issued:
        return Printed(pages, title_of(wps, standing), standing.author, standing.issued_at)
    return Printed(pages, title_of(wps, standing), desired.author, desired.now)


def title_of(wps: Wps, standing: Standing) -> str:
    """Return number and revision, as the file of a sheet is called."""
    number = wps.header.number or "procedure"
    return f"{number} revision {standing.revision}" if standing.is_issued else f"{number} draft"


def together(sheets: Sequence[Printed], desired: Desired) -> Printed:
    """Return several sheets as one, for one file or one print."""
    pages = tuple(page for each in sheets for page in each.pages)
    return Printed(pages, ", ".join(each.title for each in sheets), desired.author, desired.now)


def write_pdf(path: Path, made: Printed) -> None:
    """Write sheets as PDF.

    Raises
    ------
    FormatError : the file is called something else, must not be written over, or cannot be written
    """
    from anlage.formats.pdf import pdf  # when asked for: a start needs no file format

    check_ending(path, (".pdf",))
    save(path, lambda: pdf(made.pages, title=made.title, author=made.author, made_at=made.made_at))
