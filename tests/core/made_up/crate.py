"""A made-up kind of section: one table, read here."""

import tomllib
from pathlib import Path

from pinakotheke.core.survey.sections import SectionKind

CRATE = SectionKind.model_validate(tomllib.loads(Path(__file__).with_suffix(".toml").read_text("utf-8"))["crate"])
