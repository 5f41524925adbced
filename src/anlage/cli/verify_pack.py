"""`anlage verify-pack`: whether a code pack says only what can be read, every fault with file, line and reason."""

import argparse
from pathlib import Path

from anlage.cli.parsing import add_json
from anlage.core.codes import faults_of_pack, read_pack
from anlage.core.codes.head import FILE
from anlage.core.errors import InputError
from anlage.data.code_packs import pack_names
from anlage.data.installed_codes import pack_files
from anlage.session.keyed.answer import Answer

REFUSED = 2


def verify_pack_answer(file: str) -> Answer:
    """Return every fault of a pack, a folder or its `pack.toml`; the status is 2 when there is one.

    Raises
    ------
    InputError : there is no pack, or a file of it is no text
    """
    path = Path(file)
    folder = path if path.is_dir() else path.parent
    if not (folder / FILE).is_file() or not path.exists():
        raise InputError("there is no pack", where=file, mend=f"name a folder with {FILE} in it, or that file")
    try:
        files = pack_files(folder)
    except UnicodeDecodeError as fault:
        raise InputError("a file of the pack is no text", where=file, mend="save it as UTF-8") from fault
    faults = faults_of_pack(files, names=pack_names())
    told = [{"where": fault.where, "reason": fault.what, "mend": fault.mend} for fault in faults]
    if faults:
        lines = [(fault.where, f"{fault.what}; {fault.mend}") for fault in faults]
        return Answer({"pack": folder.name, "sound": False, "faults": told}, lines, (), status=REFUSED)
    pack = read_pack(files, names=pack_names())
    counted = {"rules": len(pack.rules) + len(pack.staged) + len(pack.clauses), "details": len(pack.details)}
    lines = [("pack", pack.title), ("editions", ", ".join(pack.editions))]
    lines.extend((what, str(number)) for what, number in counted.items() if number)
    return Answer({"pack": pack.code, "sound": True, **counted, "faults": []}, lines, ())


def add_arguments(parser: argparse.ArgumentParser) -> None:
    """Say what the command takes."""
    parser.add_argument("file", metavar="FILE", help="the folder of a code pack, or the pack.toml in it")
    add_json(parser)


def answer(arguments: argparse.Namespace) -> Answer:
    """Tell every fault."""
    return verify_pack_answer(arguments.file)
