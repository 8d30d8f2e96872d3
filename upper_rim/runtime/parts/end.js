// What the style sheet leaves to these scripts from now on.
root.toggleAttribute("data-rim-on", true);
