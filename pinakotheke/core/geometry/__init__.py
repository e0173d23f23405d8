"""Shapes that know nothing of the trade."""
