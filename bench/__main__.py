"""`make bench`: the searches, hand edits at the API, the filling of runs, crowded surveys."""

from . import edits, runs, searches, surveys, things

for part in (searches, edits, runs, surveys, things):
    part.main()
