package assess

import (
	"cmp"
	"slices"
	"time"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type pros struct{}

func (pros) Words() []string {
	return []string{"vet", "dentist", "farrier", "back therapist", "saddle fitter", "specialist"}
}

// Professional is somebody who is asked before training goes on.
type Professional = horse.Word[pros]

// Asked is what was asked of a professional, and what came of it.
type Asked struct {
	Who       Professional `json:"who,omitzero" doc:"empty: as suggested"`
	Name      string       `json:"name,omitempty" maxLength:"120" doc:"who was asked"`
	Question  string       `json:"question,omitempty" maxLength:"500" doc:"what they were asked"`
	Due       string       `json:"due,omitempty" maxLength:"10" doc:"day an answer is due"`
	SentOn    string       `json:"sent_on,omitempty" maxLength:"10" doc:"day it was sent"`
	Outcome   string       `json:"outcome,omitempty" maxLength:"1000" doc:"what they found"`
	OutcomeOn string       `json:"outcome_on,omitempty" maxLength:"10" doc:"day they found it"`
}

// Referral is somebody to be asked before training goes on, with why, what,
// and by when.
type Referral struct {
	Key      string         `json:"key" doc:"a body item, or what was found"`
	Item     horse.BodyItem `json:"item,omitzero" doc:"part of the body"`
	Who      string         `json:"who" doc:"who should look"`
	Why      phrase.Message `json:"why" doc:"the reason as a sentence"`
	Question phrase.Message `json:"question" doc:"as the product would ask"`
	Due      string         `json:"due" format:"date" doc:"day it is due"`
	Asked    Asked          `json:"asked,omitzero" doc:"what was asked and found so far"`
	Done     bool           `json:"done" doc:"an outcome is written down"`
}

// referralDays is by when a professional should have looked, in days.
const referralDays = 7

// Referrals lists who is to be asked (part 9): about each suspect item, and
// about what began suddenly without a cause, or fell under a rider. on is the
// day of the assessment.
func Referrals(a Assessment, on string) []Referral {
	var refs []Referral
	add := func(key, why string, item horse.BodyItem, who, since string) {
		args := phrase.Args{"who": who}
		if !item.IsZero() {
			args["item"] = Named(item)
		}
		r := Referral{Key: key, Item: item, Who: who, Why: phrase.Of("referral."+why, args), Question: phrase.Of("referral."+why+".ask", args), Due: due(since, on), Asked: a.Referrals[key]}
		if !r.Asked.Who.IsZero() {
			r.Who = r.Asked.Who.String()
		}
		if r.Asked.Due != "" {
			r.Due = r.Asked.Due
		}
		r.Done = r.Asked.Outcome != ""
		refs = append(refs, r)
	}
	for _, item := range (horse.BodyItem{}).All() {
		if a.BodyOf(item) != horse.Suspect {
			continue
		}
		why := "item"
		switch {
		case item == horse.HindLeg && a.Body[item].Locked:
			why = "locks"
		case item == horse.Mouth:
			why = "mouth"
		}
		add(item.String(), why, item, whoLooks(item), a.Body[item].Since)
	}
	sudden := false
	for _, account := range a.Problems {
		_, ticked := account.Findings["began_suddenly"]
		sudden = sudden || ticked || account.Story.Began.String() == "suddenly"
	}
	if sudden {
		add("sudden", "sudden", horse.BodyItem{}, "vet", "")
	}
	for _, e := range a.Events {
		if e.Kind.String() == "fell with a rider" && a.BodyOf(horse.Balance) != horse.Suspect {
			add("falls", "falls", horse.BodyItem{}, "vet", e.On)
			break
		}
	}
	return InOrder(refs)
}

// InOrder sorts referrals by the day they are due, those that were answered last.
func InOrder(refs []Referral) []Referral {
	answered := func(r Referral) int {
		if r.Done {
			return 1
		}
		return 0
	}
	slices.SortStableFunc(refs, func(a, b Referral) int { return cmp.Or(answered(a)-answered(b), cmp.Compare(a.Due, b.Due)) })
	return refs
}

// Unchanging is the referral of a horse that was dangerous in each of its last
// three sessions (part 9), the last of them on a day.
func Unchanging(a Assessment, on string) Referral {
	const key = "aggression"
	asked := a.Referrals[key]
	r := Referral{
		Key: key, Who: horse.MustWord[pros]("specialist").String(), Why: phrase.Of("referral.aggression", nil), Question: phrase.Of("referral.aggression.ask", nil),
		Due: due("", on), Asked: asked, Done: asked.Outcome != "",
	}
	if asked.Due != "" {
		r.Due = asked.Due
	}
	return r
}

// due is a week after an item was found suspect, on the day of the assessment
// if no day was noted, and never before a week after it.
func due(since, on string) string {
	from := max(since, on)
	day, err := time.Parse(time.DateOnly, from)
	if err != nil {
		return from
	}
	return day.AddDate(0, 0, referralDays).Format(time.DateOnly)
}

func whoLooks(item horse.BodyItem) string {
	switch item.String() {
	case "mouth":
		return "dentist"
	case "back":
		return "vet or back therapist"
	case "saddle fit":
		return "saddle fitter"
	case "feet legs":
		return "vet or farrier"
	}
	return "vet"
}

// Mismatch reports a horse of high energy with a beginner or improving main
// handler (part 3).
func Mismatch(r Record, a Assessment) bool {
	main := a.Main()
	return r.Energy.String() == "high" && (main == horse.Beginner || main == horse.Improving)
}

// Unlooked lists what was not looked at of a problem, in the order of the
// sections; it is never shown as clear.
func Unlooked(j catalog.Judging, in Input) []phrase.Message { return find(j, in).unlooked() }

func (f finder) unlooked() []phrase.Message {
	var gaps []phrase.Message
	for _, look := range (horse.Look{}).All() {
		if look == horse.LookBody {
			for _, item := range (horse.BodyItem{}).All() {
				if f.in.Assessment.BodyOf(item) == horse.NotLookedAt {
					gaps = append(gaps, phrase.Of("unlooked.body", phrase.Args{"item": Named(item)}))
				}
			}
			continue
		}
		if !f.took[look] {
			gaps = append(gaps, phrase.Of("look."+look.String(), nil))
		}
	}
	return gaps
}
