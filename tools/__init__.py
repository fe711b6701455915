"""What is run by hand while the program is made."""
