"""A process that answers one question after another: the newest wins, and none is left behind."""

import os
import time

from nullah.background import Answer, Beside, Crashed, DroppedError


def twice(dropped, number):
    return 2 * number


def slowly(dropped, number):
    for _ in range(600):
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


def test_questions_are_answered_one_after_another_by_the_same_process():
    beside = Beside(twice)
    try:
        number = beside.ask(21)
        assert heard(beside) == Answer(number, 42)
        process = beside._process.pid
        number = beside.ask(3)
        assert heard(beside) == Answer(number, 6) and beside._process.pid == process
    finally:
        beside.stop()
    assert not beside.running and beside._process.poll() is not None


def test_a_new_question_drops_the_one_before():
    beside = Beside(slowly)
    try:
        beside.ask("first")
        time.sleep(0.5)
        beside.ask("second")
        last = beside.ask("third")
        assert heard(beside) == Answer(last, "third"), "the others are not answered"
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
    beside._process.wait(10)
    assert beside._process.returncode == 0
    beside.stop()


def test_more_than_a_pipe_holds_is_asked_without_waiting():
    beside = Beside(slowly)
    try:
        beside.ask("a")
        for _ in range(3):
            beside.ask("b" * 3_000_000)
        assert beside._sender._work_queue.qsize() > 0, "whoever asks has gone on"
        last = beside.ask("end")
        assert heard(beside) == Answer(last, "end")
    finally:
        beside.stop()
