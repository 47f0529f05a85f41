package copies

import (
	"context"
	"fmt"
	"os"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"ivorybridge/core/catalog/yaml"
	"ivorybridge/demo"
	"ivorybridge/store"
)

var now = time.Date(2026, 6, 1, 3, 0, 0, 0, time.UTC) // a Monday

func dates(list []time.Time) (days []string) {
	for _, t := range list {
		days = append(days, t.Format(time.DateOnly))
	}
	return days
}

// A copy each night for two years: seven days, the last of four weeks and of twelve months
// stay.
func TestWhatStays(t *testing.T) {
	var made []time.Time
	for i := range 730 {
		made = append(made, now.AddDate(0, 0, -i))
	}
	assert.Equal(t, []string{
		"2026-06-01", "2026-05-31", "2026-05-30", "2026-05-29", "2026-05-28", "2026-05-27", "2026-05-26",
		"2026-05-24", "2026-05-17", // the weeks: of this one, and of the last, a day is there
		"2026-04-30", "2026-03-31", "2026-02-28", "2026-01-31", "2025-12-31", "2025-11-30", "2025-10-31", "2025-09-30", "2025-08-31", "2025-07-31",
	}, dates(Shipped.Stays(made)))
	assert.Equal(t, []string{"2026-06-01"}, dates(Kept{}.Stays(made)), "the newest always stays")
	assert.Empty(t, Shipped.Stays(nil))
	assert.Equal(t, []string{"2026-06-01"}, dates(Kept{Days: 1}.Stays([]time.Time{now, now.Add(-time.Hour)})))
}

// However irregularly copies are made: the newest stays, no more than is allowed stay, and
// what is let go tonight is not wanted tomorrow.
func TestStaysHoldsForAnyNights(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var made []time.Time
		at := now
		for _, hours := range rapid.SliceOfN(rapid.IntRange(1, 200), 1, 80).Draw(t, "hours") {
			at = at.Add(-time.Duration(hours) * time.Hour)
			made = append(made, at)
		}
		k := Kept{Days: rapid.IntRange(0, 9).Draw(t, "days"), Weeks: rapid.IntRange(0, 6).Draw(t, "weeks"), Months: rapid.IntRange(0, 14).Draw(t, "months")}
		stays := k.Stays(made)
		require.Equal(t, made[0], stays[0])
		require.LessOrEqual(t, len(stays), 1+k.Days+k.Weeks+k.Months)
		require.Equal(t, stays, k.Stays(stays), "what stays, stays")
		next := append([]time.Time{made[0].Add(26 * time.Hour)}, made...)
		for _, kept := range k.Stays(next)[1:] {
			require.Contains(t, stays, kept, "nothing comes back")
		}
	})
}

func practice(t *testing.T) Folder {
	t.Helper()
	dir := t.TempDir()
	f := Folder{Database: filepath.Join(dir, "a.db"), Dir: filepath.Join(dir, "copies"), Kept: Shipped}
	s, err := store.Open(context.Background(), f.Database, now)
	require.NoError(t, err)
	c, err := yaml.Shipped()
	require.NoError(t, err)
	require.NoError(t, demo.Fill(context.Background(), s, c, now))
	t.Cleanup(func() { require.NoError(t, s.Close()) })
	return f
}

// A copy is opened and counted, said, and can be put back; files of the one before are not
// kept twice.
func TestACopyIsMadeAndPutBack(t *testing.T) {
	f := practice(t)
	ctx := context.Background()
	first, err := f.Make(ctx, now)
	require.NoError(t, err)
	assert.Equal(t, []int{17, 2, 0}, []int{first.Horses, first.Files, first.Missing})
	assert.Positive(t, first.Entries)
	assert.Greater(t, first.Bytes, int64(1<<20))
	second, err := f.Make(ctx, now.Add(24*time.Hour))
	require.NoError(t, err)
	list, err := f.List()
	require.NoError(t, err)
	assert.Equal(t, []Copy{second, first}, list)

	files, err := os.ReadDir(f.path(first.At, copied) + ".photographs")
	require.NoError(t, err)
	require.Len(t, files, 2)
	for _, file := range files {
		one, err := os.Stat(filepath.Join(f.path(first.At, copied)+".photographs", file.Name()))
		require.NoError(t, err)
		two, err := os.Stat(filepath.Join(f.path(second.At, copied)+".photographs", file.Name()))
		require.NoError(t, err)
		assert.True(t, os.SameFile(one, two), "kept once")
	}
	back := filepath.Join(t.TempDir(), "back.db")
	put, err := store.Restore(ctx, f.path(second.At, copied), back, now)
	require.NoError(t, err)
	assert.Equal(t, store.Pictures{All: 2}, put.Pictures)
	s, err := store.Open(ctx, back, now)
	require.NoError(t, err)
	require.NoError(t, s.Close())
}

// A copy that fails is noted, tried again after an hour, and forgotten once there is one. One
// that somebody took away is not said to be there.
func TestACopyThatFails(t *testing.T) {
	f := practice(t)
	ctx := context.Background()
	whole := f.Database
	f.Database = filepath.Join(t.TempDir(), "gone.db")
	failed, err := f.Make(ctx, now)
	require.ErrorContains(t, err, "looking for the database")
	assert.Contains(t, failed.Failed, "could not be made", "without a path of the server")
	list, err := f.List()
	require.NoError(t, err)
	require.Len(t, list, 1)
	for after, want := range map[time.Duration]bool{59 * time.Minute: false, time.Hour: true} {
		due, err := f.Due(now.Add(after), 3)
		require.NoError(t, err)
		assert.Equal(t, want, due, after)
	}
	f.Database = whole
	made, err := f.Make(ctx, now.Add(time.Hour))
	require.NoError(t, err)
	list, err = f.List()
	require.NoError(t, err)
	assert.Equal(t, []Copy{made}, list)
	require.NoError(t, os.Remove(f.path(made.At, copied)))
	list, err = f.List()
	require.NoError(t, err)
	assert.Equal(t, "It is not where it was put.", list[0].Failed)
}

// A copy is due once the hour has struck and none was made since.
func TestWhenACopyIsDue(t *testing.T) {
	f := practice(t)
	for _, c := range []struct {
		made, at string
		want     bool
	}{
		{"2026-06-01T03:00", "2026-06-01T23:00", false}, {"2026-06-01T03:00", "2026-06-02T02:59", false}, {"2026-06-01T03:00", "2026-06-02T03:00", true},
		{"2026-06-01T02:59", "2026-06-01T03:00", true}, {"2026-06-01T02:59", "2026-06-01T02:59", false},
	} {
		made, err := time.Parse("2006-01-02T15:04", c.made)
		require.NoError(t, err)
		at, err := time.Parse("2006-01-02T15:04", c.at)
		require.NoError(t, err)
		f.Dir = t.TempDir()
		_, err = f.Make(context.Background(), made)
		require.NoError(t, err)
		due, err := f.Due(at, 3)
		require.NoError(t, err)
		assert.Equal(t, c.want, due, c)
	}
	f.Dir = filepath.Join(t.TempDir(), "none yet")
	due, err := f.Due(now, 3)
	require.NoError(t, err)
	assert.True(t, due)
}

func ExampleKept_Stays() {
	var nights []time.Time
	for i := range 30 {
		nights = append(nights, now.AddDate(0, 0, -i))
	}
	stays := Kept{Days: 2, Weeks: 2, Months: 1}.Stays(nights)
	slices.Reverse(stays)
	for _, t := range stays {
		fmt.Println(t.Format(time.DateOnly))
	}
	// Output:
	// 2026-05-31
	// 2026-06-01
}
