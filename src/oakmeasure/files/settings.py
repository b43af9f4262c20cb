"""What a person has chosen for the program itself, kept in $XDG_CONFIG_HOME/oak-measure/settings.json."""

from __future__ import annotations

import json
from dataclasses import asdict, dataclass
from pathlib import Path

from platformdirs import user_config_path

from oakmeasure.files.private import ONLY_MINE, private_folder
from oakmeasure.language import Language

SCALES = (1.0, 1.25, 1.5, 2.0)  # of everything on the screen


@dataclass(frozen=True, slots=True)
class Settings:
    """What the person set for the application."""

    dark: bool = False
    """Pencil on dark paper."""
    scale: float = 1.0
    """How many times as large as usual everything is drawn, one of SCALES."""
    language: Language = Language.ENGLISH
    """That the screen speaks."""


def place() -> Path:
    """Return where they are kept."""
    return user_config_path("oak-measure") / "settings.json"


def read_settings() -> Settings:
    """Return what was chosen; what is missing, damaged or makes no sense is as it is at first. Never raises."""
    try:
        found = json.loads(place().read_text(encoding="utf-8"))
    except (OSError, ValueError, RecursionError):
        return Settings()
    if not isinstance(found, dict):
        return Settings()
    scale = found.get("scale")
    language = next((each for each in Language if each == found.get("language")), Language.ENGLISH)
    return Settings(found.get("dark") is True, scale if scale in SCALES else 1.0, language)


def keep_settings(settings: Settings) -> None:
    """Keep what was chosen.

    Args:
        settings: The settings.

    Raises:
        JobFileError: Where it cannot be written.
    """
    from oakmeasure.files.job.job_file import JobFileError, write_whole  # what is read at the start is light

    try:
        private_folder(place().parent)
    except OSError as error:
        raise JobFileError(f"the settings were not kept: {(error.strerror or str(error)).lower()}") from None
    write_whole(place(), json.dumps(asdict(settings), indent=1).encode("utf-8"), mode=ONLY_MINE)
