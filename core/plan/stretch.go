package plan

import "vastlantern/core/practice"

// Stretch is a talk or a rest that goes by a name.
type Stretch struct {
	Type   Type
	Title  string          // that it gets in English; empty for none
	Joins  bool            // words that follow are added to the title, not in its place
	Called practice.Called // in every language, English too
}

// Stretches is talks and free breathing by the names that teachers give them. The first one of a language is how the
// program calls it.
var Stretches = []Stretch{
	{Talk, "", false, practice.Called{
		"en": {"talk", "speak", "explain"}, "de": {"ansage", "rede", "reden", "erklären"},
		"fr": {"explication", "parole", "parler", "expliquer"}, "es": {"explicación", "charla", "hablar", "explicar"},
	}},
	{Talk, "Welcome", true, practice.Called{
		"en": {"welcome", "introduction"}, "de": {"begrüßung", "einführung", "willkommen"},
		"fr": {"accueil", "bienvenue"}, "es": {"bienvenida", "acogida", "introducción"},
	}},
	{Talk, "Goodbye", true, practice.Called{
		"en": {"goodbye", "farewell"}, "de": {"abschied"}, "fr": {"au revoir"}, "es": {"despedida"},
	}},
	{Talk, "Questions", true, practice.Called{
		"en": {"questions"}, "de": {"fragen"}, "fr": {"questions"}, "es": {"preguntas"},
	}},
	{Free, "Rest", false, practice.Called{
		"en": {"rest", "lying rest"}, "de": {"ruhe", "ausruhen"}, "fr": {"repos"}, "es": {"descanso", "descansar"},
	}},
	{Free, "Relaxation", false, practice.Called{
		"en": {"relaxation", "final relaxation", "end relaxation", "deep relaxation", "guided relaxation"},
		"de": {"entspannung", "endentspannung", "schlussentspannung", "tiefenentspannung"},
		"fr": {"relaxation", "relaxation finale", "détente"}, "es": {"relajación", "relajación final"},
	}},
	{Free, "", false, practice.Called{
		"en": {"free", "natural breath", "breathe naturally", "natural breathing", "free breathing"},
		"de": {"natürlicher atem", "freier atem"},
		"fr": {"respiration naturelle", "respiration libre", "souffle naturel", "souffle libre"},
		"es": {"respiración natural", "respiración libre", "respirar con naturalidad"},
	}},
	{Free, "Quiet", true, practice.Called{
		"en": {"quiet", "silence", "stillness"}, "de": {"stille"}, "fr": {"silence"}, "es": {"silencio", "quietud"},
	}},
	{Free, "Sit", true, practice.Called{
		"en": {"sit", "sitting"}, "de": {"sitzen"}, "fr": {"assise", "s'asseoir"}, "es": {"sentarse", "sentada"},
	}},
	{Free, "Notice", true, practice.Called{
		"en": {"notice", "feel"}, "de": {"spüren", "nachspüren"}, "fr": {"ressentir", "observer", "sentir"},
		"es": {"sentir", "observar", "notar"},
	}},
	{Free, "Meditation", true, practice.Called{
		"en": {"meditation", "meditate"}, "de": {"meditation", "meditieren"}, "fr": {"méditation", "méditer"},
		"es": {"meditación", "meditar"},
	}},
	{Free, "Lying down", true, practice.Called{
		"en": {"lying down", "lie", "lying", "lie down", "savasana", "shavasana"}, "de": {"liegen", "savasana"},
		"fr": {"allongé", "s'allonger", "savasana"}, "es": {"tumbarse", "acostarse", "savasana"},
	}},
	{Free, "Postures", true, practice.Called{
		"en": {"postures", "asana", "asanas", "movement"}, "de": {"haltungen", "asana", "bewegung"},
		"fr": {"postures", "asanas", "mouvement"}, "es": {"posturas", "asanas", "movimiento"},
	}},
}
