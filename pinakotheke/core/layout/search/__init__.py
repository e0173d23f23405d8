"""The search: a race of candidates, the alternatives that come of it, and what would have to give."""
