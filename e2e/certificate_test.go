package e2e

import (
	"net/url"
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/require"

	"vastlantern/e2e/stage"
	"vastlantern/web"
	"vastlantern/web/certificates"
)

// onTheNetwork is a program that others reach, or the test is skipped.
func onTheNetwork(t *testing.T, flags ...string) *theater {
	th := openWith(t, func(th *theater) {
		require.NoError(t, stage.SetPasscode(th.data, passcode))
		th.start("0", append([]string{"--lan", "--no-name"}, flags...)...)
		require.NoError(t, th.program.SignIn(passcode, "laptop"))
	})
	if th.program.Network == "" {
		t.Skip("this machine has no address on a network")
	}
	return th
}

// stranger opens an address on a device that has not signed in.
func (th *theater) stranger(address string) *rod.Page {
	th.Helper()
	page, err := th.browser.Page(address, 1280, 800, patience)
	require.NoError(th, err)
	return page
}

func (th *theater) signIn(page *rod.Page) {
	page.MustElement("#passcode:enabled").MustInput(passcode)
	th.press(page, input.Enter)
	th.see(page, "body", "Lead a sample class")
}

// A device of the teacher's that comes without encryption is led to the certificate, and signs in encrypted, by the machine's name.
func TestADeviceIsLedToTheCertificate(t *testing.T) {
	th := onTheNetwork(t, "--tls")
	host := web.Addresses()[0]
	// As on a device that has installed it and finds the name: how that is done is the system's.
	browser, err := stage.Open("ignore-certificate-errors", "host-resolver-rules=MAP "+certificates.Name+" "+host)
	require.NoError(t, err)
	t.Cleanup(browser.Close)
	th.browser = browser
	plain, err := url.Parse(th.program.URL)
	require.NoError(t, err)
	page := th.stranger("http://" + certificates.Name + ":" + plain.Port() + "/")
	th.see(page, "h1", "Trust this machine")
	th.see(page, "code", "^([0-9A-F]{2}:){31}[0-9A-F]{2}$")
	th.accessible(page, "the certificate")
	th.click(page, "a", "Then open https://"+certificates.Name)
	th.signIn(page)
	require.True(t, page.MustEval("() => isSecureContext").Bool())
	require.Equal(t, "https:", page.MustEval("() => location.protocol").Str())
}

// Without encryption it is said once that the passcode can be read on its way.
func TestSigningInUnencryptedIsWarnedOfOnce(t *testing.T) {
	th := onTheNetwork(t)
	page := th.stranger(th.program.Network)
	th.see(page, ".modal .alert", "goes over the network unencrypted")
	require.NotNil(t, page.MustElement("#passcode").MustAttribute("disabled"))
	th.accessible(page, "signing in unencrypted")
	th.click(page, ".modal button", "It is my own network")
	th.signIn(page)
	page.MustEval(`() => fetch("/api/session", { method: "DELETE", headers: { "Content-Type": "application/json" }, body: "{}" }).then(() => true)`)
	require.NoError(t, page.Reload())
	th.see(page, ".modal label", "Teacher's passcode")
	require.Empty(t, page.MustElements(".modal .alert"))
	th.signIn(page)
}
