"""`make bench`: walls, the ten briefs, runs, hand edits at the API, frames in the browser, whole searches, crowded
surveys, lists, lines.
"""

from . import briefs, edits, frames, lines, runs, searches, surveys, things, walls

for part in (walls, briefs, runs, edits, frames, searches, surveys, things, lines):
    part.main()
