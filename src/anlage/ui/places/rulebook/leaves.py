"""What the Rulebook leads to: every rule by its id."""

LEAVES = ("rules/*",)
