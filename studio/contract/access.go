package contract

// Session tells whether this device may come to the teacher's side.
type Session struct {
	Needed   bool   `json:"needed"` // whether anybody has to sign in
	SignedIn bool   `json:"signed_in"`
	Device   string `json:"device"`
}

// SignIn asks to let a device in.
type SignIn struct {
	Passcode string `json:"passcode"`
	Device   string `json:"device"` // as it will stand beside what is adjusted on it
}
