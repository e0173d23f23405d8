"""All scripts, one after the other."""

from . import crowd, guessers, hostile, kills, reach, speeds

for part in (reach, hostile, speeds, guessers, crowd, kills):
    part.main()
