"""The `anlage` command, and the one place where a refusal becomes one line and an exit status."""

import argparse
import os
import sys
from collections.abc import Sequence
from contextlib import suppress
from importlib import import_module

from anlage import __version__
from anlage.cli.parsing import HELP, Parser
from anlage.cli.plain import speak_plainly
from anlage.cli.table import COMMANDS
from anlage.core.errors import AnlageError, UnknownNameError
from anlage.session.machine.pauses import seldom

BAD_INPUT = 2
WORKS = ".anlage"  # how the name of a works file ends
INTERRUPTED = 130  # as a shell counts a process that Ctrl+C ended


def root_parser() -> argparse.ArgumentParser:
    """Return the parser of what stands before any command: help and version."""
    width = max(map(len, COMMANDS))
    listed = "\n".join(f"  {name.ljust(width)}  {what}" for name, (_, what) in COMMANDS.items())
    root = Parser(
        prog="anlage",
        usage="anlage [-h] [--version] [FILE.anlage | COMMAND ...]",
        description="Welding procedures: what a weld will do, and what it is allowed to be.",
        epilog=f"commands:\n{listed}",
        formatter_class=HELP,
    )
    root.add_argument("--version", action="version", version=f"anlage {__version__}")
    root.add_argument("command", help=argparse.SUPPRESS)
    return root


def run(words: Sequence[str] | None = None) -> int:
    """Run the command and return its exit status: the answer's, or 2 with one line on standard error for bad input.

    Without a word the window opens on the works file that was open last.
    """
    words = sys.argv[1:] if words is None else words
    try:
        status = _run(words)
        sys.stdout.flush()
    except AnlageError as refusal:
        print(refusal, file=sys.stderr)
        return BAD_INPUT
    except BrokenPipeError:  # whoever read has had enough
        with suppress(OSError):
            os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())
        return 0
    except KeyboardInterrupt:
        return INTERRUPTED
    return status


def _run(words: Sequence[str]) -> int:
    name = words[0] if words else ""
    if name.startswith("-"):
        root_parser().parse_args(words)  # help and version end the process themselves
    if name.endswith(WORKS) and name not in COMMANDS:
        name, words = "", ("", *words)
        module, what = "anlage.cli.open_file", "open a works file in the window"
    elif name and name not in COMMANDS:
        raise UnknownNameError(name, COMMANDS, where="anlage", otherwise=f" or a works file, NAME{WORKS}")
    else:
        module, what = COMMANDS[name] if name else ("anlage.cli.last", "open the works file that was open last")
    command = import_module(module)
    parser = Parser(
        prog=f"anlage {name}".strip(),
        description=f"{what[0].upper()}{what[1:]}.",
        allow_abbrev=False,
        formatter_class=HELP,
    )
    command.add_arguments(parser)
    arguments = parser.parse_intermixed_args(words[1:])  # words and options come in any order
    answer = command.answer(arguments)
    if isinstance(answer, int):
        return answer
    print(answer.as_json() if arguments.as_json else answer.as_table())
    return int(answer.status)


def entry() -> None:
    """Run the command as a process."""
    seldom()
    speak_plainly()
    sys.exit(run())
