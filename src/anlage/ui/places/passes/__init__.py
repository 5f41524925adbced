"""The place that tells what is laid, in what order, with what energy."""
