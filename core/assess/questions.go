package assess

import (
	"slices"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

// A Kind says how a question is answered.
type Kind string

// The kinds. Findings are ticked; a part is something with a shape of its own,
// such as the body.
const (
	KindOne      Kind = "one"
	KindMany     Kind = "many"
	KindFindings Kind = "findings"
	KindYes      Kind = "yes"
	KindNumber   Kind = "number"
	KindSeconds  Kind = "seconds"
	KindArousal  Kind = "arousal"
	KindText     Kind = "text"
	KindDate     Kind = "date"
	KindStep     Kind = "step"
	KindPart     Kind = "part"
)

// Choice is one answer: its word, and how it is said where that differs.
type Choice struct {
	Value string         `json:"value"`
	Says  phrase.Slotted `json:"says"`
}

// Question is one thing to look at, with its place in the document.
type Question struct {
	Path    string         `json:"path" doc:"where the answer stands; for findings what stands before findings/ and looked/"`
	Kind    Kind           `json:"kind" enum:"one,many,findings,yes,number,seconds,arousal,text,date,step,part"`
	Label   phrase.Message `json:"label"`
	Choices []Choice       `json:"choices,omitempty"`
	Look    horse.Look     `json:"look,omitzero" doc:"for findings: the look that can be called taken with nothing found"`
	Long    bool           `json:"long,omitempty" doc:"a text of more than a line"`
}

// Section of the walk (part 3).
type Section struct {
	Key       string         `json:"key" enum:"A,B,C,D,D2,E,E2,F,G,H"`
	Title     phrase.Message `json:"title"`
	Short     bool           `json:"short,omitempty" doc:"belongs to the short assessment"`
	Source    horse.Source   `json:"source" doc:"where its findings come from unless one says otherwise"`
	Questions []Question     `json:"questions"`
}

var sectionKeys = []string{"A", "B", "C", "D", "D2", "E", "E2", "F", "G", "H"}

// walker lays out the questions of one problem.
type walker struct {
	j       catalog.Judging
	problem string // path of the problem's account
	section *Section
}

// Walk lists the sections with their questions for a problem, in order. The
// goal and date of a case stand with the case; those of a further problem are
// asked here.
func Walk(c *catalog.Catalog, a Assessment, p horse.Problem, further bool) []Section {
	w := walker{j: c.Judging, problem: "problems/" + p.String() + "/"}
	var sections []Section
	for _, s := range []struct {
		key   string
		short bool
		look  horse.Look
		ask   func()
	}{
		{"A", true, horse.LookBegan, func() { w.story(further) }},
		{"B", true, horse.LookBody, w.body},
		{"C", false, horse.LookTack, w.first},
		{"D", false, horse.LookBasics, w.basics},
		{"D2", false, horse.LookBasics, func() { w.part("ridden") }},
		{"E", true, horse.LookProblem, func() { w.baseline(c, p) }},
		{"E2", false, horse.LookSwap, func() { w.part("swap") }},
		{"F", false, horse.LookProblem, w.mind},
		{"G", false, horse.LookProblem, w.place},
		{"H", false, horse.LookProblem, func() { w.part("handlers") }},
	} {
		section := Section{Key: s.key, Title: phrase.Of("section."+s.key, nil), Short: s.short, Source: a.source(s.look)}
		w.section = &section
		s.ask()
		sections = append(sections, section)
	}
	return sections
}

func (w *walker) ask(kind Kind, path string, choices ...Choice) *Question {
	label := strings.ReplaceAll(strings.TrimPrefix(path, w.problem), "/", ".")
	w.section.Questions = append(w.section.Questions, Question{Path: path, Kind: kind, Label: phrase.Of("walk."+label, nil), Choices: choices})
	return &w.section.Questions[len(w.section.Questions)-1]
}

func (w *walker) part(name string) { w.ask(KindPart, name) }

// ways are the ways out seen in a section, the dangerous ones first.
func (w *walker) ways(section string) {
	choices := said(horse.WayOut{})
	slices.SortStableFunc(choices, func(a, b Choice) int { return danger(b) - danger(a) })
	w.ask(KindMany, "ways_out/"+section, choices...)
}

func danger(c Choice) int {
	if w, err := wayOut(c.Value); err == nil && horse.Dangerous(w) {
		return 1
	}
	return 0
}

func wayOut(s string) (w horse.WayOut, err error) {
	err = w.UnmarshalText([]byte(s))
	return w, err
}

func (w *walker) text(path string, long bool) { w.ask(KindText, path).Long = long }

func said[V horse.Vocabulary](horse.Word[V]) []Choice {
	var list []Choice
	for _, word := range (horse.Word[V]{}).Words() {
		list = append(list, Choice{Value: word, Says: phrase.Slotted(word)})
	}
	return list
}

// findings are the ticks of one look: those that no other answer makes.
func (w *walker) findings(base string, look horse.Look, without ...string) {
	var choices []Choice
	for _, f := range w.j.Findings {
		if f.Look != look {
			continue
		}
		skip := false
		for _, key := range without {
			skip = skip || key == f.Key
		}
		if !skip {
			choices = append(choices, Choice{Value: f.Key, Says: f.Says})
		}
	}
	w.section.Questions = append(w.section.Questions, Question{
		Path: base, Kind: KindFindings, Look: look, Label: phrase.Of("ticks."+look.String(), nil), Choices: choices,
	})
}

func look(s string) horse.Look {
	var l horse.Look
	if err := l.UnmarshalText([]byte(s)); err != nil {
		panic(err) // a word of this package
	}
	return l
}

func (w *walker) story(further bool) {
	p := w.problem + "story/"
	w.text(p+"description", true)
	w.ask(KindOne, p+"began", said(Began{})...)
	w.ask(KindMany, p+"done", said(Done{})...)
	w.findings(w.problem, look("A.history"))
	w.ask(KindNumber, p+"tries")
	w.ask(KindNumber, p+"successes")
	w.ask(KindNumber, p+"usual_minutes")
	w.ask(KindNumber, p+"worst_minutes")
	w.ask(KindNumber, p+"helpers")
	w.ask(KindDate, p+"since")
	w.findings(w.problem, look("A.with_whom"))
	w.findings(w.problem, look("A.where"))
	w.text(p+"with_whom", false)
	w.text(p+"where", false)
	w.text(p+"tried", false)
	w.text(p+"sent", false)
	w.text(p+"who_alone", false)
	if further {
		w.text(p+"goal", false)
		w.ask(KindDate, p+"needed_by")
	}
	w.part("events")
}

func (w *walker) body() {
	w.part("body")
	w.findings("", horse.LookBody, "body_suspect_relevant", "body_suspect_elsewhere", "body_relevant_clear")
	w.ask(KindDate, "checkups/dental")
	w.ask(KindDate, "checkups/back")
	w.ask(KindDate, "checkups/hoof")
}

func (w *walker) first() {
	w.ask(KindOne, "tack/bit", said(Bit{})...)
	w.ask(KindOne, "tack/bit_fit", said(Fit{})...)
	w.ask(KindOne, "tack/noseband", said(Noseband{})...)
	w.ask(KindMany, "tack/aids", said(RunningAid{})...)
	w.ask(KindMany, "tack/extras", said(Extra{})...)
	w.ask(KindOne, "tack/saddle", said(Fit{})...)
	w.findings("", horse.LookTack, "running_aid", "saddle_or_bit_misfit")
	w.text("tack/mouthpiece", false)
	w.text("tack/rings", false)
	w.part("tack")
	w.ask(KindOne, "first_look/head", said(Head{})...)
	w.ask(KindOne, "first_look/ears", said(Ears{})...)
	w.ask(KindOne, "first_look/mouth", said(Mouth{})...)
	w.ask(KindOne, "first_look/nose", said(Nose{})...)
	w.ask(KindMany, "first_look/contact", said(Contact{})...)
	w.ask(KindMany, "first_look/turn", said(Turn{})...)
	w.ask(KindOne, "first_look/leg", said(Leg{})...)
	w.ask(KindMany, "first_look/attention", said(Attention{})...)
	w.ask(KindMany, "first_look/mounting", said(Mounting{})...)
	w.findings("", horse.LookHorse, "mouth_reaction_at_contact", "nose_poked_head_high", "dragged_turns", "attention_home_or_herd", "hollow_at_mounting")
	w.ways("C")
	w.text("first_look/gait", false)
	w.findings("", look("C.person"))
	for _, g := range (Gait{}).Words() {
		w.ask(KindOne, "first_look/rider_leg/"+g, said(RiderLeg{})...)
	}
}

func (w *walker) basics() {
	w.ask(KindYes, "not_possible_yet")
	w.part("basics")
	w.part("zones")
	w.ways("D")
	w.findings("", horse.LookBasics, "basics_2_missing", "basics_4_missing", "all_basics_good", "one_side_worse")
}

func (w *walker) baseline(c *catalog.Catalog, p horse.Problem) {
	b := w.problem + "baseline/"
	var steps []Choice
	if l, ok := c.LadderFor(p); ok {
		for _, s := range l.Steps {
			if s.Link == "" {
				steps = append(steps, Choice{Value: s.Key, Says: phrase.Slotted(s.Name)})
			}
		}
	}
	w.ask(KindStep, b+"reached", steps...)
	w.ask(KindArousal, b+"arousal")
	w.findings(w.problem, horse.LookProblem)
	w.ask(KindMany, b+"ways_out", said(horse.WayOut{})...)
	w.ask(KindSeconds, b+"recovery_s")
	w.ask(KindNumber, b+"minutes")
	w.ask(KindNumber, b+"tries")
	w.ask(KindYes, b+"done")
	w.text(b+"note", true)
}

func (w *walker) mind() {
	w.findings("", look("F.pressure_off"))
	w.findings("", look("F.curiosity"))
	w.ways("F")
	w.ask(KindOne, "mind/look", said(LookGiven{})...)
	w.ask(KindOne, "mind/still", said(Still{})...)
	w.ask(KindSeconds, "mind/down_s")
}

func (w *walker) place() {
	w.findings("", look("G.days_off"))
	w.findings("", look("G.place"))
	w.findings("", look("G.stable"))
	w.ask(KindMany, "place/pulls", said(Pull{})...)
	w.ask(KindMany, "place/floor", said(Floor{})...)
	w.text("place/worse", false)
	w.text("place/herd", false)
	w.text("place/changes", false)
}
