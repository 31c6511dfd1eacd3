#!/bin/sh
# Chromium as the tests start it: what it gets ready for its own address bar costs each window a second of a processor. Of several
# lists of features that are left out it takes the last alone, so those go into the list that comes with the command.
for arg; do
  shift
  case $arg in --disable-features=*) arg=$arg,WebUIOmniboxPopup,WebUIOmniboxAimPopup,WebUIOmniboxFullPopup ;; esac
  set -- "$@" "$arg"
done
exec /usr/bin/chromium "$@"
