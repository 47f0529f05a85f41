package server

import (
	"archive/zip"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/hex"
	"fmt"
	"io"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/phrase"
	"ivorybridge/server/accounts"
	"ivorybridge/server/api"
	"ivorybridge/server/horses"
	"ivorybridge/server/house"
	"ivorybridge/server/people"
	"ivorybridge/store"
	"ivorybridge/store/copies"
)

func (p *practice) houseRules() (view house.HouseRules) {
	p.t.Helper()
	p.ask(http.MethodGet, "/api/house/rules", nil).into(&view)
	return view
}

// A house rule is tried, kept with its reason, holds for what is read and begun from then on,
// and is put back; a session that was begun keeps what it was begun with.
func TestAHouseRuleIsChangedAndPutBack(t *testing.T) {
	p := signedInPractice(t)
	before, _ := p.session()
	view := p.houseRules()
	require.Equal(t, []any{"pass_run", 3, 3}, []any{view.Rules[0].Key, view.Rules[0].Shipped, view.Rules[0].Now})
	require.NotEmpty(t, view.Findings)

	doc := map[string]any{"rules": map[string]int{"pass_run": 2}, "bears": map[string]any{"faces_and_pulls": map[string]string{"handler": "+"}}}
	var trial house.HouseTrial
	p.ask(http.MethodPost, "/api/house/rules/trial", doc).into(&trial)
	assert.Equal(t, []string{"pass run 2 instead of 3.", "\"person faces the horse and pulls\" says + of what the person does now, instead of +++."}, trial.Differs)
	require.Len(t, trial.Effects, 1)
	assert.Contains(t, strings.Join(trial.Effects[0].Says, " "), "pass by another mark")
	assert.Zero(t, p.houseRules().Version, "nothing was kept")

	assert.Equal(t, "reason", p.ask(http.MethodPut, "/api/house/rules", map[string]any{"doc": doc, "reason": " ", "version": 0}).problem().Errors[0].Field)
	p.ask(http.MethodPut, "/api/house/rules", map[string]any{"doc": doc, "reason": "two are enough here", "version": 0}).into(&view)
	assert.Equal(t, []any{int64(1), 2}, []any{view.Version, view.Rules[0].Now})
	assert.Equal(t, "two are enough here", view.Made[0].Reason)
	stale := p.ask(http.MethodPut, "/api/house/rules", map[string]any{"doc": map[string]any{}, "reason": "x", "version": 0})
	assert.Equal(t, http.StatusConflict, stale.Code)

	after, _ := p.session()
	rules := func(session string) int {
		n, err := p.Store.Session(context.Background(), p.actor.Practice, session)
		require.NoError(t, err)
		return n.Rules.PassRun
	}
	assert.Equal(t, []int{3, 2}, []int{rules(before), rules(after)})
	var catalog struct {
		Version string `json:"version"`
	}
	p.ask(http.MethodGet, "/api/catalog", nil).into(&catalog)
	assert.True(t, strings.HasSuffix(catalog.Version, "~1"), catalog.Version)

	p.ask(http.MethodPut, "/api/house/rules", map[string]any{"doc": map[string]any{}, "reason": "put back", "version": 1}).into(&view)
	assert.Equal(t, []any{int64(2), 3, 2}, []any{view.Version, view.Rules[0].Now, len(view.Made)})
	p.ask(http.MethodGet, "/api/catalog", nil).into(&catalog)
	assert.Equal(t, p.Server.Catalog.Version, catalog.Version)
}

// Two in a row pass a step in a session that was begun under that rule, and only in one.
func TestAPassMarkOfTheHouse(t *testing.T) {
	for run, met := range map[int]bool{2: true, 3: false} {
		p := signedInPractice(t)
		p.ask(http.MethodPut, "/api/house/rules", map[string]any{"doc": map[string]any{"rules": map[string]int{"pass_run": run}}, "reason": "why", "version": 0})
		session, _ := p.session()
		for i := range 2 {
			one := rep("accepted", 2)
			one["seq"], one["at"] = i+1, p.now.Add(time.Duration(i+1)*time.Minute).UnixMilli()
			one["rep"].(map[string]any)["step"] = "lead.forward"
			p.logs(session, one)
		}
		c := api.Caller{User: store.User{ID: p.actor.User, Practice: p.actor.Practice}, Now: p.now.Add(time.Hour), View: p.Store.View}
		r, err := p.Server.cases.Newest(context.Background(), c, p.horse)
		require.NoError(t, err)
		bridge, there := r.File.BridgeOf("lead")
		require.True(t, there)
		state := ""
		for _, plank := range bridge.Planks {
			if plank.Step == "lead.forward" {
				state = plank.State.String()
			}
		}
		assert.Equal(t, met, state == "met", "%d in a row: %s", run, state)
	}
}

func TestHouseRulesThatAreNotTaken(t *testing.T) {
	p := signedInPractice(t)
	for field, doc := range map[string]any{
		"rules.pass_run": map[string]any{"rules": map[string]int{"pass_run": 0}}, "rules.block_cap_young": map[string]any{"rules": map[string]int{"block_cap_young": 16}},
		"bears.curious": map[string]any{"bears": map[string]any{"curious": map[string]string{"fear": "a lot"}}}, "likely": map[string]any{"likely": 0.2},
	} {
		for _, ask := range []func() answer{
			func() answer { return p.ask(http.MethodPost, "/api/house/rules/trial", doc) },
			func() answer {
				return p.ask(http.MethodPut, "/api/house/rules", map[string]any{"doc": doc, "reason": "why", "version": 0})
			},
		} {
			a := ask()
			require.Equal(t, http.StatusUnprocessableEntity, a.Code, "%s: %s", field, a.Body)
			assert.Equal(t, field, a.problem().Errors[0].Field)
		}
	}
	assert.Zero(t, p.houseRules().Version)
}

// takes sends an archive and waits until it is in or refused.
func (p *practice) takes(whole []byte) (t house.TakingIn) {
	p.t.Helper()
	if a := p.ask(http.MethodPost, "/api/house/taking", string(whole)); a.Code != http.StatusAccepted {
		return house.TakingIn{State: "refused", Say: a.problem().Detail}
	}
	require.Eventually(p.t, func() bool {
		p.ask(http.MethodGet, "/api/house/taking", nil).into(&t)
		return t.State == "done" || t.State == "refused"
	}, time.Minute, 10*time.Millisecond)
	return t
}

// What is taken out of a practice comes into an empty one, and its horses tell the same there.
func TestAPracticeGoesOutAndIn(t *testing.T) {
	p := signedInPractice(t)
	session, _ := p.session()
	p.logs(session, rep("accepted", 3))
	a := p.ask(http.MethodGet, "/api/house/archive", nil)
	require.Equal(t, http.StatusOK, a.Code)
	assert.Contains(t, a.Header().Get("Content-Disposition"), ".zip")
	whole := bytes.Clone(a.Body.Bytes())
	report := p.ask(http.MethodGet, "/api/sessions/"+session+"/report", nil).Body.String()

	to := newPractice(t)
	other := store.Actor{Practice: uuid.NewString(), User: uuid.NewString(), At: to.now.UnixMilli()}
	require.NoError(t, to.Store.AddPractice(context.Background(), store.Practice{ID: other.Practice, Name: "Empty", Zone: "Europe/London", Words: phrase.Shipped}, other.At))
	require.NoError(t, to.Store.AddUser(context.Background(), other, store.User{ID: other.User, Name: "Rae", Email: "rae@example.org", Role: store.Lead, Hash: hash}))
	to.comesAs(other.Practice, other.User)
	var view house.House
	to.ask(http.MethodGet, "/api/house", nil).into(&view)
	assert.True(t, view.Empty)
	taken := to.takes(whole)
	assert.Equal(t, []any{"done", true, ""}, []any{taken.State, taken.Whole, taken.Say})
	assert.JSONEq(t, report, to.ask(http.MethodGet, "/api/sessions/"+session+"/report", nil).Body.String())
	again := to.takes(whole)
	assert.Equal(t, "refused", again.State)
	assert.Contains(t, again.Say, "in this practice already")
	assert.Contains(t, to.takes([]byte("no zip")).Say, "can't be opened")
	left, err := filepath.Glob(filepath.Join(filepath.Dir(to.Store.Path()), ".arriving-*"))
	require.NoError(t, err)
	assert.Empty(t, left)
}

// A film goes out and comes in with its horse. One that was put in its place, and tells where
// it was made, or is none, is refused with all that it came with.
func TestAFilmComesInWithItsHorse(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	p.line().filmed(aFilm(1000))
	whole := bytes.Clone(p.ask(http.MethodGet, "/api/horses/"+p.horse+"/archive", nil).Body.Bytes())
	with := func(other []byte) []byte {
		z, err := zip.NewReader(bytes.NewReader(whole), int64(len(whole)))
		require.NoError(t, err)
		sum := sha256.Sum256(other)
		var old string
		for _, f := range z.File {
			if name, ok := strings.CutPrefix(f.Name, "files/"); ok {
				old, _, _ = strings.Cut(name, ".")
			}
		}
		require.Len(t, old, 64)
		var out bytes.Buffer
		w := zip.NewWriter(&out)
		for _, f := range z.File {
			in, err := f.Open()
			require.NoError(t, err)
			text, err := io.ReadAll(in)
			require.NoError(t, err)
			if strings.HasPrefix(f.Name, "files/") {
				text = other
			}
			to, err := w.Create(strings.ReplaceAll(f.Name, old, hex.EncodeToString(sum[:])))
			require.NoError(t, err)
			_, err = to.Write(bytes.ReplaceAll(text, []byte(old), []byte(hex.EncodeToString(sum[:]))))
			require.NoError(t, err)
		}
		require.NoError(t, w.Close())
		return out.Bytes()
	}
	to := signedInPractice(t)
	before := len(to.caseload())
	for say, other := range map[string][]byte{"tells where it was filmed": aFilm(900), "neither a film nor a plain picture": []byte("a letter")} {
		taken := to.takes(with(other))
		assert.Equal(t, "refused", taken.State)
		assert.Contains(t, taken.Say, say)
		assert.Len(t, to.caseload(), before)
	}
	taken := to.takes(whole)
	assert.Equal(t, []any{"done", "", 1}, []any{taken.State, taken.Say, taken.Files})
}

func (p *practice) caseload() (rows []horses.Row) {
	p.t.Helper()
	p.ask(http.MethodGet, "/api/caseload", nil).into(&rows)
	return rows
}

// A person is erased: what is known of them goes, the track stays, and where the name was
// typed it is said.
func TestAPersonIsErased(t *testing.T) {
	p := signedInPractice(t)
	p.agrees()
	session, _ := p.session()
	p.logs(session, rep("accepted", 3))
	p.marks(uuid.NewString(), "problems/loading/story/description", "Ines says it plants.")
	_, token := p.link("people/"+p.owner, 3)
	var said struct {
		Say string `json:"say"`
	}
	p.ask(http.MethodPost, "/api/people/"+p.owner+"/erase", nil).into(&said)
	assert.Contains(t, said.Say, "in one place")
	var list []people.Person
	p.ask(http.MethodGet, "/api/people", nil).into(&list)
	for _, one := range list {
		assert.NotContains(t, one.Name, "Ines")
		assert.NotEqual(t, p.owner, one.ID)
	}
	l := p.line()
	l.bearer = token
	assert.NotEqual(t, http.StatusOK, l.asks(http.MethodGet, "/api/owner/horses/"+p.horse+"/films", nil, nil).StatusCode, "the link is off")
	assert.Equal(t, http.StatusOK, p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).Code)
	assert.Equal(t, http.StatusOK, p.ask(http.MethodGet, "/api/sessions/"+session+"/report", nil).Code, "the track stays")
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodPost, "/api/people/"+uuid.NewString()+"/erase", nil).Code)
}

// A notebook of 300 lines with two wrong ones comes in without them, once they are left out;
// it brings the horses and owners that are not here, all in the past, and is undone as one.
func TestANotebookIsTakenInAndUndone(t *testing.T) {
	p := signedInPractice(t)
	text := strings.Builder{}
	text.WriteString("Pony;Visit;Client;Tel;Worked on;mins;Notes\n")
	for i := range 300 {
		on := time.Date(2019, 1, 1+i, 0, 0, 0, 0, time.UTC).Format("2.1.2006")
		switch i {
		case 17:
			on = "some day"
		case 230:
			on = ""
		}
		fmt.Fprintf(&text, "%s;%s;%s;01632 960%03d;led past the ramp;%d;=calm; by the end\n", []string{"Moth", "Bracken", "bracken", "Tansy"}[i%4], on, []string{"Ines", "Rae", "Rae", ""}[i%4], i%4, 20+i%30)
	}
	body := map[string]any{"name": "2019.csv", "text": strings.ReplaceAll(text.String(), "; by the end", "")}
	var look house.NotebookLook
	p.ask(http.MethodPost, "/api/house/notebooks/look", body).into(&look)
	assert.Equal(t, []string{"horse", "date", "owner", "phone", "what was done", "minutes", "note"}, look.Columns)
	assert.Equal(t, []any{300, 298, 2, 5}, []any{look.Lines, look.Good, look.AllWrong, len(look.First)})
	assert.Equal(t, []any{19, `"some day" is no date. Write 2026-06-01 or 1.6.2026.`, 232, "No date stands in this line."}, []any{look.Wrong[0].Line, look.Wrong[0].Say, look.Wrong[1].Line, look.Wrong[1].Say})
	assert.Equal(t, [][]string{{"Bracken", "Tansy"}, {"Moth"}, {"Rae"}}, [][]string{look.New, look.Known, look.People})

	refused := func(field string, change map[string]any) {
		t.Helper()
		with := map[string]any{"name": body["name"], "text": body["text"], "skip": true, "problem": "loading"}
		for k, v := range change {
			with[k] = v
		}
		a := p.ask(http.MethodPost, "/api/house/notebooks", with)
		require.Equal(t, http.StatusUnprocessableEntity, a.Code, "%v: %s", change, a.Body)
		require.NotEmpty(t, a.problem().Errors, "%v: %s", change, a.Body.String())
		assert.Equal(t, field, a.problem().Errors[0].Field)
	}
	refused("text", map[string]any{"skip": false})
	refused("text", map[string]any{"text": ""})
	refused("text", map[string]any{"text": "horse,date\nMoth,soon"})
	refused("problem", map[string]any{"problem": ""})
	refused("columns", map[string]any{"columns": []string{"horse", "", "", "", "", "", ""}})
	refused("columns", map[string]any{"columns": []string{"horse", "date", "horse", "", "", "", ""}})
	refused("columns", map[string]any{"columns": []string{"horse", "date", "cattle", "", "", "", ""}})
	horses := func() int {
		list, err := p.Store.Horses(context.Background(), p.actor.Practice)
		require.NoError(t, err)
		return len(list)
	}
	require.Equal(t, 1, horses(), "nothing was half-kept")

	body["skip"], body["problem"] = true, "loading"
	var kept house.NotebookKept
	p.ask(http.MethodPost, "/api/house/notebooks", body).into(&kept)
	assert.Equal(t, []int{298, 2, 2}, []int{kept.Lines, kept.Horses, kept.People})
	assert.Equal(t, 3, horses())
	var lines []house.NotebookLine
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/notebook", nil).into(&lines)
	require.Len(t, lines, 75)
	assert.Equal(t, []string{"2019-10-24", "led past the ramp", "2019.csv"}, []string{lines[0].On, lines[0].What, lines[0].Notebook})
	assert.Equal(t, http.StatusOK, p.ask(http.MethodGet, "/api/caseload", nil).Code)

	var list []house.NotebookKept
	p.ask(http.MethodPost, "/api/notebooks/"+kept.ID+"/undo", nil).into(&list)
	require.Len(t, list, 1)
	assert.True(t, list[0].Undone)
	assert.Equal(t, 1, horses())
	var people []people.Person
	p.ask(http.MethodGet, "/api/people", nil).into(&people)
	assert.Len(t, people, 1)
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/notebook", nil).into(&lines)
	assert.Empty(t, lines)

	p.ask(http.MethodPost, "/api/house/notebooks", body).into(&kept)
	ids, err := p.Store.Horses(context.Background(), p.actor.Practice)
	require.NoError(t, err)
	for _, h := range ids {
		if h.Name == "Bracken" {
			p.horse = h.ID
		}
	}
	p.marks(uuid.NewString(), "tack/bit", "gag")
	a := p.ask(http.MethodPost, "/api/notebooks/"+kept.ID+"/undo", nil)
	assert.Equal(t, http.StatusConflict, a.Code)
	assert.Equal(t, 3, horses(), "what was worked with stays, and all of it")
}

// Copies are made when they are due, said, and a failed one is said on the first page.
func TestCopiesAreMadeAndSaid(t *testing.T) {
	p := signedInPractice(t)
	dir := filepath.Join(t.TempDir(), "copies")
	p.Server.House = house.Config{}
	s, err := New(Config{
		Store: p.Store, Catalog: p.Server.Catalog, Web: p.Server.Web, Now: func() time.Time { return p.now }, Log: p.Server.Log, Version: "1",
		House: house.Config{Copies: copies.Folder{Database: p.Store.Path(), Dir: dir, Kept: copies.Shipped}, Hour: 3, Zone: time.UTC},
	})
	require.NoError(t, err)
	p.Server = s
	require.NoError(t, s.house.Round(context.Background()))
	assert.NoDirExists(t, dir, "not as it starts")
	p.now = p.now.Add(10 * time.Minute)
	require.NoError(t, s.house.Round(context.Background()))
	require.NoError(t, s.house.Round(context.Background()), "once a day")
	var view house.House
	p.ask(http.MethodGet, "/api/house", nil).into(&view)
	require.Len(t, view.Copies.List, 1)
	assert.Equal(t, []any{1, "", true}, []any{view.Copies.List[0].Horses, view.Copies.Wrong, view.Copies.On})
	other := store.Practice{ID: uuid.NewString(), Name: "Other", Zone: "Europe/London", Words: phrase.Shipped}
	require.NoError(t, p.Store.AddPractice(context.Background(), other, 1))
	var shared house.House
	p.ask(http.MethodGet, "/api/house", nil).into(&shared)
	assert.Equal(t, []any{true, 0, int64(0)}, []any{shared.Copies.Shared, shared.Copies.List[0].Horses, shared.Copies.List[0].Bytes}, "what others have is not told")
	p.now = p.now.Add(36 * time.Hour)
	p.ask(http.MethodGet, "/api/house", nil).into(&view)
	assert.Empty(t, view.Copies.Wrong)
	p.now = p.now.Add(time.Second)
	p.ask(http.MethodGet, "/api/house", nil).into(&view)
	assert.Contains(t, view.Copies.Wrong, "No copy was made since 1 June 2026")

	require.NoError(t, os.RemoveAll(dir))
	require.NoError(t, os.WriteFile(dir, []byte("no folder"), 0o600))
	require.Error(t, s.house.Round(context.Background()))
	p.ask(http.MethodGet, "/api/house", nil).into(&view)
	assert.Contains(t, view.Copies.Wrong, "can't be looked at")
	var after house.HouseCopies
	require.NoError(t, os.Remove(dir))
	p.ask(http.MethodPost, "/api/house/copies", nil).into(&after)
	assert.Empty(t, after.Wrong)
	require.Len(t, after.List, 1)
}

// What a killed server left of an archive goes after a day; what else lies there stays.
func TestWhatIsLeftIsTakenAway(t *testing.T) {
	p := signedInPractice(t)
	dir := filepath.Dir(p.Store.Path())
	for _, name := range []string{".taking-in-1", ".arriving-2.zip", "mine"} {
		require.NoError(t, os.MkdirAll(filepath.Join(dir, name), 0o700))
	}
	begun := time.Now()
	p.now = begun.Add(23 * time.Hour)
	require.NoError(t, p.Server.house.Tidy(context.Background()))
	assert.DirExists(t, filepath.Join(dir, ".taking-in-1"))
	p.now = begun.Add(25 * time.Hour)
	require.NoError(t, p.Server.house.Tidy(context.Background()))
	assert.NoDirExists(t, filepath.Join(dir, ".taking-in-1"))
	assert.NoDirExists(t, filepath.Join(dir, ".arriving-2.zip"))
	assert.DirExists(t, filepath.Join(dir, "mine"))
}

// The practice's name, words and zone are changed: everything is said in the new words from
// then on, who did it stands beside them, and two at once are told of each other.
func TestTheWordsOfTheHouse(t *testing.T) {
	p := signedInPractice(t)
	var home house.HouseHome
	p.ask(http.MethodGet, "/api/house/home", nil).into(&home)
	assert.Empty(t, home.By, "as it was made")
	units := "feet"
	put := func(name, vehicle, sides, zone string, was house.HomeText) answer {
		return p.ask(http.MethodPut, "/api/house/home", map[string]any{"name": name, "vehicle": vehicle, "sides": sides, "units": units, "zone": zone, "was": was})
	}
	was := home.HomeText
	for field, a := range map[string]answer{
		"name": put("  ", "float", was.Sides, was.Zone, was), "zone": put("x", "float", was.Sides, "Mars/Base", was),
		"vehicle": put("x", "sledge", was.Sides, was.Zone, was), "sides": put("x", "float", "up and down", was.Zone, was),
	} {
		require.Equal(t, http.StatusUnprocessableEntity, a.Code, field)
		assert.Contains(t, a.problem().Errors[0].Field, field)
	}
	for _, zone := range []string{"", "Local", "local", "../etc/passwd"} {
		assert.Equal(t, http.StatusUnprocessableEntity, put("x", "float", was.Sides, zone, was).Code, zone)
	}
	units = "furlongs"
	assert.Equal(t, "units", put("x", "float", was.Sides, was.Zone, was).problem().Errors[0].Field)
	units = "feet"
	put(" Fell End ", "float", "left and right", "Australia/Hobart", was).into(&home)
	assert.Equal(t, house.HomeText{Name: "Fell End", Vehicle: "float", Sides: "left and right", Units: "feet", Zone: "Australia/Hobart"}, home.HomeText)
	assert.Equal(t, "Wren", home.By)
	assert.Equal(t, p.now.UnixMilli(), home.At)
	stale := put("Other", "box", was.Sides, was.Zone, was)
	assert.Equal(t, http.StatusConflict, stale.Code)
	assert.Contains(t, stale.Body.String(), "Fell End")
	assert.Equal(t, "float loading", p.caseload()[0].Problem.Text)
	var me accounts.Me
	p.ask(http.MethodGet, "/api/me", nil).into(&me)
	assert.Equal(t, []string{"Fell End", "Australia/Hobart", "left and right", "feet"}, []string{me.Named, me.Zone, me.Words.Sides, me.Words.Units})
}
