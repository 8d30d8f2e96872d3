"""One module for each subject: what is looked for, and where."""
