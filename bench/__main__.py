"""`make bench`: the searches, hand edits at the API, and the filling of runs."""

from . import edits, runs, searches

for part in (searches, edits, runs):
    part.main()
