"""`python -m wheelend`."""

import sys

from wheelend.cli import main

sys.exit(main())
