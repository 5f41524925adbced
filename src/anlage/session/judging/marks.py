"""What the people of a works said of the rules that a verdict hangs on, in words."""

from collections.abc import Iterable, Sequence

from anlage.core.codes import Rule, Rung

NOT_CHECKED = "Not compared with an owned copy of the code"


def is_checked(rung: Rung) -> bool:
    """Return whether every rule of a rung was laid beside an owned copy of the edition in use."""
    return bool(rung.rules) and all(rule.checks for rule in rung.rules)


def check_sentences(rules: Iterable[Rule]) -> tuple[str, ...]:
    """Return who checked some rules against which copy, each sentence once; for one that nobody did, that."""
    return tuple(dict.fromkeys(_checked(rule) for rule in rules))


def overlay_sentences(rules: Iterable[Rule]) -> tuple[str, ...]:
    """Return what was put in place of words of some rules and why, each sentence once."""
    found = (rule.overlay for rule in rules if rule.overlay is not None)
    return tuple(dict.fromkeys(f"{each.by} corrected it on {each.on[:10]}: {each.reason}" for each in found))


def unchecked(rungs: Sequence[Rung]) -> tuple[Rule, ...]:
    """Return the rules of some rungs that nobody laid beside an owned copy, each once."""
    found = {rule.id: rule for rung in rungs for rule in rung.rules if not rule.checks}
    return tuple(found.values())


def used(rungs: Sequence[Rung]) -> tuple[Rule, ...]:
    """Return every rule of some rungs, each once."""
    return tuple({rule.id: rule for rung in rungs for rule in rung.rules}.values())


def _checked(rule: Rule) -> str:
    if not rule.checks:
        return NOT_CHECKED
    last = rule.checks[-1]
    return f"Checked by {last.by} on {last.on[:10]} against {last.copy}, edition {last.edition}"
