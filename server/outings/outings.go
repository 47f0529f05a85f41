// Package outings answers for the slow way home: the outings of a horse, how far the
// next one goes, and how far from the yard it is at ease.
package outings

import (
	"context"
	"net/http"
	"reflect"
	"slices"

	"ivorybridge/core/arena"
	"ivorybridge/core/desk"
	"ivorybridge/core/outing"
	"ivorybridge/core/phrase"
	"ivorybridge/core/track"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
)

// Service answers for outings.
type Service struct{ *cases.Reader }

// New registers what can be asked of outings.
func New(r *cases.Reader) *Service {
	s := &Service{r}
	for _, t := range []reflect.Type{reflect.TypeFor[desk.Laying](), reflect.TypeFor[desk.Laid](), reflect.TypeFor[desk.Walked](), reflect.TypeFor[desk.Timed]()} {
		s.Huma.OpenAPI().Components.Schemas.Schema(t, true, "") // what the rules on a device say of a walk
	}
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/outings", "outings", "The horses that are worked away from the yard", api.AtOnce(s.all))
	api.Operation(s.API, api.Helpers, http.MethodGet, "/api/horses/{id}/outings", "horseOutings", "A horse's outings", api.AtOnce(s.ofHorse))
	return s
}

// OutingHorse is a horse that is worked away from the yard.
type OutingHorse struct {
	cases.HorseRef
	Yard    string          `json:"yard"`
	Case    string          `json:"case" doc:"id"`
	Open    string          `json:"open_session,omitempty" doc:"id of a session that nobody has ended"`
	Count   int             `json:"count" doc:"outings so far"`
	Last    string          `json:"last,omitempty" format:"date" doc:"day of the newest"`
	Comfort float64         `json:"comfort" doc:"metres to which it is at ease; 0: not yet"`
	Next    *outing.Advised `json:"next,omitempty"`
}

// Outings are those of a horse, the oldest first.
type Outings struct {
	Horse   cases.HorseRef        `json:"horse"`
	Case    string                `json:"case" doc:"id"`
	Open    string                `json:"open_session,omitempty"`
	List    []Outing              `json:"list"`
	Next    *outing.Advised       `json:"next,omitempty" doc:"how far the next one goes; absent: there was none"`
	Road    track.Road            `json:"road" doc:"proposed for the next one"`
	Why     phrase.Message        `json:"why" doc:"why it is as far as that"`
	Riding  outing.Riding         `json:"riding"`
	Spots   []NamedSpot           `json:"spots" doc:"named spots, with the tries of each pass"`
	Stopped []arena.StoppedBefore `json:"stopped" doc:"what was stopped in the newest session that saw it, by where it was going"`
	Balance outing.Balance        `json:"balance" doc:"work and rest, near home and away, over all sessions"`
}

// Outing is one of them, with its numbers.
type Outing struct {
	outing.Result
	Ratio   float64  `json:"ratio" doc:"home to out; 0: it was not walked to its end"`
	Broken  int      `json:"broken" doc:"stops at which it was put back"`
	Longest float64  `json:"longest" doc:"longest stand, s"`
	Fidget  *float64 `json:"first_fidget,omitempty" doc:"seconds of a stand until it broke soonest; absent: it never did"`
	Comfort float64  `json:"comfort" doc:"metres to which it was at ease, after this outing"`
}

// NamedSpot is a place that was passed, in one direction.
type NamedSpot struct {
	outing.Spot
	Passes []Pass `json:"passes" doc:"the oldest first"`
}

// Pass is one time that it was passed.
type Pass struct {
	On    string `json:"on" format:"date"`
	Tries int    `json:"tries" doc:"how often it tried to turn to it"`
}

func (s *Service) all(ctx context.Context, c api.Caller, _ *struct{}) ([]OutingHorse, error) {
	horses, err := c.View.InWork(ctx, c.Practice, c.Today())
	if err != nil {
		return nil, err
	}
	list := []OutingHorse{}
	for _, h := range horses {
		kase, err := c.View.NewestCase(ctx, c.Practice, h.ID)
		if err != nil {
			return nil, err
		}
		if ladder, ok := s.Catalog.Ladder(kase.Ladder); !ok || len(ladder.Steps) == 0 || !ladder.Steps[0].Away {
			continue
		}
		one := OutingHorse{HorseRef: cases.HorseRef(h.Named), Case: kase.ID}
		err = api.Guarded(func() error {
			r, results, err := s.read(ctx, c, h.ID)
			if err != nil || len(results) == 0 {
				one.Yard, one.Open = r.Horse.Yard.Name, r.History.Open
				return err
			}
			next := outing.After(results[len(results)-1])
			one.Yard, one.Open, one.Count, one.Last, one.Comfort, one.Next = r.Horse.Yard.Name, r.History.Open, len(results), results[len(results)-1].On, outing.Comfort(results), &next
			return nil
		})
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if err != nil { // the horse's own page says so; the others stand
			s.Log.WarnContext(ctx, "a horse's outings can't be read", "horse", h.ID, "error", err.Error())
		}
		list = append(list, one)
	}
	return list, nil
}

// read reads a horse's outings, the oldest first.
func (s *Service) read(ctx context.Context, c api.Caller, id string) (cases.Reading, []outing.Result, error) {
	r, err := s.Newest(ctx, c, id)
	if err != nil {
		return r, nil, err
	}
	figures, err := s.Figures(ctx, c, r)
	var results []outing.Result
	for _, f := range figures {
		results = append(results, f.Outings...)
	}
	return r, results, err
}

func (s *Service) ofHorse(ctx context.Context, c api.Caller, in *api.ByID) (Outings, error) {
	r, results, err := s.read(ctx, c, in.ID)
	if err != nil {
		return Outings{}, err
	}
	view := Outings{
		Horse: cases.RefOf(r.Horse), Case: r.Case.ID, Open: r.History.Open, List: []Outing{}, Spots: []NamedSpot{}, Stopped: append([]arena.StoppedBefore{}, r.History.Stopped...), Riding: outing.Ridable(results),
	}
	for i, o := range results {
		one := Outing{Result: o, Ratio: o.Ratio(), Broken: o.Broken(), Longest: o.Longest(), Comfort: outing.Comfort(results[:i+1])}
		if fidget, broke := o.Fidget(); broke {
			one.Fidget = &fidget
		}
		view.List = append(view.List, one)
		for _, spot := range o.Spots {
			at := slices.IndexFunc(view.Spots, func(x NamedSpot) bool { return x.Name == spot.Name && x.Heading == spot.Heading })
			if at < 0 {
				at, view.Spots = len(view.Spots), append(view.Spots, NamedSpot{Spot: spot})
			}
			view.Spots[at].Tries = spot.Tries
			view.Spots[at].Passes = append(view.Spots[at].Passes, Pass{On: o.On, Tries: spot.Tries})
		}
	}
	view.Road, view.Why = outing.Proposed(results)
	if n := len(results); n > 0 {
		next := outing.After(results[n-1])
		view.Next = &next
	}
	figures, err := s.Figures(ctx, c, r)
	for _, f := range figures {
		view.Balance = view.Balance.Plus(f.Day.Balance)
	}
	view.Balance = view.Balance.Judged()
	return view, err
}
