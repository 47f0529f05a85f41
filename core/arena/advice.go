package arena

import (
	"fmt"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// Version names these rules; a session pins the version that advised it.
const Version = "2026.4"

// Known is what is known of an ask before the session: how far it has come.
type Known struct {
	horse.Ask
	State horse.StepState `json:"state" doc:"how far it had come"`
	Value int             `json:"value,omitempty" doc:"furthest hold, count or distance accepted"`
	Soft  bool            `json:"soft,omitempty" doc:"was accepted at least once"`
	Level horse.Level     `json:"level,omitzero" doc:"lowest level at which the pass mark was reached"`
	Last  string          `json:"last,omitempty" format:"date" doc:"last day it was worked"`

	Understood bool         `json:"understood,omitempty" doc:"2 of the last 3 answers were a try or better, at level 6 or less"`
	Good       bool         `json:"good,omitempty" doc:"seen good in person at an assessment: accepted, at level 5 or less"`
	SoftAfter  float64      `json:"soft_after,omitempty" doc:"median seconds of feel until it was soft, on the last day it was worked"`
	Kicks      *int         `json:"kicks,omitempty" doc:"kicks per 10 in the first set of that day"`
	StoodAfter float64      `json:"stood_after,omitempty" doc:"seconds until it stood in the first dose of that day"`
	Concluded  bool         `json:"concluded,omitempty" doc:"nobody saw it: counted as understood because a later step was accepted"`
	Source     horse.Source `json:"source,omitzero" doc:"where the state comes from, if from an assessment: seen, on video; told: it is only said to be good"`
	Assessed   string       `json:"assessed,omitempty" format:"date" doc:"day of that assessment"`
	KeptAt     string       `json:"kept_at,omitempty" format:"date" doc:"day on which an owner kept it at home"`
}

// Meets reports whether what is known of an ask meets a need of it: met at the
// level, no more than understood, or seen good at the assessment, which is not
// taught again (part 7).
func (k Known) Meets(n catalog.Need) bool {
	if n.Understood && k.Understood {
		return true
	}
	if n.Kept {
		return k.State == horse.Kept
	}
	if k.Good {
		return true
	}
	return k.Passed() && (n.Level == 0 || k.Level.Noted() && k.Level.Int() <= n.Level)
}

// Passed reports whether the ask is met or kept.
func (k Known) Passed() bool { return k.State == horse.Met || k.State == horse.Kept }

// Passed reports whether all asks of a step are met or kept.
func Passed(known []Known, s catalog.Step) bool {
	return !slices.ContainsFunc(s.Asks(), func(a horse.Ask) bool {
		return !slices.ContainsFunc(known, func(k Known) bool { return k.Ask == a && k.Passed() })
	})
}

// A Handler is someone who holds the rope.
type Handler struct {
	Owner    bool     `json:"owner,omitempty" doc:"a first accepted answer on a step that failed before ends the session"`
	Beginner bool     `json:"beginner,omitempty" doc:"no firm levels: 6 at most"`
	Failed   []string `json:"failed,omitempty" doc:"steps that failed with this person before"`
	Cleared  []string `json:"cleared,omitempty" doc:"steps that this person may do alone; any other is watched"`
}

// Horse is what the rules read of the horse.
type Horse struct {
	Young        bool `json:"young,omitempty" doc:"under 3 years or 10 rides"`
	GuardsItself bool `json:"guards_itself,omitempty" doc:"level ceiling 4"`
	FearLikely   bool `json:"fear_likely,omitempty" doc:"a cleared rear is danger all the same"`
	BodyClear    bool `json:"body_clear,omitempty" doc:"all relevant body items clear or cleared"`
}

// Input is all the advisor looks at.
type Input struct {
	School   horse.School            `json:"school" doc:"the way of working: its column of part 6 holds"`
	Schools  map[string]horse.School `json:"schools,omitempty" doc:"by ladder, where it is another"`
	Ask      horse.Ask               `json:"ask" doc:"where the work begins"`
	Started  int64                   `json:"started" doc:"start of the session, ms"`
	Core     string                  `json:"core,omitempty" doc:"edition of the rules that the session was begun with; empty: this one"`
	Now      int64                   `json:"now" doc:"the clock, ms"`
	Horse    Horse                   `json:"horse,omitzero" doc:"what the rules read of the horse"`
	Known    []Known                 `json:"known,omitempty" doc:"steps before this session"`
	Blocked  []string                `json:"blocked,omitempty" doc:"keys of steps that a fact blocks"`
	Barred   map[string]Barred       `json:"barred,omitempty" doc:"why each of them is blocked, by step"`
	Levels   map[string]int          `json:"levels,omitempty" doc:"pass level by step, where the plan asks for lighter"`
	Before   []StoppedBefore         `json:"before,omitempty" doc:"what was stopped in earlier sessions"`
	Spots    []Spot                  `json:"spots,omitempty" doc:"the named places that were passed before"`
	Spooks   []float64               `json:"spooks,omitempty" doc:"how often it spooked in ten minutes, of sessions since it was first written down"`
	Limits   map[string]int          `json:"limits,omitempty" doc:"the last value by step, where a fact allows no more"`
	Handler  string                  `json:"handler,omitempty" doc:"who holds the rope unless a rep says"`
	Handlers map[string]Handler      `json:"handlers,omitempty" doc:"people who are no trainers, by the name used as handler"`
	Mind     horse.Mind              `json:"mind,omitzero" doc:"the handler at readiness"`
	Track    []track.Entry           `json:"track" doc:"the entries, in any order"`
}

// Next is the ask to come.
type Next struct {
	horse.Ask
	Target     int `json:"target,omitempty" doc:"hold, count or distance to ask for"`
	StartLevel int `json:"start_level" doc:"always 1"`
	BuildTo    int `json:"build_to,omitempty" doc:"the highest level for this once"`
}

// Fired is a rule that spoke, with the numbers it used.
type Fired struct {
	Rule string         `json:"rule" doc:"number of the rule in part 6, or the warning's name"`
	Why  phrase.Message `json:"why" doc:"the reason as a sentence"`
}

// Numbers are the counts behind the advice.
type Numbers struct {
	N              int     `json:"n" doc:"counted reps of this ask in this session"`
	Cycle          int     `json:"cycle" doc:"reps to a cycle here"`
	Dip            bool    `json:"dip" doc:"the last rep fell on a dip position"`
	PassRun        int     `json:"pass_run" doc:"reps in a row towards the pass mark"`
	PassNeeds      int     `json:"pass_needs" doc:"answers in a row that pass this ask"`
	PassLevel      int     `json:"pass_level" doc:"highest level that passes"`
	BlockMinutes   float64 `json:"block_minutes" doc:"minutes in this block so far"`
	BlockEnds      int     `json:"block_ends" doc:"minutes a block should take"`
	SessionMinutes float64 `json:"session_minutes" doc:"minutes of the session so far"`
	SessionCap     int     `json:"session_cap" doc:"minutes after which it ends"`
	RepSeconds     float64 `json:"rep_seconds" doc:"seconds that a rep takes here"`
	Arousal        int     `json:"arousal" doc:"as it was last noted or filled in"`
}

// Advice is one action, its reason, and what goes with it.
type Advice struct {
	Action   track.Action      `json:"action" doc:"what to do next"`
	Then     []track.Action    `json:"then,omitempty" doc:"what follows once the action is done"`
	Next     *Next             `json:"next,omitempty" doc:"the ask to go on with; absent: none"`
	Easy     *horse.Ask        `json:"easy,omitempty" doc:"an easy known ask to finish on first"`
	Release  horse.ReleaseSize `json:"release,omitzero" doc:"for the rep just logged"`
	Rest     int               `json:"rest,omitempty" doc:"seconds left alone"`
	Rule     string            `json:"rule" doc:"the rule that decided"`
	Say      phrase.Message    `json:"say" doc:"the advice as a sentence"`
	Why      phrase.Message    `json:"why" doc:"the reason as a sentence"`
	Against  *Against          `json:"against,omitempty" doc:"what stands against the ask at work"`
	Warnings []Fired           `json:"warnings,omitempty" doc:"what to mind beside it"`
	Incident bool              `json:"incident,omitempty" doc:"an incident note is asked for"`
	Stops    bool              `json:"stops,omitempty" doc:"what is being done stops, or nothing is added: the device says so by touch"`
	Waits    bool              `json:"waits,omitempty" doc:"nothing is asked meanwhile: how the horse is stands by itself, and corrects no answer"`
	Numbers  Numbers           `json:"numbers" doc:"where the session stands"`
}

// The actions at which something stops, and those during which nothing is asked.
var (
	stopping = []track.Action{track.Wait, track.MakeSafe, track.Hold, track.EndSession, track.GetDown}
	waiting  = []track.Action{track.Wait, track.MakeSafe, track.Hold, track.SettleByFeet, track.Retreat}
)

// check names what can't be in an input, apart from its track.
func (in Input) check(c *catalog.Catalog) error {
	asks := []horse.Ask{in.Ask}
	for _, k := range in.Known {
		asks = append(asks, k.Ask)
	}
	for _, a := range asks {
		if !c.HasAsk(a) {
			return fmt.Errorf("%q is not an ask of the catalogue", a)
		}
	}
	if in.Started < 0 || in.Now < 0 {
		return fmt.Errorf("started and now are milliseconds since 1970, 0 or more")
	}
	for key, school := range in.Schools {
		_, known := columnOf(school)
		if _, there := c.Ladder(key); !known || !there {
			return fmt.Errorf("schools: %q is not a ladder of the catalogue, or %q is no school", key, school)
		}
	}
	steps := slices.Clone(in.Blocked)
	for key, level := range in.Levels {
		if level < 1 || level > 10 {
			return fmt.Errorf("the level of %q is from 1 to 10, not %d", key, level)
		}
		steps = append(steps, key)
	}
	for key, limit := range in.Limits {
		if limit < 1 {
			return fmt.Errorf("the limit of %q is 1 or more, not %d", key, limit)
		}
		steps = append(steps, key)
	}
	slices.Sort(steps)
	for _, key := range steps {
		if _, ok := c.Step(key); !ok {
			return fmt.Errorf("%q is not a step of the catalogue", key)
		}
	}
	return nil
}

func (s *session) advice(d decision) Advice {
	a := Advice{
		Action: d.action, Then: d.then, Easy: d.easy, Rule: d.rule, Why: d.why, Rest: d.rest,
		Incident: s.incidentWanted, Numbers: s.numbers(),
		Stops: slices.Contains(stopping, d.action), Waits: slices.Contains(waiting, d.action),
	}
	if !d.ask.IsZero() {
		a.Next = &Next{Ask: d.ask, Target: d.target, StartLevel: 1, BuildTo: d.buildTo}
	}
	a.Release, a.Rest = s.release(d)
	a.Warnings = s.warnings()
	if at, _ := s.current(); s.cat.HasAsk(at) {
		a.Against = s.against(at)
	}
	a.Say = s.say(d)
	return a
}

// release names the release and the rest for the entry just logged: none while
// something is to be kept on, or before the horse is back.
func (s *session) release(d decision) (horse.ReleaseSize, int) {
	b := s.bad
	switch {
	case b != nil && b.danger || d.action == track.MakeSafe:
		if b != nil && b.noted && s.arousal <= 2 && !s.lastIsRep {
			return horse.Medium, 0
		}
		return horse.ReleaseSize{}, d.rest
	case !s.lastIsRep, d.action == track.Hold, d.action == track.Wait, d.action == track.SettleByFeet, d.action == track.Retreat, s.warned, s.keepsOn():
		return horse.ReleaseSize{}, d.rest
	case d.at1, s.lastRep().Trial != nil:
		return horse.ReleaseSize{}, 0
	case d.rest > 0:
		return s.size, d.rest
	}
	return s.size, s.restSeconds(s.size)
}

// keepsOn reports whether waiting it out keeps its feel on after the last
// answer: there was no try to let go of.
func (s *session) keepsOn() bool { return s.col.open && !s.tryReleased() }

// say puts the action into one sentence.
func (s *session) say(d decision) phrase.Message {
	args := phrase.Args{"rest": d.rest}
	if !d.ask.IsZero() {
		step, _ := s.cat.Step(d.ask.Step)
		args["ask"] = AskName(step, d.ask)
		args["target"] = targetText(step, d.target)
		args["build_to"] = d.buildTo
	}
	key := "say." + keyOf(d.action)
	switch step, _ := s.cat.Step(d.ask.Step); {
	case d.action == track.Same && step.Is(catalog.AReview) && d.begin:
		key += ".review.begin"
	case d.action == track.Same && step.Is(catalog.AReview):
		key += ".review"
	case d.easy != nil:
		step, _ := s.cat.Step(d.easy.Step)
		args["easy"] = AskName(step, *d.easy)
		key += ".easy"
	case d.begin:
		key += ".begin"
	case d.action == track.Same && s.school == horse.ReliefPlace:
		key += ".places"
	case d.rest > 0 && d.action == track.Down:
		key += ".rest"
	case d.buildTo > 0 && d.action == track.Same:
		key += ".build"
	}
	return phrase.Of(key, args)
}
