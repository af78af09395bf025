import pytest

from nullah.core.drawing import Role
from nullah.core.wood.species import all_species, find_species
from nullah.paper.painter import stroke_of
from nullah.paper.palette import DAY, INK, NIGHT, contrast, mixed, wood_tone


@pytest.mark.parametrize("palette", [DAY, NIGHT, INK], ids=lambda p: p.name)
def test_words_can_be_read_in_every_theme(palette):
    for ground in (palette.ground, palette.sheet, palette.raised):
        for ink in (palette.text, palette.quiet, palette.accent, palette.look, palette.fails):
            assert contrast(ink, ground) >= 4.5, (ink, ground)
    assert contrast(palette.look, palette.look_ground) >= 4.5
    assert contrast(palette.accent, palette.accent_ground) >= 4.5
    assert contrast(palette.raised, palette.accent) >= 4.5, "words on the main button"


def test_contrast_of_black_and_white_is_21():
    assert contrast("#000000", "#ffffff") == pytest.approx(21)
    assert mixed("#102030", "#ffffff", 0) == "#102030"


THEMES = pytest.mark.parametrize("palette", [DAY, NIGHT, INK], ids=lambda p: p.name)


def woods(palette):
    """Return every colour that wood has on a drawing: each species, picked or not, face or end."""
    tones = {find_species(name).tone for name in all_species()}
    assert len(tones) > 30
    return {wood_tone(tone, palette, lit, end) for tone in tones for lit in (False, True) for end in (False, True)}


@THEMES
def test_words_on_wood_can_be_read(palette):
    assert min(contrast(palette.text, wood) for wood in woods(palette)) >= 4.5


@THEMES
def test_lines_on_wood_and_on_the_sheet_can_be_seen(palette):
    """Every line that has a meaning, as the painter draws it; grain is only grain."""
    grounds = {*woods(palette), palette.sheet, palette.raised, palette.lit, palette.look_ground}
    for role in Role:
        if role not in (Role.GRAIN, Role.BARE):
            worst = min(grounds, key=lambda ground: contrast(stroke_of(role, palette).colour, ground))
            assert contrast(stroke_of(role, palette).colour, worst) >= 3, (role, worst)


@THEMES
def test_borders_of_what_is_worked_can_be_seen(palette):
    for ground in (palette.ground, palette.sheet, palette.raised, palette.accent_ground):
        assert contrast(palette.border, ground) >= 3
        assert contrast(palette.accent, ground) >= 3, "the focus"


@THEMES
def test_coloured_words_can_be_read_on_the_grounds_they_are_given(palette):
    """Words of a drawing that are not plain stand on a ground of the sheet's colour."""
    for ink in (palette.accent, palette.look, palette.fails, palette.quiet):
        assert contrast(ink, palette.sheet) >= 4.5
