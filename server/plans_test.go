package server

import (
	"net/http"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"ivorybridge/core/catalog"
	"ivorybridge/server/cases"
	"ivorybridge/server/methods"
	"ivorybridge/server/plans"
	"ivorybridge/store"
)

func (p *practice) tries(choices map[string]any) answer {
	return p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plan/try", map[string]any{"choices": choices})
}

func (p *practice) plans() plans.Plan {
	p.t.Helper()
	var plan plans.Plan
	p.ask(http.MethodGet, "/api/cases/"+p.kase+"/plan", nil).into(&plan)
	return plan
}

// What is tried is worked out and not kept; what is kept stands with its reason
// and what changed; what can't be is refused by its field and nothing changes.
func TestAPlanIsTriedAndKept(t *testing.T) {
	p := signedInPractice(t)
	var tried plans.Plan
	p.tries(map[string]any{"visits_per_week": 5, "schools": map[string]any{"load": "wait it out"}, "settings": map[string]any{"trailer way": "send in first"}}).into(&tried)
	require.Len(t, tried.Changed, 3)
	assert.Equal(t, "Visits a week: 2 became 5.", tried.Changed[0].Text)
	assert.Empty(t, tried.Made)
	assert.Nil(t, p.plans().Choices.PerWeek, "nothing was kept")

	wrong := p.tries(map[string]any{"visits_per_week": 99, "schools": map[string]any{"lead": "doses"}, "by": "yesterday", "own": map[string]any{"load": map[string]any{"id": uuid.NewString(), "version": 1}}})
	assert.Equal(t, http.StatusUnprocessableEntity, wrong.Code)
	var fields []string
	for _, e := range wrong.problem().Errors {
		fields = append(fields, e.Field)
	}
	assert.ElementsMatch(t, []string{"choices.visits_per_week", "choices.schools.lead", "choices.by", "choices.own.load"}, fields)

	var kept plans.Plan
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "First"}).into(&kept)
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "More time", "choices": map[string]any{"visits_per_week": 5}}).into(&kept)
	require.Len(t, kept.Made, 2)
	assert.Equal(t, "Visits a week: 2 became 5.", kept.Made[0].Changes[0].Text)
	assert.Empty(t, kept.Changed)
	assert.Equal(t, 5, *p.plans().Choices.PerWeek)
	refused := p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "Too much", "choices": map[string]any{"visits_per_week": 99}})
	assert.Equal(t, http.StatusUnprocessableEntity, refused.Code)
	assert.Len(t, p.plans().Made, 2)
}

// A young horse is ridden only by a lead trainer's exception, which bears the
// name of who made it.
func TestOnlyALeadMakesAnException(t *testing.T) {
	p := newPractice(t)
	p.add("ash", store.Assistant, false)
	p.signIn("ash@example.org", password)
	exception := map[string]any{"exception": map[string]any{"reason": "sold", "until": "2026-07-01", "by": "the pope"}}
	assert.Equal(t, "choices.exception", p.tries(exception).problem().Errors[0].Field)
	p.signIn("Wren@example.org", password)
	var kept plans.Plan
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "sold", "choices": exception}).into(&kept)
	assert.Equal(t, "Wren", kept.Choices.Exception.By)
	p.signIn("ash@example.org", password)
	var again plans.Plan
	p.tries(exception).into(&again)
	assert.Equal(t, "Wren", again.Choices.Exception.By, "an assistant may plan on with it")
}

func TestOwnLaddersAreCheckedAndVersioned(t *testing.T) {
	p := signedInPractice(t)
	var h methods.Handbook
	p.ask(http.MethodGet, "/api/methods", nil).into(&h)
	require.Len(t, h.Ladders, 20)
	assert.Equal(t, "lead forward at level 1 or less", h.Piers["load"][0].Says.Text)
	assert.Equal(t, "control walk, for a horse not yet ridden", h.Needs["home.ridden"][0].Says.Text)
	assert.Len(t, h.Schools, 5)

	assert.Equal(t, "name", p.ask(http.MethodPost, "/api/ladders", map[string]any{"version": 0, "ladder": "load", "name": " "}).problem().Errors[0].Field)
	assert.Equal(t, "ladder", p.ask(http.MethodPost, "/api/ladders", map[string]any{"version": 0, "ladder": "moon", "name": "x"}).problem().Errors[0].Field)
	var own cases.OwnLadder
	p.ask(http.MethodPost, "/api/ladders", map[string]any{"version": 0, "ladder": "load", "name": "Ours"}).into(&own)
	assert.EqualValues(t, 1, own.Version)
	assert.Equal(t, p.Catalog.Version, own.From)

	text := func(version int64, change func(i int, step map[string]any)) map[string]any {
		var steps []any
		for i, s := range own.Doc.Steps {
			step := map[string]any{
				"key": s.Key, "name": s.Name, "ask": s.Ask, "plain": s.Plain, "measures": s.Measures, "run": s.Pass.Run, "level": s.Pass.Level,
				"values": s.Pass.Values, "unit": s.Pass.Unit, "needs": []any{}, "kit": s.Kit,
			}
			change(i, step)
			if len(step) > 0 {
				steps = append(steps, step)
			}
		}
		return map[string]any{"version": version, "name": "Ours", "where": own.Doc.Where, "steps": steps}
	}
	put := func(body map[string]any) answer { return p.ask(http.MethodPut, "/api/ladders/"+own.ID, body) }
	for name, test := range map[string]struct {
		change func(int, map[string]any)
		field  string
		say    string
	}{
		"circle":    {func(i int, s map[string]any) { set(s, i == 0, "needs", []any{"load.stand"}) }, "steps.0", "circle"},
		"no mark":   {func(i int, s map[string]any) { set(s, i == 2, "run", 0) }, "steps.2", "pass mark"},
		"values":    {func(i int, s map[string]any) { set(s, i == 2, "values", []any{4000, 4000}) }, "steps.2", "one after the other"},
		"unit":      {func(i int, s map[string]any) { set(s, i == 2, "unit", "yards") }, "steps.2", "what the values count"},
		"no such":   {func(i int, s map[string]any) { set(s, i == 1, "needs", []any{"load.moon"}) }, "steps.1", "not a step"},
		"other key": {func(i int, s map[string]any) { set(s, i == 1, "key", "lead.back") }, "steps.1", "belongs to the ladder"},
	} {
		a := put(text(1, test.change))
		require.Equal(t, http.StatusUnprocessableEntity, a.Code, "%s: %s", name, a.Body)
		found := false
		for _, e := range a.problem().Errors {
			found = found || e.Field == test.field && assert.Contains(t, e.Say, test.say, name)
		}
		assert.True(t, found, "%s: %s", name, a.Body)
	}
	p.ask(http.MethodGet, "/api/methods", nil).into(&h)
	assert.EqualValues(t, 1, h.Owns[0].Version, "nothing changed")

	var next cases.OwnLadder
	put(text(1, func(i int, s map[string]any) { set(s, i == 0, "run", 6) })).into(&next)
	assert.EqualValues(t, 2, next.Version)
	assert.Equal(t, []string{"board"}, next.Changed)
	stale := put(text(1, func(int, map[string]any) {}))
	assert.Equal(t, http.StatusConflict, stale.Code)
	assert.NotNil(t, stale.problem().Current)

	var kept plans.Plan
	p.ask(http.MethodPost, "/api/cases/"+p.kase+"/plans", map[string]any{"reason": "Ours", "choices": map[string]any{"own": map[string]any{"load": map[string]any{"id": own.ID, "version": 2}}}}).into(&kept)
	drop := put(text(2, func(i int, s map[string]any) {
		if i == 7 {
			clear(s)
		}
	}))
	require.Equal(t, http.StatusUnprocessableEntity, drop.Code)
	assert.Contains(t, drop.problem().Errors[0].Say, "Side: It is in use")
	put(text(2, func(i int, s map[string]any) { set(s, i == 0, "run", 7) })).into(&next)
	assert.EqualValues(t, 3, next.Version)
	assert.EqualValues(t, 2, p.plans().Choices.Own["load"].Version, "the plan keeps its version")

	p.add("ash", store.Assistant, false)
	p.signIn("ash@example.org", password)
	assert.Equal(t, http.StatusForbidden, put(text(3, func(int, map[string]any) {})).Code)
}

func set(step map[string]any, here bool, key string, value any) {
	if here {
		step[key] = value
	}
}

func TestRehearsalsAndTheHomeworkCard(t *testing.T) {
	p := signedInPractice(t)
	id, _ := p.session()
	var entries []any
	for i := range 3 {
		r := at(rep("accepted", 1), 60*i, i+1)
		r["rep"].(map[string]any)["handler"] = p.owner
		entries = append(entries, r)
	}
	p.ask(http.MethodPost, "/api/sessions/"+id+"/entries", map[string]any{"sent_at": p.now.UnixMilli(), "entries": entries})
	items := map[string]any{}
	body := map[string]any{"person": p.owner, "step": "lead.forward", "on": "2026-06-01", "place": "person", "items": items}
	path := "/api/cases/" + p.kase + "/rehearsals"
	assert.Equal(t, "items", p.ask(http.MethodPost, path, body).problem().Errors[0].Field)
	for _, item := range []string{"rope managed", "right place", "starts light", "builds evenly", "keeps raising until the partner answers", "lets go on the try", "own space kept"} {
		items[item] = "yes"
	}
	stranger := map[string]any{"person": uuid.NewString(), "step": "lead.forward", "on": "2026-06-01", "place": "person", "items": items}
	assert.Equal(t, "person", p.ask(http.MethodPost, path, stranger).problem().Errors[0].Field)
	var c plans.Clearances
	p.ask(http.MethodGet, "/api/cases/"+p.kase+"/clearance", nil).into(&c)
	require.NotEmpty(t, c.States)
	assert.False(t, c.States[0].Cleared)
	p.ask(http.MethodPost, path, body).into(&c)
	assert.True(t, c.States[0].Cleared, "%+v", c.States[0])
	assert.Equal(t, "Wren", c.Rehearsals[0].By)

	var page plans.HomeworkPage
	p.ask(http.MethodGet, "/api/cases/"+p.kase+"/homework/"+p.owner, nil).into(&page)
	require.Len(t, page.Steps, 1)
	assert.Equal(t, "lead.forward", page.Steps[0].Step)
	assert.Empty(t, page.Contacts)
	require.Equal(t, http.StatusOK, p.ask(http.MethodPut, "/api/practice", map[string]any{"phone": "01632 960150"}).Code)
	p.ask(http.MethodGet, "/api/cases/"+p.kase+"/homework/"+p.owner, nil).into(&page)
	assert.Equal(t, "01632 960150", page.Contacts[0].Phone)
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodGet, "/api/cases/"+p.kase+"/homework/"+uuid.NewString(), nil).Code)
}

func TestTheSequenceCardAnswersEachTick(t *testing.T) {
	p := signedInPractice(t)
	tick := func(run string, done []string, line string) catalog.Now {
		var now catalog.Now
		p.ask(http.MethodPost, "/api/sequence-cards/trailer/ticks", map[string]any{"run": run, "done": done, "tick": line, "seed": 7}).into(&now)
		return now
	}
	now := tick("unloading", []string{"ramp down"}, "open")
	assert.Equal(t, "Not yet: Bar or divider opened. First: Untie first. A horse that steps back while tied hits the end of the rope and fights it.", now.Refused.Text)
	assert.Equal(t, []string{"ramp down"}, now.Done)
	assert.NotEmpty(t, now.Stops)
	assert.Equal(t, now.Stops, tick("unloading", []string{"ramp down"}, "untie").Stops, "drawn once for a run")
	assert.Equal(t, http.StatusNotFound, p.ask(http.MethodPost, "/api/sequence-cards/moon/ticks", map[string]any{"run": "loading", "done": []string{}, "seed": 1}).Code)
}
