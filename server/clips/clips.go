// Package clips answers for films of horses: they arrive in pieces, from a user or through
// an owner's link, are shown with what was marked and tapped on them, and are kept as the
// photographs are.
package clips

import (
	"cmp"
	"context"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"

	"ivorybridge/core/gait"
	"ivorybridge/core/horse"
	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
)

// RoomForClips is the room that the clips of a practice have, in bytes, where nothing else
// is said.
const RoomForClips = 20 << 30

// MaxClip is the largest clip, in bytes.
const MaxClip = 500 << 20

// Service answers for clips.
type Service struct {
	*cases.Reader
	arrivals
	room    int64
	changed func()
}

// New registers what can be asked of clips. A practice's clips take so much room at most.
// changed is called when an assessment was changed by what a clip shows.
func New(r *cases.Reader, room int64, changed func()) (*Service, error) {
	s := &Service{Reader: r, room: room, changed: changed}
	if err := s.prepare(); err != nil {
		return nil, err
	}
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/clips", "clips", "A horse's clips", api.AtOnce(s.list))
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/clips/{id}", "clip", "A clip, with its frames, marks and what was tapped on it", api.AtOnce(s.one))
	api.Operation(s.API, api.Staff, http.MethodPut, "/api/clips/{id}", "changeClip", "Keep what is written and tapped on a clip", s.change)
	api.Operation(s.API, api.Staff, http.MethodDelete, "/api/clips/{id}", "removeClip", "Take a clip out of sight", s.remove)
	api.Operation(s.API, api.Staff, http.MethodPost, "/api/clips/{id}/marks", "markClip", "Mark a moment of a clip", s.mark)
	api.Operation(s.API, api.Staff, http.MethodDelete, "/api/clips/{id}/marks/{mark}", "unmarkClip", "Take a mark off a clip", s.unmark)
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/horses/{id}/films", "filmList", "What the owner should film, and what of it has come", api.AtOnce(s.filmList))
	api.Operation(s.API, api.OwnersSide, http.MethodGet, "/api/owner/horses/{id}/films", "ownFilmList", "What an owner should film of the own horse", api.AtOnce(s.ownFilmList))
	huma.Register(s.Huma, s.Describe(api.Staff, http.MethodGet, "/api/clips/{id}/film", "film", "The film itself, or a range of it"), s.film)
	s.arriving()
	return s, nil
}

// Clip is a film of a horse.
type Clip struct {
	ID       string         `json:"id"`
	Horse    string         `json:"horse" doc:"id"`
	Name     string         `json:"name,omitempty" doc:"what it shows"`
	View     string         `json:"view,omitempty" doc:"of the film list"`
	On       string         `json:"on" format:"date" doc:"when it was filmed"`
	Type     string         `json:"type" doc:"media type"`
	Bytes    int64          `json:"bytes"`
	Position string         `json:"position" enum:"none,removed,not looked" doc:"where it was filmed: nothing told of it, it was taken out, or it could not be looked for"`
	Speed    float64        `json:"speed" doc:"of the film: 0.25 was filmed four times slowed down"`
	Gait     string         `json:"gait,omitempty" doc:"as the rider names it"`
	Landings []gait.Landing `json:"landings" doc:"tapped on it"`
	Timed    *gait.Result   `json:"timed,omitempty" doc:"what the footfall comes to; absent: nothing was tapped"`
	SentBy   string         `json:"sent_by,omitempty" doc:"the person who sent it"`
	AddedBy  string         `json:"added_by"`
	Version  int64          `json:"version"`
	Unread   bool           `json:"unread,omitempty" doc:"what was tapped on it can't be read"`
}

// Clips are those of a horse, the newest first.
type Clips struct {
	Horse  cases.HorseRef `json:"horse"`
	List   []Clip         `json:"list"`
	Agreed bool           `json:"agreed" doc:"an owner agreed to pictures and films"`
	Most   int64          `json:"most" doc:"bytes of the largest that is taken"`
	Room   string         `json:"room,omitempty" doc:"what is left of the room, where it runs out"`
}

// ClipWhole is a clip with all that belongs to it.
type ClipWhole struct {
	Clip
	HorseName string      `json:"horse_name"`
	Frames    []float64   `json:"frames" doc:"when each frame is shown, s; empty: the film does not say"`
	Marks     []ClipMark  `json:"marks" doc:"by their moments"`
	Others    []OtherClip `json:"others" doc:"of the horse; those of the same view first, then the newest"`
	Walked    []Walked    `json:"walked" doc:"steps asked that day that wait for a walk to be timed"`
	Shows     *Showing    `json:"shows,omitempty" doc:"what a mark may be tied to; absent: nobody works with the horse"`
}

// OtherClip is a clip that may stand beside another.
type OtherClip struct {
	ID   string `json:"id"`
	Name string `json:"name,omitempty"`
	On   string `json:"on" format:"date"`
	Same bool   `json:"same,omitempty" doc:"the same view of the film list"`
}

func (s *Service) others(ctx context.Context, c api.Caller, k store.Clip) ([]OtherClip, error) {
	list := []OtherClip{}
	all, err := c.View.Clips(ctx, c.Practice, k.HorseID)
	for _, o := range all {
		if o.ID != k.ID {
			list = append(list, OtherClip{ID: o.ID, Name: o.Name, On: o.FilmedOn, Same: k.View != "" && o.View == k.View})
		}
	}
	slices.SortStableFunc(list, func(a, b OtherClip) int { return cmp.Compare(rank(a.Same), rank(b.Same)) })
	return list, err
}

func rank(first bool) int {
	if first {
		return 0
	}
	return 1
}

// told is a clip as it is answered. What was tapped and can't be timed is left out.
func told(c store.Clip) Clip {
	one := Clip{
		ID: c.ID, Horse: c.HorseID, Name: c.Name, View: c.View, On: c.FilmedOn, Type: c.MediaType, Bytes: c.Bytes, Position: c.Position, Speed: c.Taps.Speed,
		Gait: c.Gait, Landings: c.Taps.Landings, SentBy: c.SentBy.Name, AddedBy: c.AddedBy, Version: c.Version, Unread: c.Damaged != nil,
	}
	if one.Landings == nil {
		one.Landings = []gait.Landing{}
	}
	if len(one.Landings) > 0 {
		if r, err := gait.Time(c.Taps); err == nil {
			one.Timed = &r
		}
	}
	return one
}

func (s *Service) list(ctx context.Context, c api.Caller, in *api.ByID) (Clips, error) {
	h, err := c.View.Horse(ctx, c.Practice, in.ID)
	if err != nil {
		return Clips{}, err
	}
	view := Clips{Horse: cases.HorseRef{ID: h.ID, Name: h.Name}, List: []Clip{}, Most: MaxClip}
	kept, err := c.View.Clips(ctx, c.Practice, h.ID)
	if err != nil {
		return Clips{}, err
	}
	for _, k := range kept {
		view.List = append(view.List, told(k))
	}
	consents, err := c.View.Consents(ctx, c.Practice)
	if err != nil {
		return Clips{}, err
	}
	for _, o := range h.Owners {
		view.Agreed = view.Agreed || store.Agreed(consents, o.ID, store.Photographs)
	}
	taken, err := c.View.RoomOfClips(ctx, c.Practice)
	if taken*5 >= s.room*4 {
		view.Room = fmt.Sprintf("The practice's clips take %d MB of the %d MB there is for them.", taken>>20, s.room>>20)
	}
	return view, err
}

func (s *Service) one(ctx context.Context, c api.Caller, in *api.ByID) (ClipWhole, error) {
	k, err := c.View.Clip(ctx, c.Practice, in.ID)
	if err != nil {
		return ClipWhole{}, err
	}
	h, err := c.View.HorseAsKept(ctx, c.Practice, k.HorseID)
	if err != nil {
		return ClipWhole{}, err
	}
	view := ClipWhole{Clip: told(k), HorseName: h.Name, Frames: k.Frames, Marks: []ClipMark{}}
	if view.Frames == nil {
		view.Frames = []float64{}
	}
	if view.Shows, err = s.showing(ctx, c, k); err != nil {
		return ClipWhole{}, err
	}
	if view.Walked, err = s.walked(ctx, c, k); err != nil {
		return ClipWhole{}, err
	}
	if view.Others, err = s.others(ctx, c, k); err != nil {
		return ClipWhole{}, err
	}
	for _, m := range k.Marks {
		view.Marks = append(view.Marks, s.markOf(m))
	}
	return view, nil
}

// ClipText is what is written and tapped on a clip.
type ClipText struct {
	Name     string         `json:"name,omitempty" maxLength:"120"`
	View     string         `json:"view,omitempty" maxLength:"40"`
	On       string         `json:"on" maxLength:"10"`
	Speed    float64        `json:"speed" doc:"above 0, at most 8; 1 is true speed"`
	Gait     string         `json:"gait,omitempty" maxLength:"120"`
	Landings []gait.Landing `json:"landings" maxItems:"2000"`
	Version  int64          `json:"version" minimum:"1"`
}

type clipChange struct {
	ID   string `path:"id" format:"uuid"`
	Body ClipText
}

func (s *Service) change(ctx context.Context, c api.Caller, in *clipChange) (ClipWhole, error) {
	t := in.Body
	k := store.Clip{
		ID: in.ID, Name: strings.TrimSpace(t.Name), View: t.View, FilmedOn: t.On, Gait: strings.TrimSpace(t.Gait), Version: t.Version,
		Taps: gait.Taps{Speed: t.Speed, Landings: t.Landings},
	}
	var wrong []api.FieldProblem
	if day, dated := horse.DayNumber(t.On); !dated {
		wrong = append(wrong, api.NoDate("on"))
	} else if today, _ := horse.DayNumber(c.Today()); day > today {
		wrong = append(wrong, api.FieldProblem{Field: "on", Say: "That day has not come yet."})
	}
	if t.Speed <= 0 || t.Speed > 8 {
		wrong = append(wrong, api.FieldProblem{Field: "speed", Say: "The speed is above 0 and at most 8. One that was filmed four times slowed down has 0.25."})
	} else if err := k.Taps.Check(); err != nil {
		wrong = append(wrong, api.FieldProblem{Field: "landings", Say: "This can't be timed: " + err.Error() + "."})
	}
	if len(wrong) > 0 {
		return ClipWhole{}, api.Faulty(wrong...)
	}
	if err := s.Store.ChangeClip(ctx, c.Actor(), k); err != nil {
		return ClipWhole{}, api.Stale(err, func(now any) Clip { return told(now.(store.Clip)) })
	}
	return s.one(ctx, c, &api.ByID{ID: in.ID})
}

func (s *Service) remove(ctx context.Context, c api.Caller, in *api.ByID) (Clips, error) {
	k, err := c.View.Clip(ctx, c.Practice, in.ID)
	if err != nil {
		return Clips{}, err
	}
	if err := s.Store.RemoveClip(ctx, c.Actor(), in.ID); err != nil {
		return Clips{}, err
	}
	return s.list(ctx, c, &api.ByID{ID: k.HorseID})
}

// slowFilm is how long one range of a film may take to be sent.
const slowFilm = 30 * time.Minute

// film sends a clip's film, or the range that was asked for.
func (s *Service) film(ctx context.Context, in *api.ByID) (*huma.StreamResponse, error) {
	c := api.CallerOf(ctx)
	k, err := c.View.Clip(ctx, c.Practice, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	f, err := c.View.Film(k)
	if err != nil {
		return nil, s.Problem(ctx, err)
	}
	return &huma.StreamResponse{Body: func(hctx huma.Context) {
		defer func() { _ = f.Close() }() // only read from
		g := humagin.Unwrap(hctx)
		_ = http.NewResponseController(g.Writer).SetWriteDeadline(time.Now().Add(slowFilm)) // where it can't, the server's own holds
		h := g.Writer.Header()
		h.Set("Content-Type", k.MediaType)
		h.Set("Cache-Control", "private, max-age=3600")
		h.Set("ETag", `"`+k.Hash+`"`)
		http.ServeContent(g.Writer, g.Request, "", time.Time{}, f)
	}}, nil
}
