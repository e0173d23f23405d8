"""Columns of the plain arrays that the search's kernel works on, and its fixed sizes and points."""

# an option, whole numbers
ROLE, BELOW, ABOVE, LOWEST, HIGHEST, EACH, ROW, FLOOR, COVERED, BOARD, LEVEL, STORE = range(12)
# an option, fractions; money and hours are points already
STEP, MASS, TARE, PRICE, CAPACITY, RATING, COLUMN, AGAINST, LEAST = range(9)
# a group
COUNT, OWNER, CLASS, KIND, WORD, USE, KIN, SEASON = range(8)  # use in hundredths: the square root of uses a month
# a bay
TYPE, PITCHES, HAS_BASE, LOOSE, AT_HAND, BLOCKS, LINE, LAST, NEXT = range(9)  # next: the bay right beside it, or -1
# a bay, fractions
FRONT_COST, SHELF_PRICE, COVER_PRICE, STANDS, FAR, SECTION = range(6)  # metres from the way in
# a compartment, whole numbers
(
    C_ROLE,
    C_BELOW,
    C_ABOVE,
    C_LO,
    C_HI,
    C_FOOT,
    C_LOTS,
    C_MASK,
    C_OWNER,
    C_FLOOR,
    C_COVER,
    C_BOARD,
    C_LEVEL,
    C_COVERED,
) = range(14)
# a compartment, fractions
C_USED, C_MASS, C_CAPACITY, C_RATING, C_PRICE = range(5)
# a lot: group, option, pieces
GROUP, OPTION, PIECES = range(3)
# points
(
    OUT,
    OUT_PIECE,
    RESERVE,
    EMPTY,
    SPLIT,
    APART,
    WALLS,
    WORDS,
    CROWD,
    MIXED,
    OWNERS,
    OWNER_RUNS,
    OVER_RAIL,
    FAR_IN,
    LENGTHS,
    HEADROOM,
    KINS,
    UNEVEN,
    DOUBLE,
    LINES,
    LINED,
    FREE,
) = range(22)

MOST_COMPARTMENTS, MOST_LOTS = 16, 12
BY_FOOT, BY_TOP = 1, 2
"""What of a compartment makes a line with its neighbours': the board it stands on, or the top of a front."""
TOLERANCE = 2
"""Pitches that two heights may differ and be one line."""
TRIED = 3
"""Of the new compartments that a group could have, so many are judged exactly."""
SHELF, RAIL = 1, 3
"""The numbers of the roles of boards and of what garments hang from."""
EVERYBODY = -1
STORES = 9
"""Kinds of storage."""
CLOTHES, SHOES, FOOD, AGENTS, WASH, CLEANING, PAPER = 1, 2, 4, 8, 16, 32, 64
"""What must keep apart, as bits."""
MODULUS, MULTIPLIER = 2147483647, 48271
BIG = 1e15
