"""answer with the order of work and its operations."""

from __future__ import annotations

import argparse
from pathlib import Path

from nullah.cli import options as read


def add(parser: argparse.ArgumentParser) -> None:
    """Add the options."""
    parser.add_argument("file", type=Path)
    parser.add_argument("--json", required=True)


def run(options: argparse.Namespace) -> int:
    """Answer with the order of work."""
    from nullah.core.plan import work_out
    from nullah.core.wording.operations import operation_words
    from nullah.core.wording.task_titles import task_title
    from nullah.core.work.answer import work_data
    from nullah.core.work.order_of_work import order_of_work

    plan = work_out(read.project(options.file), milling=False, proving=False)
    answer = work_data(
        plan,
        order_of_work(plan),
        lambda each: operation_words([each], plan.reader),
        lambda task: task_title(task, plan.reader),
    )
    return read.write_json(options.json, answer)
