"""Columns of the kernel's tables and its constants: plain numbers, so that reading them does not load the compiler."""

MOST_SLOTS = 24
MOST_IN_BAY = 120
MODULUS, MULTIPLIER = 2147483647, 48271
BIG = 1e18
OUT = 400.0
"""Points of a lot without a place during the search: more than any good spot costs, less than rebuilding all."""

# Columns of the integer spot table.
BAY, ROLE, UNITS, LOWEST, HIGHEST, ROW, RANK, FLOOR = range(8)
# Columns of the float spot table.
ASKED, MASS, ROOM, LOAD, OPEN, EXTRA = range(6)
# Columns of the bay tables.
PITCHES, HAS_BASE, LOOSE = range(3)
FRONT_COST, BASE_CREDIT, COVER_COST = range(3)
