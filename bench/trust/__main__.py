"""All scripts, one after the other."""

from . import crowd, guessers, hostile, kills, reach, schemas, speeds

for part in (reach, hostile, schemas, speeds, guessers, crowd, kills):
    part.main()
