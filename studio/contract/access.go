package contract

// Session reports whether this device may come to the teacher's side.
type Session struct {
	Needed   bool   `json:"needed"` // whether anybody has to sign in
	SignedIn bool   `json:"signed_in"`
	Device   string `json:"device"`
}

// SignIn asks to let a device in.
type SignIn struct {
	Passcode string `json:"passcode"`
	Device   string `json:"device"` // as it will run beside what is adjusted on it
}

// Certificate is how a device comes to trust the machine that serves.
type Certificate struct {
	Fingerprint string `json:"fingerprint"` // SHA-256, of what is installed
	Address     string `json:"address"`     // of the teacher's side, which is encrypted
	Secure      bool   `json:"secure"`      // this page came encrypted already
}
