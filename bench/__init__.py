"""Benchmarks: they print figures, ratios and bounds, and assert nothing about time."""
