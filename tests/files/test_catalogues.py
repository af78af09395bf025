"""Catalogues: every message is in the template, and a reader of British terms meets no American one."""

import re
import subprocess
import sys
from dataclasses import replace
from pathlib import Path

import pytest
from babel.messages.pofile import read_po
from tests.core.test_wording import facts_of

from nullah.core import actions
from nullah.core.catalogue import Name, Phrase
from nullah.core.forms import FORMS
from nullah.core.lengths import Marks
from nullah.core.plan import work_out
from nullah.core.project import Piece, Project
from nullah.core.reader import Reader
from nullah.core.wording.facts import all_worders, fact_words
from nullah.files.catalogues import catalogue_for, load, locales

ROOT = Path(__file__).parents[2]
BRITISH = load("en_GB")
AMERICAN_TERMS = re.compile(
    r"\b(rabbet|dado|clamp|plow|vise|miter|mold|color|caliper)(s|ed|ing|ings)?\b", re.IGNORECASE
)
BRITISH_TERMS = re.compile(r"\b(rebate|cramp|plough|mitre|mould|colour|calliper|neighbour|grey)", re.IGNORECASE)


def template():
    with (ROOT / "src/nullah/terms/messages.pot").open("rb") as stream:
        return read_po(stream)


def pieces():
    """Yield every form with every option of every choice, the others as usual."""
    for form in FORMS.values():
        yield Project(Piece(form.id))
        for choice in form.choices:
            for option, _ in choice.options[1:]:
                yield Project(Piece(form.id, choices=((choice.name, option),)))


@pytest.mark.dear
def test_the_catalogues_are_what_the_code_says():
    done = subprocess.run([sys.executable, ROOT / "script/catalogue", "--check"], capture_output=True, text=True)
    assert done.returncode == 0, done.stderr


def messages_of(text):
    """Yield the messages that a title is made of."""
    if isinstance(text, Phrase):
        yield text.message
        for value in text.values.values():
            yield from messages_of(value)
    elif not isinstance(text, Name) and not text.isdigit():
        yield text


def test_every_title_of_every_form_and_choice_is_in_the_template():
    known = {each.id if isinstance(each.id, str) else each.id[0] for each in template()}
    missing = set()
    for project in pieces():
        plan = work_out(project, milling=False, proving=False)
        titles = [quantity.definition.title for quantity in plan.ledger.quantities.values()]
        titles += [text for each in plan.form.choices for text in (each.title, *(title for _, title in each.options))]
        missing |= {message for title in titles for message in messages_of(title)} - known
    assert not missing


def test_a_british_reader_meets_rebates_and_housings_wherever_facts_are_said():
    reader = Reader(Marks(catalogue=BRITISH))
    for kind in all_worders():
        for fact in facts_of(kind):
            assert not AMERICAN_TERMS.search(fact_words(fact, reader)), fact
    for project in pieces():
        plan = work_out(replace(project, marks=reader.marks), milling=False, proving=False)
        said = [plan.reader.title(name) for name in plan.ledger.quantities]
        said += [fact_words(remark.fact, plan.reader) for remark in plan.remarks]
        assert not [text for text in said if AMERICAN_TERMS.search(text)]


def messages():
    """Yield every message, without its places; one that names both terms is left out."""
    for each in template():
        for message in (each.id,) if isinstance(each.id, str) else each.id:
            bare = re.sub(r"\{\w+\}", "", message)
            if not bare.startswith(("American:", "British:")):
                yield message, bare


def test_the_source_is_american():
    assert not [message for message, bare in messages() if BRITISH_TERMS.search(bare)]


def test_a_british_reader_meets_no_american_term_in_any_message():
    for each in template():
        ids = (each.id,) if isinstance(each.id, str) else each.id
        said = BRITISH.messages.get(ids[0], ids)
        bare = re.sub(r"\{\w+\}", "", " ".join(said))
        assert not AMERICAN_TERMS.search(bare), ids


def test_names_of_parts_bring_their_own_article():
    """“Divider 2” has none: `Reader.the` says which do."""
    with_article = re.compile(r"\b[Tt]he \{(part|guest|host|mate|mover|moving|still|fixed)\}")
    ids = [each.id if isinstance(each.id, str) else each.id[0] for each in template()]
    assert not [message for message in ids if with_article.search(message)]


def test_what_somebody_called_a_thing_is_never_said_otherwise():
    title = Phrase("{size} of {board}", size="width", board=Name("rabbet"))
    assert BRITISH.text(title) == "width of rabbet" and BRITISH.text("rabbet") == "rebate"


def test_every_place_of_a_message_is_kept_in_its_translation():
    with (ROOT / "src/nullah/terms/en_GB.po").open("rb") as stream:
        for each in read_po(stream, locale="en_GB"):
            ids = (each.id,) if isinstance(each.id, str) else each.id
            strings = (each.string,) if isinstance(each.string, str) else each.string
            for one, other in zip(ids, strings, strict=False):
                places = re.findall(r"\{\w+\}", one)
                assert not each.id or not other or sorted(places) == sorted(re.findall(r"\{\w+\}", other)), other


@pytest.mark.parametrize(
    ("environment", "locale"),
    [
        ({}, "en_US"), ({"LANG": "C.UTF-8"}, "en_US"), ({"LANG": "en_GB.UTF-8"}, "en_GB"), ({"LANG": "fr_FR"}, "en_US"),
        ({"LANG": "en_US", "LC_ALL": "en_GB"}, "en_GB"), ({"LANG": "en_GB", "LC_MESSAGES": "en_US.UTF-8"}, "en_US"),
        ({"LANGUAGE": "en_IE:en_GB:en", "LANG": "de_DE"}, "en_GB"), ({"LANG": "../en_GB"}, "en_US"),
    ],
)  # fmt: skip
def test_the_terms_follow_the_locale(environment, locale):
    assert catalogue_for(environment).locale == locale


def test_another_language_is_a_file(tmp_path, monkeypatch):
    """A catalogue laid into the folder is offered and found, for its whole locale and for its language alone."""
    monkeypatch.setattr("nullah.files.catalogues._TERMS", tmp_path)
    head = 'msgid ""\nmsgstr "Content-Type: text/plain; charset=utf-8\\n"\n\n'
    for name, said in (("nds", "Falz"), ("nds_NL", "sponning")):
        (tmp_path / f"{name}.po").write_text(f'{head}msgid "rabbet"\nmsgstr "{said}"\n', encoding="utf-8")
    load.cache_clear()
    found = [catalogue_for({"LANG": lang}).text("rabbet") for lang in ("nds_DE.UTF-8", "nds_NL", "fr_FR", "en_AU")]
    load.cache_clear()
    assert locales() == ("en_US", "nds", "nds_NL") and found == ["Falz", "sponning", "rabbet", "rabbet"]


def test_plurals_follow_the_catalogue():
    reader = Reader(Marks(catalogue=replace(BRITISH, messages={"{n} clamp.": ("{n} cramp.", "{n} cramps.")})))
    assert [reader.count(n, "{n} clamp.", "{n} clamps.") for n in (0, 1, 2)] == ["0 cramps.", "1 cramp.", "2 cramps."]


def test_undo_and_units_leave_the_terms_as_they_are():
    british = replace(Project(Piece("box")), marks=Marks(catalogue=BRITISH))
    inches = actions.show_in(british, replace(british.marks, inch_mark=british.marks.inch_mark / 2))
    assert inches.marks.catalogue == BRITISH
