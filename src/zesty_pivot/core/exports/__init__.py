"""The formats that a style leaves the program in, one a module. A module that defines `EXPORT` is found by the registry: the
command line, the menus, the paper view and "save everything" have it from there."""
