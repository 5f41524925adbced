"""The place that tells what we have, in which state, and what is not covered."""
