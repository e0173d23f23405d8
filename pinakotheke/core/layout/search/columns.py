"""Columns of the plain arrays that the search's kernel works on, and its fixed sizes and points."""

# an option, whole numbers
ROLE, BELOW, ABOVE, LOWEST, HIGHEST, EACH, ROW, FLOOR, COVERED, BOARD, STORE = range(11)
# an option, fractions; money and hours are points already
STEP, MASS, TARE, PRICE, CAPACITY, RATING, COLUMN, AGAINST, LEAST = range(9)
# a group
COUNT, OWNER, CLASS, KIND, WORD, FIRST = range(6)
# a bay
TYPE, PITCHES, HAS_BASE, LOOSE, AT_HAND, BLOCKS, LINE, LAST = range(8)
# a bay, fractions
FRONT_COST, SHELF_PRICE, COVER_PRICE, STANDS = range(4)
# a compartment, whole numbers
C_ROLE, C_BELOW, C_ABOVE, C_LO, C_HI, C_FOOT, C_LOTS, C_MASK, C_OWNER, C_FLOOR, C_COVER, C_BOARD, C_COVERED = range(13)
# a compartment, fractions
C_USED, C_MASS, C_CAPACITY, C_RATING, C_PRICE = range(5)
# a lot: group, option, pieces
GROUP, OPTION, PIECES = range(3)
# points
(OUT, OUT_PIECE, SPLIT, APART, WORDS, CROWD, MIXED, OWNERS, OVER_RAIL, RESERVE, EMPTY, FREE) = range(12)
WEIGHTS = 12

MOST_COMPARTMENTS, MOST_LOTS = 16, 12
NO_OWNER = 0
STORES = 9
"""Kinds of storage."""
CLOTHES, SHOES, FOOD, AGENTS, WASH = 1, 2, 4, 8, 16
"""What must keep apart, as bits."""
MODULUS, MULTIPLIER = 2147483647, 48271
BIG = 1e15
