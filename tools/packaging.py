"""Make what a terminal finds after an installation: the manual page and the completions, from the command table.

`python tools/packaging.py` writes them into `packaging/`; a test holds what lies there against the table.
"""

import argparse
from importlib import import_module
from pathlib import Path

from anlage.cli.parsing import HELP, Parser
from anlage.cli.table import COMMANDS

FOLDER = Path(__file__).parent.parent / "packaging"
PURPOSE = "welding procedures: what a weld will do, and what it is allowed to be"


def parsers() -> dict[str, argparse.ArgumentParser]:
    """Return the parser of every command, by its name."""
    found = {}
    for name, (module, what) in COMMANDS.items():
        command = import_module(module)
        parser = Parser(
            prog=f"anlage {name}", description=f"{what[0].upper()}{what[1:]}.", allow_abbrev=False, formatter_class=HELP
        )
        command.add_arguments(parser)
        found[name] = parser
    return found


def _options(parser: argparse.ArgumentParser) -> list[argparse.Action]:
    return [each for each in parser._actions if each.option_strings]  # noqa: SLF001 - argparse has no other list


def _words(parser: argparse.ArgumentParser) -> list[argparse.Action]:
    return [each for each in parser._actions if not each.option_strings]  # noqa: SLF001 - argparse has no other list


def _escaped(text: str) -> str:
    text = text.replace("\\", r"\e").replace("-", r"\-")
    return f"\\&{text}" if text.startswith((".", "'")) else text


def _value(action: argparse.Action) -> str:
    if action.nargs == 0:
        return ""
    name = action.metavar if isinstance(action.metavar, str) else action.dest.upper()
    return f" {name}"


def manual() -> str:
    """Return the manual page."""
    lines = [
        '.TH ANLAGE 1 "" "Anlage" "User commands"', ".SH NAME", f"anlage \\- {_escaped(PURPOSE)}", ".SH SYNOPSIS",
        ".B anlage", ".RI [ FILE.anlage ]", ".br", ".B anlage", ".I COMMAND", ".RI [ ARGUMENTS ]", ".SH DESCRIPTION",
        "Without a word the window opens on the works file that was open last, with the name of a works file on that.",
        "Every other use is a command, which needs no screen.", ".SH COMMANDS",
    ]  # fmt: skip
    for name, parser in parsers().items():
        words = " ".join(_escaped(_value(each).strip()) for each in _words(parser))
        lines += [
            ".SS",
            f".B anlage {_escaped(name)} {words}".rstrip(),
            _escaped(f"{COMMANDS[name][1][0].upper()}{COMMANDS[name][1][1:]}."),
        ]
        for each in (*_words(parser), *_options(parser)):
            head = ", ".join(_escaped(option) for option in each.option_strings) or _escaped(_value(each).strip())
            value = _escaped(_value(each)) if each.option_strings else ""
            lines += [".TP", f".BR {head.replace(' ', chr(92) + ' ')}{value}", _escaped(each.help or "")]
    lines += [
        ".SH EXIT STATUS", "0: all inside, or done. 1: something outside or unproven. 2: bad input, told in one line.",
        ".SH ENVIRONMENT", "SOURCE_DATE_EPOCH dates a draft that is printed, so that the same file is made again.",
        ".SH CAUTION", "The governing code, local rules and licensed practice go before anything this program says.",
    ]  # fmt: skip
    return "\n".join(lines) + "\n"


def bash() -> str:
    """Return the completion of bash."""
    cases = "\n".join(
        f"    {name}) words={_quoted(' '.join(o for a in _options(p) for o in a.option_strings))} ;;"
        for name, p in parsers().items()
    )
    return f"""# bash completion of anlage; made from its command table
_anlage() {{
  local current="${{COMP_WORDS[COMP_CWORD]}}" words=""
  if [[ $COMP_CWORD -eq 1 ]]; then
    words="{" ".join(COMMANDS)} --help --version"
    COMPREPLY=($(compgen -W "$words" -- "$current") $(compgen -f -X '!*.anlage' -- "$current"))
    return
  fi
  case "${{COMP_WORDS[1]}}" in
{cases}
  esac
  if [[ $current == -* ]]; then
    COMPREPLY=($(compgen -W "$words" -- "$current"))
  else
    COMPREPLY=($(compgen -f -- "$current"))
  fi
}}
complete -o filenames -F _anlage anlage
"""


def zsh() -> str:
    """Return the completion of zsh."""
    listed = "\n".join(f"    {_quoted(f'{name}:{what}')}" for name, (_, what) in COMMANDS.items())
    cases = "\n".join(
        f"    {name}) _arguments {' '.join(_zsh(a) for a in _options(p))} '*:file:_files' ;;"
        for name, p in parsers().items()
    )
    return f"""#compdef anlage
# zsh completion of anlage; made from its command table
_anlage() {{
  local -a commands
  commands=(
{listed}
  )
  if (( CURRENT == 2 )); then
    _describe command commands
    _files -g '*.anlage'
    return
  fi
  local command=$words[2]
  shift words
  (( CURRENT-- ))
  case $command in
{cases}
  esac
}}
_anlage "$@"
"""


def _zsh(action: argparse.Action) -> str:
    what = (action.help or "").replace("[", "(").replace("]", ")").replace(":", " ")
    after = "" if action.nargs == 0 else f":{_value(action).strip()}:_files"
    return " ".join(_quoted(f"{option}[{what}]{after}") for option in action.option_strings)


def _quoted(text: str) -> str:
    return "'" + text.replace("'", "'\\''") + "'"


MADE = {"anlage.1": manual, "anlage.bash": bash, "_anlage": zsh}


def main() -> None:
    """Write every file that is made."""
    for name, make in MADE.items():
        (FOLDER / name).write_text(make(), encoding="utf-8")


if __name__ == "__main__":
    main()
