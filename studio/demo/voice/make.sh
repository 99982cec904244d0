#!/bin/sh
# Makes the recorded voice of the demo: nobody's, but that of the synthesiser espeak-ng. It needs espeak-ng and lame, and is run
# in this folder where the words change. A word that is left out shows how what is missing is told.
set -eu
while read -r word; do
    espeak-ng -v en-gb -s 155 -p 45 --stdout "$word" |
        lame --quiet -m m -b 24 --resample 24 - "$(printf %s "$word" | tr ' ' '-').mp3"
done <<'WORDS'
inhale
exhale
hold
empty
out
natural breath
rest natural breath
at your own pace
one
two
three
four
five
six
seven
eight
nine
ten
eleven
twelve
thirteen
fourteen
fifteen
sixteen
left
right
close the left
close the right
one more the last
half way
one minute left
thirty seconds left
hand up
then
hand down
finish the round
in left
out left
in right
out right
WORDS
