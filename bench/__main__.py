"""`make bench`: interiors, the filling of runs, hand edits at the API, whole searches, crowded surveys, lists, lines."""

from . import edits, interiors, lines, runs, searches, surveys, things

for part in (interiors, runs, edits, searches, surveys, things, lines):
    part.main()
