"""What a pattern maker does in one go and several steps need: plain functions from pattern to pattern, below the steps."""
