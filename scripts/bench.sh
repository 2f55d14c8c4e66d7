#!/usr/bin/env bash
# Every bench against its limit, or another script that is named. Installs and builds what is missing, and leaves no
# database behind, however it ends.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. ./scripts/prepare.sh
need_node; need_packages; need_mariadb; need_chromium; need_build
scratch_folder
in_scratch node_modules/.bin/tsx "${@:-bench/src/main.ts}"
