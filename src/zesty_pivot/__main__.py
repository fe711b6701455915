"""`python -m zesty_pivot` is the command `zesty-pivot`."""

from zesty_pivot.cli.entry import main

if __name__ == "__main__":
    main()
