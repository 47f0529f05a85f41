package assess

import (
	"time"

	"ivorybridge/core/horse"
	"ivorybridge/core/phrase"
)

type sexes struct{}

func (sexes) Words() []string { return []string{"mare", "gelding", "stallion"} }

// Sex of the horse.
type Sex = horse.Word[sexes]

type pasts struct{}

func (pasts) Words() []string { return []string{"none", "ordinary", "unhappy", "unknown"} }

// Past is the ridden past.
type Past = horse.Word[pasts]

type energies struct{}

func (energies) Words() []string { return []string{"low", "usual", "high"} }

// Energy of the horse.
type Energy = horse.Word[energies]

type foods struct{}

func (foods) Words() []string { return []string{"yes", "no", "only after standing"} }

// Food says whether food may be used.
type Food = horse.Word[foods]

type hangs struct{}

func (hangs) Words() []string { return []string{"no wrinkle", "one wrinkle", "two wrinkles"} }

// Hung is how the bit hangs at the corner of the lips.
type Hung = horse.Word[hangs]

// Record is the horse's record, asked once. Dates are YYYY-MM-DD.
type Record struct {
	Sex          Sex      `json:"sex,omitzero" doc:"its sex"`
	Born         string   `json:"born,omitempty" format:"date" doc:"date of birth; the year's first day if only the year is known"`
	Gelded       string   `json:"gelded,omitempty" format:"date" doc:"day of gelding"`
	HeightMM     int      `json:"height_mm,omitempty" doc:"height at the withers, in millimetres"`
	WeightG      int      `json:"weight_g,omitempty" doc:"weight in grams"`
	Breed        string   `json:"breed,omitempty" maxLength:"120" doc:"breed, as the owner calls it"`
	Gaited       bool     `json:"gaited,omitempty" doc:"has a gait beside walk, trot and canter"`
	Rides        *int     `json:"rides,omitempty" minimum:"0" maximum:"100000" doc:"rides so far; empty: not known"`
	StartedBy    string   `json:"started_by,omitempty" maxLength:"120" doc:"who started it under saddle"`
	Arrived      string   `json:"arrived,omitempty" format:"date" doc:"day it came to this owner"`
	Living       string   `json:"living,omitempty" maxLength:"200" doc:"stable, field, herd, hours out"`
	LastWorked   string   `json:"last_worked,omitempty" format:"date" doc:"last day of work, as told"`
	RiddenPast   Past     `json:"ridden_past,omitzero" doc:"whether it has been ridden"`
	Energy       Energy   `json:"energy,omitzero" doc:"how much it wants to move"`
	Sensitivity  Energy   `json:"sensitivity,omitzero" doc:"how much it takes to be noticed"`
	Food         Food     `json:"food,omitzero" doc:"whether food is given"`
	BitHung      Hung     `json:"bit_hung,omitzero" doc:"how the bit hangs at the corner of the lips"`
	Things       []string `json:"things,omitempty" maxItems:"40" doc:"things it is said to have met and to take calmly"`
	Unhandled    bool     `json:"unhandled,omitempty" doc:"an unhandled adult"`
	GuardsItself bool     `json:"guards_itself,omitempty" doc:"tight, head high, no move at people"`
}

// Called is how a horse is spoken of to its owner: by name, and as he or she;
// by name alone where its sex is not written down.
func (r Record) Called(name string) phrase.Args {
	switch r.Sex.String() {
	case "mare":
		return phrase.Args{"horse": name, "he": "she", "him": "her", "his": "her"}
	case "":
		return phrase.Args{"horse": name, "he": name, "him": name, "his": name + "'s"}
	}
	return phrase.Args{"horse": name, "he": "he", "him": "him", "his": "his"}
}

// Young reports whether part 9's caps for young horses hold: under 3 years, or
// fewer than 10 rides.
func (r Record) Young(today string) bool {
	now, err := time.Parse(time.DateOnly, today)
	if err != nil {
		return false
	}
	born, err := time.Parse(time.DateOnly, r.Born)
	return err == nil && born.AddDate(3, 0, 0).After(now) || r.Rides != nil && *r.Rides < 10
}
