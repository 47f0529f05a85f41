package assess

import (
	"cmp"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// Case is what an assessment is judged with.
type Case struct {
	Today      string                   `json:"today" format:"date" doc:"the day that counts as today"`
	On         string                   `json:"on,omitempty" maxLength:"10" doc:"day of the assessment; empty: today"`
	Record     Record                   `json:"record" doc:"what is on the horse's record"`
	Assessment Assessment               `json:"assessment" doc:"what was seen, told and measured"`
	Logged     []Event                  `json:"logged,omitempty" doc:"dangerous things that sessions logged, or earlier assessments saw"`
	Before     *Assessment              `json:"before,omitempty" doc:"the assessment it was begun from: what stood there is of an earlier day"`
	NeededBy   string                   `json:"needed_by,omitempty" maxLength:"10" doc:"date needed, where the story has none"`
	Ladders    map[horse.Problem]string `json:"ladders,omitempty" doc:"by which ladder a problem is mended, where not by its usual one"`
	Care       horse.Care               `json:"care,omitzero" doc:"the grade that earlier sessions left, where it may not have fallen yet"`
}

// Result is what the rules make of an assessment.
type Result struct {
	Problems    []ProblemResult  `json:"problems" doc:"what each problem comes to"`
	Shared      Shared           `json:"shared" doc:"what holds for each of them alike, to be said once"`
	Risk        Risk             `json:"risk" doc:"risk points and the care they ask for"`
	Precautions []phrase.Message `json:"precautions" doc:"what to mind at the visit"`
	Care        horse.Care       `json:"care" doc:"the grade that the precautions follow: never below the computed one"`
	Referrals   []Referral       `json:"referrals" doc:"who should look first"`
	Rechecks    []Recheck        `json:"rechecks" doc:"checks that a treatment asks for"`
	Rounds      []Round          `json:"rounds" doc:"care that comes round"`
	Blocks      []Block          `json:"blocks" doc:"steps that the body blocks on the ladders of these problems, and under them"`
	First       []StepRef        `json:"first" doc:"what comes before the problem ladders"`
	Mismatch    *phrase.Message  `json:"mismatch,omitempty" doc:"a horse of high energy with a person who is still learning, as a sentence"`
	Tack        []phrase.Message `json:"tack" doc:"what to change of the tack"`
	Stops       []phrase.Message `json:"stops" doc:"what nobody does until it is cleared"`
	Forbidden   []phrase.Message `json:"forbidden" doc:"what leads every page of this horse until it is lifted"`
	Gate        Gate             `json:"gate" doc:"what is closed, and what stays open: what is read first"`
	InHand      bool             `json:"in_hand_only,omitempty" doc:"it went over backwards: nobody's weight on its back"`
	Basis       Basis            `json:"basis" doc:"what it rests on"`
	Doubts      []Doubt          `json:"doubts" doc:"values that look unlikely"`
}

// StepRef names a step of the catalogue.
type StepRef struct {
	Key     string         `json:"key" doc:"key of a step"`
	Variant horse.Variant  `json:"variant,omitzero" doc:"which one"`
	Name    string         `json:"name" doc:"name of the step"`
	Ask     phrase.Slotted `json:"ask" doc:"what is asked of the horse"`
}

func refOf(c *catalog.Catalog, a horse.Ask) *StepRef {
	step, _ := c.Step(a.Step)
	return &StepRef{Key: a.Step, Variant: a.Variant, Name: NameOf(c, a.Step), Ask: step.Ask}
}

// within keeps the blocks on these ladders and on those they stand on.
func within(c *catalog.Catalog, blocks []Block, ladders map[horse.Problem]catalog.Ladder) []Block {
	reached := reach(c, ladders)
	return slices.DeleteFunc(slices.Clone(blocks), func(b Block) bool {
		step, _ := c.Step(b.Step)
		return !reached[step.Ladder]
	})
}

// reach is these ladders and those they stand on, by key.
func reach(c *catalog.Catalog, ladders map[horse.Problem]catalog.Ladder) map[string]bool {
	reached := map[string]bool{}
	var walk func(l catalog.Ladder)
	walk = func(l catalog.Ladder) {
		if reached[l.Key] {
			return
		}
		reached[l.Key] = true
		for _, s := range l.Steps {
			for _, n := range c.Needs(s.Key) {
				needed, _ := c.Step(n.Step)
				below, _ := c.Ladder(needed.Ladder)
				walk(below)
			}
		}
	}
	for _, l := range ladders {
		walk(l)
	}
	return reached
}

// NameOf is a step's name where steps of several ladders stand together.
func NameOf(c *catalog.Catalog, key string) string {
	step, _ := c.Step(key)
	return step.FullName()
}

func (s *StepRef) key() string {
	if s == nil {
		return ""
	}
	return s.Key
}

// ProblemResult is what the rules make of one problem.
type ProblemResult struct {
	Problem  horse.Problem    `json:"problem" doc:"which"`
	Ladder   string           `json:"ladder,omitempty" doc:"key of the ladder for it"`
	Causes   []Cause          `json:"causes" doc:"likely causes, the likeliest first"`
	Telling  *Telling         `json:"telling,omitempty" doc:"what to look at next, because it would tell most"`
	Swap     *Swap            `json:"swap,omitempty" doc:"what the swap test says"`
	Start    *StepRef         `json:"start,omitempty" doc:"the step to begin the ladder at; absent: no ladder, or nothing open"`
	Computed *StepRef         `json:"start_computed,omitempty" doc:"as computed, where the trainer overruled it"`
	School   School           `json:"school" doc:"the way of working that fits"`
	InPerson []Evidence       `json:"in_person" doc:"seen on film only, and weighing most: to be seen in person first"`
	Against  Against          `json:"-"`
	Unlooked []phrase.Message `json:"unlooked" doc:"what was not looked at; never to be shown as clear"`
}

// Basis says what the judgement stands on.
type Basis struct {
	Seen  int            `json:"seen" doc:"findings seen at the visit"`
	Video int            `json:"video" doc:"findings seen on video"`
	Told  int            `json:"told" doc:"findings told by the owner"`
	Known int            `json:"on_record" doc:"findings that are on the record"`
	Say   phrase.Message `json:"say" doc:"the same as a sentence"`
}

// Doubt is a value that contradicts another, with its place.
type Doubt struct {
	Path string `json:"path" doc:"place of the value in the document"`
	Say  string `json:"say" doc:"what is unlikely about it"`
}

// Judge makes the result of an assessment.
func Judge(c *catalog.Catalog, in Case) (Result, error) {
	a := in.Assessment
	var before Assessment
	if in.Before != nil {
		before = *in.Before
	}
	logged := append(slices.Clone(in.Logged), a.Seen(before, cmp.Or(in.On, in.Today))...)
	risk := RiskInput{Today: in.Today, Record: in.Record, Assessment: a, Logged: logged, Floor: in.Care}
	ladders := map[horse.Problem]catalog.Ladder{}
	for p := range a.Problems {
		l, ok := c.Ladder(in.Ladders[p])
		if !ok {
			l, ok = c.LadderFor(p)
		}
		if ok {
			ladders[p] = l
			risk.Narrow = risk.Narrow || l.Narrow
			risk.Floor = max2(risk.Floor, l.Care)
		}
	}
	all := Blocks(c, a)
	r := Result{
		Blocks: within(c, all, ladders), Rechecks: Rechecks(a, in.Today), Rounds: Rounds(a, in.Record, in.Today), Tack: a.Tack.Loosen(), InHand: InHandOnly(a, logged),
	}
	r.Stops = stops(a, in.Record, in.Today, r.InHand)
	var err error
	if r.Risk, err = RiskOf(risk); err != nil {
		return Result{}, err
	}
	r.Care = a.careOf(r.Risk.Care)
	r.Precautions = Precautions(r.Care, !r.InHand && !a.First.NoMounting())
	r.Forbidden = forbidden(a, in.Record, r)
	r.Referrals = Referrals(a, cmp.Or(in.On, in.Today))
	r.Gate = gateOf(c, a, r, ladders)
	if Mismatch(in.Record, a) {
		m := phrase.Of("mismatch", phrase.Args{"who": a.Main().String()})
		r.Mismatch = &m
	}
	for _, f := range a.Doubts() {
		r.Doubts = append(r.Doubts, Doubt{Path: f.Field, Say: f.Say})
	}
	for _, ask := range First(c, a) {
		r.First = append(r.First, *refOf(c, ask))
	}
	counted := map[Found]bool{}
	for _, p := range (horse.Problem{}).All() {
		if _, there := a.Problems[p]; !there {
			continue
		}
		one := find(c.Judging, Input{Today: in.Today, Record: in.Record, Assessment: a, Problem: p, NeededBy: in.NeededBy})
		r.Problems = append(r.Problems, one.judge(c, ladders[p], r, all))
		for _, f := range one.found() {
			counted[f] = true
		}
	}
	r.Basis, r.Shared = basis(counted, a.handsOn()), sharedOf(r.Problems)
	return r, nil
}

func (f finder) judge(c *catalog.Catalog, l catalog.Ladder, r Result, blocks []Block) ProblemResult {
	in := f.in
	account := in.Assessment.Problems[in.Problem]
	one := ProblemResult{Problem: in.Problem, Ladder: l.Key, Causes: f.causes(), Swap: account.swap(), Unlooked: f.unlooked()}
	one.Telling, one.InPerson = f.telling(one.Causes), inPerson(one.Causes)
	one.Against = f.against(one.Causes, r.InHand)
	one.School = SchoolFor(l, in, one.Causes, r.Risk, one.Against)
	if start, ok := Start(c, l.Key, in.Assessment, account.Baseline, r.InHand); ok {
		one.Start = refOf(c, horse.Ask{Step: in.Assessment.startOf(in.Problem, start, blocks)})
		if one.Start.Key != start {
			one.Computed = refOf(c, horse.Ask{Step: start})
		}
	}
	return one
}

// Afraid reports whether fear is likely or held up by its floor; unknown is
// the answer where too little was seen to say.
func (p ProblemResult) Afraid(unknown bool) bool {
	for _, c := range p.Causes {
		switch {
		case c.Cause != horse.Fear:
		case c.Belief == likely || c.Bound != nil:
			return true
		case c.Belief == possible || c.Belief == unlikely:
			return false
		}
	}
	return unknown
}

// basis counts findings by how they are known, and says how sure that makes
// the result.
func basis(found map[Found]bool, handsOn bool) Basis {
	var b Basis
	for f := range found {
		switch f.Source {
		case horse.Seen:
			b.Seen++
		case horse.OnVideo:
			b.Video++
		case horse.Told:
			b.Told++
		case horse.OnRecord:
			b.Known++
		}
	}
	key := "seen"
	switch {
	case b.Seen+b.Video+b.Told == 0 && !handsOn:
		key = "nothing"
	case b.Seen == 0 && handsOn:
		key = "few_seen"
	case b.Seen == 0 && b.Video > 0:
		key = "video"
	case b.Seen == 0:
		key = "told"
	case b.Seen < b.Video+b.Told:
		key = "mostly_not_seen"
	}
	b.Say = phrase.Of("basis."+key, phrase.Args{"seen": b.Seen, "video": b.Video, "told": b.Told, "record": b.Known})
	return b
}

// stops lists what nobody does for now (part 9).
func stops(a Assessment, r Record, today string, inHand bool) []phrase.Message {
	var list []phrase.Message
	if inHand {
		list = append(list, phrase.Of("stop.over", nil))
	}
	if a.First.NoMounting() {
		list = append(list, phrase.Of("stop.mounting", nil))
	}
	if a.First.unsteady() && has(a.Tack.Extras, "spurs") {
		list = append(list, phrase.Of("stop.spurs", nil))
	} else if a.Main() == horse.Beginner && has(a.Tack.Extras, "spurs") {
		list = append(list, phrase.Of("stop.spurs_beginner", nil))
	}
	if slices.ContainsFunc([]horse.BodyState{a.BodyOf(horse.Mouth)}, ill) {
		list = append(list, phrase.Of("stop.bit", nil))
	}
	if _, bridling := a.Problems[horse.Bridling]; bridling {
		for _, h := range a.Handlers {
			if h.Shoulder {
				list = append(list, phrase.Of("stop.shoulder", nil))
				break
			}
		}
	}
	if r.Gaited || ill(a.BodyOf(horse.Balance)) {
		list = append(list, phrase.Of("stop.one_rein", nil))
	}
	if r.Young(today) {
		list = append(list, phrase.Of("stop.young", nil))
	}
	return list
}

// forbidden lists what comes first on every page of the horse until it is
// lifted (part 8): who may not get on, no bit, who does not handle it.
func forbidden(a Assessment, record Record, r Result) []phrase.Message {
	list := []phrase.Message{}
	var sore []phrase.Message
	for _, i := range riderItems {
		if ill(a.BodyOf(i)) {
			sore = append(sore, Named(i))
		}
	}
	switch {
	case r.InHand:
		list = append(list, phrase.Of("forbid.in_hand", nil))
	case a.First.NoMounting():
		list = append(list, phrase.Of("forbid.mounting", nil))
	case len(sore) > 0 && !record.NotYetRidden():
		list = append(list, phrase.Of("forbid.sore", phrase.Args{"items": sore}))
	}
	if ill(a.BodyOf(horse.Mouth)) {
		list = append(list, phrase.Of("forbid.bit", nil))
	}
	if a.NotYet {
		list = append(list, phrase.Of("forbid.not_caught", nil))
	}
	if r.Care.Rank() >= horse.HighCare.Rank() {
		list = append(list, phrase.Of("forbid.owner", nil), phrase.Of("forbid.alone", nil))
	}
	return list
}

// A Change is one thing that a later assessment says otherwise.
type Change struct {
	What   phrase.Message `json:"what"`
	Before string         `json:"before"`
	After  string         `json:"after"`
}

// Changes compares two results of the same horse, the earlier first.
func Changes(before, after Result) []Change {
	changes := []Change{}
	add := func(key string, args phrase.Args, was, is string) {
		if was != is {
			changes = append(changes, Change{What: phrase.Of("change."+key, args), Before: was, After: is})
		}
	}
	add("risk", nil, before.Risk.Care.String(), after.Risk.Care.String())
	for _, now := range after.Problems {
		i := slices.IndexFunc(before.Problems, func(p ProblemResult) bool { return p.Problem == now.Problem })
		if i < 0 {
			add("problem", phrase.Args{"problem": now.Problem.String()}, "not taken on", "taken on")
			continue
		}
		then := before.Problems[i]
		for _, c := range (horse.Cause{}).All() {
			add("cause", phrase.Args{"cause": phrase.Of("cause."+c.String(), nil)}, beliefIn(then, c), beliefIn(now, c))
		}
		add("start", phrase.Args{"problem": now.Problem.String()}, then.Start.key(), now.Start.key())
		add("school", phrase.Args{"problem": now.Problem.String()}, then.School.School.String(), now.School.School.String())
	}
	return changes
}

func beliefIn(p ProblemResult, cause horse.Cause) string {
	for _, c := range p.Causes {
		if c.Cause == cause {
			return c.Belief.String()
		}
	}
	return notLookedAt.String()
}

// BodyChanges compares the body items of two assessments, the earlier first.
func BodyChanges(before, after Assessment) []Change {
	changes := []Change{}
	for _, item := range (horse.BodyItem{}).All() {
		if was, is := before.BodyOf(item), after.BodyOf(item); was != is {
			changes = append(changes, Change{What: phrase.Of("change.body", phrase.Args{"item": Named(item)}), Before: was.String(), After: is.String()})
		}
	}
	return changes
}
