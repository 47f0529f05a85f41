// Package house answers for what belongs to the practice as a whole: its rules, its copies,
// what goes out of it and what comes in.
package house

import (
	"context"
	"fmt"
	"net/http"
	"os"
	"path/filepath"
	"strings"
	"sync"
	"time"

	"ivorybridge/server/api"
	"ivorybridge/server/cases"
	"ivorybridge/store"
	"ivorybridge/store/archive"
	"ivorybridge/store/copies"
)

// Config says where copies lie and when they are made.
type Config struct {
	Copies copies.Folder // no Dir: none are made
	Hour   int           // of the day, 0 to 23, from which the day's copy is made
	Zone   *time.Location
}

// Service answers for the house.
type Service struct {
	*cases.Reader
	Config
	changed func()
	copying sync.Mutex
	begun   time.Time // the first round
	mu      sync.Mutex
	arrival map[string]*TakingIn // by practice: what comes in, or last came
}

// New registers what can be asked of the house. changed is called when what the horses are
// read from has changed.
func New(r *cases.Reader, c Config, changed func()) *Service {
	s := &Service{Reader: r, Config: c, changed: changed, arrival: map[string]*TakingIn{}}
	api.Operation(s.API, api.Staff, http.MethodGet, "/api/house", "house", "The copies, and what comes in", api.AtOnce(s.house))
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/house/copies", "copyNow", "Make a copy now", s.copyNow)
	api.Operation(s.API, api.LeadsOnly, http.MethodPost, "/api/people/{id}/erase", "erasePerson", "Erase what is known of a person; the track stays, without a name", s.erase)
	s.archives()
	s.ruleOperations()
	s.notebookOperations()
	s.homeOperations()
	return s
}

// House is how the practice is kept.
type House struct {
	Copies HouseCopies  `json:"copies"`
	Taking *TakingIn    `json:"taking,omitempty" doc:"what comes in, or last came"`
	Empty  bool         `json:"empty" doc:"it has no horses, people or yards: a whole practice can come in"`
	Lead   bool         `json:"lead" doc:"the caller may take out and in"`
	Horses []HouseHorse `json:"horses" doc:"by name"`
}

// HouseHorse is a horse that can be taken out.
type HouseHorse struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// HouseCopies are the copies that are made each night.
type HouseCopies struct {
	On     bool          `json:"on" doc:"copies are made"`
	Hour   int           `json:"hour" doc:"of the day, from which they are"`
	Days   int           `json:"days"`
	Weeks  int           `json:"weeks"`
	Months int           `json:"months"`
	List   []copies.Copy `json:"list" doc:"the newest first"`
	Shared bool          `json:"shared,omitempty" doc:"others have their practice in the same copies: what is in them is not counted here"`
	Wrong  string        `json:"wrong,omitempty" doc:"what is wrong with them, as a sentence"`
}

func (s *Service) house(ctx context.Context, c api.Caller, _ *struct{}) (House, error) {
	told, err := s.told(ctx, c)
	if err != nil {
		return House{}, err
	}
	view := House{Copies: told, Taking: s.taking(c.Practice), Lead: c.Role == store.Lead}
	horses, err := c.View.Horses(ctx, c.Practice)
	if err != nil {
		return House{}, err
	}
	view.Horses = make([]HouseHorse, 0, len(horses))
	for _, h := range horses {
		view.Horses = append(view.Horses, HouseHorse{h.ID, h.Name})
	}
	view.Empty, err = c.View.Bare(ctx, c.Practice)
	return view, err
}

// told tells of the copies. A folder that can't be read is said. Where there is more than one
// practice in the database, how much the others have is not told.
func (s *Service) told(ctx context.Context, c api.Caller) (HouseCopies, error) {
	k := s.Config.Copies.Kept
	view := HouseCopies{On: s.Config.Copies.Dir != "", Hour: s.Hour, Days: k.Days, Weeks: k.Weeks, Months: k.Months, List: []copies.Copy{}}
	if !view.On {
		return view, nil
	}
	practices, err := c.View.Practices(ctx)
	if err != nil {
		return view, err
	}
	list, unread := s.Config.Copies.List()
	if unread != nil {
		s.Log.ErrorContext(ctx, "the copies can't be looked at", "error", unread.Error())
	}
	view.Wrong, view.Shared = wrong(list, unread, c.Now), len(practices) > 1
	for _, one := range list {
		if view.Shared {
			one.Bytes, one.Horses, one.Sessions, one.Entries, one.Files = 0, 0, 0, 0, 0
		}
		view.List = append(view.List, one)
	}
	return view, nil
}

// late is how long after a copy the next should have been made.
const late = 36 * time.Hour

// wrong says what is wrong with the copies, or nothing.
func wrong(list []copies.Copy, err error, now time.Time) string {
	switch {
	case err != nil:
		return "The copies can't be looked at. Ask whoever keeps the server."
	case len(list) == 0:
		return ""
	case list[0].Failed != "":
		return "The last copy failed: " + list[0].Failed + ". It is tried again within the hour. Ask whoever keeps the server."
	case now.Sub(list[0].At) > late:
		return "No copy was made since " + list[0].At.In(now.Location()).Format("2 January 2006") + ". Ask whoever keeps the server."
	case list[0].Missing > 0:
		return "The last copy lacks pictures or films that are not where they were. Look for them in an older one."
	}
	return ""
}

func (s *Service) copyNow(ctx context.Context, c api.Caller, _ *struct{}) (HouseCopies, error) {
	if s.Config.Copies.Dir == "" {
		return HouseCopies{}, api.NewProblem(http.StatusConflict, "Copies are switched off on this server. Ask whoever keeps it.")
	}
	s.copying.Lock()
	defer s.copying.Unlock()
	if _, err := s.Config.Copies.Make(ctx, c.Now); err != nil {
		s.Log.ErrorContext(ctx, "a copy failed", "error", err.Error())
	}
	return s.told(ctx, c)
}

// Tidy takes away what a server that was killed left of what came in.
func (s *Service) Tidy(context.Context) error {
	dir := filepath.Dir(s.Store.Path())
	entries, err := os.ReadDir(dir)
	if err != nil {
		return fmt.Errorf("looking for what was left: %w", store.Placed(err))
	}
	for _, e := range entries {
		if !strings.HasPrefix(e.Name(), archive.Staging) && !strings.HasPrefix(e.Name(), arriving) {
			continue
		}
		if info, err := e.Info(); err == nil && s.Now().Sub(info.ModTime()) > left {
			err := os.RemoveAll(filepath.Join(dir, e.Name()))
			if err != nil {
				return fmt.Errorf("taking away what was left: %w", store.Placed(err))
			}
		}
	}
	return nil
}

// settled is for how long after its start a server has other things to do than a copy.
const settled = 10 * time.Minute

// left is after how long nobody is at work any more on what comes in.
const left = 24 * time.Hour

// Round makes the day's copy when it is due.
func (s *Service) Round(ctx context.Context) error {
	if s.Config.Copies.Dir == "" {
		return nil
	}
	s.copying.Lock()
	defer s.copying.Unlock()
	now := s.Now().In(s.Zone)
	if s.begun.IsZero() {
		s.begun = now
	}
	if now.Sub(s.begun) < settled {
		return nil
	}
	due, err := s.Config.Copies.Due(now, s.Hour)
	if err != nil || !due {
		return err
	}
	made, err := s.Config.Copies.Make(ctx, now)
	if err == nil {
		s.Log.InfoContext(ctx, "a copy was made", "bytes", made.Bytes, "horses", made.Horses, "sessions", made.Sessions, "entries", made.Entries)
	}
	return err
}

type erased struct {
	Say string `json:"say" doc:"what was erased, and what may still name the person"`
}

func (s *Service) erase(ctx context.Context, c api.Caller, in *api.ByID) (erased, error) {
	places, err := s.Store.ErasePerson(ctx, c.Actor(), in.ID)
	if err != nil {
		return erased{}, err
	}
	s.changed()
	say := "Name, number, address, notes, agreements, links and films of this person are erased. What the horses did stays, without a name."
	if places > 0 {
		say += " The name still stands in words that were typed, in " + count(places) + ": read the reports and assessments of these horses through."
	}
	return erased{say}, nil
}
