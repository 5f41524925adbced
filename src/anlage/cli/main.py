"""The `anlage` command: commands, and the one place where a refusal becomes one line and an exit status."""

import argparse
import sys
import textwrap
from collections.abc import Callable, Sequence
from typing import TYPE_CHECKING, NoReturn

from anlage import __version__
from anlage.core.errors import AnlageError, InputError, UnknownNameError

if TYPE_CHECKING:
    from anlage.cli.answer import Answer

BAD_INPUT = 2
DOCUMENT = "a JSON file, or NAME.anlage#NUMBER[@REVISION]"
COMMANDS = ("calc", "coupon", "ranges", "check", "print", "schema", "export", "import", "verify", "demo", "screenshots")


class _Parser(argparse.ArgumentParser):
    """A parser whose refusals are the product's own: one line, what, where, how to mend."""

    def error(self, message: str) -> NoReturn:
        raise InputError(message, where=self.prog, mend=f"see {self.prog} --help")


class _CommandParser(_Parser):
    """The parser of a command, whose help ends with the keys it takes; they are looked up only for help."""

    def format_help(self) -> str:
        command = self.prog.split()[-1]
        self.epilog = _keys(command) if command in ("calc", "coupon") else None
        self.formatter_class = argparse.RawDescriptionHelpFormatter
        return super().format_help()


def _keys(command: str) -> str:
    if command == "coupon":
        from anlage.cli.coupon import KEYS

        return textwrap.fill(f"keys: {' '.join(KEYS)}", 100, subsequent_indent="  ")
    from anlage.cli.calculations import CALCULATIONS

    lines = [f"{name}: {' '.join(calculation.keys)}" for name, calculation in CALCULATIONS.items()]
    return "\n".join(textwrap.fill(line, 100, subsequent_indent="  ") for line in lines)


def parser() -> argparse.ArgumentParser:
    """Return the parser of the whole command line; every command sets `answer`."""
    root = _Parser(prog="anlage", description="Welding procedures: what a weld will do, and what it is allowed to be.")
    root.add_argument("--version", action="version", version=f"anlage {__version__}")
    commands = root.add_subparsers(metavar="COMMAND", required=True, parser_class=_CommandParser)

    calc = _command(commands, "calc", _calc, "work out one quantity: heat-input, run-out, joint, pipe")
    calc.add_argument("name", metavar="NAME", help="heat-input, run-out, joint or pipe")
    _add_words(calc)

    coupon = _command(commands, "coupon", _coupon, "say what a test coupon would buy, variable by variable")
    coupon.add_argument("--code", required=True, help="the code, with edition if not the newest: asme-ix:2019")
    _add_words(coupon)

    ranges = _command(commands, "ranges", _ranges, "say what a record allows, variable by variable")
    ranges.add_argument("record", metavar="PQR", help=DOCUMENT)
    ranges.add_argument("--code", required=True, help="the code, with edition if not the newest: asme-ix:2019")
    _add_words(ranges, "units=si|us, weld=groove|fillet|partial|repair, impact=yes|no")

    check = _command(commands, "check", _check, "judge a procedure by its code and its records")
    check.add_argument("procedure", metavar="WPS", help=DOCUMENT)
    check.add_argument("--pqr", metavar="FILE", nargs="+", default=[], help="records; else those of its works file")
    _add_words(check, "units=si|us, weld=groove|fillet|partial|repair, impact=yes|no")

    sheet = _command(commands, "print", _print, "write the sheet of a procedure as PDF")
    sheet.add_argument("procedure", metavar="WPS", help=DOCUMENT)
    sheet.add_argument("-o", "--output", required=True, metavar="FILE.pdf", help="the file to write")
    sheet.add_argument("--pqr", metavar="FILE", nargs="+", default=[], help="records; else those of its works file")
    sheet.add_argument("--paper", choices=("a4", "letter"), default="a4")
    _add_json(sheet)

    schema = _command(commands, "schema", _schema, "print the JSON Schema of a kind of document")
    schema.add_argument("kind", metavar="KIND", help="wps or pqr")
    _add_json(schema)

    export = _command(commands, "export", _export, "write a document as JSON, or its pictures and tables")
    export.add_argument("document", metavar="WORKS#NUMBER", help="NAME.anlage#NUMBER, or #NUMBER@REVISION")
    export.add_argument(
        "-o", "--output", required=True, metavar="FILE",
        help="the file to make: .json, .svg .pdf .dxf for a picture, .csv .xlsx for the passes",
    )  # fmt: skip
    export.add_argument(
        "--picture",
        default="section",
        metavar="NAME",
        help="section, beads, designs, symbol, stops, node, cope, fit-up/PLACE or sectors/PASS",
    )
    _add_json(export)

    take = _command(commands, "import", _import, "add a JSON document to a works file")
    take.add_argument("file", metavar="FILE", help="a procedure or record as JSON")
    take.add_argument("--into", required=True, metavar="WORKS", help="a works file, NAME.anlage")
    _add_json(take)

    demo = _command(commands, "demo", _demo, "open the demo in the window")
    demo.add_argument("--reset", action="store_true", help="make it anew; the old one is kept beside it")

    shots = _command(commands, "screenshots", _screenshots, "take a picture of every place of the demo")
    shots.add_argument("folder", metavar="DIR", help="where the pictures go; made when it is not there")
    _add_json(shots)

    verify = _command(commands, "verify", _verify, "prove that the issued revisions of a works file never changed")
    verify.add_argument("file", metavar="FILE", help="a works file, NAME.anlage")
    _add_json(verify)
    return root


def _command(
    commands: "argparse._SubParsersAction[_CommandParser]",
    name: str,
    answer: "Callable[[argparse.Namespace], Answer | int]",
    what: str,
) -> argparse.ArgumentParser:
    command = commands.add_parser(name, help=what, description=f"{what[0].upper()}{what[1:]}.", allow_abbrev=False)
    command.set_defaults(answer=answer)
    return command


def _add_words(
    command: argparse.ArgumentParser, words: str = "key=value, every value with its unit: speed=250mm/min, volts=23..26"
) -> None:
    command.add_argument("words", metavar="KEY=VALUE", nargs="*", help=words)
    _add_json(command)


def _add_json(command: argparse.ArgumentParser) -> None:
    command.add_argument("--json", action="store_true", dest="as_json", help="print one JSON object")


def _calc(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.calculations import calculate

    return calculate(arguments.name, arguments.words)


def _coupon(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.coupon import coupon_answer

    return coupon_answer(arguments.code, arguments.words)


def _ranges(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.documents import ranges_answer

    return ranges_answer(arguments.record, arguments.code, arguments.words)


def _check(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.documents import check_answer

    words = [word for word in arguments.pqr if "=" in word]  # after --pqr a key=value is no file
    records = [word for word in arguments.pqr if "=" not in word]
    return check_answer(arguments.procedure, records, [*arguments.words, *words])


def _print(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.documents import print_answer

    return print_answer(arguments.procedure, arguments.output, arguments.pqr, arguments.paper)


def _schema(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.documents import schema_answer

    return schema_answer(arguments.kind)


def _export(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.documents import export_answer

    return export_answer(arguments.document, arguments.output, picture=arguments.picture)


def _import(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.documents import import_answer
    from anlage.session.clock import utc_now

    return import_answer(arguments.file, arguments.into, now=utc_now())


def _verify(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.verify import verify_answer

    return verify_answer(arguments.file)


def _demo(arguments: argparse.Namespace) -> int:
    from anlage.cli.window import open_demo

    return open_demo(reset=arguments.reset)


def _screenshots(arguments: argparse.Namespace) -> "Answer":
    from anlage.cli.window import screenshots_answer

    return screenshots_answer(arguments.folder)


def run(words: Sequence[str] | None = None) -> int:
    """Run the command and return its exit status: the answer's, or 2 with one line on standard error for bad input.

    Without a word the window opens on the works file that was open last.
    """
    words = sys.argv[1:] if words is None else words
    try:
        if words and not words[0].startswith("-") and words[0] not in COMMANDS:
            raise UnknownNameError(words[0], COMMANDS, where="anlage")
        if not words:
            from anlage.cli.window import open_last

            return open_last()
        arguments = parser().parse_args(words)
        answer = arguments.answer(arguments)
    except AnlageError as refusal:
        print(refusal, file=sys.stderr)
        return BAD_INPUT
    if isinstance(answer, int):
        return answer
    print(answer.as_json() if arguments.as_json else answer.as_table())
    return int(answer.status)


def entry() -> None:
    """Run the command as a process."""
    sys.exit(run())
