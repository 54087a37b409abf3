#!/usr/bin/env bash
# Makes FobbleChild-Regular.ttf again: the letters we print, cut out of Andika (Debian: fonts-sil-andika, fonttools) and named anew,
# since the Open Font License reserves the original's name.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")"
cut=$(mktemp --suffix .ttf)
pyftsubset /usr/share/fonts/truetype/andika/Andika-Regular.ttf --no-hinting --layout-features= --name-IDs='*' --output-file="$cut" \
  --unicodes=U+0020-007E,U+00A0-017F,U+0218-021B,U+1EA0-1EF9,U+2013,U+2014,U+2018-201D,U+2026,U+2212,U+00D7,U+2192,U+25A1
/usr/bin/python3 - "$cut" <<'PYTHON'
import sys
from fontTools.ttLib import TTFont
font = TTFont(sys.argv[1], recalcTimestamp=False)
new = {1: "Fobble Child", 3: "Fobble Child Regular subset", 4: "Fobble Child", 6: "FobbleChild-Regular", 16: "Fobble Child"}
kept = (0, 2, 5, 13, 14)
font["name"].names = [name for name in font["name"].names if name.nameID in new or name.nameID in kept]
for name in font["name"].names:
    if name.nameID in new:
        name.string = new[name.nameID]
font.save("FobbleChild-Regular.ttf")
PYTHON
rm "$cut"
