package clips

import (
	"context"
	"slices"
	"strings"

	"ivorybridge/core/assess"
	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
	"ivorybridge/server/api"
	"ivorybridge/store"
)

// FilmList is what the owner should film, and what of it has come.
type FilmList struct {
	Views   []Wanted       `json:"views"`
	How     phrase.Message `json:"how"`
	Safety  phrase.Message `json:"safety"`
	Message string         `json:"message,omitempty" doc:"the same as text, to be sent to the owner"`
}

// Wanted is a view that should be filmed.
type Wanted struct {
	assess.FilmView
	Came  int             `json:"came" doc:"clips of it that came"`
	Last  string          `json:"last,omitempty" format:"date" doc:"when the newest of them was filmed"`
	Again *phrase.Message `json:"again,omitempty" doc:"it is time for the same view again"`
}

// againAfter is after how many days the same view is asked for again.
const againAfter = 28

// films is the list of a horse as its file stands: an owner is asked for nothing that the
// owner may not do.
func (s *Service) films(ctx context.Context, c api.Caller, horseID string) (FilmList, error) {
	r, err := s.Newest(ctx, c, horseID)
	if err != nil {
		return FilmList{}, err
	}
	in := assess.Filming{Problems: r.Case.Further(), Care: r.File.Result.Care, Barred: len(r.File.Result.Forbidden)+len(r.File.Result.Stops) > 0}
	var own horse.Problem
	if err := own.UnmarshalText([]byte(r.Case.Problem)); err != nil {
		return FilmList{}, err
	}
	in.Problems = append([]horse.Problem{own}, in.Problems...)
	record := r.Horse.Record
	in.Ridden = !r.File.Result.InHand && !record.Unhandled && (record.Rides == nil || *record.Rides > 0)
	view := FilmList{Views: []Wanted{}, How: phrase.Of("film.how", nil), Safety: phrase.Of("film.safety", nil)}
	if in.Care.Rank() >= horse.HighCare.Rank() {
		view.Safety = phrase.Of("film.safety.away", nil)
	}
	clips, err := c.View.Clips(ctx, c.Practice, horseID)
	if err != nil {
		return FilmList{}, err
	}
	for _, v := range assess.FilmList(in) {
		w := Wanted{FilmView: v}
		for _, k := range clips {
			if k.View == v.Key {
				w.Came, w.Last = w.Came+1, max(w.Last, k.FilmedOn)
			}
		}
		if w.Last != "" && horse.DayAfter(w.Last, againAfter) <= c.Today() {
			m := phrase.Of("film.again", phrase.Args{"on": phrase.Date(w.Last)})
			w.Again = &m
		}
		view.Views = append(view.Views, w)
	}
	lines := asked(c.Book, view.Views, func(w Wanted) bool { return w.Came == 0 || w.Again != nil })
	if len(lines) == 0 {
		lines = asked(c.Book, view.Views, func(Wanted) bool { return true })
	}
	view.Message = c.Book.Say(phrase.Of("film.ask", phrase.Args{"horse": r.Horse.Name, "who": c.Home.Name})) +
		strings.Join(lines, "") + "\n" + c.Book.Say(view.How) + "\n" + c.Book.Say(view.Safety)
	return view, nil
}

// asked are the lines of a message for the views that are wanted.
func asked(book phrase.Book, views []Wanted, wanted func(Wanted) bool) (lines []string) {
	for _, w := range views {
		if !wanted(w) {
			continue
		}
		line := "\n- " + book.Say(w.Says)
		if w.Again != nil {
			line += " " + book.Say(*w.Again)
		}
		lines = append(lines, line)
	}
	return lines
}

func (s *Service) filmList(ctx context.Context, c api.Caller, in *api.ByID) (FilmList, error) {
	return s.films(ctx, c, in.ID)
}

func (s *Service) ownFilmList(ctx context.Context, c api.Caller, in *api.ByID) (FilmList, error) {
	ids, err := c.View.HorsesOf(ctx, c.Practice, c.Linked.Person)
	if err != nil {
		return FilmList{}, err
	}
	if c.Linked.Person == "" || !slices.Contains(ids, in.ID) {
		return FilmList{}, store.ErrNotFound
	}
	view, err := s.films(ctx, c, in.ID)
	view.Message = "" // it is the owner who reads it
	return view, err
}
