#!/bin/sh
# Installs Debian's poppler tools, with which the browser tests read PDF back.
set -eu
if [ "$(id -u)" != 0 ]; then
	echo "The tests read PDF with Debian's poppler tools, and only root can install them." >&2
	echo "Ask for: apt-get install poppler-utils" >&2
	exit 1
fi
apt-get update -qq
DEBIAN_FRONTEND=noninteractive apt-get install -y -qq poppler-utils
command -v pdftotext >/dev/null
