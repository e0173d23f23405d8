"""Check: what is wrong with a design or a survey, measured against a limit that names its source.

A finding is data: a stable code, numbers, basis and source. Sentences are made at the edge, in `wording`. A check
warns and explains; it never says that something is permitted.
"""

from .findings import SEVERITIES, Finding, Severity
from .run import check_design, check_survey
from .wording import Slip, remedy, sentence, slip

__all__ = [
    "SEVERITIES",
    "Finding",
    "Severity",
    "Slip",
    "check_design",
    "check_survey",
    "remedy",
    "sentence",
    "slip",
]
