// Command licences collects the licences of everything that ships inside the program: the Go modules of the built
// binary and the packages of the front end. It reads what is on this machine only, and writes to standard output.
package main

import (
	"bytes"
	"cmp"
	"debug/buildinfo"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strings"
)

// shipped is one module or package, and the folder in which its licence stands.
type shipped struct{ name, version, folder string }

func main() {
	if len(os.Args) != 3 {
		fmt.Fprintln(os.Stderr, "usage: licences BINARY UI-FOLDER")
		os.Exit(2)
	}
	modules, err := modulesOf(os.Args[1])
	if err == nil {
		var packages []shipped
		packages, err = packagesOf(os.Args[2])
		modules = append(modules, packages...)
	}
	if err == nil {
		err = write(os.Stdout, modules)
	}
	if err != nil {
		fmt.Fprintln(os.Stderr, err)
		os.Exit(1)
	}
}

// modulesOf returns the Go modules in a built program, and Go itself.
func modulesOf(binary string) ([]shipped, error) {
	info, err := buildinfo.ReadFile(binary)
	if err != nil {
		return nil, err
	}
	root, err := exec.Command("go", "env", "GOROOT").Output()
	if err != nil {
		return nil, err
	}
	list := []shipped{{"Go and its standard library", "", strings.TrimSpace(string(root))}}
	for _, dep := range info.Deps {
		text, err := exec.Command("go", "list", "-m", "-json", dep.Path).Output()
		if err != nil {
			return nil, fmt.Errorf("%s: %w", dep.Path, err)
		}
		var module struct{ Dir string }
		if err := json.Unmarshal(text, &module); err != nil {
			return nil, err
		}
		list = append(list, shipped{dep.Path, dep.Version, module.Dir})
	}
	return list, nil
}

// inside is what is compiled into a package, under a licence that the package does not bring along.
var inside = map[string]shipped{"wasm-media-encoders": {"LAME, inside wasm-media-encoders", "", "web/licences/lame"}}

// packagesOf returns the packages that the front end is built with, not the tools that build it.
func packagesOf(ui string) ([]shipped, error) {
	command := exec.Command("npm", "ls", "--omit=dev", "--all", "--parseable")
	command.Dir = ui
	text, err := command.Output()
	if err != nil {
		return nil, fmt.Errorf("npm ls: %w", err)
	}
	seen := map[string]bool{}
	var list []shipped
	for _, folder := range strings.Fields(string(text))[1:] { // the first is our own
		about, err := os.ReadFile(filepath.Join(folder, "package.json"))
		if err != nil {
			return nil, err
		}
		var pack struct{ Name, Version string }
		if err := json.Unmarshal(about, &pack); err != nil {
			return nil, err
		}
		if !seen[pack.Name+pack.Version] {
			list = append(list, shipped{pack.Name, pack.Version, folder})
			if of, more := inside[pack.Name]; more {
				list = append(list, of)
			}
		}
		seen[pack.Name+pack.Version] = true
	}
	return list, nil
}

// write writes every licence once, under all that ship under it.
func write(w io.Writer, all []shipped) error {
	slices.SortStableFunc(
		all,
		func(a, b shipped) int { return cmp.Compare(strings.ToLower(a.name), strings.ToLower(b.name)) },
	)
	var order []string
	under := map[string][]string{}
	for _, one := range all {
		text, err := licenceIn(one.folder)
		if err != nil {
			return fmt.Errorf("%s: %w", one.name, err)
		}
		if under[text] == nil {
			order = append(order, text)
		}
		under[text] = append(under[text], strings.TrimSpace(one.name+" "+one.version))
	}
	var out bytes.Buffer
	for _, text := range order {
		fmt.Fprintf(&out, "%s\n\n%s\n\n%s\n\n", strings.Join(under[text], "\n"), text, strings.Repeat("-", 72))
	}
	_, err := out.WriteTo(w)
	return err
}

// licenceIn returns the licence that is in a folder, with its notices; where there is only the name of one, that name.
func licenceIn(folder string) (string, error) {
	entries, err := os.ReadDir(folder)
	if err != nil {
		return "", err
	}
	var parts []string
	for _, entry := range entries {
		name := strings.ToUpper(entry.Name())
		if entry.IsDir() ||
			!strings.HasPrefix(name, "LICEN") && !strings.HasPrefix(name, "COPYING") && !strings.HasPrefix(name, "NOTICE") {
			continue
		}
		text, err := os.ReadFile(filepath.Join(folder, entry.Name()))
		if err != nil {
			return "", err
		}
		parts = append(parts, strings.TrimSpace(strings.ReplaceAll(string(text), "\r\n", "\n")))
	}
	if len(parts) > 0 {
		return strings.Join(parts, "\n\n"), nil
	}
	var pack struct{ License string }
	if about, err := os.ReadFile(filepath.Join(folder, "package.json")); err == nil &&
		json.Unmarshal(about, &pack) == nil &&
		pack.License != "" {
		return "Licence: " + pack.License, nil
	}
	return "", errors.New("no licence was found")
}
