package homework

import "vastlantern/core/fact"

// TooMuch returns what one does at home when it was too much, in this order, and whom one asks. It is common practice,
// with no source, and gives no advice on health but to ask those who may.
func TooMuch(ask string) []fact.Fact {
	who := fact.New("too-much.ask-teacher")
	if ask != "" {
		who = fact.New("too-much.ask", "who", ask)
	}
	return []fact.Fact{
		fact.New("too-much.stop"), fact.New("too-much.rest"), fact.New("too-much.less"), who, fact.New("too-much.help"),
	}
}
