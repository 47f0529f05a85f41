package assess

import (
	"maps"
	"slices"

	"ivorybridge/core/catalog"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type gateStates struct{}

func (gateStates) Words() []string { return []string{"tied", "open", "not looked at"} }

// GateState is how the gate of a result is drawn.
type GateState = horse.Word[gateStates]

var (
	tied     = horse.MustWord[gateStates]("tied")
	standing = horse.MustWord[gateStates]("open")
	unseen   = horse.MustWord[gateStates]("not looked at")
)

// A Gate is what an assessment closes and what it leaves open (parts 3 and 9). It
// stands open only where every part of the body that bears on the problems was
// looked at.
type Gate struct {
	State GateState        `json:"state" doc:"tied: something is closed; open: nothing is, of what was looked at"`
	Says  []phrase.Message `json:"says" doc:"what nobody does, or that nothing is closed"`
	Until []phrase.Message `json:"until" doc:"who has to look, and by when"`
	Open  []phrase.Message `json:"open" doc:"what can be worked meanwhile"`
}

func gateOf(c *catalog.Catalog, a Assessment, r Result, ladders map[horse.Problem]catalog.Ladder) Gate {
	g := Gate{Says: slices.Clone(r.Forbidden), Until: []phrase.Message{}, Open: []phrase.Message{}}
	g.Says = append(g.Says, waiting(r.Blocks)...)
	for _, ref := range r.Referrals {
		if !ref.Done {
			g.Until = append(g.Until, phrase.Of("result.until", phrase.Args{"who": ref.Who, "due": phrase.Date(ref.Due)}))
		}
	}
	for _, check := range r.Rechecks {
		if len(check.Found) == 0 {
			g.Until = append(g.Until, check.Reads)
		}
	}
	missed := Names(a.UnlookedBody(c.Judging, slices.Collect(maps.Keys(ladders))...))
	switch {
	case len(g.Says) > 0:
		g.State = tied
		g.Open = stillOpen(c, a, r, ladders)
	case len(missed) > 0:
		g.State = unseen
		g.Says = append(g.Says, phrase.Of("result.unlooked", phrase.Args{"items": missed}))
	default:
		g.State = standing
		g.Says = append(g.Says, phrase.Of("result.open", nil))
	}
	return g
}

// waiting says once for each part of the body which steps wait for it.
func waiting(blocks []Block) []phrase.Message {
	var says []phrase.Message
	for _, item := range (horse.BodyItem{}).All() {
		var names []string
		for _, b := range blocks {
			if b.Item == item {
				names = append(names, b.Name)
			}
		}
		switch {
		case len(names) > mostNamed:
			says = append(says, phrase.Of("result.waits.from", phrase.Args{"item": Named(item), "first": names[0], "n": len(names)}))
		case len(names) == 1:
			says = append(says, phrase.Of("result.waits.one", phrase.Args{"item": Named(item), "steps": names}))
		case len(names) > 0:
			says = append(says, phrase.Of("result.waits", phrase.Args{"item": Named(item), "steps": names}))
		}
	}
	return says
}

// mostNamed steps are told by their names; of more the first and how many.
const mostNamed = 4

// stillOpen lists the ladders of the problems, and those under them, that can be
// worked: all of one, or up to the first step that is closed.
func stillOpen(c *catalog.Catalog, a Assessment, r Result, ladders map[horse.Problem]catalog.Ladder) []phrase.Message {
	reached := reach(c, ladders)
	afoot := r.InHand || a.First.NoMounting() || slices.ContainsFunc(r.Forbidden, func(m phrase.Message) bool { return m.Key == "forbid.sore" })
	closed := func(s catalog.Step) bool {
		return afoot && (s.Ridden || s.Is(catalog.BearsWeight)) || slices.ContainsFunc(r.Blocks, func(b Block) bool { return b.Step == s.Key })
	}
	open := []phrase.Message{}
	for _, l := range c.Ladders {
		if !reached[l.Key] {
			continue
		}
		switch at := slices.IndexFunc(l.Steps, closed); {
		case at < 0:
			open = append(open, phrase.Of("result.ladder", phrase.Args{"ladder": l.Name}))
		case at > 0:
			open = append(open, phrase.Of("result.up_to", phrase.Args{"ladder": l.Name, "step": l.Steps[at-1].Name}))
		}
	}
	return open
}
