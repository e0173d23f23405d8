"""`make bench`: walls, the ten briefs, runs, hand edits at the API, whole searches, crowded surveys, lists, lines."""

from . import briefs, edits, lines, runs, searches, surveys, things, walls

for part in (walls, briefs, runs, edits, searches, surveys, things, lines):
    part.main()
