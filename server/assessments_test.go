package server

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/server/assessments"
	"ivorybridge/server/plans"
)

// marks sends taps as pairs of a place and a value.
func (p *practice) marks(of string, pairs ...any) assessments.Marked {
	p.t.Helper()
	var list []any
	for i := 0; i < len(pairs); i += 2 {
		p.taps++
		m := aMark(pairs[i].(string), pairs[i+1])
		m["at"], m["seq"] = p.now.UnixMilli(), p.taps
		list = append(list, m)
	}
	var answer assessments.Marked
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/assessments/"+of+"/marks", map[string]any{"sent_at": p.now.UnixMilli(), "marks": list}).into(&answer)
	return answer
}

func (p *practice) walk() assessments.Walk {
	p.t.Helper()
	var w assessments.Walk
	p.ask(http.MethodGet, "/api/cases/"+p.kase+"/assessment", nil).into(&w)
	return w
}

func TestAnAssessmentGrowsTapByTap(t *testing.T) {
	p := signedInPractice(t)
	of := uuid.NewString()
	first := p.marks(of, "problems/loading/story/began", "suddenly").Assessment
	assert.Equal(t, "2026-06-01", first.On)
	assert.EqualValues(t, "told", first.Result.Problems[0].Causes[0].For[0].Source.String())
	again := p.marks(of, "problems/loading/story/began", "gradually", "problems/loading/story/tries", 5, "problems/loading/story/successes", 9).Assessment
	assert.Equal(t, of, again.ID)
	assert.Equal(t, "problems/loading/story/successes", again.Result.Doubts[0].Path, "kept, and doubted")
	w := p.walk()
	require.NotNil(t, w.Newest)
	assert.Equal(t, 9, *w.Newest.Doc.Problems[w.Problems[0].Problem].Story.Successes)
	assert.Len(t, w.Problems[0].Sections, 10)
	assert.Equal(t, "How it began", w.Problems[0].Sections[0].Questions[1].Label.Text)
	assert.Equal(t, "trailer loading", w.Problems[0].Name.Text)
	for _, further := range w.Further {
		assert.NotEqual(t, w.Problems[0].Problem, further.Problem)
		assert.NotContains(t, further.Name.Text, "problem.", "every problem has a name")
	}
}

func TestMarksThatCantBeAreNamedAndTheRestIsKept(t *testing.T) {
	p := signedInPractice(t)
	of := uuid.NewString()
	got := p.marks(of, "checkups/dental", "2026-02-30", "tack/bit", "gag", "body/belly/state", "fine", "basics/lead.back/level", 12)
	require.Len(t, got.Refused, 3)
	assert.Contains(t, got.Refused[0].Say, "not a date")
	assert.Equal(t, "gag", got.Assessment.Doc.Tack.Bit.String())
	assert.Empty(t, got.Assessment.Doc.Checkups.Dental)

	huge := aMark("problems/loading/story/description", strings.Repeat("x", 2001))
	var answer assessments.Marked
	p.ask(http.MethodPost, "/api/horses/"+p.horse+"/assessments/"+of+"/marks", map[string]any{"sent_at": 0, "marks": []any{huge}}).into(&answer)
	assert.Contains(t, answer.Refused[0].Say, "too long")
	for name, body := range map[string]any{
		"no marks": map[string]any{"sent_at": 0, "marks": []any{}}, "no JSON": "{", "no path": map[string]any{"sent_at": 0, "marks": []any{aMark("", 1)}},
	} {
		assert.Equal(t, http.StatusUnprocessableEntity, p.ask(http.MethodPost, "/api/horses/"+p.horse+"/assessments/"+of+"/marks", body).Code, name)
	}
}

func TestMarksSentTwiceAreOne(t *testing.T) {
	p := signedInPractice(t)
	of, m := uuid.NewString(), aMark("tack/bit", "gag")
	send := func() (answer assessments.Marked) {
		p.ask(http.MethodPost, "/api/horses/"+p.horse+"/assessments/"+of+"/marks", map[string]any{"sent_at": 0, "marks": []any{m}}).into(&answer)
		return answer
	}
	assert.Empty(t, send().Refused)
	assert.Empty(t, send().Refused, "the same again is taken silently")
	m["value"] = "leverage"
	refused := send().Refused
	require.Len(t, refused, 1)
	assert.Contains(t, refused[0].Say, "kept already with other content")
	marks, err := p.Store.Marks(context.Background(), p.actor.Practice, of)
	require.NoError(t, err)
	assert.Len(t, marks, 1)
}

func TestAReAssessmentStartsFromTheLastAndSaysWhatChanged(t *testing.T) {
	p := signedInPractice(t)
	first := uuid.NewString()
	p.marks(first, "body/hind leg/state", "suspect", "findings/curious", "seen")
	p.now = p.now.Add(21 * 24 * time.Hour)
	second := uuid.NewString()
	got := p.marks(second, "body/hind leg/state", "cleared", "problems/loading/findings/shakes_sweats", "seen").Assessment
	assert.Equal(t, []string{"2026-06-22", "2026-06-01"}, []string{got.On, got.From})
	assert.Contains(t, got.Doc.Findings, "curious", "it starts from the last one")
	changed := map[string]string{}
	for _, c := range got.Changes {
		changed[c.What.Text] = c.Before + " → " + c.After
	}
	assert.Equal(t, "suspect → cleared", changed["hind leg that snatches or locks"])
	assert.Equal(t, "not enough seen → possible", changed["fear"])
	var before assessments.Assessment
	p.ask(http.MethodGet, "/api/assessments/"+first, nil).into(&before)
	assert.NotEmpty(t, before.Result.Blocks, "the older one stands as it was judged on its day")
	assert.Empty(t, before.Changes)
	assert.Len(t, p.walk().All, 2)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/assessments/"+uuid.NewString(), nil).Code)
}

func TestAnOverruledResultKeepsBothWithTheReason(t *testing.T) {
	p := signedInPractice(t)
	of := uuid.NewString()
	assert.Len(t, p.marks(of, "overruled/start.loading", map[string]any{"to": "load.gap"}).Refused, 1, "no reason, no overruling")
	got := p.marks(of, "overruled/start.loading", map[string]any{"to": "load.gap", "reason": "was there last week"}).Assessment
	require.Len(t, got.Overruled, 1)
	assert.Equal(t, []any{"start.loading", "load.gap", "was there last week", "Wren"}, []any{got.Overruled[0].Key, got.Overruled[0].To, got.Overruled[0].Reason, got.Overruled[0].By})
	assert.Equal(t, p.now.UnixMilli(), got.Overruled[0].At)
	problem := got.Result.Problems[0]
	assert.Equal(t, []string{"load.gap", "load.board"}, []string{problem.Start.Key, problem.Computed.Key})
	var plan plans.Plan
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "First"}).into(&plan)
	p.now = p.now.Add(24 * time.Hour)
	later := p.marks(uuid.NewString(), "findings/curious", "seen").Assessment
	require.Len(t, later.Overruled, 1)
	assert.Equal(t, "Wren", later.Overruled[0].By, "carried over, and still known whose it is")
	p.now = p.now.Add(-24 * time.Hour)
	back := p.marks(of, "overruled/start.loading", nil).Assessment
	assert.Empty(t, back.Overruled)
	assert.Equal(t, "load.board", back.Result.Problems[0].Start.Key)
}

func TestAWrongClockPutsNoAssessmentIntoAnotherYear(t *testing.T) {
	p := signedInPractice(t)
	for name, c := range map[string]struct {
		at, sent time.Duration // against the server's clock
		on       string
	}{
		"kept for two days":        {-48 * time.Hour, 0, "2026-05-30"},
		"a clock a year behind":    {-365 * 24 * time.Hour, -365 * 24 * time.Hour, "2026-06-01"},
		"a time that can't be":     {-400 * 24 * time.Hour, 0, "2026-06-01"},
		"a clock that runs ahead":  {36 * time.Hour, 36 * time.Hour, "2026-06-01"},
		"a tap from the day after": {24 * time.Hour, 0, "2026-06-01"},
	} {
		m := aMark("tack/bit", "gag")
		m["at"] = p.now.Add(c.at).UnixMilli()
		var got assessments.Marked
		p.ask(http.MethodPost, "/api/horses/"+p.horse+"/assessments/"+uuid.NewString()+"/marks", map[string]any{"sent_at": p.now.Add(c.sent).UnixMilli(), "marks": []any{m}}).into(&got)
		assert.Equal(t, c.on, got.Assessment.On, name)
	}
}

func TestLongTextsAreKeptWhole(t *testing.T) {
	p := signedInPractice(t)
	text := strings.Repeat("<", 2000)
	got := p.marks(uuid.NewString(), "problems/loading/story/description", text)
	assert.Empty(t, got.Refused)
	assert.Equal(t, text, got.Assessment.Doc.Problems[got.Assessment.Result.Problems[0].Problem].Story.Description)
}

func TestAnAssessmentIsOfOneHorse(t *testing.T) {
	p := signedInPractice(t)
	of := uuid.NewString()
	p.marks(of, "tack/bit", "gag")
	p.takesOn(p.actor)
	body := map[string]any{"sent_at": 0, "marks": []any{aMark("tack/bit", "none")}}
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodPost, "/api/horses/"+p.horse+"/assessments/"+of+"/marks", body).Code, "another horse's assessment is not this one's")
}

// Where person or tack was changed at one ask in the arena, the walk offers it as a swap;
// and what was timed while it went stands with what was timed on clips.
func TestTheWalkOffersWhatTheArenaSaw(t *testing.T) {
	p := signedInPractice(t)
	assert.Nil(t, p.walk().Swapped)
	session, _ := p.session()
	at := p.now.UnixMilli()
	logged := func(kind string, of any) any {
		at += 60_000
		return map[string]any{"id": uuid.NewString(), "kind": kind, "at": at, kind: of}
	}
	does := func(level int, answer string) any {
		return logged("rep", map[string]any{"step": "lead.halt", "answer": answer, "peak": level, "arousal": 1})
	}
	p.now = p.now.Add(10 * time.Minute)
	require.Empty(t, p.logs(session, does(6, "try"), logged("mark", map[string]any{"tack": "rope halter"}), does(3, "accepted")).Refused)
	swapped := p.walk().Swapped
	require.NotNil(t, swapped)
	assert.Equal(t, "2026-06-01", swapped.On)
	assert.Equal(t, "lead halt", swapped.Name)
	require.Len(t, swapped.Rows, 2)
	assert.Equal(t, "Wren", swapped.Rows[0].Person)
	assert.Equal(t, []string{"usual tack", "rope halter"}, []string{swapped.Rows[0].Tack, swapped.Rows[1].Tack})

	id := uuid.NewString()
	var landings []any
	for i := range 4 {
		for n, hoof := range []string{"near hind", "near fore", "off hind", "off fore"} {
			landings = append(landings, map[string]any{"hoof": hoof, "at": float64(i) + float64(n)/4})
		}
	}
	require.Empty(t, p.marks(id, "first_look/gait", "pace", "first_look/timed", map[string]any{"landings": landings}).Refused)
	wrong := p.marks(id, "first_look/timed", map[string]any{"landings": slices.Repeat(landings, 16)}).Refused
	require.Len(t, wrong, 1)
	assert.Contains(t, wrong[0].Say, "are too many for one timing: 240 at most")
	timed := p.walk().Timed
	require.Len(t, timed, 1)
	assert.Equal(t, []string{"", "pace", "It walks. Four even beats."}, []string{timed[0].Clip, timed[0].Rider, timed[0].Says.Text})
}
