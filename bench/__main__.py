"""`make bench`: interiors, the filling of runs, hand edits at the API, whole searches, crowded surveys, lists."""

from . import edits, interiors, runs, searches, surveys, things

for part in (interiors, runs, edits, searches, surveys, things):
    part.main()
