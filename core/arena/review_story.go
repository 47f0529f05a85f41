package arena

import (
	"math"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/outing"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
)

// tell puts an ask into one sentence.
func (w Worked) tell(first bool) phrase.Message {
	lead := phrase.Of("story.then", nil)
	if first {
		lead = phrase.Of("story.began", nil)
	}
	args := phrase.Args{
		"lead": lead, "ask": w.Name, "n": w.N, "good": w.Good, "from": w.From.Int(), "to": w.To.Int(), "most": w.Most, "feet": w.FeetIn, "tries": w.Tries,
		"at": w.levels(), "more": phrase.Message{},
	}
	key := keyOf(w.School)
	if w.Trials > 0 {
		return phrase.Of("story.review", args)
	}
	switch {
	case w.School == horse.ReliefPlace && w.Most == 0:
		key += ".none"
	case w.School == horse.ReliefPlace && w.FeetIn > 0:
		args["more"] = phrase.Of("story.feet_in", phrase.Args{"n": w.FeetIn})
	case w.School == horse.Doses && w.Most > 0:
		args["more"] = phrase.Of("story.up_to", phrase.Args{"most": w.Most})
	case w.Seconds != nil && w.Seconds[0] == w.Seconds[1]:
		args["more"] = phrase.Of("story.soft_after", phrase.Args{"s": w.Seconds[1]})
	case w.Seconds != nil:
		args["more"] = phrase.Of("story.soft_from", phrase.Args{"a": w.Seconds[0], "b": w.Seconds[1]})
	}
	if w.School == horse.WaitItOut && w.Tries > 0 {
		key += ".tries"
	}
	return phrase.Of("story."+key, args)
}

// stoodAgainst says what an ask was asked against, and who answers for it.
func (w Worked) stoodAgainst() []phrase.Message {
	switch {
	case w.Against == nil:
		return nil
	case w.Against.Kind == Early && w.Why != "":
		return []phrase.Message{phrase.Of("story.early.why", phrase.Args{"steps": w.Against.Waits, "why": w.Why})}
	case w.Against.Kind == Early:
		return []phrase.Message{phrase.Of("story.early", phrase.Args{"steps": w.Against.Waits})}
	}
	said := []phrase.Message{phrase.Of("story.against", phrase.Args{"why": w.Against.Why})}
	if w.Despite == nil {
		return append(said, phrase.Of("story.unanswered", nil))
	}
	return append(said, phrase.Of("story.despite", phrase.Args{"answers": w.Despite.Answers, "reason": w.Despite.Reason}))
}

// concludedSteps names the steps that were counted as understood and that nobody
// saw.
func (r *Running) concludedSteps() []string {
	var names []string
	for _, l := range r.cat.Ladders {
		for _, step := range l.Steps {
			if slices.ContainsFunc(step.Asks(), func(a horse.Ask) bool { return r.now.s.concluded[a] && len(r.now.s.repsOf(a)) == 0 }) {
				names = append(names, step.FullName())
			}
		}
	}
	return names
}

// levels says from which level to which, where there is more than one to tell.
func (w Worked) levels() phrase.Message {
	switch {
	case !w.From.Noted() || !w.To.Noted():
		return phrase.Message{}
	case w.From.Int() == w.To.Int():
		return phrase.Of("story.at", phrase.Args{"to": w.To.Int()})
	}
	return phrase.Of("story.from", phrase.Args{"from": w.From.Int(), "to": w.To.Int()})
}

// story puts the session into sentences, each from what was logged.
func (r *Running) story(v Review) []phrase.Message {
	s := r.now.s
	story := []phrase.Message{}
	say := func(key string, args phrase.Args) { story = append(story, phrase.Of("story."+key, args)) }
	walked := outing.Results(r.live)
	for _, o := range walked {
		say("outing."+ended(o), o.Told())
	}
	for i, w := range v.Asks {
		if step, _ := r.cat.Step(w.Step); step.Is(catalog.WalkedHome) && len(walked) > 0 {
			continue // the outing is the answer
		}
		story = append(story, w.tell(i == 0))
		if w.Kicks != nil {
			say("kicks", phrase.Args{"from": w.Kicks[0], "to": w.Kicks[1]})
		}
		if d := w.LetDown; d != nil && d[0] == d[1] {
			say("let_down", phrase.Args{"s": d[0]})
		} else if d != nil {
			say("let_down.from", phrase.Args{"a": d[0], "b": d[1]})
		}
		if w.Passed {
			say("passed", nil)
		}
		story = append(story, w.stoodAgainst()...)
	}
	if steps := r.concludedSteps(); len(steps) > 0 {
		say("concluded", phrase.Args{"steps": steps})
	}
	for _, e := range r.live {
		if m := e.Memory; m != nil {
			step, _ := r.cat.Step(m.Step)
			say("memory", phrase.Args{"ask": AskName(step, m.Ask), "n": m.Tries, "answer": phrase.Of("story.last."+keyOf(m.Last), nil)})
		}
	}
	if works := r.worksDone(); len(works) > 0 {
		say("works", phrase.Args{"works": works})
	}
	for _, b := range r.now.beads {
		if b.Trial != nil {
			key, args := taleOf(*b.Trial)
			story = append(story, phrase.Of("live."+key, args))
		}
	}
	r.passing(func(key string, args phrase.Args) { story = append(story, phrase.Of("live."+key, args)) })
	story = append(story, v.Stopped.tell()...)
	if s.overs > 0 {
		say("over", phrase.Args{"n": s.overs})
	}
	if back := r.back(v.Felt); back > 0 {
		say("back", phrase.Args{"n": back})
	}
	if s.dangers > 0 {
		say("danger", phrase.Args{"n": s.dangers})
	}
	if f := v.Followed; f.Of > 0 {
		say("advice", phrase.Args{"n": f.N, "of": f.Of})
	}
	if n := len(r.now.beads); n > 0 && s.ended {
		say("end."+endOf(r.now.beads[n-1]), nil)
	}
	return story
}

// ended is how an outing was left.
func ended(o outing.Result) string {
	if o.Whole {
		return "home"
	}
	return "out"
}

// worksDone names what the work away from a wanted place was, each once.
func (r *Running) worksDone() []string {
	var works []string
	for _, w := range (horse.Work{}).All() {
		if slices.ContainsFunc(r.live, func(e track.Entry) bool { return e.Spell != nil && !e.Spell.Rest && e.Spell.Work == w }) {
			works = append(works, w.String())
		}
	}
	return works
}

// endOf names what a session ended on.
func endOf(b Told) string {
	switch {
	case b.Kind == track.KindSpell && b.Good:
		return "rest"
	case b.Kind == track.KindOffer && b.Good:
		return "yes"
	}
	return keyOf(b.Graded)
}

// back is the longest time in minutes that it took from over the line back to
// attentive; 0: it was not over it, or did not come back.
func (r *Running) back(felt []Felt) int {
	longest, since := int64(0), int64(-1)
	for _, f := range felt {
		switch {
		case f.Level >= 3 && since < 0:
			since = f.At
		case f.Level <= 1 && since >= 0:
			longest, since = max(longest, f.At-since), -1
		}
	}
	return int(math.Ceil(float64(longest) / minute))
}
