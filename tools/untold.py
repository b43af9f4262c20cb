"""Tell, after the linters, what is not wrong but waits: phrases that a language lacks, a schema to be printed anew."""

from __future__ import annotations

import json
from pathlib import Path

from oakmeasure.core.document.constructions import KINDS, trade_name
from oakmeasure.core.document.schema import job_schema
from oakmeasure.language import Language
from oakmeasure.language.phrases import phrases_of

SCHEMA = Path(__file__).parent.parent / "docs/job.schema.json"


def main() -> None:
    """Print a line for each thing that waits."""
    if json.loads(SCHEMA.read_text(encoding="utf-8")) != job_schema():
        print("docs/job.schema.json is to be printed anew: .venv/bin/oak-measure schema > docs/job.schema.json")
    for language in Language:
        if language is Language.ENGLISH:
            continue
        phrases = phrases_of(language)
        for name in map(trade_name, KINDS):
            if phrases.tr(name) == name:
                print(f"{language}: “{name}” is not said yet; tools/make_phrases.py {language} adds it")


if __name__ == "__main__":
    main()
