"""The place that tells what the code says, and who checked it."""
