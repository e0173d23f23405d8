"""`make bench`: walls, the ten briefs, runs, hand edits at the API, frames in the browser, whole searches, checks, drawer
inserts, cuts, the work on the wall, where is it among 20,000 things, crowded surveys, lists, lines.
"""

from . import (
    briefs,
    checks,
    cuts,
    edits,
    frames,
    inserts,
    install,
    lines,
    runs,
    searches,
    surveys,
    things,
    upkeep,
    walls,
)

for part in (
    walls,
    briefs,
    runs,
    edits,
    frames,
    searches,
    checks,
    inserts,
    cuts,
    install,
    upkeep,
    surveys,
    things,
    lines,
):
    part.main()
