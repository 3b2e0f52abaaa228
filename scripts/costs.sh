#!/usr/bin/env bash
# Measures what a pixel costs by the size of the shape, prints it, and draws the plot of docs/performance.md
# (docs/screenshots/cost-by-size.png). Installs what is missing (apt-get).
exec "$(dirname "$0")/bench.sh" --costs docs/screenshots/cost-by-size.png
