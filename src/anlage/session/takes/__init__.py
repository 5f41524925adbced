"""What the weld takes, and what other designs of its joint would."""
