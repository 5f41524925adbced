"""What every refusal of the command line looks like."""


def refusal(call, *words):
    """Return the one line of a call that must be refused, after checking that it is one."""
    status, out, err = call(*words)
    assert (status, out) == (2, "")
    assert err.count("\n") == 1
    return err.strip()
