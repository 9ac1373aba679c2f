#!/bin/sh
# Installs Debian's Chromium for the browser tests.
set -eu
wanted=$1
if [ "$(id -u)" != 0 ]; then
	echo "The browser tests need Chromium at $wanted, and only root can install it." >&2
	echo "Ask for: apt-get install chromium   or say where one is: make test CHROMIUM=/path/to/chromium" >&2
	exit 1
fi
apt-get update -qq
DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium
test -x "$wanted"
