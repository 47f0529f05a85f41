package arena

import (
	"fmt"
	"strings"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

func (s *session) dip(n int) bool {
	if len(s.reps) > 0 && s.lastRep().Trial != nil {
		return false // a trial of tack is no answer that comes and goes
	}
	return s.col.cycle && n > 0 && InDip(n, s.rules.Cycle)
}

func (s *session) numbers() Numbers {
	a, _ := s.current()
	step, _ := s.cat.Step(a.Step)
	log := s.log(a)
	n := len(log.reps)
	return Numbers{
		N: n, Cycle: s.rules.Cycle, Dip: s.dip(n), PassRun: log.passRun, PassNeeds: step.Pass.Run, PassLevel: s.passLevel(step),
		BlockMinutes: s.blockMinutes(), BlockEnds: s.rules.BlockMinutes,
		SessionMinutes: s.schooling(), SessionCap: s.rules.SessionCap, RepSeconds: s.repSeconds(), Arousal: s.arousal,
	}
}

// keyOf is a word as it stands in a phrase's key.
func keyOf(word fmt.Stringer) string { return strings.ReplaceAll(word.String(), " ", "_") }

// AskName is an ask in words: its step, and how it is asked.
func AskName(step catalog.Step, a horse.Ask) phrase.Message {
	if a.Variant.IsZero() {
		return phrase.Of("ask", phrase.Args{"step": step.FullName()})
	}
	return phrase.Of("ask.variant", phrase.Args{"step": step.FullName(), "variant": variantName(a.Variant)})
}

func variantName(v horse.Variant) phrase.Message {
	if !v.Side.IsZero() && v.Zone.IsZero() && v.Direction.IsZero() && v.Foot.IsZero() {
		return phrase.Of("side."+v.Side.String(), nil)
	}
	return phrase.Of("variant", phrase.Args{"words": phrase.Sided(v.String())})
}

func targetText(step catalog.Step, v int) phrase.Message {
	if v == 0 {
		return phrase.Of("target.none", nil)
	}
	if step.Pass.Unit == "mm" {
		return phrase.Of("target.mm", phrase.Args{"n": float64(v) / 1000})
	}
	unit := step.Pass.Unit
	if unit == "" {
		unit = "times"
	}
	return phrase.Of("target."+unit, phrase.Args{"n": v})
}
