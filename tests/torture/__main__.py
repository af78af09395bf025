"""``script/torture``: run the trials that are named, or all; say how many of each were tried and what failed."""

import argparse
import os
import sys
import tempfile
from pathlib import Path

from tests.torture import at_random, builds, carried_out, disks, kills, mutants, names, whole

#: Each trial: how many by default, and what runs it.
TRIALS = {
    "saves": (1000, kills.kills_in_saves),
    "desks": (100, kills.kills_of_desks),
    "full-disks": (None, lambda number, folder: disks.full_disks(folder)),
    "refused-calls": (None, lambda number, folder: disks.refused_calls(folder)),
    "projects": (10_000, lambda number, folder: mutants.project_mutants(number)),
    "tables": (10_000, lambda number, folder: mutants.table_mutants(number, folder)),
    "names": (None, lambda number, folder: names.hostile_names(folder)),
    "operations": (1000, lambda number, folder: carried_out.every_choice(number)),
    "builds": (20, lambda number, folder: builds.every_choice(number)),
    "sampled": (None, lambda number, folder: whole.whole_suite()),
    "actions": (3000, lambda number, folder: at_random.random_actions(number, folder)),
}


def main():
    parser = argparse.ArgumentParser(prog="script/torture", description=__doc__)
    parser.add_argument("trials", nargs="*", metavar="TRIAL", help=f"of {', '.join(TRIALS)}; all, if left out")
    parser.add_argument("--share", type=float, default=1.0, help="do this share of each, such as 0.1")
    options = parser.parse_args()
    unknown = set(options.trials) - set(TRIALS)
    if unknown:
        parser.error(f"no trial is called {', '.join(sorted(unknown))}")
    failed = 0
    with tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as root:
        os.environ["XDG_STATE_HOME"] = os.environ["XDG_CONFIG_HOME"] = f"{root}/home"
        for name in options.trials or TRIALS:
            number, trial = TRIALS[name]
            folder = Path(root) / name
            folder.mkdir()
            report = trial(max(1, round(number * options.share)) if number else None, folder)
            report.show()
            failed += len(report.failures)
    print("none lost, none broken, none hung" if not failed else f"{failed} failures", flush=True)
    # What still runs beside is of no account any more.
    sys.stdout.flush()
    os._exit(1 if failed else 0)


main()
