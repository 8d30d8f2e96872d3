"""One module for each subject: what is looked for, and where. In rooms, by what has to be known for it."""
