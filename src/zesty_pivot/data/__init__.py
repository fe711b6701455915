"""What ships with the program: demo, fonts, icons."""
