from fractions import Fraction

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nullah.core.lengths import (
    MM_PER_INCH,
    Direction,
    Length,
    LengthError,
    LengthFault,
    Marks,
    NoLength,
    Unit,
    entered,
    inch,
    mm,
    read_length,
    read_slope,
    read_weight,
)
from nullah.core.wording.facts import error_words


@pytest.mark.parametrize(
    ("text", "bare", "millimetres"),
    [
        ("1 7/8", Unit.INCH, Fraction(15, 8) * MM_PER_INCH),
        ('1-7/8"', Unit.MM, Fraction(15, 8) * MM_PER_INCH),
        ("47.6 mm", Unit.INCH, Fraction(476, 10)),
        ("2' 3 1/2\"", Unit.MM, Fraction(55, 2) * MM_PER_INCH),
        ("2′ 3½″", Unit.MM, Fraction(55, 2) * MM_PER_INCH),
        ("18+0.5", Unit.MM, Fraction(37, 2)),
        ("1/2 of 19", Unit.MM, Fraction(19, 2)),
        ("1/2 of 1 1/2", Unit.INCH, Fraction(3, 4) * MM_PER_INCH),
        ("47,6", Unit.MM, Fraction(476, 10)),
        ("4 cm", Unit.INCH, Fraction(40)),
        ("1⅞", Unit.INCH, Fraction(15, 8) * MM_PER_INCH),
        ("3/4 in + 2 mm", Unit.MM, Fraction(3, 4) * MM_PER_INCH + 2),
        ("1 - 1/4", Unit.INCH, Fraction(3, 4) * MM_PER_INCH),
        (".5", Unit.MM, Fraction(1, 2)),
        ("-3", Unit.MM, Fraction(-3)),
    ],
)
def test_reads_what_people_type(text, bare, millimetres):
    length = read_length(text, bare)
    assert length.mm == millimetres
    # What was typed, with its unit, is the same length wherever it is read again.
    for other in Unit:
        assert read_length(length.text, other).mm == millimetres


@pytest.mark.parametrize(
    ("text", "fault"),
    [
        ("", LengthFault.NOTHING),
        ("   ", LengthFault.NOTHING),
        ("abc", LengthFault.NO_LENGTH),
        ("1..2", LengthFault.TWO_LENGTHS),
        ("5 5", LengthFault.TWO_LENGTHS),
        ("3/0", LengthFault.OVER_NOTHING),
        ("18x", LengthFault.UNKNOWN_UNIT),
        ("1 +", LengthFault.ENDS_IN_SIGN),
        ("+ + 1", LengthFault.TWO_SIGNS),
        ("1/2 of", LengthFault.UNKNOWN_UNIT),
        ("1 furlong", LengthFault.UNKNOWN_UNIT),
        ("'", LengthFault.NO_LENGTH),
        ("900000 m", LengthFault.TOO_LONG),
        ("1" * 101, LengthFault.TEXT_TOO_LONG),
        ("1" * 13, LengthFault.TOO_MANY_DIGITS),
        ("18 + 0.5 in", LengthFault.UNIT_MISSING),
    ],
)
def test_says_why_something_is_no_length(text, fault):
    with pytest.raises(LengthError) as refusal:
        read_length(text)
    assert refusal.value.fact.fault is fault
    said = error_words(refusal.value)
    assert said.endswith(".") and " " in said


def test_asks_rather_than_guesses_the_unit_of_a_bare_term():
    with pytest.raises(LengthError) as refused:
        read_length("18 + 0.5 in", Unit.MM)
    assert refused.value.fact == NoLength(LengthFault.UNIT_MISSING, "18 + 0.5 in", "18")
    assert read_length("18 + 0.5 mm", Unit.MM).mm == Fraction(37, 2)


def test_keeps_what_was_typed():
    assert read_length("1 7/8", Unit.INCH).as_text() == "1 7/8 in"
    assert Marks(Unit.INCH).write_entered(read_length("1 7/8", Unit.INCH)) == "1 7/8″"
    # In the other unit it is shown to the mark, and still not lost.
    assert Marks(Unit.MM).write_entered(read_length("1 7/8 in")) == "47.5 mm"


exact = st.fractions(min_value=-1000, max_value=1000, max_denominator=6000)


@given(exact, st.sampled_from(Unit))
def test_text_of_any_length_reads_back_exactly(value, unit):
    length = entered(Length(value), unit)
    assert read_length(length.as_text()).mm == value


parts = st.builds(
    "{} {}{}".format,
    st.sampled_from(["", "-", "+"]),
    st.sampled_from(["3", "1/2", "1 7/8", "0.5", "½"]),
    st.sampled_from(["", " mm", '"', " in", " ft", "'", "cm"]),
)


@given(st.lists(parts, min_size=1, max_size=4).map(" ".join), st.sampled_from(Unit), st.sampled_from(Unit))
def test_what_was_typed_reads_back_as_the_very_same_entry(text, unit, other):
    try:
        entry = read_length(text, unit)
    except LengthError:
        return
    assert read_length(entry.text, other) == entry


@given(exact, exact, exact)
def test_arithmetic_is_exact(a, b, c):
    one, two, three = Length(a), Length(b), Length(c)
    assert ((one + two) - two) == one
    assert (one + two) * 3 == one * 3 + two * 3
    assert ((one + three) / 7) * 7 == one + three


@given(exact, st.sampled_from(Unit), st.sampled_from(Direction))
def test_rounding_lands_on_a_mark_and_keeps_its_direction(value, unit, direction):
    marks = Marks(unit)
    rounded = marks.to_mark(Length(value), direction)
    assert (rounded.mm / marks.smallest.mm).denominator == 1
    off = rounded.mm - value
    assert abs(off) <= marks.smallest.mm / (2 if direction is Direction.NEAREST else 1)
    if direction is Direction.UP:
        assert off >= 0
    if direction is Direction.DOWN:
        assert off <= 0


@pytest.mark.dear
@given(st.text(max_size=20))
def test_any_text_is_a_length_or_a_sentence(text):
    try:
        read_length(text)
    except LengthError as error:
        assert str(error)


def test_writes_to_the_users_mark():
    assert Marks(Unit.INCH, inch_mark=Fraction(1, 16)).write(inch("1.9")) == "1 7/8″"
    assert Marks(Unit.MM, mm_mark=Fraction(1)).write(mm("19.5")) == "20 mm"
    assert Marks(Unit.MM).write(mm("19.2"), Direction.UP) == "19.5 mm"
    assert Marks(Unit.INCH).off_true(inch("0.65")) == "0.006″ full"
    assert Marks(Unit.INCH).off_true(inch("5/8")) == ""


@pytest.mark.parametrize(("text", "run"), [("1:7", 7), ("1 in 8", 8), ("6", 6), ("1/6.7", Fraction(67, 10))])
def test_reads_slopes(text, run):
    assert read_slope(text).run == run
    assert read_slope(read_slope(text).as_text()) == read_slope(text)


@pytest.mark.parametrize("text", ["", "steep", "1:0", "1:1", "1:100", "2:7"])
def test_refuses_slopes_past_sense(text):
    with pytest.raises(LengthError):
        read_slope(text)


@pytest.mark.parametrize(
    ("text", "bare", "kilograms"),
    [
        ("12 kg", Unit.INCH, 12),
        ("12", Unit.MM, 12),
        ("12", Unit.CM, 12),
        ("0", Unit.MM, 0),
        ("1000", Unit.MM, 1000),
        # The international pound, exact by definition (1959), from memory.
        ("25", Unit.INCH, 25 * Fraction("0.45359237")),
        ("2,5 lbs", Unit.MM, Fraction("2.5") * Fraction("0.45359237")),
        ("1 pound", Unit.MM, Fraction("0.45359237")),
    ],
)
def test_reads_weights(text, bare, kilograms):
    assert read_weight(text, bare).kilograms == kilograms
    assert read_weight(read_weight(text, bare).as_text()) == read_weight(text, bare)


@pytest.mark.parametrize("text", ["", "heavy", "-3", "12 mm", "1000.1", "2205 lb", "kg", "1" * 101])
def test_refuses_weights_past_sense(text):
    with pytest.raises(LengthError) as error:
        read_weight(text)
    assert text[:15] in error_words(error.value)
