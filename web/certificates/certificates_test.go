package certificates_test

import (
	"context"
	"crypto/tls"
	"crypto/x509"
	"io"
	"log"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"vastlantern/language"
	"vastlantern/web/certificates"
)

func own(t *testing.T, name string) *certificates.Authority {
	t.Helper()
	a, err := certificates.Own(name, time.Now)
	require.NoError(t, err)
	return a
}

// get asks a server of the authority under a name, trusting only what is given.
func get(t *testing.T, a *certificates.Authority, name string, trusted []byte) error {
	t.Helper()
	listener, err := tls.Listen("tcp", "127.0.0.1:0", a.Config())
	require.NoError(t, err)
	server := http.Server{
		Handler:           http.HandlerFunc(func(w http.ResponseWriter, _ *http.Request) { _, _ = w.Write([]byte("lit")) }),
		ReadHeaderTimeout: time.Second,
		ErrorLog:          log.New(io.Discard, "", 0),
	}
	go func() { _ = server.Serve(listener) }()
	defer server.Close()
	pool := x509.NewCertPool()
	require.True(t, pool.AppendCertsFromPEM(trusted))
	dial := func(_ context.Context, network, _ string) (net.Conn, error) {
		return net.Dial(network, listener.Addr().String())
	}
	client := http.Client{
		Transport: &http.Transport{TLSClientConfig: &tls.Config{RootCAs: pool, ServerName: name}, DialContext: dial},
	}
	response, err := client.Get("https://" + name)
	if err != nil {
		return err
	}
	defer response.Body.Close()
	return nil
}

// A device that has installed the authority trusts this machine by its names and addresses; it is the same after the
// next start.
func TestADeviceTrustsThisMachine(t *testing.T) {
	name := filepath.Join(t.TempDir(), "lantern.db")
	a := own(t, name)
	for _, host := range []string{"127.0.0.1", "localhost", certificates.Name} {
		require.NoError(t, get(t, a, host, a.PEM()), host)
	}
	again := own(t, name)
	assert.Equal(t, a.PEM(), again.PEM())
	assert.Regexp(t, "^([0-9A-F]{2}:){31}[0-9A-F]{2}$", again.Fingerprint())
	require.NoError(t, get(t, again, certificates.Name, a.PEM()))
	stranger := own(t, filepath.Join(t.TempDir(), "x"))
	require.Error(t, get(t, a, certificates.Name, stranger.PEM()), "another authority vouches for nothing here")
	require.Error(t, get(t, a, "example.com", a.PEM()))
	info, err := os.Stat(name + ".authority-key.pem")
	require.NoError(t, err)
	assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
}

// What it can vouch for is written in it, so that who steals its key can read nobody's bank.
func TestTheAuthorityIsForLocalNamesOnly(t *testing.T) {
	name := filepath.Join(t.TempDir(), "lantern.db")
	own(t, name)
	pair, err := tls.LoadX509KeyPair(name+".authority.pem", name+".authority-key.pem")
	require.NoError(t, err)
	assert.True(t, pair.Leaf.PermittedDNSDomainsCritical)
	assert.Contains(t, pair.Leaf.PermittedDNSDomains, "local")
	for _, network := range pair.Leaf.PermittedIPRanges {
		assert.True(t, network.IP.IsPrivate() || network.IP.IsLoopback() || network.IP.IsLinkLocalUnicast(), network.String())
	}
	assert.WithinDuration(t, time.Now().AddDate(10, 0, 0), pair.Leaf.NotAfter, time.Hour)

	// A tool that did not come from us reads it.
	openssl, err := exec.LookPath("openssl")
	if err != nil {
		t.Skip("there is no openssl here")
	}
	text, err := exec.Command(openssl, "x509", "-in", name+".authority.pem", "-noout", "-text").CombinedOutput()
	require.NoError(t, err, string(text))
	assert.Contains(t, string(text), "CA:TRUE, pathlen:0")
	assert.Contains(t, string(text), "Name Constraints: critical")
	assert.Contains(t, string(text), "DNS:local")
}

func TestFilesThatAreWrong(t *testing.T) {
	name := filepath.Join(t.TempDir(), "lantern.db")
	own(t, name)
	require.NoError(t, os.WriteFile(name+".authority.pem", []byte("no"), 0o600))
	_, err := certificates.Own(name, time.Now)
	require.Contains(t, language.English().Error(err), name+".authority.pem")
	name = filepath.Join(t.TempDir(), "lantern.db")
	own(t, name)
	_, err = certificates.Own(name, func() time.Time { return time.Now().AddDate(11, 0, 0) })
	require.Contains(t, language.English().Error(err), "ended on")
}

// A key that others can read is taken from them, and with the key alone the authority is still the one that devices
// trust.
func TestTheKeyIsKept(t *testing.T) {
	name := filepath.Join(t.TempDir(), "lantern.db")
	first := own(t, name)
	key := name + ".authority-key.pem"
	for _, mode := range []os.FileMode{0o644, 0o666, 0o640} {
		require.NoError(t, os.Chmod(key, mode))
		own(t, name)
		info, err := os.Stat(key)
		require.NoError(t, err)
		assert.Equal(t, os.FileMode(0o600), info.Mode().Perm())
	}
	before, err := os.ReadFile(key)
	require.NoError(t, err)
	require.NoError(t, os.Remove(name+".authority.pem"))
	again := own(t, name)
	after, err := os.ReadFile(key)
	require.NoError(t, err)
	assert.Equal(t, string(before), string(after))
	require.NoError(
		t,
		get(t, again, "localhost", first.PEM()),
		"a device that has the first certificate installed trusts it",
	)

	require.NoError(t, os.Remove(name+".authority.pem"))
	require.NoError(t, os.WriteFile(key, []byte("no key"), 0o600))
	_, err = certificates.Own(name, time.Now)
	assert.Contains(t, language.English().Error(err), "is no key of a certificate authority")
	text, err := os.ReadFile(key)
	require.NoError(t, err)
	assert.Equal(t, "no key", string(text), "it is not replaced")
}

// Whatever names are asked for, the certificate stays the one that was made: anybody can ask.
func TestForeignNamesMakeNoCertificates(t *testing.T) {
	a := own(t, filepath.Join(t.TempDir(), "lantern.db"))
	ours, theirs := net.Pipe()
	defer ours.Close()
	defer theirs.Close()
	first, err := a.Config().GetCertificate(&tls.ClientHelloInfo{ServerName: certificates.Name, Conn: ours})
	require.NoError(t, err)
	for _, name := range []string{"example.org", "a.example.org", "", "10.0.0.1", certificates.Name} {
		got, err := a.Config().GetCertificate(&tls.ClientHelloInfo{ServerName: name, Conn: ours})
		require.NoError(t, err)
		assert.Same(t, first, got, name)
	}
}
