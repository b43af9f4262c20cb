"""`python -m oakmeasure` is `oak-measure`."""

from oakmeasure.cli.main import main

if __name__ == "__main__":
    main()
