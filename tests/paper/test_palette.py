import pytest

from nullah.paper.palette import DAY, INK, NIGHT, contrast, mixed


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
