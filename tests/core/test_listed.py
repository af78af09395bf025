"""Lists in sentences, beside the list patterns of the Unicode CLDR as another library reads them."""

import pytest
from babel.lists import format_list

from nullah.core.lengths import Marks
from nullah.core.reader import Reader
from nullah.files.catalogues import load, locales

WORDS = ("side", "top", "back {1}", "rail, left", "back", "leg")


@pytest.mark.parametrize("style", ["standard", "or", "unit"])
@pytest.mark.parametrize("locale", locales())
def test_lists_read_as_the_language_has_them(locale, style):
    reader = Reader(Marks(catalogue=load(locale)))
    for count in range(len(WORDS) + 1):
        assert reader.listed(WORDS[:count], style) == format_list(WORDS[:count], style, locale=locale)


def test_those_beyond_the_most_are_counted():
    assert Reader().listed(WORDS[:3], most=3) == "side, top, and back {1}"
    assert Reader().listed(WORDS[:4], most=3) == "side, top, back {1}, and 1 more"
