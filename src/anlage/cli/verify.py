"""`anlage verify`: whether the issued revisions of a works file are still what was issued."""

import argparse
from pathlib import Path

from anlage.cli.parsing import add_json
from anlage.core.errors import InputError
from anlage.session.keyed.answer import Answer
from anlage.store import WorksFile, inspect_works

SHORTEST = 12  # digits by which a hash can be asked for


def verify_answer(file: str, expected: str = "") -> Answer:
    """Return what became of every issued revision; the status is 1 when one is not what was issued.

    Parameters
    ----------
    file : a works file
    expected : the link or SHA-256 printed on the sheet of a revision, or its first digits: does it still stand?

    Raises
    ------
    FormatError : the file is no works file, or a damaged or newer one
    InputError : what is expected is no hash
    """
    path = Path(file)
    with inspect_works(path) as works:
        faults, drafts = works.verify(), works.verify_drafts()
        entries = (*works.entries(), *works.entries(deleted=True))
        links = works.links()
        stands = _standing(works, expected) if expected else ""
        late = sorted({link.linked_at[:10] for link in links if link.is_late})
    revisions = sum(entry.revisions for entry in entries)
    told = "intact" if not faults else f"{len(faults)} not as it was issued"
    lines = [("works file", path.name), ("documents", f"{len(entries)}"), ("issued revisions", f"{revisions}, {told}")]
    values: dict[str, object] = {
        "file": path.name,
        "documents": len(entries),
        "revisions": revisions,
        "intact": not faults,
    }
    values["chain"] = links[-1].sha256 if links else None
    lines.append(("drafts", "as they were saved" if not drafts else f"{len(drafts)} not as it was saved"))
    if links:
        lines.append(("chain ends with", links[-1].sha256))
    if late:
        values["linked_later"] = late
        lines.append(("older than the chain", f"linked on {', '.join(late)}: not proved before that day"))
    if expected:
        values["expected"], values["stands"] = expected, stands or None
        lines.append(("expected", f"stands: {stands}" if stands else "is not in the chain"))
    return Answer(
        values, lines, (), (*faults, *drafts), status=1 if faults or drafts or (expected and not stands) else 0
    )


def _standing(works: WorksFile, expected: str) -> str:
    """Return the revision of which a hash is the link or the SHA-256, or its first digits; "" for none."""
    wanted = "".join(expected.split()).casefold()
    if len(wanted) < SHORTEST or set(wanted) - set("0123456789abcdef"):
        mend = f"type it as it stands on the sheet, {SHORTEST} digits or more"
        raise InputError("it is no hash", where="--expect", mend=mend)
    called = {entry.id: entry.number for entry in (*works.entries(), *works.entries(deleted=True))}
    found = [
        f"{called[own] or own}@{each.number}"
        for own in called
        for each in works.revisions(own)
        if each.link.startswith(wanted) or each.sha256.startswith(wanted)
    ]
    return ", ".join(found)


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("file", metavar="FILE", help="a works file, NAME.anlage")
    parser.add_argument("--expect", default="", metavar="HASH", help="the link printed on the sheet of a revision")
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Prove the issued revisions."""
    return verify_answer(arguments.file, arguments.expect)
