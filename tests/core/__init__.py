"""The core, on its own: no Django, no database.

Hypothesis draws the same examples every time, so that a run tells something about the change and not about luck;
`HYPOTHESIS_PROFILE=wander make test` looks further, at random.
"""

import os

from hypothesis import settings

settings.register_profile("steady", derandomize=True, deadline=None, database=None)
settings.register_profile("wander", deadline=None, max_examples=600)
settings.load_profile(os.environ.get("HYPOTHESIS_PROFILE", "steady"))
