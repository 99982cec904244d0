package studio

// HomeClass is a whole class as people at home do it by themselves, on some days.
type HomeClass struct {
	Title       string
	First, Last int    // its days, from 1
	Document    []byte // its plan file, as it is led
}
