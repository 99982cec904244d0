package e2e

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
)

// onTheNetwork returns a program that others reach.
func onTheNetwork(t *testing.T, flags ...string) *theater {
	return openWith(t, clockRate, func(th *theater) {
		require.NoError(t, stage.SetPasscode(th.data, passcode))
		th.start("", append([]string{"--lan", "--no-name"}, flags...)...)
		require.NoError(t, th.program.SignIn(passcode, "laptop"))
	})
}

// stranger opens an address on a device that has not signed in.
func (th *theater) stranger(address string) *screen {
	th.Helper()
	return th.opened(address, 1280, 800)
}

func (th *theater) signIn(page *screen) {
	th.Helper()
	th.write(page, "#passcode:enabled", passcode)
	th.press(page, input.Enter)
	th.see(page, "body", "Lead a sample class")
}

// A device of the teacher's that comes without encryption is led to the certificate, and signs in encrypted, by the
// machine's name.
func TestADeviceIsLedToTheCertificate(t *testing.T) {
	th := onTheNetwork(t, "--tls")
	defer th.recovered()
	// As on a device that has installed it and finds the name: how that is done is the system's.
	browser, err := stage.Open("ignore-certificate-errors")
	require.NoError(t, err)
	t.Cleanup(browser.Close)
	th.browser = browser
	page := th.stranger(th.program.Named() + "/certificate") // where another machine is sent; this one is trusted
	th.see(page, "h1", "Trust this machine")
	th.see(page, "code", "^([0-9A-F]{2}:){31}[0-9A-F]{2}$")
	th.accessible(page, "the certificate")
	th.click(page, "a", "Then open https://"+stage.Name)
	th.signIn(page)
	require.True(t, th.eval(page, "() => isSecureContext").Bool())
	require.Equal(t, "https:", th.eval(page, "() => location.protocol").Str())
}

// Without encryption it is said once that the passcode can be read on its way.
func TestSigningInUnencryptedIsWarnedOfOnce(t *testing.T) {
	th := onTheNetwork(t)
	defer th.recovered()
	page := th.stranger(th.program.Named())
	th.see(page, ".modal .alert", "goes over the network unencrypted")
	require.True(t, th.act(page, "#passcode", "", "(e) => e.disabled").Bool())
	th.accessible(page, "signing in unencrypted")
	th.click(page, ".modal button", "It is my own network")
	th.signIn(page)
	th.eval(
		page,
		`() => fetch("/api/session", { method: "DELETE", headers: { "Content-Type": "application/json" }, body: "{}" `+
			`}).then(() => true)`,
	)
	th.reload(page)
	th.see(page, ".modal label", "Teacher's passcode")
	require.Zero(t, th.count(page, ".modal .alert"))
	th.signIn(page)
}
