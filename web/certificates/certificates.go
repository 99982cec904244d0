// Package certificates makes a certificate authority of the teacher's own, and certificates of it for the names and
// addresses of this machine. Devices on which the authority is installed trust this machine, and nothing else because
// of it: it can vouch only for private addresses and for names that end in .local (RFC 5280, section 4.2.1.10).
package certificates

import (
	"crypto/ecdsa"
	"crypto/elliptic"
	"crypto/rand"
	"crypto/sha256"
	"crypto/tls"
	"crypto/x509"
	"crypto/x509/pkix"
	"encoding/hex"
	"encoding/pem"
	"errors"
	"fmt"
	"io/fs"
	"math/big"
	"net"
	"os"
	"slices"
	"strings"
	"sync"
	"time"
)

const (
	authorityYears = 10
	// A certificate for this machine is made anew with each start; devices of some makers take none of more than 825 days.
	certificateDays = 90
	before          = time.Hour // by which clocks may differ
)

// Authority is the teacher's own.
type Authority struct {
	certificate *x509.Certificate
	key         *ecdsa.PrivateKey
	now         func() time.Time

	mutex sync.Mutex
	made  *tls.Certificate // for the addresses that were there when it was made
}

// Own returns the authority that is kept under a name, which is made if there is none: NAME.authority.pem for devices,
// and NAME.authority-key.pem, which nobody but its owner can read. Where only the certificate is lost, another one is
// made of the key: devices that have the authority installed go by its name and its key.
func Own(name string, now func() time.Time) (*Authority, error) {
	certificate, key := name+".authority.pem", name+".authority-key.pem"
	if err := tighten(key); err != nil {
		return nil, err
	}
	a, err := read(certificate, key)
	switch {
	case errors.Is(err, fs.ErrNotExist):
		if a, err = renew(key, now()); err == nil {
			err = a.write(certificate, key)
		}
	case err == nil && now().After(a.certificate.NotAfter):
		return nil, fmt.Errorf(
			"%s ended on %s: remove it and %s, and a new one is made, which devices have to install",
			certificate,
			a.certificate.NotAfter.Format(time.DateOnly),
			key,
		)
	}
	if err != nil {
		return nil, err
	}
	a.now = now
	return a, nil
}

// tighten takes the key from everybody but its owner, where a copy of it or another program had given it away.
func tighten(key string) error {
	info, err := os.Stat(key)
	if errors.Is(err, fs.ErrNotExist) || err == nil && info.Mode().Perm()&0o077 == 0 {
		return nil
	}
	if err == nil {
		err = os.Chmod(key, 0o600)
	}
	if err != nil {
		return fmt.Errorf("others can read the key of the certificate authority, and that cannot be changed: %w", err)
	}
	return nil
}

// renew makes an authority of the key that is kept, or of a new one if there is none.
func renew(keyPath string, now time.Time) (*Authority, error) {
	text, err := os.ReadFile(keyPath)
	if errors.Is(err, fs.ErrNotExist) {
		key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
		if err != nil {
			return nil, err
		}
		return create(key, now)
	}
	if err != nil {
		return nil, err
	}
	wrong := fmt.Errorf(
		"%s is no key of a certificate authority that lantern has made: restore it, or remove it, and a new authority is "+
			"made, which devices have to install",
		keyPath,
	)
	block, _ := pem.Decode(text)
	if block == nil {
		return nil, wrong
	}
	parsed, err := x509.ParsePKCS8PrivateKey(block.Bytes)
	key, ok := parsed.(*ecdsa.PrivateKey)
	if err != nil || !ok {
		return nil, wrong
	}
	return create(key, now)
}

func read(certificatePath, keyPath string) (*Authority, error) {
	pair, err := tls.LoadX509KeyPair(certificatePath, keyPath)
	if errors.Is(err, fs.ErrNotExist) {
		return nil, err
	}
	if err != nil {
		return nil, fmt.Errorf("%s and %s: %w", certificatePath, keyPath, err)
	}
	key, ok := pair.PrivateKey.(*ecdsa.PrivateKey)
	if !ok || !pair.Leaf.IsCA {
		return nil, fmt.Errorf("%s is no certificate authority that lantern has made", certificatePath)
	}
	return &Authority{certificate: pair.Leaf, key: key}, nil
}

func create(key *ecdsa.PrivateKey, now time.Time) (*Authority, error) {
	host, err := os.Hostname()
	if err != nil {
		host = "this machine"
	}
	of := &x509.Certificate{
		SerialNumber: serial(),
		Subject:      pkix.Name{CommonName: "Vast Lantern on " + host, Organization: []string{"Vast Lantern"}},
		NotBefore:    now.Add(-before), NotAfter: now.AddDate(authorityYears, 0, 0),
		IsCA: true, BasicConstraintsValid: true, MaxPathLenZero: true, KeyUsage: x509.KeyUsageCertSign | x509.KeyUsageCRLSign,
		PermittedDNSDomainsCritical: true, PermittedDNSDomains: domains(), PermittedIPRanges: private(),
	}
	der, err := x509.CreateCertificate(rand.Reader, of, of, &key.PublicKey, key)
	if err != nil {
		return nil, err
	}
	certificate, err := x509.ParseCertificate(der)
	return &Authority{certificate: certificate, key: key}, err
}

// domains returns the names that an authority can vouch for.
func domains() []string {
	list := []string{"local", "localhost"}
	if host, err := os.Hostname(); err == nil && !strings.Contains(host, ".") {
		list = append(list, strings.ToLower(host))
	}
	return list
}

// private returns the addresses of local networks and of the machine itself (RFC 1918, 3927, 4193, 4291).
func private() []*net.IPNet {
	var list []*net.IPNet
	for _, text := range []string{"10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8",
		"fc00::/7", "fe80::/10", "::1/128"} {
		_, network, err := net.ParseCIDR(text)
		if err != nil {
			panic(err) // they are written above
		}
		list = append(list, network)
	}
	return list
}

func serial() *big.Int {
	n, err := rand.Int(rand.Reader, new(big.Int).Lsh(big.NewInt(1), 127)) // RFC 5280, section 4.1.2.2: up to 20 octets
	if err != nil {
		panic(err) // it never fails
	}
	return n
}

func (a *Authority) write(certificatePath, keyPath string) error {
	der, err := x509.MarshalPKCS8PrivateKey(a.key)
	if err != nil {
		return err
	}
	if err := os.WriteFile(keyPath, pem.EncodeToMemory(&pem.Block{Type: "PRIVATE KEY", Bytes: der}), 0o600); err != nil {
		return err
	}
	return os.WriteFile(certificatePath, a.PEM(), 0o644)
}

// PEM returns the authority's certificate, as devices install it.
func (a *Authority) PEM() []byte {
	return pem.EncodeToMemory(&pem.Block{Type: "CERTIFICATE", Bytes: a.certificate.Raw})
}

// Fingerprint returns the SHA-256 of the certificate, to be held against what a device shows.
func (a *Authority) Fingerprint() string {
	sum := sha256.Sum256(a.certificate.Raw)
	text := strings.ToUpper(hex.EncodeToString(sum[:]))
	var pairs []string
	for i := 0; i < len(text); i += 2 {
		pairs = append(pairs, text[i:i+2])
	}
	return strings.Join(pairs, ":")
}

// Config serves with a certificate for this machine. Where it has got another address since, another certificate is
// made.
func (a *Authority) Config() *tls.Config {
	return &tls.Config{MinVersion: tls.VersionTLS12, GetCertificate: a.get}
}

func (a *Authority) get(hello *tls.ClientHelloInfo) (*tls.Certificate, error) {
	a.mutex.Lock()
	defer a.mutex.Unlock()
	// By the address that was reached, and not by the name that is asked for: anybody can ask for any, and each
	// certificate costs a key.
	at := net.ParseIP(hostOf(hello.Conn.LocalAddr()))
	now := a.now()
	moved := func() bool { return at != nil && a.VouchesFor(at) && a.made.Leaf.VerifyHostname(at.String()) != nil }
	if a.made == nil || now.After(a.made.Leaf.NotAfter.AddDate(0, 0, -1)) || moved() {
		made, err := a.make(now)
		if err != nil {
			return nil, err
		}
		a.made = made
	}
	return a.made, nil
}

func hostOf(address net.Addr) string {
	host, _, err := net.SplitHostPort(address.String())
	if err != nil {
		return address.String()
	}
	return host
}

// make makes a certificate for the names and addresses that this machine has now.
func (a *Authority) make(now time.Time) (*tls.Certificate, error) {
	key, err := ecdsa.GenerateKey(elliptic.P256(), rand.Reader)
	if err != nil {
		return nil, err
	}
	names, addresses := Names(), a.addresses()
	of := &x509.Certificate{
		SerialNumber: serial(),
		Subject:      pkix.Name{CommonName: "Vast Lantern"},
		NotBefore:    now.Add(-before),
		NotAfter:     now.AddDate(0, 0, certificateDays),
		KeyUsage:     x509.KeyUsageDigitalSignature,
		ExtKeyUsage:  []x509.ExtKeyUsage{x509.ExtKeyUsageServerAuth},
		DNSNames:     names,
		IPAddresses:  addresses,
	}
	der, err := x509.CreateCertificate(rand.Reader, of, a.certificate, &key.PublicKey, a.key)
	if err != nil {
		return nil, err
	}
	leaf, err := x509.ParseCertificate(der)
	return &tls.Certificate{Certificate: [][]byte{der}, PrivateKey: key, Leaf: leaf}, err
}

// Name is by what this machine is found on the local network, whatever its address.
const Name = "lantern.local"

// Names returns the names by which this machine can be called on the local network.
func Names() []string {
	list := []string{"localhost", Name}
	if host, err := os.Hostname(); err == nil && !strings.Contains(host, ".") {
		host = strings.ToLower(host)
		list = append(list, host, host+".local")
	}
	return list
}

// addresses returns the addresses of this machine for which the authority can vouch.
func (a *Authority) addresses() []net.IP {
	list := []net.IP{net.IPv4(127, 0, 0, 1), net.IPv6loopback}
	all, err := net.InterfaceAddrs()
	if err != nil {
		return list
	}
	for _, one := range all {
		network, ok := one.(*net.IPNet)
		if !ok || network.IP.IsLoopback() {
			continue
		}
		if a.VouchesFor(network.IP) {
			list = append(list, network.IP)
		}
	}
	return list
}

// VouchesFor reports whether an address is one of a local network, for which the authority can vouch. Some networks
// have others: there the machine is trusted by its name only.
func (a *Authority) VouchesFor(ip net.IP) bool {
	return slices.ContainsFunc(
		a.certificate.PermittedIPRanges,
		func(permitted *net.IPNet) bool { return permitted.Contains(ip) },
	)
}
