"""What the suite only samples, whole: all forms, choices, units and marks."""

import os
import subprocess
import sys
from pathlib import Path

from tests.torture.reports import Report

ROOT = Path(__file__).resolve().parents[2]


def whole_suite():
    """Run every case of the tests that are sampled."""
    report = Report("sampled tests, all of their cases")
    command = [sys.executable, "-m", "pytest", "-q", "-n", "2", "--dist", "worksteal", "-m", "sampled or whole"]
    done = subprocess.run(command, cwd=ROOT, env=os.environ | {"NULLAH_WHOLE": "1"}, capture_output=True, text=True)
    lines = done.stdout.splitlines()
    report.tried += sum(line.count(".") for line in lines if "%]" in line)
    for line in lines:
        if line.startswith(("FAILED", "ERROR")):
            report.fail(line)
    if done.returncode and not report.failures:
        report.fail(done.stdout[-400:])
    return report
