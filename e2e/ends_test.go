package e2e

import (
	"bytes"
	"context"
	"database/sql"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// says runs a command of the program that must not succeed, and gives what it says.
// It runs as somebody who is not root, whom folders keep out.
func says(t *testing.T, args ...string) string {
	t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), patience)
	defer cancel()
	cmd := exec.CommandContext(ctx, program, args...)
	if os.Getuid() == 0 {
		cmd.SysProcAttr = &syscall.SysProcAttr{Credential: &syscall.Credential{Uid: 65534, Gid: 65534}}
	}
	var said bytes.Buffer
	cmd.Stderr = &said
	err := cmd.Run()
	var code *exec.ExitError
	require.ErrorAs(t, err, &code, "it does not end, or ends well: %s", said.String())
	require.NoError(t, ctx.Err(), "it hangs: %s", said.String())
	return said.String()
}

// open4all lets everybody read a folder's files and, if so said, write there.
func open4all(t *testing.T, dir string, mode os.FileMode) {
	t.Helper()
	require.NoError(t, filepath.WalkDir(dir, func(path string, d os.DirEntry, err error) error {
		if err != nil {
			return err
		}
		if d.IsDir() {
			return os.Chmod(path, mode)
		}
		return os.Chmod(path, mode&0o666)
	}))
	for _, above := range []string{filepath.Dir(dir), filepath.Dir(filepath.Dir(dir))} {
		require.NoError(t, os.Chmod(above, 0o755))
	}
	t.Cleanup(func() { _ = os.Chmod(dir, 0o755) }) // so that it can be taken away
}

// A server that can't begin says in one sentence why, and what to do.
func TestAServerThatCanNotBegin(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	at, free := y.address, freeAddress(t)

	dir := filepath.Join(t.TempDir(), "data")
	require.NoError(t, os.Mkdir(dir, 0o700))
	database := filepath.Join(dir, "p.db")
	require.NoError(t, os.WriteFile(database, filled, 0o600))
	open4all(t, dir, 0o777)

	assert.Contains(t, says(t, "serve", "--database", filepath.Join(dir, "away", "p.db"), "--address", free),
		"there is no database at "+filepath.Join(dir, "away", "p.db")+": name the right one with --database, put its folder back, or make one with 'ivorybridge user add'")
	assert.Contains(t, says(t, "serve", "--database", database, "--address", at), "something else listens on "+at+" already")

	junk := filepath.Join(dir, "junk.db")
	require.NoError(t, os.WriteFile(junk, bytes.Repeat([]byte("not a database "), 1000), 0o666))
	require.NoError(t, os.Chmod(junk, 0o666))
	assert.Contains(t, says(t, "serve", "--database", junk, "--address", free), "put the last copy in its place with 'ivorybridge restore'")

	open4all(t, dir, 0o555)
	said := says(t, "serve", "--database", database, "--address", free)
	assert.Contains(t, said, "can't be written to")
	assert.Contains(t, said, "let the server's user write there")
}

// Two servers never have one file: the second says who has it. Nor is a copy put in
// the place of a database that is served; all that was acknowledged is still there.
func TestTwoServersOnOneFile(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	run := func(args ...string) string {
		said, err := exec.Command(program, args...).CombinedOutput()
		require.Error(t, err, "%s", said)
		return string(said)
	}
	copied := y.database + ".copy"
	said, err := exec.Command(program, "backup", "--database", y.database, copied).CombinedOutput()
	require.NoError(t, err, "%s", said)
	assert.Contains(t, string(said), "The copy is at "+copied)

	u := y.open(1280, 800).signsInDemo()
	u.begins("Copperfield Moth")
	u.pull(3)
	u.answers("accepted")
	u.seesIn(".clocks", "all sent")
	assert.Contains(t, run("serve", "--database", y.database, "--address", freeAddress(t)), "ivorybridge demo (process ")
	assert.Contains(t, run("restore", "--database", y.database, copied), "stop it first")
	u.pull(2)
	u.answers("accepted")
	u.keeps(2)
}

// tmpfs is a small disk of its own, where the machine lets a test have one.
func tmpfs(t *testing.T, size string) string {
	t.Helper()
	dir := t.TempDir()
	if out, err := exec.Command("mount", "-t", "tmpfs", "-o", "size="+size, "tmpfs", dir).CombinedOutput(); err != nil {
		t.Skipf("this machine lets no test have a disk; the same is tested without one in store: %s", out)
	}
	t.Cleanup(func() { assert.NoError(t, exec.Command("umount", "-l", dir).Run()) })
	return dir
}

// atWorkIn is a yard whose database lies in that folder, with a session at work.
func atWorkIn(t *testing.T, dir string) (*yard, *user) {
	t.Helper()
	y := &yard{t: t, address: freeAddress(t), database: filepath.Join(dir, "demo.db"), log: filepath.Join(t.TempDir(), "log")}
	require.NoError(t, os.WriteFile(y.database, filled, 0o600))
	t.Cleanup(y.stop)
	y.start()
	u := y.open(1280, 800).signsInDemo()
	u.begins("Copperfield Moth")
	u.pull(3)
	u.answers("accepted")
	u.seesIn(".clocks", "all sent")
	return y, u
}

// A full disk is said on the screen and in the log. What is tapped stays on the
// device, and goes by itself once there is room.
func TestAFullDisk(t *testing.T) {
	t.Parallel()
	dir := tmpfs(t, "24m")
	y, u := atWorkIn(t, dir)

	ballast, err := os.Create(filepath.Join(dir, "ballast"))
	require.NoError(t, err)
	for {
		if _, err = ballast.Write(make([]byte, 4096)); err != nil {
			break
		}
	}
	require.ErrorIs(t, err, syscall.ENOSPC)
	require.NoError(t, ballast.Close())
	logged := 1
	for range 400 { // the log of the database may have room left
		u.pull(3)
		u.answers("accepted")
		logged++
		if strings.Contains(u.MustElement(".clocks").MustText(), "disk is full") {
			break
		}
	}
	u.seesIn(".clocks", "the server's disk is full")
	y.logs("make room on it")
	assert.Equal(t, http.StatusInsufficientStorage, y.health())

	require.NoError(t, os.Remove(ballast.Name()))
	u.seesIn(".clocks", "all sent")
	require.Eventually(t, func() bool { return y.health() == http.StatusOK }, patience, 100*time.Millisecond)
	u.keeps(logged)
}

// health is the status of the server's health.
func (y *yard) health() int {
	a, err := http.Get("http://" + y.address + "/healthz")
	require.NoError(y.t, err)
	defer func() { _ = a.Body.Close() }()
	return a.StatusCode
}

// A folder that is taken away while the server runs: nothing is acknowledged that
// nobody would find again. Once it is back, all goes on.
func TestTheFolderIsTakenAway(t *testing.T) {
	t.Parallel()
	dir := filepath.Join(t.TempDir(), "data")
	require.NoError(t, os.Mkdir(dir, 0o700))
	y, u := atWorkIn(t, dir)
	require.NoError(t, os.Rename(dir, dir+".away"))
	u.pull(2)
	u.answers("accepted")
	u.seesIn(".clocks", "the server's database is not there")
	y.logs("put its folder back")
	assert.Equal(t, http.StatusServiceUnavailable, y.health())
	require.NoError(t, os.Rename(dir+".away", dir))
	u.seesIn(".clocks", "all sent")
	u.keeps(2)
	assert.Equal(t, http.StatusOK, y.health())
}

// Pages of the file that went bad are said on the screen, in the log and by the
// server's health. The last copy puts it right, and what the device still has goes
// there.
func TestPagesThatWentBad(t *testing.T) {
	t.Parallel()
	y := demoYard(t)
	y.stop()
	copied := y.database + ".copy"
	said, err := exec.Command(program, "backup", "--database", y.database, copied).CombinedOutput()
	require.NoError(t, err, "%s", said)
	spoil(t, y.database)
	y.ailing = true
	y.start()
	u := y.open(1280, 800).signsInDemo()
	u.sees("The server's database is damaged")
	y.logs("ivorybridge restore")
	require.Eventually(t, func() bool { return y.health() == http.StatusServiceUnavailable }, patience, 100*time.Millisecond)
	y.stop()
	said, err = exec.Command(program, "restore", "--database", y.database, copied).CombinedOutput()
	require.NoError(t, err, "%s", said)
	assert.Contains(t, string(said), "What was there is kept at "+y.database+".replaced-")
	y.start()
	u.signsInDemo() // the copy is from before this sign-in
	u.sees("Copperfield Moth")
	assert.Equal(t, http.StatusOK, y.health())
}

// spoil writes over the pages of a database that its cases lie on.
func spoil(t *testing.T, path string) {
	t.Helper()
	db, err := sql.Open("sqlite", "file:"+path)
	require.NoError(t, err)
	root := 0
	require.NoError(t, db.QueryRow("SELECT rootpage FROM sqlite_schema WHERE name = 'cases'").Scan(&root))
	_, err = db.Exec("PRAGMA wal_checkpoint(TRUNCATE)")
	require.NoError(t, err)
	require.NoError(t, db.Close())
	file, err := os.OpenFile(path, os.O_RDWR, 0)
	require.NoError(t, err)
	_, err = file.WriteAt(bytes.Repeat([]byte{0xA5}, 4096), int64(root-1)*4096)
	require.NoError(t, err)
	require.NoError(t, file.Close())
}

// A device whose clock is a day ahead, and one whose clock is a day behind, lose
// nothing, and the day of the session is the yard's.
func TestClocksADayOff(t *testing.T) {
	t.Parallel()
	for _, off := range []time.Duration{24 * time.Hour, -24 * time.Hour} {
		y := demoYard(t)
		u := y.open(1280, 800)
		u.MustEvalOnNewDocument(`const here = Date.now; Date.now = () => here() + ` + strconv.FormatInt(off.Milliseconds(), 10))
		u.signsInDemo()
		u.begins("Copperfield Moth")
		u.pull(3)
		u.answers("accepted")
		u.keeps(1)
		var kept struct{ Date string }
		var me struct{ Today string }
		d := y.device("helper")
		require.True(t, d.posts("/api/sign-in/demo", map[string]any{}, nil))
		d.reads("/api/sessions/"+filepath.Base(u.MustInfo().URL), &kept)
		d.reads("/api/me", &me)
		assert.Equal(t, me.Today, kept.Date, "%s off", off)
	}
}
