"""The command line: `python -m pinakotheke design | check | cut | draw`. It needs no Django and no server."""

import sys

from .cli import main

sys.exit(main())
