"""How the pattern leaves the program: pages, and what is done with them."""
