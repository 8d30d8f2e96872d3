"""Pictures of the demo, drawn here as SVG: a wordless logo, a coast with a ship, a shelf of plants."""

from __future__ import annotations

OSTREY_LOGO = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="168" height="40" viewBox="0 0 168 40" role="img" aria-label="Ostrey Ferries">'
    '<path d="M3 27c5-5 8-5 13 0s8 5 13 0 5-4 8-2" fill="none" stroke="#0b6e8a" stroke-width="3" stroke-linecap="round"/>'
    '<path d="M7 19l4-10h12l6 10z" fill="#12344d"/><text x="44" y="27" textLength="64" lengthAdjust="spacingAndGlyphs" font-family="Georgia,serif" font-size="20" font-weight="700" fill="#12344d">Ostrey</text>'
    '<text x="111" y="27" textLength="54" lengthAdjust="spacingAndGlyphs" font-family="Georgia,serif" font-size="20" fill="#0b6e8a">Ferries</text></svg>'
)

OSTREY_ICON = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40" viewBox="0 0 40 40">'
    '<rect width="40" height="40" rx="8" fill="#d9ecf2"/><path d="M9 20l4-10h14l6 10z" fill="#12344d"/>'
    '<path d="M4 29c5-5 8-5 13 0s8 5 13 0 4-3 6-3" fill="none" stroke="#0b6e8a" stroke-width="4" stroke-linecap="round"/></svg>'
)
QUILLWORT_ICON = (
    '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="40" viewBox="0 0 40 40">'
    '<rect width="40" height="40" rx="8" fill="#fbf8f1"/><g fill="none" stroke="#3f5a36" stroke-width="3" stroke-linecap="round">'
    '<path d="M20 34V10M20 34C18 26 12 18 8 14M20 34c2-8 8-16 12-20"/></g><circle cx="20" cy="33" r="4" fill="#2b2a26"/></svg>'
)


def coast(sky: str, sea: str, land: str, ship_at: int) -> str:
    """A coast seen from the water, 960 by 320, with a ship at a distance from the left."""
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 960 320"><path fill="{sky}" d="M0 0h960v320H0z"/>'
        f'<path fill="{land}" d="M0 190c90-70 150-40 240-60s150-80 250-30 170 10 250 40 140 20 220 60v40H0z"/>'
        f'<path fill="{sea}" d="M0 220c120-14 240 12 360 0s240-12 360 2 160 4 240-4v102H0z"/>'
        f'<g transform="translate({ship_at} 196)"><path fill="#fff" d="M20 0h70l14 22H10z"/><path fill="#12344d" d="M0 22h120l-14 24H16z"/>'
        f'<path fill="#e9b44c" d="M62-22h14V0H62z"/></g></svg>'
    )


def leaves(ground: str, leaf: str) -> str:
    """A row of plants on a plain ground, 960 by 320."""
    plants = "".join(
        f'<g transform="translate({90 + at * 150} 300)"><path d="M0 0V-{120 + at * 17 % 70}" stroke="{leaf}" stroke-width="5"/>'
        f'<path fill="{leaf}" d="M0-60c40-10 60-40 62-80-44 6-62 36-62 80zM0-110c-36-8-54-34-56-70 38 4 56 30 56 70z"/></g>'
        for at in range(6)
    )
    return f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 960 320"><path fill="{ground}" d="M0 0h960v320H0z"/>{plants}</svg>'
