"""How names are compared: the trade writes `SA-516 Gr. 70`, `A516-70` and `sa516 gr70` for one metal."""

import re

_NOISE = re.compile(
    r"\b(?:gr|grade|type|class|cl|tp|sch|schedule|nps)\b\.?|(?<=\d)(?:gr|cl)\.?(?=\s?\d)|\btp(?=\d)"
    r"|^(?:ASTM|ASME|(?:DIN )?EN(?: ISO)? 1\d{4}(?:-\d)?(?::\d{4})?)[ :]+(?=\w)"  # whose standard it is
    r"|(?<=\d)/[AB]\d+M\b"  # A516/A516M: the metric twin
    r"|(?<=\w)\s*\+\s*(?:AR|N)$",  # S355J2+N: as rolled or normalized, one group
    re.IGNORECASE,
)
_ASME_PREFIX = re.compile(r"^\s*s(?=[ab]-?\d)", re.IGNORECASE)
_FILLER_SPEC = re.compile(r"^(?:AWS |ASME )?(?:SFA|A)[- ]?5\.\d+M?[ :/]+")  # the specification before a classification
# Optional designators of AWS covered-electrode and wire names: diffusible hydrogen, moisture resistance.
_DESIGNATOR = re.compile(r"[\s-]*H(?:2|4|8|16)R?$|(?<=\d)R$|\s+R$")


def metal_key(name: str) -> str:
    """Return the form in which base-metal names are compared.

    Examples
    --------
    >>> metal_key("SA-516 Gr. 70"), metal_key("A516-70"), metal_key("ASTM A516/A516M Grade 70")
    ('a51670', 'a51670', 'a51670')
    >>> metal_key("EN 10025-2 S355J2+N"), metal_key("A240 TP304L")
    ('s355j2', 'a240304l')
    """
    return "".join(filter(str.isalnum, _ASME_PREFIX.sub("", _NOISE.sub(" ", name.strip())))).casefold()


def filler_key(name: str) -> str:
    """Return the form in which filler classifications are compared, without optional designators.

    Examples
    --------
    >>> filler_key("E7018-H4R") == filler_key("e7018"), filler_key("SFA-5.18 ER70S-6")
    (True, 'ER70S6')
    """
    bare = _DESIGNATOR.sub("", _FILLER_SPEC.sub("", name.strip().upper()))
    return "".join(filter(str.isalnum, bare))


def plain_key(name: str) -> str:
    """Return a name without case, blanks and punctuation, but with decimal points and the sign of `DC+`, `DC-`."""
    folded = name.casefold()
    if folded.isalnum():
        return folded  # as most are, and a start reads hundreds
    signed = folded.strip().replace("−", "-")
    sign = signed[-1:] if signed[-1:] in "+-" else ""
    return "".join(c for c in signed if c.isalnum() or c == ".") + sign
