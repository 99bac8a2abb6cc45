package main

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
	"time"
)

// settings returns what serve is told by its arguments, the environment and a file.
func settings(t *testing.T, file string, args ...string) (listen, level string, err error) {
	t.Helper()
	cmd := serveCommand()
	if file != "" {
		path := filepath.Join(t.TempDir(), "pinhole.toml")
		if err := os.WriteFile(path, []byte(file), 0o600); err != nil {
			t.Fatal(err)
		}
		args = append(args, "--config", path)
	}
	if err := cmd.ParseFlags(args); err != nil {
		t.Fatal(err)
	}
	err = configured(cmd)
	return cmd.Flag("listen").Value.String(), cmd.Flag("log-level").Value.String(), err
}

// Flags come before the environment, that before the file, that before what is usual.
func TestSettingsComeFromThreePlaces(t *testing.T) {
	const file = "listen = \"127.0.0.1:1\"\nlog-level = \"warn\"\n"
	check := func(wantListen, wantLevel, file string, args ...string) {
		t.Helper()
		listen, level, err := settings(t, file, args...)
		if err != nil || listen != wantListen || level != wantLevel {
			t.Errorf("listen %s, level %s, %v; want %s, %s", listen, level, err, wantListen, wantLevel)
		}
	}
	check("127.0.0.1:8321", "info", "")
	check("127.0.0.1:1", "warn", file)
	t.Setenv("PINHOLE_LISTEN", "127.0.0.1:2")
	check("127.0.0.1:2", "warn", file)
	check("127.0.0.1:3", "warn", file, "--listen", "127.0.0.1:3")
	t.Setenv("PINHOLE_LOG_LEVEL", "debug")
	check("127.0.0.1:2", "debug", "")
}

// What is no setting, or no value of one, is refused by its name.
func TestSettingsThatCannotBe(t *testing.T) {
	if _, _, err := settings(t, "listne = \"127.0.0.1:1\"\n"); err == nil || !strings.Contains(err.Error(), "listne") {
		t.Errorf("a misspelt setting: %v", err)
	}
	if _, _, err := settings(t, "listen = \n"); err == nil {
		t.Error("a file that cannot be read is taken")
	}
	t.Setenv("PINHOLE_METRICS", "perhaps")
	if _, _, err := settings(t, ""); err == nil || !strings.Contains(err.Error(), "metrics is \"perhaps\"") {
		t.Errorf("a value that is none: %v", err)
	}
	for _, bad := range []logging{{"loud", "json"}, {"info", "xml"}} {
		if _, err := bad.logger(io.Discard); err == nil {
			t.Errorf("%+v is taken", bad)
		}
	}
}

// The manual has a page of each command, and completions are written for the usual shells.
func TestManualAndCompletions(t *testing.T) {
	folder := t.TempDir()
	run := func(args ...string) string {
		t.Helper()
		root := rootCommand()
		var out bytes.Buffer
		root.SetOut(&out)
		root.SetArgs(args)
		if err := root.Execute(); err != nil {
			t.Fatal(err)
		}
		return out.String()
	}
	run("man", folder)
	for _, page := range []string{"pinhole.1", "pinhole-serve.1", "pinhole-ask.1", "pinhole-restore.1"} {
		text, err := os.ReadFile(filepath.Join(folder, page))
		if err != nil || !bytes.Contains(text, []byte(".SH SYNOPSIS")) {
			t.Errorf("%s: %v, %d bytes", page, err, len(text))
		}
	}
	for _, shell := range []string{"bash", "zsh", "fish"} {
		if text := run("completion", shell); !strings.Contains(text, "pinhole") {
			t.Errorf("no completion for %s", shell)
		}
	}
	if got := run("--version"); !strings.HasPrefix(got, "pinhole "+version+" (") {
		t.Errorf("--version prints %q", got)
	}
}

// A service manager's socket is taken, and metrics are shown to who asks there.
func TestAServiceManagersSocketIsTaken(t *testing.T) {
	ask := func(address string) (status int, said string, err error) {
		socket, err := net.Listen("tcp", address)
		if err != nil {
			t.Fatal(err)
		}
		file, err := socket.(*net.TCPListener).File()
		if err != nil {
			t.Fatal(err)
		}
		ctx, cancel := context.WithCancel(t.Context())
		defer cancel()
		cmd := exec.CommandContext(ctx, "sh", "-c", `LISTEN_PID=$$ LISTEN_FDS=1 exec "$0" -test.run='^TestServedHelper$'`, os.Args[0])
		cmd.ExtraFiles = []*os.File{file}
		var errOut bytes.Buffer
		cmd.Stdout = &errOut
		cmd.Env = append(os.Environ(), servedData+"="+filepath.Join(t.TempDir(), "x.db"))
		if err := cmd.Start(); err != nil {
			t.Fatal(err)
		}
		_, _ = socket.Close(), file.Close() // it is the server's from now on
		client := http.Client{Timeout: time.Second}
		ended := make(chan error, 1)
		go func() { ended <- cmd.Wait() }()
		port := regexp.MustCompile(`\d+$`).FindString(socket.Addr().String())
		for range 100 {
			select {
			case err := <-ended:
				return 0, errOut.String(), err
			case <-time.After(50 * time.Millisecond):
			}
			answer, err := client.Get(fmt.Sprintf("http://127.0.0.1:%s/metrics", port))
			if err != nil {
				continue
			}
			text, _ := io.ReadAll(answer.Body)
			_ = answer.Body.Close()
			cancel()
			<-ended
			return answer.StatusCode, string(text), nil
		}
		return 0, errOut.String(), fmt.Errorf("it does not answer")
	}
	if status, text, err := ask("127.0.0.1:0"); err != nil || status != http.StatusOK || !strings.Contains(text, "go_goroutines") {
		t.Errorf("through the socket: %d, %v\n%.300s", status, err, text)
	}
	if _, said, err := ask("0.0.0.0:0"); err == nil || !strings.Contains(said, "open to others") {
		t.Errorf("a socket that is open to others is taken: %v, %s", err, said)
	}
}
