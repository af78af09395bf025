"""A process that answers one question after another: the newest wins, and none is left behind."""

import gc
import os
import pickle
import signal
import subprocess
import sys
import time

import pytest
from tests.processes import alive, children_of, gone, parent

from nullah import forking
from nullah.background import Answer, Beside, Crashed, DroppedError


def twice(dropped, number):
    return 2 * number


def slowly(dropped, number):
    for _ in range(150):
        time.sleep(0.01)
        if dropped():
            raise DroppedError
    return number


def never(dropped, number):
    raise RuntimeError("no answer to that")


def ended(dropped, number):
    os._exit(3)


def heard(beside, seconds=20.0):
    until = time.monotonic() + seconds
    while time.monotonic() < until and beside.running:
        for told in beside.hear():
            return told
        time.sleep(0.005)
    return None


def answered(beside):
    """Wait for what is answered; return the number of the question and the answer."""
    told = heard(beside)
    return told.number, told.read()


def whoever(dropped):
    return os.getpid()


def asked_who(beside):
    beside.ask()
    return heard(beside).read()


def test_the_same_process_answers_and_all_of_them_have_one_parent_that_is_not_this_one():
    one, other = Beside(whoever), Beside(whoever)
    first, second = asked_who(one), asked_who(other)
    assert asked_who(one) == first != second
    assert parent(first) == parent(second) != os.getpid()
    nursery = parent(first)
    one.stop()
    assert gone(first) and alive(second)
    other.stop()
    assert gone(second) and alive(nursery)


def manners(dropped):
    return os.nice(0), gc.get_threshold()[0], gc.get_freeze_count() > 10_000


def test_what_answers_stands_behind_the_window_and_is_not_held_up_by_the_collector():
    for behind in (0, 3):
        beside = Beside(manners, behind=behind)
        assert asked_who(beside) == (os.nice(0) + behind, 2_000, True)
        beside.stop()


@pytest.mark.dear
def test_a_nursery_that_was_killed_is_begun_anew():
    beside = Beside(whoever)
    nursery = parent(asked_who(beside))
    os.kill(nursery, signal.SIGKILL)
    beside.stop()
    again = Beside(whoever)
    assert parent(asked_who(again)) != nursery
    again.stop()


@pytest.mark.dear
def test_a_nursery_ends_when_it_has_had_no_child_for_long_and_another_is_begun_when_it_is_wanted(monkeypatch):
    nurseries = [forking._Nursery(0.3)]
    monkeypatch.setattr(forking, "_NURSERIES", nurseries)
    beside = Beside(whoever)
    nursery = parent(asked_who(beside))
    assert nursery == nurseries[0].process.pid
    time.sleep(0.9)
    assert nurseries[0].process.poll() is None, "it has a child"
    beside.stop()
    assert nurseries[0].process.wait(20) == 0
    again = Beside(whoever)
    assert parent(asked_who(again)) not in (nursery, os.getpid())
    again.stop()
    assert nurseries[0]._close() is None and forking._RESTS_FOR >= 60


def busy(dropped):
    while True:
        sum(range(10**7))


def test_nothing_is_left_behind_by_whoever_is_killed():
    script = (
        "import sys, time; from tests.test_background import Beside, asked_who, busy, parent, whoever\n"
        "one, other = Beside(whoever), Beside(busy)\n"
        "nursery = parent(asked_who(one)); other.ask()\n"
        "print(nursery, flush=True); time.sleep(60)"
    )
    killed = subprocess.Popen([sys.executable, "-c", script], stdout=subprocess.PIPE, text=True)
    nursery = int(killed.stdout.readline())
    until = time.monotonic() + 20
    # The first may have answered before the second was begun.
    while len(children_of(nursery)) < 2 and time.monotonic() < until:
        time.sleep(0.02)
    there = {nursery, *children_of(nursery)}
    assert len(there) == 3
    killed.kill()
    killed.wait()
    until = time.monotonic() + 20
    while time.monotonic() < until and any(map(alive, there)):
        time.sleep(0.02)
    assert not [each for each in there if alive(each)]


def test_what_is_busy_is_ended_at_once():
    beside = Beside(busy)
    who = Beside(whoever)
    nursery = parent(asked_who(who))
    before = set(children_of(nursery))
    beside.ask()
    beside.stop()
    who_else = before - {asked_who(who)}
    assert len(before) == 2 and all(map(gone, who_else))
    who.stop()


def test_questions_are_answered_one_after_another():
    beside = Beside(twice)
    try:
        number = beside.ask(21)
        assert answered(beside) == (number, 42)
        number = beside.ask(3)
        assert answered(beside) == (number, 6)
    finally:
        beside.stop()
    assert not beside.running


@pytest.mark.dear
def test_a_new_question_drops_the_one_before():
    beside = Beside(slowly)
    try:
        beside.ask("first")
        time.sleep(0.5)
        beside.ask("second")
        last = beside.ask("third")
        assert answered(beside) == (last, "third"), "the others are not answered"
        assert list(beside.hear()) == []
    finally:
        beside.stop()


def test_what_goes_wrong_is_told_and_ends_it():
    for answering, words in ((never, "no answer to that"), (ended, "ended without a word")):
        beside = Beside(answering)
        beside.ask(1)
        told = heard(beside)
        assert isinstance(told, Crashed) and words in told.details
        assert not beside.running


def test_it_ends_when_nobody_asks_any_more():
    beside = Beside(twice)
    beside.ask(1)
    assert heard(beside) is not None
    beside._asks.close()
    assert isinstance(heard(beside), Crashed), "its end is heard"
    assert not beside.running


@pytest.mark.dear
def test_more_than_a_pipe_holds_is_asked_without_waiting():
    beside = Beside(slowly)
    try:
        beside.ask("a")
        for _ in range(3):
            beside.ask("b" * 3_000_000)
        assert beside._sender._work_queue.qsize() > 0, "whoever asks has gone on"
        last = beside.ask("end")
        assert answered(beside) == (last, "end")
    finally:
        beside.stop()


def test_a_long_answer_is_read_whole_and_other_threads_go_on_meanwhile(monkeypatch):
    told = [(number, str(number)) for number in range(100_000)], "a long word" * 30_000
    sent, rests = pickle.dumps(told), []
    monkeypatch.setattr("nullah.background.time.sleep", rests.append)
    assert Answer(1, sent).read() == told
    assert len(rests) > len(sent) / 200_000, "a thread that reads all of it at once lets no other one go on"
