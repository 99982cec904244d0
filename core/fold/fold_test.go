package fold

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"golang.org/x/text/unicode/norm"
)

// Marks and capital letters do not matter, in whichever form of Unicode (UAX 15) they come.
func TestText(t *testing.T) {
	for given, want := range map[string]string{
		"Schädelleuchten": "schadelleuchten", "Straße": "strasse", "Respiración": "respiracion",
		"Éveil, cœur": "eveil, coeur", "prāṇāyāma": "pranayama", "śītalī": "shitali", "Kaṇṭha ṛ": "kantha ri",
		"niño": "nino", "l’océan": "l'ocean", "plain": "plain",
	} {
		assert.Equal(t, want, Text(given))
		assert.Equal(t, want, Text(norm.NFD.String(given)), "the same in parts: %s", given)
	}
}
