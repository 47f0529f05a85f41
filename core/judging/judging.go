// Package judging makes of what is known of a horse what every plan and session
// then goes by: the catalogue fitted to it, its newest assessment judged, the
// grade of care carried over its sessions (part 3), and the steps that a fact
// blocks (parts 3 and 9).
//
// A Facts goes in and a Judged comes out; nothing is kept between.
package judging

import (
	"slices"

	"ivorybridge/core/assess"
	"ivorybridge/core/catalog"
	"ivorybridge/core/history"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/core/plan"
)

// Facts are what is known of a horse and its case. Assessments stand oldest
// first.
type Facts struct {
	Today       string // YYYY-MM-DD
	Record      assess.Record
	Problem     horse.Problem   // of the case
	Also        []horse.Problem // further ones that it was taken on with
	Ladder      string          // of the case
	NeededBy    string          // empty: there is no date
	Assessments []assess.Dated
	History     history.History
	Incidents   []assess.Event // written down after the fact
	Choices     plan.Choices
	Own         []catalog.Ladder // own ladders in use
}

// Judged is what is made of them.
type Judged struct {
	Assessment assess.Assessment // the newest, about the case's problem
	Assessed   string            // its day; empty: never
	Result     assess.Result
	Risk       assess.Risk
	Start      string // key of the step to begin at; empty: nothing is open
	Blocks     []assess.Block
	Fitting    catalog.Fitting     // by which the catalogue is fitted
	Catalog    *catalog.Catalog    // fitted to the horse and its plan
	Barring    assess.Barring      // what decides whether it may be ridden
	Awaited    map[string][]string // by blocked step, what lifts it once met, in a session too

	problem assess.ProblemResult
	account assess.Account
}

// Of judges the facts with the shipped catalogue. The case's ladder must be in
// it.
func Of(shipped *catalog.Catalog, f Facts) (*Judged, error) {
	j := &Judged{}
	if n := len(f.Assessments); n > 0 {
		j.Assessment, j.Assessed = f.Assessments[n-1].Doc, f.Assessments[n-1].On
	}
	if j.Assessed == "" {
		j.Assessment = j.Assessment.About(f.Also...) // an assessment says itself which they are
	}
	j.Assessment = j.Assessment.About(f.Problem)
	j.account = j.Assessment.Problems[f.Problem]
	if err := j.fit(shipped, Fitting(shipped, f, j.Assessment)); err != nil {
		return nil, err
	}
	if err := j.judge(f); err != nil {
		return nil, err
	}
	// Whether fear is possible is known only now, and fits ladders otherwise.
	if j.Fitting.Afraid = !j.Unafraid(); j.Fitting.Afraid {
		if err := j.fit(shipped, j.Fitting); err != nil {
			return nil, err
		}
	}
	j.Barring = assess.Barring{Today: f.Today, Exception: j.excepted(f), InHand: j.Result.InHand}
	j.Blocks = assess.AllBlocks(j.Catalog, j.Assessment, f.Record, j.Barring)
	j.Awaited = j.awaited(f)
	assess.Lift(j.Blocks, j.Assessment, j.Result.Referrals, f.Today)
	return j, nil
}

func (j *Judged) fit(shipped *catalog.Catalog, by catalog.Fitting) (err error) {
	j.Fitting = by
	j.Catalog, err = shipped.Fit(by)
	return err
}

func (j *Judged) judge(f Facts) error {
	ladder, _ := j.Catalog.Ladder(f.Ladder)
	logged := slices.Concat(f.History.Newest(), f.Incidents)
	care, err := f.care(ladder, logged)
	if err != nil {
		return err
	}
	j.Result, err = assess.Judge(j.Catalog, assess.Case{
		Today: f.Today, On: j.Assessed, Record: f.Record, Assessment: j.Assessment, Care: care,
		Logged: slices.Concat(logged, f.seenBy(f.Today, f.Assessments[:max(len(f.Assessments)-1, 0)])),
		Before: f.before(), NeededBy: f.NeededBy, Ladders: f.ladders(),
	})
	if err != nil {
		return err
	}
	if f.unchanging() {
		j.Result.Referrals = assess.InOrder(append(j.Result.Referrals, assess.Unchanging(j.Assessment, f.History.LastWorked())))
	}
	j.Risk = j.Result.Risk
	j.Risk.Care = j.Result.Care
	for _, p := range j.Result.Problems {
		if p.Problem == f.Problem {
			j.problem = p
		}
	}
	if j.problem.Start != nil {
		j.Start = j.problem.Start.Key
	}
	return nil
}

// Problem is what the assessment says of the case's own problem.
func (j *Judged) Problem() assess.ProblemResult { return j.problem }

// Account is what is told and tried of the case's own problem.
func (j *Judged) Account() assess.Account { return j.account }

// Unafraid reports whether fear was looked at and is unlikely.
func (j *Judged) Unafraid() bool {
	for _, c := range j.problem.Causes {
		if c.Cause == horse.Fear {
			return c.Belief.String() == "unlikely" && c.Bound == nil
		}
	}
	return false
}

// MayBeAfraid reports whether fear is likely or held up by its floor. Where
// too little was seen to say, a problem met over the line or never asked counts
// as likely: what was not looked at is not clear.
func (j *Judged) MayBeAfraid() bool {
	base := j.account.Baseline
	return j.problem.Afraid(!base.Asked() || base.Arousal.Int() >= 3)
}

// OwnerHandles reports whether the owner may hold the rope: not at high care
// and more (part 9).
func (j *Judged) OwnerHandles() bool { return j.Risk.Care.Rank() < horse.HighCare.Rank() }

// Levels gives the level that each basic took in the assessment, by its ask,
// where it was seen in person and a level was noted.
func (j *Judged) Levels() map[horse.Ask]int { return j.Assessment.Levels(j.Catalog) }

// excepted reports whether a lead trainer's exception for a young horse holds:
// not ended, the body cleared, and the controls met in hand (part 9).
func (j *Judged) excepted(f Facts) bool {
	controls := j.Catalog.With(catalog.ControlInHand)
	return exceptionStands(f) && len(controls) > 0 && !slices.ContainsFunc(controls, func(s catalog.Step) bool { return !f.History.Passed(s) })
}

func exceptionStands(f Facts) bool {
	x := f.Choices.Exception
	return x != nil && x.Until >= f.Today
}

// awaited lists, by step, the controls in hand that lift its block once they are met:
// the exception for a young horse waits for them alone.
func (j *Judged) awaited(f Facts) map[string][]string {
	if !exceptionStands(f) || j.Barring.Exception {
		return nil
	}
	with := j.Barring
	with.Exception = true
	still := assess.AllBlocks(j.Catalog, j.Assessment, f.Record, with)
	var controls []string
	for _, s := range j.Catalog.With(catalog.ControlInHand) {
		controls = append(controls, s.Key)
	}
	lifted := map[string][]string{}
	for _, b := range j.Blocks {
		if !slices.ContainsFunc(still, func(o assess.Block) bool { return o.Step == b.Step }) {
			lifted[b.Step] = controls
		}
	}
	return lifted
}

// OpenOnBody lists what is open on the body as a session begins: suspect, in
// treatment, or bearing on the problem and looked at by nobody (parts 3 and 6).
func (j *Judged) OpenOnBody() []phrase.Message {
	open := []phrase.Message{}
	for _, item := range (horse.BodyItem{}).All() {
		args := phrase.Args{"item": assess.Named(item), "since": phrase.Message{}}
		note := j.Assessment.Body[item]
		switch j.Assessment.BodyOf(item) {
		case horse.Suspect:
			if note.Since != "" {
				args["since"] = phrase.Of("open.since", phrase.Args{"on": phrase.Date(note.Since)})
			}
			open = append(open, phrase.Of("open.suspect", args))
		case horse.InTreatment:
			if note.Begun != "" {
				args["since"] = phrase.Of("open.since", phrase.Args{"on": phrase.Date(note.Begun)})
			}
			open = append(open, phrase.Of("open.treatment", args))
		case horse.NotLookedAt:
			if slices.Contains(j.Catalog.Judging.Relevant[item], j.problem.Problem) {
				open = append(open, phrase.Of("open.unlooked", args))
			}
		}
	}
	return open
}
