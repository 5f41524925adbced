"""Letters that no text has: control characters, halves of a pair, and what no XML can hold."""

import re

# Tab and line breaks are letters; the other controls, lone surrogates and the two that are none are not.
ODD = re.compile("[\x00-\x08\x0b\x0c\x0e-\x1f\x7f-\x84\x86-\x9f\ud800-\udfff\ufffe\uffff]")
BREAKS = re.compile("[ \t-\r\x1c-\x1f\x85\u2028\u2029]+")
NARROW = "\u2009\u00a0\u202f"  # spaces between a number and its unit
REPLACEMENT = "\ufffd"


def has_odd(text: str) -> bool:
    r"""Return whether a text holds a letter that no text has.

    Examples
    --------
    >>> has_odd("bell\x07"), has_odd("a\nb")
    (True, False)
    """
    return ODD.search(text) is not None


def without_odd(text: str, instead: str = "") -> str:
    r"""Return a text without the letters that no text has.

    Examples
    --------
    >>> without_odd("E70\x0018")
    'E7018'
    """
    return ODD.sub(instead, text)


def one_line(text: str, length: int) -> str:
    r"""Return a text as one line of printable letters, cut in the middle when it is longer than asked for.

    Examples
    --------
    >>> one_line("a\nb", 40), one_line("x" * 50, 12)
    ('a b', 'xxxxxx … xxx')
    """
    line = BREAKS.sub(" ", text).strip()
    if len(line) > length:
        line = f"{line[: length - 6]} … {line[-3:]}"
    if line.isprintable():
        return line
    return "".join(each if each.isprintable() or each in NARROW else REPLACEMENT for each in line)
