"""Django's own commands, within the environment that `./start` makes."""

import os
import sys

from django.core.management import execute_from_command_line

if __name__ == "__main__":
    os.environ.setdefault("DJANGO_SETTINGS_MODULE", "upper_rim.web.settings")
    execute_from_command_line(sys.argv)
