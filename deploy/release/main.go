// Command release builds the program for every system that it is given to, each as an archive with the licences of what
// ships inside, and their checksums. The front end must have been built. No C compiler is needed.
package main

import (
	"archive/tar"
	"archive/zip"
	"bytes"
	"compress/gzip"
	"crypto/sha256"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"time"
)

// target is a system and a processor, by Go's names for them.
type target struct{ system, processor string }

var targets = []target{
	{
		"linux",
		"amd64",
	}, {"linux", "arm64"}, {"darwin", "amd64"}, {"darwin", "arm64"}, {"windows", "amd64"}, {"windows", "arm64"},
}

// called is what a system is called by the people who use it.
var called = map[string]string{"linux": "linux", "darwin": "macos", "windows": "windows"}

func (t target) program() string {
	if t.system == "windows" {
		return "lantern.exe"
	}
	return "lantern"
}

// file is one file of an archive.
type file struct {
	name string
	data []byte
	mode int64
}

func main() {
	if len(os.Args) != 3 {
		fmt.Fprintln(os.Stderr, "usage: release VERSION FOLDER")
		os.Exit(2)
	}
	if err := release(os.Args[1], os.Args[2]); err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

func release(version, folder string) error {
	if err := errors.Join(os.RemoveAll(folder), os.MkdirAll(folder, 0o755)); err != nil {
		return err
	}
	licences, err := os.ReadFile("ui/src/help/licences.txt")
	if err != nil {
		return err
	}
	readme, err := os.ReadFile("deploy/read-me.txt")
	if err != nil {
		return err
	}
	var sums strings.Builder
	for _, t := range targets {
		program, err := build(t, version)
		if err != nil {
			return fmt.Errorf("%s %s: %w", t.system, t.processor, err)
		}
		name := fmt.Sprintf("vast-lantern-%s-%s-%s", version, called[t.system], t.processor)
		files := []file{{t.program(), program, 0o755}, {"READ-ME.txt", readme, 0o644}, {"LICENCES.txt", licences, 0o644}}
		archive, data, err := pack(t, name, files)
		if err != nil {
			return err
		}
		if err := os.WriteFile(filepath.Join(folder, archive), data, 0o644); err != nil {
			return err
		}
		fmt.Fprintf(&sums, "%x  %s\n", sha256.Sum256(data), archive)
		fmt.Printf("%s  %.1f MB, the program %.1f MB\n", archive, megabytes(data), megabytes(program))
	}
	return os.WriteFile(filepath.Join(folder, "SHA256SUMS"), []byte(sums.String()), 0o644)
}

func megabytes(data []byte) float64 { return float64(len(data)) / 1e6 }

// build gives the program of a target. What finds faults in it is left out, and the paths of this machine.
func build(t target, version string) ([]byte, error) {
	out, err := os.MkdirTemp("", "release")
	if err != nil {
		return nil, err
	}
	defer os.RemoveAll(out)
	path := filepath.Join(out, t.program())
	if t.system == "windows" {
		remove, err := icon(t.processor, version)
		if err != nil {
			return nil, err
		}
		defer remove()
	}
	cmd := exec.Command(
		"go",
		"build",
		"-tags",
		"nomsgpack",
		"-trimpath",
		"-ldflags",
		"-s -w -X main.version="+version,
		"-o",
		path,
		"./cmd/lantern",
	)
	cmd.Env = append(os.Environ(), "CGO_ENABLED=0", "GOOS="+t.system, "GOARCH="+t.processor)
	cmd.Stderr = os.Stderr
	if err := cmd.Run(); err != nil {
		return nil, err
	}
	return os.ReadFile(path)
}

// icon lays beside the program what gives it an icon and a name on Windows.
func icon(processor, version string) (remove func(), err error) {
	cmd := exec.Command(
		"go",
		"run",
		"github.com/tc-hib/go-winres@v0.3.3",
		"make",
		"--in",
		"deploy/winres.json",
		"--out",
		"cmd/lantern/rsrc",
		"--arch",
		processor,
		"--product-version",
		version,
		"--file-version",
		version,
	)
	cmd.Stderr = os.Stderr
	made := "cmd/lantern/rsrc_windows_" + processor + ".syso"
	return func() { _ = os.Remove(made) }, cmd.Run()
}

// pack gives an archive and its name: as each system opens it by itself.
func pack(t target, name string, files []file) (string, []byte, error) {
	var out bytes.Buffer
	if t.system == "linux" {
		err := packTar(&out, name, files)
		return name + ".tar.gz", out.Bytes(), err
	}
	err := packZip(&out, name, files)
	return name + ".zip", out.Bytes(), err
}

// made is the time of all files, so that the same content is the same archive.
var made = time.Date(2026, 1, 1, 0, 0, 0, 0, time.UTC)

func packTar(out io.Writer, name string, files []file) error {
	packed, err := gzip.NewWriterLevel(out, gzip.BestCompression)
	if err != nil {
		return err
	}
	archive := tar.NewWriter(packed)
	for _, f := range files {
		if err := archive.WriteHeader(&tar.Header{Name: name + "/" + f.name, Mode: f.mode, Size: int64(len(f.data)),
			ModTime: made, Format: tar.FormatPAX}); err != nil {
			return err
		}
		if _, err := archive.Write(f.data); err != nil {
			return err
		}
	}
	return errors.Join(archive.Close(), packed.Close())
}

func packZip(out io.Writer, name string, files []file) error {
	archive := zip.NewWriter(out)
	for _, f := range files {
		header := &zip.FileHeader{Name: name + "/" + f.name, Method: zip.Deflate, Modified: made}
		header.SetMode(os.FileMode(f.mode))
		in, err := archive.CreateHeader(header)
		if err != nil {
			return err
		}
		if _, err := in.Write(f.data); err != nil {
			return err
		}
	}
	return archive.Close()
}
