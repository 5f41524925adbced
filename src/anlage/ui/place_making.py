"""Making the places of an open document; those that need rules or records load them when first asked for."""

from typing import TYPE_CHECKING

from anlage.ui.document import Document
from anlage.ui.joint_place import JointPlace

if TYPE_CHECKING:
    from anlage.ui.passes_place import PassesPlace
    from anlage.ui.ranges_place import RangesPlace
    from anlage.ui.record_place import RecordPlace
    from anlage.ui.register_place import RegisterPlace
    from anlage.ui.sheet_place import SheetPlace
    from anlage.ui.workbench import Workbench

    Place = JointPlace | PassesPlace | RangesPlace | SheetPlace | RegisterPlace | RecordPlace


def make_place(bench: "Workbench", document: Document) -> "Place":
    """Return the place that the workbench is to show of a document."""
    if bench.place == "joint":
        joint = JointPlace(document, bench.settings.rates)
        joint.rates_changed.connect(bench.keep_rates)
        return joint
    if bench.place == "passes":
        from anlage.ui.passes_place import PassesPlace

        passes = PassesPlace(document, bench.clocks.seconds)
        passes.told.connect(bench.say)
        return passes
    if bench.place == "proof":
        from anlage.ui.record_place import RecordPlace

        return RecordPlace(document)
    place = _ranges(bench, document) if bench.place == "ranges" else _sheet(bench, document)
    if bench.judge is not None:
        place.show_proof(bench.judge.proof(document.wps))
    return place


def _ranges(bench: "Workbench", document: Document) -> "RangesPlace":
    from anlage.ui.ranges_place import RangesPlace

    place = RangesPlace(document)
    place.field_asked.connect(bench.go_to)
    return place


def _sheet(bench: "Workbench", document: Document) -> "SheetPlace":
    from anlage.ui.sheet_place import Office, SheetPlace

    assert bench.works is not None
    works, own = bench.works, document.document_id

    def issue(author: str) -> None:
        works.issue(own, document.working, author=author)

    settings = bench.settings
    office = Office(lambda: works.standing(own, document.working), issue, settings.author, settings.paper)
    place = SheetPlace(document, office)
    place.issued.connect(bench.judging.start)
    place.kept.connect(bench.keep)
    return place


def make_register(bench: "Workbench") -> "RegisterPlace":
    """Return the Register; it is that of the works file, not of a document."""
    from anlage.ui.register_place import RegisterPlace

    commands = (
        ("New", "New procedure (Ctrl+N)", bench.new_document),
        ("New record", "New record (Ctrl+Shift+R)", bench.new_record),
        ("Duplicate", "Duplicate the chosen procedure", lambda: bench.with_chosen(bench.duplicate_document)),
        ("Put away", "Put the chosen procedure away", lambda: bench.with_chosen(bench.delete_document)),
    )
    place = RegisterPlace(bench.shell.reader, bench.rows, commands)
    place.opened.connect(bench.open_at_first_place)
    return place
