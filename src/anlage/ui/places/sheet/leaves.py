"""What the Sheet leads to: the revisions of a procedure, beside what it is now."""

LEAVES = ("revisions/*",)
