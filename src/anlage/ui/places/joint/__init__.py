"""The place that tells what shape, how much metal."""
