package main

import (
	"bytes"
	"context"
	"path/filepath"
	"runtime"
	"testing"

	"github.com/adrg/xdg"
	"github.com/spf13/cobra"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// started runs the program as a double click does, except for the port, and reports which address the browser was sent
// to.
func started(ctx context.Context, data string, opened chan<- string) (string, error) {
	s := starting{serving: serving{data: data, port: 0, clockRate: 1}, open: func(address string) error {
		opened <- address
		return nil
	}}
	var out bytes.Buffer
	cmd := &cobra.Command{Use: "lantern"}
	cmd.SetContext(ctx)
	cmd.SetOut(&out)
	cmd.SetErr(&out)
	err := s.run(cmd)
	return out.String(), err
}

// A double click serves and opens the browser; a second one opens the page of the first.
func TestStartedTwice(t *testing.T) {
	data := filepath.Join(t.TempDir(), "lantern.db")
	ctx, stop := context.WithCancel(t.Context())
	opened := make(chan string, 2)
	said := make(chan string)
	go func() {
		out, err := started(ctx, data, opened)
		assert.NoError(t, err)
		said <- out
	}()
	address := <-opened
	require.NoError(t, answers(t.Context(), address))
	second, err := started(t.Context(), data, opened)
	require.NoError(t, err)
	assert.Equal(t, address, <-opened)
	assert.Contains(t, second, "open already, at "+address)
	stop()
	first := <-said
	assert.Contains(t, first, "Vast Lantern is open at "+address)
	assert.Contains(t, first, data)
	assert.Contains(t, first, "Ctrl-C ends it.")
	assert.Error(t, answers(t.Context(), address), "it has ended")
}

func TestDataIsWhereTheSystemKeepsIt(t *testing.T) {
	if runtime.GOOS != "linux" {
		t.Skip("the place of each system is the library's own test")
	}
	home := t.TempDir()
	t.Setenv("XDG_DATA_HOME", home)
	xdg.Reload()
	t.Cleanup(xdg.Reload)
	path, err := usualData()
	require.NoError(t, err)
	assert.Equal(t, filepath.Join(home, "vast-lantern", "lantern.db"), path)
	assert.DirExists(t, filepath.Dir(path))
}

func TestHealth(t *testing.T) {
	health := healthCommand()
	health.SetArgs([]string{"--address", "http://127.0.0.1:1"})
	assert.Error(t, health.ExecuteContext(t.Context()))
}
