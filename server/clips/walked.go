package clips

import (
	"context"

	"ivorybridge/core/catalog"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// Walked is a step that was asked in a session of the day that a clip is from, and is met
// once it was timed as a walk: what was tapped on the clip can be logged there.
type Walked struct {
	Session string `json:"session" doc:"id"`
	Step    string `json:"step" doc:"key"`
	Name    string `json:"name"`
	At      int64  `json:"at" doc:"the moment before it was first asked, ms"`
	Timed   bool   `json:"timed" doc:"its footfall stands there"`
}

// walked lists them. What of a session can't be read is left out.
func (s *Service) walked(ctx context.Context, c api.Caller, k store.Clip) ([]Walked, error) {
	list := []Walked{}
	sessions, err := c.View.SessionsOn(ctx, c.Practice, k.HorseID, k.FilmedOn)
	if err != nil {
		return nil, err
	}
	for _, id := range sessions {
		kept, _, err := c.View.Track(ctx, c.Practice, id)
		if err != nil {
			return nil, err
		}
		list = append(list, walkedIn(s.Catalog, id, track.Live(store.Entries(kept)))...)
	}
	return list, nil
}

func walkedIn(c *catalog.Catalog, session string, live []track.Entry) (list []Walked) {
	at, timed := map[string]int64{}, map[string]bool{}
	for _, e := range live {
		if r, ok := e.AsRep(c); ok && at[r.Step] == 0 {
			at[r.Step] = e.At - 1
		}
		if e.Mark != nil && e.Mark.Footfall != nil {
			timed[e.Mark.Footfall.Step] = true
		}
	}
	for _, step := range c.With(catalog.FourBeats) {
		if asked := at[step.Key]; asked > 0 {
			list = append(list, Walked{Session: session, Step: step.Key, Name: step.FullName(), At: asked, Timed: timed[step.Key]})
		}
	}
	return list
}
