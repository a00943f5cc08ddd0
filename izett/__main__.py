"""`python -m izett`."""

import sys

from izett.cli import main

sys.exit(main())
