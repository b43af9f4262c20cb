"""Phrases: a sentence is found by its pattern, what stands in its places is said in turn, names stay."""

from __future__ import annotations

import re

import pytest
from hypothesis import given
from hypothesis import strategies as st

from oakmeasure.data import text as data_text
from oakmeasure.language import Language, current_language, german, set_catalogue, set_language, tr
from oakmeasure.language.phrases import PLACE, Phrases, read_phrases

SAID = {
    "top rail": "oberer Querfries",
    "hinge stile": "Bandfries",
    "Two people, or a lift": "Zu zweit, oder mit Heber",
    "The leaf weighs {0}.": "Das Blatt wiegt {0}.",
    "{0}, weight": "Gewicht: {0}",
    "{0} of {1} boards": "{0} von {1} Brettern",
    "{0} meets the {1}": "{1} trifft auf {0}",
    "sheet": "Platte",
    "look again": "nachsehen",
}


@pytest.mark.parametrize(
    ("english", "said"),
    [
        ("top rail", "oberer Querfries"),
        ("Top rail", "Oberer Querfries"),
        ("top rail:", "oberer Querfries:"),
        ("The leaf weighs 25.8 kg.", "Das Blatt wiegt 25,8 kg."),
        ("top rail, weight", "Gewicht: oberer Querfries"),
        ("3 of 12 boards", "3 von 12 Brettern"),
        ("hinge stile meets the top rail", "oberer Querfries trifft auf Bandfries"),
        ("Two people, or a lift. The leaf weighs 40 kg.", "Zu zweit, oder mit Heber. Das Blatt wiegt 40 kg."),
        ("sheet 4", "Platte 4"),
        ("<b>top rail</b><br>look again", "<b>oberer Querfries</b><br>nachsehen"),
        ("Aunt Ada's larder", "Aunt Ada's larder"),
        ("127.0.0.1", "127.0.0.1"),
        ("12.5", "12,5"),
        ("", ""),
    ],
)
def test_text_is_said_by_its_pattern_and_what_is_no_text_of_the_program_stays(english: str, said: str) -> None:
    assert Phrases(SAID).tr(english) == said


def test_door_says_what_is_spoken_and_english_again() -> None:
    set_catalogue(Phrases(SAID))
    try:
        assert tr("top rail") == "oberer Querfries"
    finally:
        set_catalogue(None)
    assert tr("top rail") == "top rail"


@given(st.text(max_size=80))
def test_no_text_makes_the_phrases_stumble(text: str) -> None:
    assert isinstance(Phrases(SAID).tr(text), str)


def test_a_sentence_of_which_little_is_known_stays_whole_and_what_was_said_is_not_said_again() -> None:
    phrases = Phrases(SAID)
    typed = "The lad has left the top rail to dry on the loft floor again"
    assert phrases.tr(typed) == typed
    phrases.mark_final("sheet")
    assert phrases.tr("sheet") == "sheet"


def test_phrase_is_not_found_within_a_word() -> None:
    phrases = Phrases({"{0} out {1}": "{0} heraus {1}", "out {0}": "heraus {0}", "all {0}": "alle {0}"})
    assert phrases.tr("Rout the grooves") == "Rout the grooves"
    assert phrases.tr("fall 3") == "fall 3"
    assert phrases.tr("all 3") == "alle 3"


def test_what_somebody_typed_is_no_strange_text_and_stays() -> None:
    phrases = Phrases(SAID)
    assert not phrases.is_known("Sheet room, the leaf weighs 3 kg.")
    phrases.names.add("Sheet room")
    assert phrases.is_known("Sheet room")
    assert phrases.tr("Sheet room") == "Sheet room"


# What a search is made among has the words of both languages, and so its number twice.
SEARCHED = "cup hinge concealed overlay centre 35 cabinet"


def numbers_in(text: str) -> list[str]:
    """Return the numbers that a phrase says itself, without those of its places."""
    return sorted(re.findall(r"\d+(?:\.\d+)?", re.sub(r"\{\d+\}", "", text).replace(",", ".")))


def test_every_german_phrase_has_the_places_of_the_english_one() -> None:
    said = read_phrases(data_text("phrases-de.po"))
    assert len(said) > 6000
    # A place too many would stand on the screen as it is; one too few, and a figure is lost.
    assert [each for each, text in said.items() if set(PLACE.findall(text)) != set(PLACE.findall(each))] == []
    assert [each for each, text in said.items() if numbers_in(text) != numbers_in(each)] == [SEARCHED]


def test_german_is_spoken_from_the_choice_to_the_next_one() -> None:
    set_language(Language.GERMAN)
    try:
        assert current_language() is Language.GERMAN
        assert tr("top rail") == "oberer Querfries"
        assert tr("12.5 mm") == "12,5 mm"
    finally:
        set_language(Language.ENGLISH)
    assert tr("top rail") == "top rail"


@pytest.mark.parametrize(
    ("before", "name", "phrase", "said"),
    [
        ("tief in ", "unterer Querfries", "{0} deep in {1}.", "unterem Querfries"),
        ("in ", "unterer Querfries", "{0} into the {1}", "unteren Querfries"),
        ("von ", "oberes Band", "", "oberem Band"),
        ("an ", "linke Seite", "", "linker Seite"),
        ("für ", "der obere Querfries", "", "den oberen Querfries"),
        ("mit ", "das linke Blatt", "", "dem linken Blatt"),
        ("auf ", "die Füllung", "", "der Füllung"),
        ("auf ", "obere Bänder", "", "obere Bänder"),  # several: the noun would change too, so they are left
        ("zu ", "12,5 mm", "", "12,5 mm"),
        ("", "unterer Querfries", "", "unterer Querfries"),
    ],
)
def test_german_name_after_a_preposition_changes_its_endings(before, name, phrase, said) -> None:
    assert german.after(before, name, phrase) == said


def test_german_name_in_a_place_of_a_phrase_is_declined() -> None:
    phrases = Phrases(
        {"{0} deep in the {1}.": "{0} tief in {1}.", "bottom rail": "unterer Querfries"}, after=german.after
    )
    assert phrases.tr("12 deep in the bottom rail.") == "12 tief in unterem Querfries."


@pytest.mark.parametrize(
    ("english", "said"),
    [
        ("1 board", "1 Brett"),
        ("12 boards; fewer is not possible", "12 Bretter; weniger geht nicht"),
        ("1 piece", "1 Stück"),
        ("2 panels", "2 Füllungen"),
        ("1 day late", "1 Tag zu spät"),
        ("2 days late", "2 Tage zu spät"),
        ("1 3/4 turns", "1 3/4 Umdrehungen"),
    ],
)
def test_what_is_counted_has_its_german_plural(english, said):
    set_language(Language.GERMAN)
    try:
        assert tr(english) == said
    finally:
        set_language(Language.ENGLISH)
