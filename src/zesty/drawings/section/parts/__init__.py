"""What every section is made of, one function a part, so that it is the same everywhere."""
