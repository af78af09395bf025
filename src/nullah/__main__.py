"""``python -m nullah``."""

from nullah.cli import main

raise SystemExit(main())
