package clips

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"io/fs"
	"net/http"
	"os"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"sync"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humagin"
	"github.com/gin-gonic/gin"
	"github.com/tus/tusd/v2/pkg/filestore"
	tus "github.com/tus/tusd/v2/pkg/handler"
	"github.com/tus/tusd/v2/pkg/memorylocker"
	"golang.org/x/exp/slog" // as the protocol's library has it

	"ivorybridge/core/horse"
	"ivorybridge/server/api"
	"ivorybridge/server/film"
	"ivorybridge/store"
)

// Where clips arrive: for users, and for owners through their link.
const (
	fromStaff = "/api/clips/arriving"
	fromOwner = "/api/owner/clips/arriving"
)

// Forgotten is how long a clip that did not arrive whole is waited for.
const Forgotten = 7 * 24 * time.Hour

// mostArriving is how many clips of a practice may be under way at once.
const mostArriving = 12

// arrivals takes clips in, piece by piece.
type arrivals struct {
	pieces    filestore.FileStore
	taker     *tus.UnroutedHandler
	beginning sync.Mutex
}

func (s *Service) prepare() error {
	if s.Store == nil {
		s.taker = &tus.UnroutedHandler{} // it is only described
		return nil
	}
	s.pieces = filestore.New(s.Store.Arriving())
	composer := tus.NewStoreComposer()
	s.pieces.UseIn(composer)
	composer.UseLocker(patience{memorylocker.New()})
	taker, err := tus.NewUnroutedHandler(tus.Config{
		StoreComposer: composer, BasePath: fromStaff, MaxSize: MaxClip, DisableDownload: true, DisableConcatenation: true,
		Cors: &tus.CorsConfig{Disable: true}, Logger: slog.New(slog.NewTextHandler(io.Discard, nil)),
		PreUploadCreateCallback: s.begins, PreFinishResponseCallback: s.arrived,
	})
	if err != nil {
		return fmt.Errorf("preparing for clips: %w", err)
	}
	s.taker = taker
	return nil
}

// arriving registers the operations of the resumable protocol (tus 1.0).
func (s *Service) arriving() {
	for at, who := range map[string]struct {
		need api.Access
		name string
	}{fromStaff: {api.Staff, ""}, fromOwner: {api.OwnersSide, "Own"}} {
		add := func(method, path, id, summary string, serve http.HandlerFunc) {
			op := s.Describe(who.need, method, at+path, id+who.name+"Clip", summary)
			huma.Register(s.Huma, op, func(ctx context.Context, in *struct {
				ID string `path:"id" format:"uuid"`
			}) (*huma.StreamResponse, error) {
				if !s.theirs(ctx, in.ID) {
					return nil, s.Problem(ctx, store.ErrNotFound)
				}
				return &huma.StreamResponse{Body: func(hctx huma.Context) {
					g := humagin.Unwrap(hctx)
					r := g.Request.Clone(hctx.Context()) // which knows the caller
					r.URL.Path = "/" + in.ID
					s.taker.Middleware(serve).ServeHTTP(answers(g, at), tellsWhenRead(r))
				}}, nil
			})
		}
		begin := s.Describe(who.need, http.MethodPost, at, "begin"+who.name+"Clip", "Begin to send a clip in pieces (tus 1.0)")
		huma.Register(s.Huma, begin, func(context.Context, *struct{}) (*huma.StreamResponse, error) {
			return &huma.StreamResponse{Body: func(hctx huma.Context) {
				g := humagin.Unwrap(hctx)
				s.taker.Middleware(http.HandlerFunc(s.taker.PostFile)).ServeHTTP(answers(g, at), g.Request.WithContext(hctx.Context()))
			}}, nil
		})
		add(http.MethodHead, "/{id}", "seek", "How much of a clip has arrived", s.taker.HeadFile)
		add(http.MethodPatch, "/{id}", "send", "Send the next piece of a clip", s.taker.PatchFile)
		add(http.MethodDelete, "/{id}", "drop", "Send no more of a clip", s.taker.DelFile)
	}
}

// placed tells where a clip arrives by its path alone: which host and port a browser
// reached is not for the server to guess.
type placed struct {
	http.ResponseWriter
	base http.ResponseWriter // which outlives the request
	at   string
}

// answers is where an answer to a request goes. The protocol's library still has its
// deadlines in hand as the engine has taken its own writer back.
func answers(g *gin.Context, at string) *placed {
	p := &placed{ResponseWriter: g.Writer, base: g.Writer, at: at}
	if w, ok := g.Writer.(interface{ Unwrap() http.ResponseWriter }); ok {
		p.base = w.Unwrap()
	}
	return p
}

// WriteHeader tells the place with the header.
func (p *placed) WriteHeader(code int) {
	if to := p.Header().Get("Location"); to != "" {
		p.Header().Set("Location", p.at+"/"+to[strings.LastIndex(to, "/")+1:])
	}
	p.ResponseWriter.WriteHeader(code)
}

// Unwrap lets deadlines through.
func (p *placed) Unwrap() http.ResponseWriter { return p.base }

// What goes with a clip, as its sender says; by and practice are added here.
const (
	saysHorse    = "horse"
	saysName     = "name"
	saysView     = "view"
	saysOn       = "on"
	saysID       = "clip"
	saysPractice = "practice"
	saysBy       = "by"
	saysPerson   = "person"
)

var isID = regexp.MustCompile(`^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$`)

// refused is a problem as the protocol's library sends it.
func (s *Service) refused(ctx context.Context, err error) error {
	switch {
	case errors.Is(err, store.ErrNoConsent):
		err = api.Faulty(api.FieldProblem{Field: "film", Say: "The owner has not agreed to photographs and films. Ask, and note the day they agreed; then send the clip again."})
	case errors.Is(err, store.ErrNoRoom):
		err = api.Faulty(api.FieldProblem{Field: "film", Say: fmt.Sprintf(
			"The practice's clips have all of the %d MB there is for them. Remove some: their room is free after %d days. Or ask whoever keeps the server for more.", s.room>>20, int(store.ErasedAfter.Hours()/24))})
	case errors.Is(err, film.ErrNoFilm):
		err = api.Faulty(api.FieldProblem{Field: "film", Say: "This is no film that can be taken: send an MP4, MOV or WebM, whole, as the phone made it."})
	}
	var p *api.Problem
	if !errors.As(s.Problem(ctx, err), &p) {
		p = api.NewProblem(http.StatusInternalServerError, "The clip could not be kept. Send it again.")
	}
	body, err := json.Marshal(p)
	if err != nil {
		return err
	}
	return tus.Error{ErrorCode: "REFUSED", Message: p.Detail, HTTPResponse: tus.HTTPResponse{
		StatusCode: p.Status, Body: string(body), Header: tus.HTTPHeader{"Content-Type": "application/problem+json"},
	}}
}

// begins looks at what is going to arrive before any of it does.
func (s *Service) begins(hook tus.HookEvent) (tus.HTTPResponse, tus.FileInfoChanges, error) {
	c := api.CallerOf(hook.Context)
	said := hook.Upload.MetaData
	refuse := func(err error) (tus.HTTPResponse, tus.FileInfoChanges, error) {
		return tus.HTTPResponse{}, tus.FileInfoChanges{}, s.refused(hook.Context, err)
	}
	if hook.Upload.SizeIsDeferred || hook.Upload.Size == 0 {
		return refuse(api.Faulty(api.FieldProblem{Field: "film", Say: "This file is empty. Choose another."}))
	}
	if !isID.MatchString(said[saysID]) {
		return refuse(api.Faulty(api.FieldProblem{Field: "film", Say: "The clip has no id. Load the page again and send it once more."}))
	}
	if _, dated := horse.DayNumber(said[saysOn]); !dated || said[saysOn] > horse.DayAfter(c.Today(), 1) {
		return refuse(api.Faulty(api.NoDate("on")))
	}
	by, person, err := s.sender(hook.Context, c, said[saysHorse])
	if err != nil {
		return refuse(err)
	}
	if _, err := c.View.Clip(hook.Context, c.Practice, said[saysID]); !errors.Is(err, store.ErrNotFound) {
		return refuse(cmp.Or(err, store.ErrTaken))
	}
	s.beginning.Lock()
	defer s.beginning.Unlock()
	under, bytes, err := s.underWay(hook.Context, c.Practice)
	if err != nil {
		return refuse(err)
	}
	taken, err := c.View.RoomOfClips(hook.Context, c.Practice)
	switch {
	case err != nil:
		return refuse(err)
	case under >= mostArriving:
		return refuse(api.NewProblem(http.StatusTooManyRequests, "Many clips are on their way already. Let them arrive, then send the next."))
	case taken+bytes+hook.Upload.Size > s.room:
		return refuse(store.ErrNoRoom)
	}
	meta := tus.MetaData{
		saysID: said[saysID], saysHorse: said[saysHorse], saysName: api.Clip(strings.TrimSpace(said[saysName]), 120), saysView: api.Clip(said[saysView], 40),
		saysOn: said[saysOn], saysPractice: c.Practice, saysBy: by, saysPerson: person,
	}
	return tus.HTTPResponse{}, tus.FileInfoChanges{ID: said[saysID], MetaData: meta}, nil
}

// sender says under which user a clip stands, and which person sends it; an error if the
// horse is not theirs, or nobody agreed. Who sends a clip of the own horse agrees by it.
func (s *Service) sender(ctx context.Context, c api.Caller, horseID string) (user, person string, err error) {
	h, err := c.View.HorseAsKept(ctx, c.Practice, horseID)
	if err != nil {
		return "", "", err
	}
	consents, err := c.View.Consents(ctx, c.Practice)
	if err != nil {
		return "", "", err
	}
	agreed := func(person string) bool { return store.Agreed(consents, person, store.Photographs) }
	person = c.Linked.Person
	if person == "" {
		if !slices.ContainsFunc(h.Owners, func(o store.OwnerOf) bool { return agreed(o.ID) }) {
			return "", "", store.ErrNoConsent
		}
		return c.ID, "", nil
	}
	ids, err := c.View.HorsesOf(ctx, c.Practice, person)
	if err != nil {
		return "", "", err
	}
	if !slices.Contains(ids, horseID) {
		return "", "", api.NewProblem(http.StatusNotFound, "This link does not open that horse. Ring your trainer.")
	}
	if c.Linked.MadeBy != "" {
		c.ID = c.Linked.MadeBy // it stands under whoever gave the link
	}
	if !agreed(person) {
		err = s.Store.Agree(ctx, c.Actor(), store.Consent{Person: person, Kind: store.Photographs, GivenOn: c.Today()})
	}
	return c.ID, person, err
}

// underWay counts a practice's clips that have not arrived yet, and the room they will
// take.
func (s *Service) underWay(ctx context.Context, practice string) (n int, bytes int64, err error) {
	err = s.eachUnderWay(func(id string, _ time.Time) error {
		if info, err := s.infoOf(ctx, id); err == nil && info.MetaData[saysPractice] == practice {
			n, bytes = n+1, bytes+info.Size
		}
		return nil
	})
	return n, bytes, err
}

// eachUnderWay visits the clips that have not arrived, each with when its newest piece did.
func (s *Service) eachUnderWay(visit func(id string, at time.Time) error) error {
	entries, err := os.ReadDir(s.Store.Arriving())
	if errors.Is(err, fs.ErrNotExist) {
		return nil
	}
	if err != nil {
		return fmt.Errorf("looking at what arrives: %w", store.Placed(err))
	}
	for _, e := range entries {
		id, is := strings.CutSuffix(e.Name(), ".info")
		info, err := os.Stat(filepath.Join(s.Store.Arriving(), id))
		if !is || err != nil {
			continue
		}
		if err := visit(id, info.ModTime()); err != nil {
			return err
		}
	}
	return nil
}

func (s *Service) infoOf(ctx context.Context, id string) (tus.FileInfo, error) {
	if !isID.MatchString(id) {
		return tus.FileInfo{}, store.ErrNotFound
	}
	upload, err := s.pieces.GetUpload(ctx, id)
	if err != nil {
		return tus.FileInfo{}, err
	}
	return upload.GetInfo(ctx)
}

// theirs reports whether a clip that arrives is the caller's own, and takes one in that had
// arrived whole as the server stopped.
func (s *Service) theirs(ctx context.Context, id string) bool {
	c := api.CallerOf(ctx)
	info, err := s.infoOf(ctx, id)
	if err != nil || info.MetaData[saysPractice] != c.Practice || info.MetaData[saysPerson] != c.Linked.Person {
		return false
	}
	if c.Linked.Person == "" && info.MetaData[saysBy] != c.ID {
		return false
	}
	if info.Offset == info.Size {
		if err := s.take(ctx, c, info); err != nil {
			s.Log.WarnContext(ctx, "a clip that had arrived can't be kept", "clip", id, "error", err.Error())
		}
		return false // it is on its way no more
	}
	return true
}

// arrived takes a clip in whose last piece came, whether or not its sender still waits.
func (s *Service) arrived(hook tus.HookEvent) (tus.HTTPResponse, error) {
	if err := s.take(context.WithoutCancel(hook.Context), api.CallerOf(hook.Context), hook.Upload); err != nil {
		return tus.HTTPResponse{}, s.refused(hook.Context, err)
	}
	return tus.HTTPResponse{}, nil
}

// take looks at a film that arrived and keeps it. One that will never be kept is dropped;
// one that only can't be kept now is tried again when its sender asks after it.
func (s *Service) take(ctx context.Context, c api.Caller, info tus.FileInfo) error {
	path := filepath.Join(s.Store.Arriving(), info.ID)
	clip, err := looked(path, info.Size)
	if err == nil {
		said := info.MetaData
		clip.ID, clip.HorseID, clip.Name, clip.View, clip.FilmedOn = said[saysID], said[saysHorse], said[saysName], said[saysView], said[saysOn]
		clip.SentBy.ID = said[saysPerson]
		actor := store.Actor{Practice: said[saysPractice], User: said[saysBy], At: c.Now.UnixMilli()}
		err = s.Store.AddClip(ctx, actor, clip, path, s.room)
	}
	if errors.Is(err, store.ErrTaken) {
		err = nil // it is there
	}
	if err == nil || !passing(err) {
		s.drop(info.ID)
	}
	return err
}

// passing reports whether what stood in a film's way may be gone a moment later.
func passing(err error) bool {
	return slices.ContainsFunc([]error{store.ErrFull, store.ErrReadOnly, store.ErrDisk, store.ErrBusy, context.Canceled}, func(why error) bool { return errors.Is(err, why) })
}

// drop takes away what is left of an arrival.
func (s *Service) drop(id string) {
	for _, name := range []string{id, id + ".info", id + toldPlace} {
		if err := os.Remove(filepath.Join(s.Store.Arriving(), name)); err != nil && !errors.Is(err, fs.ErrNotExist) {
			s.Log.Warn("what is left of a clip that arrived can't be removed", "error", err.Error())
		}
	}
}

// Tidy drops what has not arrived for long.
func (s *Service) Tidy(context.Context) error {
	return s.eachUnderWay(func(id string, at time.Time) error {
		if s.Now().Sub(at) > Forgotten {
			s.drop(id)
		}
		return nil
	})
}
