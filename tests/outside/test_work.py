"""The order of work against general libraries: critical path, rates from records, the calendar read back."""

import math
import random
from datetime import datetime

import ics
import networkx as nx
import pytest
from tests.core.test_rates import TRUTH, made

from nullah.core.bench.hours import Hours, plan_days
from nullah.core.bench.rates import learn
from nullah.core.bench.task_facts import SawBoard
from nullah.core.bench.tasks import Task, critical_path, in_order
from nullah.core.bench.trades import Trade
from nullah.core.plan import work_out
from nullah.core.wording.task_titles import task_title
from nullah.core.work.day_book import standing
from nullah.core.work.order_of_work import order_of_work
from nullah.demo.seed_cabinet import seed_cabinet
from nullah.files.calendar import calendar_text


def random_tasks(seed, count=80):
    chance = random.Random(seed)
    tasks = []
    for number in range(count):
        after = {str(chance.randrange(number)) for _ in range(chance.randint(0, 3))} if number else set()
        tasks.append(
            Task(str(number), SawBoard(str(number), 1), Trade.JOINT, (), tuple(after), waits=chance.choice((0, 0, 3)))
        )
    return tuple(tasks), {str(number): chance.uniform(1, 90) for number in range(count)}


def graph_of(tasks, minutes):
    graph = nx.DiGraph()
    for task in tasks:
        graph.add_node(task.id)
        for name in task.after:
            before = next(each for each in tasks if each.id == name)
            graph.add_edge(name, task.id, weight=minutes[name] + 60 * before.waits)
    return graph


@pytest.mark.parametrize("seed", range(8))
def test_the_critical_path_is_networkx_longest_path(seed):
    """networkx (general reference library): longest weighted path of the graph of tasks."""
    tasks, minutes = random_tasks(seed)
    found = critical_path(tasks, minutes)
    graph = graph_of(tasks, minutes)
    graph.add_node("end")
    for task in tasks:
        graph.add_edge(task.id, "end", weight=minutes[task.id] + 60 * task.waits)
    longest = nx.dag_longest_path_length(graph, weight="weight")
    assert max(timing.end for timing in found.values()) == pytest.approx(longest)
    critical = {name for name, timing in found.items() if timing.slack < 1e-6}
    assert set(nx.dag_longest_path(graph, weight="weight")) - {"end"} <= critical


def test_the_cabinets_order_is_a_topological_order_by_networkx():
    order = order_of_work(work_out(seed_cabinet(), milling=False, proving=False))
    graph = graph_of(order.tasks, {task.id: 1.0 for task in order.tasks})
    assert nx.is_directed_acyclic_graph(graph)
    place = {task.id: number for number, task in enumerate(order.tasks)}
    assert all(place[a] < place[b] for a, b in graph.edges)
    # A generation of networkx comes after all that its tasks hang on; in_order agrees with some such order.
    assert {task.id for task in in_order(order.tasks)} == {
        name for level in nx.topological_generations(graph) for name in level
    }


def test_no_calendar_ends_before_the_critical_path():
    tasks, minutes = random_tasks(3, 40)
    calendar = plan_days(tasks, minutes, Hours(((0, 1440),) * 7), datetime(2026, 1, 5))
    longest = max(timing.end for timing in critical_path(tasks, minutes).values())
    took = (calendar.finish - datetime(2026, 1, 5)).total_seconds() / 60
    assert took >= max(longest, sum(minutes.values())) - 1e-6


@pytest.mark.parametrize("seed", range(5))
def test_rates_are_recovered_from_records_made_with_known_ones(seed):
    """Synthetic records, one in ten of them wild; the truth lies within three of the spreads that are told."""
    found = learn(made(TRUTH, 150, seed, wild=0.1))
    for name, true in TRUTH.items():
        assert abs(math.log(found[name].factor / true)) < max(3 * found[name].spread, 0.12), (name, found[name])


def test_the_calendar_is_read_back_by_a_general_library():
    """ics (another iCalendar library than the one that wrote it)."""
    plan = work_out(seed_cabinet(), milling=False, proving=False)
    stand = standing(plan, datetime(2026, 11, 26, 18, 35))
    text = calendar_text(plan.project.piece.name, stand.calendar.stints, datetime(2026, 11, 26, 18, 35), plan.reader)
    events = sorted(ics.Calendar(text).events, key=lambda event: event.begin)
    first, last = stand.calendar.stints[0], stand.calendar.stints[-1]
    assert events[0].begin.naive == first.begin.replace(microsecond=0)
    assert events[-1].end.naive == last.end.replace(microsecond=0)
    assert task_title(first.task, plan.reader) in events[0].description and events[0].name.startswith(
        "Seed cabinet: Saw"
    )
    labour = sum((stint.end - stint.begin).total_seconds() for stint in stand.calendar.stints)
    assert sum((event.end - event.begin).total_seconds() for event in events) == pytest.approx(
        labour, abs=60 * len(events)
    )
