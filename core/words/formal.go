package words

import "maps"

// formal is what is said to people who are addressed formally, by language, in place of the tables' familiar forms:
// usted and vous. English and German have no such forms among these words.
var formal = map[string]map[string]string{
	"es": {
		"inhale": "inhale", "hold": "sostenga", "exhale": "exhale", "stroke": "saque", "lead": "suelte el aire",
		HandUp: "suba la mano", HandDown: "baje la mano", Seal: "cierre las dos", ShutLeft: "cierre la izquierda",
		ShutRight: "cierre la derecha", ChangeSides: "cambie de lado", Finish: "termine la ronda",
		InLeft: "inhale izquierda", InRight: "inhale derecha", OutLeft: "exhale izquierda", OutRight: "exhale derecha",
		EndLeft: "exhale izquierda", EndRight: "exhale derecha", ChantOm: "cante om",
	},
	"fr": {
		"inhale": "inspirez", "hold": "retenez", "exhale": "expirez", "stroke": "soufflez", "lead": "laissez sortir l'air",
		HandUp: "levez la main", HandDown: "posez la main", Seal: "fermez les deux", ShutLeft: "fermez à gauche",
		ShutRight: "fermez à droite", ChangeSides: "changez de côté", Finish: "terminez le cycle",
		InLeft: "inspirez à gauche", InRight: "inspirez à droite", OutLeft: "expirez à gauche",
		OutRight: "expirez à droite", EndLeft: "expirez à gauche", EndRight: "expirez à droite", ChantOm: "chantez om",
	},
}

// Formal returns what is said formally in a language in place of its table, and the teacher's own words over that.
func Formal(tag string, own map[string]string) map[string]string {
	texts := maps.Clone(formal[tag])
	if texts == nil {
		return own
	}
	maps.Copy(texts, own)
	return texts
}
