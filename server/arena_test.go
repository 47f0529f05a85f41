package server

import (
	"net/http"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/desk"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
	"ivorybridge/server/assessments"
	"ivorybridge/server/cases"
	"ivorybridge/server/horses"
	"ivorybridge/server/plans"
	"ivorybridge/server/reports"
	"ivorybridge/server/sessions"
	"ivorybridge/store"
)

var calm = map[string]any{"arousal": 1, "handler": "calm", "tack": true, "body": true}

// session begins a session and returns its id and first view.
func (p *practice) session() (string, sessions.Arena) {
	p.t.Helper()
	id := uuid.NewString()
	var view sessions.Arena
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", map[string]any{
		"id": id, "started_at": p.now.UnixMilli(), "zone": "Europe/London", "readiness": calm,
	}).into(&view)
	return id, view
}

func (p *practice) logs(session string, entries ...any) sessions.Logged {
	p.t.Helper()
	var l sessions.Logged
	p.ask(http.MethodPost, "/api/sessions/"+session+"/entries", map[string]any{"sent_at": p.now.UnixMilli(), "entries": entries}).into(&l)
	return l
}

// at sets an entry's time and place in the device's order.
func at(e map[string]any, seconds, seq int) map[string]any {
	e["at"] = time.Date(2026, 6, 1, 9, 0, seconds, 0, time.UTC).UnixMilli()
	e["seq"] = seq
	return e
}

func TestASessionIsAdvisedAsItIsLogged(t *testing.T) {
	p := signedInPractice(t)
	id, view := p.session()
	assert.Equal(t, "lead.forward", view.Told.Advice.Next.Step, "the foundations come first")
	assert.NotEmpty(t, view.Told.Advice.Say.Text)
	assert.NotEmpty(t, view.Precautions)
	assert.Equal(t, "owner", view.Contacts[0].What)

	first := at(rep("accepted", 3), 60, 1)
	l := p.logs(id, first)
	assert.Equal(t, track.Same, l.Told.Advice.Action)
	assert.Equal(t, horse.Big, l.Told.Advice.Release, "never accepted before")
	l = p.logs(id, first, at(rep("accepted", 2), 120, 2))
	assert.Len(t, l.Told.Beads, 2, "sent twice is harmless")

	undo := at(map[string]any{"id": uuid.NewString(), "kind": "undo", "device": "tablet", "replaces": l.Told.Recent[0].ID}, 130, 3)
	l = p.logs(id, undo)
	assert.Len(t, l.Told.Beads, 1)
	l = p.logs(id, at(rep("accepted", 1), 180, 4), at(rep("accepted", 1), 220, 5), at(rep("accepted", 1), 260, 6))
	assert.Equal(t, track.Up, l.Told.Advice.Action, "three in a row, at the level the ladder needs")

	again, known := p.ask(http.MethodGet, "/api/sessions/"+id, nil), sessions.Arena{}
	again.into(&known)
	assert.Equal(t, l.Told, known.Told, "read afresh, the same is said")

	end := at(map[string]any{"id": uuid.NewString(), "kind": "end", "device": "tablet", "note": "a sigh"}, 300, 7)
	assert.True(t, p.logs(id, end).Told.Ended)
	var sum sessions.Summary
	p.ask(http.MethodGet, "/api/sessions/"+id+"/summary", nil).into(&sum)
	assert.Equal(t, "a sigh", sum.Note)
	assert.Equal(t, horse.Met, sum.Changes[0].To)
	var file horses.File
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&file)
	assert.Equal(t, horse.Met, file.Bridge.Piers[0].State)
	assert.Empty(t, file.Open)
}

// Undo goes back over taps, not over reps: a word taken back leaves the rep.
func TestUndoTakesBackTheLastTap(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	first := at(rep("accepted", 3), 60, 1)
	p.logs(id, first)
	late := at(rep("accepted", 3), 65, 2)
	late["replaces"] = first["id"]
	late["rep"].(map[string]any)["release"] = "late"
	l := p.logs(id, late)
	require.Len(t, l.Told.Beads, 1)
	assert.Equal(t, horse.Late, l.Told.Beads[0].Release)
	undo := func(seq int) sessions.Logged {
		return p.logs(id, at(map[string]any{"id": uuid.NewString(), "kind": "undo", "device": "tablet", "replaces": l.Told.Recent[0].ID}, 60+seq*10, seq))
	}
	l = undo(3)
	require.Len(t, l.Told.Beads, 1)
	assert.Equal(t, horse.OnTheTry, l.Told.Beads[0].Release)
	l = undo(4)
	assert.Empty(t, l.Told.Beads)
	assert.Empty(t, l.Told.Recent)
}

func TestABadEntryDoesNotHoldUpTheGoodOnes(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	bad := at(rep("accepted", 3), 30, 1)
	bad["rep"].(map[string]any)["step"] = "lead.fly"
	other := at(rep("try", 3), 60, 2)
	l := p.logs(id, bad, other)
	require.Len(t, l.Refused, 1)
	assert.Contains(t, l.Refused[0].Say, "lead.fly")
	assert.Len(t, l.Told.Beads, 1)

	changed := at(rep("refused", 3), 60, 2)
	changed["id"] = other["id"]
	l = p.logs(id, changed)
	assert.Contains(t, l.Refused[0].Say, "other content")
}

// A batch may hold anything: each entry that can't be kept is named with a
// sentence, and the good ones beside it are kept.
func TestAMalformedBatchKeepsItsGoodEntries(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	far := at(rep("accepted", 3), 10, 1)
	far["note"] = strings.Repeat("n", 10<<20)
	fly := at(rep("accepted", 3), 11, 2)
	fly["wings"] = 2
	good := at(rep("accepted", 3), 20, 9)
	l := p.logs(id,
		map[string]any{"kind": "rep"}, map[string]any{"id": "x", "kind": "rep"}, at(rep("splendid", 3), 1, 1), at(rep("accepted", 11), 1, 1),
		7, "rep", nil, far, fly, good)
	said := map[string]string{}
	for _, r := range l.Refused {
		said[r.ID] += r.Say
	}
	assert.Len(t, l.Refused, 9)
	assert.Contains(t, said[""], "Entry 1: ")
	assert.Contains(t, said["x"], "id: ")
	assert.Contains(t, said[far["id"].(string)], "2000 characters at most")
	assert.Contains(t, said[fly["id"].(string)], "not known here")
	assert.Len(t, l.Told.Beads, 1, "the good one is kept")

	for _, body := range []any{
		map[string]any{"sent_at": 0, "entries": []any{}}, map[string]any{"sent_at": -1, "entries": []any{good}}, map[string]any{}, "{", "[]",
	} {
		a := p.ask(http.MethodPost, "/api/sessions/"+id+"/entries", body)
		assert.Equal(t, http.StatusUnprocessableEntity, a.Code, "%s", a.Body)
	}
}

// What an owner's eyes may not say: only a lead trainer clears a rear.
func TestOnlyALeadTrainerClearsARear(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	rear := at(rep("refused", 3), 20, 1)
	rear["rep"].(map[string]any)["ways_out"], rear["rep"].(map[string]any)["flags"] = []string{"reared"}, []string{"rear cleared"}
	assert.Empty(t, p.logs(id, rear).Refused, "a lead trainer may")

	p.add("ash", store.Assistant, false)
	require.Equal(t, http.StatusOK, p.signIn("ash@example.org", password).Code)
	again := at(rep("refused", 3), 40, 2)
	again["rep"] = rear["rep"]
	l := p.logs(id, again)
	require.Len(t, l.Refused, 1)
	assert.Contains(t, l.Refused[0].Say, "only a lead trainer")
}

// A session that was begun without a signal is kept whatever the gate says now,
// and its page says what the gate would have said.
func TestASessionBegunWithoutASignalIsKept(t *testing.T) {
	p := signedInPractice(t)
	scared := map[string]any{"arousal": 1, "handler": "scared", "tack": true, "body": true}
	id := uuid.NewString()
	body := map[string]any{
		"id": id, "started_at": p.now.Add(-26 * time.Hour).UnixMilli(), "sent_at": p.now.UnixMilli(), "zone": "Europe/London", "readiness": scared,
		"begun": map[string]any{"step": "lead.halt"},
	}
	var view sessions.Arena
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", body).into(&view)
	assert.Equal(t, "lead.halt", view.Beginning.Ask.Step)
	assert.Equal(t, p.now.Add(-26*time.Hour).UnixMilli(), view.Beginning.Started, "sent a day later, begun when it was begun")
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", body).into(&view)
	var sum sessions.Summary
	p.ask(http.MethodGet, "/api/sessions/"+id+"/summary", nil).into(&sum)
	require.NotEmpty(t, sum.Gate)
	assert.Contains(t, sum.Gate[0].Text, "scared")

	body["id"], body["begun"] = uuid.NewString(), map[string]any{"step": "lead.fly"}
	assert.Equal(t, "begun", p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", body).problem().Errors[0].Field)
	body["begun"], body["handler"] = map[string]any{"step": "lead.halt"}, uuid.NewString()
	assert.Equal(t, "handler", p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", body).problem().Errors[0].Field)
}

// The arena follows what it is read from: a suspect leg that was found meanwhile
// limits backing at once.
func TestTheArenaFollowsWhatItIsReadFrom(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	var view sessions.Arena
	p.ask(http.MethodGet, "/api/sessions/"+id, nil).into(&view)
	assert.Zero(t, view.Brief.Input.Limits["lead.back"])
	p.marks(uuid.NewString(), "body/hind leg", map[string]any{"state": "suspect"})
	p.ask(http.MethodGet, "/api/sessions/"+id, nil).into(&view)
	assert.Equal(t, 1, view.Brief.Input.Limits["lead.back"])
}

func TestTheGateIsKeptOnTheServer(t *testing.T) {
	p := signedInPractice(t)
	begin := func(change map[string]any) answer {
		ready := map[string]any{}
		for k, v := range calm {
			ready[k] = v
		}
		for k, v := range change {
			ready[k] = v
		}
		return p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", map[string]any{
			"id": uuid.NewString(), "started_at": p.now.UnixMilli(), "zone": "Europe/London", "readiness": ready,
		})
	}
	for says, change := range map[string]map[string]any{
		"Explosive at the gate": {"arousal": 4}, "scared": {"handler": "scared"}, "storm": {"stop": "storm"}, "not as last time": {"body": false},
	} {
		a := begin(change)
		assert.Equal(t, http.StatusUnprocessableEntity, a.Code)
		assert.Contains(t, a.problem().Detail, says)
	}
	assert.Equal(t, http.StatusOK, begin(nil).Code)
	a := p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", map[string]any{
		"id": uuid.NewString(), "started_at": 0, "zone": "Moon/Base", "readiness": calm, "handler": uuid.NewString(),
	})
	assert.Equal(t, http.StatusUnprocessableEntity, a.Code)
}

func TestTheReportKeepsItsWording(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	p.logs(id, at(rep("accepted", 3), 60, 1), at(rep("refused", 5), 120, 2))
	var r reports.Report
	p.ask(http.MethodGet, "/api/sessions/"+id+"/report", nil).into(&r)
	line := r.Sections[1].Sentences[0]
	assert.Contains(t, line.Said.Text, "Moth gave one good answer out of two")

	save := func(version int, key, text string) answer {
		return p.ask(http.MethodPut, "/api/sessions/"+id+"/report", map[string]any{
			"version": version, "edits": map[string]any{key: map[string]any{"text": text, "basis": line.Basis}},
		})
	}
	save(0, line.ID, "She tried hard.").into(&r)
	assert.Equal(t, "She tried hard.", r.Sections[1].Sentences[0].Edited)
	assert.Equal(t, http.StatusConflict, save(0, line.ID, "Other words.").Code)
	assert.Contains(t, save(1, "one.nothing", "x").problem().Errors[0].Say, "not in the report")
	assert.Contains(t, save(1, line.ID, " ").problem().Errors[0].Say, "empty")

	p.logs(id, at(rep("accepted", 2), 180, 3))
	p.ask(http.MethodGet, "/api/sessions/"+id+"/report", nil).into(&r)
	assert.Equal(t, "She tried hard.", r.Sections[1].Sentences[0].Edited, "the wording survives")
	assert.True(t, r.Sections[1].Sentences[0].Changed, "and is marked, since its numbers changed")
	var rows []reports.ReportRow
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/reports", nil).into(&rows)
	assert.Equal(t, "Wren", rows[0].SavedBy)
}

func TestAssessmentAndPlanFollowEachOther(t *testing.T) {
	p := signedInPractice(t)
	var walk assessments.Walk
	p.ask(http.MethodGet, "/api/cases/"+p.kase+"/assessment", nil).into(&walk)
	assert.Nil(t, walk.Newest, "never assessed")
	of := uuid.NewString()
	kept := p.marks(of, "handlers/main/experience", "beginner", "body/hind leg/state", "suspect", "problems/loading/baseline/arousal", 3).Assessment
	assert.Equal(t, horse.ExtraCare, kept.Result.Risk.Care, "%+v", kept.Result.Risk)
	assert.NotEmpty(t, kept.Result.Blocks)
	assert.Equal(t, "vet", kept.Result.Referrals[0].Who)
	var plan plans.Plan
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "First"}).into(&plan)
	assert.Empty(t, p.marks(of, "body/hind leg/state", "cleared").Assessment.Result.Blocks)
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "The vet has cleared the leg"}).into(&plan)
	require.Len(t, plan.Made, 2)
	require.Len(t, plan.Made[0].Changes, 1)
	assert.Contains(t, plan.Made[0].Changes[0].Text, "No longer barred: load step in")
}

func TestWhatComesLateOrByAWrongClockIsKeptAndSaid(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	p.now = p.now.Add(10 * time.Minute)
	p.logs(id, at(rep("accepted", 1), 60, 1), at(map[string]any{"id": uuid.NewString(), "kind": "end", "device": "tablet"}, 120, 2))
	slow := at(rep("try", 2), 90, 1)
	slow["device"] = "phone"
	var l sessions.Logged
	p.ask(http.MethodPost, "/api/sessions/"+id+"/entries", map[string]any{
		"sent_at": p.now.Add(-26 * time.Hour).UnixMilli(), "entries": []any{slow},
	}).into(&l)
	assert.Empty(t, l.Refused)
	var sum sessions.Summary
	p.ask(http.MethodGet, "/api/sessions/"+id+"/summary", nil).into(&sum)
	assert.Equal(t, 1, sum.Late)
	assert.True(t, sum.Clock)
	assert.Len(t, sum.Beads, 2, "nothing is lost")
}

func TestASessionSentTwiceIsOne(t *testing.T) {
	p := signedInPractice(t)
	body := map[string]any{"id": uuid.NewString(), "started_at": p.now.UnixMilli(), "zone": "Europe/London", "readiness": calm}
	var one, two sessions.Arena
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", body).into(&one)
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", body).into(&two)
	assert.Equal(t, one.ID, two.ID)
	var rows []sessions.SessionRow
	p.ask(http.MethodGet, "/api/horses/"+p.horse+"/sessions", nil).into(&rows)
	assert.Len(t, rows, 1)
	assert.False(t, rows[0].Ended)
	var file horses.File
	p.ask(http.MethodGet, "/api/horses/"+p.horse, nil).into(&file)
	assert.Equal(t, one.ID, file.Open)
}

// A device whose clock is far off begins its session now.
func TestASessionOfAWrongClockBeginsNow(t *testing.T) {
	p := signedInPractice(t)
	var view sessions.Arena
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", map[string]any{
		"id": uuid.NewString(), "started_at": p.now.AddDate(-3, 0, 0).UnixMilli(), "zone": "Pacific/Auckland", "readiness": calm,
	}).into(&view)
	assert.Equal(t, p.now.UnixMilli(), view.Beginning.Started)
	assert.Equal(t, "2026-06-01", view.Date, "nine in London is evening there, the same day")
}

func TestTheOwnerHandlesOnlyWhereTheGradeLets(t *testing.T) {
	p := signedInPractice(t)
	begin := func() answer {
		return p.ask(http.MethodPost, "/api/cases/"+p.kase+"/sessions", map[string]any{
			"id": uuid.NewString(), "started_at": p.now.UnixMilli(), "zone": "Europe/London", "readiness": calm, "handler": p.owner,
		})
	}
	var view sessions.Arena
	begin().into(&view)
	assert.Equal(t, p.owner, view.Beginning.Handler)
	p.marks(uuid.NewString(), "events/1", map[string]any{"kind": "charged", "on": "2026-05-20"})
	a := begin()
	assert.Equal(t, http.StatusUnprocessableEntity, a.Code, "charged: high care, and the owner does not handle")
	assert.Equal(t, "handler", a.problem().Errors[0].Field)
	var r sessions.SessionStart
	p.ask(http.MethodGet, "/api/cases/"+p.kase+"/session-start", nil).into(&r)
	assert.Equal(t, horse.HighCare, r.Stage.Care)
	assert.Len(t, r.Handlers, 1)
	assert.NotEmpty(t, r.Safety.Text)
}

// The same sentence in another practice's words.
func TestAnswersAreSaidInThePracticesWords(t *testing.T) {
	p := newPractice(t)
	p.words = phrase.Words{Vehicle: "float", Sides: "left and right", Units: "feet"}
	p.fill("Down under")
	p.signIn("Down under@example.org", password)
	var choices []cases.ProblemChoice
	p.ask(http.MethodGet, "/api/problems", nil).into(&choices)
	assert.Equal(t, "float loading", choices[0].Name.Text)
	id, _ := p.session()
	said := map[string]string{}
	var chosen desk.Chosen
	p.ask(http.MethodGet, "/api/sessions/"+id+"/asks", nil).into(&chosen)
	marks := ""
	for _, c := range chosen.Cards {
		for _, v := range c.Variants {
			said[v.Variant.String()] = v.Name.Text
		}
		assert.NotContains(t, c.Ask+c.Release+c.Watch+c.Pass, "{")
		marks += string(c.Pass) + "\n"
	}
	assert.Contains(t, marks, "settled or attentive after, at 5 ft", "load.gap, at 1.5 m")
	assert.Equal(t, "left", said["near"])
	var r reports.Report
	p.logs(id, at(rep("accepted", 3), 60, 1))
	a := p.ask(http.MethodGet, "/api/sessions/"+id+"/report", nil)
	a.into(&r)
	assert.Contains(t, a.Body.String(), "do not practise with the float")
	assert.NotContains(t, a.Body.String(), "the trailer")
}

// Any ask can be logged; what a fact forbids is chosen by a lead trainer alone, who
// says why and who answers for it, and what was done all the same is kept.
func TestWhatIsForbiddenIsChosenByALeadTrainerAlone(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	choose := func(n int, despite map[string]any) map[string]any {
		e := at(map[string]any{"id": uuid.NewString(), "kind": "mark", "device": "tablet", "mark": map[string]any{"ask": map[string]any{"step": "load.tie"}}}, n, n)
		if despite != nil {
			e["mark"].(map[string]any)["despite"] = despite
		}
		return e
	}
	said := map[string]any{"reason": "the owner ties it daily", "answers": "my decision"}
	assert.Empty(t, p.logs(id, choose(1, said)).Refused)
	told := p.logs(id, choose(2, map[string]any{"reason": "why not", "answers": ""}))
	require.Len(t, told.Refused, 1, "somebody answers for it")
	p.add("ash", store.Assistant, false)
	p.signIn("ash@example.org", password)
	told = p.logs(id, choose(3, said))
	require.Len(t, told.Refused, 1)
	assert.Contains(t, told.Refused[0].Say, "only a lead trainer")
	done := at(rep("accepted", 2), 4, 4)
	done["rep"].(map[string]any)["step"] = "load.tie"
	assert.Empty(t, p.logs(id, done).Refused, "what was done is kept")
	assert.Contains(t, p.ask(http.MethodGet, "/api/sessions/"+id+"/report", nil).Body.String(), "This was done against our own advice: standing tied inside. No bar is shut")
	var sum sessions.Summary
	p.ask(http.MethodGet, "/api/sessions/"+id+"/summary", nil).into(&sum)
	require.Len(t, sum.Review.Asks, 1)
	assert.Equal(t, "the owner ties it daily", sum.Review.Asks[0].Despite.Reason)
}

// An own ask is one of the horse's from the session on in which it was written down.
func TestAnOwnAskIsKeptWithTheHorse(t *testing.T) {
	p := signedInPractice(t)
	id, view := p.session()
	key := "own." + uuid.NewString()
	added := at(map[string]any{"id": uuid.NewString(), "kind": "mark", "device": "tablet", "mark": map[string]any{
		"new": map[string]any{"key": key, "name": "stands for the umbrella"}, "ask": map[string]any{"step": key},
	}}, 1, 1)
	done := at(rep("accepted", 2), 2, 2)
	done["rep"].(map[string]any)["step"] = key
	told := p.logs(id, added, done)
	require.Empty(t, told.Refused)
	assert.Equal(t, key, told.Told.At.Step)
	assert.Empty(t, p.logs(id, at(map[string]any{"id": uuid.NewString(), "kind": "end", "device": "tablet"}, 3, 3)).Refused)
	var start sessions.SessionStart
	p.ask(http.MethodGet, "/api/cases/"+view.CaseID+"/session-start", nil).into(&start)
	require.Len(t, start.Stage.Brief.Fitting.Asks, 1)
	assert.Equal(t, "stands for the umbrella", start.Stage.Brief.Fitting.Asks[0].Name)
	assert.Equal(t, http.StatusOK, p.ask(http.MethodGet, "/api/sessions/"+id+"/summary", nil).Code)
	assert.Equal(t, http.StatusOK, p.ask(http.MethodGet, "/api/sessions/"+id, nil).Code)
}

// What is found while a session runs bars its steps at once.
func TestASuspectLegBarsARunningSession(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	on := func(step string, seq int) map[string]any {
		e := at(rep("try", 2), 60*seq, seq)
		e["rep"].(map[string]any)["step"] = step
		return e
	}
	assert.Equal(t, "load.step", p.logs(id, on("load.step", 1)).Told.Advice.Next.Step)
	p.marks(uuid.NewString(), "body/hind leg/state", "suspect")
	told := p.logs(id, on("load.step", 2)).Told
	assert.Equal(t, track.Down, told.Advice.Action)
	assert.Equal(t, "load.front", told.Advice.Next.Step)
}
