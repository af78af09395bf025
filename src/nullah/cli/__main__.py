"""``python -m nullah.cli``."""

from nullah.cli import main

raise SystemExit(main())
